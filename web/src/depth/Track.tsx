// A track: one chart against depth on the shared axis, with its own horizontal scale and its reading at the cursor.
import { scaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import { setCursor, useCursor } from "./cursor";
import { DepthClip } from "./DepthClip";
import type { DepthScale } from "./scale";
import { FOOTER_PX, HEADER_PX, depthTicks } from "./scale";
import { DEPTH_CLASS } from "./useDepthView";

export interface TrackProps {
  title: string;
  unit: string;
  scale: DepthScale;
  widthPx: number;
  domain: readonly [number, number];
  /** Display units per ft, for the grid. */
  depthFactor: number;
  /** What the cursor reads at a depth, null for nothing. */
  read: (mdFt: number) => string | null;
  children: (x: (value: number) => number) => ReactNode;
  summary: string;
}

const PAD_PX = 6;

export function Track({ title, unit, scale, widthPx, domain, depthFactor, read, children, summary }: TrackProps) {
  const x = scaleLinear(domain, [PAD_PX, widthPx - PAD_PX]);
  const ticks = x.ticks(Math.max(2, Math.floor(widthPx / 50)));
  const bottom = scale.heightPx - FOOTER_PX;
  return (
    <svg
      width={widthPx}
      height={scale.heightPx}
      role="img"
      aria-label={summary}
      className={`block shrink-0 ${DEPTH_CLASS}`}
      onPointerMove={(event) => {
        setCursor(scale.md(event.nativeEvent.offsetY));
      }}
      onPointerLeave={() => {
        setCursor(null);
      }}
    >
      <text x={PAD_PX} y={18} fontSize={12.5} fontWeight={600}>
        {title}
      </text>
      <text x={PAD_PX} y={33} fontSize={11} fill="var(--mute)" style={{ fill: "var(--mute)" }}>
        {unit}
      </text>
      <rect x={PAD_PX} y={HEADER_PX} width={widthPx - 2 * PAD_PX} height={bottom - HEADER_PX} fill="var(--sheet)" stroke="var(--rule)" />
      {depthTicks(scale, depthFactor).map((tick) => (
        <line key={tick.label} x1={PAD_PX} x2={widthPx - PAD_PX} y1={scale.y(tick.mdFt)} y2={scale.y(tick.mdFt)} stroke="var(--rule)" strokeWidth={0.6} />
      ))}
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={HEADER_PX} y2={bottom} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={x(tick)} y={HEADER_PX - 6} fontSize={10.5} textAnchor={x(tick) > widthPx - 20 ? "end" : x(tick) < 14 ? "start" : "middle"} style={{ fill: "var(--mute)" }}>
            {tick.toLocaleString("en-US")}
          </text>
        </g>
      ))}
      <DepthClip scale={scale} widthPx={widthPx}>
        {children(x)}
      </DepthClip>
      <CursorReading scale={scale} widthPx={widthPx} read={read} />
    </svg>
  );
}

function CursorReading({ scale, widthPx, read }: { scale: DepthScale; widthPx: number; read: TrackProps["read"] }) {
  const depthFt = useCursor();
  if (depthFt === null || !scale.shows(depthFt)) return null;
  const y = scale.y(depthFt);
  const text = read(depthFt);
  const width = text === null ? 0 : Math.min(widthPx - 2 * PAD_PX, text.length * 5.9 + 10);
  const below = y + 21 < scale.heightPx - FOOTER_PX;
  return (
    <g pointerEvents="none">
      <line x1={0} x2={widthPx} y1={y} y2={y} stroke="var(--gold)" strokeWidth={1.2} />
      {text !== null && (
        <g transform={`translate(${PAD_PX + 2}, ${below ? y + 3 : y - 20})`}>
          <rect width={width} height={17} rx={3} fill="var(--sheet)" stroke="var(--gold)" />
          <text x={5} y={12.5} fontSize={11}>
            {text}
          </text>
        </g>
      )}
    </g>
  );
}

/** A polyline path through points in pixels. */
export function line(points: readonly (readonly [number, number])[]): string {
  return points.map(([px, py], i) => `${i === 0 ? "M" : "L"}${px.toFixed(1)},${py.toFixed(1)}`).join("");
}
