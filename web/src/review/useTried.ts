// Remedies tried on the whole design by the server, once the hand rests: only what clears its finding is offered.
import { createContext, useContext } from "react";
import { tryRemedies } from "../design/api";
import { useBench, useWorked } from "../design/context";
import type { Finding, RemediesTried, TriedRemedy } from "../design/types";
import { useRested } from "../design/useRested";

const REST_MS = 700;
const NUMBERS = new WeakMap<object, number>();
let count = 0;

/** A number for each state of the document: it is never edited in place. */
function numbered(document: object): string {
  let number = NUMBERS.get(document);
  if (number === undefined) NUMBERS.set(document, (number = ++count));
  return String(number);
}

/** What was found for the document as it stands; undefined while that is asked. */
export function useRemediesTried(): RemediesTried | undefined {
  const { session } = useBench();
  const asked = numbered(useWorked());
  const { data, behind } = useRested(["remedies", session.id], asked, REST_MS, (signal) => tryRemedies(session.worked(), signal));
  return behind ? undefined : data;
}

export const Tried = createContext<RemediesTried | undefined>(undefined);

/** What was found for the remedies of one finding; undefined while that is asked. */
export function useTried(finding: Finding): readonly TriedRemedy[] | undefined {
  const message = JSON.stringify(finding.message);
  return useContext(Tried)?.findings.find((f) => f.place === finding.place && JSON.stringify(f.message) === message)?.remedies;
}
