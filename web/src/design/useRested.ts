// Questions to the server that are slower than an evaluation: asked once what they hang on has been left alone a moment.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { useSnapshot } from "./context";

interface Rested<T> {
  data: T | undefined;
  /** What is shown is of an earlier document. */
  behind: boolean;
  /** Why there is no answer; null while all is well. */
  error: Error | null;
}

const NUMBERS = new Map<string, number>();

/** A number for a long text: a query's key is read again at every drawing. */
export function numberOf(text: string): number {
  let number = NUMBERS.get(text);
  if (number === undefined) NUMBERS.set(text, (number = NUMBERS.size));
  return number;
}

const IDENTITIES = new WeakMap<object, string>();
let identities = 0;

/** A name for an object that never changes, such as a document. */
export function identityOf(value: object): string {
  let name = IDENTITIES.get(value);
  if (name === undefined) IDENTITIES.set(value, (name = `object ${(identities += 1)}`));
  return name;
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
  const key = useMemo(() => numberOf(rested), [rested]);
  const { data, error, isFetching } = useQuery({
    queryKey: [...name, key],
    queryFn: ({ signal }) => ask(signal),
    enabled: faults.length === 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  return { data, behind: isFetching || rested !== asked, error };
}
