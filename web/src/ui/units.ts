// Units of display and entry. The table of factors comes from the server; the core's units never leave the edge.
import { createContext, useContext } from "react";
import type { Quantity, System, UnitTable, Words } from "../design/types";

// a number stays on one line with its fraction and its unit
const NO_BREAK = "\u00a0";

export class Units {
  constructor(
    readonly system: System,
    private readonly table: UnitTable,
  ) {}

  private of(quantity: Quantity) {
    return this.table[quantity]![this.system];
  }

  unit(quantity: Quantity): string {
    return this.of(quantity).unit;
  }

  /** The number as shown, without its unit. */
  number(value: number | null | undefined, quantity: Quantity, decimals?: number): string {
    if (value === null || value === undefined) return "unknown";
    if (quantity === "size" && this.system === "field") return inches(value);
    const { factor, offset, decimals: usual } = this.of(quantity);
    const places = decimals ?? usual;
    const shown = value * factor + offset;
    return shown.toLocaleString("en-US", { minimumFractionDigits: places, maximumFractionDigits: places });
  }

  /** The number with its unit; "unknown" has none. */
  text(value: number | null | undefined, quantity: Quantity): string {
    if (value === null || value === undefined) return "unknown";
    return `${this.number(value, quantity)} ${this.unit(quantity)}`.trim().replaceAll(" ", NO_BREAK);
  }

  words(words: Words): string {
    return words.map((w) => (typeof w === "string" ? w : this.text(w.value, w.quantity))).join("");
  }

  /** The number as it stands in a field for editing: unrounded enough to come back as it was. */
  entry(value: number | null | undefined, quantity: Quantity): string {
    if (value === null || value === undefined) return "";
    if (quantity === "size" && this.system === "field") return inches(value);
    const { factor, offset, decimals } = this.of(quantity);
    return (value * factor + offset).toLocaleString("en-US", { maximumFractionDigits: decimals + 1 });
  }

  /** A typed number in core units, null when the text is not a number. */
  parse(text: string, quantity: Quantity): number | null {
    const { bare, system } = this.splitUnit(text, quantity);
    const typed = quantity === "size" || quantity === "diameter" ? parseInches(bare) : parseNumber(bare);
    if (typed === null) return null;
    const { factor, offset } = this.table[quantity]![system];
    return Number(((typed - offset) / factor).toPrecision(12));
  }

  /** A text without its unit, and the system that the unit belongs to; the person's own where there is none. */
  private splitUnit(text: string, quantity: Quantity): { bare: string; system: System } {
    const trimmed = text.trim();
    for (const system of ["field", "metric"] as const) {
      for (const unit of spellings(this.table[quantity]![system].unit)) {
        if (trimmed.toLowerCase().endsWith(unit) && /[\d.]\s*$/.test(trimmed.slice(0, -unit.length))) {
          return { bare: trimmed.slice(0, -unit.length), system };
        }
      }
    }
    return { bare: trimmed, system: this.system };
  }

  /** A depth [ft] at the nearest step that a person would type: 10 ft or 1 m, or finer. */
  snapDepth(depthFt: number, fine = false): number {
    const stepFt = this.depthStepFt() / (fine ? 10 : 1);
    return Number((Math.round(depthFt / stepFt) * stepFt).toPrecision(12));
  }

  depthStepFt(): number {
    return this.system === "field" ? 10 : 1 / this.of("depth").factor;
  }
}

/** How a unit may be typed: as shown, in lower case, without raised figures or the degree sign. */
function spellings(unit: string): string[] {
  const lower = unit.toLowerCase();
  if (lower === "") return [];
  const all = [lower, lower.replace("³", "3"), lower.replace("°", "")];
  if (lower === "in") all.push('"');
  if (lower === "ft") all.push("'");
  return [...new Set(all)];
}

/** Inches as the trade writes them: 9.625 is 9 5/8; what is not in sixteenths stays decimal. */
export function inches(value: number): string {
  const sixteenths = Math.round(value * 16);
  if (Math.abs(value * 16 - sixteenths) > 1e-6) return value.toFixed(3);
  const whole = Math.trunc(sixteenths / 16);
  let part = Math.abs(sixteenths % 16);
  if (part === 0) return String(whole);
  let bottom = 16;
  while (part % 2 === 0) {
    part /= 2;
    bottom /= 2;
  }
  const sign = value < 0 && whole === 0 ? "-" : "";
  return whole === 0 ? `${sign}${part}/${bottom}` : `${whole} ${part}/${bottom}`;
}

const NUMBER = /^[-+]?(\d{1,3}(,\d{3})+|\d+)?(\.\d+)?([eE][-+]?\d+)?$/;

/** A plain number, with or without thousands separators; null for anything else. */
export function parseNumber(text: string): number | null {
  const trimmed = text.trim();
  if (!/\d/.test(trimmed) || !NUMBER.test(trimmed)) return null;
  const value = Number(trimmed.replaceAll(",", ""));
  return Number.isFinite(value) ? value : null;
}

/** "9 5/8", "5/8" or a plain number. */
export function parseInches(text: string): number | null {
  const match = /^\s*(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)\s*$/.exec(text);
  if (match === null) return parseNumber(text);
  const bottom = Number(match[3]);
  return bottom === 0 ? null : Number(match[1] ?? 0) + Number(match[2]) / bottom;
}

export const UnitsContext = createContext<Units | null>(null);

export function useUnits(): Units {
  const units = useContext(UnitsContext);
  if (units === null) throw new Error("outside the units");
  return units;
}
