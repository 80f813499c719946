// Where everything in the section stands, in pixels. Pure: tested by what it returns, drawn elsewhere.
import type { DepthScale } from "../depth/scale";
import type { StringResult } from "../design/types";

export const AXIS_PX = 44;
export const SECTION_PX = 300;
const GUTTER_PX = 62;
const ZONE_LABEL_PX = 92;
const CENTRE = AXIS_PX + GUTTER_PX + (SECTION_PX - AXIS_PX - GUTTER_PX - ZONE_LABEL_PX) / 2;
/** Room beside the widest string for its shoe. */
export const SHOE_PX = 7;
const HALF_PX = (SECTION_PX - AXIS_PX - GUTTER_PX - ZONE_LABEL_PX) / 2;

export interface StringShape {
  index: number;
  centre: number;
  /** Half widths in pixels of hole and pipe; null where the size is unknown. */
  hole: number | null;
  pipe: number | null;
  top: number;
  shoe: number;
  holeTop: number;
  cementTop: number | null;
  labelY: number;
}

export function shapes(strings: readonly StringResult[], scale: DepthScale): StringShape[] {
  const widest = Math.max(1, ...strings.map((s) => Math.max(s.bit_in ?? 0, s.od_in ?? 0)));
  const perIn = (HALF_PX - SHOE_PX) / widest;
  const placed = strings.map((s, index) => ({
    index,
    centre: CENTRE,
    hole: s.bit_in === null ? null : s.bit_in * perIn,
    pipe: s.od_in === null ? null : s.od_in * perIn,
    top: scale.y(s.top_md_ft),
    shoe: scale.y(s.shoe_md_ft),
    holeTop: scale.y(s.previous_shoe_md_ft),
    cementTop: s.cement_top_md_ft === null ? null : scale.y(s.cement_top_md_ft),
    labelY: 0,
  }));
  // only shoes in view carry a label, so only they push one another apart
  const seen = placed.filter((_, i) => scale.shows(strings[i]!.shoe_md_ft));
  const labels = spread(seen.map((p) => p.shoe), 26, scale.heightPx - 6);
  return placed.map((p) => ({ ...p, labelY: labels[seen.indexOf(p)] ?? p.shoe }));
}

/** Move positions apart to at least `gap`, keeping order and staying above `bottom`. */
export function spread(wanted: readonly number[], gap: number, bottom: number): number[] {
  const placed: number[] = [];
  for (const y of wanted) {
    const before = placed[placed.length - 1];
    placed.push(before === undefined ? y : Math.max(y, before + gap));
  }
  let limit = bottom;
  for (let i = placed.length - 1; i >= 0; i--) {
    placed[i] = Math.min(placed[i]!, limit);
    limit = placed[i]! - gap;
  }
  return placed;
}
