// The keys of an editable table, as a spreadsheet has them. Tab leaves the table; while typing it goes to the next cell.
import type { KeyboardEvent, RefObject } from "react";
import type { Units } from "../units";
import type { GridColumn, Row } from "./columns";
import { cellText, valueOf } from "./columns";
import type { GridState } from "./useGrid";
import type { ColumnWidths } from "./useWidths";

const PAGE_ROWS = 10;

interface Keyed {
  grid: GridState;
  rows: readonly Row[];
  columns: readonly GridColumn[];
  units: Units;
  table: RefObject<HTMLTableElement | null>;
  sizes: ColumnWidths;
}

export function onGridKey(event: KeyboardEvent, keyed: Keyed): void {
  const { grid, rows } = keyed;
  if (grid.editing !== null || rows.length === 0) return;
  if (!withModifiers(event, keyed) && !moved(event, keyed) && !plain(event, keyed)) return;
  event.preventDefault();
  event.stopPropagation();
}

/** Keys with Ctrl, Shift or Alt that do something to rows and columns; whether it was one. */
function withModifiers(event: KeyboardEvent, { grid, columns, table, sizes }: Keyed): boolean {
  const { row, column } = grid.cursor;
  const jump = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (event.altKey && event.shiftKey && (key === "arrowleft" || key === "arrowright"))
    sizes.nudge(table.current!, columns[column]!.key, key === "arrowleft" ? -1 : 1);
  else if (event.altKey && grid.movable && (key === "arrowup" || key === "arrowdown"))
    grid.moveTo(key === "arrowup" ? grid.span.from.row - 1 : grid.span.to.row + 2);
  else if (event.altKey) return false;
  else if (key === " " && event.shiftKey) grid.selectRows(row, false);
  else if (!jump) return false;
  else if (key === " ") grid.selectColumns(column, false);
  else if (key === "enter" && event.shiftKey) grid.insert(false);
  else if (key === "enter") grid.add();
  else if (key === "delete" || key === "backspace") grid.remove();
  else if (key === "a") grid.selectAll();
  else if (key === "d") grid.fillDown();
  else return false;
  return true;
}

function moved(event: KeyboardEvent, { grid, rows, columns }: Keyed): boolean {
  const { row, column } = grid.cursor;
  const jump = event.ctrlKey || event.metaKey;
  const last = { row: rows.length - 1, column: columns.length - 1 };
  const moves: Record<string, [number, number]> = {
    ArrowUp: [jump ? 0 : row - 1, column],
    ArrowDown: [jump ? last.row : row + 1, column],
    ArrowLeft: [row, jump ? 0 : column - 1],
    ArrowRight: [row, jump ? last.column : column + 1],
    Home: [jump ? 0 : row, 0],
    End: [jump ? last.row : row, last.column],
    PageUp: [row - PAGE_ROWS, column],
    PageDown: [row + PAGE_ROWS, column],
  };
  const move = moves[event.key];
  if (move === undefined || event.altKey) return false;
  grid.go(move[0], move[1], event.shiftKey);
  return true;
}

function plain(event: KeyboardEvent, { grid, rows, columns, units }: Keyed): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const held = columns[grid.cursor.column]!;
  const row = rows[grid.cursor.row]!;
  if (event.key === "Delete" || event.key === "Backspace") grid.clear();
  else if (held.kind === "flag" && (event.key === " " || event.key === "Enter")) grid.set(!valueOf(row, held));
  else if (event.key === "Enter" || event.key === "F2") grid.edit(cellText(row, held, units));
  else if (event.key === "Escape") grid.cancel();
  else if (event.key.length === 1 && held.kind !== "flag") grid.edit(event.key);
  // what a table does not know is no shortcut either while it is in use
  else if (event.key.length !== 1) return false;
  return true;
}
