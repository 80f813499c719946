// A section that is only looked at: one revision, or one of two designs side by side.
import { useId, useLayoutEffect, useRef, useState } from "react";
import { depthAxis, depthScale } from "../depth/scale";
import type { Evaluation } from "../design/types";
import { usePreferences } from "../preferences";
import { SECTION_PX, shapes } from "../section/geometry";
import { SectionDrawing } from "../section/SectionDrawing";
import { useUnits } from "../ui/units";

export function StaticSection({ evaluation, label, totalFt }: { evaluation: Evaluation; label: string; totalFt?: number }) {
  const { axis: kind } = usePreferences();
  const units = useUnits();
  const prefix = useId();
  const box = useRef<HTMLDivElement>(null);
  const [heightPx, setHeight] = useState(0);
  useLayoutEffect(() => {
    const node = box.current!;
    const observer = new ResizeObserver(() => {
      setHeight(node.clientHeight);
    });
    observer.observe(node);
    return () => {
      observer.disconnect();
    };
  }, []);
  const axis = depthAxis(kind, evaluation.basis);
  // two designs hang on one axis, the deeper one's
  const scale = depthScale({ ...axis, totalFt: Math.max(axis.totalFt, totalFt ?? 0) }, heightPx);
  return (
    <div ref={box} className="min-h-0 flex-1">
      {heightPx > 0 && (
        <svg width={SECTION_PX} height={heightPx} role="img" aria-label={label} className="block">
          <SectionDrawing evaluation={evaluation} scale={scale} prefix={prefix} />
          {shapes(evaluation.strings, scale).map((shape) => {
            const string = evaluation.strings[shape.index]!;
            return (
              <text key={shape.index} x={50} y={shape.labelY} fontSize={11.5} className="halo">
                <tspan fontWeight={600}>{string.od_in === null ? string.role : units.text(string.od_in, "size")}</tspan>
                <tspan x={50} dy={11} fontSize={10.5} style={{ fill: "var(--mute)" }}>
                  {units.text(string.shoe_md_ft, "depth")}
                </tspan>
              </text>
            );
          })}
        </svg>
      )}
    </div>
  );
}
