// An editable table of rows of the document, worked like a spreadsheet: move, type, copy, paste a block, add and remove
// rows; sorted by depth whenever something is put in. What cannot be read is said at its row and changes nothing.
import { Download, Plus, Trash2, Upload } from "lucide-react";
import { lazy, Suspense, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useBench, useSnapshot } from "../../design/context";
import { read } from "../../design/pointer";
import type { Reference } from "../../design/reference";
import { useReference } from "../../design/reference";
import type { Fault, Target } from "../../design/types";
import { Button } from "../Button";
import { useUnits } from "../units";
import type { ColumnSpec, GridColumn, Row } from "./columns";
import { columnsOf } from "./columns";
import { GridRow } from "./GridRow";
import { onGridKey } from "./gridKeys";
import type { GridState } from "./useGrid";
import { useGrid } from "./useGrid";

const ImportDialog = lazy(() => import("../../imports/ImportDialog").then((m) => ({ default: m.ImportDialog })));

interface GridProps {
  title: string;
  /** What the table is to the server: for pasting, importing and exporting. */
  target: Target;
  path: string;
  columns: readonly ColumnSpec[];
  /** Key by which rows stand in order; null where their order is decided and no edit changes it. */
  sortBy: string | null;
  newRow: (rows: readonly Row[]) => Row;
  /** Where a new row goes, when not to the end. */
  insertAt?: (rows: readonly Row[]) => number;
  least?: number;
  empty: string;
  className?: string;
  /** Rows in place of the document's, and how to put them there: the strings of a proposal. */
  rows?: readonly Row[];
}

