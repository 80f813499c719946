// What the well is at one depth, for the reading under the cursor. Pure: looked up in the evaluation, nothing computed.
import type { Evaluation, GroundDrawing, LoadsResult } from "../design/types";
import type { Units } from "../ui/units";
import { at, interpolate } from "./scale";

export interface ReadingPart {
  label: string;
  text: string;
}

/** What is only drawn, where it is on the screen. */
export interface Drawn {
  ground: GroundDrawing | null;
  loads: LoadsResult | undefined;
}

export function mudAt(evaluation: Evaluation, mdFt: number): number | null {
  const index = evaluation.strings.findIndex((s) => s.previous_shoe_md_ft <= mdFt && mdFt <= s.shoe_md_ft);
  const step = evaluation.mud.strings[index]?.steps.find((s) => s.from_md_ft <= mdFt && mdFt < s.to_md_ft);
  return step?.mud_ppg ?? evaluation.strings[index]?.mud_ppg ?? null;
}

/** Everything that stands at a depth: zone, hole, casings and what is between them, pressures, safety factors. */
export function readingAt(evaluation: Evaluation, drawn: Drawn, mdFt: number, selected: number, units: Units): ReadingPart[] {
  const { basis, ground } = evaluation;
  const tvd = at(basis.axis_md_ft, basis.axis_tvd_ft, mdFt);
  const parts: ReadingPart[] = [{ label: "MD", text: units.text(mdFt, "depth") }];
  if (Math.abs(tvd - mdFt) > 0.5) parts.push({ label: "TVD", text: units.text(tvd, "depth") });
  const below = tvd - basis.ground_md_ft;
  if (below > 0) parts.push({ label: basis.at_sea ? "below mudline" : "below ground", text: units.text(below, "depth") });
  const heat = basis.temperature_tvd_ft.length > 1 ? interpolate(basis.temperature_tvd_ft, basis.temperature_f, tvd) : null;
  const zone = ground.zones.find((z) => z.top_tvd_ft <= tvd && tvd < z.base_tvd_ft);
  if (zone) parts.push({ label: "zone", text: [zone.name, ...zone.hazards].join(", ") });
  parts.push(...nest(evaluation, mdFt, units));
  if (heat !== null) parts.push({ label: "at", text: units.text(heat, "temperature") });
  for (const [label, points] of [
    ["pore", drawn.ground?.pore ?? []],
    ["fracture", drawn.ground?.fracture ?? []],
  ] as const) {
    const value = interpolate(
      points.map((p) => p.md_ft),
      points.map((p) => p.emw_ppg),
      mdFt,
    );
    if (value !== null) parts.push({ label, text: units.text(value, "emw") });
  }
  return [...parts, ...factors(evaluation, drawn.loads, mdFt, selected, units)];
}

/** The hole and the pipes in it from the outside in, each with what is behind it. */
function nest(evaluation: Evaluation, mdFt: number, units: Units): ReadingPart[] {
  const parts: ReadingPart[] = [];
  const drilled = evaluation.strings.find((s) => s.previous_shoe_md_ft <= mdFt && mdFt <= s.shoe_md_ft);
  if (drilled?.bit_in != null) parts.push({ label: "hole", text: units.text(drilled.bit_in, "size") });
  for (const s of evaluation.strings) {
    if (s.od_in === null || mdFt < s.top_md_ft || mdFt > s.shoe_md_ft) continue;
    const behind = s.cement_top_md_ft === null ? "" : mdFt >= s.cement_top_md_ft ? ", cement behind" : ", mud behind";
    parts.push({ label: "", text: `${units.text(s.od_in, "size")}${behind}` });
  }
  const mud = mudAt(evaluation, mdFt);
  if (mud !== null) parts.push({ label: "mud", text: units.text(mud, "emw") });
  const psi = mudPressure(evaluation, mdFt);
  if (psi !== null) parts.push({ label: "", text: units.text(psi, "pressure") });
  return parts;
}

/** Pressure of the section's mud: along TVD it lies on the line between the two ends that the evaluation gives. */
function mudPressure(evaluation: Evaluation, mdFt: number): number | null {
  const { axis_md_ft: md, axis_tvd_ft: tvd } = evaluation.basis;
  const index = evaluation.strings.findIndex((s) => s.previous_shoe_md_ft <= mdFt && mdFt <= s.shoe_md_ft);
  const string = evaluation.strings[index];
  const row = evaluation.mud.strings[index];
  if (!string || row?.top_psi == null || row.bottom_psi == null || row.steps.length > 0) return null;
  const [top, bottom, here] = [string.previous_shoe_md_ft, string.shoe_md_ft, mdFt].map((d) => at(md, tvd, d)) as [number, number, number];
  return bottom === top ? row.top_psi : row.top_psi + ((here - top) / (bottom - top)) * (row.bottom_psi - row.top_psi);
}

/** Least share of what policy asks, of the string in hand at this depth, where its loads are on the screen. */
function factors(evaluation: Evaluation, loads: LoadsResult | undefined, mdFt: number, selected: number, units: Units): ReadingPart[] {
  const string = evaluation.strings[selected];
  if (string?.od_in == null || loads === undefined) return [];
  const shares = loads.cases.map((c) => ({ name: c.name, share: interpolate(loads.md_ft, c.share, mdFt) ?? Infinity }));
  const least = shares.reduce((a, b) => (b.share < a.share ? b : a), { name: "", share: Infinity });
  if (!Number.isFinite(least.share)) return [];
  return [
    {
      label: `${units.text(string.od_in, "size")} factor over required`,
      text: `${least.share > 9.9 ? "over 9.9" : least.share.toFixed(2)}, ${least.name}`,
    },
  ];
}
