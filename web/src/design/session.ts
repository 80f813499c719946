// One design open in the browser: its document with undo and redo, its evaluation, and its saving.
// No React here; the workbench subscribes. A drag is one undo step and one revision.
import { replaceEqualDeep } from "@tanstack/react-query";
import * as api from "./api";
import { handIsDragging, inTurn } from "./turns";
import { change } from "./pointer";
import type { Change, Design, Evaluation, Fault, Stale } from "./types";

export type SaveState = "saved" | "unsaved" | "saving" | "faulty" | "offline" | "conflict";

export interface Snapshot {
  document: Design;
  evaluation: Evaluation | null;
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
}

export interface Newest {
  newest_revision: number;
  newest_document: Design;
}

/** What of the basis is typed is assumed no more. */
function given(document: Design, changes: readonly Change[]): Design {
  const left = document.site.assumed.filter(
    (name) => !changes.some(({ path }) => (name === "total_depth" ? path.startsWith("/trajectory") : path === `/site/${name}`)),
  );
  return left.length === document.site.assumed.length ? document : { ...document, site: { ...document.site, assumed: left } };
}

const SAVE_AFTER_MS = 700;
const LOOK_EVERY_MS = 20_000;
const RETRY_AFTER_MS = 3000;

export class Session {
  private past: Design[] = [];
  private future: Design[] = [];
  private saved: Design;
  private dragStart: Design | null = null;
  private listeners = new Set<() => void>();
  private evaluating = false;
  private looking: ReturnType<typeof setInterval> | undefined;
  private saveTimer: ReturnType<typeof setTimeout> | undefined;
  private editedAt = performance.now();
  private closed = false;
  private state: Snapshot;

  constructor(
    readonly id: number,
    document: Design,
    revision: number,
  ) {
    this.saved = document;
    const draft = this.readDraft(revision);
    // a draft of an older revision is neither dropped nor saved over what came since: both are shown
    const stale = draft !== null && draft.revision !== revision;
    this.state = {
      document: draft?.document ?? document,
      evaluation: null,
      behind: true,
      faults: [],
      revision,
      save: stale ? "conflict" : draft ? "unsaved" : "saved",
      canUndo: false,
      canRedo: false,
      newest: stale ? { newest_revision: revision, newest_document: document } : null,
      roundTripMs: null,
    };
    if (draft) this.past = [document];
    this.state.canUndo = draft !== null;
  }

  /** Whether a newer revision was saved elsewhere: told before one edits, and as a conflict where there are edits. */
  private readonly look = async (): Promise<void> => {
    if (this.closed || document.visibilityState !== "visible" || this.state.newest !== null || this.state.save === "saving") return;
    const held = await api.getDesign(this.id).catch(() => null);
    if (held === null || this.closed || held.item.revision <= this.state.revision || this.state.newest !== null) return;
    const newest = { newest_revision: held.item.revision, newest_document: held.document };
    this.set({ newest, save: this.state.document === this.saved ? "saved" : "conflict" });
  };

  /** Begin to evaluate and, where a draft was found, to save. */
  open(): void {
    this.closed = false;
    this.looking = setInterval(() => void this.look(), LOOK_EVERY_MS);
    window.addEventListener("focus", this.look);
    // a draft may not be fit to evaluate: the saved document gives the picture in which it is mended
    if (this.state.document !== this.saved) void this.evaluateOne(this.saved).then(() => this.evaluate());
    else void this.evaluate();
    if (this.state.document !== this.saved) this.scheduleSave(SAVE_AFTER_MS);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): Snapshot => this.state;

