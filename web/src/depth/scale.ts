// The depth axis: one scale from measured depth to pixels, shared by the section and every track. No React.
// The axis runs along hole or in true vertical depth; what stands on it is given by measured depth either way.
import { scaleLinear } from "d3-scale";
import { grouped } from "../ui/numbers";

export const HEADER_PX = 56;
export const FOOTER_PX = 14;
const LEAST_SPAN_FT = 50;

/** What the axis measures: `toAxis` and `toMd` go between measured depth and depth on the axis. */
export interface DepthAxis {
  kind: "md" | "tvd";
  totalMdFt: number;
  /** Extent of the axis. */
  totalFt: number;
  toAxis: (mdFt: number) => number;
  toMd: (axisFt: number) => number;
}

interface Basis {
  total_md_ft: number;
  axis_md_ft: readonly number[];
  axis_tvd_ft: readonly number[];
}

export function depthAxis(kind: "md" | "tvd", basis: Basis): DepthAxis {
  const totalMdFt = basis.total_md_ft;
  if (kind === "md") return { kind, totalMdFt, totalFt: totalMdFt, toAxis: (md) => md, toMd: (md) => md };
  const first = firstCrossings(basis);
  return {
    kind,
    totalMdFt,
    totalFt: Math.max(...basis.axis_tvd_ft),
    toAxis: (md) => at(basis.axis_md_ft, basis.axis_tvd_ft, md),
    toMd: (tvd) => at(first.tvd, first.md, tvd),
  };
}

/** The knots at which the path is deeper than ever before: a TVD is first reached between two of these. */
export function firstCrossings(basis: Basis): { md: number[]; tvd: number[] } {
  const md: number[] = [];
  const tvd: number[] = [];
  basis.axis_tvd_ft.forEach((z, i) => {
    if (tvd.length === 0 || z > tvd[tvd.length - 1]!) {
      tvd.push(z);
      md.push(basis.axis_md_ft[i]!);
    }
  });
  return { md, tvd };
}

/** Interpolation that stays at the ends of its table. */
export function at(xs: readonly number[], ys: readonly number[], x: number): number {
  const inside = Math.min(xs[xs.length - 1]!, Math.max(xs[0]!, x));
  return interpolate(xs, ys, inside)!;
}

/** The stretch of the axis that is on the screen. */
export interface DepthView {
  topFt: number;
  bottomFt: number;
}

export interface DepthScale extends DepthView {
  axis: DepthAxis;
  heightPx: number;
  /** Pixel of a measured depth. */
  y: (mdFt: number) => number;
  /** Pixel of a depth on the axis. */
  axisY: (axisFt: number) => number;
  /** Measured depth at a pixel, kept inside the well. */
  md: (yPx: number) => number;
  axisAt: (yPx: number) => number;
  shows: (mdFt: number) => boolean;
  /** Pixel of a measured depth, or the edge of the view beyond which it lies. */
  edgeY: (mdFt: number) => number;
}

export function depthScale(axis: DepthAxis, heightPx: number, view: DepthView | null = null): DepthScale {
  const { topFt, bottomFt } = view === null ? { topFt: 0, bottomFt: axis.totalFt } : kept(view, axis.totalFt);
  const bottomPx = Math.max(HEADER_PX + 1, heightPx - FOOTER_PX);
  const axisY = scaleLinear([topFt, bottomFt], [HEADER_PX, bottomPx]);
  const axisAt = (yPx: number) => Math.min(axis.totalFt, Math.max(0, axisY.invert(yPx)));
  const y = (mdFt: number) => axisY(axis.toAxis(mdFt));
  return {
    axis,
    heightPx,
    topFt,
    bottomFt,
    y,
    axisY,
    axisAt,
    md: (yPx) => axis.toMd(axisAt(yPx)),
    shows: (mdFt) => axis.toAxis(mdFt) >= topFt - 1e-6 && axis.toAxis(mdFt) <= bottomFt + 1e-6,
    edgeY: (mdFt) => Math.min(bottomPx, Math.max(HEADER_PX, y(mdFt))),
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
  const about = scale.axisAt(yPx);
  const view = kept(
    { topFt: about - (about - scale.topFt) * factor, bottomFt: about + (scale.bottomFt - about) * factor },
    scale.axis.totalFt,
  );
  return view.bottomFt - view.topFt >= scale.axis.totalFt - 1e-6 ? null : view;
}

/** The view after moving the paper by pixels, down for positive. */
export function panned(scale: DepthScale, dyPx: number): DepthView {
  const ft = (dyPx * (scale.bottomFt - scale.topFt)) / (scale.heightPx - HEADER_PX - FOOTER_PX);
  return kept({ topFt: scale.topFt - ft, bottomFt: scale.bottomFt - ft }, scale.axis.totalFt);
}

/** Round tick depths in the units shown, with their pixels: `factor` is display units per ft. */
export function depthTicks(scale: DepthScale, factor: number): { y: number; label: string }[] {
  const count = Math.max(4, Math.round((scale.heightPx - HEADER_PX) / 55));
  return scaleLinear([scale.topFt * factor, scale.bottomFt * factor], [0, 1])
    .ticks(count)
    .map((shown) => ({ y: scale.axisY(shown / factor), label: grouped(shown) }));
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
