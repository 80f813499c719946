// What is laid over the stack-up: the pipe across it, its lines, its faces, and the room that a test presses on.
import type { StackItem, StackMoment } from "../design/types";
import type { StackScale } from "./layout";
import { CENTRE_PX, LABEL_PX, RULER_PX } from "./layout";

export interface LinesAt {
  choke: number | null;
  kill: number | null;
}

export interface PressuredRoom {
  fromIn: number;
  toIn: number;
  boreIn: number;
  tool: string;
}

/** The pipe through the bore, from the cellar floor to the top of the stack and a little over it. */
export function Across({ moment, scale, across }: { moment: StackMoment; scale: StackScale; across: { odIn: number } }) {
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

const FACE_PX = 8;

/** The top faces of the wellhead's pieces, to be asked what must stand there. */
export function Faces({ items, scale, onFace }: { items: readonly StackItem[]; scale: StackScale; onFace: (item: StackItem) => void }) {
  const pieces = items.filter(
    (item) => item.place.startsWith("/wellhead/pieces") && item.kind !== "tree" && item.kind !== "hanger" && item.kind !== "seal",
  );
  return (
    <>
      {pieces.map((item) => (
        <rect
          key={item.title + item.top_in}
          role="button"
          tabIndex={0}
          data-face={item.title}
          aria-label={`top face of ${item.title}: what stands there`}
          className="cursor-pointer fill-transparent outline-none hover:fill-petrol/40 focus-visible:fill-petrol/40"
          x={CENTRE_PX - (item.od_in / 2) * scale.pxPerIn}
          y={scale.y(item.top_in) - FACE_PX / 2}
          width={item.od_in * scale.pxPerIn}
          height={FACE_PX}
          onClick={() => {
            onFace(item);
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter") onFace(item);
          }}
        />
      ))}
    </>
  );
}

const VALVE_PX = 5;

/** Choke line to the right and kill line to the left of their elements, each with its two valves. */
export function Lines({ moment, scale, lines }: { moment: StackMoment; scale: StackScale; lines: LinesAt }) {
  const stack = moment.items.filter((item) => item.step === "preventers");
  return (
    <g aria-hidden fontSize={10} className="font-narrow">
      {(["kill", "choke"] as const).map((name) => {
        const item = stack.find((one) => one.element === lines[name]);
        if (item === undefined) return null;
        const side = name === "kill" ? -1 : 1;
        const y = scale.y((item.bottom_in + item.top_in) / 2);
        const from = CENTRE_PX + side * (item.od_in / 2) * scale.pxPerIn * 0.72;
        const end = name === "kill" ? RULER_PX + 4 : LABEL_PX - 8;
        return (
          <g key={name} stroke="var(--ink)" fill="var(--mute)">
            <path d={`M${from} ${y} H${end}`} strokeWidth={2} fill="none" />
            {[0.34, 0.62].map((share) => {
              const x = from + (end - from) * share;
              return (
                <path
                  key={share}
                  strokeWidth={0.75}
                  d={`M${x - VALVE_PX} ${y - VALVE_PX} L${x + VALVE_PX} ${y + VALVE_PX} V${y - VALVE_PX} L${x - VALVE_PX} ${y + VALVE_PX} Z`}
                />
              );
            })}
            <text
              x={end}
              y={y - 7}
              textAnchor={name === "kill" ? "start" : "end"}
              stroke="none"
              className="halo"
              style={{ fill: "var(--mute)" }}
            >
              {name}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** The room that a test presses on, on its plug or cup. */
export function Pressured({
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
