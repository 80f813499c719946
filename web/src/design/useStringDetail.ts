// One string in full, asked for by the view that shows it: more than an evaluation carries.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useBench, useEvaluated, useWorkable } from "./context";
import type { Design } from "./types";
import { identityOf, numberOf } from "./useRested";

export type Ask<T> = (document: Design, string: number, signal: AbortSignal) => Promise<T>;

/** Of a string as it stands; the last one while a new one is on its way, nothing where `row` is none or it is not wanted. */
export function useStringDetail<T>(name: string, index: number, wanted: boolean, row: unknown, ask: Ask<T>): T | undefined {
  const { session } = useBench();
  const strings = useEvaluated((e) => e.strings);
  const document = useWorkable();
  const applies = wanted && row !== undefined;
  // an edit is asked for at once, beside its evaluation; what is dragged only as often as it is evaluated
  const dragged = session.dragging();
  const evaluated = useMemo(() => (applies && dragged ? numberOf(JSON.stringify([row, strings])) : null), [applies, dragged, row, strings]);
  const { data } = useQuery({
    queryKey: [name, index, dragged ? evaluated : document && identityOf(document)],
    queryFn: ({ signal }) => ask(session.workable()!, index, signal),
    enabled: applies && document !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    structuralSharing: false, // to compare hundreds of rows takes longer than to draw the few in view
  });
  return applies ? data : undefined;
}
