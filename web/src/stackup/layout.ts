// Geometry of the stack-up: heights over the cellar floor or the deck to pixels, zoom and pan, labels that do not overlap.
// To scale: one number of pixels an inch, up as across.
import type { StackItem, StackMoment } from "../design/types";

/** The heights in view, in inches. */
export interface View {
  bottomIn: number;
  topIn: number;
}

export interface StackScale {
  pxPerIn: number;
  y: (heightIn: number) => number;
  heightAt: (y: number) => number;
}

export const RULER_PX = 44;
export const CENTRE_PX = 118;
export const LABEL_PX = 196;
const MARGIN_SHARE = 0.04;
const LEAST_IN = 6;
const MOST_IN = 4_000;

export function scaleOf(view: View, heightPx: number): StackScale {
  const pxPerIn = heightPx / (view.topIn - view.bottomIn);
  return {
    pxPerIn,
    y: (heightIn) => (view.topIn - heightIn) * pxPerIn,
    heightAt: (y) => view.topIn - y / pxPerIn,
  };
}

/** All that stands, or with the rotary all up to it. */
export function fitted(moment: StackMoment, toRotary: boolean): View {
  const tops = moment.items.map((item) => item.top_in);
  const highest = Math.max(moment.ground_in, ...tops, ...(toRotary ? [moment.rotary_in ?? 0, moment.beams_in ?? 0] : []));
  const lowest = Math.min(0, ...moment.items.map((item) => item.bottom_in));
  const spare = (highest - lowest) * MARGIN_SHARE;
  return { bottomIn: lowest - spare, topIn: highest + spare };
}

/** Zoomed about a height that stays where it is. */
export function zoomedAt(view: View, heightIn: number, factor: number): View {
  const span = Math.min(MOST_IN, Math.max(LEAST_IN, (view.topIn - view.bottomIn) * factor));
  const share = (heightIn - view.bottomIn) / (view.topIn - view.bottomIn);
  const bottomIn = heightIn - share * span;
  return { bottomIn, topIn: bottomIn + span };
}

export function pannedBy(view: View, upIn: number): View {
  return { bottomIn: view.bottomIn + upIn, topIn: view.topIn + upIn };
}

/** Places along a line moved apart until none is nearer than `least` to the next, as little as that takes, within bounds. */
export function spread(wanted: readonly number[], least: number, low: number, high: number): number[] {
  const order = wanted.map((at, index) => ({ at, index })).sort((a, b) => a.at - b.at);
  const placed = new Array<number>(wanted.length);
  let before = -Infinity;
  for (const { at, index } of order) {
    before = Math.max(at, before + least, low);
    placed[index] = before;
  }
  let after = high + least;
  for (const { index } of [...order].reverse()) {
    after = Math.min(placed[index]!, after - least);
    placed[index] = after;
  }
  return placed;
}

/** The heights that are told at the ruler: each face once, from the bottom up. */
export function faces(items: readonly StackItem[]): { heightIn: number; working: string | null; title: string }[] {
  const told = new Map<string, { heightIn: number; working: string | null; title: string }>();
  for (const item of items) {
    if (item.kind === "base plate" || item.kind === "hanger" || item.kind === "seal") continue;
    const key = item.top_in.toFixed(2);
    if (!told.has(key)) told.set(key, { heightIn: item.top_in, working: item.working ?? null, title: item.title });
  }
  return [...told.values()].sort((a, b) => a.heightIn - b.heightIn);
}
