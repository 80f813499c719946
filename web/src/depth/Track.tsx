// A track: one chart against depth on the shared axis, with its own horizontal scale, its reading at the cursor, and
// the table behind it.
import { scaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import { grouped } from "../ui/numbers";
import { useUnits } from "../ui/units";
import type { TableData } from "./ChartTable";
import { ChartTable } from "./ChartTable";
import { setCursor, useCursor } from "./cursor";
import { DepthClip } from "./DepthClip";
import type { DepthScale } from "./scale";
import { FOOTER_PX, HEADER_PX, depthTicks } from "./scale";
import { DEPTH_CLASS } from "./useDepthView";

export interface HorizontalScale {
  (value: number): number;
  invert: (px: number) => number;
}

export interface TrackProps {
  title: string;
  unit: string;
  scale: DepthScale;
  widthPx: number;
  domain: readonly [number, number];
  /** What the cursor reads at a depth, null for nothing. */
  read: (mdFt: number) => string | null;
  table: () => TableData;
  children: (x: HorizontalScale) => ReactNode;
  /** What can be grabbed, drawn over everything. */
  grips?: (x: HorizontalScale) => ReactNode;
  summary: string;
  /** Whether something in it can be grabbed: then it is a group of sliders, not a picture. */
  graspable?: boolean;
  /** A button beside the table's. */
  action?: ReactNode;
  /** In place of the title: what it can show. */
  heading?: ReactNode;
  /** A drawing across, not a scale: no ticks. */
  bare?: boolean;
}

const PAD_PX = 6;

export function Track({
  title,
  unit,
  scale,
  widthPx,
  domain,
  read,
  table,
  children,
  grips,
  summary,
  graspable = false,
  action,
  heading,
  bare = false,
}: TrackProps) {
  const units = useUnits();
  const x = scaleLinear(domain, [PAD_PX, widthPx - PAD_PX]);
  const wanted = Math.max(2, Math.floor(widthPx / (domain[1] >= 1000 ? 62 : 44)));
  const few = x.ticks(wanted);
  const ticks = few.length > 1 ? few : x.ticks(wanted + 2);
  const labelled = withRoom(ticks, x);
  const bottom = scale.heightPx - FOOTER_PX;
  return (
    <div className="relative shrink-0" style={{ width: widthPx }} data-picture>
      <svg
        width={widthPx}
        height={scale.heightPx}
        role={graspable ? "group" : "img"}
        aria-label={summary}
        className={`own-layer block select-none ${DEPTH_CLASS}`}
        onPointerMove={(event) => {
          setCursor(scale.md(event.clientY - event.currentTarget.getBoundingClientRect().top));
        }}
        onPointerLeave={() => {
          setCursor(null);
        }}
      >
        {heading === undefined && (
          <text x={PAD_PX} y={18} fontSize={12.5} fontWeight={600}>
            {title}
          </text>
        )}
        <text x={PAD_PX} y={33} fontSize={11} style={{ fill: "var(--mute)" }}>
          {unit}
        </text>
        <rect x={PAD_PX} y={HEADER_PX} width={widthPx - 2 * PAD_PX} height={bottom - HEADER_PX} fill="var(--sheet)" stroke="var(--rule)" />
        {depthTicks(scale, units.factor("depth")).map((tick) => (
          <line key={tick.label} x1={PAD_PX} x2={widthPx - PAD_PX} y1={tick.y} y2={tick.y} stroke="var(--rule)" strokeWidth={0.6} />
        ))}
        {(bare ? [] : ticks).map((tick) => (
          <g key={tick}>
            <line x1={x(tick)} x2={x(tick)} y1={HEADER_PX} y2={bottom} stroke="var(--rule)" strokeWidth={0.6} />
            {labelled.has(tick) && (
              <text
                x={x(tick)}
                y={HEADER_PX - 6}
                fontSize={10.5}
                textAnchor={x(tick) > widthPx - 20 ? "end" : x(tick) < 14 ? "start" : "middle"}
                style={{ fill: "var(--mute)" }}
              >
                {grouped(tick)}
              </text>
            )}
          </g>
        ))}
        <DepthClip scale={scale} widthPx={widthPx}>
          {children(x)}
          {grips?.(x)}
        </DepthClip>
      </svg>
      <CursorReading scale={scale} widthPx={widthPx} read={read} />
      {heading !== undefined && (
        <div className="absolute top-1.5 left-1" style={{ width: widthPx - 34 }}>
          {heading}
        </div>
      )}
      <div className="absolute top-2 right-2 flex items-center gap-1.5">
        {action}
        <ChartTable title={title} data={table} />
      </div>
    </div>
  );
}

const LETTER_PX = 6;

/** The ticks whose labels have room: all, or every second one from zero. */
function withRoom(ticks: readonly number[], x: (value: number) => number): Set<number> {
  const widest = Math.max(0, ...ticks.map((t) => grouped(t).length)) * LETTER_PX;
  const apart = ticks.length > 1 ? x(ticks[1]!) - x(ticks[0]!) : Infinity;
  const every = apart < widest + LETTER_PX ? 2 : 1;
  const from = Math.max(0, ticks.indexOf(0));
  return new Set(ticks.filter((_, i) => (i - from) % every === 0));
}

function CursorReading({ scale, widthPx, read }: { scale: DepthScale; widthPx: number; read: TrackProps["read"] }) {
  const depthFt = useCursor();
  if (depthFt === null || !scale.shows(depthFt)) return null;
  const y = scale.y(depthFt);
  const text = read(depthFt);
  const width = text === null ? 0 : Math.min(widthPx - 2 * PAD_PX, text.length * 5.9 + 10);
  const below = y + 21 < scale.heightPx - FOOTER_PX;
  return (
    <svg data-passing width={widthPx} height={42} className="own-layer pointer-events-none absolute left-0" style={{ top: y - 21 }}>
      <line x1={0} x2={widthPx} y1={21} y2={21} stroke="var(--gold)" strokeWidth={1.2} />
      {text !== null && (
        <g transform={`translate(${PAD_PX + 2}, ${below ? 24 : 1})`}>
          <rect width={width} height={17} rx={3} fill="var(--sheet)" stroke="var(--gold)" />
          <text x={5} y={12.5} fontSize={11}>
            {text}
          </text>
        </g>
      )}
    </svg>
  );
}

/** A polyline path through points in pixels. */
export function line(points: readonly (readonly [number, number])[]): string {
  return points.map(([px, py], i) => `${i === 0 ? "M" : "L"}${px.toFixed(1)},${py.toFixed(1)}`).join("");
}
