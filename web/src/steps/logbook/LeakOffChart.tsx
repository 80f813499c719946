// The points of a test, the line while the rock is closed, and the break: dragged, or moved by arrow keys, from reading to reading.
import type { KeyboardEvent, PointerEvent } from "react";
import { useRef } from "react";
import type { LeakOffRow, LogEntry } from "../../design/types";
import { Chart } from "../../ui/Chart";
import type { Frame } from "../../ui/Chart";
import { useUnits } from "../../ui/units";

const WIDTH_PX = 430;
const HEIGHT_PX = 250;
const ROOM = 1.12;

type Points = NonNullable<LogEntry["points"]>;

interface LeakOffChartProps {
  test: LeakOffRow;
  points: Points;
  /** Look at another break while it is dragged; null goes back. */
  onLook: (psi: number | null) => void;
  /** Set the break where it was let go. */
  onSet: (psi: number) => void;
}

export function LeakOffChart({ test, points, onLook, onSet }: LeakOffChartProps) {
  const most = (key: "volume_bbl" | "pressure_psi") => Math.max(...points.map((p) => p[key])) * ROOM || 1;
  return (
    <Chart
      label="Pressure against volume pumped, with the line and the break"
      x={{ title: "Volume pumped", quantity: "volume", most: most("volume_bbl") }}
      y={{ title: "Pump pressure", quantity: "pressure", most: most("pressure_psi") }}
      widthPx={WIDTH_PX}
      heightPx={HEIGHT_PX}
      graspable
    >
      {(frame) => (
        <>
          {test.slope_psi_bbl !== null && test.offset_psi !== null && (
            <Line frame={frame} slope={test.slope_psi_bbl} offset={test.offset_psi} top={most("pressure_psi")} />
          )}
          <path
            d={points.map((p, i) => `${i === 0 ? "M" : "L"}${frame.x(p.volume_bbl)},${frame.y(p.pressure_psi)}`).join("")}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.2}
          />
          {points.map((p, i) => (
            <circle key={i} cx={frame.x(p.volume_bbl)} cy={frame.y(p.pressure_psi)} r={2.6} fill="var(--ink)" />
          ))}
          <BreakGrip frame={frame} test={test} points={points} onLook={onLook} onSet={onSet} />
        </>
      )}
    </Chart>
  );
}

function Line({ frame, slope, offset, top }: { frame: Frame; slope: number; offset: number; top: number }) {
  const from = Math.max(0, -offset / slope);
  const to = (top - offset) / slope;
  return (
    <path
      d={`M${frame.x(from)},${frame.y(offset + slope * from)}L${frame.x(to)},${frame.y(top)}`}
      stroke="var(--petrol)"
      strokeWidth={1.2}
      strokeDasharray="6 3"
    />
  );
}

/** The reading nearest to a pressure. */
function nearest(points: Points, psi: number): number {
  return points.reduce((best, p, i) => (Math.abs(p.pressure_psi - psi) < Math.abs(points[best]!.pressure_psi - psi) ? i : best), 0);
}

function BreakGrip({ frame, test, points, onLook, onSet }: LeakOffChartProps & { frame: Frame }) {
  const units = useUnits();
  const held = useRef<{ at: number; from: number } | null>(null);
  if (test.pressure_psi === null) return null;
  const at = nearest(points, test.pressure_psi);
  const volume = points[at]!.volume_bbl;
  const [x, y] = [frame.x(volume), frame.y(test.pressure_psi)];
  const byX = (event: PointerEvent<SVGGElement>): number => {
    const px = event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
    return points.reduce(
      (best, p, i) => (Math.abs(frame.x(p.volume_bbl) - px) < Math.abs(frame.x(points[best]!.volume_bbl) - px) ? i : best),
      0,
    );
  };
  const drop = (cancel: boolean) => {
    const start = held.current;
    held.current = null;
    if (start === null || start.at === start.from || cancel) onLook(null);
    else onSet(points[start.at]!.pressure_psi);
  };
  return (
    <>
      <path
        d={`M${x},${y}V${frame.bottom}M${x},${y}H${frame.x(0)}`}
        stroke="var(--gold)"
        strokeWidth={1.2}
        strokeDasharray="2 3"
        pointerEvents="none"
      />
      <g
        tabIndex={0}
        role="slider"
        aria-label="Break of the test"
        aria-orientation="horizontal"
        aria-valuemin={0}
        aria-valuemax={Math.round(points[points.length - 1]!.pressure_psi)}
        aria-valuenow={Math.round(test.pressure_psi)}
        aria-valuetext={units.text(test.pressure_psi, "pressure")}
        data-grip="break"
        className="cursor-ew-resize touch-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          event.currentTarget.focus();
          held.current = { at, from: at };
        }}
        onPointerMove={(event) => {
          if (held.current === null) return;
          const to = byX(event);
          if (to === held.current.at) return;
          held.current.at = to;
          onLook(points[to]!.pressure_psi);
        }}
        onPointerUp={() => drop(false)}
        onPointerCancel={() => drop(true)}
        onKeyDown={(event: KeyboardEvent) => {
          const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
          if (event.key === "Escape") drop(true);
          else if (by !== undefined && points[at + by] !== undefined) onSet(points[at + by]!.pressure_psi);
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
      >
        <title>Drag from reading to reading, or arrow keys</title>

        <circle cx={x} cy={y} r={12} fill="transparent" />
        <circle cx={x} cy={y} r={5.5} fill="var(--gold)" stroke="var(--ink)" />
      </g>
      <text x={x + 9} y={y + 14} fontSize={11.5} fontWeight={600} className="halo" pointerEvents="none">
        {units.text(test.pressure_psi, "pressure")}
      </text>
    </>
  );
}
