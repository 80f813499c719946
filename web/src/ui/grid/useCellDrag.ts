// Selecting in an editable table by pressing and dragging: cells, and whole rows by their numbers.
import type { MouseEvent } from "react";
import { useEffect, useRef } from "react";
import type { GridState } from "./useGrid";

interface Under {
  row: number;
  /** Null on the number of a row. */
  column: number | null;
}

function under(target: EventTarget): Under | null {
  const node = target instanceof Element ? target.closest<HTMLElement>("[data-cell], [data-row]") : null;
  if (node === null) return null;
  const [row, column] = (node.dataset.cell ?? node.dataset.row!).split(":").map(Number);
  return { row: row!, column: column ?? null };
}

export function useCellDrag(grid: GridState) {
  const from = useRef<Under | null>(null);
  useEffect(() => {
    const drop = () => {
      from.current = null;
    };
    window.addEventListener("mouseup", drop);
    return () => {
      window.removeEventListener("mouseup", drop);
    };
  }, []);
  const to = ({ row, column }: Under, extend: boolean) => {
    if (column === null) grid.selectRows(row, extend);
    else grid.go(row, column, extend);
  };
  return {
    onMouseDown: (event: MouseEvent) => {
      const at = under(event.target);
      if (at === null || (grid.editing !== null && at.row === grid.cursor.row && at.column === grid.cursor.column)) return;
      const { span } = grid;
      const chosen = at.row >= span.from.row && at.row <= span.to.row;
      // the second button opens the menu of what is selected, where it is pressed on that
      if (event.button !== 0 && chosen && (at.column === null || (at.column >= span.from.column && at.column <= span.to.column))) return;
      event.preventDefault();
      from.current = event.button === 0 ? at : null;
      to(at, event.button === 0 && event.shiftKey);
    },
    onMouseMove: (event: MouseEvent) => {
      const start = from.current;
      const at = start === null || event.buttons !== 1 ? null : under(event.target);
      if (start === null || at === null) return;
      const reached = { row: at.row, column: start.column === null ? null : (at.column ?? 0) };
      if (reached.row === grid.cursor.row && (reached.column ?? 0) === grid.cursor.column) return;
      to(reached, true);
    },
  };
}
