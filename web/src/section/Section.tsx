// The well to scale: zones by rock, strings telescoping, cement, shoes with their sizes and depths, and on top the
// preventers and wellhead. Click a string to work on it, drag or nudge its label to move the shoe.
import { useId } from "react";
import { useBench, useSnapshot } from "../design/context";
import { setCursor, useCursor } from "../depth/cursor";
import type { DepthScale } from "../depth/scale";
import { FOOTER_PX, HEADER_PX, depthTicks } from "../depth/scale";
import { useUnits } from "../ui/units";
import type { StringShape } from "./geometry";
import { AXIS_PX, SECTION_PX, SHOE_PX, shapes, spread } from "./geometry";
import { RockPatterns } from "./patterns";
import { TopGear } from "./TopGear";
import { DepthClip } from "../depth/DepthClip";
import { DEPTH_CLASS } from "../depth/useDepthView";
import { useShoeDrag } from "./useShoeDrag";

export function Section({ scale }: { scale: DepthScale }) {
  const { evaluation } = useSnapshot();
  const units = useUnits();
  const prefix = useId();
  if (evaluation === null) return null;
  const placed = shapes(evaluation.strings, scale);
  const factor = 1 / units.parse("1", "depth")!;
  return (
    <svg
      width={SECTION_PX}
      height={scale.heightPx}
      className={`block shrink-0 select-none ${DEPTH_CLASS}`}
      role="group"
      aria-label="Section of the well"
      data-testid="section"
      onPointerMove={(event) => {
        setCursor(scale.md(event.clientY - event.currentTarget.getBoundingClientRect().top));
      }}
      onPointerLeave={() => {
        setCursor(null);
      }}
    >
      <RockPatterns prefix={prefix} />
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        <Zones scale={scale} prefix={prefix} />
        {placed.map((shape) => (
          <Hole key={shape.index} shape={shape} />
        ))}
        {placed.map((shape) => (
          <Pipe key={shape.index} shape={shape} prefix={prefix} />
        ))}
        <ZoneLabels scale={scale} />
      </DepthClip>
      {scale.topFt === 0 && <TopGear y={HEADER_PX} shapes={placed} />}
      <text x={AXIS_PX - 6} y={HEADER_PX - 8} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {units.unit("depth")} MD
      </text>
      {depthTicks(scale, factor).map((tick) => (
        <g key={tick.label}>
          <text x={AXIS_PX - 8} y={scale.y(tick.mdFt) + 4} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {tick.label}
          </text>
          <line x1={AXIS_PX - 5} x2={AXIS_PX} y1={scale.y(tick.mdFt)} y2={scale.y(tick.mdFt)} stroke="var(--mute)" />
        </g>
      ))}
      <SectionCursor scale={scale} />
      {placed
        .filter((shape) => scale.shows(evaluation.strings[shape.index]!.shoe_md_ft))
        .map((shape) => (
          <ShoeHandle key={shape.index} shape={shape} scale={scale} />
        ))}
    </svg>
  );
}

function Zones({ scale, prefix }: { scale: DepthScale; prefix: string }) {
  const { evaluation } = useSnapshot();
  const { goTo } = useBench();
  const zones = evaluation!.ground.zones;
  const bottom = scale.heightPx - FOOTER_PX;
  return (
    <g>
      <rect x={AXIS_PX} y={HEADER_PX} width={SECTION_PX - AXIS_PX} height={bottom - HEADER_PX} fill="var(--sheet)" />
      {zones.map((zone) => (
        <rect
          key={zone.index}
          x={AXIS_PX}
          y={scale.y(zone.top_md_ft)}
          width={SECTION_PX - AXIS_PX}
          height={Math.max(0.5, scale.y(zone.base_md_ft) - scale.y(zone.top_md_ft))}
          style={{ fill: `url("#${prefix}-${zone.rock}")` }}
          onClick={() => {
            goTo("ground", `/ground/zones/${zone.index}/name`);
          }}
        />
      ))}
    </g>
  );
}

