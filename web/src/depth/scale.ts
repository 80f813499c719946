// The depth axis: one scale from measured depth to pixels, shared by the section and every track. No React.
import { scaleLinear } from "d3-scale";

export const HEADER_PX = 56;
export const FOOTER_PX = 14;

export interface DepthScale {
  totalFt: number;
  heightPx: number;
  y: (mdFt: number) => number;
  md: (yPx: number) => number;
}

export function depthScale(totalFt: number, heightPx: number): DepthScale {
  const scale = scaleLinear([0, totalFt], [HEADER_PX, Math.max(HEADER_PX + 1, heightPx - FOOTER_PX)]).clamp(false);
  return { totalFt, heightPx, y: scale, md: (yPx) => Math.min(totalFt, Math.max(0, scale.invert(yPx))) };
}

/** Round tick depths [ft] in the units shown: `factor` is display units per ft. */
export function depthTicks(scale: DepthScale, factor: number): { mdFt: number; label: string }[] {
  const count = Math.max(4, Math.round((scale.heightPx - HEADER_PX) / 55));
  return scaleLinear([0, scale.totalFt * factor], [0, 1])
    .ticks(count)
    .map((shown) => ({ mdFt: shown / factor, label: shown.toLocaleString("en-US") }));
}

/** Straight interpolation in a rising table; null outside it. At a step the last row counts. */
export function interpolate(xs: readonly number[], ys: readonly number[], x: number): number | null {
  const first = xs[0];
  const last = xs[xs.length - 1];
  if (first === undefined || last === undefined || x < first || x > last) return null;
  let low = 0;
  let high = xs.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (xs[middle]! <= x) low = middle;
    else high = middle;
  }
  const span = xs[high]! - xs[low]!;
  return span === 0 ? ys[high]! : ys[low]! + ((x - xs[low]!) / span) * (ys[high]! - ys[low]!);
}
