// At total depth: complete, suspend, plug and abandon side by side, each with what it needs, its days, its cost and its barriers.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { AlternativeRow } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

const TITLES = { complete: "Complete", suspend: "Suspend", "plug and abandon": "Plug and abandon" } as const;
const SAID = { allowed: "barriers stand", forbidden: "barriers are short", unknown: "barriers not known" } as const;

export function Decision() {
  const rows = useEvaluated((e) => e.completion.alternatives) ?? [];
  if (rows.length === 0) return <Empty>No alternative follows yet: the well needs its strings.</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <div className="grid grid-cols-3 gap-x-3 gap-y-3 max-[1080px]:grid-cols-1" role="radiogroup" aria-label="Decision at total depth">
        {rows.map((row) => (
          <Alternative key={row.decision} row={row} />
        ))}
      </div>
      <p className="text-[11.5px] text-mute">
        Rig times and costs are planning values of policy; casing is counted where the stock list prices it. What is decided is judged and
        told; the others are kept beside it.
      </p>
      <Titled title="Planning values">
        <div className="grid grid-cols-2 gap-x-6 max-[1080px]:grid-cols-1">
          {["rig_day", "sack", "mechanical", "packer", "tree", "tubing_ft", "trip_ft_hour", "plug_hours", "tree_hours", "cut_hours"].map(
            (key) => (
              <FieldRow key={key} path={`/policy/completion/${key}`} />
            ),
          )}
        </div>
      </Titled>
    </div>
  );
}

function Alternative({ row }: { row: AlternativeRow }) {
  const units = useUnits();
  const { session } = useBench();
  const held = useDocument((d) => d.completion.decision) === row.decision;
  const title = TITLES[row.decision];
  const colour = { allowed: "text-moss", forbidden: "text-brick", unknown: "text-gold-text" }[row.allowed];
  return (
    <section aria-label={title} className={`rounded border p-2 text-[12.5px] ${held ? "border-petrol bg-petrol/5" : "border-rule"}`}>
      <button
        type="button"
        role="radio"
        aria-checked={held}
        data-place={held ? "/completion/decision" : undefined}
        className={`w-full rounded border px-2 py-1 text-left font-semibold ${held ? "border-petrol bg-petrol text-on-petrol" : "border-rule hover:border-petrol"}`}
        onClick={() => {
          session.edit([{ path: "/completion/decision", value: held ? null : row.decision }]);
        }}
      >
        {title}
        <span className="ml-1 font-normal">{held ? "decided" : ""}</span>
      </button>
      <p className="mt-1.5 flex justify-between text-[14px]">
        <b>{units.text(row.hours / 24, "days")}</b>
        <span>cost {units.number(row.cost, "money")}</span>
      </p>
      <p className={`${colour} font-semibold`}>{SAID[row.allowed]}</p>
      <ul className="mt-0.5 text-[12px]">
        {row.barriers.map((words, i) => (
          <li key={i}>{units.words(words)}</li>
        ))}
      </ul>
      <h3 className="mt-2 text-[11.5px] text-mute">Needs</h3>
      <ul>
        {row.needs.map((words, i) => (
          <li key={i}>{units.words(words)}</li>
        ))}
      </ul>
      <h3 className="mt-2 text-[11.5px] text-mute">Work, h and cost</h3>
      <table className="w-full" aria-label={`Work to ${title.toLowerCase()}`}>
        <tbody>
          {row.works.map((work) => (
            <tr key={work.what} className="border-t border-rule/60 align-baseline">
              <th scope="row" className="py-px pr-1 text-left font-normal">
                {work.what}
              </th>
              <td className="pl-1 text-right">{units.number(work.hours, "hours")}</td>
              <td className="pl-2 text-right">{units.number(work.cost, "money")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
