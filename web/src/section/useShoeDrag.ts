// Moving a shoe by pointer or by keys. One drag is one undo step; Escape returns to where it began.
import type { KeyboardEvent, PointerEvent } from "react";
import { useRef } from "react";
import { adoption, useBench } from "../design/context";
import { setCursor } from "../depth/cursor";
import type { DepthScale } from "../depth/scale";
import { useUnits } from "../ui/units";

const COARSE = 10;
const LEAST_GAP_FT = 10;

export function useShoeDrag(index: number, scale: DepthScale) {
  const { session, select } = useBench();
  const units = useUnits();
  const grabbedAt = useRef<{ pointerFt: number; shoeFt: number } | null>(null);

  const move = (depthFt: number) => {
    const { document, evaluation } = session.snapshot();
    const adopted = adoption(document, evaluation);
    const strings = evaluation?.strings ?? [];
    const above = strings[index - 1]?.shoe_md_ft ?? evaluation?.basis.ground_md_ft ?? 0;
    const below = strings[index + 1]?.shoe_md_ft ?? scale.totalFt + LEAST_GAP_FT;
    const to = Math.min(below - LEAST_GAP_FT, scale.totalFt, Math.max(above + LEAST_GAP_FT, units.snapDepth(depthFt)));
    if (document.strings[index]?.shoe_md_ft === to) return;
    session.edit([...adopted, { path: `/strings/${index}/shoe_md_ft`, value: to }]);
    setCursor(to);
  };
  const shoeFt = () => session.snapshot().evaluation?.strings[index]?.shoe_md_ft ?? 0;

  return {
    onPointerDown: (event: PointerEvent<SVGGElement>) => {
      if (event.button !== 0) return;
      select(index);
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.focus();
      const svg = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
      grabbedAt.current = { pointerFt: scale.md(event.clientY - svg.top), shoeFt: shoeFt() };
      session.beginDrag();
    },
    onPointerMove: (event: PointerEvent<SVGGElement>) => {
      const grabbed = grabbedAt.current;
      if (grabbed === null) return;
      const svg = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
      const moved = scale.md(event.clientY - svg.top) - grabbed.pointerFt;
      if (moved !== 0) move(grabbed.shoeFt + moved);
    },
    onPointerUp: () => {
      grabbedAt.current = null;
      session.endDrag();
    },
    onPointerCancel: () => {
      grabbedAt.current = null;
      session.endDrag(true);
    },
    onKeyDown: (event: KeyboardEvent<SVGGElement>) => {
      if (event.key === "Escape" && grabbedAt.current !== null) {
        grabbedAt.current = null;
        session.endDrag(true);
        return;
      }
      if (event.key === "Enter" || event.key === " ") select(index);
      const sign = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (sign === 0) return;
      event.preventDefault();
      move(shoeFt() + sign * units.depthStepFt() * (event.shiftKey ? COARSE : 1));
    },
  };
}
