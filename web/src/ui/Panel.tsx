// The bench's right part: words and tables beside the tracks.
import type { ReactNode } from "react";
import { BesidePlan } from "../review/BesidePlan";

export function Panel({ title, children, actions }: { title: string; children: ReactNode; actions?: ReactNode }) {
  return (
    <div
      id="step-fields"
      tabIndex={-1}
      className="flex h-full min-w-0 flex-1 flex-col px-3 pt-2.5 outline-none stacked:h-auto stacked:basis-full"
    >
      <div className="mb-1.5 flex shrink-0 items-center gap-2">
        <h2 className="text-[14px] font-semibold">{title}</h2>
        <div className="ml-auto flex gap-1.5">{actions}</div>
      </div>
      <BesidePlan />
      {children}
    </div>
  );
}

/** A scrolling region that can be reached by keyboard. */
export function Scroll({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto pr-1 pb-3 stacked:max-h-[85vh]" tabIndex={0} role="region" aria-label={label}>
      {children}
    </div>
  );
}

export function Empty({ children }: { children: ReactNode }) {
  return <p className="max-w-prose py-3 text-mute">{children}</p>;
}
