// From this string to the next: what is pulled, changed, nippled down, lifted and nippled up again, in order; and whether the
// barriers stand that must be there before the stack comes off.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { StackRow, StateRow, Words } from "../../design/types";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { VERDICTS } from "../completion/envelopes";

export function Between({ row }: { row: StackRow }) {
  const units = useUnits();
  const after = useAfter();
  const steps = row.steps as readonly Words[];
  // up to the count of the barriers: with too few the stack stays on
  const counted = steps.findIndex((step) => units.words(step).includes("Count the barriers"));
  const shown = after !== undefined && after.allowed !== "allowed" && counted >= 0 ? steps.slice(0, counted + 1) : steps;
  return (
    <>
      {steps.length === 0 ? (
        <Empty>The last stack stays until the tree goes on; barriers are counted before it comes off.</Empty>
      ) : (
        <ol className="list-decimal pl-5 text-[12.5px] leading-relaxed">
          {shown.map((step, i) => (
            <li key={i}>{units.words(step)}</li>
          ))}
        </ol>
      )}
      {after !== undefined && <BeforeItComesOff after={after} held={shown.length < steps.length} />}
      <p className="mt-2 text-[12px] text-mute">
        No preventer comes off before policy&apos;s barriers are in place and verified. Nobody works under a lifted stack.
      </p>
    </>
  );
}

/** The state that taking this stack off leads to: after the next string, or as the well is left. */
function useAfter(): StateRow | undefined {
  const { selected } = useBench();
  const decision = useDocument((d) => d.completion.decision);
  const strings = useEvaluated((e) => e.strings);
  const next = strings?.find((s, i) => i > selected && s.run !== "liner");
  const leads = (s: StateRow) =>
    next === undefined ? s.removal.length > 0 && s.alternative === (decision ?? "none") : s.key === `off ${next.id}`;
  return useEvaluated((e) => e.completion.states.find(leads));
}

/** The count before the stack comes off; with too few the sequence ends here. */
function BeforeItComesOff({ after, held }: { after: StateRow; held: boolean }) {
  const units = useUnits();
  const { goTo } = useBench();
  return (
    <p className={`mt-2 text-[12.5px] ${after.allowed === "allowed" ? "" : "font-semibold text-brick"}`}>
      {units.words(after.removal)}: {after.count} of {after.needed} barriers, {VERDICTS[after.allowed]}.{" "}
      {held && "The sequence ends here: the stack stays on. "}
      <button
        type="button"
        className="underline underline-offset-2 hover:text-petrol"
        onClick={() => {
          goTo("completion", "/completion/verified");
        }}
      >
        Which
      </button>
    </p>
  );
}
