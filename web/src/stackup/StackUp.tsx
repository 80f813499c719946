// The stack-up to scale, from the cellar floor or the deck up, at one moment of the well: click a piece to work on it, a height
// for its sum. Wheel or + − 0 zoom, drag pans, arrows go from piece to piece.
import type { KeyboardEvent, PointerEvent } from "react";
import { useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useDocument } from "../design/context";
import type { StackItem, StackMoment } from "../design/types";
import { useUnits } from "../ui/units";
import type { View } from "./layout";
import { CENTRE_PX, fitted, LABEL_PX, pannedBy, RULER_PX, scaleOf, zoomedAt } from "./layout";
import type { LinesAt, PressuredRoom } from "./Overlays";
import { Across, Faces, Lines, Pressured } from "./Overlays";
import type { DrawnProps } from "./Ruler";
import { Labels, Ruler } from "./Ruler";
import type { Closed } from "./shapes";
import { Shape } from "./shapes";
import { Surroundings } from "./Surroundings";

export const STACKUP_PX = 300;
const ZOOM = 0.75;
const WHEEL = 0.0016;
const CLICK_PX = 4;

interface StackUpProps {
  moment: StackMoment;
  /** The piece that is worked on, by its place in the list of items. */
  lit: number | null;
  onPick: (item: StackItem, index: number) => void;
  /** What is across the stack, and how an element closes on it. */
  across?: { odIn: number } | null;
  /** What sees the pressure of a test. */
  pressured?: PressuredRoom | null;
  closedOf?: (item: StackItem) => Closed | null;
  /** A face was asked for: the top of a piece of the wellhead. */
  onFace?: (item: StackItem) => void;
  /** At which elements the choke and the kill line stand. */
  lines?: LinesAt | null;
  toRotary: boolean;
  label: string;
}

export function StackUp({
  moment,
  lit,
  onPick,
  across = null,
  closedOf,
  onFace,
  lines = null,
  pressured = null,
  toRotary,
  label,
}: StackUpProps) {
  const setting = useDocument((d) => d.site.setting);
  const box = useRef<HTMLDivElement>(null);
  const clip = useId();
  const [heightPx, setHeight] = useState(0);
  const [view, setView] = useView(moment, toRotary);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(() => {
      setHeight(box.current?.clientHeight ?? 0);
    });
    observer.observe(box.current!);
    return () => {
      observer.disconnect();
    };
  }, []);
  const scale = scaleOf(view, Math.max(heightPx, 1));
  const gestures = useGestures(box, view, setView, heightPx, () => {
    setView(fitted(moment, toRotary));
  });
  return (
    <div ref={box} className="relative min-h-[320px] flex-1 stacked:min-h-[600px]" style={{ width: STACKUP_PX }}>
      {heightPx > 0 && (
        <svg
          width={STACKUP_PX}
          height={heightPx}
          role="group"
          aria-label={label}
          className="absolute inset-0 block touch-none select-none"
          data-stackup
          {...gestures}
        >
          <clipPath id={clip}>
            <rect x={RULER_PX} y={0} width={LABEL_PX - 6 - RULER_PX} height={heightPx} />
          </clipPath>
          <g clipPath={`url(#${clip})`}>
            <Surroundings moment={moment} scale={scale} centre={CENTRE_PX} from={RULER_PX} to={LABEL_PX - 6} setting={setting} />
            <Pieces moment={moment} scale={scale} lit={lit} onPick={onPick} closedOf={closedOf} />
            {across !== null && across.odIn > 0 && <Across moment={moment} scale={scale} across={across} />}
            {lines !== null && <Lines moment={moment} scale={scale} lines={lines} />}
            {onFace !== undefined && <Faces items={moment.items} scale={scale} onFace={onFace} />}
            {pressured !== null && <Pressured scale={scale} {...pressured} />}
          </g>
          <Ruler moment={moment} scale={scale} heightPx={heightPx} />
          <Labels items={moment.items} scale={scale} heightPx={heightPx} lit={lit} onPick={onPick} cut={setting !== "subsea"} />
        </svg>
      )}
    </div>
  );
}

