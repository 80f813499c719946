// Whether one has to sign in here, and who is signed in.
import { createContext, useContext } from "react";
import type { SessionView } from "./design/types";

export interface People extends SessionView {
  /** Ask the server again who is signed in. */
  again: () => void;
}

export const PeopleContext = createContext<People>({ accounts: false, name: null, role: null, again: () => undefined });

export function usePeople(): People {
  return useContext(PeopleContext);
}
