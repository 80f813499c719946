// The working of a headline number: the formula calls that gave it, each with equation, inputs, result and source.
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Link } from "react-router";
import { getWorking } from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import { MathText } from "../ui/MathText";
import type { WorkingStep } from "../design/types";

export function WorkingPanel() {
  const { asked, ask } = useBench();
  const { document, faults } = useSnapshot();
  const key = asked!.key;
  const { data, isError } = useQuery({
    queryKey: ["working", key, document],
    queryFn: () => getWorking(document, key),
    enabled: faults.length === 0,
    placeholderData: (previous, query) => (query?.queryKey[1] === key ? previous : undefined),
    retry: false,
    gcTime: 0,
  });
  return (
    <section aria-label="Working" className="flex max-h-[48%] flex-col border-t border-rule">
      <h2 className="flex items-baseline gap-2 px-3 pt-2 pb-1 text-[14px] font-semibold">
        Working <span className="truncate text-[12px] font-normal text-mute">{asked!.title}</span>
        <button
          type="button"
          aria-label="Close the working"
          className="ml-auto self-center text-mute hover:text-ink"
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
        {data?.steps.map((step, i) => (
          <StepView key={i} step={step} />
        ))}
      </div>
    </section>
  );
}

function number(value: number | number[] | null): string {
  if (value === null) return "unknown";
  if (Array.isArray(value)) return value.map((v) => number(v)).join("; ");
  if (value === 0) return "0";
  const size = Math.abs(value);
  const digits = size >= 1000 ? 1 : size >= 100 ? 2 : size >= 1 ? 3 : 5;
  return value.toLocaleString("en-US", { maximumFractionDigits: digits });
}

function StepView({ step }: { step: WorkingStep }) {
  return (
    <div className="mt-2 border-l border-rule pl-2" data-formula={step.formula}>
      <p className="text-[12px] font-semibold">
        <Link to={`/formulas/${step.formula}`} className="hover:text-petrol" title="Open in the handbook">
          {step.title}
        </Link>
      </p>
      {step.steps.map((inner, i) => (
        <StepView key={i} step={inner} />
      ))}
      <p className="py-0.5 font-narrow text-[12.5px] break-words"><MathText text={step.symbolic} /></p>
      <table className="w-full text-[12px]">
        <tbody>
          {step.inputs.map((input) => (
            <tr key={input.name}>
              <th scope="row" className="text-left font-normal text-mute">
                {input.meaning} <span className="font-narrow text-ink"><MathText text={input.symbol} /></span>
              </th>
              <td className="pl-2 text-right align-bottom">{number(input.value)}</td>
              <td className="w-12 pl-1 align-bottom text-mute">{input.unit}</td>
            </tr>
          ))}
          {step.outputs.map((output) => (
            <tr key={output.name} className="border-t border-rule font-semibold">
              <th scope="row" className="text-left">
                {step.outputs.length > 1 ? output.name.replaceAll("_", " ") : "result"}
              </th>
              <td className="pl-2 text-right">{number(output.value)}</td>
              <td className="w-12 pl-1 font-normal text-mute">{output.unit}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[11px] leading-snug text-mute">{step.source}</p>
    </div>
  );
}
