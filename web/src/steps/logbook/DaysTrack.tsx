// Days across, depth down: the plan with its band, and the hole as it was drilled over it.
import { fromZero } from "../../depth/domain";
import type { DepthScale } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { useEvaluated } from "../../design/context";
import { useUnits } from "../../ui/units";
import { usePlannedCurve } from "./useLog";

const LEAST_DAYS = 5;

interface DaysTrackProps {
  scale: DepthScale;
  widthPx: number;
  /** As the feed brings it. */
  live?: readonly { day: number; md_ft: number }[];
}

export function DaysTrack({ scale, widthPx, live = [] }: DaysTrackProps) {
  const units = useUnits();
  const planned = usePlannedCurve();
  const drilled = useEvaluated((e) => e.logbook.curve) ?? [];
  const dayAt = (md: number) => {
    const plan = planned.find((p) => p.md_ft >= md);
    const actual = drilled.find((p) => p.md_ft >= md);
    const words = [
      ...(plan ? [`plan day ${units.number(plan.day, "days")}`] : []),
      ...(actual ? [`drilled day ${units.number(actual.day, "days")}`] : []),
    ];
    return words.length > 0 ? words.join(", ") : null;
  };
  return (
    <Track
      title="Days, planned and drilled"
      unit="days from the spud"
      scale={scale}
      widthPx={widthPx}
      domain={fromZero([...planned.map((p) => p.high), ...drilled.map((p) => p.day), ...live.map((p) => p.day)], LEAST_DAYS)}
      read={dayAt}
      table={() => ({
        columns: ["", "Day", `Depth, ${units.unit("depth")}`],
        rows: [
          ...planned.map((p) => ["planned", units.number(p.day, "days"), units.number(p.md_ft, "depth")]),
          ...drilled.map((p) => ["drilled", units.number(p.day, "days"), units.number(p.md_ft, "depth")]),
        ],
      })}
      summary="Depth of the hole against days from the spud: the plan's mean with its band, and as drilled"
    >
      {(x) => {
        const low = planned.map((p) => [x(Math.max(p.low, 0)), scale.y(p.md_ft)] as const);
        const high = planned.map((p) => [x(p.high), scale.y(p.md_ft)] as const);
        const last = drilled[drilled.length - 1];
        return (
          <>
            {low.length > 1 && <path d={`${line([...low, ...high.reverse()])}Z`} fill="var(--petrol)" fillOpacity={0.12} />}
            <path
              d={line(planned.map((p) => [x(p.day), scale.y(p.md_ft)] as const))}
              fill="none"
              stroke="var(--mute)"
              strokeWidth={1.4}
              strokeDasharray="5 3"
            />
            <path
              d={line(drilled.map((p) => [x(p.day), scale.y(p.md_ft)] as const))}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={2.2}
              strokeLinejoin="round"
            />
            {drilled.map((p, i) => (
              <circle key={i} cx={x(p.day)} cy={scale.y(p.md_ft)} r={2.4} fill="var(--ink)" />
            ))}
            {live.length > 0 && (
              <>
                <path
                  d={line(live.map((p) => [x(p.day), scale.y(p.md_ft)] as const))}
                  fill="none"
                  stroke="var(--gold)"
                  strokeWidth={2.4}
                  data-live={live.length}
                />
                <circle
                  cx={x(live[live.length - 1]!.day)}
                  cy={scale.y(live[live.length - 1]!.md_ft)}
                  r={4}
                  fill="var(--gold)"
                  stroke="var(--ink)"
                />
              </>
            )}
            {last !== undefined && (
              <text x={x(last.day) + 6} y={scale.y(last.md_ft) + 4} fontSize={11} fontWeight={600} className="halo">
                today
              </text>
            )}
          </>
        );
      }}
    </Track>
  );
}