export function Grid({
  title,
  target,
  path,
  columns: specs,
  sortBy,
  newRow,
  insertAt,
  least = 0,
  empty,
  className = "",
  rows: given,
}: GridProps) {
  const { session } = useBench();
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const units = useUnits();
  const reference = useReference();
  // specs are written where the table stands: alike in words is alike
  const asked = JSON.stringify(specs);
  const columns = useMemo(() => columnsOf(reference, path, JSON.parse(asked) as ColumnSpec[]), [reference, path, asked]);
  const [importing, setImporting] = useState<{ pasted: string | null } | null>(null);
  const rows = given ?? ((read(document, path) ?? []) as Row[]);
  const write = (next: Row[]) => {
    session.edit([{ path, value: next }]);
  };
  const table = useRef<HTMLTableElement>(null);
  const grid = useGrid({
    table,
    target,
    path,
    rows,
    columns,
    sortBy,
    newRow,
    insertAt,
    least,
    write,
    onUnclear: (text) => setImporting({ pasted: text }),
  });
  const { cursor, from, to } = grid;
  const handlers = useStable(grid);
  return (
    <div className={className}>
      <table
        ref={table}
        role="grid"
        aria-label={title}
        aria-rowcount={rows.length}
        className="w-full table-fixed border-collapse text-[12.5px]"
        onKeyDown={(event) => {
          onGridKey(event, grid, rows, columns, units);
        }}
        onCopy={(event) => {
          if (grid.editing !== null || rows.length === 0) return;
          event.preventDefault();
          event.clipboardData.setData("text/plain", grid.copied());
        }}
        onPaste={(event) => {
          const text = event.clipboardData.getData("text/plain");
          if (grid.editing !== null && !/[\t\n]/.test(text)) return;
          event.preventDefault();
          void grid.paste(text);
        }}
      >
        <Head columns={columns} />
        <tbody>
          {rows.map((row, index) => (
            <GridRow
              key={index}
              row={row}
              index={index}
              columns={columns}
              units={units}
              title={title}
              place={path}
              cursor={index === cursor.row ? cursor.column : null}
              selectedFrom={index >= from.row && index <= to.row ? from.column : null}
              selectedTo={index >= from.row && index <= to.row ? to.column : null}
              editing={index === cursor.row ? grid.editing : null}
              refused={grid.refused?.row === index ? grid.refused : null}
              faults={faultsOf(faults, `${path}/${index}`, reference)}
              {...handlers}
            />
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <EmptyPaste text={empty} place={path} onPaste={(text) => void grid.paste(text)} onAdd={grid.add} />}
      {grid.pasteFaults.length > 0 && <PasteFaults faults={grid.pasteFaults} table={path} onDismiss={grid.dismiss} />}
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button onClick={grid.add} title="Ctrl Enter">
          <Plus size={13} aria-hidden /> Add
        </Button>
        <Button onClick={grid.remove} title="Ctrl Delete" disabled={rows.length - (to.row - from.row + 1) < least || rows.length === 0}>
          <Trash2 size={13} aria-hidden /> Remove{" "}
          {rows.length > 0 && (to.row > from.row ? `rows ${from.row + 1} to ${to.row + 1}` : `row ${cursor.row + 1}`)}
        </Button>
        <Button
          onClick={() => {
            setImporting({ pasted: null });
          }}
        >
          <Upload size={13} aria-hidden /> Import
        </Button>
        <ExportLink target={target} />
      </div>
      {importing && (
        <Suspense>
          <ImportDialog
            target={target}
            title={title}
            path={path}
            pasted={importing.pasted}
            close={() => {
              setImporting(null);
            }}
          />
        </Suspense>
      )}
    </div>
  );
}

/** What a row calls: the same functions all the time, working on the state of the moment, so that rows stay as drawn. */
function useStable(grid: GridState) {
  const held = useRef(grid);
  useLayoutEffect(() => {
    held.current = grid;
  });
  return useMemo(
    () => ({
      onPoint: (row: number, column: number, extend: boolean) => {
        held.current.go(row, column, extend);
      },
      onEdit: (text: string) => {
        held.current.edit(text);
      },
      onSet: (value: unknown) => {
        held.current.set(value);
      },
      onCommit: (text: string, dRow: number, dColumn: number) => {
        held.current.commit(text, dRow, dColumn);
      },
      onCancel: () => {
        held.current.cancel();
      },
    }),
    [],
  );
}

function Head({ columns }: { columns: readonly GridColumn[] }) {
  const units = useUnits();
  return (
    <thead>
      <tr className="text-left text-[11.5px] text-mute">
        <th className="w-7 border-b border-rule">
          <span className="sr-only">row</span>
        </th>
        {columns.map((column) => (
          <th
            key={column.key}
            scope="col"
            className={`border-b border-rule px-1 pb-0.5 align-bottom leading-tight font-normal ${column.kind === "number" ? "text-right" : column.kind === "flag" ? "text-center" : ""}`}
            style={column.width ? { width: column.width } : undefined}
          >
            {column.label}
            {column.kind === "number" && <span className="block">{units.unit(column.quantity)}</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}

/** An empty table takes a paste too: there is no cell yet to paste into. */
function EmptyPaste({ text, place, onPaste, onAdd }: { text: string; place: string; onPaste: (text: string) => void; onAdd: () => void }) {
  return (
    <p className="py-2 text-mute">
      {text}{" "}
      <input
        className="cell mt-1 border-rule!"
        aria-label="Paste a block from a spreadsheet"
        data-place={place}
        placeholder="paste a block from a spreadsheet here"
        value=""
        onChange={() => undefined}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || !(event.ctrlKey || event.metaKey)) return;
          event.preventDefault();
          onAdd();
        }}
        onPaste={(event) => {
          event.preventDefault();
          onPaste(event.clipboardData.getData("text/plain"));
        }}
      />
    </p>
  );
}

/** Faults of one row as text, so that an unchanged row is not drawn again. */
function faultsOf(faults: readonly Fault[], place: string, reference: Reference): string {
  return faults
    .filter((f) => f.path.startsWith(`${place}/`))
    .map((f) => {
      const key = f.path.slice(place.length + 1);
      return `${key}\t${reference.find(`${place}/${key}`)?.title ?? key}: ${f.value}; expected ${f.expected}`;
    })
    .join("\n");
}

function PasteFaults({ faults, table, onDismiss }: { faults: readonly Fault[]; table: string; onDismiss: () => void }) {
  const reference = useReference();
  return (
    <section role="alert" className="mt-2 border-l-[3px] border-brick bg-paper px-2 py-1.5 text-[12px]">
      <p className="font-semibold text-brick">Nothing was pasted.</p>
      <ul className="max-h-40 overflow-auto">
        {faults.map((fault) => (
          <li key={fault.path}>
            <span className="font-semibold">{reference.tableWords(fault.path, table)}</span>: {fault.value}; expected {fault.expected}.
          </li>
        ))}
      </ul>
      <Button className="mt-1" onClick={onDismiss}>
        Close
      </Button>
    </section>
  );
}

function ExportLink({ target }: { target: Target }) {
  const { session } = useBench();
  const save = useSnapshot("save");
  const units = useUnits();
  const ready = save === "saved";
  return (
    <a
      href={ready ? `/api/designs/${session.id}/tables/${target}?${units.query}` : undefined}
      aria-disabled={!ready}
      title={ready ? "This table as CSV, in the units shown" : "waits until the last edit is saved"}
      className={`inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol ${ready ? "" : "opacity-50"}`}
    >
      <Download size={13} aria-hidden /> CSV
    </a>
  );
}
