// The kick curves of the depths step, asked for once and read by the track and by every shoe.
import type { ReactNode } from "react";
import { createContext, useContext } from "react";
import { useKickDrawing } from "../../design/drawings";
import type { KickDrawing } from "../../design/types";

const Kicks = createContext<KickDrawing[] | null>(null);

export function KicksAsked({ children }: { children: ReactNode }) {
  return <Kicks value={useKickDrawing()}>{children}</Kicks>;
}

/** One for each string; null until they are there. */
export function useKicks(): KickDrawing[] | null {
  return useContext(Kicks);
}
