// What the pipe bench shows of a string's loads: which views, and which case is in hand. Curves as pure functions.
import type { CaseCurves, LoadsResult } from "../../design/types";

export const PRESSURE_VIEWS = ["burst", "collapse", "inside and outside"] as const;
export const AXIAL_VIEWS = ["axial force", "effective force", "factors over asked"] as const;
export type PressureView = (typeof PRESSURE_VIEWS)[number];
export type AxialView = (typeof AXIAL_VIEWS)[number];

/** Forces on an axis: in thousands where the unit is as small as a pound. */
export function forceScale(factor: number, unit: string): { factor: number; label: string } {
  return factor >= 0.5 ? { factor: factor / 1000, label: `1000 ${unit}` } : { factor, label: unit };
}

export interface Curve {
  name: string;
  values: readonly number[];
  dashed?: boolean;
}

/** The case with the least share of a kind; null where no case has such a load. */
export function governingCase(loads: LoadsResult, kind: string): CaseCurves | null {
  let best: [number, CaseCurves] | null = null;
  for (const item of loads.cases) {
    const share = item.factors.find((f) => f.kind === kind)?.share;
    if (share !== undefined && (best === null || share < best[0])) best = [share, item];
  }
  return best?.[1] ?? null;
}

export function differential(item: CaseCurves): number[] {
  return item.inside_psi.map((p, i) => p - item.outside_psi[i]!);
}

/** The curves of the pressure track: each case's load; for one case alone, what is inside and outside. */
export function pressureCurves(loads: LoadsResult, view: PressureView, chosen: string | null): Curve[] {
  if (view === "inside and outside") {
    const item = loads.cases.find((c) => c.name === chosen) ?? governingCase(loads, "burst") ?? loads.cases[0];
    if (!item) return [];
    return [
      { name: "inside", values: item.inside_psi },
      { name: "outside", values: item.outside_psi, dashed: true },
    ];
  }
  return loads.cases.map((item) => ({ name: item.name, values: view === "burst" ? differential(item) : item.collapse_load_psi }));
}

export function axialCurves(loads: LoadsResult, view: AxialView): Curve[] {
  const of = (item: CaseCurves) =>
    view === "factors over asked" ? item.share : view === "effective force" ? item.effective_lbf : item.axial_lbf;
  return loads.cases.map((item) => ({ name: item.name, values: of(item) }));
}
