// What the pump and the rock see through the job, against barrels pumped or minutes: one axis, dragged to scrub.
import { scaleLinear } from "d3-scale";
import { useRef, useState } from "react";
import type { JobStage, Quantity } from "../../design/types";
import { line } from "../../depth/Track";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";
import { setMoment, shareOf, useMoment } from "./moment";

const WIDTH = 380;
const LEFT = 44;
const RIGHT = 6;
const HEIGHT = 92;
const TOP = 24;

interface Curve {
  name: string;
  values: readonly number[];
  colour: string;
  dashed?: boolean;
}

export function JobCharts({ stage }: { stage: JobStage }) {
  const units = useUnits();
  const [against, setAgainst] = useState<"volume" | "minutes">("volume");
  const xs = against === "volume" ? stage.pumped_bbl : stage.minutes;
  const weakest = stage.weakest_md_ft === null ? "" : ` at ${units.text(stage.weakest_md_ft, "depth")}`;
  const limit = stage.weakest_fracture_ppg;
  const shared = { stage, xs, against };
  return (
    <div>
      <div role="group" aria-label="Against" className="flex items-center gap-1 text-[12px]">
        {(["volume", "minutes"] as const).map((key) => (
          <button
            key={key}
            type="button"
            aria-pressed={against === key}
            className={`rounded border px-1.5 ${against === key ? "border-petrol text-petrol" : "border-rule hover:border-petrol"}`}
            onClick={() => {
              setAgainst(key);
            }}
          >
            {key === "volume" ? units.unit("volume") : "minutes"}
          </button>
        ))}
        <span className="text-mute">drag a chart to go through the job</span>
      </div>
      <Chart
        {...shared}
        title="Pump pressure"
        quantity="pressure"
        curves={[{ name: "pump", values: stage.pump_psi, colour: "var(--petrol)" }]}
      />
      <Chart
        {...shared}
        title="Rate"
        quantity="pump_rate"
        curves={[
          { name: "in", values: stage.in_bpm, colour: "var(--mute)" },
          { name: "out", values: stage.out_bpm, colour: "var(--petrol)" },
        ]}
      />
      <Chart
        {...shared}
        title={`Equivalent weight${weakest}`}
        quantity="emw"
        fit
        limit={limit}
        curves={[
          ...(stage.weakest_ppg.length > 0 ? [{ name: "weakest", values: stage.weakest_ppg, colour: "var(--petrol)" }] : []),
          { name: stage.number > 1 ? "collar" : "shoe", values: stage.shoe_ppg, colour: "var(--mute)" },
        ]}
        last
      />
    </div>
  );
}

interface ChartProps {
  stage: JobStage;
  xs: readonly number[];
  against: "volume" | "minutes";
  title: string;
  quantity: Quantity;
  curves: readonly Curve[];
  /** The axis begins near the least value, not at 0. */
  fit?: boolean;
  limit?: number | null;
  last?: boolean;
}

function Chart({ stage, xs, against, title, quantity, curves, fit = false, limit = null, last = false }: ChartProps) {
  const units = useUnits();
  const moment = useMoment(stage);
  const svg = useRef<SVGSVGElement>(null);
  const factor = units.factor(quantity);
  const all = [...curves.flatMap((c) => c.values), ...(limit === null ? [] : [limit])].map((v) => v * factor);
  const y = scaleLinear([fit ? Math.min(...all) : 0, Math.max(...all, fit ? -Infinity : 1)], [HEIGHT - 4, TOP]).nice(3);
  const xFactor = against === "volume" ? units.factor("volume") : 1;
  const x = scaleLinear([0, xs[xs.length - 1]! * xFactor], [LEFT, WIDTH - RIGHT]);
  const height = HEIGHT + (last ? 18 : 0);
  const goTo = (clientX: number) => {
    const box = svg.current!.getBoundingClientRect();
    const wanted = x.invert(((clientX - box.left) / box.width) * WIDTH) / xFactor;
    let k = 0;
    while (k < xs.length - 1 && xs[k + 1]! <= wanted) k += 1;
    setMoment(shareOf(stage, k));
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="block w-full cursor-ew-resize touch-none select-none"
      role="img"
      aria-label={`${title} through the job, ${units.unit(quantity)}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        goTo(event.clientX);
      }}
      onPointerMove={(event) => {
        if (event.buttons > 0) goTo(event.clientX);
      }}
    >
      {y.ticks(3).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={LEFT - 4} y={y(tick) + 3.5} fontSize={10} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        </g>
      ))}
      {limit !== null && (
        <line
          x1={LEFT}
          x2={WIDTH - RIGHT}
          y1={y(limit * factor)}
          y2={y(limit * factor)}
          stroke="var(--brick)"
          strokeDasharray="5 3"
          strokeWidth={1.4}
        />
      )}
      {curves.map((curve) => (
        <path
          key={curve.name}
          d={line(xs.map((at, i) => [x(at * xFactor), y(curve.values[i]! * factor)] as const))}
          fill="none"
          stroke={curve.colour}
          strokeWidth={1.5}
        />
      ))}
      <line
        x1={x(xs[moment]! * xFactor)}
        x2={x(xs[moment]! * xFactor)}
        y1={TOP - 3}
        y2={HEIGHT - 4}
        stroke="var(--gold)"
        strokeWidth={1.4}
      />
      <text x={0} y={11} fontSize={11.5} fontWeight={600}>
        {title}
      </text>
      <text x={WIDTH - RIGHT} y={11} fontSize={11} textAnchor="end">
        {curves.map((curve, k) => (
          <tspan key={curve.name} style={{ fill: curve.colour === "var(--mute)" ? "var(--mute)" : "var(--ink)" }}>
            {k > 0 ? "  ·  " : ""}
            {curves.length > 1 ? `${curve.name} ` : ""}
            {units.number(curve.values[moment]!, quantity)}
          </tspan>
        ))}
        <tspan style={{ fill: "var(--mute)" }}> {units.unit(quantity)}</tspan>
      </text>
      {last &&
        x.ticks(6).map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT + 10} fontSize={10} textAnchor="middle" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        ))}
    </svg>
  );
}
