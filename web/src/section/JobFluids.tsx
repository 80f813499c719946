// The cement job at one moment on the section itself: fluids inside the string and around it, the level of a pipe that runs
// empty, and where the annulus is over what the rock stands.
import { useId } from "react";
import { useDrawnStrings } from "../design/context";
import type { Basis, JobStage, StringResult } from "../design/types";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { FluidPatterns, fluidFill } from "../steps/cement/fluidLook";
import { useMoment } from "../steps/cement/moment";
import { type Piece, broken, piecesOf } from "../steps/cement/pieces";
import { useShownJob } from "../steps/cement/shownJob";
import { AXIS_PX, CENTRE, SECTION_PX, halfPxPerInch, pathBetween, pathPlan } from "./geometry";

export function JobFluids({ scale, basis }: { scale: DepthScale; basis: Basis }) {
  const job = useShownJob();
  const strings = useDrawnStrings();
  const prefix = useId().replace(/:/g, "");
  if (job === null || strings[job.string] === undefined) return null;
  return (
    <svg width={SECTION_PX} height={scale.heightPx} className="own-layer pointer-events-none absolute inset-0" data-testid="job-on-section">
      <FluidPatterns prefix={prefix} />
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        <Moment stage={job.stage} strings={strings} scale={scale} basis={basis} prefix={prefix} />
      </DepthClip>
    </svg>
  );
}

interface MomentProps {
  stage: JobStage;
  strings: readonly StringResult[];
  scale: DepthScale;
  basis: Basis;
  prefix: string;
}

/** A length of one fluid in one bore: half widths [px] of what it fills, from the middle out. */
interface Length {
  key: string;
  kind: Piece["kind"];
  top: number;
  base: number;
  inner: number;
  outer: number;
}

function lengthsOf(stage: JobStage, moment: number, side: Piece["side"], perIn: number): Length[] {
  const stretches = side === "pipe" ? stage.pipe : stage.annulus;
  return piecesOf(stage, moment, side).flatMap((piece) =>
    stretches.flatMap((s, k) => {
      const top = Math.max(piece.top, s.top_md_ft);
      const base = Math.min(piece.base, s.base_md_ft);
      const held = { kind: piece.kind, top, base, inner: s.inner_in * perIn, outer: s.outer_in * perIn };
      return base <= top ? [] : [{ key: `${side}${piece.top}${k}`, ...held }];
    }),
  );
}

/** Mud in the casing around an inner string. */
function aroundInner(stage: JobStage, perIn: number): Length[] {
  if (!stage.inner) return [];
  return stage.annulus.map((s) => ({
    ...{ key: `casing${s.top_md_ft}`, kind: "mud" as const, inner: 0, outer: s.inner_in * perIn },
    ...{ top: s.top_md_ft, base: Math.min(s.base_md_ft, stage.seat_md_ft) },
  }));
}

function Moment({ stage, strings, scale, basis, prefix }: MomentProps) {
  const moment = useMoment(stage);
  const plan = scale.axis.kind === "md" ? null : pathPlan(basis, scale);
  const perIn = halfPxPerInch(strings, plan !== null);
  const around = lengthsOf(stage, moment, "annulus", perIn);
  const inside = [...aroundInner(stage, perIn), ...lengthsOf(stage, moment, "pipe", perIn)];
  const level = stage.level_md_ft[moment]!;
  const x = (md: number) => plan?.x(md) ?? CENTRE;
  const fill = (kind: Piece["kind"]) => fluidFill(prefix, kind);
  return (
    <>
      {plan === null
        ? [...around, ...inside].flatMap((p) =>
            (p.inner > 0 ? [-1, 1] : [0]).map((side) => (
              <rect
                key={`${p.key}${side}`}
                x={side === 0 ? CENTRE - p.outer : CENTRE + (side < 0 ? -p.outer : p.inner)}
                width={side === 0 ? 2 * p.outer : p.outer - p.inner}
                y={scale.y(p.top)}
                height={Math.max(scale.y(p.base) - scale.y(p.top), 0)}
                style={{ fill: fill(p.kind) }}
              />
            )),
          )
        : [...around, ...inside].map((p) => (
            <path
              key={p.key}
              d={pathBetween(p.top, p.base, basis, scale, plan)}
              fill="none"
              style={{ stroke: fill(p.kind) }}
              strokeWidth={2 * p.outer}
            />
          ))}
      {plan === null && <Walls stage={stage} perIn={perIn} scale={scale} />}
      {level > 1 && <Level x={x(level)} y={scale.y(level)} half={(inside[0]?.outer ?? 6) + 3} />}
      {broken(stage, moment).map(([top, base]) => (
        <Broken key={top} top={scale.y(top)} base={scale.y(base)} />
      ))}
    </>
  );
}

/** The pipe's own wall, on top of what is in it and around it. */
function Walls({ stage, perIn, scale }: { stage: JobStage; perIn: number; scale: DepthScale }) {
  return (
    <>
      {stage.annulus.flatMap((s) =>
        [-1, 1].map((side) => (
          <line
            key={`${s.top_md_ft}${side}`}
            x1={CENTRE + side * s.inner_in * perIn}
            x2={CENTRE + side * s.inner_in * perIn}
            y1={scale.y(s.top_md_ft)}
            y2={scale.y(s.base_md_ft)}
            stroke="var(--petrol)"
            strokeWidth={1.8}
          />
        )),
      )}
    </>
  );
}

function Level({ x, y, half }: { x: number; y: number; half: number }) {
  return (
    <g>
      <line x1={x - half} x2={x + half} y1={y} y2={y} stroke="var(--gold)" strokeWidth={2} />
      <path d={`M${x - 4},${y - 7} l8,0 l-4,6 z`} fill="var(--gold)" />
    </g>
  );
}

/** Rock that breaks at this moment, across the section. */
function Broken({ top, base }: { top: number; base: number }) {
  const height = Math.max(base - top, 3);
  const y = (top + base) / 2 - height / 2;
  return (
    <g data-testid="breaks">
      <rect x={AXIS_PX} width={SECTION_PX - AXIS_PX} y={y} height={height} fill="var(--brick)" opacity={0.22} />
      <line x1={AXIS_PX} x2={SECTION_PX} y1={y} y2={y} stroke="var(--brick)" strokeWidth={1.4} />
      <line x1={AXIS_PX} x2={SECTION_PX} y1={y + height} y2={y + height} stroke="var(--brick)" strokeWidth={1.4} />
      <text x={AXIS_PX + 4} y={y - 4} fontSize={11.5} fontWeight={600} className="halo" style={{ fill: "var(--brick)" }}>
        breaks
      </text>
    </g>
  );
}
