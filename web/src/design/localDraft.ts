// Unsaved edits outlive a reload: kept in this browser beside the revision that they are based on, a tab each.
import type { Design } from "./types";

export interface LocalDraft {
  revision: number;
  document: Design;
  at: number;
}

const PREFIX = "knollstack.draft.";
const TAB = "knollstack.tab";

function tab(): string {
  const known = sessionStorage.getItem(TAB);
  if (known !== null) return known;
  const made = Math.random().toString(36).slice(2);
  sessionStorage.setItem(TAB, made);
  return made;
}

export class LocalDrafts {
  private readonly own: string;
  /** Where the draft was found that this tab goes on with: another tab's that is gone. */
  private adopted: string | null = null;

  constructor(private readonly design: number) {
    this.own = `${PREFIX}${design}.${tab()}`;
  }

  /** The draft of this tab, else the last of any other. */
  read(): LocalDraft | null {
    const found = Object.keys(localStorage)
      .filter((key) => key.startsWith(`${PREFIX}${this.design}.`))
      .map((key) => ({ key, draft: parsed(localStorage.getItem(key)) }))
      .filter((entry): entry is { key: string; draft: LocalDraft } => entry.draft !== null)
      .sort((a, b) => Number(b.key === this.own) - Number(a.key === this.own) || b.draft.at - a.draft.at);
    const first = found[0];
    if (first === undefined) return null;
    this.adopted = first.key;
    return first.draft;
  }

  /** Keep a draft; false where the browser has no room for it. */
  write(revision: number, document: Design): boolean {
    try {
      localStorage.setItem(this.own, JSON.stringify({ revision, document, at: Date.now() }));
      return true;
    } catch {
      return false;
    }
  }

  clear(): void {
    localStorage.removeItem(this.own);
    if (this.adopted !== null) localStorage.removeItem(this.adopted);
    this.adopted = null;
  }
}

function parsed(text: string | null): LocalDraft | null {
  try {
    const draft = text === null ? null : (JSON.parse(text) as LocalDraft);
    return typeof draft?.revision === "number" && typeof draft.document === "object" ? draft : null;
  } catch {
    return null;
  }
}
