// Days across, the depth of the hole down, with the band of the day; the end of each hole is dragged to another rate.
import { useEvaluated } from "../../design/context";
import type { RunsheetResult } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { fromZero } from "../../depth/domain";
import type { HorizontalScale } from "../../depth/Track";
import { Track, line } from "../../depth/Track";
import { useUnits } from "../../ui/units";
import { RateGrip } from "./RateGrip";

const LEAST_DAYS = 5;

export function ScheduleTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const units = useUnits();
  const result = useEvaluated((e) => e.runsheet);
  const curve = result?.curve ?? [];
  const day = (md: number): string | null => {
    const at = curve.find((p) => p.md_ft >= md);
    return at === undefined
      ? null
      : `day ${units.number(at.day, "days")}, ${units.number(at.low, "days")} to ${units.number(at.high, "days")}`;
  };
  return (
    <Track
      title="Days against depth"
      unit="days from the spud"
      scale={scale}
      widthPx={widthPx}
      domain={fromZero(
        curve.map((p) => p.high),
        LEAST_DAYS,
      )}
      read={day}
      table={() => ({
        columns: ["Day", "P10", "P90", `Depth, ${units.unit("depth")}`],
        rows: curve.map((p) => [
          units.number(p.day, "days"),
          units.number(p.low, "days"),
          units.number(p.high, "days"),
          units.number(p.md_ft, "depth"),
        ]),
      })}
      graspable
      summary="Depth of the hole against days from the spud by the mean, with the tenth and ninetieth percentile; the end of each hole can be dragged"
      grips={(x) => (result === undefined ? null : <Grips result={result} x={x} scale={scale} />)}
    >
      {(x) => (result === undefined ? null : <Curve result={result} x={x} scale={scale} />)}
    </Track>
  );
}

interface DrawnProps {
  result: RunsheetResult;
  x: HorizontalScale;
  scale: DepthScale;
}

function Curve({ result, x, scale }: DrawnProps) {
  const units = useUnits();
  const { curve } = result;
  const last = curve[curve.length - 1];
  const low = curve.map((p) => [x(Math.max(p.low, 0)), scale.y(p.md_ft)] as const);
  const high = curve.map((p) => [x(p.high), scale.y(p.md_ft)] as const);
  const mean = curve.map((p) => [x(p.day), scale.y(p.md_ft)] as const);
  return (
    <>
      {low.length > 1 && <path d={`${line([...low, ...high.reverse()])}Z`} fill="var(--petrol)" fillOpacity={0.14} />}
      <path d={line(mean)} fill="none" stroke="var(--ink)" strokeWidth={1.9} strokeLinejoin="round" />
      {last !== undefined && (
        <text x={x(last.day)} y={scale.y(last.md_ft) - 6} fontSize={11} fontWeight={600} textAnchor="middle" className="halo">
          {units.text(last.day, "days")}
        </text>
      )}
    </>
  );
}

function Grips({ result, x, scale }: DrawnProps) {
  return (
    <>
      {result.sections.map((section) => (
        <RateGrip key={section.string ?? -1} section={section} x={x} scale={scale} />
      ))}
    </>
  );
}
