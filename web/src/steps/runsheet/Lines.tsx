// The steps of the sheet: only those in view are drawn; arrows go from step to step, Alt and the arrows move one.
import { useVirtualizer } from "@tanstack/react-virtual";
import type { KeyboardEvent } from "react";
import { useCallback, useEffect, useRef } from "react";
import { useBench } from "../../design/context";
import type { LineChange, LineRow } from "../../design/types";
import { useUnits } from "../../ui/units";
import { editOf, editStep, moveBy, removeStep } from "./edits";
import { sectionOf } from "./filter";
import { Line } from "./Line";

interface LinesProps {
  lines: readonly LineRow[];
  shown: readonly LineRow[];
  changes: ReadonlyMap<string, LineChange> | undefined;
  picked: string;
  onPick: (key: string) => void;
}

const ROW_PX = 46;
const OVERSCAN = 8;

export function Lines({ lines, shown, changes, picked, onPick }: LinesProps) {
  const { session } = useBench();
  const units = useUnits();
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers are used here and now, and never kept
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    getItemKey: (i) => shown[i]!.key,
    overscan: OVERSCAN,
  });
  const at = shown.findIndex((l) => l.key === picked);
  const seen = useRef("");
  useEffect(() => {
    // what is picked from elsewhere is brought into view, once
    if (at < 0 || seen.current === picked) return;
    seen.current = picked;
    rows.scrollToIndex(at, { align: "auto" });
  }, [at, picked, rows]);
  const go = useCallback(
    (index: number) => {
      const line = shown[index];
      if (line === undefined) return;
      seen.current = line.key;
      onPick(line.key);
      rows.scrollToIndex(index, { align: "auto" });
      requestAnimationFrame(() => {
        box.current?.querySelector<HTMLElement>(`[data-step="${CSS.escape(line.key)}"] button`)?.focus();
      });
    },
    [shown, onPick, rows],
  );
  /** Once it has opened, all of it is to be seen. */
  const bringIn = (key: string) => {
    requestAnimationFrame(() => {
      box.current?.querySelector(`[data-step="${CSS.escape(key)}"]`)?.scrollIntoView({ block: "nearest" });
    });
  };
  const move = (line: LineRow, by: 1 | -1) => {
    const changed = moveBy(session.snapshot().document, lines, lines.indexOf(line), by);
    if (changed !== null) session.edit(changed);
    seen.current = "";
  };
  const cross = (line: LineRow) => {
    const { document } = session.snapshot();
    session.edit(
      line.own === ""
        ? editStep(document, line.key, { crossed: !editOf(document.runsheet, line.key)?.crossed })
        : removeStep(document, line.own),
    );
  };
  const headingOf = (line: LineRow) => {
    const section = sectionOf(line);
    if (section === "site") return "Before the spud";
    return section === "end" ? "End of the well" : units.words(line.section);
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key] as 1 | -1 | undefined;
    if (by !== undefined && event.altKey) move(shown[index]!, by);
    else if (by !== undefined) go(index + by);
    else if (event.key === "Delete") cross(shown[index]!);
    else if (event.key === "Home") go(0);
    else if (event.key === "End") go(shown.length - 1);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div ref={box} className="min-h-0 flex-1 overflow-auto border-t border-rule" tabIndex={-1} role="region" aria-label="Steps">
      {shown.length === 0 && <p className="py-3 text-mute">No step is like that.</p>}
      <ol className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((item) => {
          const line = shown[item.index]!;
          return (
            <li
              key={line.key}
              ref={rows.measureElement}
              data-index={item.index}
              data-step={line.key}
              value={line.number}
              aria-setsize={shown.length}
              aria-posinset={item.index + 1}
              className="absolute left-0 w-full list-none"
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <Line
                line={line}
                heading={item.index === 0 || sectionOf(shown[item.index - 1]!) !== sectionOf(line) ? headingOf(line) : null}
                change={changes?.get(line.key)}
                open={line.key === picked}
                first={item.index === (at < 0 ? 0 : at)}
                onOpen={() => {
                  seen.current = line.key;
                  onPick(line.key === picked ? "" : line.key);
                  if (line.key !== picked) bringIn(line.key);
                }}
                onKey={(event) => {
                  onKey(event, item.index);
                }}
                onMove={(by) => {
                  move(line, by);
                }}
                onCross={() => {
                  cross(line);
                }}
              />
            </li>
          );
        })}
      </ol>
    </div>
  );
}
