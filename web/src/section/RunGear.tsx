// What stands on the strings in the section: the collar across the bore, and the centralizers in the annulus, to depth.
import { memo } from "react";
import type { RunningRow, StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import type { PathPlan, StringShape } from "./geometry";

interface RunGearProps {
  strings: readonly StringResult[];
  rows: readonly RunningRow[];
  placed: readonly StringShape[];
  scale: DepthScale;
  plan: PathPlan | null;
}

const BOW_PX = 4;
const ON_PATH_PX = 3.5;
/** Closer than this they would run into one another. */
const APART_PX = 3;

export const RunGear = memo(function RunGear({ strings, rows, placed, scale, plan }: RunGearProps) {
  return (
    <g pointerEvents="none">
      {placed.map((shape) => {
        const string = strings[shape.index]!;
        const row = rows[shape.index];
        if (shape.pipe === null || row === undefined) return null;
        const half = plan ? ON_PATH_PX : shape.pipe;
        const x = (md: number) => (plan ? plan.x(md) : shape.centre);
        const bows = apart(
          (row.centralizer_md_ft ?? []).filter((md) => scale.shows(md) && md < string.shoe_md_ft).map((md) => ({ md, y: scale.y(md) })),
        );
        const collar = string.collar_md_ft;
        return (
          <g key={shape.index}>
            <path
              d={bows.map(({ md, y }) => bow(x(md), y, half)).join("")}
              fill="none"
              stroke="var(--petrol)"
              strokeWidth={1}
              data-testid={`centralizers-${shape.index}`}
            />
            {collar != null && collar < string.shoe_md_ft - 0.5 && scale.shows(collar) && row.collar != null && (
              <line
                x1={x(collar) - half}
                x2={x(collar) + half}
                y1={scale.y(collar)}
                y2={scale.y(collar)}
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
            )}
          </g>
        );
      })}
    </g>
  );
});

/** A bow on either side of the pipe. */
function bow(x: number, y: number, half: number): string {
  return [-1, 1]
    .map((side) => {
      const from = (x + side * half).toFixed(1);
      return `M${from},${(y - 2.5).toFixed(1)}q${side * BOW_PX},2.5 0,5`;
    })
    .join("");
}

function apart<T extends { y: number }>(marks: readonly T[]): T[] {
  const kept: T[] = [];
  for (const mark of [...marks].sort((a, b) => a.y - b.y))
    if (kept.length === 0 || mark.y - kept[kept.length - 1]!.y >= APART_PX) kept.push(mark);
  return kept;
}
