// What differs from the plan on the step at hand, while both are shown.
import { useParams } from "react-router";
import { useEvaluated, useSnapshot } from "../design/context";
import { useReference } from "../design/reference";
import type { FactRow } from "../design/types";
import { useLogbook } from "../steps/logbook/useLog";
import { Facts } from "../ui/Facts";
import { useUnits } from "../ui/units";

export function BesidePlan() {
  const both = useSnapshot("view") === "both";
  return both ? <Differing /> : null;
}

function Differing() {
  const { step = "depths" } = useParams();
  const units = useUnits();
  const { data } = useLogbook();
  const reference = useReference();
  const facts = (useEvaluated((e) => e.logbook.facts) ?? []).filter(
    (f) => reference.stepOf(f.path) === step && (f.value === null || f.value !== f.plan),
  );
  const rows = data?.side_by_side.results.filter((r) => r.step === step && units.words(r.a) !== units.words(r.b)) ?? [];
  const shown = (path: string, value: FactRow["value"]) =>
    typeof value === "number"
      ? units.text(value, reference.find(path)?.quantity ?? "factor")
      : value === null
        ? "see there"
        : String(value);
  if (data === undefined) return <p className="mb-1 text-[12px] text-mute">Held beside the plan…</p>;
  if (rows.length + facts.length === 0) return <p className="mb-1 text-[12px] text-mute">Nothing of this step differs from the plan.</p>;
  return (
    <details open className="mb-2 max-h-[40%] shrink-0 overflow-auto border-l-[3px] border-petrol/50 pl-2" data-beside-plan>
      <summary className="text-[12.5px] font-semibold">
        Differs from the plan <span className="font-normal text-mute">{rows.length + facts.length}</span>
      </summary>
      <Facts
        label="Differs from the plan"
        heads={[{ title: "Section" }, { title: "What", left: true }, { title: "Plan" }, { title: "As drilled" }]}
        rows={[
          ...facts.map((f) => ["logged", reference.words(f.path), ...[f.plan, f.value].map((v) => shown(f.path, v))]),
          ...rows.map((r) => [r.section, r.label, units.words(r.a), units.words(r.b)]),
        ]}
      />
    </details>
  );
}
