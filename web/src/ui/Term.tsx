// A word of the trade at a label: what it means opens over it.
import { Tooltip } from "radix-ui";
import { memo } from "react";
import { useReference } from "../design/reference";

const HINTED = "cursor-help underline decoration-rule decoration-dotted underline-offset-2";

/** Some text with a hint over it; drawn again only when it says something else. */
export const Hint = memo(function Hint({ text, hint }: { text: string; hint: string }) {
  if (hint === "") return <>{text}</>;
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <span className={HINTED}>{text}</span>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          side="top"
          align="start"
          className="z-50 max-w-72 border border-rule bg-sheet px-2 py-1 text-[12px] leading-snug shadow-md"
        >
          {hint}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
});

/** A label in which a term stands, or one that is short for it: its meaning opens over it. */
export function Term({ children, of = children }: { children: string; of?: string }) {
  return <Hint text={children} hint={useReference().meaningIn(of)} />;
}
