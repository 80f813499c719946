// The well as drawn, without anything to grab: zones by rock, strings telescoping along hole or lying along the path in
// the vertical section, cement, and the depth axis.
import { memo } from "react";
import type { Basis, Evaluation, ZoneBand } from "../design/types";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { FOOTER_PX, HEADER_PX, depthTicks } from "../depth/scale";
import { useUnits } from "../ui/units";
import type { StringPath, StringShape } from "./geometry";
import { AXIS_PX, SECTION_PX, SHOE_PX, pathPlan, shapes, spread, stringPaths } from "./geometry";
import { RockPatterns } from "./patterns";
import { Sea } from "./Sea";

/** All of it in one picture, to be looked at. */
export function SectionDrawing({ evaluation, scale, prefix }: { evaluation: Evaluation; scale: DepthScale; prefix: string }) {
  return (
    <>
      <GroundBelow zones={evaluation.ground.zones} scale={scale} prefix={prefix} />
      <Sea basis={evaluation.basis} sea={evaluation.sea} scale={scale} />
      <StringsDrawing evaluation={evaluation} scale={scale} prefix={prefix} />
      <NamesAbove zones={evaluation.ground.zones} basis={evaluation.basis} scale={scale} />
    </>
  );
}

interface GroundBelowProps {
  zones: readonly ZoneBand[];
  scale: DepthScale;
  prefix: string;
  onZone?: (index: number) => void;
}

/** What lies under the strings: zones by rock. A dragged shoe leaves it as it is. */
export const GroundBelow = memo(function GroundBelow({ zones, scale, prefix, onZone }: GroundBelowProps) {
  return (
    <>
      <RockPatterns prefix={prefix} />
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        <Zones zones={zones} scale={scale} prefix={prefix} onZone={onZone} />
      </DepthClip>
    </>
  );
});

interface StringsProps {
  evaluation: Pick<Evaluation, "strings" | "basis">;
  scale: DepthScale;
  prefix: string;
  selected?: number;
  onString?: (index: number) => void;
}

export function StringsDrawing(props: StringsProps) {
  return (
    <DepthClip scale={props.scale} widthPx={SECTION_PX}>
      {props.scale.axis.kind === "md" ? <Telescope {...props} /> : <AlongPath {...props} />}
    </DepthClip>
  );
}

interface NamesAboveProps {
  zones: readonly ZoneBand[];
  basis: Basis;
  scale: DepthScale;
}

/** What is written over the strings: names of zones, and the depth axis. */
export const NamesAbove = memo(function NamesAbove({ zones, basis, scale }: NamesAboveProps) {
  return (
    <>
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        <ZoneLabels zones={zones} scale={scale} />
      </DepthClip>
      <DepthAxisMarks scale={scale} />
      {scale.axis.kind === "tvd" && <Stretch stretch={pathPlan(basis, scale).stretch} />}
    </>
  );
});

function Stretch({ stretch }: { stretch: number }) {
  return (
    <text x={SECTION_PX - 4} y={HEADER_PX - 8} fontSize={10.5} textAnchor="end" style={{ fill: "var(--mute)" }}>
      {stretch > 0.995 ? "departure to scale" : `departure at ${stretch.toFixed(2)} of scale`}
    </text>
  );
}

function DepthAxisMarks({ scale }: { scale: DepthScale }) {
  const units = useUnits();
  return (
    <>
      <text x={AXIS_PX - 6} y={HEADER_PX - 8} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {units.unit("depth")} {scale.axis.kind.toUpperCase()}
      </text>
      {depthTicks(scale, units.factor("depth")).map((tick) => (
        <g key={tick.label}>
          <text x={AXIS_PX - 8} y={tick.y + 4} fontSize={11} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {tick.label}
          </text>
          <line x1={AXIS_PX - 5} x2={AXIS_PX} y1={tick.y} y2={tick.y} stroke="var(--mute)" />
        </g>
      ))}
    </>
  );
}

/** Top and base of a zone on the axis, in pixels. */
export function zoneEdges(zone: ZoneBand, scale: DepthScale): [number, number] {
  return scale.axis.kind === "tvd"
    ? [scale.axisY(zone.top_tvd_ft), scale.axisY(zone.base_tvd_ft)]
    : [scale.y(zone.top_md_ft), scale.y(zone.base_md_ft)];
}

function Zones({ zones, scale, prefix, onZone }: GroundBelowProps) {
  const bottom = scale.heightPx - FOOTER_PX;
  return (
    <g>
      <rect x={AXIS_PX} y={HEADER_PX} width={SECTION_PX - AXIS_PX} height={bottom - HEADER_PX} fill="var(--sheet)" />
      {zones.map((zone) => {
        const [top, base] = zoneEdges(zone, scale);
        return (
          <rect
            key={zone.index}
            x={AXIS_PX}
            y={top}
            width={SECTION_PX - AXIS_PX}
            height={Math.max(0.5, base - top)}
            style={{ fill: `url("#${prefix}-${zone.rock}")` }}
            onClick={() => onZone?.(zone.index)}
          />
        );
      })}
    </g>
  );
}

