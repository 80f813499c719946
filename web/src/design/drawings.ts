// What only a drawing needs: asked by the view that draws it, one question under way at a time, the newest next.
import { startTransition, useEffect, useRef, useState } from "react";
import { drawGround, drawKick } from "./api";
import { inTurn } from "./turns";
import { useSnapshot, useWorked } from "./context";
import type { Design, GroundDrawing, KickDrawing } from "./types";

/** The last answer for what the document holds; `key` says which parts of it the answer hangs on. */
function useDrawn<T>(ask: (document: Design) => Promise<T>, keyOf: (document: Design) => readonly unknown[]): T | null {
  const document = useWorked();
  const faults = useSnapshot("faults");
  const [drawn, setDrawn] = useState<T | null>(null);
  const state = useRef<{ busy: boolean; wanted: Design; shown: readonly unknown[]; gone: boolean }>({
    busy: false,
    wanted: document,
    shown: [],
    gone: false,
  });
  useEffect(() => {
    const held = state.current;
    held.gone = false;
    return () => {
      held.gone = true;
    };
  }, []);
  useEffect(() => {
    const held = state.current;
    held.wanted = document;
    if (held.busy || faults.length > 0) return;
    const next = async () => {
      held.busy = true;
      for (;;) {
        const asked = held.wanted;
        const key = keyOf(asked);
        if (key.length === held.shown.length && key.every((part, i) => part === held.shown[i])) break;
        // a document that cannot be evaluated leaves the last picture
        const answer = await inTurn(() => ask(asked)).catch(() => null);
        held.shown = key;
        if (answer !== null && !held.gone) startTransition(() => setDrawn(answer));
      }
      held.busy = false;
    };
    void next();
  }, [document, faults, ask, keyOf]);
  return drawn;
}

const groundKey = (d: Design) => [d.site, d.trajectory, d.ground, d.policy, d.log];
const kickKey = (d: Design) => [d.site, d.trajectory, d.ground, d.policy, d.strings, d.log];

/** Profiles, window and pressures along the well; null until they are there. */
export function useGroundDrawing(): GroundDrawing | null {
  return useDrawn(drawGround, groundKey);
}

/** Kick tolerance against depth below each shoe; null until it is there. */
export function useKickDrawing(): KickDrawing[] | null {
  return useDrawn(drawKick, kickKey);
}
