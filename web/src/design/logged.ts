// What is done with the log in the browser: entries that came, which view is shown, what is supposed, what is tried while dragged.
import type { Logged, LogView, WhatIf } from "./drilled";
import type { Evaluation, LogEntry } from "./types";

interface Held extends Logged {
  evaluation: Evaluation | null;
  supposedFrom: Evaluation | null;
}

export class LogHand {
  /** The log that is written, while another is tried. */
  private written: readonly LogEntry[] | null = null;

  constructor(
    private readonly held: () => Held,
    private readonly show: (part: Partial<Held>) => void,
  ) {}

  /** Entries that the server has written; the first of a log shows the well as drilled. */
  add(entries: readonly LogEntry[]): void {
    const { log, view } = this.held();
    const before = this.written ?? log;
    this.written = null;
    this.show({ log: [...before, ...entries], view: before.length === 0 ? "drilled" : view });
  }

  /** The whole log as the server has it: others write in it too. */
  replace(log: readonly LogEntry[]): void {
    const before = this.written ?? this.held().log;
    if (log.length === before.length) return;
    this.written = null;
    this.show({ log, ...(before.length === 0 ? { view: "drilled" } : {}) });
  }

  view(view: LogView): void {
    this.show({ view, ...(view === "plan" ? { whatIf: null, supposedFrom: null } : {}) });
  }

  /** Suppose a string set at a depth today; null forgets it. */
  suppose(whatIf: WhatIf | null): void {
    const { view, supposedFrom, evaluation } = this.held();
    const from = whatIf === null ? null : (supposedFrom ?? evaluation);
    this.show({ whatIf, supposedFrom: from, view: whatIf !== null && view === "plan" ? "drilled" : view });
  }

  /** A log to be looked at while something of it is dragged; null goes back to the one that is written. */
  try(log: readonly LogEntry[] | null): void {
    this.written ??= this.held().log;
    this.show({ log: log ?? this.written });
    if (log === null) this.written = null;
  }
}
