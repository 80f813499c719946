// What can be dragged and nudged on the depth axis: shoes, liner tops, tops of cement, profile points.
// One drag is one undo step; Escape returns to where it began; arrows nudge, with Shift ten times as far; a digit,
// Enter or a double click types over. Alt turns snapping the other way while it is held.
import type { KeyboardEvent, PointerEvent } from "react";
import { useRef } from "react";
import { useBench } from "../design/context";
import { usePreferences } from "../preferences";

const COARSE = 10;
const CLICK_PX = 3;

export interface Point {
  x: number;
  y: number;
}

export interface Grip<T> {
  /** What is held, as it is now. */
  held: () => T;
  /** Move it by pixels from where it was held; `free` is without snapping. */
  drag: (held: T, from: Point, to: Point, free: boolean) => void;
  /** Move it by steps, right and down for positive. */
  nudge: (held: T, right: number, down: number) => void;
  take: () => void;
  /** Type over its number; `first` is the digit that opened it. */
  type: (box: { left: number; top: number }, first?: string) => void;
  remove?: () => void;
  insert?: () => void;
}

type Target = SVGGElement;

export function useGrip<T>(grip: Grip<T>) {
  const { session } = useBench();
  const { snap } = usePreferences();
  const grabbed = useRef<{ from: Point; held: T; moved: boolean } | null>(null);

  const pointOf = (event: PointerEvent<Target>): Point => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const drop = (cancel: boolean) => {
    if (grabbed.current === null) return;
    grabbed.current = null;
    session.endDrag(cancel);
  };
  const typeAt = (node: Target, first?: string) => {
    const box = (node.querySelector("rect, circle") ?? node).getBoundingClientRect();
    grip.type({ left: box.left, top: box.top - 2 }, first);
  };

  return {
    onPointerDown: (event: PointerEvent<Target>) => {
      if (event.button !== 0) return;
      grip.take();
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.focus();
      grabbed.current = { from: pointOf(event), held: grip.held(), moved: false };
      session.beginDrag();
    },
    onPointerMove: (event: PointerEvent<Target>) => {
      const start = grabbed.current;
      if (start === null) return;
      const to = pointOf(event);
      start.moved ||= Math.hypot(to.x - start.from.x, to.y - start.from.y) >= CLICK_PX;
      if (start.moved) grip.drag(start.held, start.from, to, event.altKey === snap);
    },
    onPointerUp: () => {
      drop(false);
    },
    onPointerCancel: () => {
      drop(true);
    },
    onDoubleClick: (event: { currentTarget: Target; stopPropagation: () => void }) => {
      event.stopPropagation();
      typeAt(event.currentTarget);
    },
    onKeyDown: (event: KeyboardEvent<Target>) => {
      if (event.ctrlKey || event.metaKey) return;
      const times = event.shiftKey ? COARSE : 1;
      const steps: Record<string, [number, number]> = { ArrowUp: [0, -1], ArrowDown: [0, 1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] };
      const step = steps[event.key];
      if (event.key === "Escape") drop(true);
      else if (step) grip.nudge(grip.held(), step[0] * times, step[1] * times);
      else if (event.key === "Enter" || event.key === " ") {
        grip.take();
        typeAt(event.currentTarget);
      } else if (/^\d$/.test(event.key)) typeAt(event.currentTarget, event.key);
      else if (event.key === "Delete" && grip.remove) grip.remove();
      else if (event.key === "Insert" && grip.insert) grip.insert();
      else return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}
