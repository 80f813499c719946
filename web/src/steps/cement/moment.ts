// The moment of the job that is looked at, as a share of its time: one for the tracks and the charts. Outside React state,
// so that scrubbing redraws only its readers.
import { useSyncExternalStore } from "react";
import type { JobStage } from "../../design/types";

let share = 1;
const listeners = new Set<() => void>();

export function setMoment(next: number): void {
  const kept = Math.min(1, Math.max(0, next));
  if (kept === share) return;
  share = kept;
  listeners.forEach((listener) => {
    listener();
  });
}

export const momentShare = () => share;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The last moment of a stage that has come at a share of its time. */
export function momentAt(stage: JobStage, at: number): number {
  if (at <= 0) return 0; // before the pumps start
  const until = stage.minutes[stage.minutes.length - 1]! * at + 1e-6;
  let low = 0;
  let high = stage.minutes.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (stage.minutes[middle]! <= until) low = middle;
    else high = middle - 1;
  }
  return low;
}

export function shareOf(stage: JobStage, moment: number): number {
  const whole = stage.minutes[stage.minutes.length - 1]!;
  return whole > 0 ? stage.minutes[moment]! / whole : 1;
}

export function useMoment(stage: JobStage | undefined): number {
  return useSyncExternalStore(subscribe, () => (stage === undefined ? 0 : momentAt(stage, share)));
}
