// What to give first on an empty well, each step with the way to it.
import { Check } from "lucide-react";
import { useBench, useSnapshot } from "../design/context";
import { GUIDE } from "./guide";

export function StartGuide({ onGone }: { onGone?: () => void }) {
  const document = useSnapshot("document");
  const { goTo } = useBench();
  return (
    <ol aria-label="Start guide" className="space-y-1">
      {GUIDE.map(({ title, text, step, place, given }, i) => {
        const done = given(document);
        return (
          <li key={title}>
            <button
              type="button"
              className="grid w-full grid-cols-[1.3rem_1fr] gap-x-1 rounded px-1 py-0.5 text-left hover:bg-petrol/10"
              onClick={() => {
                onGone?.();
                goTo(step, place);
              }}
            >
              <span className="pt-px text-right text-mute">
                {done ? <Check size={13} className="inline text-moss" aria-label="given" /> : `${i + 1}.`}
              </span>
              <span>
                <span className="font-semibold">{title}.</span> <span className="text-mute">{text}</span>
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

/** On the bench of an empty well. */
export function GuideIfEmpty({ when }: { when: boolean }) {
  if (!when) return null;
  return (
    <section aria-label="Where to begin" className="mb-3 max-w-prose border-l-[3px] border-petrol bg-sheet px-2 py-1.5 text-[12.5px]">
      <h3 className="px-1 font-semibold text-petrol">Where to begin</h3>
      <StartGuide />
    </section>
  );
}
