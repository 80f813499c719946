// One row of an editable table. Memoised: moving the cursor redraws only the rows it leaves and enters.
import { memo, useEffect, useRef } from "react";
import type { Units } from "../units";
import type { GridColumn, Row } from "./columns";
import { cellText, valueOf } from "./columns";
import type { Refused } from "./useGrid";

interface GridRowProps {
  row: Row;
  index: number;
  columns: readonly GridColumn[];
  /** What follows of the row, cell by cell, each with the side it stands on. */
  told: string;
  units: Units;
  title: string;
  place: string;
  /** Column of the cursor when it is in this row. */
  cursor: number | null;
  /** Selected columns, first and last; null when the row is outside the selection. */
  selectedFrom: number | null;
  selectedTo: number | null;
  editing: string | null;
  refused: Refused | null;
  /** Faults of the document in this row, by column key. */
  faults: string;
  onEdit: (text: string) => void;
  onSet: (value: unknown) => void;
  onCommit: (text: string, dRow: number, dColumn: number) => void;
  onCancel: () => void;
}

export const GridRow = memo(function GridRow(props: GridRowProps) {
  const { row, index, columns, units, title, place, cursor, refused, faults } = props;
  const faultOf = new Map((faults === "" ? [] : faults.split("\n")).map((line) => line.split("\t") as [string, string]));
  const messages = [...faultOf.values()];
  if (refused) messages.push(`${columns[refused.column]!.label}: "${refused.text}"; expected ${refused.expected}`);
  const messageId = `${place}/${index}`.replaceAll("/", "-");
  return (
    <>
      <tr className="border-b border-rule/60" aria-rowindex={index + 2}>
        <th
          scope="row"
          data-row={index}
          className={`w-7 cursor-cell pr-1 text-right align-top font-narrow text-[11px] font-normal ${props.selectedFrom === null ? "text-mute" : "font-semibold text-petrol"}`}
        >
          {index + 1}
        </th>
        {columns.map((column, k) => {
          const here = cursor === k;
          const wrong = faultOf.has(column.key) || refused?.column === k;
          const selected = props.selectedFrom !== null && k >= props.selectedFrom && k <= props.selectedTo!;
          const text = refused?.column === k ? refused.text : cellText(row, column, units);
          return (
            <td
              key={column.key}
              role="gridcell"
              aria-colindex={k + 2}
              tabIndex={here ? 0 : -1}
              aria-label={`${title} ${index + 1}, ${column.label}: ${text || "empty"}`}
              aria-selected={selected}
              aria-invalid={wrong || undefined}
              aria-describedby={wrong ? messageId : undefined}
              data-cell={`${index}:${k}`}
              data-place={`${place}/${index}/${column.key.split(":")[0]}`}
              data-text={text}
              className={`grid-cell ${column.kind === "number" ? "text-right" : column.kind === "flag" ? "text-center" : ""} ${selected ? "bg-petrol/10" : ""} ${wrong ? "text-brick" : ""}`}
              onMouseDown={(event) => {
                // the first press selects a flag, the next turns it
                if (column.kind === "flag" && here && event.button === 0 && !event.shiftKey) props.onSet(!valueOf(row, column));
              }}
              onDoubleClick={() => {
                if (column.kind !== "flag") props.onEdit(cellText(row, column, units));
              }}
            >
              {here && props.editing !== null ? (
                <CellEditor
                  column={column}
                  first={props.editing}
                  label={`${title} ${index + 1}, ${column.label}`}
                  onCommit={props.onCommit}
                  onCancel={props.onCancel}
                />
              ) : column.kind === "flag" ? (
                <span aria-hidden className={text === "yes" ? "font-semibold text-petrol" : "text-mute"}>
                  {text === "yes" ? "✓" : "·"}
                </span>
              ) : (
                text || <span aria-hidden>&nbsp;</span>
              )}
            </td>
          );
        })}
        {(props.told === "" ? [] : props.told.split("\t")).map((cell, k) => (
          <td
            key={k}
            role="gridcell"
            aria-colindex={columns.length + k + 2}
            className={`truncate px-1 text-mute ${cell.startsWith("l") ? "text-left" : "text-right"}`}
            title={cell.startsWith("l") ? cell.slice(1) : undefined}
          >
            {cell.slice(1)}
          </td>
        ))}
      </tr>
      {messages.length > 0 && (
        <tr>
          <td colSpan={columns.length + 1 + props.told.split("\t").length} id={messageId} className="px-1 pb-1 text-xs text-brick">
            <span role="alert">
              Row {index + 1}. {messages.join(". ")}.
            </span>
          </td>
        </tr>
      )}
    </>
  );
});

interface CellEditorProps {
  column: GridColumn;
  first: string;
  label: string;
  onCommit: GridRowProps["onCommit"];
  onCancel: () => void;
}

function CellEditor({ column, first, label, onCommit, onCancel }: CellEditorProps) {
  const field = useRef<HTMLInputElement & HTMLSelectElement>(null);
  const done = useRef(false);
  useEffect(() => {
    field.current!.focus();
  }, []);
  const finish = (act: () => void) => {
    if (done.current) return;
    done.current = true;
    act();
  };
  const shared = {
    ref: field,
    defaultValue: first,
    "aria-label": label,
    className: `w-full min-w-0 bg-sheet px-0.5 outline-none ${column.kind === "number" ? "text-right" : ""}`,
    onBlur: (event: { currentTarget: { value: string } }) => {
      const { value } = event.currentTarget;
      finish(() => {
        onCommit(value, 0, 0);
      });
    },
    onKeyDown: (event: React.KeyboardEvent<HTMLInputElement | HTMLSelectElement>) => {
      const { value } = event.currentTarget;
      if (event.key === "Enter")
        finish(() => {
          onCommit(value, event.shiftKey ? -1 : 1, 0);
        });
      else if (event.key === "Tab")
        finish(() => {
          onCommit(value, 0, event.shiftKey ? -1 : 1);
        });
      else if (event.key === "Escape") finish(onCancel);
      else return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
  if (column.kind === "choice") {
    const list = `${label}-options`.replaceAll(/\W+/g, "-");
    return (
      <>
        <input
          {...shared}
          defaultValue={first.length === 1 ? first : ""}
          placeholder={first}
          data-typing="true"
          maxLength={60}
          list={list}
          autoComplete="off"
        />
        <datalist id={list}>
          {column.options.map((option) => (
            <option key={option} value={column.words?.[option] ?? option} />
          ))}
        </datalist>
      </>
    );
  }
  return <input {...shared} data-typing="true" />;
}