/** Names of the zones in view, at the middle of what is seen of each. */
function ZoneLabels({ zones, scale }: { zones: readonly ZoneBand[]; scale: DepthScale }) {
  const bottom = scale.heightPx - FOOTER_PX;
  const seen = zones
    .map((zone) => ({ zone, edges: zoneEdges(zone, scale) }))
    .filter(({ edges: [top, base] }) => base > HEADER_PX && top < bottom);
  const middles = seen.map(({ edges: [top, base] }) => (Math.max(top, HEADER_PX) + Math.min(base, bottom)) / 2);
  const labels = spread(middles, 25, bottom - 12);
  return (
    <g>
      {seen.map(({ zone }, i) => {
        const detail = [...zone.hazards, ...(zone.fluid === "none" ? [] : [zone.fluid])].join(", ");
        return (
          <g key={zone.index} pointerEvents="none">
            <text x={SECTION_PX - 4} y={labels[i]! + (detail ? -1 : 4)} fontSize={11.5} fontWeight={600} textAnchor="end" className="halo">
              {clip(zone.name, 19)}
            </text>
            {detail && (
              <text
                x={SECTION_PX - 4}
                y={labels[i]! + 11}
                fontSize={10.5}
                textAnchor="end"
                className="halo"
                style={{ fill: "var(--mute)" }}
              >
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

function Telescope({ evaluation, scale, prefix, selected, onString }: StringsProps) {
  const placed = shapes(evaluation.strings, scale);
  return (
    <>
      {placed.map(
        (shape) =>
          shape.hole !== null && (
            <rect
              key={shape.index}
              x={shape.centre - shape.hole}
              y={shape.holeTop}
              width={2 * shape.hole}
              height={Math.max(0, shape.shoe - shape.holeTop)}
              fill="var(--hole)"
              pointerEvents="none"
            />
          ),
      )}
      {placed.map((shape) => (
        <Pipe key={shape.index} shape={shape} prefix={prefix} inHand={selected === shape.index} onString={onString} />
      ))}
    </>
  );
}

function Pipe({
  shape,
  prefix,
  inHand,
  onString,
}: {
  shape: StringShape;
  prefix: string;
  inHand: boolean;
  onString?: (index: number) => void;
}) {
  const { pipe, cementTop } = shape;
  if (pipe === null) return null;
  const colour = inHand ? "var(--petrol)" : "var(--steel)";
  const outer = shape.hole ?? pipe;
  return (
    <g>
      {cementTop !== null &&
        outer > pipe &&
        [-1, 1].map((side) => (
          <rect
            key={side}
            x={side < 0 ? shape.centre - outer : shape.centre + pipe}
            y={cementTop}
            width={outer - pipe}
            height={Math.max(0, shape.shoe - cementTop)}
            style={{ fill: `url("#${prefix}-cement")` }}
            pointerEvents="none"
          />
        ))}
      <rect
        x={shape.centre - pipe}
        y={shape.top}
        width={2 * pipe}
        height={Math.max(0, shape.shoe - shape.top)}
        fill="var(--hole)"
        onClick={() => onString?.(shape.index)}
      />
      {[-1, 1].map((side) => (
        <g key={side} pointerEvents="none">
          <line
            x1={shape.centre + side * pipe}
            x2={shape.centre + side * pipe}
            y1={shape.top}
            y2={shape.shoe}
            stroke={colour}
            strokeWidth={inHand ? 2.4 : 1.7}
          />
          <path d={`M${shape.centre + side * pipe},${shape.shoe - 8} l0,8 l${side * SHOE_PX},0 z`} fill={colour} />
        </g>
      ))}
    </g>
  );
}

function AlongPath({ evaluation, scale, prefix, selected, onString }: StringsProps) {
  const plan = pathPlan(evaluation.basis, scale);
  const paths = stringPaths(evaluation.strings, evaluation.basis, scale, plan);
  return (
    <>
      {paths.map(
        (path) => path.hole && <path key={path.index} d={path.hole.d} fill="none" stroke="var(--hole)" strokeWidth={path.hole.width} />,
      )}
      {paths.map((path) => (
        <PipeOnPath key={path.index} path={path} prefix={prefix} inHand={selected === path.index} onString={onString} />
      ))}
    </>
  );
}

function PipeOnPath({
  path,
  prefix,
  inHand,
  onString,
}: {
  path: StringPath;
  prefix: string;
  inHand: boolean;
  onString?: (index: number) => void;
}) {
  const { pipe, cement } = path;
  if (pipe === null) return null;
  const wall = inHand ? 2.2 : 1.6;
  return (
    <g fill="none" onClick={() => onString?.(path.index)}>
      {cement && <path d={cement.d} style={{ stroke: `url("#${prefix}-cement")` }} strokeWidth={cement.width} />}
      <path d={pipe.d} stroke={inHand ? "var(--petrol)" : "var(--steel)"} strokeWidth={pipe.width + wall} />
      <path d={pipe.d} stroke="var(--hole)" strokeWidth={Math.max(0.5, pipe.width - wall)} />
    </g>
  );
}
