// The path: the steps in the order of work, each marked with its state.
import { SlidersHorizontal } from "lucide-react";
import { NavLink, useParams } from "react-router";
import type { ReactNode } from "react";
import { useSyncExternalStore } from "react";
import { useBench } from "../design/context";
import type { State } from "../design/types";
import { useReference } from "../design/reference";
import { STATE_WORDS, StateMark } from "../ui/mark";

const LINK =
  "flex h-9 items-center gap-1 border-b-[3px] border-transparent px-2 text-[13px] hover:text-petrol aria-[current=page]:border-petrol aria-[current=page]:font-semibold";

export function PathTabs({ children }: { children?: ReactNode }) {
  const { designId } = useParams();
  const { session, selected } = useBench();
  const { steps } = useReference();
  const states = useSyncExternalStore(session.subscribe, () =>
    (session.snapshot().evaluation?.path ?? []).map((p) => `${p.step}:${p.state}`).join(" "),
  );
  const stateOf = new Map(states.split(" ").map((pair) => pair.split(":") as [string, State]));
  return (
    <nav aria-label="Steps" className="no-print flex min-h-9 shrink-0 flex-wrap items-center border-b border-rule bg-sheet px-1.5">
      {steps.map(({ step, title }) => {
        if (states !== "" && !stateOf.has(step)) return null; // a step of wells at sea, on land
        const state = stateOf.get(step) ?? "blank";
        return (
          <NavLink
            key={step}
            to={`/designs/${designId}/${step}?string=${selected + 1}`}
            className={LINK}
            data-state={state}
            title={`${title}: ${STATE_WORDS[state]}`}
          >
            <StateMark state={state} />
            {title}
            <span className="sr-only">, {STATE_WORDS[state]}</span>
          </NavLink>
        );
      })}
      <NavLink to={`/designs/${designId}/policy?string=${selected + 1}`} className={`${LINK} ml-auto`}>
        <SlidersHorizontal size={14} aria-hidden className="text-mute" />
        Policy
      </NavLink>
      {children}
    </nav>
  );
}
