// Formula calls as told: each with equation, inputs, result and source; one formula many times over as a table.
import { useState } from "react";
import { Link } from "react-router";
import type { WorkingCall } from "../design/types";
import { Equation } from "../ui/Equation";
import { MathText } from "../ui/MathText";
import { useUnits } from "../ui/units";
import { CallSeries } from "./CallSeries";
import { numberText, unitText } from "./workingText";

export type Equations = ReadonlyMap<string, string>;

/** So many calls of one formula are read as a table. */
const MANY = 6;

/** A march goes over hundreds of spans by the same few formulas: each of them stands where it is first called. */
export function Calls({ calls, mathml }: { calls: readonly WorkingCall[]; mathml: Equations }) {
  const byFormula = new Map<string, WorkingCall[]>();
  for (const call of calls) byFormula.set(call.formula, [...(byFormula.get(call.formula) ?? []), call]);
  const isSeries = (call: WorkingCall) => byFormula.get(call.formula)!.length >= MANY;
  return calls.map((call, i) => {
    if (!isSeries(call)) return <CallView key={i} call={call} mathml={mathml} />;
    const series = byFormula.get(call.formula)!;
    return series[0] === call ? <CallSeries key={i} calls={series} mathml={mathml} /> : null;
  });
}

export function CallTitle({ call }: { call: WorkingCall }) {
  return (
    <p className="text-[12px] font-semibold">
      <Link to={`/formulas/${call.formula}`} className="hover:text-petrol" title="Open in the handbook">
        {call.title}
      </Link>
    </p>
  );
}

export function CallView({ call, mathml }: { call: WorkingCall; mathml: Equations }) {
  const units = useUnits();
  return (
    <div className="mt-2 border-l border-rule pl-2" data-formula={call.formula}>
      <CallTitle call={call} />
      {call.calls.map((inner, i) => (
        <CallView key={i} call={inner} mathml={mathml} />
      ))}
      <Equation symbolic={call.symbolic} mathml={mathml.get(call.formula)} className="py-0.5 text-[13px]" />
      <table className="w-full text-[12px]">
        <tbody>
          {call.inputs.map((input) => (
            <InputRow key={input.name} input={input} mathml={mathml} />
          ))}
          {call.outputs.map((output) => (
            <tr key={output.name} className="border-t border-rule font-semibold">
              <th scope="row" className="text-left">
                {call.outputs.length > 1 ? output.name.replaceAll("_", " ") : "result"}
              </th>
              <td className="pl-2 text-right">{numberText(output, units)}</td>
              <td className="w-12 pl-1 font-normal text-mute">{unitText(output, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[11px] leading-snug text-mute">{call.source}</p>
    </div>
  );
}

/** One input; where it is itself a result, it opens into the call that gave it. */
function InputRow({ input, mathml }: { input: WorkingCall["inputs"][number]; mathml: Equations }) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const number = numberText(input, units);
  return (
    <>
      <tr>
        <th scope="row" className="text-left font-normal text-mute">
          {input.meaning}{" "}
          <span className="font-narrow text-ink">
            <MathText text={input.symbol} />
          </span>
        </th>
        <td className="pl-2 text-right align-bottom">
          {input.source ? (
            <button
              type="button"
              className="underline decoration-mute decoration-dotted underline-offset-2 hover:text-petrol"
              aria-expanded={open}
              title={`Where it comes from: ${input.source.title}`}
              onClick={() => {
                setOpen(!open);
              }}
            >
              {number}
            </button>
          ) : (
            number
          )}
        </td>
        <td className="w-12 pl-1 align-bottom text-mute">{unitText(input, units)}</td>
      </tr>
      {open && input.source && (
        <tr>
          <td colSpan={3} className="pb-1.5 pl-1">
            <CallView call={input.source} mathml={mathml} />
          </td>
        </tr>
      )}
    </>
  );
}
