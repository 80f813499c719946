// Selecting in an editable table by pressing and dragging: cells, and whole rows by their numbers. Where rows may be moved, the
// number of a selected one drags them to another place.
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
  /** Selected rows in the hand, and the place over which they are held. */
  const moving = useRef<{ place: number } | null>(null);
  const held = useRef(grid);
  useEffect(() => {
    held.current = grid;
  });
  useEffect(() => {
    const drop = () => {
      from.current = null;
      if (moving.current !== null) held.current.moveTo(moving.current.place);
      moving.current = null;
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
      if (grid.movable && event.button === 0 && !event.shiftKey && chosen && at.column === null) {
        moving.current = { place: at.row };
        return;
      }
      from.current = event.button === 0 ? at : null;
      to(at, event.button === 0 && event.shiftKey);
    },
    onMouseMove: (event: MouseEvent) => {
      const over = moving.current === null || event.buttons !== 1 ? null : under(event.target);
      if (over !== null) {
        moving.current = { place: over.row > grid.span.to.row ? over.row + 1 : over.row };
        return;
      }
      const start = from.current;
      const at = start === null || event.buttons !== 1 ? null : under(event.target);
      if (start === null || at === null) return;
      const reached = { row: at.row, column: start.column === null ? null : (at.column ?? 0) };
      if (reached.row === grid.cursor.row && (reached.column ?? 0) === grid.cursor.column) return;
      to(reached, true);
    },
  };
}
