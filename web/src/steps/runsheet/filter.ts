// Which steps of the sheet are shown: by what is searched, by section, by kind of work, and those that changed. No React.
import type { LineChange, LineRow } from "../../design/types";

export interface Filter {
  words: string;
  /** Index of a string, "site" before the spud, "end" after the last hole; "" is all. */
  section: string;
  kind: string;
  /** Only hold-points; only what changed since the last issue. */
  only: "" | "hold" | "changed" | "mine";
}

export const ALL: Filter = { words: "", section: "", kind: "", only: "" };

export function sectionOf(line: LineRow): string {
  if (line.key.startsWith("site/")) return "site";
  return line.string === null ? "end" : String(line.string);
}

export function isMine(line: LineRow): boolean {
  return line.own !== "" || line.crossed || line.moved || line.note !== "" || line.given;
}

export function shown(
  lines: readonly LineRow[],
  filter: Filter,
  text: (line: LineRow) => string,
  changes: ReadonlyMap<string, LineChange> | undefined,
): LineRow[] {
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  return lines.filter((line) => {
    if (filter.section !== "" && sectionOf(line) !== filter.section) return false;
    if (filter.kind !== "" && line.kind !== filter.kind) return false;
    if (filter.only === "hold" && !line.hold) return false;
    if (filter.only === "mine" && !isMine(line)) return false;
    if (filter.only === "changed" && changes?.has(line.key) !== true) return false;
    if (words.length === 0) return true;
    const whole = `${text(line)} ${line.signs} ${line.kind}`.toLowerCase();
    return words.every((w) => whole.includes(w));
  });
}
