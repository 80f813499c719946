// What the document is made of, as the server publishes it: every field with its title, quantity, options and help, and
// the steps in order. Labels, columns, choices and places in words are read from here. No React but the context.
import { createContext, useContext } from "react";
import type { Described, LogKind, Quantity, Step, StepItem } from "./types";

export class Reference {
  constructor(
    readonly steps: readonly StepItem[],
    private readonly fields: Readonly<Record<string, Described>>,
    readonly terms: Readonly<Record<string, string>>,
    readonly logKinds: readonly LogKind[] = [],
  ) {}

  /** Fields of the whole document that stand in one place each, and those of one string, with their places. */
  placed(string: number): { path: string; field: Described }[] {
    return Object.entries(this.fields)
      .map(([path, field]) => ({ path: path.replace("/strings/*", `/strings/${string}`), field }))
      .filter(({ path, field }) => !path.includes("*") && field.kind !== "part" && !/^\/(format|version|strings)$|\/id$/.test(path));
  }

  /** What the longest term in some words means; nothing where none stands in them. */
  meaningIn(words: string): string {
    const known = this.meanings.get(words);
    if (known !== undefined) return known;
    const meaning = this.meaningOf(words);
    this.meanings.set(words, meaning);
    return meaning;
  }

  private readonly meanings = new Map<string, string>();

  private meaningOf(words: string): string {
    const lower = words.toLowerCase();
    const found = Object.keys(this.terms).filter((term) => new RegExp(`\\b${escaped(term.toLowerCase())}(s|es)?\\b`).test(lower));
    const longest = found.reduce((a, b) => (b.length > a.length ? b : a), "");
    return longest === "" ? "" : `${longest}: ${this.terms[longest]}`;
  }

  /** The field at a place of the document: "/strings/2/mud_ppg". */
  find(path: string): Described | undefined {
    return this.fields[path.replace(/\/\d+(?=\/|$)/g, "/*")];
  }

  at(path: string): Described {
    const field = this.find(path);
    if (field === undefined) throw new Error(`no field at ${path}`);
    return field;
  }

  quantity(path: string): Quantity {
    return this.at(path).quantity ?? "factor";
  }

  /** Keys of the fields right under a place, in the order of the document. */
  keys(path: string): string[] {
    const under = `${path.replace(/\/\d+(?=\/|$)/g, "/*")}/`;
    return Object.keys(this.fields)
      .filter((p) => p.startsWith(under) && !p.slice(under.length).includes("/"))
      .map((p) => p.slice(under.length));
  }

  title(step: string): string {
    return this.steps.find((s) => s.step === step)?.title ?? (step === "policy" ? "Policy" : step);
  }

  /** The step on whose bench a place is worked: that of the longest place that it begins with. */
  stepOf(path: string): Step {
    const [, first, second] = path.split("/");
    if (first === "policy") return "policy";
    const parts = path.replace(/\/\d+(?=\/|$)/g, "/*").split("/");
    for (let n = parts.length; n > 0; n--) {
      const prefix = parts.slice(0, n).join("/");
      const owner = this.steps.find((s) => s.places.includes(prefix));
      if (owner) return owner.step;
    }
    throw new Error(`no step works on ${first}/${second}`);
  }

  /** A place in a table being read, in words: "/rows/1/emw_ppg" is "row 2, EMW", "/columns/emw_ppg" is "column EMW". */
  tableWords(path: string, table: string): string {
    const [, kind = "", ...rest] = path.split("/");
    const [key, row] = kind === "rows" ? [rest[1], rest[0]] : [rest[0], undefined];
    const title = key === undefined ? "" : (this.find(`${table}/*/${key}`)?.title ?? plainWords(key));
    if (row !== undefined) return [`row ${Number(row) + 1}`, title].filter(Boolean).join(", ");
    return kind === "columns" ? `column ${title}` : "the file";
  }

  /** A place in words: "/ground/pore/2/tvd_ft" is "Pore pressure 3, TVD". */
  words(path: string): string {
    const parts = path.split("/").slice(1);
    const words: string[] = [];
    parts.forEach((part, i) => {
      if (/^\d+$/.test(part))
        words.push(`${(words.pop() ?? "row").replace(/s$/, "")} ${Number(part) + 1}`); // one of the strings: "String 3"
      else words.push(this.find(`/${parts.slice(0, i + 1).join("/")}`)?.title ?? plainWords(part));
    });
    return words.filter((w) => !PLAIN_PARTS.has(w)).join(", ") || "The document";
  }
}

function escaped(text: string): string {
  return text.replaceAll(/[.*+?^${}()|[\]\\]/g, "\\$&");
}

const PLAIN_PARTS = new Set(["Site", "Ground", "Trajectory"]);

/** A key that is no field of the document: an entry of a list ("hazards:losses"), or one that should not be there. */
function plainWords(key: string): string {
  return key.split(":").pop()!.replaceAll("_", " ");
}

export const ReferenceContext = createContext<Reference | null>(null);

export function useReference(): Reference {
  const reference = useContext(ReferenceContext);
  if (reference === null) throw new Error("outside the application");
  return reference;
}
