// The shut-in procedures by the school of policy, as they are posted on the rig floor.
import { useEvaluated } from "../../design/context";
import { FieldRow } from "../../ui/DocField";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";

const POLICY = ["shut_in", "first", "flow_check", "pick_up_ft", "most_gain_bbl", "most_minutes"];

export function Procedures() {
  const units = useUnits();
  const found = useEvaluated((e) => e.drills.procedures) ?? [];
  if (found.length === 0) return <Empty>No procedure yet: no hole of this well is drilled under preventers.</Empty>;
  return (
    <div className="grid grid-cols-2 gap-x-8 gap-y-4 max-[1180px]:grid-cols-1">
      {found.map((procedure) => (
        <section key={procedure.title} aria-label={procedure.title}>
          <h3 className="border-b border-rule pb-0.5 text-[13px] font-semibold">{procedure.title}</h3>
          <ol className="mt-1 list-decimal pl-5 text-[13px] leading-relaxed">
            {procedure.steps.map((step, i) => (
              <li key={i}>{units.words(step)}</li>
            ))}
          </ol>
        </section>
      ))}
      <section aria-label="Policy of shutting in" className="bordered text-[13px]">
        <h3 className="pb-0.5 text-[13px] font-semibold">Policy</h3>
        {POLICY.map((key) => (
          <FieldRow key={key} path={`/policy/drills/${key}`} />
        ))}
      </section>
    </div>
  );
}
