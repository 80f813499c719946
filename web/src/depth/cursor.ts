// The one cursor: a depth that every track reads. Outside React state, so that moving it redraws only its readers.
import { useSyncExternalStore } from "react";

let depthFt: number | null = null;
const listeners = new Set<() => void>();

export function setCursor(next: number | null): void {
  if (next === depthFt) return;
  depthFt = next;
  listeners.forEach((listener) => {
    listener();
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useCursor(): number | null {
  return useSyncExternalStore(subscribe, () => depthFt);
}
