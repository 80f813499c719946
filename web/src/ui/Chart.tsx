// A small chart: a frame, axes with round numbers in the person's units, and what is drawn inside of it.
import { scaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import type { Quantity } from "../design/types";
import { useUnits } from "./units";

export interface ChartAxis {
  title: string;
  quantity: Quantity;
  /** In core units. */
  most: number;
}

export interface Frame {
  x: (value: number) => number;
  y: (value: number) => number;
  right: number;
  bottom: number;
}

interface ChartProps {
  label: string;
  x: ChartAxis;
  y: ChartAxis;
  widthPx: number;
  heightPx: number;
  /** Something in it can be grabbed: then it is a group, not a picture. */
  graspable?: boolean;
  children: (frame: Frame) => ReactNode;
}

const LEFT_PX = 64;
const TOP_PX = 10;
const RIGHT_PX = 8;
const BOTTOM_PX = 34;

export function Chart({ label, x, y, widthPx, heightPx, graspable = false, children }: ChartProps) {
  const units = useUnits();
  const right = widthPx - RIGHT_PX;
  const bottom = heightPx - BOTTOM_PX;
  const across = scaleLinear([0, x.most], [LEFT_PX, right]);
  const up = scaleLinear([0, y.most], [bottom, TOP_PX]);
  const ticks = (axis: ChartAxis, count: number) =>
    scaleLinear([0, axis.most * units.factor(axis.quantity)], [0, axis.most])
      .ticks(count)
      .map((t) => t / units.factor(axis.quantity));
  const head = (axis: ChartAxis) => `${axis.title}${units.unit(axis.quantity) === "" ? "" : `, ${units.unit(axis.quantity)}`}`;
  return (
    <svg width={widthPx} height={heightPx} role={graspable ? "group" : "img"} aria-label={label} className="block max-w-full">
      {ticks(y, 4).map((tick) => (
        <g key={tick}>
          <line x1={LEFT_PX} x2={right} y1={up(tick)} y2={up(tick)} stroke="var(--rule)" strokeWidth={0.7} />
          <text x={LEFT_PX - 5} y={up(tick) + 4} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {short(units.number(tick, y.quantity))}
          </text>
        </g>
      ))}
      {ticks(x, 6).map((tick) => (
        <g key={tick}>
          <line x1={across(tick)} x2={across(tick)} y1={bottom} y2={bottom + 4} stroke="var(--mute)" />
          <text x={across(tick)} y={bottom + 15} fontSize={11} textAnchor="middle" style={{ fill: "var(--mute)" }}>
            {short(units.number(tick, x.quantity))}
          </text>
        </g>
      ))}
      <path d={`M${LEFT_PX},${TOP_PX}V${bottom}H${right}`} fill="none" stroke="var(--mute)" />
      <text x={right} y={heightPx - 4} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {head(x)}
      </text>
      <text x={LEFT_PX + 4} y={TOP_PX + 9} fontSize={11} style={{ fill: "var(--mute)" }}>
        {head(y)}
      </text>
      {children({ x: (v) => across(v), y: (v) => up(v), right, bottom })}
    </svg>
  );
}

/** A round number on an axis needs no decimals that are nothing. */
function short(text: string): string {
  return text.replace(/\.0+$/, "");
}
