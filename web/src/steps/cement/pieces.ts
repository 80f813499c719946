// What stands where at one moment of a job, from the top down. No React.
import type { JobStage } from "../../design/types";

export type Side = "pipe" | "annulus";

export interface Piece {
  side: Side;
  name: string;
  kind: JobStage["fluids"][number]["kind"];
  top: number;
  base: number;
  psi: number;
}

/** The fluids of one side; what is not there is left out. */
export function piecesOf(stage: JobStage, moment: number, side: Side): Piece[] {
  const md = (side === "pipe" ? stage.pipe_md_ft : stage.annulus_md_ft)[moment]!;
  const psi = (side === "pipe" ? stage.pipe_psi : stage.annulus_psi)[moment]!;
  const count = stage.fluids.length;
  return stage.fluids
    .map((_, k) => {
      const fluid = stage.fluids[side === "pipe" ? count - 1 - k : k]!;
      return { side, name: fluid.name, kind: fluid.kind, top: md[k]!, base: md[k + 1]!, psi: psi[k + 1]! };
    })
    .filter((piece) => piece.base - piece.top > 0.05);
}

/** Lengths of the open hole in which the annulus is over the fracture pressure at one moment. */
export function broken(stage: JobStage, moment: number): [number, number][] {
  const rock = stage.rock;
  const now = rock?.now_ppg[moment];
  if (rock === null || now === undefined) return [];
  const over = rock.md_ft.map((_, i) => rock.fracture_ppg[i] != null && now[i]! > rock.fracture_ppg[i]! + 1e-3);
  const found: [number, number][] = [];
  over.forEach((is, i) => {
    if (!is) return;
    const last = found[found.length - 1];
    if (last !== undefined && over[i - 1]) last[1] = rock.md_ft[i]!;
    else found.push([rock.md_ft[i]!, rock.md_ft[i]!]);
  });
  return found;
}
