// A plain table of what follows: heads with their units, rows of cells, the first of each its name.
import type { ReactNode } from "react";

export interface Head {
  title: string;
  unit?: string;
  left?: boolean;
}

interface FactsProps {
  label: string;
  heads: readonly Head[];
  rows: readonly (readonly ReactNode[])[];
  /** Rows that are marked, with why. */
  bad?: (row: number) => boolean;
}

export function Facts({ label, heads, rows, bad }: FactsProps) {
  return (
    <table className="w-full border-collapse text-[12.5px]" aria-label={label}>
      <thead>
        <tr className="text-[11.5px] text-mute">
          {heads.map(({ title, unit, left }, i) => (
            <th
              key={title}
              scope="col"
              className={`border-b border-rule py-0.5 align-bottom font-normal ${i === 0 ? "pr-1 text-left" : left ? "pr-1 pl-2 text-left" : "pl-2 text-right"}`}
            >
              {title}
              {unit !== undefined && unit !== "" && `, ${unit}`}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr key={r} className={`border-b border-rule/60 align-baseline ${bad?.(r) ? "text-brick" : ""}`}>
            {row.map((cell, i) =>
              i === 0 ? (
                <th key={i} scope="row" className="py-0.5 pr-1 text-left font-normal">
                  {cell}
                </th>
              ) : (
                <td key={i} className={`py-0.5 ${heads[i]!.left ? "pr-1 pl-2 text-left" : "pl-2 text-right whitespace-nowrap"}`}>
                  {cell}
                </td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
