// What each element does on each thing that crosses the stack, section by section; a cell closes it in the drawing.
import { Fragment } from "react";
import type { StackRow, Words } from "../../design/types";
import { useUnits } from "../../ui/units";
import { MARKS } from "./closing";

interface CoverageProps {
  row: StackRow;
  across: number;
  onAcross: (row: number) => void;
  shut: number | null;
  onShut: (element: number | null) => void;
}

const LEGEND = [
  ["S", "seals"],
  ["SH", "seals and hangs"],
  ["XS", "shears and seals"],
  ["X", "shears only"],
  ["D", "diverts"],
  ["·", "neither"],
  ["?", "unknown"],
] as const;

export function Coverage({ row, across, onAcross, shut, onShut }: CoverageProps) {
  const units = useUnits();
  const elements = row.elements.map((e, index) => ({ e, index })).filter(({ e }) => e.kind !== "spool");
  return (
    <div>
      <table className="w-full border-collapse text-[12.5px]" aria-label="What closes on what">
        <thead>
          <tr className="text-[11px] text-mute">
            <th scope="col" className="border-b border-rule text-left align-bottom font-normal">
              Across the stack
            </th>
            {elements.map(({ e, index }) => (
              <th key={index} scope="col" className="h-28 w-9 border-b border-rule px-0.5 align-bottom font-normal">
                <span className="inline-block rotate-180 whitespace-nowrap [writing-mode:vertical-rl]">
                  {e.title} {units.words(e.fits as Words)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {row.coverage.map((cover, r) => {
            const when = units.words(cover.when as Words);
            const before = row.coverage[r - 1];
            const what = units.words(cover.what as Words);
            return (
              <Fragment key={r}>
                {(before === undefined || units.words(before.when as Words) !== when) && (
                  <tr>
                    <th scope="colgroup" colSpan={elements.length + 1} className="pt-2 text-left text-[11.5px] font-semibold">
                      {when.charAt(0).toUpperCase() + when.slice(1)}
                    </th>
                  </tr>
                )}
                <tr className={`border-b border-rule/60 ${r === across ? "bg-petrol/10" : ""}`}>
                  <th scope="row" className="py-0.5 text-left font-normal">
                    {what}
                  </th>
                  {elements.map(({ e, index }) => {
                    const cell = cover.cells[index]!;
                    const changed = cover.changed === index;
                    const on = r === across && shut === index;
                    return (
                      <td key={index} className="p-0 text-center">
                        <button
                          type="button"
                          className={`w-full py-0.5 ${on ? "font-semibold text-petrol underline" : ""} ${cell === "unknown" ? "text-gold-text" : ""}`}
                          aria-pressed={on}
                          title={`${changed ? `casing rams in the ${e.title}` : e.title}: ${cell}`}
                          onClick={() => {
                            onAcross(r);
                            onShut(on ? null : index);
                          }}
                        >
                          <span aria-hidden>
                            {MARKS[cell]}
                            {changed && "*"}
                          </span>
                          <span className="sr-only">{`${changed ? "casing rams" : e.title} on ${what}: ${cell}`}</span>
                        </button>
                      </td>
                    );
                  })}
                </tr>
              </Fragment>
            );
          })}
        </tbody>
      </table>
      <p className="mt-2 flex flex-wrap gap-x-3 text-[11.5px] text-mute">
        {LEGEND.map(([mark, text]) => (
          <span key={mark}>
            <b>{mark}</b> {text}
          </span>
        ))}
        {row.coverage.some((c) => c.changed != null) && (
          <span>
            <b>*</b> with casing rams rigged
          </span>
        )}
      </p>
    </div>
  );
}
