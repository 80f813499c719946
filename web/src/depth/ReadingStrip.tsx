// The reading under the cursor: every track and the section at one depth, always in the same place.
import { useBench, useSnapshot } from "../design/context";
import { useGroundDrawing } from "../design/drawings";
import type { Step } from "../design/types";
import { jobReading, useJobReading } from "../steps/cement/jobReading";
import { useLoads } from "../steps/pipe/useLoads";
import { useUnits } from "../ui/units";
import { useCursor } from "./cursor";
import { readingAt } from "./reading";

export const STRIP_PX = 40;

export function ReadingStrip({ step }: { step: Step }) {
  const mdFt = useCursor();
  const evaluation = useSnapshot("evaluation");
  const { selected } = useBench();
  const ground = useGroundDrawing();
  const loads = useLoads(selected, step === "pipe");
  const units = useUnits();
  const job = useJobReading();
  const parts =
    mdFt === null || evaluation === null
      ? []
      : [...readingAt(evaluation, { ground, loads }, mdFt, selected, units), ...jobReading(job, mdFt, units)];
  return (
    <div
      className="no-print own-layer flex shrink-0 flex-wrap content-center items-baseline gap-x-3 overflow-hidden border-t border-rule bg-sheet px-2 font-narrow text-[12px] leading-[17px]"
      style={{ height: STRIP_PX }}
      data-testid="reading"
    >
      {parts.length === 0 && <span className="text-mute">Point at a depth to read the well there.</span>}
      {parts.map((part, i) => (
        <span key={i} className="whitespace-nowrap">
          {part.label && <span className="text-mute">{part.label} </span>}
          {part.text}
        </span>
      ))}
    </div>
  );
}
