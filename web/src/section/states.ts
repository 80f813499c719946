// The strings as they stand in a state of the well: what is not run yet is left out, the hole that is drilled stands open.
import { useEvaluated } from "../design/context";
import type { StringResult } from "../design/types";
import { useShown } from "../steps/completion/shownState";

export interface Standing {
  /** The string whose hole is drilled by then. */
  string: number;
  /** How many strings stand in it. */
  cased: number;
  /** Its BOPs stand on it; under the sea the riser too. */
  stack_on: boolean;
}

export function asThen(strings: readonly StringResult[], then: Pick<Standing, "string" | "cased">): StringResult[] {
  return strings
    .slice(0, Math.max(then.string, then.cased - 1) + 1)
    .map((s, i) => (i < then.cased ? s : { ...s, od_in: null, cement_top_md_ft: null, collar_md_ft: null, run: "cased" }));
}

/** What stands when a state is looked at, or a well that is left; null where the section shows the program itself. */
export function useStandingThen(): Standing | null {
  const shown = useShown();
  const count = useEvaluated((e) => e.strings.length) ?? 0;
  const run = useEvaluated((e) => (shown?.kind === "plugs" ? e.completion[shown.way]?.production_run : undefined));
  const state = useEvaluated((e) => (shown?.kind === "state" ? e.completion.states.find((s) => s.key === shown.key) : undefined));
  if (state !== undefined) return state;
  return run === undefined ? null : { string: count - 1, cased: run ? count : count - 1, stack_on: false };
}
