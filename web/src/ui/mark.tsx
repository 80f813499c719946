// State and severity as a shape and a colour, never colour alone.
import { Ban, Check, Circle, CircleDashed, CircleHelp, Info, OctagonX, TriangleAlert } from "lucide-react";
import type { Finding, State } from "../design/types";

export const STATE_WORDS: Record<State, string> = {
  blank: "nothing yet",
  incomplete: "incomplete: something is unknown",
  good: "good",
  caution: "caution",
  stop: "stop",
};

export function StateMark({ state }: { state: State }) {
  const size = { size: 14, "aria-hidden": true } as const;
  if (state === "good") return <Check {...size} className="text-moss" strokeWidth={2.6} />;
  if (state === "stop") return <OctagonX {...size} className="text-brick" />;
  if (state === "caution") return <TriangleAlert {...size} className="text-gold-text" />;
  if (state === "incomplete") return <CircleDashed {...size} className="text-mute" />;
  return <Circle {...size} className="text-mute" />;
}

export const SEVERITY: Record<Finding["severity"], { word: string; border: string; text: string; Icon: typeof Ban }> = {
  stop: { word: "Stop", border: "border-brick border-l-[3px]", text: "text-brick", Icon: OctagonX },
  caution: { word: "Caution", border: "border-gold border-l-[3px]", text: "text-gold-text", Icon: TriangleAlert },
  unknown: { word: "Unknown", border: "border-mute border-l-[3px] border-dotted", text: "text-mute", Icon: CircleHelp },
  note: { word: "Note", border: "border-rule border-l-[3px]", text: "text-mute", Icon: Info },
};
