// Preventers: the stack on the string in hand, to scale on its head; an element closes on a click on what is across it.
import { useEffect, useMemo, useState } from "react";
import { useTab } from "../../design/address";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { useReference } from "../../design/reference";
import type { StackItem, StackMoment, StackRow } from "../../design/types";
import { StackUp } from "../../stackup/StackUp";
import { FieldRow } from "../../ui/DocField";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { StringPicker } from "../../ui/StringPicker";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { useUnits } from "../../ui/units";
import { TABS } from "../tabs";
import { Between } from "./Between";
import { closedOn, told, wordsOf } from "./closing";
import { ClosingUnit } from "./ClosingUnit";
import { Coverage } from "./Coverage";
import { Shearing } from "./Shearing";
import { Stack, TypedElements } from "./Stack";
import { TestPlan } from "./TestPlan";
import { pressured } from "./testing";

export function PreventersBench() {
  const { selected, select } = useBench();
  const rows = useEvaluated((e) => e.preventers.strings);
  const first = rows?.findIndex((row) => carries(row)) ?? -1;
  const row = rows?.[selected];
  const applies = row !== undefined && carries(row);
  useEffect(() => {
    // a liner carries no stack: the one above it is taken
    if (!applies && first >= 0) select(above(rows!, selected) ?? first);
  }, [applies, first, rows, select, selected]);
  if (!applies) return <Unworked />;
  return <Bench key={selected} row={row} rows={rows!} />;
}

/** What is typed, while no stack follows: an entry may wait there to be mended. */
function Unworked() {
  const stacks = useDocument((d) => d.preventers.map((s) => s.id).join(" "));
  const keys = useReference().keys("/closing_unit");
  const ids = stacks === "" ? [] : stacks.split(" ");
  return (
    <Panel title="BOP stacks">
      <Scroll label="BOP stacks">
        <Empty>
          {ids.length > 0
            ? "What follows is worked once the entry named at the right is mended."
            : "No stack follows yet: it needs strings and surface pressures."}
        </Empty>
        {ids.map((id, at) => (
          <TypedElements key={id} at={at} />
        ))}
        {keys.map((key) => (
          <FieldRow key={key} path={`/closing_unit/${key}`} />
        ))}
      </Scroll>
    </Panel>
  );
}

const carries = (row: StackRow) => row.elements.length > 0 || row.pressure_psi !== null;

function above(rows: readonly StackRow[], selected: number): number | undefined {
  for (let i = selected; i >= 0; i -= 1) if (rows[i] !== undefined && carries(rows[i]!)) return i;
  return undefined;
}

function Bench({ row, rows }: { row: StackRow; rows: readonly StackRow[] }) {
  const { selected } = useBench();
  const [across, setAcross] = useState(0);
  const [shut, setShut] = useState<number | null>(null);
  const [test, setTest] = useState<number | null>(null);
  const [tab, setTab] = useTab("stack");
  const contents = {
    stack: <Stack row={row} />,
    coverage: <Coverage row={row} across={across} onAcross={setAcross} shut={shut} onShut={setShut} />,
    shear: <Shearing row={row} />,
    unit: <ClosingUnit row={row} />,
    tests: <TestPlan row={row} shown={test} onShow={setTest} />,
    steps: <Between row={row} />,
  };
  const value = tab in contents ? tab : "stack";
  return (
    <Panel title="BOP stacks" actions={<SavePicture title="Stack-up" />}>
      <StringPicker rows={rows.map((r) => ({ applies: carries(r) }))} />
      <div className="flex min-h-0 flex-1 gap-3 stacked:flex-col">
        <Drawing
          row={row}
          string={selected}
          across={across}
          onAcross={setAcross}
          shut={shut}
          onShut={setShut}
          test={value === "tests" ? test : null}
        />
        <div className="flex min-h-0 min-w-0 flex-1 flex-col">
          <Tabs label="BOP stack" value={value} onChange={setTab} tabs={tabsOf(TABS.preventers, contents)} />
        </div>
      </div>
    </Panel>
  );
}

interface DrawingProps {
  row: StackRow;
  string: number;
  across: number;
  onAcross: (row: number) => void;
  shut: number | null;
  onShut: (element: number | null) => void;
  test: number | null;
}

/** The drawing with what is across it, and what the element that was closed does. */
function Drawing({ row, string, across, onAcross, shut, onShut, test }: DrawingProps) {
  const { goTo } = useBench();
  const units = useUnits();
  const moment = useMoment(string);
  const pieces = useEvaluated((e) => e.wellhead.pieces);
  const cover = row.coverage[Math.min(across, row.coverage.length - 1)];
  if (moment === null) return null;
  const onPick = (item: StackItem) => {
    if (item.step !== "preventers" || item.element == null)
      goTo("wellhead", item.place.startsWith("/wellhead/pieces/") ? `${item.place}/height_in` : item.place);
    else if (/rams$|^annular$|^diverter$/.test(item.kind)) onShut(shut === item.element ? null : item.element);
  };
  const lit = moment.items.findIndex((item) => item.step === "preventers" && item.element === shut);
  const said = cover !== undefined && shut !== null ? told(row, cover, shut, units.words(wordsOf(cover.what))) : null;
  return (
    <div className="flex min-h-0 flex-col">
      <select
        className="cell mb-1 w-[300px] shrink-0 bg-sheet"
        aria-label="Across the stack"
        value={across}
        onChange={(event) => {
          onAcross(Number(event.target.value));
        }}
      >
        {row.coverage.map((c, i) => (
          <option key={i} value={i} className="bg-sheet text-ink">
            {units.words(wordsOf(c.what))} · {units.words(wordsOf(c.when))}
          </option>
        ))}
      </select>
      <StackUp
        moment={moment}
        lit={lit < 0 ? null : lit}
        onPick={onPick}
        across={test === null && cover !== undefined ? { odIn: cover.od_in } : null}
        closedOf={(item) => (test === null ? closedOn(cover, shut, item) : null)}
        lines={{ choke: row.choke ?? null, kill: row.kill ?? null }}
        pressured={test === null ? null : pressured(row, test, pieces ?? [], moment)}
        toRotary={false}
        label="Stack on its head, to scale; choose an element to close it"
      />
      <p role="status" className={`w-[300px] shrink-0 py-1 text-[12.5px] ${said !== null && !said.good ? "text-brick" : ""}`}>
        {said?.words ?? <span className="text-mute">Choose an element to close it on what is across.</span>}
      </p>
    </div>
  );
}

function useMoment(string: number): StackMoment | null {
  const moments = useEvaluated((e) => e.preventers.moments);
  return useMemo(
    () => moments?.find((m) => m.string === string && m.items.some((item) => item.step === "preventers")) ?? null,
    [moments, string],
  );
}
