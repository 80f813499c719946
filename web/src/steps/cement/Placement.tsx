// How well the cement is placed, rule by rule; gas while it gels; how long it stays thin, and what may be done when it has set.
import { scaleLinear } from "d3-scale";
import { useBench, useDocument } from "../../design/context";
import type { CementRow, StageRow } from "../../design/types";
import { line } from "../../depth/Track";
import { DocNumber, FieldLabel, UnitOf } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { StateMark } from "../../ui/mark";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";
import { stageName } from "./stages";

export function Placement({ row }: { row: CementRow }) {
  const { selected } = useBench();
  const path = `/strings/${selected}/cement`;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      {row.stages.map((stage) => (
        <Rules key={stage.number} stage={stage} several={row.stages.length > 1} />
      ))}
      <Gas row={row} />
      <Thickening row={row} path={path} />
      <Laboratory row={row} path={path} />
      <Waiting row={row} path={path} />
      <TopUp row={row} path={path} />
    </div>
  );
}

const MARKS = { kept: "good", short: "caution", told: "blank" } as const;

function Rules({ stage, several }: { stage: StageRow; several: boolean }) {
  const units = useUnits();
  return (
    <section aria-label={`Rules of placement${several ? `, ${stageName(stage.number)}` : ""}`}>
      <h3 className="mb-0.5 text-[13px] font-semibold">Rules of placement{several ? `, ${stageName(stage.number)}` : ""}</h3>
      <table className="w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-left text-[11.5px] text-mute">
            <th className="w-5 border-b border-rule">
              <span className="sr-only">kept</span>
            </th>
            <th className="border-b border-rule font-normal">Rule</th>
            <th className="border-b border-rule font-normal">Of</th>
            <th className="border-b border-rule text-right font-normal">Found</th>
            <th className="border-b border-rule text-right font-normal">Asked</th>
          </tr>
        </thead>
        <tbody>
          {stage.rules.map((rule, k) => (
            <tr key={k} className="border-b border-rule/60">
              <td>{rule.state === "told" ? null : <StateMark state={MARKS[rule.state]} />}</td>
              <th scope="row" className="text-left font-normal">
                {rule.title}
              </th>
              <td className="text-mute">{units.words(rule.subject)}</td>
              <td className="text-right tabular-nums">{units.words(rule.found)}</td>
              <td className="text-right text-mute tabular-nums">{units.words(rule.asked)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Gas({ row }: { row: CementRow }) {
  const units = useUnits();
  const { selected } = useBench();
  if (row.gas.length === 0) return null;
  return (
    <section aria-label="Gas flow after cementing">
      <h3 className="mb-0.5 text-[13px] font-semibold">Gas flow after cementing</h3>
      {row.gas.map((flow) => (
        <div key={flow.zone} className="grid grid-cols-[1fr_auto] gap-x-2 border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>
            {flow.zone} at {units.text(flow.md_ft, "depth")}
            <span className="text-mute">
              , {units.text(flow.cement_ft, "depth")} of cement over it, {units.text(flow.overbalance_psi, "pressure")} over its gas
            </span>
          </span>
          {flow.potential === null ? (
            <span>unknown</span>
          ) : (
            <Headline working={`cement/${selected}/${flow.working}`} title={`gas flow potential, ${flow.zone}`}>
              <span className={flow.grade === "severe" ? "font-semibold text-gold-text" : ""}>
                {units.number(flow.potential, "factor")}, {flow.grade}
              </span>
            </Headline>
          )}
        </div>
      ))}
      <p className="text-[11.5px] text-mute">Under 3 minor, to 8 moderate, above severe.</p>
    </section>
  );
}

function Thickening({ row, path }: { row: CementRow; path: string }) {
  const units = useUnits();
  const slurries = row.stages.flatMap((s) => s.thickening.map((t) => ({ ...t, stage: s.number })));
  return (
    <section aria-label="Thickening time">
      <h3 className="mb-0.5 text-[13px] font-semibold">Thickening time</h3>
      {(["thickening_minutes", "lead_thickening_minutes"] as const)
        .filter((key) => key === "thickening_minutes" || slurries.some((t) => t.key === key))
        .map((key) => (
          <Given key={key} path={`${path}/${key}`} />
        ))}
      {slurries.map((t, k) => (
        <div key={k} className="grid grid-cols-[1fr_auto] border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>
            {t.name}
            {row.stages.length > 1 ? `, ${stageName(t.stage)}` : ""}: pumped for {units.text(t.job_minutes, "minutes")}
          </span>
          <span className={t.held_minutes !== null && t.held_minutes < t.needed_minutes ? "font-semibold text-brick" : ""}>
            needs {units.text(t.needed_minutes, "minutes")}
            {t.held_minutes === null ? "" : `, ${units.text(t.held_minutes - t.needed_minutes, "minutes")} to spare`}
          </span>
        </div>
      ))}
    </section>
  );
}

const LAB = ["free_fluid_percent", "lead_free_fluid_percent", "fluid_loss_cm3", "lead_fluid_loss_cm3"] as const;

/** What the rules of free fluid and fluid loss are held to. */
function Laboratory({ row, path }: { row: CementRow; path: string }) {
  const lead = row.lead_ppg !== null;
  return (
    <section aria-label="Free fluid and fluid loss">
      <h3 className="mb-0.5 text-[13px] font-semibold">Free fluid and fluid loss</h3>
      {LAB.filter((key) => lead || !key.startsWith("lead_")).map((key) => (
        <Given key={key} path={`${path}/${key}`} />
      ))}
    </section>
  );
}

/** One number by the laboratory, with its unit. */
function Given({ path }: { path: string }) {
  return (
    <div className="grid grid-cols-[1fr_minmax(0,7rem)_4.5rem] items-center border-b border-rule/60 py-px text-[12.5px]">
      <FieldLabel path={path} />
      <DocNumber path={path} proposed={null} />
      <span className="pl-1 text-mute">
        <UnitOf path={path} />
      </span>
    </div>
  );
}

function Waiting({ row, path }: { row: CementRow; path: string }) {
  const units = useUnits();
  return (
    <section aria-label="Waiting on cement">
      <h3 className="mb-0.5 text-[13px] font-semibold">Waiting on cement</h3>
      <div className="grid grid-cols-[minmax(0,13rem)_1fr] gap-x-3">
        <Grid
          title="Compressive strength"
          className="font-narrow"
          target="strength"
          path={`${path}/strength`}
          columns={[
            { key: "after_hours", label: "After" },
            { key: "strength_psi", label: "Strength" },
          ]}
          sortBy="after_hours"
          newRow={(rows) => ({ after_hours: Number(rows[rows.length - 1]?.after_hours ?? 0) + 4, strength_psi: 500 })}
          empty="No strength measured: policy's hours hold."
        />
        <StrengthChart path={path} row={row} />
      </div>
      {row.waits.map((wait) => (
        <div key={wait.what} className="grid grid-cols-[1fr_auto] border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>
            {wait.what} <span className="text-mute">({units.text(wait.strength_psi, "pressure")})</span>
          </span>
          <span>
            {wait.hours === null ? "not reached" : `after ${units.text(wait.hours, "hours")}`}
            {wait.measured ? "" : ", by policy"}
          </span>
        </div>
      ))}
      <p className="text-[11.5px] text-mute">
        A pressure test comes before the cement gels or after it has set, never between. Until then the string is not moved.
      </p>
    </section>
  );
}

/** When surface returns fail: what fills the annulus from the cement that has fallen back. */
function TopUp({ row, path }: { row: CementRow; path: string }) {
  const units = useUnits();
  const { selected } = useBench();
  const job = row.top_up;
  return (
    <section aria-label="Top-up job">
      <h3 className="mb-0.5 text-[13px] font-semibold">Top-up job</h3>
      <Given path={`${path}/top_up_md_ft`} />
      {job && (
        <div className="grid grid-cols-[1fr_auto] border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>
            From {units.text(job.from_md_ft, "depth")} to {units.text(job.to_md_ft, "depth")} by small pipe
          </span>
          <span>
            <Headline working={`cement/${selected}/top_up`} title="top-up job">
              {units.text(job.volume_bbl, "volume")}
            </Headline>
            <span className="text-mute">
              , {units.text(job.sacks, "sacks")}, {units.text(job.water_bbl, "volume")} of water
            </span>
          </span>
        </div>
      )}
    </section>
  );
}

const WIDTH = 190;
const HEIGHT = 130;

function StrengthChart({ path, row }: { path: string; row: CementRow }) {
  const units = useUnits();
  const { selected } = useBench();
  const points = useDocument((d) => d.strings[selected]?.cement?.strength) ?? [];
  if (points.length < 2) return <div data-chart={path} />;
  const factor = units.factor("pressure");
  const most = points[points.length - 1]!;
  const x = scaleLinear([0, most.after_hours], [40, WIDTH - 6]);
  const y = scaleLinear([0, Math.max(...points.map((p) => p.strength_psi)) * factor], [HEIGHT - 18, 8]).nice(4);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full max-w-60" role="img" aria-label="Compressive strength against time">
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={40} x2={WIDTH - 6} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={36} y={y(tick) + 3.5} fontSize={10} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        </g>
      ))}
      {x.ticks(5).map((tick) => (
        <text key={tick} x={x(tick)} y={HEIGHT - 5} fontSize={10} textAnchor="middle" style={{ fill: "var(--mute)" }}>
          {tick === 0 ? "h" : tick}
        </text>
      ))}
      <path
        d={line([[x(0), y(0)], ...points.map((p) => [x(p.after_hours), y(p.strength_psi * factor)] as const)])}
        fill="none"
        stroke="var(--petrol)"
        strokeWidth={1.8}
      />
      {row.waits
        .filter((w) => w.measured && w.hours !== null)
        .map((w) => (
          <circle key={w.what} cx={x(w.hours!)} cy={y(w.strength_psi * factor)} r={3} fill="var(--gold)" />
        ))}
    </svg>
  );
}
