// One string's run in full, each half asked for by the view that shows it: its tally joint by joint, and what is drawn
// against depth.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { getTally, getTracks } from "../../design/api";
import { useBench, useEvaluated, useSnapshot } from "../../design/context";
import type { Design, RunTracks, TallyDetail } from "../../design/types";
import { identityOf, numberOf } from "../../design/useRested";

type Ask<T> = (document: Design, string: number, signal: AbortSignal) => Promise<T>;

/** Of a string as it stands; the last one while a new one is on its way, nothing where it is not run or not wanted. */
function useAsked<T>(name: string, index: number, wanted: boolean, ask: Ask<T>): T | undefined {
  const { session } = useBench();
  const rows = useEvaluated((e) => e.running.strings);
  const strings = useEvaluated((e) => e.strings);
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const applies = wanted && rows?.[index]?.applies === true;
  // an edit is asked for at once, beside its evaluation; what is dragged only as often as it is evaluated
  const dragged = session.dragging();
  const evaluated = useMemo(
    () => (applies && dragged ? numberOf(JSON.stringify([rows[index], strings])) : null),
    [applies, dragged, rows, strings, index],
  );
  const { data } = useQuery({
    queryKey: [name, index, dragged ? evaluated : identityOf(document)],
    queryFn: ({ signal }) => ask(session.snapshot().document, index, signal),
    enabled: applies && faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    structuralSharing: false, // to compare hundreds of joints takes longer than to draw the few in view
  });
  return applies ? data : undefined;
}

export const useTally = (index: number, wanted: boolean) => useAsked<TallyDetail>("tally", index, wanted, getTally);
export const useTracks = (index: number, wanted: boolean) => useAsked<RunTracks>("tracks", index, wanted, getTracks);
