// The keys of the panel: what each does, in words for its button and for the list of keys. A key with a letter works wherever no text
// is typed.
import type { DrillAction } from "../../design/types";

export const ACTION_KEYS: Partial<Record<DrillAction, string>> = {
  "pick up": "u",
  lower: "l",
  slips: "i",
  "flow check": "f",
  "stab valve": "v",
  "close valve": "b",
  "open valve": "j",
  "make up": "m",
  "hang off": "h",
  "strip in": "n",
  "stop pipe": "k",
  "fill casing": "g",
  drop: "x",
  disconnect: "q",
};

export const KEY_WORDS: readonly (readonly [string, string])[] = [
  ["Space", "clock on or off"],
  [", and .", "clock slower or faster"],
  ["1 to 9", "an element of the stack, from the top"],
  ["c", "choke line valve"],
  ["d", "overboard line"],
  ["o", "pumps off"],
  ["s", "pumps to the slow rate"],
  ["p", "pumps to the drilling rate"],
  ["- and +", "pumps slower or faster by 1 spm"],
  ["[ and ]", "choke in or out by 1 %"],
  ["{ and }", "choke in or out by 5 %"],
  ["0", "choke closed"],
  ["a", "choke holds casing pressure"],
  ["w", "choke holds drill pipe pressure"],
  ["r", "record pressures and gain"],
];

/** A key pressed while text is typed is that text. */
export function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && ["INPUT", "SELECT", "TEXTAREA"].includes(target.tagName);
}
