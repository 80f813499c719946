// What an element does on what is across it, for the drawing and in a sentence.
import type { CoverRow, StackItem, StackRow, Words } from "../../design/types";
import type { Closed } from "../../stackup/shapes";

type Verdict = CoverRow["cells"][number];

const HOW: Readonly<Record<Verdict, Closed["how"]>> = {
  seals: "on",
  "seals and hangs": "on",
  diverts: "on",
  "shears and seals": "cut",
  shears: "cut",
  "cannot shear": "open",
  "no seal": "open",
  unknown: "open",
};

/** Marks of a cell, so that no colour is needed. */
export const MARKS: Readonly<Record<Verdict, string>> = {
  seals: "S",
  "seals and hangs": "SH",
  diverts: "D",
  "shears and seals": "XS",
  shears: "X",
  "cannot shear": "·",
  "no seal": "·",
  unknown: "?",
};

export function closedOn(row: CoverRow | undefined, shut: number | null, item: StackItem): Closed | null {
  if (row === undefined || shut === null || item.element !== shut || item.step !== "preventers") return null;
  const verdict = row.cells[shut] ?? "unknown";
  const how = HOW[verdict];
  return { odIn: row.od_in, how: how === "on" && row.od_in === 0 ? "shut" : how };
}

/** The element as it is while this is across: with casing rams in it where they are changed. */
export function titleOf(stack: StackRow, row: CoverRow | undefined, element: number): string {
  const title = stack.elements[element]!.title;
  return row?.changed === element ? `casing rams in the ${title}` : title;
}

const SAYS: Readonly<Record<Verdict, string>> = {
  seals: "seals on it",
  "seals and hangs": "seals on it, and hangs it by a tool joint",
  diverts: "packs off and leads the flow away; it is never shut in",
  "shears and seals": "cuts it and seals",
  shears: "cuts it and does not seal",
  "cannot shear": "does not cut it",
  "no seal": "does not seal on it",
  unknown: "may or may not close on it: a size, a bore or a strength is not known",
};

/** What closes, on what, how well, and what backs it up. */
export function told(stack: StackRow, row: CoverRow, shut: number, what: string): { words: string; good: boolean } {
  const verdict = row.cells[shut] ?? "unknown";
  const title = titleOf(stack, row, shut);
  const backs = row.backs.filter((e) => e !== shut).map((e) => titleOf(stack, row, e));
  const verb = /(rams|preventers)$/.test(title) ? SAYS[verdict].replace(/^(\w+?)s\b/, (_, stem: string) => plural(stem)) : SAYS[verdict];
  const behind = backs.length > 0 ? `Backed up by ${backs.join(", then ")}.` : verdict === "diverts" ? "" : "Nothing backs it up.";
  const name = title.charAt(0).toUpperCase() + title.slice(1);
  return { words: `${name}, on ${what}: ${verb}. ${behind}`, good: ["on", "cut"].includes(HOW[verdict]) };
}

const plural = (stem: string) => (stem === "doe" ? "do" : stem);

export const wordsOf = (words: CoverRow["what"]) => words as Words;
