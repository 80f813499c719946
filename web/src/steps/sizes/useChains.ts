// Every chain of sizes for the strings in force: asked for when sizes, strings or policy have been left alone a moment.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { getChains } from "../../design/api";
import { useBench, useSnapshot } from "../../design/context";
import type { ChainsResult } from "../../design/types";

const REST_MS = 250;

export function useChains(): { chains: ChainsResult | undefined; behind: boolean } {
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
    queryKey: ["chains", rested],
    queryFn: ({ signal }) => getChains(session.snapshot().document, signal),
    enabled: faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
  });
  return { chains: data, behind: isFetching || rested !== asked };
}
