// The conductor: how it is set, the soil around it, what it bears hour by hour, and what it carries.
import { useDocument } from "../../design/context";
import { useReference } from "../../design/reference";
import type { ConductorResult } from "../../design/types";
import { line } from "../../depth/Track";
import { Chart } from "../../ui/Chart";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

const HOW = { jetted: "Jetted", driven: "Hammered", cased: "Drilled and cemented" } as const;
const ON_SEA_FLOOR = ["stick_up_ft", "guide_base_lbf", "low_housing_lbf", "high_housing_lbf", "second_hours", "held_lbf"];
const JETTED = ["assembly_ft", "low_over_ft", "bit_out_in", "last_bit_weight_lbf", "soak_hours"];
const SHOWN_HOURS = 1.4;

export function Conductor({ found }: { found: ConductorResult | null }) {
  const keys = useReference().keys("/sea/conductor");
  const subsea = useDocument((d) => d.site.setting === "subsea");
  const policy = useDocument((d) => d.policy.sea);
  const how = found?.how ?? "jetted";
  const asked = keys.filter(
    (key) =>
      (subsea || !ON_SEA_FLOOR.includes(key)) && (how === "jetted" || !JETTED.includes(key)) && (how === "driven" || key !== "blows_ft"),
  );
  const proposed: Record<string, number | undefined> = {
    soak_hours: policy?.soak_hours,
    bit_out_in: found?.bit_out_in ?? undefined,
    second_hours: policy?.second_hours,
    guide_base_lbf: policy?.guide_base_lbf,
    low_housing_lbf: policy?.low_housing_lbf,
    high_housing_lbf: policy?.high_housing_lbf,
  };
  return (
    <div className="grid grid-cols-1 gap-y-4">
      {found !== null && <Carries found={found} />}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
        <section aria-label="How it is set">
          <Titled title={`How it is set: ${HOW[how].toLowerCase()}`} note="chosen under Depths">
            {asked.map((key) => (
              <FieldRow key={key} path={`/sea/conductor/${key}`} proposed={proposed[key]} />
            ))}
          </Titled>
        </section>
        <section aria-label="Soil">
          <Titled title="Soil strength" note="straight between points">
            <Grid
              title="Soil strength"
              target="soil"
              path="/sea/soil"
              columns={["below_mudline_ft", { key: "strength_psf", label: "Strength" }, { key: "submerged_pcf", label: "Unit weight" }]}
              sortBy="below_mudline_ft"
              newRow={(rows) => {
                const last = rows[rows.length - 1];
                return {
                  below_mudline_ft: last === undefined ? 0 : Number(last.below_mudline_ft) + 50,
                  strength_psf: last === undefined ? 40 : Number(last.strength_psf) + 400,
                  submerged_pcf: last === undefined ? 28 : Number(last.submerged_pcf),
                };
              }}
              empty="No strength given: what the conductor bears is unknown. Type the profile of the site survey, or paste it."
            />
          </Titled>
        </section>
      </div>
    </div>
  );
}

function Carries({ found }: { found: ConductorResult }) {
  const units = useUnits();
  const wanted = useDocument((d) => d.policy.sea?.conductor_factor ?? 1.2);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-3 max-[1180px]:grid-cols-1">
      <section aria-label="What it carries">
        <Titled title="What it carries">
          <Facts
            label="What the conductor carries"
            heads={[
              { title: "When" },
              { title: "After", unit: units.unit("hours") },
              { title: "Load", unit: units.unit("force") },
              { title: "Bears", unit: units.unit("force") },
              { title: "Factor" },
            ]}
            bad={(r) => (found.rows[r]!.factor ?? wanted) < wanted}
            rows={found.rows.map((row) => [
              row.moment,
              units.number(row.hours, "hours"),
              units.number(row.load_lbf, "force"),
              <Headline key="c" working={row.working} title="what the conductor bears">
                {row.capacity_lbf === null ? "unknown" : units.number(row.capacity_lbf, "force")}
              </Headline>,
              row.factor === null ? "–" : units.number(row.factor, "factor"),
            ])}
          />
        </Titled>
        <div className="mt-2">
          <Outcome label="In the soil" value={found.penetration_ft} quantity="length" />
          <Outcome label="Weight in water" value={found.weight_lbf} quantity="force" />
          <Outcome label="Mean shaft friction" value={found.friction_psf} quantity="soil_strength" />
          <Outcome label="Borne at once" value={found.immediate_lbf} quantity="force" />
          <Outcome label="Long-run capacity" value={found.long_run_lbf} quantity="force" working={found.rows[0]?.working} />
          <Outcome label="Stands by itself after" value={found.soak_needed_hours} quantity="hours" note="with policy's factor" />
        </div>
      </section>
      <Growth found={found} />
    </div>
  );
}

/** Capacity by hours since it was set, and each load at its hour. */
function Growth({ found }: { found: ConductorResult }) {
  const last = Math.max(24, ...found.rows.map((row) => row.hours ?? 0)) * SHOWN_HOURS;
  const points = found.capacity_hours.map((h, i) => [h, found.capacity_lbf[i]!] as const);
  if (points.length < 2) return <p className="py-3 text-mute">Its growth is drawn once soil, pipe and last weight on bit are known.</p>;
  const at = (hours: number) => {
    const k = points.findIndex(([h]) => h >= hours);
    if (k <= 0) return points[Math.max(k, 0)]![1];
    const [h0, c0] = points[k - 1]!;
    const [h1, c1] = points[k]!;
    return c0 + ((hours - h0) / (h1 - h0)) * (c1 - c0);
  };
  const seen = [...points.filter(([h]) => h < last), [last, at(last)] as const];
  const most = Math.max(...seen.map(([, c]) => c), ...found.rows.map((row) => row.load_lbf ?? 0)) * 1.12;
  return (
    <Chart
      label="Capacity of the conductor by hours, and what it carries"
      x={{ title: "after it was set", quantity: "hours", most: last }}
      y={{ title: "force", quantity: "force", most }}
      widthPx={306}
      heightPx={230}
    >
      {({ x, y, right }) => (
        <>
          <path d={line(seen.map(([h, c]) => [x(h), y(c)]))} fill="none" stroke="var(--petrol)" strokeWidth={2} />
          <text x={right - 2} y={y(at(last)) - 6} fontSize={11} textAnchor="end" style={{ fill: "var(--petrol)" }}>
            soil bears
          </text>
          {found.rows.map((row) =>
            row.load_lbf === null || row.hours === null ? null : (
              <g key={row.moment}>
                <line x1={x(row.hours)} x2={right} y1={y(row.load_lbf)} y2={y(row.load_lbf)} stroke="var(--ink)" strokeWidth={1.4} />
                <circle cx={x(row.hours)} cy={y(row.load_lbf)} r={3} fill="var(--ink)" />
                <text x={right - 2} y={y(row.load_lbf) - 4} fontSize={11} textAnchor="end" style={{ fill: "var(--ink)" }}>
                  {row.moment.split(",")[0]}
                </text>
              </g>
            ),
          )}
        </>
      )}
    </Chart>
  );
}
