// What is shown, once something is logged: the plan, the well as drilled, or both.
import { useBench, useSnapshot } from "../design/context";
import type { LogView } from "../design/drilled";

const VIEWS: readonly (readonly [LogView, string, string])[] = [
  ["plan", "Plan", "The plan alone, without what is logged"],
  ["drilled", "As drilled", "What is logged in place of the plan, the plan below today’s depth"],
  ["both", "Both", "As drilled, with the plan behind it and what differs"],
];
const BUTTON =
  "rounded border border-rule bg-sheet px-1 text-[11px] leading-[17px] hover:border-petrol aria-pressed:border-petrol aria-pressed:text-petrol aria-pressed:font-semibold";

export function ViewSwitch() {
  const { session } = useBench();
  const view = useSnapshot("view");
  const logged = useSnapshot("log").length > 0;
  if (!logged) return null;
  return (
    <div className="no-print absolute top-[26px] left-1.5 z-10 flex gap-0.5" role="group" aria-label="Plan or as drilled">
      {VIEWS.map(([key, text, title]) => (
        <button
          key={key}
          type="button"
          className={BUTTON}
          aria-pressed={view === key}
          title={title}
          onClick={() => session.logged.view(key)}
        >
          {text}
        </button>
      ))}
    </div>
  );
}
