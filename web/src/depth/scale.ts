// The depth axis: one scale from measured depth to pixels, shared by the section and every track. No React.
import { scaleLinear } from "d3-scale";

export const HEADER_PX = 56;
export const FOOTER_PX = 14;
const LEAST_SPAN_FT = 50;

/** The stretch of the well that is on the screen. */
export interface DepthView {
  topFt: number;
  bottomFt: number;
}

export interface DepthScale extends DepthView {
  totalFt: number;
  heightPx: number;
  y: (mdFt: number) => number;
  /** Depth at a pixel, kept inside the well. */
  md: (yPx: number) => number;
  shows: (mdFt: number) => boolean;
}

export function depthScale(totalFt: number, heightPx: number, view: DepthView | null = null): DepthScale {
  const { topFt, bottomFt } = view === null ? { topFt: 0, bottomFt: totalFt } : kept(view, totalFt);
  const scale = scaleLinear([topFt, bottomFt], [HEADER_PX, Math.max(HEADER_PX + 1, heightPx - FOOTER_PX)]);
  return {
    totalFt,
    heightPx,
    topFt,
    bottomFt,
    y: scale,
    md: (yPx) => Math.min(totalFt, Math.max(0, scale.invert(yPx))),
    shows: (mdFt) => mdFt >= topFt - 1e-6 && mdFt <= bottomFt + 1e-6,
  };
}

/** A view no smaller than the least span and inside the well. */
function kept(view: DepthView, totalFt: number): DepthView {
  const span = Math.min(totalFt, Math.max(Math.min(LEAST_SPAN_FT, totalFt), view.bottomFt - view.topFt));
  const topFt = Math.min(Math.max(0, view.topFt), totalFt - span);
  return { topFt, bottomFt: topFt + span };
}

/** The view after zooming by a factor (under 1 is closer) about a pixel; null is the whole well. */
export function zoomed(scale: DepthScale, yPx: number, factor: number): DepthView | null {
  const at = scale.md(yPx);
  const view = kept({ topFt: at - (at - scale.topFt) * factor, bottomFt: at + (scale.bottomFt - at) * factor }, scale.totalFt);
  return view.bottomFt - view.topFt >= scale.totalFt - 1e-6 ? null : view;
}

/** The view after moving the paper by pixels, down for positive. */
export function panned(scale: DepthScale, dyPx: number): DepthView {
  const ft = (dyPx * (scale.bottomFt - scale.topFt)) / (scale.heightPx - HEADER_PX - FOOTER_PX);
  return kept({ topFt: scale.topFt - ft, bottomFt: scale.bottomFt - ft }, scale.totalFt);
}

/** Round tick depths [ft] in the units shown: `factor` is display units per ft. */
export function depthTicks(scale: DepthScale, factor: number): { mdFt: number; label: string }[] {
  const count = Math.max(4, Math.round((scale.heightPx - HEADER_PX) / 55));
  return scaleLinear([scale.topFt * factor, scale.bottomFt * factor], [0, 1])
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
