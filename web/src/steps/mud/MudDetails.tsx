// A section's mud moving (rheometer, pump rate, ECD, surge and swab) and at rest (zones, volumes, weighting up, riser).
import { Fragment } from "react";
import { useDocument } from "../../design/context";
import { useReference } from "../../design/reference";
import { DocNumber, UnitOf } from "../../ui/DocField";
import { Headline } from "../../ui/Headline";
import type { ColumnSpec } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import type { Evaluation } from "../../design/types";

type MudRow = Evaluation["mud"]["strings"][number];
const ALWAYS = ["flow_gpm", "reading_300", "reading_600"];
const SLOW = ["reading_6", "reading_3"];
const STEPS: readonly ColumnSpec[] = ["to_md_ft", "mud_ppg"];

interface Props {
  index: number;
  hole: string;
  row: MudRow;
}

export function MudMoving({ index, hole, row }: Props) {
  const units = useUnits();
  const reference = useReference();
  const slow = useDocument((d) => d.policy.mud.rheology === "Herschel-Bulkley");
  return (
    <details className="mt-1 text-[12.5px]" open>
      <summary className="text-mute">Moving: ECD, surge and swab</summary>
      <div className="grid grid-cols-[1fr_4rem_auto] items-center gap-x-1 text-mute">
        {(slow ? [...ALWAYS, ...SLOW] : ALWAYS).map((key) => {
          const path = `/strings/${index}/${key}`;
          return (
            <Fragment key={key}>
              {reference.at(path).title}
              <DocNumber label={`${hole} hole ${reference.at(path).title}`} path={path} />
              <span>
                <UnitOf path={path} />
              </span>
            </Fragment>
          );
        })}
      </div>
      <dl className="pairs">
        <dt className="text-mute">
          <Term>ECD</Term> at bottom
          {row.ecd_shoe_ppg !== null && `; ${units.text(row.ecd_shoe_ppg, "emw")} at the shoe above`}
        </dt>
        <dd className="text-right" data-testid={`ecd-${index}`}>
          {row.ecd_bottom_ppg === null ? (
            "unknown"
          ) : (
            <Headline working={`mud/${index}/ecd`} title={`ECD, ${hole} hole`}>
              {units.text(row.ecd_bottom_ppg, "emw")}
            </Headline>
          )}
        </dd>
        <Worst worst={row.ecd_worst} what="ECD against fracture" working={`mud/${index}/ecd_worst`} title={`ECD, ${hole} hole`} />
        <dt className="text-mute">
          tripping, <Term>swab</Term> to <Term>surge</Term> at bottom
        </dt>
        <dd className="text-right">
          {row.surge_ppg === null || row.swab_ppg === null ? (
            "unknown"
          ) : (
            <Headline working={`mud/${index}/surge`} title={`surge and swab, ${hole} hole`}>
              {units.number(row.swab_ppg, "emw")} to {units.text(row.surge_ppg, "emw")}
            </Headline>
          )}
        </dd>
        <Worst worst={row.surge_worst} what="surge against fracture" working={`mud/${index}/surge_worst`} title={`surge, ${hole} hole`} />
        <Worst worst={row.swab_worst} what="swab against pore" working={`mud/${index}/swab_worst`} title={`swab, ${hole} hole`} />
      </dl>
    </details>
  );
}

/** Where in the open hole the moving mud is nearest to what the rock stands. */
function Worst({ worst, what, working, title }: { worst: MudRow["ecd_worst"]; what: string; working: string; title: string }) {
  const units = useUnits();
  if (!worst) return null;
  return (
    <>
      <dt className="text-mute">
        {what}, {units.text(worst.rock_ppg, "emw")} at {units.text(worst.md_ft, "depth")}
      </dt>
      <dd className="text-right">
        <Headline working={working} title={title}>
          {units.text(worst.emw_ppg, "emw")}
        </Headline>
      </dd>
    </>
  );
}

