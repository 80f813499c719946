// An editable table of rows of the document, worked like a spreadsheet: move, select, type, cut, copy, paste, fill, insert and
// remove; sorted by depth whenever something is put in. What cannot be read is said at its row and changes nothing.
import { Plus, Trash2, Upload } from "lucide-react";
import { lazy, Suspense, useMemo, useRef, useState } from "react";
import { adoption, useBench, useSnapshot } from "../../design/context";
import { read } from "../../design/pointer";
import { useReference } from "../../design/reference";
import type { Target } from "../../design/types";
import { Button } from "../Button";
import { useUnits } from "../units";
import type { ColumnSpec, Row, Told } from "./columns";
import { columnsOf } from "./columns";
import { useContentWidths } from "./contentWidths";
import { FactNote } from "./FactNote";
import { GridBody } from "./GridBody";
import { GridHead } from "./GridHead";
import { onGridKey } from "./gridKeys";
import { GridMenu } from "./GridMenu";
import { EmptyPaste, ExportLink, PasteFaults } from "./GridNotes";
import { useCellDrag } from "./useCellDrag";
import type { NewRow } from "./useGrid";
import { useFactRows } from "./useFactRows";
import { useGrid } from "./useGrid";
import { useWidths } from "./useWidths";

const ImportDialog = lazy(() => import("../../imports/ImportDialog").then((m) => ({ default: m.ImportDialog })));

interface GridProps {
  title: string;
  /** What the table is to the server: for pasting, importing and exporting. */
  target: Target;
  path: string;
  columns: readonly ColumnSpec[];
  /** Key by which rows stand in order; null where their order is decided and no edit changes it. */
  sortBy: string | null;
  /** In a table whose order is decided, the key of a row's depth. */
  depthKey?: string;
  newRow: NewRow;
  /** Where a new row goes, when not to the end. */
  insertAt?: (rows: readonly Row[]) => number;
  least?: number;
  empty: string;
  className?: string;
  /** Rows in place of the document's: a proposal, which the first edit decides. */
  rows?: readonly Row[];
  /** Columns after those of the row, with what follows of it. */
  told?: readonly Told[];
  /** The rows given were made up: a pasted block takes their place. */
  made?: boolean;
  /** Rows may be moved among each other. */
  movable?: boolean;
  /** Further columns of a table that stands before it, which tells what is wrong with the others. */
  second?: boolean;
}

const NONE: readonly Told[] = [];
/** Rows from which what is done with the table stands over it. */
const LONG = 40;

export function Grid({
  title,
  target,
  path,
  columns: specs,
  empty,
  className = "",
  rows: given,
  told = NONE,
  movable = false,
  second = false,
  made = false,
  least = 0,
  ...order
}: GridProps) {
  const { session } = useBench();
  const document = useSnapshot("document");
  const units = useUnits();
  const reference = useReference();
  // specs are written where the table stands: alike in words is alike
  const asked = JSON.stringify(specs);
  const columns = useMemo(() => columnsOf(reference, path, JSON.parse(asked) as ColumnSpec[]), [reference, path, asked]);
  const [importing, setImporting] = useState<{ pasted: string | null } | null>(null);
  const drilled = useFactRows(path);
  const [refused, setRefused] = useState(false);
  const rows = drilled?.rows ?? given ?? ((read(document, path) ?? []) as Row[]);
  const table = useRef<HTMLTableElement>(null);
  const grid = useGrid({
    table,
    target,
    path,
    rows,
    columns,
    least,
    sortBy: order.sortBy,
    depthKey: order.depthKey,
    newRow: order.newRow,
    insertAt: order.insertAt,
    movable,
    replaced: made,
    write: (next) => {
      if (drilled !== null) {
        setRefused(true);
        return;
      }
      const { document: now, evaluation } = session.snapshot();
      const adopted = path.startsWith("/strings/") ? adoption(now, evaluation) : [];
      session.edit([...adopted, { path, value: next }]);
    },
    onUnclear: (text) => {
      setImporting({ pasted: text });
    },
  });
  const sizes = useWidths(title);
  const content = useContentWidths(rows, columns, units, className.includes("font-narrow"));
  const dragged = Object.keys(sizes.widths).length > 0;
  const drag = useCellDrag(grid);
  const { from, to } = grid.span;
  const busy = grid.editing !== null;
  const long = rows.length > LONG;
  // further columns of a table that stands before it have its tools
  const tools =
    second || drilled !== null ? null : (
      <div className={`flex flex-wrap gap-1.5 ${long ? "mb-2" : "mt-2"}`}>
        <Button onClick={grid.add} title="Ctrl Enter">
          <Plus size={13} aria-hidden /> Add
        </Button>
        <Button onClick={grid.remove} title="Ctrl Delete" disabled={!grid.mayRemove}>
          <Trash2 size={13} aria-hidden /> Remove{" "}
          {rows.length > 0 && (to.row > from.row ? `rows ${from.row + 1} to ${to.row + 1}` : `row ${from.row + 1}`)}
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
    );
  return (
    <div className={className}>
      {drilled !== null && !second && <FactNote fact={drilled.fact} refused={refused} />}
      {long && tools}
      {grid.pasteFaults.length > 0 && <PasteFaults faults={grid.pasteFaults} table={path} onDismiss={grid.dismiss} />}
      <GridMenu grid={grid} rowCount={rows.length}>
        <table
          ref={table}
          role="grid"
          aria-label={title}
          aria-rowcount={rows.length + 1}
          aria-colcount={columns.length + told.length + 1}
          aria-multiselectable
          className="w-full table-fixed border-collapse text-[12.5px]"
          style={{ minWidth: dragged ? undefined : content.leastPx + told.reduce((sum, t) => sum + t.px, 0) }}
          onKeyDown={(event) => {
            onGridKey(event, { grid, rows, columns, units, table, sizes });
          }}
          onCopy={(event) => {
            if (busy || rows.length === 0) return;
            event.preventDefault();
            event.clipboardData.setData("text/plain", grid.copied());
          }}
          onCut={(event) => {
            if (busy || rows.length === 0) return;
            event.preventDefault();
            event.clipboardData.setData("text/plain", grid.copied());
            grid.cut();
          }}
          onPaste={(event) => {
            const text = event.clipboardData.getData("text/plain");
            if (busy && !/[\t\n]/.test(text)) return;
            event.preventDefault();
            void grid.paste(text);
          }}
          {...drag}
        >
          <GridHead
            table={table}
            columns={columns}
            told={told}
            content={content.widths}
            sizes={sizes}
            onColumn={grid.selectColumns}
            onAll={grid.selectAll}
          />
          <GridBody table={table} title={title} path={path} rows={rows} columns={columns} told={told} grid={grid} second={second} />
        </table>
      </GridMenu>
      <p role="status" className="sr-only">
        {from.row !== to.row || from.column !== to.column
          ? `${to.row - from.row + 1} rows by ${to.column - from.column + 1} columns selected`
          : ""}
      </p>
      {rows.length === 0 && drilled === null && (
        <EmptyPaste text={empty} place={path} onPaste={(text) => void grid.paste(text)} onAdd={grid.add} />
      )}
      {!long && tools}
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
