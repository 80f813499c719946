// The tubing spaced out over its packer: what each case does to its length, what the packer holds, and its strength.
import { useBench, useDocument } from "../../design/context";
import type { CompletionRow, TubingRow } from "../../design/types";
import { DocNumber, DocText, FieldLabel, FieldRow, UnitOf } from "../../ui/DocField";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function Tubing({ row }: { row: TubingRow }) {
  const units = useUnits();
  const size = `${units.text(row.od_in, "size")} ${units.number(row.weight_ppf, "linear_weight")} ${units.unit("linear_weight")}`;
  const note = `${size} ${row.grade} ${row.connection}${row.decided ? "" : ", proposed"}`;
  const inch = units.unit("height");
  return (
    <section aria-label="Tubing">
      <Titled title="Tubing, changes of length" note={`${note}; shortening is below zero`}>
        <Facts
          label="Changes of length of the tubing, case by case"
          heads={[
            { title: "Case" },
            { title: "In, packer", unit: units.unit("pressure") },
            { title: "Out, packer", unit: units.unit("pressure") },
            { title: "Heat", unit: units.unit("temperature_change") },
            { title: "Piston", unit: inch },
            { title: "Buckling", unit: inch },
            { title: "Ballooning", unit: inch },
            { title: "Temperature", unit: inch },
            { title: "Together", unit: inch },
            { title: "End moves up", unit: inch },
            { title: "On packer", unit: units.unit("force") },
          ]}
          rows={row.cases.map((c) => [
            <span key="n" className="whitespace-nowrap">
              {c.name}
            </span>,
            units.number(c.inside_packer_psi, "pressure"),
            units.number(c.outside_packer_psi, "pressure"),
            c.heat_f === null ? "unknown" : units.number(c.heat_f, "temperature_change"),
            units.number(c.piston_in, "height"),
            units.number(c.buckling_in, "height"),
            units.number(c.ballooning_in, "height"),
            c.heat_f === null ? "unknown" : units.number(c.temperature_in, "height"),
            <Headline key="t" working={c.working} title={`change of length, ${c.name}`}>
              {units.number(c.total_in, "height")}
            </Headline>,
            units.number(c.moved_in, "height"),
            units.number(c.on_packer_lbf, "force"),
          ])}
        />
        <p className="mt-1 text-[12px] text-mute">
          Counted from the tubing as spaced out. What the packer holds keeps the rest of the change from moving the end; below zero it
          pulls.
        </p>
      </Titled>
      <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-3 max-[1180px]:grid-cols-1">
        <Titled title="Spacing out">
          <Outcome label="Hanger to packer" value={row.length_ft} quantity="length" />
          <Outcome
            label="Joints"
            value={row.joints}
            quantity="count"
            note={row.pups_ft.length > 0 ? `and pups of ${row.pups_ft.map((p) => units.text(p, "length")).join(", ")}` : undefined}
          />
          <Outcome label="Left over" value={row.spaced_off_ft} quantity="length" />
          <Outcome label="Slacked off" value={row.slack_off_in} quantity="height" working="completion/tubing/case/0" />
          <Outcome label="On the hanger" value={row.hanging_lbf} quantity="force" />
          <Outcome
            label="Seals move"
            value={row.up_in + row.down_in}
            quantity="height"
            note={`of ${units.text(row.stroke_ft, "length")}`}
            bad={row.up_in + row.down_in > row.stroke_ft * 12}
          />
        </Titled>
        <Titled title="Strength">
          <Facts
            label="Strength of the tubing"
            heads={[
              { title: "Load" },
              { title: "Governed by", left: true },
              { title: "At", unit: units.unit("depth") },
              { title: "Factor" },
              { title: "Asked" },
            ]}
            bad={(r) => row.loads[r]!.factor < row.loads[r]!.required}
            rows={row.loads.map((load) => [
              load.kind,
              load.case,
              units.number(load.md_ft, "depth"),
              <Headline key="f" working={load.working} title={`${load.kind} of the tubing`}>
                {units.number(load.factor, "factor")}
              </Headline>,
              units.number(load.required, "factor"),
            ])}
          />
        </Titled>
      </div>
    </section>
  );
}

const KEYS = ["od_in", "weight_ppf", "grade", "connection"] as const;

/** What is decided of fluid, packer and tubing. */
export function TubingFields({ row }: { row: CompletionRow }) {
  const { session } = useBench();
  const held = useDocument((d) => d.completion.tubing);
  const { tubing } = row;
  return (
    <section aria-label="Packer and tubing">
      <Titled title="Packer and tubing">
        <FieldRow path="/completion/fluid_ppg" proposed={row.fluid_ppg} />
        <FieldRow path="/completion/packer_md_ft" proposed={row.packer_md_ft} />
        <FieldRow path="/completion/packer" />
        <FieldRow path="/completion/packer_bore_in" proposed={tubing?.seal_bore_in} />
        <FieldRow path="/completion/hold" />
        <FieldRow path="/completion/stroke_ft" proposed={tubing?.stroke_ft} />
        <FieldRow path="/completion/slack_off_lbf" proposed={tubing?.slack_off_lbf} />
        {["shut_in_psi", "flowing_psi", "treating_psi", "treating_ppg", "treating_fluid_f", "annulus_psi"].map((key) => (
          <FieldRow key={key} path={`/completion/${key}`} proposed={key === "shut_in_psi" ? row.shut_in_psi : undefined} />
        ))}
        {held == null ? (
          <p className="mt-1 flex items-center gap-2 text-[12px] text-mute">
            The cheapest tubing that stands every case is taken.
            {tubing !== null && (
              <Button
                className="shrink-0"
                onClick={() => {
                  const value = Object.fromEntries(KEYS.map((key) => [key, tubing[key]]));
                  session.edit([{ path: "/completion/tubing", value }]);
                }}
              >
                Decide it
              </Button>
            )}
          </p>
        ) : (
          <>
            {KEYS.map((key) => (
              <div key={key} className="grid grid-cols-[1fr_5.5rem_3rem] items-center border-b border-rule/60 py-px">
                <FieldLabel path={`/completion/tubing/${key}`} />
                {key === "od_in" || key === "weight_ppf" ? (
                  <DocNumber path={`/completion/tubing/${key}`} />
                ) : (
                  <DocText path={`/completion/tubing/${key}`} />
                )}
                <span className="pl-1.5 text-mute">
                  <UnitOf path={`/completion/tubing/${key}`} />
                </span>
              </div>
            ))}
            <Button
              className="mt-1"
              onClick={() => {
                session.edit([{ path: "/completion/tubing", value: null }]);
              }}
            >
              Leave it to the proposal
            </Button>
          </>
        )}
      </Titled>
    </section>
  );
}
