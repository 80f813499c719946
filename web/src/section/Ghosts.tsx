// The plan behind the well as drilled: where a string was to stand that stands elsewhere.
import { useAt, useSnapshot } from "../design/context";
import type { Design, StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { useUnits } from "../ui/units";
import type { StringShape } from "./geometry";

interface GhostsProps {
  strings: readonly StringResult[];
  placed: readonly StringShape[];
  scale: DepthScale;
  xAt: (mdFt: number, half: number, index: number) => number;
}

const TELLING_FT = 10;

export function Ghosts({ strings, placed, scale, xAt }: GhostsProps) {
  const units = useUnits();
  const both = useSnapshot("view") === "both";
  const planned = useAt("/strings") as Design["strings"];
  if (!both || planned.length !== strings.length) return null;
  return (
    <g pointerEvents="none" data-ghosts>
      {placed.map((shape) => {
        const shoe = planned[shape.index]!.shoe_md_ft;
        if (Math.abs(shoe - strings[shape.index]!.shoe_md_ft) < TELLING_FT) return null;
        const half = shape.pipe ?? 8;
        const [left, right, y] = [xAt(shoe, -half, shape.index), xAt(shoe, half, shape.index), scale.y(shoe)];
        return (
          <g key={shape.index}>
            <path
              d={`M${left - 5},${y}H${left}V${scale.y(Math.max(0, shoe - 400))}M${right + 5},${y}H${right}V${scale.y(Math.max(0, shoe - 400))}`}
              fill="none"
              stroke="var(--mute)"
              strokeWidth={1.6}
              strokeDasharray="3 3"
            />
            <text x={right + 8} y={y + 4} fontSize={10.5} className="halo" style={{ fill: "var(--mute)" }}>
              plan {units.number(shoe, "depth")}
            </text>
          </g>
        );
      })}
    </g>
  );
}
