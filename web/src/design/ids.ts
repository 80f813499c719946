// Ids of rows that others refer to: given once, never changed, not given again while the page is open.
import type { Row } from "../ui/grid/columns";

const LETTERS: Readonly<Record<string, string>> = {
  "/strings": "s",
  "/ground/zones": "z",
  "/wellhead/pieces": "p",
  "/preventers": "b",
  "/preventers/elements": "e",
  "/balanced_plugs": "b",
  "/runsheet/rates": "r",
  "/runsheet/steps": "x",
  "/runsheet/edits": "e",
  "/runsheet/orders": "o",
};

/** A new id among rows: the letter of the list and a number that none of them has had here. */
export function freshId(path: string): string {
  const random = crypto.getRandomValues(new Uint32Array(1))[0]!;
  return `${LETTERS[path] ?? "r"}${random.toString(36)}`;
}

/** A new row with its id, where rows of this list carry one. */
export function identified(path: string, row: Row): Row {
  return path in LETTERS && row.id === undefined ? { id: freshId(path), ...row } : row;
}
