// A table with one row a string: the common frame of the steps that work string by string.
import type { ReactNode } from "react";
import { useBench, useSnapshot } from "../design/context";
import type { StringResult } from "../design/types";
import { Term } from "./Term";
import { useUnits } from "./units";

export interface StringColumn {
  label: string;
  unit?: string;
  left?: boolean;
  width?: string;
  cell: (string: StringResult, index: number) => ReactNode;
}

export function StringsTable({ title, columns }: { title: string; columns: readonly StringColumn[] }) {
  const evaluation = useSnapshot("evaluation");
  const { selected, select } = useBench();
  const units = useUnits();
  return (
    <table className="w-full border-collapse text-[12.5px]" aria-label={title}>
      <thead>
        <tr className="text-[11.5px] text-mute">
          <th className="border-b border-rule px-1 text-left align-bottom font-normal">String</th>
          {columns.map((column) => (
            <th
              key={column.label}
              style={column.width ? { width: column.width } : undefined}
              className={`border-b border-rule px-1 align-bottom font-normal ${column.left ? "text-left" : "text-right"}`}
            >
              <Term>{column.label}</Term>
              <span className="block min-h-4">{column.unit ?? ""}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {evaluation?.strings.map((string, index) => (
          <tr
            key={index}
            className={`border-b border-rule/60 align-middle ${index === selected ? "bg-petrol/8" : ""}`}
            onFocus={() => {
              select(index);
            }}
          >
            <th
              scope="row"
              className={`border-l-[3px] px-1.5 py-0.5 text-left font-normal ${index === selected ? "border-petrol" : "border-transparent"}`}
            >
              <button
                type="button"
                className="text-left font-semibold hover:text-petrol"
                onClick={() => {
                  select(index);
                }}
              >
                {string.od_in === null ? string.role : units.text(string.od_in, "size")}
              </button>
              <span className="block text-[11.5px] text-mute">{string.name || string.role}</span>
            </th>
            {columns.map((column) => (
              <td key={column.label} className={`px-1 py-0.5 ${column.left ? "text-left" : "text-right"}`}>
                {column.cell(string, index)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A value where one is expected; a dash where none applies. */
export function Value({ children, applies = true }: { children: ReactNode; applies?: boolean }) {
  return applies ? <>{children}</> : <span className="text-mute">–</span>;
}