/** The heights in view: fitted anew when another moment, or other heights, stand there. */
function useView(moment: StackMoment, toRotary: boolean): [View, (view: View) => void] {
  const fit = useMemo(() => fitted(moment, toRotary), [moment, toRotary]);
  const key = `${moment.string} ${moment.items.length} ${toRotary}`;
  const [held, setHeld] = useState<{ key: string; view: View } | null>(null);
  return [
    held !== null && held.key === key ? held.view : fit,
    (view) => {
      setHeld({ key, view });
    },
  ];
}

function useGestures(
  box: React.RefObject<HTMLDivElement | null>,
  view: View,
  setView: (view: View) => void,
  heightPx: number,
  onFit: () => void,
) {
  const drag = useRef<{ y: number; view: View; moved: boolean } | null>(null);
  const latest = useRef({ view, setView, heightPx });
  useLayoutEffect(() => {
    latest.current = { view, setView, heightPx };
  });
  useLayoutEffect(() => {
    const node = box.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { view: now, setView: set, heightPx: high } = latest.current;
      const at = scaleOf(now, high).heightAt(event.clientY - node.getBoundingClientRect().top);
      set(zoomedAt(now, at, Math.exp(event.deltaY * WHEEL)));
    };
    node.addEventListener("wheel", onWheel, { passive: false });
    return () => {
      node.removeEventListener("wheel", onWheel);
    };
  }, [box]);
  const middle = (view.bottomIn + view.topIn) / 2;
  return {
    onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
      drag.current = { y: event.clientY, view, moved: false };
    },
    onPointerMove: (event: PointerEvent<SVGSVGElement>) => {
      const held = drag.current;
      if (held === null || event.buttons === 0) return;
      const dy = event.clientY - held.y;
      if (!held.moved && Math.abs(dy) < CLICK_PX) return;
      if (!held.moved) event.currentTarget.setPointerCapture(event.pointerId);
      held.moved = true;
      setView(pannedBy(held.view, dy / scaleOf(held.view, heightPx).pxPerIn));
    },
    onPointerUp: () => {
      drag.current = null;
    },
    onDoubleClick: onFit,
    onKeyDown: (event: KeyboardEvent<SVGSVGElement>) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "+" || event.key === "=") setView(zoomedAt(view, middle, ZOOM));
      else if (event.key === "-") setView(zoomedAt(view, middle, 1 / ZOOM));
      else if (event.key === "0") onFit();
      else if (event.key === "ArrowUp" || event.key === "ArrowDown") step(event, event.key === "ArrowUp" ? 1 : -1);
      else return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}

/** The focus goes to the piece above or below. */
function step(event: KeyboardEvent<SVGSVGElement>, by: number) {
  const pieces = [...event.currentTarget.querySelectorAll<SVGGElement>("[data-piece]")];
  const at = pieces.findIndex((piece) => piece === event.currentTarget.ownerDocument.activeElement);
  pieces[Math.max(0, Math.min(pieces.length - 1, at + by))]?.focus();
}

function Pieces({
  moment,
  scale,
  lit,
  onPick,
  closedOf,
}: DrawnProps & { moment: StackMoment; closedOf?: (item: StackItem) => Closed | null }) {
  const units = useUnits();
  return (
    <>
      {moment.items.map((item, index) => (
        <g
          key={index}
          role="button"
          tabIndex={0}
          data-piece={index}
          data-kind={item.kind}
          aria-pressed={index === lit}
          aria-label={`${item.title}, ${units.text(item.bottom_in, "height")} to ${units.text(item.top_in, "height")}`}
          className="cursor-pointer outline-none focus-visible:[&_*]:stroke-petrol"
          onClick={() => {
            onPick(item, index);
          }}
          onKeyDown={(event) => {
            if (event.key !== "Enter" && event.key !== " ") return;
            event.preventDefault();
            onPick(item, index);
          }}
        >
          <Shape item={item} scale={scale} centre={CENTRE_PX} lit={index === lit} closed={closedOf?.(item) ?? null} />
        </g>
      ))}
    </>
  );
}
