// The fields of an entry by its kind, and what it says in words. No React.
import type { Reference } from "../../design/reference";
import type { EntryKind, LogEntry, LogKind, NewEntry, Quantity } from "../../design/types";
import type { Units } from "../../ui/units";

export type Values = Partial<Record<keyof NewEntry, unknown>>;

export const at = (key: string) => `/log/0/${key}`;
/** Lists inside an entry: they are pasted as a block. */
export const BLOCKS: Partial<Record<keyof NewEntry, "leak_off_points" | "joints">> = { points: "leak_off_points", joints: "joints" };

export function kindOf(reference: Reference, kind: EntryKind): LogKind {
  return reference.logKinds.find((k) => k.kind === kind)!;
}

/** Keys of a kind in the order of its form. */
export function keysOf(reference: Reference, kind: EntryKind): (keyof NewEntry)[] {
  const { needs, may } = kindOf(reference, kind);
  return [...needs, ...may].filter((key) => key !== "step" && key !== "corrects" && key !== "text") as (keyof NewEntry)[];
}

function isEmpty(value: unknown): boolean {
  return value === null || value === undefined || value === "" || (Array.isArray(value) && value.length === 0);
}

/** Only what an entry of its kind may have, and what was given. */
export function asEntry(reference: Reference, kind: EntryKind, values: Values): NewEntry {
  const keys: (keyof NewEntry)[] = ["at", "author", "corrects", "step", "hours", "text", ...keysOf(reference, kind)];
  const held = keys.filter((key) => !isEmpty(values[key])).map((key) => [key, values[key]]);
  return { ...(Object.fromEntries(held) as unknown as NewEntry), kind };
}

/** Fields that are spoken in words of their own. */
const SPOKEN: Partial<Record<keyof NewEntry, (value: unknown) => string>> = {
  passed: (value) => (value === true ? "held" : "did not hold"),
  bumped: (value) => (value === true ? "plug bumped" : "plug did not bump"),
};

/** The entry in words: each field with its title and its value in the person's units. */
export function entryWords(entry: LogEntry, reference: Reference, units: Units, sizeOf: (id: string) => string): string {
  const words = keysOf(reference, entry.kind)
    .filter((key) => !isEmpty(entry[key]))
    .map(
      (key) =>
        SPOKEN[key]?.(entry[key]) ??
        `${key === "string" ? "" : `${titleOf(reference, key)} `}${valueWords(entry[key], reference.at(at(key)).quantity ?? null, units, key, sizeOf)}`,
    );
  return [...words, ...(entry.hours == null ? [] : [`${units.text(entry.hours, "hours")} spent`])].join(", ");
}

function titleOf(reference: Reference, key: string): string {
  const { title } = reference.at(at(key));
  return /^[A-Z][a-z]/.test(title) ? title.charAt(0).toLowerCase() + title.slice(1) : title;
}

function valueWords(value: unknown, quantity: Quantity | null, units: Units, key: string, sizeOf: (id: string) => string): string {
  if (Array.isArray(value)) return `${value.length} rows`;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (key === "string") return sizeOf(String(value));
  return typeof value === "number" && quantity !== null ? units.text(value, quantity) : String(value);
}

/** Now by the clock of this machine, as the log writes times. */
export function clock(now = new Date()): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())} ${two(now.getHours())}:${two(now.getMinutes())}`;
}

/** What a correction begins with: the entry as it was before it was written. */
export function unwritten(entry: LogEntry): NewEntry {
  const kept = Object.entries(entry).filter(([key]) => key !== "number" && key !== "logged_at");
  return Object.fromEntries(kept) as unknown as NewEntry;
}
