// What the completion draws on the section: the envelopes of a state, plugs that are left, tubing with packer and perforations,
// intervals of evaluation.
import { useDrawnStrings, useEvaluated } from "../design/context";
import type { Basis } from "../design/types";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { useShown } from "../steps/completion/shownState";
import { EnvelopesOnSection } from "./EnvelopesOnSection";
import { EvaluationOnSection } from "./EvaluationOnSection";
import { PlugsOnSection } from "./PlugsOnSection";
import { TubingOnSection } from "./TubingOnSection";
import { SECTION_PX } from "./geometry";

export function CompletionLayer({ scale, basis }: { scale: DepthScale; basis: Basis }) {
  const shown = useShown();
  const strings = useDrawnStrings();
  const state = useEvaluated((e) => (shown?.kind === "state" ? e.completion.states.find((s) => s.key === shown.key) : undefined));
  if (shown === null || strings.length === 0) return null;
  const parts = { scale, basis, strings };
  return (
    <svg
      width={SECTION_PX}
      height={scale.heightPx}
      className="own-layer pointer-events-none absolute inset-0"
      data-testid={`completion-${shown.kind}`}
    >
      {shown.kind === "evaluation" && (
        <DepthClip scale={scale} widthPx={SECTION_PX}>
          <EvaluationOnSection scale={scale} />
        </DepthClip>
      )}
      {shown.kind === "tubing" && (
        <DepthClip scale={scale} widthPx={SECTION_PX}>
          <TubingOnSection {...parts} />
        </DepthClip>
      )}
      {shown.kind === "plugs" && <PlugsOnSection {...parts} way={shown.way} />}
      {state !== undefined && <EnvelopesOnSection {...parts} state={state} />}
    </svg>
  );
}
