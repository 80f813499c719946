// Columns of an editable table: how a cell reads as text, and how a typed text becomes a value. No React.
import type { Reference } from "../../design/reference";
import type { Quantity } from "../../design/types";
import { numberWanted } from "../numbers";
import type { Units } from "../units";

export type Row = Record<string, unknown>;

export type GridColumn = {
  /** Key in the row, or `list:entry` for a flag that stands in a list. */
  key: string;
  label: string;
  /** What it means, in a sentence. */
  hint: string;
} & (
  | { kind: "number"; quantity: Quantity; optional?: boolean }
  | { kind: "text" }
  | { kind: "choice"; options: readonly string[]; words?: Readonly<Record<string, string>> }
  | { kind: "flag" }
);

/** A column that is not edited: what follows of a row, as text. */
export interface Told {
  label: string;
  unit: string;
  px: number;
  left?: boolean;
  cell: (index: number) => string;
}

/** How a column stands in a table: its key alone, with a shorter label, or as a choice of ids that are shown by their names. */
export type ColumnSpec = string | { key: string; label?: string; names?: Readonly<Record<string, string>> };

/** Columns of a list of the document, as its fields are described. */
export function columnsOf(reference: Reference, path: string, specs: readonly ColumnSpec[]): GridColumn[] {
  return specs.map((spec) => {
    const { key, label, names } = typeof spec === "string" ? { key: spec, label: undefined, names: undefined } : spec;
    const [name = "", entry] = key.split(":");
    const field = reference.at(`${path}/*/${name}`);
    const shared = {
      key,
      label: label ?? (entry ? entry.charAt(0).toUpperCase() + entry.slice(1) : field.title),
      hint: [field.help, field.meaning].filter(Boolean).join("; "),
    };
    if (entry !== undefined || field.kind === "flag") return { ...shared, kind: "flag" };
    if (names !== undefined) return { ...shared, kind: "choice", options: Object.keys(names), words: names };
    if (field.kind === "choice") return { ...shared, kind: "choice", options: field.options };
    if (field.kind === "number") return { ...shared, kind: "number", quantity: field.quantity ?? "factor", optional: field.optional };
    return { ...shared, kind: "text" };
  });
}

export function valueOf(row: Row, column: GridColumn): unknown {
  const [key = "", entry] = column.key.split(":");
  if (entry === undefined) return row[key];
  return ((row[key] ?? []) as string[]).includes(entry);
}

export function withValue(row: Row, column: GridColumn, value: unknown): Row {
  const [key = "", entry] = column.key.split(":");
  if (entry === undefined) return { ...row, [key]: value };
  return { ...row, [key]: withEntry((row[key] ?? []) as string[], entry, value === true) };
}

function withEntry(list: readonly string[], entry: string, present: boolean): string[] {
  const others = list.filter((e) => e !== entry);
  return present ? [...others, entry] : others;
}

/** A cell as text: for the screen, and for a spreadsheet. */
export function cellText(row: Row, column: GridColumn, units: Units): string {
  const value = valueOf(row, column);
  if (column.kind === "flag") return value ? "yes" : "no";
  if (column.kind === "number") return units.entry(value as number | null | undefined, column.quantity);
  const text = String(value ?? "");
  return column.kind === "choice" ? (column.words?.[text] ?? text) : text;
}

/** The value of a typed text, or what was expected instead. */
export function readCell(text: string, column: GridColumn, units: Units): { value: unknown } | { expected: string } {
  const bare = text.trim();
  switch (column.kind) {
    case "text":
      return { value: text };
    case "flag":
      return /^(yes|y|x|1|true)$/i.test(bare)
        ? { value: true }
        : /^(no|n|0|false|)$/i.test(bare)
          ? { value: false }
          : { expected: "yes or no" };
    case "choice": {
      const { options, words } = column;
      const shown = options.map((o) => words?.[o] ?? o);
      const hit = options[shown.indexOf(optionOf(bare, shown) ?? "")] ?? optionOf(bare, options);
      return hit === undefined ? { expected: `one of ${shown.join(", ")}` } : { value: hit };
    }
    case "number": {
      if (bare === "" && column.optional) return { value: null };
      const value = units.parse(bare, column.quantity);
      const unit = units.unit(column.quantity);
      return value === null ? { expected: numberWanted(unit) } : { value };
    }
  }
}

/** A new row whose numbers are open: a number that was not pasted is asked for, never made up. */
export function withoutNumbers(row: Row, columns: readonly GridColumn[]): Row {
  return columns.filter((c) => c.kind === "number").reduce((r, c) => withValue(r, c, null), row);
}

/** The option that a typed text means: the one of that name, or the first that begins with it, or that holds it. */
export function optionOf(typed: string, options: readonly string[]): string | undefined {
  const wanted = typed.trim().toLowerCase();
  if (wanted === "") return undefined;
  const tests = [(o: string) => o === wanted, (o: string) => o.startsWith(wanted), (o: string) => o.includes(wanted)];
  for (const test of tests) {
    const hit = options.find((o) => test(o.toLowerCase()));
    if (hit !== undefined) return hit;
  }
  // "sandstone" is sand: the longest option that the word begins with
  return [...options].sort((a, b) => b.length - a.length).find((o) => wanted.startsWith(o.toLowerCase()));
}

/** A pasted row laid over one that stands there: what was not pasted stays. */
export function overlaid(base: Row, pasted: Row, keys: readonly string[]): Row {
  const merged: Row = { ...base };
  for (const key of keys) {
    const [name = "", entry] = key.split(":");
    if (entry === undefined) {
      if (name in pasted) merged[name] = pasted[name];
    } else {
      const given = (pasted[name] ?? []) as string[];
      merged[name] = withEntry((merged[name] ?? []) as string[], entry, given.includes(entry));
    }
  }
  return merged;
}
