// Heights at the left of the stack-up, each opening into its sum, and the names of its pieces at the right.
import type { KeyboardEvent } from "react";
import { useBench } from "../design/context";
import type { StackItem, StackMoment } from "../design/types";
import { useUnits } from "../ui/units";
import type { StackScale } from "./layout";
import { CENTRE_PX, faces, LABEL_PX, RULER_PX, spread } from "./layout";

const LABEL_GAP_PX = 25;
const TICK_GAP_PX = 12;
const UNTOLD = new Set(["base plate", "hanger", "seal"]);

export interface DrawnProps {
  scale: StackScale;
  lit: number | null;
  onPick: (item: StackItem, index: number) => void;
}

export function Ruler({ moment, scale, heightPx }: { moment: StackMoment; scale: StackScale; heightPx: number }) {
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

interface LabelsProps extends DrawnProps {
  items: readonly StackItem[];
  heightPx: number;
  /** Strings are cut to their height; on the sea floor they end in a hanger. */
  cut: boolean;
}

export function Labels({ items, scale, heightPx, lit, onPick, cut }: LabelsProps) {
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
                ? `${cut ? "cut at" : "up to"} ${units.text(item.top_in, "height")}`
                : item.note.length > 0
                  ? units.words(item.note)
                  : `${units.text(item.top_in - item.bottom_in, "height")} high`}
            </text>
          </g>
        );
      })}
    </g>
  );
}
