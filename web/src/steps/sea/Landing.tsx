// Casing landed on drill pipe: its pull with heave, and what holds it; and gas that got past the stack.
import { useDocument, useEvaluated } from "../../design/context";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function Landing() {
  const units = useUnits();
  const rows = useEvaluated((e) => e.sea.landing) ?? [];
  const limit = useDocument((d) => d.site.hook_load_limit_lbf);
  if (rows.length === 0) return <Empty>No string is landed yet.</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <section aria-label="Landing strings">
        <Titled title="Landing strings" note="greatest pull of each run, picked up">
          <Facts
            label="Landing strings"
            heads={[
              { title: "String" },
              { title: "Through", left: true },
              { title: "Drill pipe", unit: units.unit("size") },
              { title: "On the hook", unit: units.unit("force") },
              { title: "With heave", unit: units.unit("force") },
              { title: "Drill pipe stands", unit: units.unit("force") },
            ]}
            bad={(r) => over(rows[r]!.heaved_lbf, limit) || over(less(rows[r]!.heaved_lbf, rows[r]!.block_lbf), rows[r]!.strength_lbf)}
            rows={rows.map((row) => [
              units.words(row.what),
              row.through,
              units.number(row.pipe_in, "size"),
              row.hook_lbf === null ? "unknown" : units.number(row.hook_lbf, "force"),
              <Headline key="h" working={row.working} title="pull with heave">
                {row.heaved_lbf === null ? "unknown" : units.number(row.heaved_lbf, "force")}
              </Headline>,
              units.number(row.strength_lbf, "force"),
            ])}
          />
        </Titled>
        <p className="mt-1 text-[12px] text-mute">
          The block is part of what is on the hook, and no part of what the drill pipe carries. Before the riser is on, the string hangs in
          sea water.
        </p>
        <div className="mt-2">
          <FieldRow path="/site/hook_load_limit_lbf" />
          <FieldRow path="/site/block_lbf" />
          <FieldRow path="/policy/sea/heave_share" />
          <FieldRow path="/policy/sea/landing_share" />
        </div>
      </section>
      <Riserless />
      <Gas />
    </div>
  );
}

function over(load: number | null | undefined, most: number | null | undefined): boolean {
  return load != null && most != null && load > most;
}

function less(load: number | null, block: number | null): number | null {
  return load === null ? null : load - (block ?? 0);
}

/** Holes drilled before the riser is on: what fills them before casing is run. */
function Riserless() {
  const units = useUnits();
  const rows = useEvaluated((e) => e.sea.riserless) ?? [];
  return (
    <section aria-label="Riserless holes">
      <Titled title="Riserless holes" note="returns to the sea floor; sweeps stand under Mud">
        {rows.map((row) => (
          <div key={row.string}>
            <Outcome label={`${units.words(row.what)}, as drilled`} value={row.hole_bbl} quantity="volume" />
            {row.pad_bbl !== null && <Outcome label="Pad mud to spot" value={row.pad_bbl} quantity="volume" working={row.working} />}
          </div>
        ))}
        <FieldRow path="/sea/pad_mud_ppg" />
        <FieldRow path="/policy/sea/pad_share" />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">
        Casing is run with the high-pressure housing on top, on its landing string; cement is pumped until the camera sees it at the
        mudline.
      </p>
    </section>
  );
}

function Gas() {
  const found = useEvaluated((e) => e.sea.diverter);
  if (found == null) return null;
  const bad = found.collapse_psi !== null && found.empty_psi > found.collapse_psi;
  return (
    <section aria-label="Gas in the riser">
      <Titled title="Gas in the riser" note="a kick of policy's volume that got past the stack">
        <Outcome label="Gas at the stack" value={found.kick_bbl} quantity="volume" />
        <Outcome label="Under, at the stack on the sea floor" value={found.at_stack_psi} quantity="pressure" />
        <Outcome label="The same at the flow line" value={found.at_flow_line_bbl} quantity="volume" working={found.working} />
        <Outcome label="Sea over an empty riser, at its foot" value={found.empty_psi} quantity="pressure" bad={bad} />
        <FieldRow path="/sea/riser/collapse_psi" />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">
        Gas above the stack is never shut in: open the downwind line, close the diverter, and let it come slowly. Local rules and the rig's
        own procedure decide.
      </p>
    </section>
  );
}
