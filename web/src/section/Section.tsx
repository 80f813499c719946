// The well to scale, and the way around it: click a string to work on it, drag, nudge or type over its shoe, its top of
// cement and a liner's top. On top stand the preventers and the wellhead.
import { useId } from "react";
import { useBench, useDrawnStrings, useSnapshot } from "../design/context";
import { ChartTable } from "../depth/ChartTable";
import { setCursor, useCursor } from "../depth/cursor";
import type { DepthScale } from "../depth/scale";
import { HEADER_PX } from "../depth/scale";
import { DEPTH_CLASS } from "../depth/useDepthView";
import { useUnits } from "../ui/units";
import { AXIS_PX, SECTION_PX, pathPlan, shapes } from "./geometry";
import { BreakGrip, ShoeGrip, TopGrip } from "./Grips";
import { SectionDrawing } from "./SectionDrawing";
import { sectionTable } from "./table";
import { TopGear } from "./TopGear";

export function Section({ scale }: { scale: DepthScale }) {
  const evaluated = useSnapshot("evaluation");
  const strings = useDrawnStrings();
  const { selected, select, goTo } = useBench();
  const units = useUnits();
  const prefix = useId();
  if (evaluated === null) return null;
  const evaluation = { ...evaluated, strings };
  const placed = shapes(evaluation.strings, scale);
  const along = scale.axis.kind === "md";
  const plan = along ? null : pathPlan(evaluation.basis, scale);
  const xAt = (mdFt: number, half: number, index: number) => (plan ? plan.x(mdFt) : placed[index]!.centre) + half;
  return (
    <div className="relative shrink-0" style={{ width: SECTION_PX }}>
      <svg
        width={SECTION_PX}
        height={scale.heightPx}
        className={`block select-none ${DEPTH_CLASS}`}
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
        <SectionDrawing
          evaluation={evaluation}
          scale={scale}
          prefix={prefix}
          selected={selected}
          onString={select}
          onZone={(index) => {
            goTo("ground", `/ground/zones/${index}/name`);
          }}
        />
        {scale.topFt === 0 && <TopGear y={HEADER_PX} centre={plan ? plan.x(0) : (placed[0]?.centre ?? 0)} />}
        <SectionCursor scale={scale} />
        {placed.map((shape) => {
          const string = evaluation.strings[shape.index]!;
          const outer = plan ? 10 : Math.max(shape.hole ?? 0, shape.pipe ?? 0);
          return (
            <g key={shape.index}>
              <TopGrip
                index={shape.index}
                string={string}
                scale={scale}
                x={xAt(string.cement_top_md_ft ?? 0, outer, shape.index)}
                what="cement"
              />
              {evaluation.pipe.strings[shape.index]?.chosen &&
                evaluation.pipe.strings[shape.index]!.sections.slice(0, -1).map((part, place) => (
                  <BreakGrip
                    key={place}
                    index={shape.index}
                    place={place}
                    mdFt={part.bottom_md_ft}
                    string={string}
                    scale={scale}
                    x={xAt(part.bottom_md_ft, -(shape.pipe ?? outer), shape.index)}
                  />
                ))}
              {string.run === "liner" && (
                <TopGrip index={shape.index} string={string} scale={scale} x={xAt(string.top_md_ft, outer, shape.index)} what="liner" />
              )}
              {scale.shows(string.shoe_md_ft) && (
                <ShoeGrip shape={shape} string={string} scale={scale} shoeX={xAt(string.shoe_md_ft, -outer, shape.index)} />
              )}
            </g>
          );
        })}
      </svg>
      <ChartTable title="Section of the well" data={() => sectionTable(evaluation, units)} className="absolute top-2 right-2" />
    </div>
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
        {units.number(scale.axis.toAxis(depthFt), "depth", 0)}
      </text>
    </g>
  );
}
