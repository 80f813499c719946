// What every part of the workbench needs: the session, its snapshot, the string in hand, and where to look.
import { createContext, useContext, useMemo, useSyncExternalStore } from "react";
import type { TypeOverRequest } from "../ui/TypeOver";
import type { Session, Snapshot } from "./session";
import { read } from "./pointer";
import type { Change, Design, Evaluation, FactRow, StringResult } from "./types";

export interface Bench {
  session: Session;
  /** Index of the string in hand. */
  selected: number;
  select: (index: number) => void;
  /** Key of the headline number whose working is shown, with its title. */
  asked: { key: string; title: string } | null;
  ask: (key: string, title: string) => void;
  /** Lay a field over a number in a drawing. */
  typeOver: (request: TypeOverRequest) => void;
  /** Go to a place of the document: its step, its field, lit up. */
  goTo: (step: string, place: string) => void;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (bench === null) throw new Error("outside the workbench");
  return bench;
}

/** One part of the session's state; only its changes draw again. */
export function useSnapshot<K extends keyof Snapshot>(key: K): Snapshot[K] {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => session.snapshot()[key]);
}

/** The document as it stands, with the log where that is in force: what the server is asked about. */
export function useWorked(): Design {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, session.worked);
}

/** The document as it can be worked; null where there is none yet. */
export function useWorkable(): Design | null {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => session.workable());
}

/** A part of the evaluation, undefined before the first; equal parts of two answers are the same, and draw nothing. */
export function useEvaluated<T>(pick: (evaluation: Evaluation) => T): T | undefined {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => {
    const { evaluation } = session.snapshot();
    return evaluation === null ? undefined : pick(evaluation);
  });
}

/** A part of the document as it stands. */
export function useDocument<T>(pick: (document: Design) => T): T {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => pick(session.snapshot().document));
}

/** What stands at a place of the document. */
export function useAt(path: string): unknown {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => read(session.snapshot().document, path));
}

/** What is wrong at a place of the document, null for nothing. */
export function useFault(place: string): string | null {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => {
    const fault = session.snapshot().faults.find((f) => f.path === place);
    return fault ? `${fault.value}: expected ${fault.expected}` : null;
  });
}

/** The strings as they are drawn: the evaluation's, with depths that the document already holds while it is behind. */
export function useDrawnStrings(): StringResult[] {
  const evaluation = useSnapshot("evaluation");
  const decided = useAt("/strings") as Design["strings"];
  return useMemo(() => {
    const strings = evaluation?.strings ?? [];
    if (decided.length !== strings.length) return strings;
    const stands = new Set(evaluation?.logbook.landed);
    return strings.map((s, i) => ({
      ...s,
      ...(stands.has(i) ? {} : plannedDepths(s, decided, i)),
      previous_shoe_md_ft: stands.has(i - 1) ? s.previous_shoe_md_ft : (decided[i - 1]?.shoe_md_ft ?? s.previous_shoe_md_ft),
    }));
  }, [evaluation, decided]);
}

/** What the document already holds of a string while its evaluation is behind. */
function plannedDepths(s: StringResult, decided: Design["strings"], i: number): Partial<StringResult> {
  const own = decided[i]!;
  return {
    shoe_md_ft: own.shoe_md_ft,
    top_md_ft: own.hanger_md_ft ?? s.top_md_ft,
    cement_top_md_ft: own.cement?.top_md_ft ?? s.cement_top_md_ft,
    tail_top_md_ft: own.cement?.tail_top_md_ft ?? s.tail_top_md_ft,
    stage_collar_md_ft: own.cement?.stage_collar_md_ft ?? null,
    upper_collar_md_ft: own.cement?.upper_collar_md_ft ?? null,
    mud_ppg: own.mud_ppg ?? s.mud_ppg,
  };
}

/** The fact in force at a place of the document, by the log; undefined where the plan's value is. */
export function useFact(place: string): FactRow | undefined {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, () => factAt(session, place));
}

export function factAt(session: Session, place: string): FactRow | undefined {
  return session.snapshot().evaluation?.logbook.facts.find((f) => f.path === place);
}

/** The strings of the proposal as decisions, where nothing is decided yet: the first edit adopts them. */
export function adoption(document: Design, evaluation: Evaluation | null): Change[] {
  if (document.strings.length > 0 || evaluation === null || evaluation.strings.length === 0) return [];
  const strings = evaluation.strings.map((s) => ({
    id: s.id,
    role: s.role,
    run: s.run,
    shoe_md_ft: s.shoe_md_ft,
    bit_in: s.bit_in,
    od_in: s.od_in,
  }));
  return [{ path: "/strings", value: strings }];
}

/** Edit one string, adopting the proposal first where nothing is decided yet. */
export function editString(session: Session, index: number, key: string, value: unknown): void {
  const { document, evaluation } = session.snapshot();
  session.edit([...adoption(document, evaluation), { path: `/strings/${index}/${key}`, value }]);
}

/** A string taken out with the stack that stands on it; pieces that stood on it go by their place again. */
export function withoutString(document: Design, index: number): Change[] {
  const gone = document.strings[index]!.id;
  const changes: Change[] = [{ path: "/strings", value: document.strings.filter((_, i) => i !== index) }];
  if (document.preventers.some((s) => s.string === gone))
    changes.push({ path: "/preventers", value: document.preventers.filter((s) => s.string !== gone) });
  document.wellhead.pieces.forEach((piece, i) => {
    if (piece.string === gone) changes.push({ path: `/wellhead/pieces/${i}/string`, value: null });
  });
  return changes;
}
