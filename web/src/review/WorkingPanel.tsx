// The working of a headline number: the formula calls that gave it, each with equation, inputs, result and source.
import { useQuery } from "@tanstack/react-query";
import { Copy, X } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { getWorking, listFormulas } from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { WorkingCall } from "../design/types";
import { Equation } from "../ui/Equation";
import { MathText } from "../ui/MathText";
import { useUnits } from "../ui/units";
import { isFieldUnit, numberText, unitText, workingText } from "./workingText";

export function WorkingPanel() {
  const { asked, ask } = useBench();
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const units = useUnits();
  const key = asked!.key;
  const { data, isError } = useQuery({
    queryKey: ["working", key, document],
    queryFn: () => getWorking(document, key),
    enabled: faults.length === 0,
    placeholderData: (previous, query) => (query?.queryKey[1] === key ? previous : undefined),
    retry: false,
    gcTime: 0,
  });
  const { data: formulas } = useQuery({ queryKey: ["formulas"], queryFn: listFormulas, staleTime: Infinity });
  const mathml = new Map(formulas?.map((f) => [f.name, f.mathml]));
  return (
    <section aria-label="Working" className="flex max-h-[48%] flex-col border-t border-rule">
      <h2 className="flex items-baseline gap-2 px-3 pt-2 pb-1 text-[14px] font-semibold">
        Working <span className="truncate text-[12px] font-normal text-mute">{asked!.title}</span>
        <button
          type="button"
          aria-label="Copy the working as text"
          title="Copy the working as text"
          className="ml-auto self-center text-mute hover:text-ink"
          disabled={!data}
          onClick={() => {
            void navigator.clipboard.writeText(workingText(asked!.title, data!.calls, units));
          }}
        >
          <Copy size={13} aria-hidden />
        </button>
        <button
          type="button"
          aria-label="Close the working"
          className="self-center text-mute hover:text-ink"
          onClick={() => {
            ask("", "");
          }}
        >
          <X size={14} aria-hidden />
        </button>
      </h2>
      {/* a region that scrolls must be reachable by keyboard */}
      <div className="min-h-0 overflow-y-auto px-3 pb-3" tabIndex={0} role="region" aria-label="Calls of the working">
        {isError && <p className="text-mute">This number is unknown with what is given, so it has no working.</p>}
        {data && !data.calls.every((call) => isFieldUnit(call, units)) && (
          <p className="text-[12px] text-mute">
            Numbers are in the units chosen; the constants of the equations are for ft, in, ppg, psi and bbl.
          </p>
        )}
        {data?.calls.map((call, i) => (
          <CallView key={i} call={call} mathml={mathml} />
        ))}
      </div>
    </section>
  );
}

type Equations = ReadonlyMap<string, string>;

function CallView({ call, mathml }: { call: WorkingCall; mathml: Equations }) {
  const units = useUnits();
  return (
    <div className="mt-2 border-l border-rule pl-2" data-formula={call.formula}>
      <p className="text-[12px] font-semibold">
        <Link to={`/formulas/${call.formula}`} className="hover:text-petrol" title="Open in the handbook">
          {call.title}
        </Link>
      </p>
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
