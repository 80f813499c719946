// Pressures through the drill against their limits, and of a circulation against the theory; one slider goes through all of it.
import { scaleLinear } from "d3-scale";
import { line } from "../../depth/Track";
import type { Debrief, Quantity } from "../../design/types";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";
import { setReplay, useReplay } from "./replay";
import { clockOf } from "./useDrill";

const WIDTH = 420;
const LEFT = 48;
const RIGHT = 8;
const HEIGHT = 128;
const TOP = 30;

interface Curve {
  name: string;
  colour: string;
  dashed?: boolean;
  points: readonly (readonly [number, number])[];
}

export function DebriefCharts({ debrief }: { debrief: Debrief }) {
  const replay = useReplay();
  const { series, limits, theory } = debrief;
  const at = replay?.at ?? series.at_s.length - 1;
  const minutes = series.at_s.map((s) => s / 60);
  const by = (values: readonly number[]) => values.map((v, k) => [minutes[k]!, v] as const);
  const now = minutes[at] ?? 0;
  return (
    <div className="grid gap-y-2">
      <label className="flex items-center gap-2 text-[12.5px]">
        Replay
        <input
          type="range"
          className="flex-1 accent-[var(--petrol)]"
          min={0}
          max={series.at_s.length - 1}
          value={at}
          aria-label="Moment of the drill"
          aria-valuetext={clockOf(series.at_s[at] ?? 0)}
          onChange={(event) => setReplay(Number(event.target.value))}
        />
        <span className="tabular-nums">{clockOf(series.at_s[at] ?? 0)}</span>
      </label>
      <Plot
        title="Drill pipe and casing"
        xTitle="minutes"
        quantity="pressure"
        now={now}
        limit={limits.class_psi === null ? undefined : { value: limits.class_psi, name: "class of the stack" }}
        curves={[
          { name: "drill pipe", colour: "var(--petrol)", points: by(series.pipe_psi) },
          { name: "casing", colour: "var(--gold)", points: by(series.casing_psi) },
        ]}
      />
      <Plot
        title="On bottom"
        xTitle="minutes"
        quantity="pressure"
        now={now}
        fit
        limit={{ value: limits.formation_psi, name: "formation" }}
        curves={[{ name: "bottom", colour: "var(--petrol)", points: by(series.bottom_psi) }]}
      />
      <Plot
        title="At the shoe"
        xTitle="minutes"
        quantity="pressure"
        now={now}
        fit
        limit={{ value: limits.shoe_fracture_psi, name: "fracture" }}
        curves={[{ name: "shoe", colour: "var(--petrol)", points: by(series.shoe_psi) }]}
      />
      {theory !== null && <Against debrief={debrief} at={at} />}
    </div>
  );
}

/** Casing and shoe pressure of the circulation beside one bubble by the textbook. */
function Against({ debrief, at }: { debrief: Debrief; at: number }) {
  const units = useUnits();
  const { series } = debrief;
  const theory = debrief.theory!;
  const factor = units.factor("volume");
  const last = theory.pumped_bbl[theory.pumped_bbl.length - 1]!;
  const since = series.pumped_bbl.map((v) => v - theory.begun_bbl);
  const own = (values: readonly number[]) =>
    since.flatMap((v, k) => (v >= 0 && v <= last && series.spm[k]! > 1 ? [[v * factor, values[k]!] as const] : []));
  const textbook = (values: readonly number[]) => theory.pumped_bbl.map((v, k) => [v * factor, values[k]!] as const);
  const now = Math.min(Math.max(since[at] ?? 0, 0), last) * factor;
  const xTitle = `pumped, ${units.unit("volume")}`;
  return (
    <>
      <Plot
        title="Casing against theory"
        xTitle={xTitle}
        quantity="pressure"
        now={now}
        curves={[
          { name: "one bubble", colour: "var(--mute)", dashed: true, points: textbook(theory.casing_psi) },
          { name: "casing", colour: "var(--gold)", points: own(series.casing_psi) },
        ]}
      />
      <Plot
        title="Shoe against theory"
        xTitle={xTitle}
        quantity="pressure"
        now={now}
        fit
        limit={{ value: debrief.limits.shoe_fracture_psi, name: "fracture" }}
        curves={[
          { name: "one bubble", colour: "var(--mute)", dashed: true, points: textbook(theory.shoe_psi) },
          { name: "shoe", colour: "var(--petrol)", points: own(series.shoe_psi) },
        ]}
      />
    </>
  );
}

