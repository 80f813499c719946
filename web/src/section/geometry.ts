// Where everything in the section stands, in pixels. Pure: tested by what it returns, drawn elsewhere.
import type { DepthScale } from "../depth/scale";
import { FOOTER_PX, HEADER_PX, at } from "../depth/scale";
import type { Basis, StringResult } from "../design/types";

export const AXIS_PX = 44;
export const SECTION_PX = 300;
const GUTTER_PX = 62;
const ZONE_LABEL_PX = 92;
export const CENTRE = AXIS_PX + GUTTER_PX + (SECTION_PX - AXIS_PX - GUTTER_PX - ZONE_LABEL_PX) / 2;
/** Room beside the widest string for its shoe. */
export const SHOE_PX = 7;
const HALF_PX = (SECTION_PX - AXIS_PX - GUTTER_PX - ZONE_LABEL_PX) / 2;
const LABEL_GAP_PX = 26;
/** In the vertical section: half width of the widest string, and the room that the path may take. */
const PATH_HALF_PX = 9;
const PATH_LEFT_PX = AXIS_PX + GUTTER_PX + 16;
const PATH_RIGHT_PX = SECTION_PX - 24;

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

/** Pixels of half a width for an inch of diameter. */
function perInch(strings: readonly StringResult[], most: number): number {
  return most / Math.max(1, ...strings.map((s) => Math.max(s.bit_in ?? 0, s.od_in ?? 0)));
}

/** The same in the section as it is drawn: telescoping, or lying along the path. */
export function halfPxPerInch(strings: readonly StringResult[], onPath: boolean): number {
  return perInch(strings, onPath ? PATH_HALF_PX : HALF_PX - SHOE_PX);
}

function halfWidths(strings: readonly StringResult[], most: number): { hole: number | null; pipe: number | null }[] {
  const perIn = perInch(strings, most);
  return strings.map((s) => ({ hole: s.bit_in === null ? null : s.bit_in * perIn, pipe: s.od_in === null ? null : s.od_in * perIn }));
}

/** Where strings to the wellhead hang: the first one does. */
function wellheadFt(strings: readonly StringResult[]): number {
  return strings[0]?.top_md_ft ?? 0;
}

export function shapes(strings: readonly StringResult[], scale: DepthScale): StringShape[] {
  const halves = halfWidths(strings, HALF_PX - SHOE_PX);
  const placed = strings.map((s, index) => ({
    index,
    centre: CENTRE,
    ...halves[index]!,
    top: scale.y(s.tied_back ? wellheadFt(strings) : s.top_md_ft),
    shoe: scale.y(s.shoe_md_ft),
    holeTop: scale.y(s.previous_shoe_md_ft),
    cementTop: s.cement_top_md_ft === null ? null : scale.y(s.cement_top_md_ft),
    labelY: 0,
  }));
  // only shoes in view carry a label, so only they push one another apart
  const seen = placed.filter((_, i) => scale.shows(strings[i]!.shoe_md_ft));
  const labels = spread(
    seen.map((p) => p.shoe),
    LABEL_GAP_PX,
    scale.heightPx - 6,
  );
  return placed.map((p) => ({ ...p, labelY: labels[seen.indexOf(p)] ?? p.shoe }));
}

/** A string in the vertical section: its axis and widths as paths to be stroked. */
export interface StringPath {
  index: number;
  hole: { d: string; width: number } | null;
  pipe: { d: string; width: number } | null;
  cement: { d: string; width: number } | null;
}

export interface PathPlan {
  x: (mdFt: number) => number;
  /** Horizontal pixels per vertical pixel for the same length; 1 is true to scale. */
  stretch: number;
}

/** How departures lie across the section: true to scale where they fit, else pressed to fit. */
export function pathPlan(basis: Basis, scale: DepthScale): PathPlan {
  const perFt = (scale.heightPx - HEADER_PX - FOOTER_PX) / (scale.bottomFt - scale.topFt);
  const low = Math.min(0, ...basis.axis_departure_ft);
  const high = Math.max(0, ...basis.axis_departure_ft);
  const room = PATH_RIGHT_PX - PATH_LEFT_PX;
  const stretch = high - low <= 0 ? 1 : Math.min(1, room / ((high - low) * perFt));
  const start = PATH_LEFT_PX + (room - (high - low) * perFt * stretch) / 2;
  return { stretch, x: (mdFt) => start + (at(basis.axis_md_ft, basis.axis_departure_ft, mdFt) - low) * perFt * stretch };
}

/** The path between two depths as an SVG path through the survey's knots. */
export function pathBetween(fromFt: number, toFt: number, basis: Basis, scale: DepthScale, plan: PathPlan): string {
  const inside = basis.axis_md_ft.filter((md) => md > fromFt && md < toFt);
  return [fromFt, ...inside, toFt].map((md, i) => `${i === 0 ? "M" : "L"}${plan.x(md).toFixed(1)},${scale.y(md).toFixed(1)}`).join("");
}

export function stringPaths(strings: readonly StringResult[], basis: Basis, scale: DepthScale, plan: PathPlan): StringPath[] {
  const halves = halfWidths(strings, PATH_HALF_PX);
  return strings.map((s, index) => {
    const { hole, pipe } = halves[index]!;
    const between = (from: number, to: number, half: number | null) =>
      half === null || to <= from ? null : { d: pathBetween(from, to, basis, scale, plan), width: 2 * half };
    return {
      index,
      hole: between(s.previous_shoe_md_ft, s.shoe_md_ft, hole),
      pipe: between(s.tied_back ? wellheadFt(strings) : s.top_md_ft, s.shoe_md_ft, pipe),
      cement: s.cement_top_md_ft === null ? null : between(s.cement_top_md_ft, s.shoe_md_ft, hole ?? pipe),
    };
  });
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
