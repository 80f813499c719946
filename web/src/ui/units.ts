// Units of display and entry. The table of factors comes from the server; the core's units never leave the edge.
import { createContext, useContext } from "react";
import type { DisplayUnit, Quantity, System, UnitTable, Words } from "../design/types";
import { grouped, inches, parseInches, parseNumber, snapInches } from "./numbers";

// a number stays on one line with its fraction and its unit
const NO_BREAK = "\u00a0";
const MOST_DECIMALS = 4;
const PER_CENT: DisplayUnit = { unit: "%", spellings: ["%"], factor: 100, offset: 0, decimals: 0 };

/** The units of a person: a system, and the quantities for which another unit was chosen, by its label. */
export interface UnitChoice {
  system: System;
  mixed: Readonly<Record<string, string>>;
}

export class Units {
  /** Changes whenever any unit does. */
  readonly key: string;

  constructor(
    readonly choice: UnitChoice,
    readonly table: UnitTable,
  ) {
    this.key = JSON.stringify(choice);
  }

  of(quantity: Quantity): DisplayUnit {
    const { options } = this.table[quantity]!;
    const chosen = options.find((o) => o.unit === this.choice.mixed[quantity]);
    return chosen ?? options[this.choice.system === "field" ? 0 : 1]!;
  }

  unit(quantity: Quantity): string {
    return this.of(quantity).unit;
  }

  /** Display units per core unit, where the zero is the same. */
  factor(quantity: Quantity): number {
    return this.of(quantity).factor;
  }

  /** The choice as the server's query takes it. */
  get query(): string {
    const mixed = Object.entries(this.choice.mixed).map(([quantity, unit]) => `${quantity}:${unit}`);
    return `units=${this.choice.system}&mixed=${encodeURIComponent(mixed.join(","))}`;
  }

  /** The number as shown, without its unit. */
  number(value: number | null | undefined, quantity: Quantity, decimals?: number): string {
    if (value === null || value === undefined) return "unknown";
    const { factor, offset, decimals: usual, unit } = this.of(quantity);
    if (quantity === "size" && unit === "in") return inches(value);
    const places = decimals ?? usual;
    const shown = value * factor + offset;
    // no minus before a zero
    return grouped(Math.abs(shown) < 0.5 * 10 ** -places ? 0 : shown, places, places);
  }

  /** The number with its unit; "unknown" has none. */
  text(value: number | null | undefined, quantity: Quantity): string {
    if (value === null || value === undefined) return "unknown";
    return `${this.number(value, quantity)} ${this.unit(quantity)}`.trim().replaceAll(" ", NO_BREAK);
  }

  words(words: Words): string {
    return words.map((w) => (typeof w === "string" ? w : this.text(w.value, w.quantity))).join("");
  }

  /** The number as it stands in a field for editing: as it was typed, in as few decimals as give it back. */
  entry(value: number | null | undefined, quantity: Quantity): string {
    if (value === null || value === undefined) return "";
    const { factor, offset, decimals, unit } = this.of(quantity);
    if (quantity === "size" && unit === "in") return inches(value);
    const shown = value * factor + offset;
    if (quantity === "size") return grouped(shown, 0, decimals);
    const least = quantity === "length" ? decimals : 0;
    let places = 0;
    while (places <= MOST_DECIMALS && Math.abs(Number(shown.toFixed(places)) - shown) > 2e-11 * Math.max(1, Math.abs(shown))) places++;
    const most = places > MOST_DECIMALS ? decimals + 1 : places;
    return grouped(shown, least, Math.max(least, most));
  }

  /** A typed number in core units, null when the text is not a number. */
  parse(text: string, quantity: Quantity): number | null {
    const { bare, unit } = this.splitUnit(text, quantity);
    const typed = quantity === "size" || quantity === "diameter" ? parseInches(bare) : parseNumber(bare);
    if (typed === null) return null;
    const value = Number(((typed - unit.offset) / unit.factor).toPrecision(12));
    return quantity === "size" && unit.unit !== "in" ? snapInches(value) : value;
  }

  /** A text without its unit, and that unit; the person's own where there is none. */
  private splitUnit(text: string, quantity: Quantity): { bare: string; unit: DisplayUnit } {
    const trimmed = text.trim();
    // a share may be typed in per cent: 50 % is 0.5
    if (quantity === "fraction" && /[\d.,]\s*%$/.test(trimmed)) return { bare: trimmed.slice(0, -1), unit: PER_CENT };
    const lower = trimmed.toLowerCase();
    const ways = this.table[quantity]!.options.flatMap((unit) => unit.spellings.map((way) => ({ unit, way })));
    ways.sort((a, b) => b.way.length - a.way.length);
    for (const { unit, way } of ways) {
      const bare = trimmed.slice(0, -way.length);
      if (lower.endsWith(way) && /[\d.,]\s*$/.test(bare)) return { bare, unit };
    }
    return { bare: trimmed, unit: this.of(quantity) };
  }

  /** A depth [ft] at the nearest step that a person would type: 10 ft or 1 m, or a tenth of it. */
  snapDepth(depthFt: number, fine = false): number {
    return snap(depthFt, this.depthStepFt() / (fine ? 10 : 1));
  }

  depthStepFt(): number {
    return this.unit("depth") === "ft" ? 10 : 1 / this.factor("depth");
  }

  /** A mud weight [ppg] at the nearest tenth of a ppg, hundredth of an SG, or what is as fine in another unit. */
  snapEmw(ppg: number, fine = false): number {
    return snap(ppg, this.emwStepPpg() / (fine ? 10 : 1));
  }

  emwStepPpg(): number {
    return 10 ** Math.round(Math.log10(0.1 * this.factor("emw"))) / this.factor("emw");
  }
}

function snap(value: number, step: number): number {
  return Number((Math.round(value / step) * step).toPrecision(12));
}

export const UnitsContext = createContext<Units | null>(null);

export function useUnits(): Units {
  const units = useContext(UnitsContext);
  if (units === null) throw new Error("outside the units");
  return units;
}
