// The registry of steps: the bench of each. A step is added by its own folder and one line here; its title, and which
// places of the document it works on, come from the server's own registry.
import type { ComponentType } from "react";
import type { DepthScale } from "../depth/scale";
import type { Step } from "../design/types";
import { CementBench } from "./cement/CementBench";
import { CompletionBench } from "./completion/CompletionBench";
import { DepthsBench } from "./depths/DepthsBench";
import { DrillsBench } from "./drills/DrillsBench";
import { GroundBench } from "./ground/GroundBench";
import { LogbookBench } from "./logbook/LogbookBench";
import { MudBench } from "./mud/MudBench";
import { PipeBench } from "./pipe/PipeBench";
import { PolicyBench } from "./policy/PolicyBench";
import { PreventersBench } from "./preventers/PreventersBench";
import { RunningBench } from "./running/RunningBench";
import { RunsheetBench } from "./runsheet/RunsheetBench";
import { SeaBench } from "./sea/SeaBench";
import { SizesBench } from "./sizes/SizesBench";
import { WellheadBench } from "./wellhead/WellheadBench";

export interface BenchProps {
  scale: DepthScale;
  /** Width for tracks on the depth axis. */
  tracksPx: number;
  /** The place of the document that was gone to. */
  place: string;
}

export const BENCHES: Record<Step, ComponentType<BenchProps>> = {
  ground: GroundBench,
  depths: DepthsBench,
  sizes: SizesBench,
  mud: MudBench,
  pipe: PipeBench,
  running: RunningBench,
  cement: CementBench,
  wellhead: WellheadBench,
  preventers: PreventersBench,
  sea: SeaBench,
  completion: CompletionBench,
  runsheet: RunsheetBench,
  logbook: LogbookBench,
  drills: DrillsBench,
  policy: PolicyBench,
};

export const STEPS = Object.keys(BENCHES) as Step[];

export function isStep(word: string): word is Step {
  return word in BENCHES;
}
