// The drill that a panel shows, for as long as the panel stands.
import { useEffect, useState, useSyncExternalStore } from "react";
import type { DrillNow } from "./drillSession";
import { DrillSession } from "./drillSession";

export interface Playing extends DrillNow {
  session: DrillSession;
}

export function useDrill(drill: number): Playing {
  const [session] = useState(() => new DrillSession(drill));
  useEffect(() => {
    session.open();
    return session.close;
  }, [session]);
  return { ...useSyncExternalStore(session.subscribe, session.snapshot), session };
}

/** Seconds as they stand on the clock. */
export function clockOf(seconds: number): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${Math.floor(seconds / 3600)}:${two(Math.floor(seconds / 60) % 60)}:${two(Math.floor(seconds) % 60)}`;
}
