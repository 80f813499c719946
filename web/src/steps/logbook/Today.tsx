// Today: how deep and how far the well is, what is in force in place of the plan, what can still be done, and what if.
import { useEvaluated, useSnapshot } from "../../design/context";
import { useReference } from "../../design/reference";
import type { FactRow, LogbookResult } from "../../design/types";
import { Facts } from "../../ui/Facts";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { Free } from "./Free";
import { useLogbook } from "./useLog";
import { Suppose } from "./Suppose";

export function Today() {
  const now = useEvaluated((e) => e.logbook);
  const supposedFrom = useSnapshot("supposedFrom");
  // what is supposed has not happened
  const result = supposedFrom?.logbook ?? now;
  if (result === undefined || result.entries === 0)
    return <Empty>Nothing is in force: log what happened, and show the well as drilled (the switch over the section).</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <Now result={result} />
      <Free />
      <Suppose />
      <InForce result={result} />
    </div>
  );
}

function Now({ result }: { result: LogbookResult }) {
  const units = useUnits();
  const behind = useLogbook().data?.detail.days_behind;
  return (
    <p className="text-[15px]" role="status">
      {result.today_md_ft === null ? "No depth is logged" : <b>{units.text(result.today_md_ft, "depth")}</b>}
      {result.today_tvd_ft !== null && result.today_md_ft !== null && (
        <span className="text-[12.5px] text-mute"> {units.text(result.today_tvd_ft, "depth")} TVD</span>
      )}
      {result.day !== null && <>, day {units.number(result.day, "days")}</>}
      {behind !== null && behind !== undefined && (
        <span className={`ml-2 text-[13px] ${behind > 0 ? "text-gold-text" : "text-moss"}`}>
          {Math.abs(behind) < 0.05
            ? "on the plan’s day"
            : `${units.text(Math.abs(behind), "days")} ${behind > 0 ? "behind" : "ahead of"} the plan at this depth`}
        </span>
      )}
      <span className="block text-[12px] text-mute">
        Last entry {result.last_at}
        {result.begins === "" ? ". No spud is logged: days are not counted" : `, spud ${result.begins}`}.
      </span>
    </p>
  );
}

/** Every value of the document that the log overrules. */
function InForce({ result }: { result: LogbookResult }) {
  const reference = useReference();
  const units = useUnits();
  const shown = (fact: FactRow, value: FactRow["value"]) => {
    if (typeof value === "number") return units.text(value, reference.find(fact.path)?.quantity ?? "factor");
    return value === null ? "–" : String(value);
  };
  return (
    <Titled title="In force in place of the plan" note="a dash is a table, or nothing decided">
      <Facts
        label="Facts in force"
        heads={[{ title: "What", left: true }, { title: "As drilled" }, { title: "Plan" }, { title: "Entry" }]}
        rows={result.facts.map((fact) => [reference.words(fact.path), shown(fact, fact.value), shown(fact, fact.plan), entriesOf(fact)])}
      />
    </Titled>
  );
}

function entriesOf({ entries }: FactRow): string {
  return entries.length > 4 ? `${entries.slice(0, 3).join(", ")} … ${entries[entries.length - 1]}` : entries.join(", ");
}
