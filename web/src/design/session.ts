// One design open in the browser: its document with undo and redo, its evaluation, and its saving.
// No React here; the workbench subscribes. A drag is one undo step and one revision.
import { replaceEqualDeep } from "@tanstack/react-query";
import * as api from "./api";
import { RETRY_AFTER_MS, SAVE_AFTER_MS, Saver } from "./saver";
import { handIsDragging, inTurn } from "./turns";
import type { Logged } from "./drilled";
import { workedOnce } from "./drilled";
import { LogHand } from "./logged";
import { change } from "./pointer";
import type { Change, Design, Evaluation, Fault, LogEntry } from "./types";

export type SaveState = "saved" | "unsaved" | "saving" | "faulty" | "offline" | "full" | "viewer" | "out" | "conflict" | "gone";

export interface Snapshot extends Logged {
  document: Design;
  evaluation: Evaluation | null;
  /** The document that the evaluation is of, with the log where that is in force. */
  evaluated: Design | null;
  /** True while the evaluation shown is of an older document. */
  behind: boolean;
  faults: Fault[];
  revision: number;
  save: SaveState;
  canUndo: boolean;
  canRedo: boolean;
  /** A newer revision than the one worked on: in conflict with edits here, or only to be shown. */
  newest: Newest | null;
  /** Milliseconds from the last edit to its evaluation. */
  roundTripMs: number | null;
  /** True while edits are kept neither by the server nor by this browser. */
  unkept: boolean;
  /** What was evaluated before something was supposed. */
  supposedFrom: Evaluation | null;
}

export interface Newest {
  newest_revision: number;
  newest_document: Design;
  newest_author: string;
  /** The draft in which the server keeps what is edited here; null until it does. */
  draft_id: number | null;
}

/** What of the basis is typed is assumed no more. */
function given(document: Design, changes: readonly Change[]): Design {
  const left = document.site.assumed.filter(
    (name) => !changes.some(({ path }) => (name === "total_depth" ? path.startsWith("/trajectory") : path === `/site/${name}`)),
  );
  return left.length === document.site.assumed.length ? document : { ...document, site: { ...document.site, assumed: left } };
}

/** Answers that say nothing of the document: signed out, too much at once, the server busy. */
const NOT_NOW = [401, 429, 503];

export class Session {
  private past: Design[] = [];
  private future: Design[] = [];
  private readonly saver: Saver;
  private dragStart: Design | null = null;
  private listeners = new Set<() => void>();
  private evaluating = false;
  private editedAt = performance.now();
  private closed = false;
  private state: Snapshot;

  constructor(
    readonly id: number,
    readonly wellId: number,
    document: Design,
    revision: number,
    author: string,
    log: readonly LogEntry[] = [],
  ) {
    this.saver = new Saver(this, document);
    const draft = this.saver.drafts.read();
    // a draft of another revision is neither dropped nor saved over what came since: both are shown
    const stale = draft !== null && draft.revision !== revision;
    this.state = {
      document: draft?.document ?? document,
      evaluation: null,
      evaluated: null,
      behind: true,
      faults: [],
      revision: draft?.revision ?? revision,
      save: stale ? "conflict" : draft ? "unsaved" : "saved",
      canUndo: false,
      canRedo: false,
      newest: stale ? { newest_revision: revision, newest_document: document, newest_author: author, draft_id: null } : null,
      roundTripMs: null,
      unkept: false,
      log,
      view: log.length > 0 ? "drilled" : "plan",
      whatIf: null,
      supposedFrom: null,
    };
    if (draft) this.past = [document];
    this.state.canUndo = draft !== null;
  }

  /** Begin to evaluate and, where a draft was found, to save. */
  open(): void {
    this.closed = false;
    // a draft may not be fit to evaluate: the saved document gives the picture in which it is mended
    const { saved } = this.saver;
    if (this.state.document !== saved) void this.evaluateOne(saved).then(() => this.evaluate());
    else void this.evaluate();
    this.saver.open();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): Snapshot => this.state;

  /** The document as it stands or, while it has faults, as it was evaluated last. */
  workable = (): Design | null => (this.state.faults.length > 0 ? this.state.evaluated : this.worked());

  private readonly asWorked = workedOnce();

  /** The document with the log where that is in force. */
  worked = (): Design => this.asWorked(this.state.document, this.state);

  readonly logged = new LogHand(this.snapshot, (part) => {
    this.editedAt = performance.now();
    this.set({ ...part, behind: true });
    void this.evaluate();
  });

  close(): void {
    this.closed = true;
    handIsDragging(false);
    this.saver.close();
  }

  dragging = (): boolean => this.dragStart !== null;

  /** Apply changes as one undo step, or as part of the drag under way. */
  edit(changes: readonly Change[]): void {
    const next = given(change(this.state.document, changes), changes);
    if (this.dragStart === null) {
      this.past.push(this.state.document);
      this.future = [];
    }
    this.show(next);
  }

