// Plugs that are left in the well, where they stand; the top and the bottom of each can be dragged. The first drag of a
// proposed plug decides them all.
import { useId } from "react";
import { useBench, useDocument, useEvaluated } from "../design/context";
import { read } from "../design/pointer";
import type { Basis, LeavingRow, LeftPlug, StringResult } from "../design/types";
import { setCursor } from "../depth/cursor";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { restingDepth } from "../depth/snapping";
import { useGrip } from "../depth/useGrip";
import { FluidPatterns, fluidFill } from "../steps/cement/fluidLook";
import type { Way } from "../steps/completion/shownState";
import { useUnits } from "../ui/units";
import { Fill } from "./fills";
import { CENTRE, SECTION_PX, halfPxPerInch, pathPlan } from "./geometry";

interface Props {
  scale: DepthScale;
  basis: Basis;
  strings: readonly StringResult[];
  way: Way;
}

const LEAST_FT = 10;
const GRIP_PX = 46;

export function PlugsOnSection({ scale, basis, strings, way }: Props) {
  const row = useEvaluated((e) => e.completion[way]);
  const decided = useDocument((d) => d.completion[way].plugs);
  const prefix = useId().replace(/:/g, "");
  if (row == null) return null;
  // depths follow the hand, ahead of the evaluation
  const plugs = row.plugs.map((plug, i) => {
    const own = decided.length === row.plugs.length ? decided[i]! : plug;
    return { ...plug, top_md_ft: own.top_md_ft, bottom_md_ft: own.bottom_md_ft };
  });
  const perIn = halfPxPerInch(strings, scale.axis.kind !== "md");
  return (
    <>
      <FluidPatterns prefix={prefix} />
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        {plugs.map((plug) => (
          <Plug key={plug.id} plug={plug} strings={strings} perIn={perIn} scale={scale} basis={basis} fill={fluidFill(prefix, "tail")} />
        ))}
        <CutMark row={row} way={way} scale={scale} />
      </DepthClip>
      <g className="pointer-events-auto">
        {plugs.flatMap((plug, index) =>
          (["top_md_ft", "bottom_md_ft"] as const).map((end) => (
            <PlugGrip key={plug.id + end} row={row} way={way} plug={plug} index={index} end={end} scale={scale} basis={basis} />
          )),
        )}
      </g>
    </>
  );
}

interface PlugProps {
  plug: LeftPlug;
  strings: readonly StringResult[];
  perIn: number;
  scale: DepthScale;
  basis: Basis;
  fill: string;
}

function Plug({ plug, strings, perIn, scale, basis, fill }: PlugProps) {
  const inside = strings.filter((s) => s.od_in !== null && s.shoe_md_ft > plug.top_md_ft && s.top_md_ft <= plug.top_md_ft);
  const hole = strings.find((s) => s.shoe_md_ft >= plug.bottom_md_ft);
  const wide = plug.inside === "casing" ? (inside[inside.length - 1]?.od_in ?? 7) : (plug.volumes?.hole_in ?? hole?.bit_in ?? 8.5);
  const span = { scale, basis, inner: 0, outer: wide * perIn };
  return (
    <g data-plug={plug.id}>
      <title>{plug.name}</title>
      <Fill {...span} from={plug.top_md_ft} to={plug.bottom_md_ft} fill="var(--fluid-tail)" />
      <Fill {...span} from={plug.top_md_ft} to={plug.bottom_md_ft} fill={fill} stroke="var(--ink)" />
      {plug.base === "mechanical plug" && <Fill {...span} from={plug.bottom_md_ft} to={plug.bottom_md_ft + 1} fill="var(--ink)" />}
    </g>
  );
}

/** Where the casing is cut. */
function CutMark({ row, way, scale }: { row: LeavingRow; way: Way; scale: DepthScale }) {
  if (way !== "abandonment") return null;
  const y = scale.y(row.cut_md_ft);
  return <path d={`M${CENTRE - 54},${y} h108`} stroke="var(--brick)" strokeWidth={1.6} strokeDasharray="6 3" />;
}

interface GripProps {
  row: LeavingRow;
  way: Way;
  plug: LeftPlug;
  index: number;
  end: "top_md_ft" | "bottom_md_ft";
  scale: DepthScale;
  basis: Basis;
}

function PlugGrip({ row, way, plug, index, end, scale, basis }: GripProps) {
  const { session, typeOver } = useBench();
  const units = useUnits();
  const path = `/completion/${way}/plugs`;
  const words = end === "top_md_ft" ? "Top" : "Bottom";
  const label = `${words} of ${plug.name}`;
  const held = () => {
    const decided = read(session.snapshot().document, `${path}/${index}/${end}`);
    return typeof decided === "number" ? decided : plug[end];
  };
  const commit = (value: number) => {
    const adopted = row.proposed ? [{ path, value: row.proposal }] : [];
    session.edit([...adopted, { path: `${path}/${index}/${end}`, value }]);
  };
  const move = (mdFt: number) => {
    const { document } = session.snapshot();
    const other = end === "top_md_ft" ? "bottom_md_ft" : "top_md_ft";
    const decided = read(document, `${path}/${index}/${other}`);
    const limit = typeof decided === "number" ? decided : plug[other];
    const to =
      end === "top_md_ft"
        ? Math.min(Math.max(mdFt, basis.ground_md_ft), limit - LEAST_FT)
        : Math.min(Math.max(mdFt, limit + LEAST_FT), basis.total_md_ft);
    if (to !== held()) commit(to);
    setCursor(to);
  };
  const grip = useGrip<number>({
    held,
    take: () => undefined,
    drag: (start, from, to, free) => {
      const moved = scale.md(scale.y(start) + to.y - from.y);
      const marks = row.needs.flatMap((n) => [n.top_md_ft, n.bottom_md_ft]);
      move(restingDepth(moved, marks, scale, units, free));
    },
    nudge: (from, _, down) => {
      if (down !== 0) move(units.snapDepth(from + down * units.depthStepFt()));
    },
    type: (box, first) => {
      typeOver({ box, label, quantity: "depth", value: held(), first, commit });
    },
  });
  const md = plug[end];
  if (!scale.shows(md)) return null;
  const y = scale.y(md);
  const x = scale.axis.kind === "md" ? CENTRE + GRIP_PX : pathPlan(basis, scale).x(md) + 16;
  return (
    <g
      tabIndex={0}
      role="slider"
      aria-label={label}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={Math.round(basis.total_md_ft)}
      aria-valuenow={Math.round(md)}
      aria-valuetext={units.text(md, "depth")}
      data-grip={`plug-${index}-${end}`}
      className="cursor-ns-resize touch-none"
      {...grip}
    >
      <title>{`${label}: ${units.text(md, "depth")}`}</title>
      <rect x={x - 6} y={end === "top_md_ft" ? y - 18 : y - 6} width={24} height={24} fill="transparent" />
      <path d={end === "top_md_ft" ? `M${x},${y} l5,-8 h9 v8 z` : `M${x},${y} l5,8 h9 v-8 z`} fill="var(--sheet)" stroke="var(--petrol)" />
    </g>
  );
}
