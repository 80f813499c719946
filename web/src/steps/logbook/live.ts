// A well's feed as it comes, by server-sent events; the browser makes a lost connection again by itself. No React but the hook.
import { useEffect, useSyncExternalStore } from "react";
import type { Channel, Doing, LiveSpan } from "../../design/types";

export interface LiveState {
  state: "connecting" | "connected" | "lost" | "stopped" | "unreached";
  why: string;
  atS: number;
  latest: Partial<Record<Channel, number>>;
  spans: LiveSpan[];
  counts: { records?: number; bad_lines?: number; broken?: number };
}

const NOTHING: LiveState = { state: "stopped", why: "", atS: 0, latest: {}, spans: [], counts: {} };
const MOST_SPANS = 2_000;

class Live {
  private held = NOTHING;
  private source: EventSource | null = null;
  private listeners = new Set<() => void>();

  open(designId: number): void {
    this.close();
    this.source = new EventSource(`/api/designs/${designId}/feed/events`);
    this.source.onmessage = (event) => {
      const told = JSON.parse(event.data as string) as Omit<LiveState, "atS"> & { at_s: number };
      const spans = told.spans.length > 0 ? merged(this.held.spans, told.spans) : this.held.spans;
      this.show({ state: told.state, why: told.why, atS: told.at_s, latest: told.latest, counts: told.counts, spans });
    };
    this.source.onerror = () => {
      // the server closes after a while, and the browser comes again: only what stays away is told
      if (this.source?.readyState === EventSource.CLOSED) this.show({ ...this.held, state: "unreached" });
    };
  }

  close(): void {
    this.source?.close();
    this.source = null;
    this.show(NOTHING);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): LiveState => this.held;

  private show(next: LiveState): void {
    this.held = next;
    this.listeners.forEach((listener) => {
      listener();
    });
  }
}

/** What came put behind what there is; a clock that was set back begins anew. */
function merged(held: readonly LiveSpan[], came: readonly LiveSpan[]): LiveSpan[] {
  const first = came[0]!.begins_s;
  return [...held.filter((s) => s.begins_s < first), ...came].slice(-MOST_SPANS);
}

const live = new Live();

/** Listens while something shows it and the feed is on. */
export function useLive(designId: number, on: boolean, run: string): LiveState {
  useEffect(() => {
    if (!on) return;
    live.open(designId);
    return () => {
      live.close();
    };
  }, [designId, on, run]);
  return useSyncExternalStore(live.subscribe, live.snapshot);
}

export function useLiveState(): LiveState {
  return useSyncExternalStore(live.subscribe, live.snapshot);
}

/** Activity codes of the daily report. */
const BY_CODE: Record<number, Doing> = { 2: "drilling", 3: "drilling", 8: "tripping", 9: "tripping" };
const CASING = 15;
const OFF_BOTTOM_FT = 30;

/** What the rig is doing by its last span: by its activity code, else by what moves. */
export function doingOf(span: LiveSpan | undefined): Doing {
  if (span === undefined) return "other";
  const last = (channel: Channel) => span.values[channel]?.[1];
  const code = last("activity");
  const cementing = last("cement_bbl") !== undefined;
  if (code === CASING) return cementing ? "cementing" : "running casing";
  if (code !== undefined) return BY_CODE[code] ?? "other";
  if (cementing) return "cementing";
  const [hole, bit] = [last("hole_md_ft"), last("bit_md_ft")];
  if (hole === undefined || bit === undefined) return "other";
  return hole - bit < OFF_BOTTOM_FT ? "drilling" : "tripping";
}

/** A second of the rig's clock as the log writes it. */
export function moment(atS: number): string {
  return new Date(atS * 1000).toISOString().slice(0, 16).replace("T", " ");
}

/** The second of the rig's clock that a time of the log says. */
export function secondOf(text: string): number | null {
  const ms = Date.parse(`${text.replace(" ", "T")}:00Z`);
  return Number.isNaN(ms) ? null : ms / 1000;
}
