// What is measured on what is planned: the cement job by volume, the pits against time.
import type { LiveSpan, PlannedNow } from "../../design/types";
import { Chart } from "../../ui/Chart";
import { useUnits } from "../../ui/units";

const WIDTH_PX = 430;
const HEIGHT_PX = 190;
const ROOM = 1.1;
const SHOWN_S = 7_200;

function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x.toFixed(1)},${y.toFixed(1)}`).join("");
}

export function JobChart({ planned, spans }: { planned: PlannedNow; spans: readonly LiveSpan[] }) {
  const job = planned.job;
  const measured = ofThisJob(spans).map((s) => [s.values.cement_bbl![1], s.values.cement_psi?.[1] ?? 0] as const);
  const plan = job == null ? [] : job.pumped_bbl.map((v, i) => [v, job.pump_psi[i]!] as const);
  const all = [...plan, ...measured];
  if (all.length === 0) return null;
  return (
    <Chart
      label="Cement pump pressure against volume pumped, planned and measured"
      x={{ title: "Pumped", quantity: "volume", most: Math.max(...all.map((p) => p[0]), 1) * ROOM }}
      y={{ title: "Pump pressure", quantity: "pressure", most: Math.max(...all.map((p) => p[1]), 100) * ROOM }}
      widthPx={WIDTH_PX}
      heightPx={HEIGHT_PX}
    >
      {({ x, y }) => (
        <>
          <path
            d={path(plan.map(([v, p]) => [x(v), y(p)] as const))}
            fill="none"
            stroke="var(--mute)"
            strokeWidth={1.4}
            strokeDasharray="5 3"
          />
          <path
            d={path(measured.map(([v, p]) => [x(v), y(p)] as const))}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.8}
            data-measured={measured.length}
          />
        </>
      )}
    </Chart>
  );
}

/** From where the volume pumped began to count. */
function ofThisJob(spans: readonly LiveSpan[]): LiveSpan[] {
  const rows = spans.filter((s) => s.values.cement_bbl !== undefined);
  for (let i = rows.length - 1; i > 0; i--) if (rows[i]!.values.cement_bbl![1] < rows[i - 1]!.values.cement_bbl![1]) return rows.slice(i);
  return rows;
}

export function PitChart({ spans }: { spans: readonly LiveSpan[] }) {
  const units = useUnits();
  const end = spans[spans.length - 1]?.begins_s ?? 0;
  const shown = spans.filter((s) => s.begins_s > end - SHOWN_S && s.values.pit_bbl !== undefined);
  if (shown.length < 2) return null;
  const low = Math.min(...shown.map((s) => s.values.pit_bbl![0]));
  const gained = shown.map((s) => [(s.begins_s - shown[0]!.begins_s) / 60, s.values.pit_bbl![1] - low] as const);
  return (
    <Chart
      label="Pit volume over its least of the last two hours"
      x={{ title: "Time", quantity: "minutes", most: Math.max(...gained.map((p) => p[0]), 1) }}
      y={{ title: `Pits over ${units.text(low, "volume")}`, quantity: "volume", most: Math.max(...gained.map((p) => p[1]), 5) * ROOM }}
      widthPx={WIDTH_PX}
      heightPx={HEIGHT_PX}
    >
      {({ x, y }) => (
        <path
          d={path(gained.map(([t, v]) => [x(t), y(v)] as const))}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6}
          data-measured={gained.length}
        />
      )}
    </Chart>
  );
}
