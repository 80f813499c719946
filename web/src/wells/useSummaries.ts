// Summaries of designs that the list came without: asked for a few at a time, those in view first.
import { useEffect, useMemo, useState } from "react";
import { workSummaries } from "../design/api";
import type { DesignItem, Summary } from "../design/types";

const BATCH = 5;
const REST_MS = 400;

const keyOf = (design: DesignItem) => `${design.id}:${design.revision}`;

/** The designs with what is known of each, and how to say which of them are in view. */
export function useSummaries(designs: readonly DesignItem[]): [readonly DesignItem[], (inView: readonly DesignItem[]) => void] {
  const [worked, setWorked] = useState<ReadonlyMap<string, Summary>>(new Map());
  const [inView, setInView] = useState("");
  const known = useMemo(() => designs.map((d) => ({ ...d, summary: d.summary ?? worked.get(keyOf(d)) ?? null })), [designs, worked]);
  useEffect(() => {
    const seen = new Set(inView.split(" "));
    const missing = known.filter((d) => d.summary === null);
    const next = [...missing.filter((d) => seen.has(keyOf(d))), ...missing.filter((d) => !seen.has(keyOf(d)))].slice(0, BATCH);
    if (next.length === 0) return;
    let gone = false;
    const ask = () => {
      workSummaries(next.map((d) => d.id)).then(
        (found) => {
          if (gone) return;
          const more = next.flatMap((d) => (found[d.id] === undefined ? [] : [[keyOf(d), found[d.id]!] as const]));
          if (more.length > 0) setWorked((held) => new Map([...held, ...more]));
        },
        () => undefined, // the list stands without them; the next visit asks again
      );
    };
    // what nobody looks at yet leaves the server free between
    const timer = setTimeout(ask, seen.has(keyOf(next[0]!)) ? 0 : REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [known, inView]);
  return [
    known,
    (shown) => {
      setInView(shown.map(keyOf).join(" "));
    },
  ];
}
