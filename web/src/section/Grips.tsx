// What can be grabbed in the section: the shoe of each string by its label, the tops of liners and of cement, and the
// ends of the sections of a tapered string.
import { useBench } from "../design/context";
import type { StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { useUnits } from "../ui/units";
import type { StringShape } from "./geometry";
import { AXIS_PX, SECTION_PX } from "./geometry";
import { useDepthGrip } from "./useDepthGrip";

function sliderOf(label: string, mdFt: number, totalFt: number, text: string) {
  return {
    tabIndex: 0,
    role: "slider",
    "aria-label": label,
    "aria-orientation": "vertical",
    "aria-valuemin": 0,
    "aria-valuemax": Math.round(totalFt),
    "aria-valuenow": Math.round(mdFt),
    "aria-valuetext": text,
  } as const;
}

interface ShoeGripProps {
  shape: StringShape;
  string: StringResult;
  scale: DepthScale;
  /** Where the shoe itself stands, from which its label hangs. */
  shoeX: number;
}

export function ShoeGrip({ shape, string, scale, shoeX }: ShoeGripProps) {
  const { selected } = useBench();
  const units = useUnits();
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const label = `${size} shoe, ${string.role}`;
  const grip = useDepthGrip("shoe_md_ft", shape.index, scale, label);
  const inHand = selected === shape.index;
  const slider = sliderOf(label, string.shoe_md_ft, scale.axis.totalMdFt, units.text(string.shoe_md_ft, "depth"));
  return (
    <g {...slider} data-shoe={shape.index} className="cursor-ns-resize touch-none" {...grip}>
      <title>Drag, arrow keys, or double click to type</title>
      <line
        x1={AXIS_PX + 60}
        x2={shoeX}
        y1={shape.labelY - 4}
        y2={shape.shoe}
        stroke={inHand ? "var(--petrol)" : "var(--mute)"}
        strokeWidth={0.8}
      />
      <line x1={shoeX} x2={SECTION_PX} y1={shape.shoe} y2={shape.shoe} stroke="transparent" strokeWidth={9} />
      <rect
        x={AXIS_PX + 1}
        y={shape.labelY - 18}
        width={61}
        height={25}
        rx={3}
        fill="var(--sheet)"
        stroke={inHand ? "var(--petrol)" : "var(--rule)"}
        strokeWidth={inHand ? 1.6 : 1}
        strokeDasharray={string.proposed ? "3 2" : undefined}
      />
      <text
        x={AXIS_PX + 58}
        y={shape.labelY - 7}
        fontSize={11.5}
        fontWeight={600}
        textAnchor="end"
        style={{ fill: inHand ? "var(--petrol)" : "var(--ink)" }}
      >
        {size}
      </text>
      <text x={AXIS_PX + 58} y={shape.labelY + 4} fontSize={10.5} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {scale.axis.kind === "md" ? units.text(string.shoe_md_ft, "depth") : `${units.number(string.shoe_md_ft, "depth")} MD`}
      </text>
    </g>
  );
}

interface TopGripProps {
  index: number;
  string: StringResult;
  scale: DepthScale;
  x: number;
  what: keyof typeof TOPS;
}

const TOPS = {
  cement: { words: "Top of cement", key: "cement/top_md_ft", depth: (s: StringResult) => s.cement_top_md_ft },
  tail: { words: "Top of tail", key: "cement/tail_top_md_ft", depth: (s: StringResult) => s.tail_top_md_ft },
  collar: { words: "Stage collar", key: "cement/stage_collar_md_ft", depth: (s: StringResult) => s.stage_collar_md_ft },
  upper: { words: "Upper stage collar", key: "cement/upper_collar_md_ft", depth: (s: StringResult) => s.upper_collar_md_ft },
  liner: { words: "Liner top", key: "hanger_md_ft", depth: (s: StringResult) => s.top_md_ft },
} as const;

/** A small tab beside the string at a top of its cement, at its stage collar, or at the top of a liner. */
export function TopGrip({ index, string, scale, x, what }: TopGripProps) {
  const { selected } = useBench();
  const units = useUnits();
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const { words, key, depth } = TOPS[what];
  const label = `${words}, ${size}`;
  const grip = useDepthGrip(key, index, scale, label);
  const mdFt = depth(string);
  if (mdFt === null || !scale.shows(mdFt)) return null;
  const y = scale.y(mdFt);
  const inHand = selected === index;
  const slider = sliderOf(label, mdFt, scale.axis.totalMdFt, units.text(mdFt, "depth"));
  return (
    <g {...slider} data-grip={`${what}-${index}`} className="group cursor-ns-resize touch-none" {...grip}>
      <title>{`${label}: ${units.text(mdFt, "depth")}`}</title>
      <rect x={x - 5} y={y - 12} width={24} height={24} fill="transparent" />
      <path
        d={what === "collar" ? `M${x - 6},${y - 2} h11 v-3 h10 v9 h-10 v-3 h-11 z` : `M${x},${y} l5,-4 h10 v8 h-10 z`}
        fill={inHand ? "var(--petrol)" : "var(--sheet)"}
        stroke={inHand ? "var(--petrol)" : "var(--mute)"}
      />
    </g>
  );
}

interface BreakGripProps {
  index: number;
  place: number;
  mdFt: number;
  string: StringResult;
  scale: DepthScale;
  x: number;
}

/** Where one pipe of a tapered string gives way to the next. */
export function BreakGrip({ index, place, mdFt, string, scale, x }: BreakGripProps) {
  const { selected } = useBench();
  const units = useUnits();
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const label = `Section ${place + 1} of ${size} ends`;
  const grip = useDepthGrip(`sections/${place}/to_md_ft`, index, scale, label);
  if (!scale.shows(mdFt)) return null;
  const y = scale.y(mdFt);
  const colour = selected === index ? "var(--petrol)" : "var(--mute)";
  return (
    <g
      {...sliderOf(label, mdFt, scale.axis.totalMdFt, units.text(mdFt, "depth"))}
      data-grip={`section-${index}-${place}`}
      className="cursor-ns-resize touch-none"
      {...grip}
    >
      <title>{`${label}: ${units.text(mdFt, "depth")}`}</title>
      <rect x={x - 20} y={y - 12} width={24} height={24} fill="transparent" />
      <path d={`M${x},${y} l-5,-4 h-8 v8 h8 z`} fill="var(--sheet)" stroke={colour} />
    </g>
  );
}
