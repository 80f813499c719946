// All loads of one string, asked for with every evaluation, and the best strings of one to three sections.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { getLoads, getOffers } from "../../design/api";
import { useBench, useEvaluated, useSnapshot, useWorked } from "../../design/context";
import type { LoadsResult, PipeOffers } from "../../design/types";
import { numberOf, useRested } from "../../design/useRested";

const REST_MS = 600;

/** The loads of a string as they stand; the last ones while new ones are on their way. */
export function useLoads(index: number, wanted = true): LoadsResult | undefined {
  const { session } = useBench();
  const pipe = useEvaluated((e) => e.pipe);
  const strings = useEvaluated((e) => e.strings);
  const faults = useSnapshot("faults");
  const judged = wanted && (pipe?.strings[index]?.loads.length ?? 0) > 0;
  const key = useMemo(() => (judged ? numberOf(JSON.stringify([pipe, strings])) : null), [judged, pipe, strings]);
  const { data } = useQuery({
    queryKey: ["loads", index, key],
    queryFn: ({ signal }) => getLoads(session.worked(), index, signal),
    enabled: judged && faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
  });
  return judged ? data : undefined;
}

/** What other runs of sections would cost, once the document has been left alone a moment. */
export function useOffers(index: number): { offers: PipeOffers | undefined; behind: boolean } {
  const { session } = useBench();
  const asked = JSON.stringify(useWorked());
  const { data, behind } = useRested(["pipe-offers", index], asked, REST_MS, (signal) => getOffers(session.worked(), index, signal));
  return { offers: data, behind };
}
