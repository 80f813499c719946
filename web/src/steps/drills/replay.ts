// The moment of a debrief that is looked at: one for charts, timeline and section. Outside React state, so that scrubbing redraws its
// readers alone.
import { useSyncExternalStore } from "react";
import type { Debrief } from "../../design/types";

interface Held {
  debrief: Debrief;
  /** Place among the moments of its series. */
  at: number;
}

let held: Held | null = null;
const listeners = new Set<() => void>();

function told(): void {
  listeners.forEach((listener) => {
    listener();
  });
}

export function showReplay(debrief: Debrief | null): void {
  held = debrief === null ? null : { debrief, at: debrief.series.at_s.length - 1 };
  told();
}

export function setReplay(at: number): void {
  if (held === null) return;
  const most = held.debrief.series.at_s.length - 1;
  held = { ...held, at: Math.min(Math.max(Math.round(at), 0), most) };
  told();
}

/** The last moment that had come at a second. */
export function momentAt(debrief: Debrief, second: number): number {
  const { at_s } = debrief.series;
  let found = 0;
  for (let k = 0; k < at_s.length && at_s[k]! <= second; k += 1) found = k;
  return found;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useReplay(): Held | null {
  return useSyncExternalStore(subscribe, () => held);
}
