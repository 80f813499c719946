// The job that is followed on the cement bench, for the section and the reading strip; none where its tab is closed.
import { useSyncExternalStore } from "react";
import type { JobStage } from "../../design/types";

export interface ShownJob {
  /** Place of the string in the program. */
  string: number;
  stage: JobStage;
}

let shown: ShownJob | null = null;
const listeners = new Set<() => void>();

export function setShownJob(next: ShownJob | null): void {
  if (next?.stage === shown?.stage && next?.string === shown?.string) return;
  shown = next;
  listeners.forEach((listener) => {
    listener();
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useShownJob(): ShownJob | null {
  return useSyncExternalStore(subscribe, () => shown);
}
