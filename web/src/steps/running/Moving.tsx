// The string on its way: hook load against the rig, drag, speed, gels, make-up torque, and what sticks when it is held still.
import { useBench, useDocument } from "../../design/context";
import type { RunningRow } from "../../design/types";
import { DocNumber, FieldLabel, UnitOf } from "../../ui/DocField";
import { useUnits } from "../../ui/units";
import { Legend, Outcome } from "./parts";

const RIG = ["hook_load_limit_lbf", "block_lbf", "elevator_lbf", "spider_lbf", "tong_ft_lbf"];

function Field({ path, proposed }: { path: string; proposed?: number | null }) {
  return (
    <div className="grid grid-cols-[1fr_7rem_4.5rem] items-center border-b border-rule/60 py-px text-[12.5px]">
      <FieldLabel path={path} />
      <DocNumber path={path} proposed={proposed} />
      <span className="pl-1.5 text-mute">
        <UnitOf path={path} />
      </span>
    </div>
  );
}

export function Moving({ row }: { row: RunningRow }) {
  const units = useUnits();
  const { selected } = useBench();
  const path = `/strings/${selected}/running`;
  const policy = useDocument((d) => d.policy.running);
  const slowestNote =
    row.slowest_shoe_md_ft == null
      ? undefined
      : row.running_ft_min === Math.floor(policy?.speed_ft_min ?? 90)
        ? "policy allows no more"
        : `shoe at ${units.text(row.slowest_shoe_md_ft, "depth")}`;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Legend
        lines={[
          { text: "picking up", colour: "var(--ink)", wide: true },
          { text: "running in", colour: "var(--petrol)", wide: true },
          { text: "still", colour: "var(--mute)" },
          { text: "floated in", colour: "var(--mute)", dashed: true },
          { text: "rig's limit", colour: "var(--brick)", dashed: true, wide: true },
        ]}
      />
      <section aria-label="Rig">
        <h3 className="mb-0.5 text-[13px] font-semibold">Rig</h3>
        {RIG.map((key) => (
          <Field key={key} path={`/site/${key}`} />
        ))}
      </section>
      <section aria-label="Hook load">
        <h3 className="mb-0.5 text-[13px] font-semibold">Hook load, block included</h3>
        <Outcome label="Picking up, greatest of the run" value={row.hook_up_lbf} quantity="force" working="hook_up" />
        <Outcome label="Running in, on bottom" value={row.hook_down_lbf} quantity="force" working="hook_in" />
        <Outcome label="Overpull left" value={row.overpull_left_lbf} quantity="force" bad={(row.overpull_left_lbf ?? 1) < 0} />
        {row.vertical_hook_lbf != null && (
          <Outcome
            label="As if the hole were vertical, without drag"
            value={row.vertical_hook_lbf}
            quantity="force"
            working="vertical_hook"
          />
        )}
        <Outcome label="Drag of the centralizers" value={row.running_force_lbf} quantity="force" />
        {row.lock_up_md_ft != null && <Outcome label="Goes down no more at" value={row.lock_up_md_ft} quantity="depth" bad />}
        <Outcome label="Stretch under its own weight" value={row.stretch_in} quantity="height" working="stretch" />
        <Outcome label="More by the overpull of policy" value={row.pulled_in} quantity="height" working="pulled" />
      </section>
      <section aria-label="Speed and circulation">
        <h3 className="mb-0.5 text-[13px] font-semibold">Speed and circulation</h3>
        <Outcome label="Slowest part of the run" value={row.running_ft_min} quantity="trip_speed" working="surge" note={slowestNote} />
        <Outcome label="Time of the run" value={row.hours} quantity="hours" />
        <Field path={`${path}/gel_lb_100ft2`} proposed={policy?.gel_lb_100ft2 ?? null} />
        <Outcome label="Breaking circulation" value={row.break_psi} quantity="pressure" working="breaking" />
        <Outcome label="EMW of that at the weakest rock" value={row.break_ppg} quantity="emw" />
      </section>
      <section aria-label="Make-up torque">
        <h3 className="mb-0.5 text-[13px] font-semibold">Make-up torque</h3>
        {row.torque?.map((t) => (
          <p key={t.connection} className="flex border-b border-rule/60 py-0.5 text-[12.5px]">
            {t.connection}
            <span className="ml-auto">
              {t.by === "mark"
                ? "to the base of the triangle"
                : t.by === "weld"
                  ? "welded"
                  : t.by === "unknown"
                    ? "unknown"
                    : `${units.number(t.least_ft_lbf, "torque")} – ${units.number(t.best_ft_lbf, "torque")} – ${units.text(t.most_ft_lbf, "torque")}`}
            </span>
          </p>
        ))}
        <Field path={`${path}/torque_ft_lbf`} />
      </section>
      {(row.sticking?.length ?? 0) > 0 && <Sticking row={row} />}
    </div>
  );
}

function Sticking({ row }: { row: RunningRow }) {
  const units = useUnits();
  return (
    <section aria-label="Held still">
      <h3 className="mb-0.5 text-[13px] font-semibold">Held still across permeable rock</h3>
      <table className="w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-right text-[11.5px] text-mute">
            <th className="border-b border-rule text-left font-normal">Zone</th>
            <th className="border-b border-rule font-normal">Overbalance, {units.unit("pressure")}</th>
            <th className="border-b border-rule font-normal">Pull to free it, {units.unit("force")}</th>
            <th className="border-b border-rule text-left font-normal pl-2">Kept off the wall</th>
          </tr>
        </thead>
        <tbody>
          {row.sticking?.map((zone) => (
            <tr key={`${zone.zone} ${zone.top_md_ft}`} className="border-b border-rule/60 text-right">
              <th scope="row" className="text-left font-normal">
                {zone.zone}
              </th>
              <td>{units.number(zone.overbalance_psi, "pressure")}</td>
              <td>{units.number(zone.force_lbf, "force")}</td>
              <td className="pl-2 text-left">{zone.centralized ? "by centralizers" : "no"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
