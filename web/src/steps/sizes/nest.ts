// The nest of holes and casings as numbers to draw: from the outside in. No React.
import type { Evaluation } from "../../design/types";

export interface Ring {
  name: string;
  holeIn: number | null;
  odIn: number;
  idIn: number;
  couplingIn: number;
}

export function ringsOf(evaluation: Evaluation, text: (inches: number) => string): Ring[] {
  return evaluation.strings.flatMap((s, i) => {
    if (s.od_in === null) return [];
    const wall = evaluation.pipe.strings[i]?.sections[0]?.wall_in ?? 0.04 * s.od_in;
    return [
      {
        name: text(s.od_in),
        holeIn: s.run === "driven" || s.run === "jetted" ? null : s.bit_in,
        odIn: s.od_in,
        idIn: s.id_in ?? s.od_in - 2 * wall,
        couplingIn: evaluation.sizes.strings[i]?.coupling_od_in ?? s.od_in,
      },
    ];
  });
}

/** The widest thing in the nest. */
export function widest(rings: readonly Ring[], tubingIn: number | null): number {
  return Math.max(1, tubingIn ?? 0, ...rings.map((r) => Math.max(r.couplingIn, r.holeIn ?? 0)));
}