interface PlotProps {
  title: string;
  xTitle: string;
  quantity: Quantity;
  now: number;
  fit?: boolean;
  limit?: { value: number; name: string };
  curves: readonly Curve[];
}

function Plot({ title, xTitle, quantity, now, fit = false, limit, curves }: PlotProps) {
  const units = useUnits();
  const factor = units.factor(quantity);
  const xs = curves.flatMap((c) => c.points.map(([x]) => x));
  const values = curves.flatMap((c) => c.points.map(([, y]) => y * factor));
  const near = limit !== undefined && (fit || limit.value * factor < 1.6 * Math.max(...values, 1));
  const all = near ? [...values, limit.value * factor] : values;
  const y = scaleLinear([fit ? Math.min(...all) : 0, Math.max(...all, fit ? -Infinity : 1)], [HEIGHT - 18, TOP]).nice(3);
  const x = scaleLinear([Math.min(...xs, 0), Math.max(...xs, 1)], [LEFT, WIDTH - RIGHT]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full"
      role="img"
      aria-label={`${title}, ${units.unit(quantity)}, by ${xTitle}`}
    >
      {y.ticks(3).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={LEFT - 4} y={y(tick) + 3.5} fontSize={10} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        </g>
      ))}
      {x.ticks(5).map((tick) => (
        <text key={tick} x={x(tick)} y={HEIGHT - 5} fontSize={10} textAnchor="middle" style={{ fill: "var(--mute)" }}>
          {grouped(tick)}
        </text>
      ))}
      {near && (
        <>
          <line
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={y(limit.value * factor)}
            y2={y(limit.value * factor)}
            stroke="var(--brick)"
            strokeDasharray="5 3"
            strokeWidth={1.3}
          />
          <text x={WIDTH - RIGHT} y={y(limit.value * factor) - 3} fontSize={10} textAnchor="end" style={{ fill: "var(--brick)" }}>
            {limit.name} {units.number(limit.value, quantity)}
          </text>
        </>
      )}
      {curves.map((curve) => (
        <path
          key={curve.name}
          d={line(curve.points.map(([px, py]) => [x(px), y(py * factor)] as const))}
          fill="none"
          stroke={curve.colour}
          strokeWidth={1.6}
          strokeDasharray={curve.dashed ? "6 4" : undefined}
          strokeLinejoin="round"
        />
      ))}
      <line x1={x(now)} x2={x(now)} y1={TOP - 4} y2={HEIGHT - 18} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 2" />
      <text x={0} y={11} fontSize={11.5} fontWeight={600} style={{ fill: "var(--ink)" }}>
        {title}, {units.unit(quantity)}
      </text>
      <Legend curves={curves} />
      <text x={WIDTH - RIGHT} y={11} fontSize={10} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {xTitle}
      </text>
    </svg>
  );
}

function Legend({ curves }: { curves: readonly Curve[] }) {
  return (
    <g>
      {curves.map((curve, i) => (
        <g key={curve.name} transform={`translate(${LEFT + i * 90} 23)`}>
          <line x1={0} x2={18} y1={-3} y2={-3} stroke={curve.colour} strokeWidth={2} strokeDasharray={curve.dashed ? "6 4" : undefined} />
          <text x={22} y={0} fontSize={10.5} style={{ fill: "var(--mute)" }}>
            {curve.name}
          </text>
        </g>
      ))}
    </g>
  );
}
