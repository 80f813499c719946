// Zoom and pan of the depth axis: wheel or pinch zooms at the pointer, dragging the paper pans, double click fits,
// and the keys + − 0 do the same about the middle.
import type { PointerEvent, RefObject } from "react";
import { useEffect, useMemo, useRef, useState } from "react";
import { singleKeysOn } from "../keys/singleKeys";
import type { DepthAxis, DepthView } from "./scale";
import { depthScale, panned, zoomed } from "./scale";

const WHEEL_RATE = 0.0016;
const PINCH_RATE = 0.012;
const KEY_FACTOR = 0.7;
const CLICK_PX = 4;

/** Drawings that hang on the axis carry this class; what is dragged for itself in them carries data-grip. */
export const DEPTH_CLASS = "on-depth";

function paperOf(target: EventTarget | null): SVGSVGElement | null {
  if (!(target instanceof Element) || target.closest("[data-shoe], [data-grip]")) return null;
  return target.closest<SVGSVGElement>(`svg.${DEPTH_CLASS}`);
}

export function useDepthView(box: RefObject<HTMLElement | null>, axis: DepthAxis, heightPx: number) {
  const [view, setView] = useState<DepthView | null>(null);
  const scale = useMemo(() => depthScale(axis, heightPx, view), [axis, heightPx, view]);
  const current = useRef(scale);
  useEffect(() => {
    current.current = scale;
  }, [scale]);
  // another axis measures something else: the view on the old one says nothing of it
  const [seen, setSeen] = useState(axis.kind);
  if (seen !== axis.kind) {
    setSeen(axis.kind);
    setView(null);
  }
  const pan = useRef<{ fromY: number; start: typeof scale; moved: boolean } | null>(null);

  useEffect(() => {
    const node = box.current;
    if (node === null) return;
    // asked for at each turn of the wheel, the window would have to be laid out anew each time
    let topPx = 0;
    const measure = new ResizeObserver(() => {
      topPx = node.getBoundingClientRect().top;
    });
    measure.observe(node);
    const onWheel = (event: WheelEvent) => {
      const paper = event.target instanceof Element ? event.target.closest(`svg.${DEPTH_CLASS}`) : null;
      if (paper === null) return;
      event.preventDefault();
      const rate = event.ctrlKey ? PINCH_RATE : WHEEL_RATE;
      const y = event.clientY - topPx;
      setView(zoomed(current.current, y, Math.exp(event.deltaY * rate)));
    };
    node.addEventListener("wheel", onWheel, { passive: false });
    return () => {
      node.removeEventListener("wheel", onWheel);
      measure.disconnect();
    };
  }, [box]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, select, textarea, [role=dialog], [role=grid]");
      if (typing || event.ctrlKey || event.metaKey || event.altKey || !singleKeysOn()) return;
      const middle = current.current.heightPx / 2;
      if (event.key === "+" || event.key === "=") setView(zoomed(current.current, middle, KEY_FACTOR));
      else if (event.key === "-") setView(zoomed(current.current, middle, 1 / KEY_FACTOR));
      else if (event.key === "0") setView(null);
    };
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener("keydown", onKey);
    };
  }, []);

  const handlers = {
    onPointerDown: (event: PointerEvent) => {
      if (event.button === 0 && paperOf(event.target)) pan.current = { fromY: event.clientY, start: current.current, moved: false };
    },
    onPointerMove: (event: PointerEvent) => {
      const held = pan.current;
      if (held === null) return;
      const dy = event.clientY - held.fromY;
      held.moved ||= Math.abs(dy) > CLICK_PX;
      if (held.moved && current.current.bottomFt - current.current.topFt < axis.totalFt - 1e-6) setView(panned(held.start, dy));
    },
    onPointerUp: () => {
      if (pan.current && !pan.current.moved) pan.current = null;
    },
    onPointerLeave: () => {
      pan.current = null;
    },
    // a drag of the paper is no click on what lies under it
    onClickCapture: (event: { stopPropagation: () => void }) => {
      if (pan.current?.moved) event.stopPropagation();
      pan.current = null;
    },
    onDoubleClick: (event: { target: EventTarget | null }) => {
      if (paperOf(event.target)) setView(null);
    },
  };
  return {
    scale,
    handlers,
    zoomedIn: view !== null,
    fit: () => {
      setView(null);
    },
  };
}
