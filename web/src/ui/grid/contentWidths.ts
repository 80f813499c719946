// How wide a column must be for what stands in it: numbers, choices and flags in full, text at least a name's beginning.
import { useMemo } from "react";
import type { Units } from "../units";
import type { GridColumn, Row } from "./columns";
import { cellText } from "./columns";

const FONT = { plain: '"IBM Plex Sans", sans-serif', narrow: '"IBM Plex Sans Condensed", sans-serif' };
const CELL_PX = 12.5;
const HEAD_PX = 11.5;
const PADDING_PX = 11;
const HEAD_PADDING_PX = 9;
const LEAST_TEXT_PX = 84;
const LOOKED_AT = 300;
export const ROW_NUMBER_PX = 28;

const pen = document.createElement("canvas").getContext("2d")!;

function textPx(text: string, sizePx: number, narrow: boolean): number {
  pen.font = `${sizePx}px ${narrow ? FONT.narrow : FONT.plain}`;
  return pen.measureText(text).width;
}

const longest = (texts: readonly string[]) => texts.reduce((a, b) => (b.length > a.length ? b : a), "");

/** Some of many rows, evenly spread. */
function sample(rows: readonly Row[]): readonly Row[] {
  const every = Math.ceil(rows.length / LOOKED_AT);
  return every <= 1 ? rows : rows.filter((_, i) => i % every === 0 || i === rows.length - 1);
}

export function useContentWidths(rows: readonly Row[], columns: readonly GridColumn[], units: Units, narrow: boolean) {
  return useMemo(() => {
    const seen = sample(rows);
    const widths = columns.map((column) => {
      const words = column.label.split(" ");
      const unit = column.kind === "number" ? [units.unit(column.quantity)] : [];
      const head = textPx(longest([...words, ...unit]), HEAD_PX, narrow);
      if (column.kind === "text") return { px: Math.max(LEAST_TEXT_PX, head + HEAD_PADDING_PX), fixed: false };
      const texts =
        column.kind === "choice"
          ? column.options.map((o) => column.words?.[o] ?? o)
          : column.kind === "flag"
            ? []
            : seen.map((row) => cellText(row, column, units));
      const cell = textPx(longest(texts), CELL_PX, narrow);
      return { px: Math.ceil(Math.max(head + HEAD_PADDING_PX, cell + PADDING_PX)), fixed: true };
    });
    return { widths, leastPx: ROW_NUMBER_PX + widths.reduce((sum, w) => sum + w.px, 0) };
  }, [rows, columns, units, narrow]);
}
