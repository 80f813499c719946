// The keys of an editable table, as a spreadsheet has them. Tab leaves the table; while typing it goes to the next cell.
import type { KeyboardEvent } from "react";
import type { GridColumn, Row } from "./columns";
import { cellText, valueOf } from "./columns";
import type { GridState } from "./useGrid";
import type { Units } from "../units";

const PAGE_ROWS = 10;

export function onGridKey(event: KeyboardEvent, grid: GridState, rows: readonly Row[], columns: readonly GridColumn[], units: Units): void {
  if (grid.editing !== null || rows.length === 0) return;
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
  const held = columns[column]!;
  if (move) grid.go(move[0], move[1], event.shiftKey);
  else if (jump && event.key === "Enter") grid.add();
  else if (jump && (event.key === "Delete" || event.key === "Backspace")) grid.remove();
  else if (jump && event.key.toLowerCase() === "a") grid.selectAll();
  else if (jump || event.altKey) return;
  else if (event.key === "Delete" || event.key === "Backspace") grid.clear();
  else if (held.kind === "flag" && (event.key === " " || event.key === "Enter")) grid.set(!valueOf(rows[row]!, held));
  else if (event.key === "Enter" || event.key === "F2") grid.edit(cellText(rows[row]!, held, units));
  else if (event.key === "Escape") grid.cancel();
  else if (event.key.length === 1 && held.kind !== "flag") grid.edit(event.key);
  // what a table does not know is no shortcut either while it is in use
  else if (event.key.length !== 1) return;
  event.preventDefault();
  event.stopPropagation();
}