export function MudAtRest({ index, hole, row }: Props) {
  const units = useUnits();
  const { volumes, weight_up: weighting, riser } = row;
  return (
    <details className="text-[12.5px]">
      <summary className="text-mute">At rest: zones, volumes, weighting</summary>
      <table className="w-full">
        <tbody>
          {row.zones.map((zone) => (
            <tr key={zone.name}>
              <th scope="row" className="text-left font-normal text-mute">
                {zone.name}, overbalance at {units.text(zone.at_md_ft, "depth")}
              </th>
              <td className="text-right">
                {units.text(zone.overbalance_psi, "pressure")}
                {zone.limit_psi !== null && <span className="text-mute"> of {units.text(zone.limit_psi, "pressure")}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="mt-1 pairs">
        {volumes && (
          <>
            <dt className="text-mute">
              hole, less steel of the drill string {units.text(volumes.string_displacement_bbl, "volume")}, and active volume at surface{" "}
              {units.text(volumes.pits_bbl, "volume")}
            </dt>
            <dd className="text-right">{units.text(volumes.total_bbl, "volume")}</dd>
          </>
        )}
        {weighting?.solid_lb != null && (
          <>
            <dt className="text-mute">
              weighting {units.text(weighting.volume_bbl, "volume")} up from {units.text(weighting.from_ppg, "emw")}; gains{" "}
              {units.text(weighting.gain_bbl, "volume")}
            </dt>
            <dd className="text-right">
              <Headline working={`mud/${index}/weight_up`} title={`weighting up, ${hole} hole`}>
                {units.text(weighting.solid_lb, "mass")}
              </Headline>
            </dd>
          </>
        )}
        {weighting?.base_bbl != null && (
          <>
            <dt className="text-mute">
              thinning {units.text(weighting.volume_bbl, "volume")} from {units.text(weighting.from_ppg, "emw")} with base fluid
            </dt>
            <dd className="text-right">{units.text(weighting.base_bbl, "volume")}</dd>
          </>
        )}
        {riser && (
          <>
            <dt className="text-mute">with the riser gone, needed at {units.text(riser.at_md_ft, "depth")}</dt>
            <dd className={`text-right ${riser.held ? "" : "font-semibold text-brick"}`}>
              <Headline working={`mud/${index}/riser`} title={`riser margin, ${hole} hole`}>
                {units.text(riser.needed_ppg, "emw")}
              </Headline>
            </dd>
          </>
        )}
        {row.sweep_bbl !== null && (
          <>
            <dt className="text-mute">gel sweeps, riserless</dt>
            <dd className="text-right">{units.text(row.sweep_bbl, "volume")}</dd>
          </>
        )}
      </dl>
    </details>
  );
}

/** The weight raised in steps on the way down; the section's own weight holds from the last step to its end. */
export function MudSteps({ index, hole, row }: Props) {
  const units = useUnits();
  return (
    <details className="text-[12.5px]" open={row.steps.length > 0}>
      <summary className="text-mute">In steps by depth</summary>
      <Grid
        title={`Steps of the ${hole} hole`}
        className="max-w-72"
        target="mud_steps"
        path={`/strings/${index}/mud_steps`}
        columns={STEPS}
        sortBy="to_md_ft"
        newRow={(rows) => ({
          to_md_ft: Number(rows[rows.length - 1]?.to_md_ft ?? row.lower?.md_ft ?? 0),
          mud_ppg: Number(rows[rows.length - 1]?.mud_ppg ?? row.planned_ppg ?? 9),
        })}
        empty="One weight over the whole section."
      />
      {row.steps.map((step) => (
        <p key={step.to_md_ft} className="text-mute">
          to {units.text(step.to_md_ft, "depth")}: {units.text(step.mud_ppg, "emw")} in {units.number(step.lower_ppg, "emw")} to{" "}
          {units.text(step.upper_ppg, "emw")}
        </p>
      ))}
    </details>
  );
}
