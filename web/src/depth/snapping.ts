// Where a dragged depth comes to rest. Pure.
import type { Units } from "../ui/units";
import type { DepthScale } from "./scale";

const NEAR_PX = 6;

/** A measured depth at the nearest boundary within a few pixels, else at a round number; free is to the nearest foot. */
export function restingDepth(mdFt: number, boundariesFt: readonly number[], scale: DepthScale, units: Units, free: boolean): number {
  if (free) return units.snapDepth(mdFt, true);
  let nearest: number | null = null;
  for (const boundary of boundariesFt) {
    const away = Math.abs(scale.y(boundary) - scale.y(mdFt));
    if (away <= NEAR_PX && (nearest === null || away < Math.abs(scale.y(nearest) - scale.y(mdFt)))) nearest = boundary;
  }
  return nearest ?? units.snapDepth(mdFt);
}
