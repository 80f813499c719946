// What a table does to its rows, as functions of the rows alone: clear, fill, insert, sort, copy. No React.
import type { Units } from "../units";
import type { GridColumn, Row } from "./columns";
import { cellText, valueOf, withValue } from "./columns";

export interface Cell {
  row: number;
  column: number;
}

/** A block of cells, both corners included. */
export interface Span {
  from: Cell;
  to: Cell;
}

export function spanOf(a: Cell, b: Cell): Span {
  return {
    from: { row: Math.min(a.row, b.row), column: Math.min(a.column, b.column) },
    to: { row: Math.max(a.row, b.row), column: Math.max(a.column, b.column) },
  };
}

const inside = (span: Span, row: number) => row >= span.from.row && row <= span.to.row;

export function copiedText(rows: readonly Row[], columns: readonly GridColumn[], span: Span, units: Units): string {
  return rows
    .slice(span.from.row, span.to.row + 1)
    .map((row) =>
      columns
        .slice(span.from.column, span.to.column + 1)
        .map((c) => (c.kind === "choice" ? String(valueOf(row, c) ?? "") : cellText(row, c, units)))
        .join("\t"),
    )
    .join("\n");
}

/** Empty what may be empty. */
export function cleared(rows: readonly Row[], columns: readonly GridColumn[], span: Span): Row[] {
  const clearable = columns
    .slice(span.from.column, span.to.column + 1)
    .filter((c) => c.kind === "flag" || c.kind === "text" || (c.kind === "number" && c.optional));
  return rows.map((row, i) =>
    inside(span, i) ? clearable.reduce((r, c) => withValue(r, c, c.kind === "flag" ? false : c.kind === "text" ? "" : null), row) : row,
  );
}

/** The first row of a block put into the rows below it; of a single row, the row above put into it. */
export function filledDown(rows: readonly Row[], columns: readonly GridColumn[], span: Span): Row[] {
  const first = span.from.row === span.to.row ? span.from.row - 1 : span.from.row;
  const source = rows[first];
  if (source === undefined) return [...rows];
  const filled = columns.slice(span.from.column, span.to.column + 1);
  return rows.map((row, i) => (i !== first && inside(span, i) ? filled.reduce((r, c) => withValue(r, c, valueOf(source, c)), row) : row));
}

/** A row without its depth ends where the whole does. */
const placeOf = (row: Row, key: string) => (typeof row[key] === "number" ? row[key] : Number.MAX_VALUE);

export function sorted(rows: readonly Row[], key: string | null): Row[] {
  return key === null ? [...rows] : [...rows].sort((a, b) => placeOf(a, key) - placeOf(b, key));
}

/** A new row at a place among others, if it does not stand in order by itself: its depth midway between its neighbours', any
 * other key that orders rows as above it. */
export function between(rows: readonly Row[], at: number, fresh: Row, column: GridColumn | undefined): Row {
  const key = column?.key ?? "";
  const above = rows[at - 1]?.[key];
  const below = rows[at]?.[key];
  const own = fresh[key];
  if (column?.kind !== "number" || typeof below !== "number") return fresh;
  if (typeof own === "number" && own <= below && (typeof above !== "number" || own >= above)) return fresh;
  if (column.quantity !== "depth") return { ...fresh, [key]: typeof above === "number" ? above : below };
  const middle = ((typeof above === "number" ? above : 0) + below) / 2;
  return { ...fresh, [key]: Math.round(middle) };
}
