// The completion as it is run: perforations, packer, tubing with its four changes of length, tree, and the order of the work.
import { useDocument, useEvaluated } from "../../design/context";
import type { CompletionRow, TreeRow } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Outcome } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { Tubing, TubingFields } from "./Tubing";

export function Completed() {
  const row = useEvaluated((e) => e.completion.completion);
  const decided = useDocument((d) => d.completion.decision) === "complete";
  if (row == null) return <Empty>No completion follows yet: the well needs a production string.</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      {!decided && (
        <p className="text-[12.5px] text-mute">Not what is decided at total depth: it is worked beside it, and nothing of it is told.</p>
      )}
      <div className="grid grid-cols-2 gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
        <Perforating row={row} />
        <CleanUp row={row} />
      </div>
      {row.tubing === null ? <Empty>No tubing is judged: see the findings.</Empty> : <Tubing row={row.tubing} />}
      <div className="grid grid-cols-2 gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
        <TubingFields row={row} />
        <Tree row={row.tree} />
      </div>
      <Titled title="In order">
        <ol className="list-decimal pl-5 text-[12.5px]">
          <Steps row={row} />
        </ol>
      </Titled>
    </div>
  );
}

function Steps({ row }: { row: CompletionRow }) {
  const units = useUnits();
  return row.steps.map((words, i) => (
    <li key={i} className="py-px">
      {units.words(words)}
    </li>
  ));
}

function Perforating({ row }: { row: CompletionRow }) {
  const units = useUnits();
  const pay = row.perforated.map(([top, base]) => `${units.number(top, "depth")} to ${units.text(base, "depth")}`).join(", ");
  return (
    <section aria-label="Perforating">
      <Titled title="Perforations">
        <Grid
          title="Perforations"
          className="font-narrow"
          target="perforations"
          path="/completion/perforations"
          columns={["top_md_ft", "bottom_md_ft", { key: "shots_ft", label: "Shots/ft" }]}
          sortBy="top_md_ft"
          newRow={(given) => {
            const top = Number(given[given.length - 1]?.bottom_md_ft ?? row.perforated[0]?.[0] ?? 1000) + 20;
            return { top_md_ft: Math.round(top), bottom_md_ft: Math.round(top) + 30, shots_ft: 6 };
          }}
          empty={pay === "" ? "None, and no pay is known behind the production string." : `None decided: the pay, ${pay}.`}
        />
        <FieldRow path="/completion/perforated" />
        <FieldRow path="/completion/underbalance_psi" proposed={row.clean?.underbalance_psi} />
      </Titled>
    </section>
  );
}

function CleanUp({ row }: { row: CompletionRow }) {
  const clean = row.clean;
  if (clean === null) return null;
  return (
    <section aria-label="Clean-up">
      <Titled title="Drill-out, clean-up, guns">
        <Outcome label="Drilled out and cleaned to" value={clean.clean_to_md_ft} quantity="depth" />
        <Outcome label="Casing holds" value={clean.volume_bbl} quantity="volume" working="completion/clean" />
        <Outcome label="Pumped to displace the mud" value={clean.pumped_bbl} quantity="volume" />
        <Outcome label="Formation at the top shot" value={clean.formation_psi} quantity="pressure" working="completion/perforating" />
        <Outcome label="In the hole when the guns fire" value={clean.hole_psi} quantity="pressure" working="completion/perforating" />
        {clean.level_md_ft !== null && clean.level_md_ft > 0 && (
          <Outcome label="Fluid in the tubing up to, TVD" value={clean.level_md_ft} quantity="depth" working="completion/perforating" />
        )}
        {clean.shots !== null && <Outcome label="Shots" value={clean.shots} quantity="count" />}
      </Titled>
    </section>
  );
}

function Tree({ row }: { row: TreeRow | null }) {
  const units = useUnits();
  const valve = useDocument((d) => d.completion.back_pressure_valve);
  return (
    <section aria-label="Tree">
      <Titled title="Tree" note={valve === false ? "no back-pressure valve" : "back-pressure valve in before the BOPs come off"}>
        {["class_psi", "bore_in", "safety_valves", "wings", "orientation_deg"].map((key) => (
          <FieldRow key={key} path={`/completion/tree/${key}`} proposed={key === "class_psi" ? row?.class_psi : undefined} />
        ))}
        <FieldRow path="/completion/back_pressure_valve" />
        {row !== null && (
          <Facts
            label="Valves of the tree"
            heads={[
              { title: "From the tubing head up" },
              { title: "Class", unit: units.unit("pressure") },
              { title: "Test", unit: units.unit("pressure") },
              { title: "Shuts by itself", left: true },
            ]}
            rows={row.valves.map((v) => [
              v.side === "wing" ? <span className="pl-3">{v.name}</span> : v.name,
              units.number(v.class_psi, "pressure"),
              units.number(v.test_psi, "pressure"),
              v.safety ? "yes" : "–",
            ])}
          />
        )}
        {row === null ? (
          <p className="text-[12px] text-mute">Its class is not known: no wellhead is.</p>
        ) : (
          <p className="mt-1 text-[12px] text-mute">
            {row.flange === null ? "" : `On the tubing head's ${row.flange}. `}Sees {units.text(row.needed_psi, "pressure")} at most; drawn
            on the stack-up of the wellhead, completed.
          </p>
        )}
      </Titled>
    </section>
  );
}
