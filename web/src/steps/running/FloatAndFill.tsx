// Float equipment and filling: what is chosen, how empty the string gets, and the three ways to hold fluid side by side.
import { useBench } from "../../design/context";
import type { RunningRow } from "../../design/types";
import { DocNumber, FieldLabel } from "../../ui/DocField";
import { useUnits } from "../../ui/units";
import { Decision, Legend, Line, Outcome } from "./parts";

export function FloatAndFill({ row }: { row: RunningRow }) {
  const { selected } = useBench();
  const path = `/strings/${selected}/running`;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Legend
        lines={[
          { text: "differential at the float", colour: "var(--petrol)", wide: true },
          { text: "greatest collapse load", colour: "var(--ink)" },
          { text: "its rating over the design factor", colour: "var(--brick)", dashed: true, wide: true },
        ]}
      />
      <section aria-label="Float equipment">
        <h3 className="mb-0.5 text-[13px] font-semibold">Float equipment</h3>
        <Line path={`${path}/shoe`}>
          <Decision path={`${path}/shoe`} proposed={row.shoe} />
        </Line>
        <Line path={`${path}/collar`}>
          <Decision path={`${path}/collar`} proposed={row.collar ?? "none"} />
        </Line>
        <Count path={`${path}/collar_joint`} proposed={row.collar_joint ?? null} />
        <Outcome
          label="Collar lands at"
          value={row.collar_md_ft}
          quantity="length"
          note={row.collar_md_ft === null ? "no collar" : undefined}
        />
        <Outcome label="Shoe track" value={row.track_ft} quantity="length" />
        {row.stages_md_ft.map((md, k) => (
          <Outcome key={k} label={k ? "Upper stage collar lands at" : "Stage collar lands at"} value={md} quantity="length" />
        ))}
      </section>
      <section aria-label="Filling">
        <h3 className="mb-0.5 text-[13px] font-semibold">Filling</h3>
        <Line path={`${path}/fill`}>
          <Decision path={`${path}/fill`} proposed={row.fill} />
        </Line>
        {row.fill === "every few joints" && <Count path={`${path}/fill_joints`} proposed={row.fill_joints ?? null} />}
        {row.fill_bbl != null && (
          <Outcome
            label="Volume of a fill"
            value={row.fill_bbl}
            quantity="volume"
            working="fill"
            note={`${row.fills} fills${row.hung === "slips" ? "" : ", landing string included"}`}
          />
        )}
        <Outcome label="Longest empty length" value={row.empty_ft} quantity="depth" />
        <Outcome label="Greatest differential at the float" value={row.float_psi} quantity="pressure" />
        <Outcome
          label="Least collapse factor"
          value={row.collapse_factor}
          quantity="factor"
          working="crush"
          note={
            row.collapse_joint == null
              ? "nothing presses in"
              : row.collapse_joint > (row.joints ?? 0) + (row.pups ?? 0)
                ? "on the landing string"
                : `at joint ${row.collapse_joint}`
          }
          bad={(row.collapse_factor ?? 9) < 1}
        />
        <Outcome label="Pipe there may be empty to, TVD" value={row.longest_empty_tvd_ft} quantity="depth" working="crush_empty" />
      </section>
      <ThreeWays row={row} />
    </div>
  );
}

function Count({ path, proposed }: { path: string; proposed: number | null }) {
  return (
    <div className="grid grid-cols-[1fr_minmax(0,11rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
      <FieldLabel path={path} />
      <DocNumber path={path} proposed={proposed} />
    </div>
  );
}

const WAYS = { flooded: "Flooded", planned: "As planned", floated: "Floated in" } as const;

function ThreeWays({ row }: { row: RunningRow }) {
  const units = useUnits();
  return (
    <section aria-label="Flooded, filled and floated">
      <h3 className="mb-0.5 text-[13px] font-semibold">Side by side, at the end of the run</h3>
      <table className="w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-right text-[11.5px] text-mute">
            <th className="border-b border-rule text-left font-normal">String</th>
            <th className="border-b border-rule font-normal">Running in, {units.unit("force")}</th>
            <th className="border-b border-rule font-normal">Picking up, {units.unit("force")}</th>
            <th className="border-b border-rule font-normal">At the float, {units.unit("pressure")}</th>
            <th className="border-b border-rule font-normal">Collapse factor</th>
          </tr>
        </thead>
        <tbody>
          {row.fluids?.map((fluid) => (
            <tr key={fluid.inside} className="border-b border-rule/60 text-right">
              <th scope="row" className="text-left font-normal">
                {WAYS[fluid.inside]}
              </th>
              <td>{units.number(fluid.hook_in_lbf, "force")}</td>
              <td>{units.number(fluid.hook_up_lbf, "force")}</td>
              <td>{units.number(fluid.worst_float_psi, "pressure")}</td>
              <td className={(fluid.collapse_factor ?? 9) < 1 ? "font-semibold text-brick" : ""}>
                {fluid.collapse_factor === null ? "–" : units.number(fluid.collapse_factor, "factor")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
