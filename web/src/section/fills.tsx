// A length of the well filled, in its bore or across it, or on both sides of it: telescoping, or lying along the path.
import type { Basis } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { CENTRE, pathBetween, pathPlan } from "./geometry";

export interface FillProps {
  from: number;
  to: number;
  /** Half widths in pixels: from the middle, or from a wall, out. */
  inner: number;
  outer: number;
  scale: DepthScale;
  basis: Basis;
  fill: string;
  opacity?: number;
  stroke?: string;
  dash?: string;
}

const LEAST_PX = 3;

export function Fill({ from, to, inner, outer, scale, basis, fill, opacity = 1, stroke, dash }: FillProps) {
  const y = scale.y(from);
  const high = Math.max(scale.y(to) - y, LEAST_PX);
  if (scale.axis.kind !== "md") {
    const plan = pathPlan(basis, scale);
    const end = Math.max(to, from + 1);
    const d = pathBetween(from, end, basis, scale, plan);
    return (
      <>
        <path d={d} fill="none" style={{ stroke: fill }} strokeOpacity={opacity} strokeWidth={2 * outer} strokeDasharray={dash} />
        {inner > 0 && <path d={d} fill="none" stroke="var(--hole)" strokeWidth={2 * inner} />}
      </>
    );
  }
  const sides = inner > 0 ? [-1, 1] : [0];
  return sides.map((side) => (
    <rect
      key={side}
      x={side === 0 ? CENTRE - outer : side < 0 ? CENTRE - outer : CENTRE + inner}
      width={side === 0 ? 2 * outer : outer - inner}
      y={y}
      height={high}
      style={{ fill }}
      fillOpacity={opacity}
      stroke={stroke}
      strokeDasharray={dash}
    />
  ));
}
