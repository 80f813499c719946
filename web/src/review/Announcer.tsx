// Tells a screen reader what an edit brought and what it cleared, once the hand rests.
import { useEffect, useRef, useState } from "react";
import { useEvaluated } from "../design/context";
import type { Finding } from "../design/types";
import { useReference } from "../design/reference";
import { useUnits } from "../ui/units";

const REST_MS = 700;
const MOST_TOLD = 3;

export function Announcer() {
  const findings = useEvaluated((e) => e.findings);
  const units = useUnits();
  const reference = useReference();
  const known = useRef<Set<string> | null>(null);
  const [told, setTold] = useState("");
  useEffect(() => {
    if (findings === undefined) return;
    const wordsOf = (f: Finding) => `${f.severity}, ${reference.title(f.step)}: ${units.words(f.subject)}. ${units.words(f.message)}`;
    known.current ??= new Set(findings.map(wordsOf));
    const timer = setTimeout(() => {
      const now = new Set(findings.map(wordsOf));
      const before = known.current!;
      known.current = now;
      const brought = [...now].filter((words) => !before.has(words));
      const cleared = [...before].filter((words) => !now.has(words)).length;
      const more = brought.length > MOST_TOLD ? [`and ${brought.length - MOST_TOLD} more`] : [];
      const parts = [
        ...(brought.length ? [`New findings: ${brought.length}.`, ...brought.slice(0, MOST_TOLD), ...more] : []),
        ...(cleared ? [`Cleared: ${cleared}.`] : []),
      ];
      if (parts.length) setTold(parts.join(" "));
    }, REST_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [findings, units, reference]);
  return (
    <p role="status" className="sr-only" data-testid="announced">
      {told}
    </p>
  );
}
