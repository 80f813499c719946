// The stack-up to scale, from the cellar floor or the deck up, at one moment of the well: click a piece to work on it, a height
// for its sum. Wheel or + − 0 zoom, drag pans, arrows go from piece to piece.
import type { KeyboardEvent, PointerEvent } from "react";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import { useBench, useDocument } from "../design/context";
import type { StackItem, StackMoment } from "../design/types";
import { useUnits } from "../ui/units";
import type { StackScale, View } from "./layout";
import { faces, fitted, pannedBy, scaleOf, spread, zoomedAt } from "./layout";
import type { Closed } from "./shapes";
import { Shape } from "./shapes";
import { Surroundings } from "./Surroundings";

export const STACKUP_PX = 300;
const RULER_PX = 44;
const CENTRE_PX = 118;
const LABEL_PX = 196;
const LABEL_GAP_PX = 25;
const TICK_GAP_PX = 12;
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
  pressured?: { fromIn: number; toIn: number; boreIn: number; tool: string } | null;
  closedOf?: (item: StackItem) => Closed | null;
  toRotary: boolean;
  label: string;
}

export function StackUp({ moment, lit, onPick, across = null, closedOf, pressured = null, toRotary, label }: StackUpProps) {
  const onLand = useDocument((d) => d.site.setting) === "land";
  const box = useRef<HTMLDivElement>(null);
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
    <div ref={box} className="relative min-h-[320px] flex-1" style={{ width: STACKUP_PX }}>
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
          <Surroundings moment={moment} scale={scale} centre={CENTRE_PX} from={RULER_PX} to={LABEL_PX - 6} onLand={onLand} />
          <Pieces moment={moment} scale={scale} lit={lit} onPick={onPick} closedOf={closedOf} />
          {across !== null && across.odIn > 0 && <Across moment={moment} scale={scale} across={across} />}
          {pressured !== null && <Pressured scale={scale} {...pressured} />}
          <Ruler moment={moment} scale={scale} heightPx={heightPx} />
          <Labels items={moment.items} scale={scale} heightPx={heightPx} lit={lit} onPick={onPick} />
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

interface DrawnProps {
  scale: StackScale;
  lit: number | null;
  onPick: (item: StackItem, index: number) => void;
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

/** The pipe through the bore, from the cellar floor to the top of the stack and a little over it. */
function Across({ moment, scale, across }: { moment: StackMoment; scale: StackScale; across: { odIn: number } }) {
  const half = (across.odIn / 2) * scale.pxPerIn;
  const top = scale.y(Math.max(...moment.items.map((item) => item.top_in)) + 12);
  return (
    <g aria-hidden pointerEvents="none" opacity={0.9}>
      <rect
        x={CENTRE_PX - half}
        y={top}
        width={half * 2}
        height={scale.y(-60) - top}
        fill="var(--rule)"
        fillOpacity={0.75}
        stroke="var(--ink)"
      />
    </g>
  );
}

/** The room that a test presses on, on its plug or cup. */
function Pressured({
  scale,
  fromIn,
  toIn,
  boreIn,
  tool,
}: {
  scale: StackScale;
  fromIn: number;
  toIn: number;
  boreIn: number;
  tool: string;
}) {
  const half = (boreIn / 2) * scale.pxPerIn;
  const top = scale.y(toIn);
  const bottom = scale.y(fromIn);
  return (
    <g pointerEvents="none" role="img" aria-label={`pressed from the ${tool} up`}>
      <rect x={CENTRE_PX - half} y={top} width={half * 2} height={bottom - top} fill="var(--brick)" fillOpacity={0.45} />
      <rect x={CENTRE_PX - half * 1.05} y={bottom - 3} width={half * 2.1} height={7} fill="var(--ink)" />
      <rect x={CENTRE_PX - half} y={top - 3} width={half * 2} height={6} fill="var(--petrol)" />
    </g>
  );
}

function Ruler({ moment, scale, heightPx }: { moment: StackMoment; scale: StackScale; heightPx: number }) {
  const units = useUnits();
  const { ask } = useBench();
  const told = faces(moment.items).filter((face) => scale.y(face.heightIn) > -2 && scale.y(face.heightIn) < heightPx + 2);
  const placed = spread(
    told.map((face) => scale.y(face.heightIn)),
    TICK_GAP_PX,
    10,
    heightPx - 4,
  );
  return (
    <g fontSize={10.5} className="tabular-nums">
      {told.map((face, i) => (
        <g
          key={face.title + face.heightIn}
          {...(face.working !== null && {
            role: "button",
            tabIndex: 0,
            className: "cursor-pointer outline-none focus-visible:underline hover:underline",
            "data-working": face.working,
            "aria-label": `top of ${face.title}, ${units.text(face.heightIn, "height")}: show the working`,
            onClick: () => {
              ask(face.working!, `top of ${face.title}`);
            },
            onKeyDown: (event: KeyboardEvent) => {
              if (event.key === "Enter") ask(face.working!, `top of ${face.title}`);
            },
          })}
        >
          <text x={RULER_PX - 6} y={placed[i]! + 3.5} textAnchor="end" style={{ fill: "var(--ink)" }}>
            {units.number(face.heightIn, "height")}
          </text>
          <path d={`M${RULER_PX - 4} ${placed[i]!} L${RULER_PX + 2} ${scale.y(face.heightIn)}`} stroke="var(--mute)" fill="none" />
        </g>
      ))}
    </g>
  );
}

const UNTOLD = new Set(["base plate", "hanger"]);

function Labels({ items, scale, heightPx, lit, onPick }: DrawnProps & { items: readonly StackItem[]; heightPx: number }) {
  const units = useUnits();
  const told = items
    .map((item, index) => ({ item, index, at: (scale.y(item.top_in) + scale.y(Math.max(item.bottom_in, 0))) / 2 }))
    .filter(({ item, at }) => !UNTOLD.has(item.kind) && at > -10 && at < heightPx + 10);
  const placed = spread(
    told.map(({ at }) => at),
    LABEL_GAP_PX,
    12,
    heightPx - 14,
  );
  return (
    <g fontSize={11}>
      {told.map(({ item, index, at }, i) => {
        const edge = CENTRE_PX + Math.min((item.od_in / 2) * scale.pxPerIn, LABEL_PX - CENTRE_PX - 8);
        return (
          <g
            key={index}
            className="cursor-pointer"
            onClick={() => {
              onPick(item, index);
            }}
          >
            <path d={`M${edge} ${at} L${LABEL_PX - 4} ${placed[i]!}`} stroke="var(--mute)" strokeWidth={0.75} fill="none" />
            <text
              x={LABEL_PX}
              y={placed[i]! - 1}
              className="halo font-narrow"
              fontWeight={index === lit ? 600 : 400}
              style={{ fill: "var(--ink)" }}
            >
              {item.title}
            </text>
            <text x={LABEL_PX} y={placed[i]! + 10.5} fontSize={10} className="halo font-narrow" style={{ fill: "var(--mute)" }}>
              {["conductor", "casing"].includes(item.kind)
                ? `cut at ${units.text(item.top_in, "height")}`
                : `${units.text(item.top_in - item.bottom_in, "height")} high`}
            </text>
          </g>
        );
      })}
    </g>
  );
}
