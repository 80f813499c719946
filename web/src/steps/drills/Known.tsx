// What is known of pumps and of the drill string as it is run: it comes before policy in kill sheets and rehearsals.
import { useDocument, useEvaluated } from "../../design/context";
import { FieldRow } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function Known() {
  const holes = useEvaluated((e) => e.drills.holes) ?? [];
  const units = useUnits();
  const usual = useDocument((d) => d.policy.drills.pump_bbl_stroke);
  const last = holes[holes.length - 1]?.id ?? "s1";
  const hole = { key: "hole", names: Object.fromEntries(holes.map((h) => [h.id, units.words(h.hole)])) };
  return (
    <div className="grid gap-y-4">
      <div className="bordered max-w-md text-[13px]">
        <FieldRow path="/drills/pump_bbl_stroke" proposed={usual} />
        <FieldRow path="/policy/drills/slow_spm" />
        <FieldRow path="/policy/drills/nozzle_in2" />
        <FieldRow path="/policy/drills/kill_margin_ppg" />
      </div>
      <Titled title="Slow pump pressures" note="read at the slow rate with the bit on bottom; without one it is estimated from the mud">
        <Grid
          title="Slow pump pressures"
          target="slow_pumps"
          path="/drills/slow"
          columns={[hole, "spm", "psi"]}
          sortBy={null}
          newRow={() => ({ hole: last, spm: 30, psi: 500 })}
          empty="None read yet."
        />
      </Titled>
      <Titled title="Drill string as run" note="from the bit up; the last part of a hole reaches the rig floor; without one it is policy's">
        <Grid
          title="Drill string as run"
          target="drill_parts"
          path="/drills/parts"
          columns={[hole, "kind", "od_in", "id_in", "length_ft", "joint_in"]}
          sortBy={null}
          movable
          newRow={() => ({ hole: last, kind: "drill pipe", od_in: 5, id_in: 4.276, length_ft: null, joint_in: null })}
          empty="Policy's drill string."
        />
      </Titled>
    </div>
  );
}
