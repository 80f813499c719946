// What of the view stands in the address beside the step: the tab, the string and the line in hand.
import { useCallback } from "react";
import { useSearchParams } from "react-router";

/** The tab of the address, and how another is shown; the first visit takes the usual one. */
export function useTab(usual: string): [string, (tab: string) => void] {
  const [params, setParams] = useSearchParams();
  const show = useCallback(
    (tab: string) => {
      setParams(
        (held) => {
          held.set("tab", tab);
          return held;
        },
        { replace: true, flushSync: true },
      );
    },
    [setParams],
  );
  return [params.get("tab") ?? usual, show];
}

/** The string in hand, counted from the outermost, and how another is taken. */
export function useString(usual: number): [number, (index: number) => void] {
  const [params, setParams] = useSearchParams();
  const number = Number(params.get("string") ?? usual + 1);
  const take = useCallback(
    (index: number) => {
      if (index + 1 === number) return;
      setParams(
        (held) => {
          held.set("string", String(index + 1));
          return held;
        },
        { replace: true, flushSync: true },
      );
    },
    [setParams, number],
  );
  return [Number.isInteger(number) && number > 0 ? number - 1 : usual, take];
}

/** The step of the run sheet in hand, by its key, and how another is taken, on another tab too. */
export function useLine(): [string | null, (key: string, tab?: string) => void] {
  const [params, setParams] = useSearchParams();
  const take = useCallback(
    (key: string, tab?: string) => {
      setParams(
        (held) => {
          held.set("line", key);
          if (tab !== undefined) held.set("tab", tab);
          return held;
        },
        { replace: true, flushSync: true },
      );
    },
    [setParams],
  );
  return [params.get("line"), take];
}
