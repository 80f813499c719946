// The state of an editable table: where the cursor is, what is selected, what is being typed, and what was refused.
import type { RefObject } from "react";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import * as api from "../../design/api";
import { identified } from "../../design/ids";
import type { Fault } from "../../design/types";
import { useUnits } from "../units";
import type { GridColumn, Row } from "./columns";
import { cellText, overlaid, readCell, valueOf, withoutNumbers, withValue } from "./columns";

export interface Cell {
  row: number;
  column: number;
}

export interface Refused extends Cell {
  text: string;
  expected: string;
}

interface GridInput {
  table: RefObject<HTMLTableElement | null>;
  target: api.TableTarget;
  path: string;
  rows: readonly Row[];
  columns: readonly GridColumn[];
  sortBy: string | null;
  newRow: (rows: readonly Row[]) => Row;
  insertAt: ((rows: readonly Row[]) => number) | undefined;
  least: number;
  write: (rows: Row[]) => void;
  /** A pasted block with headings or columns that are not understood. */
  onUnclear: (text: string) => void;
}

export function useGrid({ table, target, path, rows, columns, sortBy, newRow: fresh, insertAt, least, write, onUnclear }: GridInput) {
  const units = useUnits();
  const newRow = (held: readonly Row[]) => identified(path, fresh(held));
  const focusWanted = useRef(false);
  const [wanted, setCursor] = useState<Cell>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Cell | null>(null);
  const [editing, setEditing] = useState<string | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const [pasteFaults, setPasteFaults] = useState<Fault[]>([]);
  // rows may go under the cursor (undo, another table of the same rows)
  const cursor = useMemo(() => ({ ...wanted, row: Math.max(0, Math.min(wanted.row, rows.length - 1)) }), [wanted, rows.length]);
  const from = { row: Math.min(cursor.row, anchor?.row ?? cursor.row), column: Math.min(cursor.column, anchor?.column ?? cursor.column) };
  const to = { row: Math.max(cursor.row, anchor?.row ?? cursor.row), column: Math.max(cursor.column, anchor?.column ?? cursor.column) };

  useLayoutEffect(() => {
    if (!focusWanted.current || editing !== null) return;
    focusWanted.current = false;
    const cell = table.current?.querySelector<HTMLElement>(`[data-cell="${cursor.row}:${cursor.column}"]`);
    cell?.focus();
    cell?.scrollIntoView({ block: "nearest" });
  });

  const go = (row: number, column: number, extend = false) => {
    setAnchor(extend ? (anchor ?? cursor) : null);
    setCursor({ row: Math.max(0, Math.min(row, rows.length - 1)), column: Math.max(0, Math.min(column, columns.length - 1)) });
    setEditing(null);
    focusWanted.current = true;
  };

  // a row without its depth ends where the whole does
  const place = (row: Row, key: string) => (row[key] === null || row[key] === undefined ? Number.MAX_VALUE : Number(row[key]));
  const sorted = (next: Row[]) => (sortBy === null ? next : [...next].sort((a, b) => place(a, sortBy) - place(b, sortBy)));

  /** Put values into cells, sort by depth, and keep the cursor on the row it was on. */
  const put = (next: Row[], follow: number, dRow = 0, dColumn = 0) => {
    const order = sorted(next);
    write(order);
    setRefused(null);
    setPasteFaults([]);
    setEditing(null);
    setAnchor(null);
    setCursor({
      row: Math.max(0, order.indexOf(next[follow]!) + dRow),
      column: Math.max(0, Math.min(cursor.column + dColumn, columns.length - 1)),
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
  const remove = () => {
    const left = rows.filter((_, i) => i < from.row || i > to.row);
    if (left.length < least) return;
    put(left, Math.min(from.row, left.length - 1));
  };
  const clear = () => {
    const next = rows.map((row, i) => {
      if (i < from.row || i > to.row) return row;
      const cleared = columns
        .slice(from.column, to.column + 1)
        .filter((c) => c.kind === "flag" || c.kind === "text" || (c.kind === "number" && c.optional));
      return cleared.reduce((r, c) => withValue(r, c, c.kind === "flag" ? false : c.kind === "text" ? "" : null), row);
    });
    put(next, cursor.row);
  };
  const copied = () =>
    rows
      .slice(from.row, to.row + 1)
      .map((row) =>
        columns
          .slice(from.column, to.column + 1)
          .map((c) => cellText(row, c, units))
          .join("\t"),
      )
      .join("\n");

  const paste = async (text: string) => {
    try {
      const first = rows.length === 0 ? columns[0]! : (columns[cursor.column] ?? columns[0]!);
      const block = await api.readPaste(target, text, first.key, units.choice);
      if (block.unclear.length > 0) {
        onUnclear(text);
        return;
      }
      const next = [...rows];
      block.rows.forEach((pasted, i) => {
        const at = rows.length === 0 ? i : cursor.row + i;
        next[at] = overlaid(next[at] ?? withoutNumbers(newRow(next), columns), pasted, block.keys);
      });
      put(next, rows.length === 0 ? 0 : cursor.row);
    } catch (error) {
      const faults = error instanceof api.ProblemError ? error.problem.faults : [];
      setPasteFaults(
        faults.length ? faults : [{ path: "/rows", value: "nothing was pasted", expected: "the server, which is not reached" }],
      );
    }
  };

  return {
    cursor,
    from,
    to,
    editing,
    refused,
    pasteFaults,
    go,
    commit,
    add,
    remove,
    clear,
    copied,
    paste,
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
      setAnchor({ row: 0, column: 0 });
      setCursor({ row: rows.length - 1, column: columns.length - 1 });
      focusWanted.current = true;
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
  };
}

export type GridState = ReturnType<typeof useGrid>;
