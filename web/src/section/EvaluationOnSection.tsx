// Intervals of evaluation beside the well, a lane each kind of work that would run into another.
import { useDocument } from "../design/context";
import type { DepthScale } from "../depth/scale";
import { CENTRE } from "./geometry";

const LANE_PX = 7;
const FIRST_PX = 50;
const LANES = 4;

export function EvaluationOnSection({ scale }: { scale: DepthScale }) {
  const rows = useDocument((d) => d.completion.evaluation) ?? [];
  const points = useDocument((d) => d.completion.pressure_points) ?? [];
  const ends: number[] = [];
  const placed = [...rows]
    .sort((a, b) => a.from_md_ft - b.from_md_ft)
    .map((row) => {
      let lane = ends.findIndex((end) => end <= row.from_md_ft);
      if (lane < 0) lane = ends.length;
      ends[lane] = row.to_md_ft;
      return { row, lane: lane % LANES };
    });
  return (
    <>
      {placed.map(({ row, lane }) => {
        const x = CENTRE + FIRST_PX + lane * LANE_PX;
        const [top, base] = [scale.y(row.from_md_ft), scale.y(row.to_md_ft)];
        return (
          <g key={row.id} data-survey={row.id}>
            <title>{[row.kind, row.name].filter(Boolean).join(": ")}</title>
            <path
              d={`M${x - 3},${top} h6 M${x},${top} V${Math.max(base, top + 2)} M${x - 3},${Math.max(base, top + 2)} h6`}
              stroke={row.kind === "core" ? "var(--rust)" : "var(--petrol)"}
              strokeWidth={row.kind === "core" ? 3 : 1.6}
              strokeDasharray={row.kind === "logs while drilling" || row.kind === "cuttings" ? "3 2" : undefined}
              fill="none"
            />
            <text x={x + 3} y={top + 10} fontSize={10} fontWeight={600} className="halo">
              {rows.indexOf(row) + 1}
            </text>
          </g>
        );
      })}
      {points.map((p) => (
        <circle key={p.id} cx={CENTRE} cy={scale.y(p.md_ft)} r={3.5} fill="var(--gold)" stroke="var(--ink)" strokeWidth={0.8} />
      ))}
    </>
  );
}
