// What every part of the workbench needs: the session, its snapshot, the string in hand, and where to look.
import { createContext, useContext, useSyncExternalStore } from "react";
import type { TypeOverRequest } from "../ui/TypeOver";
import type { Session, Snapshot } from "./session";
import type { Change, Design, Evaluation } from "./types";

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

export function useSnapshot(): Snapshot {
  const { session } = useBench();
  return useSyncExternalStore(session.subscribe, session.snapshot);
}

/** The strings of the proposal as decisions, where nothing is decided yet: the first edit adopts them. */
export function adoption(document: Design, evaluation: Evaluation | null): Change[] {
  if (document.strings.length > 0 || evaluation === null || evaluation.strings.length === 0) return [];
  const strings = evaluation.strings.map((s) => ({
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
