// The plan with the log of its well: what is sent to be worked. With the log it is the well as drilled, without it the plan. No React.
import type { Design, LogEntry } from "./types";

/** What is shown: the plan alone, the well as drilled, or the well as drilled with the plan behind it. */
export type LogView = "plan" | "drilled" | "both";

/** A string taken as set at a depth today, to see what would follow. */
export interface WhatIf {
  string: string;
  mdFt: number;
}

export interface Logged {
  log: readonly LogEntry[];
  view: LogView;
  whatIf: WhatIf | null;
}

/** The document as it is worked under a view; the document itself where nothing of the log is in force. */
export function asWorked(document: Design, { log, view, whatIf }: Logged): Design {
  if (view === "plan" || (log.length === 0 && whatIf === null)) return document;
  const last = log[log.length - 1];
  const supposed =
    whatIf === null
      ? []
      : [
          {
            number: (last?.number ?? 0) + 1,
            at: latest(log),
            kind: "shoe landed",
            string: whatIf.string,
            md_ft: whatIf.mdFt,
          } as LogEntry,
        ];
  return { ...document, log: [...log, ...supposed] };
}

/** The document as it is worked, the same object while neither it nor what is logged changes. */
export function workedOnce(): (document: Design, logged: Logged) => Design {
  let last: { of: readonly unknown[]; made: Design } | null = null;
  return (document, logged) => {
    const of = [document, logged.log, logged.view, logged.whatIf];
    if (last === null || of.some((part, i) => part !== last!.of[i])) last = { of, made: asWorked(document, logged) };
    return last.made;
  };
}

function latest(log: readonly LogEntry[]): string {
  return log.reduce((at, e) => (e.at > at ? e.at : at), "1970-01-01 00:00");
}

/** The entries that count, in order of time: none that another corrects, and no withdrawal. */
export function inForce(log: readonly LogEntry[]): LogEntry[] {
  const corrected = new Set(log.map((e) => e.corrects));
  return log
    .filter((e) => !corrected.has(e.number) && e.kind !== "withdrawn")
    .sort((a, b) => (a.at === b.at ? a.number - b.number : a.at < b.at ? -1 : 1));
}

/** Steps of the run sheet that are signed, with the entry that signs each. */
export function signedSteps(log: readonly LogEntry[]): Map<string, LogEntry> {
  return new Map(
    inForce(log)
      .filter((e) => e.step)
      .map((e) => [e.step!, e]),
  );
}
