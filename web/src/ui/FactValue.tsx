// A value that the log overrules: as drilled, with the entries it comes from and what was planned. It is corrected in the log.
import { NotebookPen } from "lucide-react";
import { useBench, useSnapshot } from "../design/context";
import type { Described, FactRow } from "../design/types";
import { useUnits } from "./units";

export function FactValue({ fact, field, label }: { fact: FactRow; field: Described; label: string }) {
  const { goTo } = useBench();
  const units = useUnits();
  const both = useSnapshot("view") === "both";
  const shown = (value: FactRow["value"]) =>
    typeof value === "number" && field.quantity ? units.number(value, field.quantity) : value === null ? "–" : String(value);
  const last = fact.entries[fact.entries.length - 1];
  const planned = `planned ${shown(fact.plan)}`;
  return (
    <button
      type="button"
      className="block w-full px-1 text-right leading-tight tabular-nums"
      data-place={fact.path}
      data-fact={last}
      title={`As drilled, log entry ${fact.entries.join(", ")}; ${planned}`}
      onClick={() => goTo("logbook", `/log/${last}`)}
    >
      <NotebookPen size={11} aria-hidden className="mr-1 inline align-[-1px] text-petrol" />
      <span className="sr-only">{label}: </span>
      {shown(fact.value)}
      <span className="sr-only"> as drilled, log entry {last}</span>
      {both && fact.plan !== fact.value && <span className="block text-[10.5px] whitespace-nowrap text-mute">{planned}</span>}
    </button>
  );
}
