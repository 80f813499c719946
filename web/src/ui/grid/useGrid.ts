// The state of an editable table: where the cursor is, what is selected, what is being typed, and what was refused.
import type { RefObject } from "react";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import * as api from "../../design/api";
import { identified } from "../../design/ids";
import type { Fault } from "../../design/types";
import { useUnits } from "../units";
import type { GridColumn, Row } from "./columns";
import { overlaid, readCell, valueOf, withoutNumbers, withValue } from "./columns";
import type { Cell } from "./edits";
import { between, cleared, copiedText, filledDown, sorted, spanOf } from "./edits";

export interface Refused extends Cell {
  text: string;
  expected: string;
}

/** A new row after some, and above another where it is put in between. */
export type NewRow = (rows: readonly Row[], below?: Row) => Row;

interface GridInput {
  table: RefObject<HTMLTableElement | null>;
  target: api.TableTarget;
  path: string;
  rows: readonly Row[];
  columns: readonly GridColumn[];
  sortBy: string | null;
  /** Key of the depth of a row in a table whose order is decided. */
  depthKey: string | undefined;
  newRow: NewRow;
  insertAt: ((rows: readonly Row[]) => number) | undefined;
  least: number;
  movable: boolean;
  /** A pasted block takes the place of all rows: they were made up. */
  replaced: boolean;
  write: (rows: Row[]) => void;
  /** A pasted block with headings or columns that are not understood. */
  onUnclear: (text: string) => void;
}

