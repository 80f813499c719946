// The designs of every well: sought, sorted, each with its steps, what is open in it, and its strings at a glance. Of many
// only those in view are drawn. Up and down go from one to the next, Enter opens it, / seeks.
import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { DesignItem } from "../design/types";
import { DesignRow, ROW_PX } from "./DesignRow";
import type { SortKey, Sorting } from "./order";
import { listed } from "./order";
import { useSummaries } from "./useSummaries";

interface DesignTableProps {
  designs: readonly DesignItem[];
  onDelete: (wellId: number) => void;
  onCopy: (wellId: number) => void;
}

export function DesignTable({ designs, onDelete, onCopy }: DesignTableProps) {
  const [sought, setSought] = useState("");
  const [sorting, setSorting] = useState<Sorting>({ key: "saved", descending: true });
  const [at, setAt] = useState(0);
  const focusWanted = useRef(false);
  const search = useRef<HTMLInputElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [known, setInView] = useSummaries(designs);
  const rows = useMemo(() => listed(known, sought, sorting), [known, sought, sorting]);
  const cursor = Math.max(0, Math.min(at, rows.length - 1));
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers are used here and now, and never kept
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
    rangeExtractor: (range) => [...new Set([...defaultRangeExtractor(range), cursor])].filter((i) => i < rows.length).sort((a, b) => a - b),
  });
  const items = virtual.getVirtualItems();
  const shown = items.map(({ index }) => rows[index]?.design).filter((d) => d !== undefined);
  useEffect(() => {
    setInView(shown);
  });

  const focusRow = (row: number) => {
    const link = box.current?.querySelector<HTMLElement>(`[data-design-row="${row}"] a`);
    focusWanted.current = !link;
    link?.focus();
    link?.scrollIntoView({ block: "nearest" });
  };
  useLayoutEffect(() => {
    if (focusWanted.current) focusRow(cursor);
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, select, textarea, [role=dialog]") !== null;
      if (event.key !== "/" || typing) return;
      event.preventDefault();
      search.current?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener("keydown", onKey);
    };
  }, []);

  const go = (row: number) => {
    const to = Math.max(0, Math.min(row, rows.length - 1));
    setAt(to);
    focusRow(to);
  };
  const moves: Record<string, number> = { ArrowDown: cursor + 1, ArrowUp: cursor - 1, PageDown: cursor + 10, PageUp: cursor - 10 };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const inside = event.target instanceof HTMLElement && event.target.closest("[data-design-row]") !== null;
    const to = event.target === search.current ? (event.key === "ArrowDown" ? cursor : undefined) : inside ? moves[event.key] : undefined;
    if (to === undefined || rows.length === 0) return;
    event.preventDefault();
    go(to);
  };
  let reached = 0;
  const wells = new Set(rows.map((r) => r.design.well_id)).size;
  return (
    <section aria-label="All wells" className="flex min-h-0 flex-1 flex-col">
      <div className="mb-2 flex items-baseline gap-3">
        <input
          ref={search}
          type="search"
          className="cell max-w-72 border-rule! bg-sheet!"
          aria-label="Find a well"
          placeholder="find by well, design or person  ( / )"
          value={sought}
          onChange={(event) => {
            setSought(event.target.value);
            setAt(0);
          }}
          onKeyDown={onKeyDown}
        />
        <span role="status" className="text-[12px] text-mute">
          {rows.length === 0 ? "No well of that name." : `${counted(wells, "well")}, ${counted(rows.length, "design")}`}
        </span>
      </div>
      {/* eslint-disable-next-line jsx-a11y/no-static-element-interactions -- the keys are those of the links inside */}
      <div ref={box} className="min-h-0 flex-1 overflow-auto bg-sheet" onKeyDown={onKeyDown}>
        <table className="w-full border-collapse" aria-label="Designs" aria-rowcount={rows.length + 1}>
          <thead className="sticky top-0 z-10 bg-sheet">
            <tr className="text-left text-[12px] text-mute">
              <th className="w-14 border-b border-rule">
                <span className="sr-only">drawing</span>
              </th>
              <SortHead title="Well" of="well" sorting={sorting} onSort={setSorting} />
              <th className="border-b border-rule px-2 font-normal">Design</th>
              <th className="border-b border-rule px-2 font-normal">Steps</th>
              <SortHead title="Open findings" of="findings" sorting={sorting} onSort={setSorting} />
              <SortHead title="Last saved" of="saved" sorting={sorting} onSort={setSorting} />
              <th className="w-16 border-b border-rule">
                <span className="sr-only">copy, delete</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {items.map(({ index, start, end }) => {
              const row = rows[index];
              if (row === undefined) return null;
              const gap = start - reached;
              reached = end;
              return (
                <DesignRow
                  key={row.design.id}
                  row={row}
                  index={index}
                  gapPx={gap}
                  inHand={index === cursor}
                  onFocus={() => {
                    setAt(index);
                  }}
                  onDelete={onDelete}
                  onCopy={onCopy}
                />
              );
            })}
            {virtual.getTotalSize() > reached && (
              <tr aria-hidden>
                <td style={{ height: virtual.getTotalSize() - reached }} />
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const counted = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;

interface SortHeadProps {
  title: string;
  of: SortKey;
  sorting: Sorting;
  onSort: (sorting: Sorting) => void;
}

/** A column by which the list is sorted: pressed again, the other way round. */
function SortHead({ title, of, sorting, onSort }: SortHeadProps) {
  const chosen = sorting.key === of;
  return (
    <th
      className="border-b border-rule px-2 py-0.5 font-normal"
      aria-sort={chosen ? (sorting.descending ? "descending" : "ascending") : undefined}
    >
      <button
        type="button"
        className={chosen ? "font-semibold text-ink" : "hover:text-petrol"}
        onClick={() => {
          onSort({ key: of, descending: chosen ? !sorting.descending : of !== "well" });
        }}
      >
        {title} <span aria-hidden>{chosen ? (sorting.descending ? "↓" : "↑") : ""}</span>
      </button>
    </th>
  );
}
