// Questions to the server that are slower than an evaluation: asked once what they hang on has been left alone a moment.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useSnapshot } from "./context";

interface Rested<T> {
  data: T | undefined;
  /** What is shown is of an earlier document. */
  behind: boolean;
}

/** The answer for what `asked` says, which is asked again whenever it changes and then rests. */
export function useRested<T>(name: readonly unknown[], asked: string, restMs: number, ask: (signal: AbortSignal) => Promise<T>): Rested<T> {
  const faults = useSnapshot("faults");
  const [rested, setRested] = useState(asked);
  useEffect(() => {
    const timer = setTimeout(() => {
      setRested(asked);
    }, restMs);
    return () => {
      clearTimeout(timer);
    };
  }, [asked, restMs]);
  const { data, isFetching } = useQuery({
    queryKey: [...name, rested],
    queryFn: ({ signal }) => ask(signal),
    enabled: faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  return { data, behind: isFetching || rested !== asked };
}
