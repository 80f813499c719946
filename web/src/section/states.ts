// The strings as they stand in a state of the well: what is not run yet is left out, the hole that is drilled stands open.
import type { StateRow, StringResult } from "../design/types";

export function asThen(strings: readonly StringResult[], state: Pick<StateRow, "string" | "cased">): StringResult[] {
  return strings
    .slice(0, Math.max(state.string, state.cased - 1) + 1)
    .map((s, i) => (i < state.cased ? s : { ...s, od_in: null, cement_top_md_ft: null, collar_md_ft: null, run: "cased" }));
}
