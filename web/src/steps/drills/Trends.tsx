// The last ten minutes of the gauges that tell a kick, one strip each.
import { scaleLinear } from "d3-scale";
import { useState } from "react";
import { line } from "../../depth/Track";
import type { DrillState, Gauges, Quantity } from "../../design/types";
import { useUnits } from "../../ui/units";

const SPAN_S = 600;
const WIDTH = 300;
const HEIGHT = 150;
const TOP = 16;

type Field = "pit_change_bbl" | "flow_out_gpm" | "pipe_psi" | "casing_psi";
const STRIPS: readonly { field: Field; title: string; quantity: Quantity; least: number }[] = [
  { field: "pit_change_bbl", title: "Pit change", quantity: "volume", least: 4 },
  { field: "flow_out_gpm", title: "Flow out", quantity: "flow", least: 50 },
  { field: "pipe_psi", title: "Drill pipe pressure", quantity: "pressure", least: 200 },
  { field: "casing_psi", title: "Casing pressure", quantity: "pressure", least: 200 },
];

/** The gauges of the last ten minutes, kept while the panel stands; of a drill that is taken up again as they were read before. */
export function useReadings(state: DrillState): readonly Gauges[] {
  const { panel, trend } = state;
  const [held, setHeld] = useState<readonly Gauges[]>(trend);
  const last = held[held.length - 1];
  if (last === undefined || panel.clock_s > last.at_s) {
    const { clock_s: at_s, pit_bbl, pit_change_bbl, flow_out_gpm, pipe_psi, casing_psi } = panel;
    const now: Gauges = { at_s, pit_bbl, pit_change_bbl, flow_out_gpm, pipe_psi, casing_psi };
    const came = [...trend.filter((r) => last !== undefined && r.at_s > last.at_s && r.at_s < now.at_s), now];
    setHeld([...held, ...came].filter((r) => r.at_s > now.at_s - SPAN_S));
  }
  return held;
}

export function Trends({ readings }: { readings: readonly Gauges[] }) {
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-1">
      {STRIPS.map((strip) => (
        <Strip key={strip.field} readings={readings} {...strip} />
      ))}
    </div>
  );
}

function Strip({ readings, field, title, quantity, least }: (typeof STRIPS)[number] & { readings: readonly Gauges[] }) {
  const units = useUnits();
  const until = readings[readings.length - 1]?.at_s ?? 0;
  const read = runs(readings, field);
  const values = read.flat().map(([, value]) => value);
  const low = Math.min(0, ...values);
  const high = Math.max(low + least, ...values);
  const x = scaleLinear([until - SPAN_S, until], [0, WIDTH]);
  const y = scaleLinear([low, high], [HEIGHT - 3, TOP]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full border border-rule bg-sheet"
      role="img"
      aria-label={`${title} over the last ten minutes`}
    >
      <line x1={0} x2={WIDTH} y1={y(0)} y2={y(0)} stroke="var(--rule)" />
      {read.map((run) => (
        <path
          key={run[0]![0]}
          d={line(run.map(([at, value]) => [x(at), y(value)] as const))}
          fill="none"
          stroke="var(--petrol)"
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
      ))}
      <text x={5} y={12} fontSize={11} style={{ fill: "var(--mute)" }}>
        {title}, {units.unit(quantity)}
      </text>
      <text x={WIDTH - 5} y={12} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {values.length === 0 ? "no gauge on it" : `${units.number(low, quantity)} to ${units.number(high, quantity)}`}
      </text>
    </svg>
  );
}

/** What a gauge read, in runs between which there was none. */
function runs(readings: readonly Gauges[], field: Field): (readonly [number, number])[][] {
  const found: (readonly [number, number])[][] = [];
  let run: (readonly [number, number])[] | null = null;
  for (const r of readings) {
    const value = r[field];
    if (value === null) run = null;
    else if (run === null) found.push((run = [[r.at_s, value]]));
    else run.push([r.at_s, value]);
  }
  return found;
}
