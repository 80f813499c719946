// The working of a headline number: the formula calls that gave it, each with equation, inputs, result and source.
import { useQuery } from "@tanstack/react-query";
import { Copy, X } from "lucide-react";
import { getWorking, listFormulas } from "../design/api";
import { useBench, useSnapshot, useWorked } from "../design/context";
import { useUnits } from "../ui/units";
import { Calls } from "./Calls";
import { isFieldUnit, workingText } from "./workingText";

export function WorkingPanel() {
  const { asked, ask } = useBench();
  const document = useWorked();
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
        {data && <Calls calls={data.calls} mathml={mathml} />}
      </div>
    </section>
  );
}
