// How a design is saved: its next revision once the hand rests, a draft while it is in conflict, this browser until then.
import * as api from "./api";
import { LocalDrafts } from "./localDraft";
import type { SaveState, Snapshot } from "./session";
import type { Design, Stale } from "./types";

export const SAVE_AFTER_MS = 700;
const LOOK_EVERY_MS = 20_000;
export const RETRY_AFTER_MS = 3000;

/** The session that is saved. */
interface Held {
  readonly id: number;
  readonly wellId: number;
  snapshot: () => Snapshot;
  set: (part: Partial<Snapshot>) => void;
  dragging: () => boolean;
}

export class Saver {
  /** The document as the newest revision known here holds it. */
  saved: Design;
  /** What goes with the next revision: a note, and the draft that it settles. */
  settles: { note: string; draftId: number | null } | null = null;
  readonly drafts: LocalDrafts;
  private looking: ReturnType<typeof setInterval> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private closed = false;

  constructor(
    private readonly held: Held,
    saved: Design,
  ) {
    this.saved = saved;
    this.drafts = new LocalDrafts(held.id);
  }

  private get state(): Snapshot {
    return this.held.snapshot();
  }

  open(): void {
    this.closed = false;
    this.looking = setInterval(() => void this.look(), LOOK_EVERY_MS);
    window.addEventListener("focus", this.look);
    window.addEventListener("beforeunload", this.ask);
    if (this.state.document !== this.saved) this.schedule(SAVE_AFTER_MS);
  }

  close(): void {
    clearInterval(this.looking);
    clearTimeout(this.timer);
    window.removeEventListener("focus", this.look);
    window.removeEventListener("beforeunload", this.ask);
    if (!this.closed && this.state.document !== this.saved) void this.now();
    this.closed = true;
  }

  /** Nothing is saved any more: what was here is kept elsewhere. */
  leave(): void {
    this.drafts.clear();
    this.closed = true;
  }

  /** Whether a newer revision was saved elsewhere: told before one edits, and as a conflict where there are edits. */
  private readonly look = async (): Promise<void> => {
    if (this.closed || document.visibilityState !== "visible" || this.state.newest !== null) return;
    if (this.state.save === "saving" || this.state.save === "gone") return;
    const held = await api.getDesign(this.held.id).catch((error: unknown) => {
      if (error instanceof api.ProblemError && error.problem.status === 404) this.held.set({ save: "gone" });
      return null;
    });
    if (held === null || this.closed || held.item.revision === this.state.revision || this.state.newest !== null) return;
    const edited = this.state.document !== this.saved;
    const { revision: newest_revision, author: newest_author } = held.item;
    this.held.set({
      newest: { newest_revision, newest_document: held.document, newest_author, draft_id: null },
      save: edited ? "conflict" : "saved",
    });
    if (edited) this.schedule(0);
  };

  private readonly ask = (event: BeforeUnloadEvent): void => {
    if (this.state.unkept) event.preventDefault();
  };

  /** How a document stands that is shown now. */
  stateOf(document: Design): SaveState {
    if (this.state.save === "gone") return "gone";
    if (this.state.newest !== null && document !== this.saved) return "conflict";
    return document === this.saved ? "saved" : "unsaved";
  }

  schedule(afterMs: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.now(), afterMs);
  }

  private async now(): Promise<void> {
    const document = this.state.document;
    if (document === this.saved || this.held.dragging() || this.state.save === "gone") return;
    if (this.state.save === "saving") {
      this.schedule(SAVE_AFTER_MS);
      return;
    }
    const draft = this.state.newest?.draft_id ?? null;
    try {
      if (draft !== null) await this.renewDraft(draft, document);
      else await this.saveRevision(document);
    } catch (error) {
      this.onSaveError(error);
    }
  }

  private async saveRevision(document: Design): Promise<void> {
    const settles = this.settles;
    this.held.set({ save: "saving" });
    const answer = await api.saveDesign(this.held, this.state.revision, document, settles?.note);
    this.saved = document;
    this.settles = null;
    const same = this.state.document === document;
    this.held.set({ revision: answer.revision, newest: null, save: same ? "saved" : "unsaved" });
    this.writeDraft();
    if (!same) this.schedule(SAVE_AFTER_MS);
    if (settles?.draftId != null) await api.dropDraft(this.held.id, settles.draftId).catch(() => undefined);
  }

  /** In a conflict what is edited goes into the draft: a revision only follows when the person has chosen. */
  private async renewDraft(draft: number, document: Design): Promise<void> {
    const { draft_id } = await api.renewDraft(this.held, draft, this.state.revision, document);
    if (this.state.newest !== null) this.held.set({ newest: { ...this.state.newest, draft_id } });
    if (this.state.document !== document) this.schedule(SAVE_AFTER_MS);
  }

  private onSaveError(error: unknown): void {
    const problem = error instanceof api.ProblemError ? error.problem : null;
    if (problem?.status === 409) {
      const stale = problem as Stale;
      this.held.set({ save: "conflict", newest: { ...stale, newest_document: stale.newest_document as unknown as Design } });
    } else if (problem?.status === 410) this.held.set({ save: "gone", newest: null });
    else if (problem?.status === 422) this.held.set({ save: this.state.newest === null ? "faulty" : "conflict" });
    else if (problem?.status === 403) this.held.set({ save: "viewer" });
    else {
      this.held.set({ save: problem?.status === 507 ? "full" : problem?.status === 401 ? "out" : "offline" });
      this.schedule(RETRY_AFTER_MS);
    }
  }

  /** Keep what is not saved in this browser; where that has no room for it, the tab asks before it is closed. */
  writeDraft(): void {
    const kept = this.state.document === this.saved || this.drafts.write(this.state.revision, this.state.document);
    if (this.state.document === this.saved) this.drafts.clear();
    if (kept === this.state.unkept) this.held.set({ unkept: !kept });
  }
}
