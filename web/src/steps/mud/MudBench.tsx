// Mud weights: the window of each open hole, the planned weight, and the overbalance against depth.
import { memo } from "react";
import { useSnapshot } from "../../design/context";
import type { DepthScale } from "../../depth/scale";
import { WindowTrack } from "../../depth/WindowTrack";
import { DocNumber } from "../../ui/DocField";
import { Headline } from "../../ui/Headline";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import { MudAtRest, MudMoving, MudSteps } from "./MudDetails";
import type { Evaluation } from "../../design/types";

export function MudBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  return (
    <>
      <WindowTrack scale={scale} widthPx={tracksPx - 50} />
      <Muds />
    </>
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Muds = memo(function Muds() {
  const evaluation = useSnapshot("evaluation");
  const drilled = evaluation?.strings.some((s) => s.role !== "conductor" && s.run !== "driven");
  return (
    <Panel title="Mud weights">
      <Scroll label="Mud weights">
        {evaluation && drilled ? (
          evaluation.strings.map((_, index) => <MudCard key={index} index={index} evaluation={evaluation} />)
        ) : (
          <Empty>No open hole yet. Muds are planned once there are setting depths.</Empty>
        )}
      </Scroll>
    </Panel>
  );
});

function MudCard({ index, evaluation }: { index: number; evaluation: Evaluation }) {
  const units = useUnits();
  const string = evaluation.strings[index]!;
  const row = evaluation.mud.strings[index]!;
  if (string.role === "conductor" || string.bit_in === null) return null;
  const hole = units.text(string.bit_in, "size");
  return (
    <section aria-label={`${hole} hole`} className="mb-3 border-l-[3px] border-rule pl-2">
      <div className="flex items-center gap-2">
        <h3 className="text-[13px] font-semibold">{hole} hole</h3>
        <span className="text-[12px] text-mute">
          {units.number(string.previous_shoe_md_ft, "depth")} to {units.text(string.shoe_md_ft, "depth")}
        </span>
        <span className="ml-auto w-16">
          <DocNumber label={`${hole} hole mud`} path={`/strings/${index}/mud_ppg`} proposed={row.planned_ppg} />
        </span>
        <span className="w-8 text-[12px] text-mute">{units.unit("emw")}</span>
      </div>
      {row.riserless && (
        <p className="text-[12.5px] text-mute">Before the riser is on: returns to the sea floor, sea water above the mudline.</p>
      )}
      {!row.riserless && (
        <dl className="pairs text-[12.5px]">
          <dt className="text-mute">
            <Term of="minimum mud weight">minimum</Term>
            {row.lower && `: ${row.lower.cause} at ${units.text(row.lower.md_ft, "depth")}`}
          </dt>
          <dd className="text-right">
            {row.lower === null || row.lower.cause === "hole stability" ? ( // read off its profile: no equation
              units.text(row.lower?.mud_ppg, "emw")
            ) : (
              <Headline working={`mud/${index}/lower`} title={`minimum mud weight, ${hole} hole`}>
                {units.text(row.lower.mud_ppg, "emw")}
              </Headline>
            )}
          </dd>
          <dt className="text-mute">
            <Term of="planned mud weight">planned</Term>
          </dt>
          <dd className="text-right">{units.text(row.planned_ppg, "emw")}</dd>
          <dt className="text-mute">
            <Term of="maximum mud weight">maximum</Term>
            {row.upper && `: ${row.upper.cause} at ${units.text(row.upper.md_ft, "depth")}`}
          </dt>
          <dd className="text-right">
            {row.upper === null ? (
              "unknown"
            ) : (
              <Headline working={`mud/${index}/upper`} title={`maximum mud weight, ${hole} hole`}>
                {units.text(row.upper.mud_ppg, "emw")}
              </Headline>
            )}
          </dd>
          <dt className="text-mute">
            maximum <Term>overbalance</Term>
            {row.overbalance_md_ft !== null && ` at ${units.text(row.overbalance_md_ft, "depth")}`}
          </dt>
          <dd className="text-right">
            {row.overbalance_psi === null ? (
              "unknown"
            ) : (
              <Headline working={`mud/${index}/overbalance`} title={`overbalance, ${hole} hole`}>
                {units.text(row.overbalance_psi, "pressure")}
              </Headline>
            )}
          </dd>
          <dt className="text-mute">
            <Term>open hole</Term> {units.text(row.open_hole_ft, "depth")}, in gauge
          </dt>
          <dd className="text-right">
            {row.hole_volume_bbl === null ? (
              "unknown"
            ) : (
              <Headline working={`mud/${index}/hole_volume`} title={`volume, ${hole} hole`}>
                {units.text(row.hole_volume_bbl, "volume")}
              </Headline>
            )}
          </dd>
        </dl>
      )}
      {!row.riserless && <MudMoving index={index} hole={hole} row={row} />}
      {!row.riserless && <MudSteps index={index} hole={hole} row={row} />}
      <MudAtRest index={index} hole={hole} row={row} />
    </section>
  );
}
