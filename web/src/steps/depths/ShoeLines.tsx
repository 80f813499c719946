// What stands under a shoe: its kick tolerance, a spare string above it, what hanging it as a liner would save.
import { adoption, useBench, useEvaluated } from "../../design/context";
import { useAtRig } from "../../design/level";
import { Button } from "../../ui/Button";
import { Headline } from "../../ui/Headline";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import { useKicks } from "./kicks";

/** Whether an unplanned string could be set above this one without taking its size. */
export function SpareLine({ index }: { index: number }) {
  const units = useUnits();
  const above = useEvaluated((e) => e.strings[index - 1]);
  const spare = useEvaluated((e) => e.sizes.strings[index]?.spare);
  if (!above || above.role === "conductor") return null;
  return (
    <p className="text-[12px] text-mute">
      Contingency above it:{" "}
      {spare
        ? `${units.text(spare.od_in, "size")} in ${units.text(spare.bit_in, "size")} hole keeps this size`
        : "no spare size; an unplanned string takes this one's"}
    </p>
  );
}

/** What it would save to hang this string in the casing above, and what that costs. */
export function LinerLine({ index }: { index: number }) {
  const { session } = useBench();
  const option = useEvaluated((e) => e.liners.strings[index]);
  const units = useUnits();
  if (!option) return null;
  const short = option.burst_factor_above !== null && option.burst_factor_above < option.burst_required;
  return (
    <details className="text-[12px]">
      <summary className="text-mute">As a liner from {units.text(option.hanger_md_ft, "depth")}</summary>
      <p className="text-mute">
        Saves {units.text(option.steel_saved_lbf, "force")} of steel and {units.text(option.cement_saved_bbl, "volume")} of cement. The
        casing above then takes this string&apos;s burst loads: factor{" "}
        <span className={short ? "font-semibold text-brick" : ""}>
          {option.burst_factor_above === null ? "unknown" : option.burst_factor_above.toFixed(2)}
        </span>
        , asks {option.burst_required.toFixed(2)}.
      </p>
      <Button
        className="mt-0.5"
        onClick={() => {
          const { document, evaluation } = session.snapshot();
          session.edit([
            ...adoption(document, evaluation),
            { path: `/strings/${index}/run`, value: "liner" },
            { path: `/strings/${index}/hanger_md_ft`, value: option.hanger_md_ft },
          ]);
        }}
      >
        Hang it as a liner
      </Button>
    </details>
  );
}

export function KickLine({ index, size }: { index: number; size: string }) {
  const units = useUnits();
  const atRig = useAtRig();
  const kick = useEvaluated((e) => e.depths.strings[index]?.kick);
  const greatest = useKicks()?.[index]?.greatest_intensity_ppg;
  if (!kick) return null;
  const short = kick.tolerance_bbl !== null && kick.tolerance_bbl < kick.required_bbl;
  return (
    <dl className="pairs text-[12.5px]">
      <dt className="text-mute">
        <Term>kick tolerance</Term>, asks {units.text(kick.required_bbl, "volume")}
      </dt>
      <dd className={`text-right ${short ? "font-semibold text-brick" : ""}`} data-testid={`kick-${index}`}>
        {kick.tolerance_bbl !== null ? (
          <Headline working={`depths/${index}/kick_tolerance`} title={`kick tolerance, ${size} shoe`}>
            {units.text(kick.tolerance_bbl, "volume")}
          </Headline>
        ) : kick.limited === false ? (
          "no limit: nothing breaks"
        ) : (
          "unknown"
        )}
      </dd>
      {kick.weak_md_ft !== null && !kick.weak_is_shoe && (
        <>
          <dt className="text-mute">weak point below the shoe</dt>
          <dd className="text-right">{units.text(kick.weak_md_ft, "depth")}</dd>
          <dt className="text-mute">at the shoe alone</dt>
          <dd className="text-right" data-testid={`kick-at-shoe-${index}`}>
            {kick.at_shoe_bbl === null ? (
              "no limit"
            ) : (
              <Headline working={`depths/${index}/kick_tolerance_at_shoe`} title={`kick tolerance of the ${size} shoe alone`}>
                {units.text(kick.at_shoe_bbl, "volume")}
              </Headline>
            )}
          </dd>
        </>
      )}
      <dt className="text-mute">
        <Term>kick intensity</Term> at the volume asked
      </dt>
      <dd className="text-right" data-testid={`intensity-${index}`}>
        {greatest === undefined
          ? "…"
          : greatest === null
            ? "unknown"
            : greatest >= 5
              ? `over ${units.text(5, "emw")}`
              : units.text(greatest, "emw")}
      </dd>
      <dt className="text-mute">
        <Term>full evacuation</Term> to gas, {kick.full_gas_margin_psi !== null && kick.full_gas_margin_psi < 0 ? "deficit" : "margin"}
        {kick.full_gas_md_ft !== null && ` at ${units.text(kick.full_gas_md_ft, "depth")}`}
      </dt>
      <dd className="text-right">
        {kick.full_gas_margin_psi === null ? (
          "unknown"
        ) : (
          <Headline working={`depths/${index}/full_gas`} title={`full evacuation to gas, ${size} shoe`}>
            {units.text(Math.abs(kick.full_gas_margin_psi), "pressure")}
          </Headline>
        )}
      </dd>
      <dt className="text-mute">
        <Term>MAASP</Term>
        {atRig}
      </dt>
      <dd className="text-right">
        {kick.maasp_psi === null ? (
          "unknown"
        ) : (
          <Headline working={`depths/${index}/maasp`} title={`MAASP, ${size} shoe`}>
            {units.text(kick.maasp_psi, "pressure")}
          </Headline>
        )}
      </dd>
    </dl>
  );
}
