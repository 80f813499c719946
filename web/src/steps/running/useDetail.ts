// One string's run in full, each half asked for by the view that shows it: its tally joint by joint, and what is drawn
// against depth.
import { getTally, getTracks } from "../../design/api";
import { useEvaluated } from "../../design/context";
import type { RunTracks, TallyDetail } from "../../design/types";
import { useStringDetail } from "../../design/useStringDetail";

/** The evaluation's row of a string that is run. */
function useRow(index: number) {
  const row = useEvaluated((e) => e.running.strings)?.[index];
  return row?.applies === true ? row : undefined;
}

export const useTally = (index: number, wanted: boolean) => useStringDetail<TallyDetail>("tally", index, wanted, useRow(index), getTally);
export const useTracks = (index: number, wanted: boolean) => useStringDetail<RunTracks>("tracks", index, wanted, useRow(index), getTracks);