  close(): void {
    this.closed = true;
    clearInterval(this.looking);
    window.removeEventListener("focus", this.look);
    handIsDragging(false);
    clearTimeout(this.saveTimer);
    if (this.state.document !== this.saved && this.state.save !== "conflict") void this.saveNow();
  }

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
    this.writeDraft();
    this.scheduleSave(SAVE_AFTER_MS);
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
    this.set({ revision: this.state.newest.newest_revision, newest: null, save: "unsaved" });
    this.scheduleSave(0);
  }

  /** After a conflict: show the newest revision; this document stays one undo away. */
  takeTheirs(): void {
    const newest = this.state.newest;
    if (newest === null) return;
    this.past.push(this.state.document);
    this.future = [];
    this.saved = newest.newest_document;
    this.set({ revision: newest.newest_revision, newest: null, save: "saved" });
    this.show(this.saved);
  }

  private show(document: Design): void {
    this.editedAt = performance.now();
    const save = document === this.saved ? "saved" : "unsaved";
    this.set({
      document,
      behind: true,
      save: this.state.newest !== null && document !== this.saved ? "conflict" : save,
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    });
    void this.evaluate();
    if (this.dragStart !== null) return;
    this.writeDraft();
    this.scheduleSave(SAVE_AFTER_MS);
  }

  private set(part: Partial<Snapshot>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => {
      listener();
    });
  }

  /** Evaluate the newest document; edits that come meanwhile are evaluated next, those between are skipped. */
  private async evaluate(): Promise<void> {
    if (this.evaluating) return;
    this.evaluating = true;
    let document = this.state.document;
    for (;;) {
      await this.evaluateOne(document);
      if (this.closed || document === this.state.document) break;
      document = this.state.document;
    }
    this.evaluating = false;
  }

  private async evaluateOne(document: Design): Promise<void> {
    try {
      // by parts: what an answer has in common with the one before stays the same object, and is not drawn again
      const evaluation = replaceEqualDeep(this.state.evaluation, await inTurn(() => api.evaluate(document))) as Evaluation;
      const current = document === this.state.document;
      const roundTripMs = current ? performance.now() - this.editedAt : this.state.roundTripMs;
      this.set({ evaluation, faults: [], behind: !current, roundTripMs });
    } catch (error) {
      if (error instanceof api.ProblemError) {
        const faults = error.problem.faults.length
          ? error.problem.faults
          : [{ path: "", value: error.problem.detail, expected: "a document that can be evaluated" }];
        this.set({ faults, behind: true });
      } else {
        this.set({ save: "offline" });
        await new Promise((resolve) => setTimeout(resolve, RETRY_AFTER_MS));
        if (!this.closed) await this.evaluateOne(this.state.document);
      }
    }
  }

  private scheduleSave(afterMs: number): void {
    clearTimeout(this.saveTimer);
    this.saveTimer = setTimeout(() => void this.saveNow(), afterMs);
  }

  private async saveNow(): Promise<void> {
    const document = this.state.document;
    if (document === this.saved || this.state.newest !== null || this.dragStart !== null) return;
    if (this.state.save === "saving") {
      this.scheduleSave(SAVE_AFTER_MS);
      return;
    }
    this.set({ save: "saving" });
    try {
      const answer = await api.saveDesign(this.id, this.state.revision, document);
      this.saved = document;
      const same = this.state.document === document;
      this.set({ revision: answer.revision, save: same ? "saved" : "unsaved" });
      this.writeDraft();
      if (!same) this.scheduleSave(SAVE_AFTER_MS);
    } catch (error) {
      this.onSaveError(error);
    }
  }

  private onSaveError(error: unknown): void {
    if (error instanceof api.ProblemError && error.problem.status === 409) {
      const stale = error.problem as Stale;
      this.set({ save: "conflict", newest: { ...stale, newest_document: stale.newest_document as unknown as Design } });
    } else if (error instanceof api.ProblemError && error.problem.status === 422) {
      this.set({ save: "faulty" });
    } else {
      this.set({ save: "offline" });
      this.scheduleSave(RETRY_AFTER_MS);
    }
  }

  private draftKey(): string {
    return `knollstack.draft.${this.id}`;
  }

  /** Unsaved edits outlive a reload: kept beside the revision that they are based on. */
  private writeDraft(): void {
    if (this.state.document === this.saved) localStorage.removeItem(this.draftKey());
    else {
      const draft = { revision: this.state.revision, document: this.state.document };
      localStorage.setItem(this.draftKey(), JSON.stringify(draft));
    }
  }

  private readDraft(revision: number): { revision: number; document: Design } | null {
    try {
      const text = localStorage.getItem(this.draftKey());
      const draft = text === null ? null : (JSON.parse(text) as { revision: number; document: Design });
      return draft !== null && draft.revision <= revision ? draft : null;
    } catch {
      return null;
    }
  }
}
