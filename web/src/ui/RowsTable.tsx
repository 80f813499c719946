// An editable table of rows of the document: type over any cell, add and remove rows, sorted by depth at commit.
import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { useBench, useSnapshot } from "../design/context";
import { read } from "../design/pointer";
import type { Quantity } from "../design/types";
import { Button } from "./Button";
import { Check, Choice, NumberField, TextField } from "./Field";
import { useUnits } from "./units";

type Row = Record<string, unknown>;

export type Column = {
  key: string;
  label: string;
  width?: string;
} & (
  | { kind: "number"; quantity: Quantity }
  | { kind: "text" }
  | { kind: "check" }
  | { kind: "choice"; options: readonly string[] }
  | { kind: "flag"; flag: string }
);

interface RowsTableProps {
  title: string;
  path: string;
  columns: readonly Column[];
  sortBy: string;
  newRow: (rows: readonly Row[]) => Row;
  least?: number;
  empty: string;
}

export function RowsTable({ title, path, columns, sortBy, newRow, least = 0, empty }: RowsTableProps) {
  const { session } = useBench();
  const { document } = useSnapshot();
  const units = useUnits();
  const rows = (read(document, path) ?? []) as Row[];

  const write = (next: Row[]) => {
    const sorted = [...next].sort((a, b) => Number(a[sortBy]) - Number(b[sortBy]));
    session.edit([{ path, value: sorted }]);
  };
  const set = (index: number, key: string, value: unknown) => {
    write(rows.map((row, i) => (i === index ? { ...row, [key]: value } : row)));
  };

  return (
    <div>
      <table className="w-full border-collapse text-[12.5px]" aria-label={title}>
        <thead>
          <tr className="text-left text-[11.5px] text-mute">
            {columns.map((column) => (
              <th
                key={`${column.key}${column.label}`}
                className={`border-b border-rule px-1 pb-0.5 align-bottom font-normal ${column.kind === "number" ? "text-right" : ""}`}
                style={column.width ? { width: column.width } : undefined}
              >
                {column.label}
                {column.kind === "number" && <span className="block">{units.unit(column.quantity)}</span>}
              </th>
            ))}
            <th className="w-6 border-b border-rule">
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <tr key={index} className="border-b border-rule/60 align-top">
              {columns.map((column) => (
                <td key={`${column.key}${column.label}`} className={column.kind === "check" || column.kind === "flag" ? "pt-1 text-center" : ""}>
                  {cell(column, row, `${title} ${index + 1}`, `${path}/${index}/${column.key}`, (value) => {
                    set(index, column.key, value);
                  })}
                </td>
              ))}
              <td className="pt-0.5 text-right">
                <button
                  type="button"
                  className="text-mute hover:text-brick disabled:opacity-30"
                  aria-label={`Remove ${title} ${index + 1}`}
                  disabled={rows.length <= least}
                  onClick={() => {
                    write(rows.filter((_, i) => i !== index));
                  }}
                >
                  <Trash2 size={13} aria-hidden />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="py-2 text-mute">{empty}</p>}
      <Button
        className="mt-2"
        onClick={() => {
          write([...rows, newRow(rows)]);
        }}
      >
        <Plus size={13} aria-hidden /> Add
      </Button>
    </div>
  );
}

function cell(column: Column, row: Row, row_label: string, place: string, commit: (value: unknown) => void): ReactNode {
  const label = `${row_label}, ${column.label}`;
  const value = row[column.key];
  switch (column.kind) {
    case "number":
      return <NumberField label={label} place={place} quantity={column.quantity} value={value as number} onCommit={commit} />;
    case "text":
      return <TextField label={label} place={place} value={String(value ?? "")} onCommit={commit} />;
    case "check":
      return <Check label={label} place={place} checked={Boolean(value)} onCommit={commit} />;
    case "choice":
      return (
        <Choice
          label={label}
          place={place}
          value={String(value)}
          options={column.options.map((o) => ({ value: o, text: o }))}
          onCommit={commit}
        />
      );
    case "flag": {
      const flags = (value ?? []) as string[];
      return (
        <Check
          label={label}
          place={place}
          checked={flags.includes(column.flag)}
          onCommit={(checked) => {
            commit(checked ? [...flags, column.flag] : flags.filter((f) => f !== column.flag));
          }}
        />
      );
    }
  }
}
