// The state of the well whose envelopes are looked at, by its key: one for the list and the section. Outside React state, so
// that only its readers draw again; none where another tab or step is open.
import { useSyncExternalStore } from "react";

/** What the section draws of the completion. */
export type Shown = { kind: "state"; key: string } | { kind: "plugs"; way: Way } | { kind: "tubing" } | { kind: "evaluation" } | null;
export type Way = "suspension" | "abandonment";

let shown: Shown = null;
const listeners = new Set<() => void>();

export function setShown(next: Shown): void {
  if (JSON.stringify(next) === JSON.stringify(shown)) return;
  shown = next;
  listeners.forEach((listener) => {
    listener();
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useShown(): Shown {
  return useSyncExternalStore(subscribe, () => shown);
}