/** Names of the zones in view, at the middle of what is seen of each. */
function ZoneLabels({ scale }: { scale: DepthScale }) {
  const { evaluation } = useSnapshot();
  const zones = evaluation!.ground.zones.filter((z) => z.base_md_ft > scale.topFt && z.top_md_ft < scale.bottomFt);
  const middles = zones.map((z) => (scale.y(Math.max(z.top_md_ft, scale.topFt)) + scale.y(Math.min(z.base_md_ft, scale.bottomFt))) / 2);
  const labels = spread(middles, 25, scale.heightPx - FOOTER_PX - 12);
  return (
    <g>
      {zones.map((zone, i) => {
        const detail = [...zone.hazards, ...(zone.fluid === "none" ? [] : [zone.fluid])].join(", ");
        return (
          <g key={zone.index} pointerEvents="none">
            <text x={SECTION_PX - 4} y={labels[i]! + (detail ? -1 : 4)} fontSize={11.5} fontWeight={600} textAnchor="end" className="halo">
              {clip(zone.name, 19)}
            </text>
            {detail && (
              <text x={SECTION_PX - 4} y={labels[i]! + 11} fontSize={10.5} textAnchor="end" className="halo" style={{ fill: "var(--mute)" }}>
                {clip(detail, 22)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

function clip(text: string, most: number): string {
  return text.length > most ? `${text.slice(0, most - 1)}…` : text;
}

function Hole({ shape }: { shape: StringShape }) {
  if (shape.hole === null) return null;
  return (
    <rect
      x={shape.centre - shape.hole}
      y={shape.holeTop}
      width={2 * shape.hole}
      height={Math.max(0, shape.shoe - shape.holeTop)}
      fill="var(--hole)"
      pointerEvents="none"
    />
  );
}

function Pipe({ shape, prefix }: { shape: StringShape; prefix: string }) {
  const { selected, select } = useBench();
  if (shape.pipe === null) return null;
  const inHand = selected === shape.index;
  const colour = inHand ? "var(--petrol)" : "var(--steel)";
  const outer = shape.hole ?? shape.pipe;
  return (
    <g>
      {shape.cementTop !== null &&
        outer > shape.pipe &&
        [-1, 1].map((side) => (
          <rect
            key={side}
            x={side < 0 ? shape.centre - outer : shape.centre + shape.pipe!}
            y={shape.cementTop!}
            width={outer - shape.pipe!}
            height={Math.max(0, shape.shoe - shape.cementTop!)}
            style={{ fill: `url("#${prefix}-cement")` }}
            pointerEvents="none"
          />
        ))}
      <rect
        x={shape.centre - shape.pipe}
        y={shape.top}
        width={2 * shape.pipe}
        height={Math.max(0, shape.shoe - shape.top)}
        fill="var(--hole)"
        onClick={() => {
          select(shape.index);
        }}
      />
      {[-1, 1].map((side) => (
        <g key={side} pointerEvents="none">
          <line
            x1={shape.centre + side * shape.pipe!}
            x2={shape.centre + side * shape.pipe!}
            y1={shape.top}
            y2={shape.shoe}
            stroke={colour}
            strokeWidth={inHand ? 2.4 : 1.7}
          />
          <path
            d={`M${shape.centre + side * shape.pipe!},${shape.shoe - 8} l0,8 l${side * SHOE_PX},0 z`}
            fill={colour}
          />
        </g>
      ))}
    </g>
  );
}

function ShoeHandle({ shape, scale }: { shape: StringShape; scale: DepthScale }) {
  const { evaluation } = useSnapshot();
  const { selected } = useBench();
  const units = useUnits();
  const drag = useShoeDrag(shape.index, scale);
  const string = evaluation!.strings[shape.index]!;
  const inHand = selected === shape.index;
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const left = shape.centre - Math.max(shape.hole ?? 0, shape.pipe ?? 0);
  return (
    <g
      tabIndex={0}
      role="slider"
      aria-label={`${size} shoe, ${string.role}`}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={Math.round(scale.totalFt)}
      aria-valuenow={Math.round(string.shoe_md_ft)}
      aria-valuetext={units.text(string.shoe_md_ft, "depth")}
      data-shoe={shape.index}
      className="cursor-ns-resize touch-none"
      {...drag}
    >
      <line x1={AXIS_PX + 60} x2={left} y1={shape.labelY - 4} y2={shape.shoe} stroke={inHand ? "var(--petrol)" : "var(--mute)"} strokeWidth={0.8} />
      <line x1={left} x2={SECTION_PX} y1={shape.shoe} y2={shape.shoe} stroke="transparent" strokeWidth={9} />
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
      <text x={AXIS_PX + 58} y={shape.labelY - 7} fontSize={11.5} fontWeight={600} textAnchor="end" style={{ fill: inHand ? "var(--petrol)" : "var(--ink)" }}>
        {size}
      </text>
      <text x={AXIS_PX + 58} y={shape.labelY + 4} fontSize={10.5} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {units.text(string.shoe_md_ft, "depth")}
      </text>
    </g>
  );
}

function SectionCursor({ scale }: { scale: DepthScale }) {
  const depthFt = useCursor();
  const units = useUnits();
  if (depthFt === null || !scale.shows(depthFt)) return null;
  const y = scale.y(depthFt);
  return (
    <g pointerEvents="none">
      <line x1={AXIS_PX} x2={SECTION_PX} y1={y} y2={y} stroke="var(--gold)" strokeWidth={1.2} />
      <rect x={0} y={y - 9} width={AXIS_PX} height={18} rx={3} fill="var(--gold)" />
      <text x={AXIS_PX - 4} y={y + 4} fontSize={11.5} fontWeight={600} textAnchor="end" style={{ fill: "var(--on-gold)" }}>
        {units.number(depthFt, "depth", 0)}
      </text>
    </g>
  );
}
