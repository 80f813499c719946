// Both schools of setting depths for the ground and policy at hand: asked for when these have been left alone a moment.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { findPrograms } from "../../design/api";
import { useBench, useSnapshot } from "../../design/context";
import type { ProgramsResult } from "../../design/types";

const REST_MS = 500;

export function usePrograms(): { programs: ProgramsResult | undefined; behind: boolean } {
  const { session } = useBench();
  const document = useSnapshot("document");
  const faults = useSnapshot("faults");
  const asked = JSON.stringify([document.site, document.trajectory, document.ground, document.policy]);
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
    queryKey: ["programs", rested],
    queryFn: ({ signal }) => findPrograms(session.snapshot().document, signal),
    enabled: faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  return { programs: data, behind: isFetching || rested !== asked };
}
