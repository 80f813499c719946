// The working of a headline number: the formula calls that gave it, each with equation, inputs, result and source.
import { useQuery } from "@tanstack/react-query";
import { Copy, X } from "lucide-react";
import { Link } from "react-router";
import { getWorking, listFormulas } from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { WorkingStep } from "../design/types";
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
            void navigator.clipboard.writeText(workingText(asked!.title, data!.steps, units));
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
      <div className="min-h-0 overflow-y-auto px-3 pb-3" tabIndex={0} role="region" aria-label="Steps of the working">
        {isError && <p className="text-mute">This number is unknown with what is given, so it has no working.</p>}
        {data && !data.steps.every((step) => isFieldUnit(step, units)) && (
          <p className="text-[12px] text-mute">Numbers are in the units chosen; the constants of the equations are for ft, in, ppg, psi and bbl.</p>
        )}
        {data?.steps.map((step, i) => (
          <StepView key={i} step={step} mathml={mathml} />
        ))}
      </div>
    </section>
  );
}

function StepView({ step, mathml }: { step: WorkingStep; mathml: ReadonlyMap<string, string> }) {
  const units = useUnits();
  return (
    <div className="mt-2 border-l border-rule pl-2" data-formula={step.formula}>
      <p className="text-[12px] font-semibold">
        <Link to={`/formulas/${step.formula}`} className="hover:text-petrol" title="Open in the handbook">
          {step.title}
        </Link>
      </p>
      {step.steps.map((inner, i) => (
        <StepView key={i} step={inner} mathml={mathml} />
      ))}
      <Equation symbolic={step.symbolic} mathml={mathml.get(step.formula)} className="py-0.5 text-[13px]" />
      <table className="w-full text-[12px]">
        <tbody>
          {step.inputs.map((input) => (
            <tr key={input.name}>
              <th scope="row" className="text-left font-normal text-mute">
                {input.meaning}{" "}
                <span className="font-narrow text-ink">
                  <MathText text={input.symbol} />
                </span>
              </th>
              <td className="pl-2 text-right align-bottom">{numberText(input, units)}</td>
              <td className="w-12 pl-1 align-bottom text-mute">{unitText(input, units)}</td>
            </tr>
          ))}
          {step.outputs.map((output) => (
            <tr key={output.name} className="border-t border-rule font-semibold">
              <th scope="row" className="text-left">
                {step.outputs.length > 1 ? output.name.replaceAll("_", " ") : "result"}
              </th>
              <td className="pl-2 text-right">{numberText(output, units)}</td>
              <td className="w-12 pl-1 font-normal text-mute">{unitText(output, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[11px] leading-snug text-mute">{step.source}</p>
    </div>
  );
}
