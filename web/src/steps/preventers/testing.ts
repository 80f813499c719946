// What sees the pressure of a test, for the drawing: from the plug or the cup up to the element that is closed.
import type { PieceResult, StackMoment, StackRow } from "../../design/types";

const CUP_BELOW_IN = 30;

export interface Pressured {
  fromIn: number;
  toIn: number;
  boreIn: number;
  tool: string;
}

export function pressured(row: StackRow, test: number, pieces: readonly PieceResult[], moment: StackMoment): Pressured | null {
  const proof = row.tests[test];
  if (proof === undefined || row.base_in == null || proof.tool === "none") return null;
  const head = pieces.find((piece) => piece.top_in !== null && Math.abs(piece.top_in - row.base_in!) < 0.01);
  const seat = row.base_in - (head?.bowl_depth_in ?? 0);
  const stack = moment.items.filter((item) => item.step === "preventers");
  const closed = proof.element === null ? stack.at(-1) : stack.find((item) => item.element === proof.element);
  if (closed === undefined) return null;
  return {
    fromIn: proof.tool === "cup tester" ? Math.max(0, (head?.bottom_in ?? seat) - CUP_BELOW_IN) : seat,
    toIn: (closed.bottom_in + closed.top_in) / 2,
    boreIn: row.bore_in ?? 10,
    tool: proof.tool,
  };
}
