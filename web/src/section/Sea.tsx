// What stands over the sea floor: water, the riser with its telescopic joint, and the stack on the wellhead.
import { memo } from "react";
import type { Evaluation } from "../design/types";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { AXIS_PX, CENTRE, SECTION_PX, pathPlan } from "./geometry";

/** Half widths in pixels: none of these is to the scale of the casings. */
const HALF = { riser: 6, telescopic: 9, package: 13, stack: 16, housing: 10 };
const LEAST_STACK_PX = 14;

interface SeaProps {
  basis: Evaluation["basis"];
  sea: Evaluation["sea"];
  scale: DepthScale;
  onStack?: () => void;
}

export const Sea = memo(function Sea({ basis, sea, scale, onStack }: SeaProps) {
  if (!basis.at_sea) return null;
  const level = scale.y(basis.sea_level_md_ft);
  const floor = scale.y(basis.ground_md_ft);
  const centre = scale.axis.kind === "md" ? CENTRE : pathPlan(basis, scale).x(0);
  return (
    <DepthClip scale={scale} widthPx={SECTION_PX}>
      <g pointerEvents="none">
        <rect x={AXIS_PX} y={level} width={SECTION_PX - AXIS_PX} height={Math.max(0, floor - level)} fill="var(--water)" />
        <path d={waves(level)} fill="none" stroke="var(--petrol)" strokeWidth={1.1} />
        <line x1={AXIS_PX} x2={SECTION_PX} y1={floor} y2={floor} stroke="var(--ink)" strokeWidth={1.2} />
        {sea.riser != null && (
          <RiserAndStack riser={sea.riser} onStack={onStack} scale={scale} centre={centre} floor={floor} level={level} />
        )}
        <Words level={level} floor={floor} />
      </g>
    </DepthClip>
  );
});

function RiserAndStack({
  riser,
  scale,
  centre,
  floor,
  level,
  onStack,
}: {
  onStack?: () => void;
  riser: NonNullable<Evaluation["sea"]["riser"]>;
  scale: DepthScale;
  centre: number;
  floor: number;
  level: number;
}) {
  const housing = Math.min(scale.y(riser.housing_md_ft), floor - 3);
  // too low to be seen at the scale of the well: drawn a few pixels high
  const top = Math.min(scale.y(riser.stack_top_md_ft), housing - LEAST_STACK_PX);
  const foot = Math.min(scale.y(riser.foot_md_ft), top - 4);
  const telescopic = scale.y(riser.top_md_ft);
  return (
    <g>
      <rect
        x={centre - HALF.riser}
        y={scale.y(0)}
        width={2 * HALF.riser}
        height={Math.max(0, foot - scale.y(0))}
        fill="var(--hole)"
        stroke="var(--steel)"
        strokeWidth={1.4}
      />
      <rect
        x={centre - HALF.telescopic}
        y={Math.min(level, telescopic) - 2}
        width={2 * HALF.telescopic}
        height={Math.max(4, telescopic - level + 4)}
        fill="var(--mute)"
      />
      <rect x={centre - HALF.package} y={foot} width={2 * HALF.package} height={Math.max(3, (housing - foot) * 0.4)} fill="var(--mute)" />
      <rect
        x={centre - HALF.stack}
        y={foot + (housing - foot) * 0.4}
        width={2 * HALF.stack}
        height={Math.max(3, (housing - foot) * 0.6)}
        fill="var(--steel)"
        pointerEvents={onStack && "auto"}
        className={onStack && "cursor-pointer"}
        onClick={onStack}
      >
        <title>Stack on the sea floor</title>
      </rect>
      <rect x={centre - HALF.housing} y={housing} width={2 * HALF.housing} height={Math.max(2, floor - housing)} fill="var(--mute)" />
    </g>
  );
}

function Words({ level, floor }: { level: number; floor: number }) {
  return (
    <>
      <text x={SECTION_PX - 4} y={level + 13} fontSize={10.5} textAnchor="end" className="halo" style={{ fill: "var(--mute)" }}>
        sea level
      </text>
      {floor - level > 34 && (
        <text x={SECTION_PX - 4} y={floor - 5} fontSize={10.5} textAnchor="end" className="halo" style={{ fill: "var(--mute)" }}>
          mudline
        </text>
      )}
    </>
  );
}

function waves(y: number): string {
  const steps = Math.floor((SECTION_PX - AXIS_PX) / 16);
  return `M${AXIS_PX},${y}` + Array.from({ length: steps }, () => "q4,-3 8,0q4,3 8,0").join("");
}
