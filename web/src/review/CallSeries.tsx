// One formula called many times in a row, as a march calls it: its equation once, then a line for each call.
import { useState } from "react";
import type { WorkingCall } from "../design/types";
import { Equation } from "../ui/Equation";
import { MathText } from "../ui/MathText";
import { useUnits } from "../ui/units";
import { type Equations, CallTitle, CallView } from "./Calls";
import { numberText, unitText } from "./workingText";

export function CallSeries({ calls, mathml }: { calls: readonly WorkingCall[]; mathml: Equations }) {
  const units = useUnits();
  const [open, setOpen] = useState<number | null>(null);
  const first = calls[0]!;
  return (
    <div className="mt-2 border-l border-rule pl-2" data-formula={first.formula}>
      <CallTitle call={first} />
      <Equation symbolic={first.symbolic} mathml={mathml.get(first.formula)} className="py-0.5 text-[13px]" />
      <div className="max-h-52 overflow-auto" tabIndex={0} role="region" aria-label={`${first.title}, ${calls.length} times`}>
        <table className="w-full font-narrow text-[11.5px] tabular-nums">
          <thead className="sticky top-0 bg-sheet text-mute">
            <tr className="border-b border-rule">
              <th scope="col" className="pr-1 text-left font-normal">
                No.
              </th>
              {first.inputs.map((input) => (
                <th key={input.name} scope="col" className="pl-1.5 text-right font-normal" title={input.meaning}>
                  <span className="text-ink">
                    <MathText text={input.symbol} />
                  </span>
                  <br />
                  {unitText(input, units)}
                </th>
              ))}
              {first.outputs.map((output) => (
                <th key={output.name} scope="col" className="pl-1.5 text-right font-semibold">
                  {first.outputs.length > 1 ? output.name.replaceAll("_", " ") : "result"}
                  <br />
                  <span className="font-normal">{unitText(output, units)}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {calls.map((call, i) => (
              <tr key={i} className={i === open ? "bg-petrol/10" : ""}>
                <th scope="row" className="pr-1 text-left font-normal">
                  <button
                    type="button"
                    className="min-w-6 text-left underline decoration-mute decoration-dotted underline-offset-2 hover:text-petrol"
                    aria-pressed={i === open}
                    title="Show this one in full"
                    onClick={() => {
                      setOpen(i === open ? null : i);
                    }}
                  >
                    {i + 1}
                  </button>
                </th>
                {call.inputs.map((input) => (
                  <td key={input.name} className="pl-1.5 text-right whitespace-nowrap">
                    {numberText(input, units)}
                  </td>
                ))}
                {call.outputs.map((output) => (
                  <td key={output.name} className="pl-1.5 text-right font-semibold whitespace-nowrap">
                    {numberText(output, units)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {open !== null && calls[open] ? (
        <CallView call={calls[open]} mathml={mathml} />
      ) : (
        <p className="text-[11px] leading-snug text-mute">
          {first.inputs.map((input) => (
            <span key={input.name}>
              <MathText text={input.symbol} /> {input.meaning};{" "}
            </span>
          ))}
          {first.source}
        </p>
      )}
    </div>
  );
}
