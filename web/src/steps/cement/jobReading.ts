// What the job does at one depth, for the reading under the cursor: pressures on both sides at the moment looked at.
import type { ReadingPart } from "../../depth/reading";
import type { JobStage } from "../../design/types";
import type { Units } from "../../ui/units";
import { useMoment } from "./moment";
import { pressureAt } from "./pressureAt";
import { useShownJob } from "./shownJob";

interface JobReading {
  stage: JobStage;
  moment: number;
}

export function useJobReading(): JobReading | null {
  const stage = useShownJob()?.stage;
  const moment = useMoment(stage);
  return stage === undefined ? null : { stage, moment };
}

export function jobReading(job: JobReading | null, mdFt: number, units: Units): ReadingPart[] {
  if (job === null) return [];
  const { stage, moment } = job;
  const [inside, around] = (["pipe", "annulus"] as const).map((side) => pressureAt(stage, moment, mdFt, side));
  if (inside == null && around == null) return [];
  return [
    { label: "job at", text: units.text(stage.pumped_bbl[moment]!, "volume") },
    { label: "inside", text: inside == null ? "–" : units.text(inside, "pressure") },
    { label: "annulus", text: around == null ? "–" : units.text(around, "pressure") },
  ];
}
