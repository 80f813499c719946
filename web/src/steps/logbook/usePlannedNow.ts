// What the plan has for what the rig is doing: its schedule, the hook load of the string that is run, the job that is pumped.
import { useMemo } from "react";
import { getCementJob, getTracks } from "../../design/api";
import { useBench, useEvaluated } from "../../design/context";
import type { Doing, JobDetail, LiveSpan, PlannedNow, RunTracks } from "../../design/types";
import { useStringDetail } from "../../design/useStringDetail";
import { secondOf } from "./live";
import { usePlannedCurve } from "./useLog";

const NEAR_FT = 150;

/** The string whose shoe the hole has reached, or is drilled to. */
export function useStringNow(holeFt: number | undefined): number {
  const strings = useEvaluated((e) => e.strings) ?? [];
  if (holeFt === undefined) return -1;
  return strings.findIndex((s) => s.run !== "driven" && s.shoe_md_ft >= holeFt - NEAR_FT);
}

export function usePlannedNow(
  doing: Doing,
  index: number,
  simulated: boolean,
): { planned: PlannedNow; tracks?: RunTracks; job?: JobDetail } {
  const { session } = useBench();
  const curve = usePlannedCurve();
  const begins = useEvaluated((e) => e.logbook.begins) ?? "";
  const running = useEvaluated((e) => e.running.strings[index]);
  const cement = useEvaluated((e) => e.cement.strings[index]);
  const tracks = useStringDetail<RunTracks>("live-run", index, doing === "running casing" && index >= 0, running, getTracks);
  const job = useStringDetail<JobDetail>("live-job", index, doing === "cementing" && index >= 0, cement, getCementJob);
  const spud = session.snapshot().document.runsheet.spud ?? "";
  const from = begins !== "" ? begins : simulated && spud !== "" ? `${spud} 06:00` : "";
  const planned = useMemo<PlannedNow>(() => {
    const stage = job?.stages[0];
    const end = stage === undefined ? 0 : stage.closing || stage.minutes.length;
    return {
      doing,
      begins_s: from === "" ? null : secondOf(from),
      day: curve.map((p) => p.day),
      md_ft: curve.map((p) => p.md_ft),
      hook:
        tracks === undefined
          ? null
          : {
              shoe_md_ft: [...tracks.hook.shoe_md_ft],
              in_lbf: [...tracks.hook.in_lbf],
              up_lbf: [...tracks.hook.up_lbf],
              block_lbf: tracks.hook.block_lbf ?? 0,
            },
      job:
        stage === undefined
          ? null
          : { pumped_bbl: stage.pumped_bbl.slice(0, end), pump_psi: stage.pump_psi.slice(0, end), out_bpm: stage.out_bpm.slice(0, end) },
    };
  }, [doing, from, curve, tracks, job]);
  return { planned, tracks, job };
}

/** The last span in which a channel came. */
export function lastWith(spans: readonly LiveSpan[], channel: keyof LiveSpan["values"]): LiveSpan | undefined {
  for (let i = spans.length - 1; i >= 0; i--) if (spans[i]!.values[channel] !== undefined) return spans[i];
  return undefined;
}
