// All loads of one string, and the best strings of one to three sections: asked for as the document changes.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { getLoads, getOffers } from "../../design/api";
import { useBench, useSnapshot } from "../../design/context";
import type { LoadsResult, PipeOffers } from "../../design/types";

const REST_MS = 600;

/** The loads of a string as they stand; the last ones while new ones are on their way. */
export function useLoads(index: number): LoadsResult | undefined {
  const { session } = useBench();
  const evaluation = useSnapshot("evaluation");
  const faults = useSnapshot("faults");
  const judged = (evaluation?.pipe.strings[index]?.loads.length ?? 0) > 0;
  const { data } = useQuery({
    queryKey: ["loads", index, JSON.stringify(evaluation?.pipe), JSON.stringify(evaluation?.strings)],
    queryFn: ({ signal }) => getLoads(session.snapshot().document, index, signal),
    enabled: judged && faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
  });
  return judged ? data : undefined;
}

/** What other runs of sections would cost, once the document has been left alone a moment. */
export function useOffers(index: number): { offers: PipeOffers | undefined; behind: boolean } {
  const { session } = useBench();
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const asked = JSON.stringify(document);
  const [rested, setRested] = useState(asked);
  useEffect(() => {
    const timer = setTimeout(() => {
      setRested(asked);
    }, REST_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [asked]);
  const { data, isFetching } = useQuery({
    queryKey: ["pipe-offers", index, rested],
    queryFn: ({ signal }) => getOffers(session.snapshot().document, index, signal),
    enabled: faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
  });
  return { offers: data, behind: isFetching || rested !== asked };
}
