// Numbers as people write them. No React, no units.

const formats = new Map<string, Intl.NumberFormat>();

/** A number with separators of thousands. Formats are kept: making one costs more than using it a hundred times. */
export function grouped(value: number, least = 0, most = Math.max(least, 3)): string {
  const key = `${least} ${most}`;
  let format = formats.get(key);
  if (format === undefined) {
    format = new Intl.NumberFormat("en-US", { minimumFractionDigits: least, maximumFractionDigits: most });
    formats.set(key, format);
  }
  return format.format(value);
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
/** A comma that cannot part thousands is a decimal sign: "9,25", "1.234,5". */
const DECIMAL_COMMA = /^[-+]?(\d{1,3}(\.\d{3})+|\d+),(\d{1,2}|\d{4,})$|^[-+]?\d{1,3}(\.\d{3})+,\d+$/;

/** A plain number, with or without separators of thousands; null for anything else. */
export function parseNumber(text: string): number | null {
  const trimmed = text.trim().replace(/^[−–]\s*/, "-");
  if (DECIMAL_COMMA.test(trimmed)) return Number(trimmed.replaceAll(".", "").replace(",", "."));
  if (!/\d/.test(trimmed) || !NUMBER.test(trimmed)) return null;
  const value = Number(trimmed.replaceAll(",", ""));
  return Number.isFinite(value) ? value : null;
}

/** Inches typed in another unit, at the eighth that they are rounded from: 244.5 mm is 9 5/8, 311 mm 12 1/4. */
export function snapInches(value: number): number {
  const eighth = Math.round(value * 8) / 8;
  return Math.abs(value - eighth) <= SNAP_IN ? eighth : value;
}
const SNAP_IN = 0.02;

/** "9 5/8", "9-5/8", "5/8" or a plain number. */
export function parseInches(text: string): number | null {
  const match = /^\s*(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)\s*$/.exec(text);
  if (match === null) return parseNumber(text);
  const bottom = Number(match[3]);
  return bottom === 0 ? null : Number(match[1] ?? 0) + Number(match[2]) / bottom;
}

/** What a field of numbers asks for: "a size in inches", "a number in ppg". */
export function numberWanted(unit: string): string {
  return unit === "" ? "a number" : unit === "in" ? "a size in inches" : `a number in ${unit}`;
}
