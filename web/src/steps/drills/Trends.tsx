// The last ten minutes of the gauges that tell a kick, one strip each.
import { scaleLinear } from "d3-scale";
import { useState } from "react";
import { line } from "../../depth/Track";
import type { DrillPanel, Quantity } from "../../design/types";
import { useUnits } from "../../ui/units";

const SPAN_S = 600;
const WIDTH = 300;
const HEIGHT = 104;
const TOP = 16;

interface Reading {
  at: number;
  pit: number;
  out: number;
  pipe: number;
  casing: number;
}

type Field = Exclude<keyof Reading, "at">;
const STRIPS: readonly { field: Field; title: string; quantity: Quantity; least: number }[] = [
  { field: "pit", title: "Pit change", quantity: "volume", least: 4 },
  { field: "out", title: "Flow out", quantity: "flow", least: 50 },
  { field: "pipe", title: "Drill pipe pressure", quantity: "pressure", least: 200 },
  { field: "casing", title: "Casing pressure", quantity: "pressure", least: 200 },
];

/** What was read, kept while the panel stands. */
export function useReadings(panel: DrillPanel | undefined): readonly Reading[] {
  const [held, setHeld] = useState<readonly Reading[]>([]);
  const last = held[held.length - 1];
  if (panel !== undefined && (last === undefined || panel.clock_s > last.at)) {
    const next = {
      at: panel.clock_s,
      pit: panel.pit_change_bbl,
      out: panel.flow_out_gpm,
      pipe: panel.pipe_psi ?? 0,
      casing: panel.casing_psi ?? 0,
    };
    setHeld([...held.filter((r) => r.at > panel.clock_s - SPAN_S), next]);
  }
  return held;
}

export function Trends({ readings }: { readings: readonly Reading[] }) {
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-1">
      {STRIPS.map((strip) => (
        <Strip key={strip.field} readings={readings} {...strip} />
      ))}
    </div>
  );
}

function Strip({ readings, field, title, quantity, least }: (typeof STRIPS)[number] & { readings: readonly Reading[] }) {
  const units = useUnits();
  const until = readings[readings.length - 1]?.at ?? 0;
  const values = readings.map((r) => r[field]);
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
      <path
        d={line(readings.map((r) => [x(r.at), y(r[field])] as const))}
        fill="none"
        stroke="var(--petrol)"
        strokeWidth={1.6}
        strokeLinejoin="round"
      />
      <text x={5} y={12} fontSize={11} style={{ fill: "var(--mute)" }}>
        {title}, {units.unit(quantity)}
      </text>
      <text x={WIDTH - 5} y={12} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {units.number(low, quantity)} to {units.number(high, quantity)}
      </text>
    </svg>
  );
}
