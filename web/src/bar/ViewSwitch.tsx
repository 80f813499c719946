// What is shown, once something is logged: the plan, the well as drilled, or both.
import { useBench, useSnapshot } from "../design/context";
import type { LogView } from "../design/drilled";

const VIEWS: readonly (readonly [LogView, string, string])[] = [
  ["plan", "Plan", "The plan alone, without what is logged"],
  ["drilled", "As drilled", "What is logged in place of the plan, the plan below today’s depth"],
  ["both", "Both", "As drilled, with the plan behind it and what differs"],
];
const BUTTON =
  "px-1.5 py-0.5 text-[12px] leading-5 text-bar-ink/80 hover:text-bar-ink aria-pressed:bg-white/15 aria-pressed:font-semibold aria-pressed:text-bar-ink";

export function ViewSwitch() {
  const { session } = useBench();
  const view = useSnapshot("view");
  const logged = useSnapshot("log").length > 0;
  if (!logged) return null;
  return (
    <div className="flex overflow-hidden rounded border border-white/25" role="group" aria-label="Plan or as drilled">
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
