// The closing unit: what the rig has, what the functions of policy ask of it, and how fast each element closes.
import { useReference } from "../../design/reference";
import type { StackRow } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Outcome } from "../../ui/Outcome";
import { useUnits } from "../../ui/units";

export function ClosingUnit({ row }: { row: StackRow }) {
  const keys = useReference().keys("/closing_unit");
  const found = row.accumulators;
  const proposed: Record<string, number | null | undefined> = {
    bottles: found?.bottles_needed,
    precharge_psi: found?.precharge_psi,
  };
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <section aria-label="Closing unit">
        {keys.map((key) => (
          <FieldRow key={key} path={`/closing_unit/${key}`} proposed={proposed[key]} />
        ))}
        <FieldRow path="/policy/preventers/functions" />
        <FieldRow path="/policy/preventers/gas" />
      </section>
      {found != null && <Fluid found={found} />}
      <Times row={row} />
    </div>
  );
}

function Fluid({ found }: { found: NonNullable<StackRow["accumulators"]> }) {
  const units = useUnits();
  return (
    <section aria-label="Fluid of this stack">
      <h3 className="mb-0.5 text-[13px] font-semibold">Fluid of this stack</h3>
      {found.functions.map(([title, gallons], i) => (
        <div key={i} className="grid grid-cols-[1fr_auto] border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>{title}</span>
          <span>{units.text(gallons, "gallons")}</span>
        </div>
      ))}
      <Outcome label="Together" value={found.needed_gal} quantity="gallons" />
      <Outcome label="Precharge" value={found.precharge_psi} quantity="pressure" />
      <Outcome label="Left in the bottles" value={found.minimum_psi} quantity="pressure" />
      <Outcome label="Usable of a bottle" value={found.usable_gal} quantity="gallons" working={found.working} />
      <Outcome
        label="Bottles needed"
        value={found.bottles_needed}
        quantity="count"
        working={found.working}
        bad={found.bottles !== null && found.bottles_needed !== null && found.bottles < found.bottles_needed}
        note={found.bottles === null ? "none given" : `of ${found.bottles}`}
      />
      <Outcome label="Charged by the pumps in" value={found.charging_minutes} quantity="minutes" />
    </section>
  );
}

function Times({ row }: { row: StackRow }) {
  const units = useUnits();
  if (row.closing.length === 0) return null;
  return (
    <section aria-label="Closing times">
      <h3 className="mb-0.5 text-[13px] font-semibold">Closing times</h3>
      <Facts
        label="Closing times"
        heads={[{ title: "Element" }, { title: "Closes in", unit: units.unit("seconds") }, { title: "Asked", unit: units.unit("seconds") }]}
        bad={(r) => (row.closing[r]!.seconds ?? 0) > row.closing[r]!.allowed_seconds}
        rows={row.closing.map((c) => [
          row.elements[c.element]!.title,
          c.seconds === null ? "–" : units.number(c.seconds, "seconds"),
          units.number(c.allowed_seconds, "seconds"),
        ])}
      />
      <p className="mt-1 text-[12px] text-mute">Worked where the flow to one element is given; a function test says it for certain.</p>
    </section>
  );
}
