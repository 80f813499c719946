// The head of an editable table: a press on it selects the column, on the corner everything; its edges are dragged.
import type { PointerEvent, RefObject } from "react";
import { useUnits } from "../units";
import type { GridColumn, Told } from "./columns";
import type { ColumnWidths } from "./useWidths";
import { drawnWidths, LEAST_PX } from "./useWidths";

interface GridHeadProps {
  table: RefObject<HTMLTableElement | null>;
  columns: readonly GridColumn[];
  told: readonly Told[];
  /** What each column needs for what stands in it; a column that is not fixed takes the rest. */
  content: readonly { px: number; fixed: boolean }[];
  sizes: ColumnWidths;
  onColumn: (column: number, extend: boolean) => void;
  onAll: () => void;
}

export function GridHead({ table, columns, told, content, sizes, onColumn, onAll }: GridHeadProps) {
  const units = useUnits();
  return (
    <thead>
      <tr role="row" aria-rowindex={1} className="text-left text-[11.5px] text-mute">
        <th
          className="sticky top-0 z-[5] w-7 cursor-cell border-b border-rule bg-paper"
          title="Select all (Ctrl A)"
          onMouseDown={(event) => {
            event.preventDefault();
            onAll();
          }}
        >
          <span className="sr-only">row</span>
        </th>
        {columns.map((column, k) => (
          <th
            key={column.key}
            scope="col"
            role="columnheader"
            aria-colindex={k + 2}
            data-column={column.key}
            className={`sticky top-0 z-[5] cursor-cell border-b bg-paper border-rule px-1 pb-0.5 align-bottom leading-tight font-normal ${column.kind === "number" ? "text-right" : column.kind === "flag" ? "text-center" : ""}`}
            style={{ width: sizes.widths[column.key] ?? (content[k]!.fixed ? content[k]!.px : undefined) }}
            onMouseDown={(event) => {
              if (event.button !== 0) return;
              event.preventDefault();
              onColumn(k, event.shiftKey);
            }}
          >
            <span title={column.hint || undefined}>{column.label}</span>
            {column.kind === "number" && <span className="block">{units.unit(column.quantity)}</span>}
            <Edge table={table} column={column.key} sizes={sizes} />
          </th>
        ))}
        {told.map((column, k) => (
          <th
            key={column.label}
            scope="col"
            role="columnheader"
            aria-colindex={columns.length + k + 2}
            className={`sticky top-0 z-[5] border-b border-rule bg-paper px-1 pb-0.5 align-bottom leading-tight font-normal ${column.left ? "text-left" : "text-right"}`}
            style={{ width: column.px }}
          >
            {column.label}
            {column.unit !== "" && <span className="block">{column.unit}</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}

/** The right edge of a column: dragged to a width, double clicked back to the shared one. */
function Edge({ table, column, sizes }: { table: RefObject<HTMLTableElement | null>; column: string; sizes: ColumnWidths }) {
  const start = (event: PointerEvent<HTMLSpanElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const handle = event.currentTarget;
    const from = event.clientX;
    const now = drawnWidths(table.current!);
    let wanted = now;
    handle.setPointerCapture(event.pointerId);
    handle.onpointermove = (moved) => {
      wanted = { ...now, [column]: Math.max(LEAST_PX, now[column]! + moved.clientX - from) };
      sizes.drag(wanted);
    };
    handle.onpointerup = handle.onpointercancel = () => {
      handle.onpointermove = handle.onpointerup = handle.onpointercancel = null;
      if (wanted !== now) sizes.keep(wanted);
    };
  };
  return (
    <span
      aria-hidden
      data-edge={column}
      title="Drag to the width wanted; double click shares the room again"
      className="absolute top-0 right-0 h-full w-1.5 cursor-col-resize touch-none hover:bg-petrol/30"
      onPointerDown={start}
      onMouseDown={(event) => {
        event.stopPropagation();
      }}
      onDoubleClick={sizes.reset}
    />
  );
}
