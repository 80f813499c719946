// One string's run in full, asked for with every evaluation: its tally, and what is drawn against depth.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { getRun } from "../../design/api";
import { useBench, useEvaluated, useSnapshot } from "../../design/context";
import type { RunDetail } from "../../design/types";
import { numberOf } from "../../design/useRested";

/** The run of a string as it stands; the last one while a new one is on its way, nothing where it is not run. */
export function useRun(index: number): RunDetail | undefined {
  const { session } = useBench();
  const rows = useEvaluated((e) => e.running.strings);
  const strings = useEvaluated((e) => e.strings);
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const applies = rows?.[index]?.applies === true;
  const joints = document.strings[index]?.running?.joints;
  const key = useMemo(
    () => (applies ? numberOf(JSON.stringify([rows[index], strings, joints, document.site])) : null),
    [applies, rows, strings, joints, document.site, index],
  );
  const { data } = useQuery({
    queryKey: ["run", index, key],
    queryFn: ({ signal }) => getRun(session.snapshot().document, index, signal),
    enabled: applies && faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    structuralSharing: false, // to compare hundreds of joints takes longer than to draw the few in view
  });
  return applies ? data : undefined;
}