  beginDrag(): void {
    this.dragStart = this.state.document;
    handIsDragging(true);
  }

  /** End the drag: one undo step if anything changed; `cancel` returns to where it began. */
  endDrag(cancel = false): void {
    const start = this.dragStart;
    this.dragStart = null;
    handIsDragging(false);
    if (start === null || start === this.state.document) return;
    if (cancel) {
      this.show(start);
      return;
    }
    this.past.push(start);
    this.future = [];
    this.set({ canUndo: true, canRedo: false });
    this.saver.writeDraft();
    this.saver.schedule(SAVE_AFTER_MS);
  }

  undo(): void {
    const before = this.past.pop();
    if (before === undefined) return;
    this.future.push(this.state.document);
    this.show(before);
  }

  redo(): void {
    const after = this.future.pop();
    if (after === undefined) return;
    this.past.push(this.state.document);
    this.show(after);
  }

  /** After a conflict: save this document over the newest revision, which stays in the history. */
  keepMine(): void {
    if (this.state.newest === null) return;
    this.saver.settles = { note: "", draftId: this.state.newest.draft_id };
    this.saver.saved = this.state.newest.newest_document;
    this.set({ revision: this.state.newest.newest_revision, newest: null, save: "unsaved" });
    this.saver.schedule(0);
  }

  /** After a conflict: show the newest revision; this document stays one undo away, and a draft on the server. */
  takeTheirs(): void {
    this.takeOn(this.state.newest?.newest_document);
  }

  /** After a conflict: both in one, as the next revision; this document stays one undo away. */
  takeMerged(merged: Design): void {
    const { newest, revision } = this.state;
    if (newest === null) return;
    this.saver.settles = { note: `merged with changes made on revision ${revision}`, draftId: newest.draft_id };
    this.takeOn(merged);
  }

  private takeOn(document: Design | undefined): void {
    const newest = this.state.newest;
    if (newest === null || document === undefined) return;
    this.past.push(this.state.document);
    this.future = [];
    this.saver.saved = newest.newest_document;
    this.set({ revision: newest.newest_revision, newest: null, save: "saved" });
    this.show(document);
  }

  /** A draft kept on the server taken up again: in conflict with the newest revision, as when it was kept. */
  takeUp(draft: { id: number; based_on: number }, document: Design, author: string): void {
    if (this.state.newest !== null || this.state.document !== this.saver.saved) return;
    const { revision: newest_revision, document: newest_document } = this.state;
    this.past.push(this.state.document);
    this.future = [];
    this.set({
      revision: draft.based_on,
      newest: { newest_revision, newest_document, newest_author: author, draft_id: draft.id },
    });
    this.show(document);
  }

  /** After the design was deleted: this document as a new well of its own; returns its design. */
  async saveAsNew(): Promise<number> {
    const made = await api.createWell(this.state.document);
    this.saver.leave();
    return made.design_id;
  }

  private show(document: Design): void {
    this.editedAt = performance.now();
    this.set({
      document,
      behind: true,
      save: this.saver.stateOf(document),
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    });
    void this.evaluate();
    if (this.dragStart !== null) return;
    this.saver.writeDraft();
    this.saver.schedule(SAVE_AFTER_MS);
  }

  readonly set = (part: Partial<Snapshot>): void => {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => {
      listener();
    });
  };

  /** Evaluate the newest document; edits that come meanwhile are evaluated next, those between are skipped. */
  private async evaluate(): Promise<void> {
    if (this.evaluating) return;
    this.evaluating = true;
    let document = this.worked();
    for (;;) {
      await this.evaluateOne(document);
      if (this.closed || document === this.worked()) break;
      document = this.worked();
    }
    this.evaluating = false;
  }

  private async evaluateOne(document: Design): Promise<void> {
    try {
      // by parts: what an answer has in common with the one before stays the same object, and is not drawn again
      const evaluation = replaceEqualDeep(this.state.evaluation, await inTurn(() => api.evaluate(document))) as Evaluation;
      const current = document === this.worked();
      const roundTripMs = current ? performance.now() - this.editedAt : this.state.roundTripMs;
      this.set({ evaluation, evaluated: document, faults: [], behind: !current, roundTripMs });
    } catch (error) {
      if (error instanceof api.ProblemError && !NOT_NOW.includes(error.problem.status)) {
        const faults = error.problem.faults.length
          ? error.problem.faults
          : [{ path: "", value: error.problem.detail, expected: "a document that can be evaluated" }];
        this.set({ faults, behind: true });
      } else {
        if (!(error instanceof api.ProblemError)) this.set({ save: "offline" });
        await new Promise((resolve) => setTimeout(resolve, RETRY_AFTER_MS));
        if (!this.closed) await this.evaluateOne(this.worked());
      }
    }
  }
}