export function useGrid(input: GridInput) {
  const {
    table,
    target,
    path,
    rows,
    columns,
    sortBy,
    depthKey,
    newRow: fresh,
    insertAt,
    least,
    movable,
    replaced,
    write,
    onUnclear,
  } = input;
  const units = useUnits();
  const newRow = (held: readonly Row[], below?: Row) => identified(path, fresh(held, below));
  const focusWanted = useRef(false);
  const [wanted, setCursor] = useState<Cell>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Cell | null>(null);
  const [editing, setEditing] = useState<string | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const [pasteFaults, setPasteFaults] = useState<Fault[]>([]);
  const last = { row: Math.max(0, rows.length - 1), column: columns.length - 1 };
  const held = ({ row, column }: Cell): Cell => ({
    row: Math.max(0, Math.min(row, last.row)),
    column: Math.max(0, Math.min(column, last.column)),
  });
  // rows may go under the cursor (undo, another table of the same rows)
  const cursor = useMemo(() => ({ ...wanted, row: Math.max(0, Math.min(wanted.row, rows.length - 1)) }), [wanted, rows.length]);
  const span = spanOf(cursor, anchor === null ? cursor : held(anchor));

  useLayoutEffect(() => {
    if (!focusWanted.current || editing !== null) return;
    const cell = table.current?.querySelector<HTMLElement>(`[data-cell="${cursor.row}:${cursor.column}"]`);
    if (!cell) return;
    focusWanted.current = false;
    cell.focus();
    cell.scrollIntoView({ block: "nearest", inline: "nearest" });
  });

  const go = (row: number, column: number, extend = false) => {
    setAnchor(extend ? (anchor ?? cursor) : null);
    setCursor(held({ row, column }));
    setEditing(null);
    focusWanted.current = true;
  };
  /** Select from one cell to another; the cursor is at the second. */
  const select = (from: Cell, to: Cell) => {
    setAnchor(held(from));
    setCursor(held(to));
    setEditing(null);
    focusWanted.current = true;
  };
  const selectRows = (row: number, extend: boolean) => {
    select({ row: extend ? (anchor ?? cursor).row : row, column: last.column }, { row, column: 0 });
  };
  const selectColumns = (column: number, extend: boolean) => {
    select({ row: last.row, column: extend ? (anchor ?? cursor).column : column }, { row: 0, column });
  };

  /** Put values into cells, sort by depth, and keep the cursor on the row it was on. */
  const put = (next: Row[], follow: number, dRow = 0, dColumn = 0) => {
    const order = sorted(next, sortBy);
    write(order);
    setRefused(null);
    setPasteFaults([]);
    setEditing(null);
    setAnchor(null);
    setCursor({
      row: Math.max(0, order.indexOf(next[follow]!) + dRow),
      column: Math.max(0, Math.min(cursor.column + dColumn, last.column)),
    });
    focusWanted.current = true;
  };

  const commit = (text: string, dRow: number, dColumn: number) => {
    const column = columns[cursor.column]!;
    const row = rows[cursor.row]!;
    if (column.kind === "choice" && text.trim() === "") {
      go(cursor.row + dRow, cursor.column + dColumn);
      return;
    }
    const read = readCell(text, column, units);
    if ("expected" in read) {
      setRefused({ ...cursor, text, expected: read.expected });
      setEditing(null);
      focusWanted.current = true;
      return;
    }
    if (read.value === valueOf(row, column)) {
      setRefused(null);
      go(cursor.row + dRow, cursor.column + dColumn);
      return;
    }
    put(
      rows.map((r, i) => (i === cursor.row ? withValue(r, column, read.value) : r)),
      cursor.row,
      dRow,
      dColumn,
    );
  };

  const add = () => {
    const at = insertAt?.(rows) ?? rows.length;
    put([...rows.slice(0, at), newRow(rows), ...rows.slice(at)], at, 0, -columns.length);
  };
  /** A new row above the selection, or below it. */
  const insert = (below: boolean) => {
    const at = below ? span.to.row + 1 : span.from.row;
    if (rows.length === 0 || at >= rows.length || (at === 0 && insertAt !== undefined)) {
      add();
      return;
    }
    const key = columns.find((c) => c.key === (sortBy ?? depthKey));
    const made = insertAt === undefined ? newRow(rows.slice(0, at), rows[at]) : newRow(rows);
    const row = between(rows, at, made, key);
    put([...rows.slice(0, at), row, ...rows.slice(at)], at, 0, -columns.length);
  };
  const mayRemove = rows.length > 0 && rows.length - (span.to.row - span.from.row + 1) >= least;
  const remove = () => {
    if (!mayRemove) return;
    const left = rows.filter((_, i) => i < span.from.row || i > span.to.row);
    put(left, Math.min(span.from.row, left.length - 1));
  };
  /** The selected rows to a place among the others: before the row that stands there. */
  const moveTo = (place: number) => {
    const { from, to } = span;
    if (!movable || place < 0 || place > rows.length || (place >= from.row && place <= to.row + 1)) return;
    const block = rows.slice(from.row, to.row + 1);
    const rest = [...rows.slice(0, from.row), ...rows.slice(to.row + 1)];
    const at = place > to.row ? place - block.length : place;
    write([...rest.slice(0, at), ...block, ...rest.slice(at)]);
    select(
      { row: at + block.length - 1, column: anchor === null ? cursor.column : last.column },
      { row: at, column: anchor === null ? cursor.column : 0 },
    );
  };
  const clear = () => {
    put(cleared(rows, columns, span), cursor.row);
  };
  const wholeRows = span.from.column === 0 && span.to.column === last.column;
  /** After its text is on the clipboard: whole rows go, of others what may be empty is emptied. */
  const cut = () => {
    if (wholeRows && mayRemove) remove();
    else clear();
  };

  const paste = async (text: string) => {
    try {
      const first = rows.length === 0 ? columns[0]! : (columns[span.from.column] ?? columns[0]!);
      const block = await api.readPaste(target, text, first.key, units.choice);
      if (block.unclear.length > 0) {
        onUnclear(text);
        return;
      }
      const whole = replaced || rows.length === 0;
      const next = replaced ? [] : [...rows];
      block.rows.forEach((pasted, i) => {
        const at = whole ? i : span.from.row + i;
        next[at] = overlaid(next[at] ?? withoutNumbers(newRow(next), columns), pasted, block.keys);
      });
      put(next, whole ? 0 : span.from.row);
    } catch (error) {
      const faults = error instanceof api.ProblemError ? error.problem.faults : [];
      setPasteFaults(
        faults.length ? faults : [{ path: "/rows", value: "nothing was pasted", expected: "the server, which is not reached" }],
      );
    }
  };

  return {
    cursor,
    span,
    editing,
    refused,
    pasteFaults,
    mayRemove,
    movable,
    moveTo,
    go,
    selectRows,
    selectColumns,
    commit,
    add,
    insert,
    remove,
    clear,
    cut,
    copied: () => copiedText(rows, columns, span, units),
    paste,
    fillDown: () => {
      put(filledDown(rows, columns, span), cursor.row);
    },
    edit: (text: string) => {
      setEditing(text);
      setRefused(null);
      setAnchor(null);
    },
    cancel: () => {
      setEditing(null);
      setRefused(null);
      focusWanted.current = true;
    },
    selectAll: () => {
      select({ row: 0, column: 0 }, last);
    },
    set: (value: unknown) => {
      const column = columns[cursor.column]!;
      put(
        rows.map((r, i) => (i === cursor.row ? withValue(r, column, value) : r)),
        cursor.row,
      );
    },
    dismiss: () => {
      setPasteFaults([]);
    },
    /** The browser does not give the clipboard to a menu: its keys do. */
    refuseClipboard: () => {
      setPasteFaults([{ path: "/rows", value: "the browser keeps the clipboard to itself", expected: "Ctrl V in place of the menu" }]);
    },
    refocus: () => {
      table.current?.querySelector<HTMLElement>(`[data-cell="${cursor.row}:${cursor.column}"]`)?.focus();
    },
  };
}

export type GridState = ReturnType<typeof useGrid>;
