// The job at one moment against depth: where each fluid is, inside the pipe and around it.
import { useId } from "react";
import type { JobStage } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Track } from "../../depth/Track";
import { useUnits } from "../../ui/units";
import { FluidPatterns, fluidFill } from "./fluidLook";
import { useMoment } from "./moment";
import { piecesOf } from "./pieces";
import { pressureAt } from "./pressureAt";

export interface JobTrackProps {
  scale: DepthScale;
  widthPx: number;
  stage: JobStage | undefined;
}

const ROOM = 0.94;
const WALL_PX = 1.6;

export function FluidTrack({ scale, widthPx, stage }: JobTrackProps) {
  const units = useUnits();
  const moment = useMoment(stage);
  const widest = Math.max(1, ...(stage?.annulus ?? []).map((s) => s.outer_in));
  const show = (md: number, side: "pipe" | "annulus") => {
    const psi = stage === undefined ? null : pressureAt(stage, moment, md, side);
    return psi === null ? "–" : units.number(psi, "pressure");
  };
  return (
    <Track
      title="Fluids"
      unit={`inside, around; reads ${units.unit("pressure")}`}
      scale={scale}
      widthPx={widthPx}
      domain={[-widest / 2 / ROOM, widest / 2 / ROOM]}
      bare
      read={(md) => (stage === undefined ? null : `in ${show(md, "pipe")} · out ${show(md, "annulus")}`)}
      table={() => ({
        columns: ["Side", "Fluid", `From, ${units.unit("depth")}`, "To", `Pressure at its foot, ${units.unit("pressure")}`],
        rows:
          stage === undefined
            ? []
            : [...piecesOf(stage, moment, "pipe"), ...piecesOf(stage, moment, "annulus")].map((r) => [
                r.side === "pipe" ? "inside" : "annulus",
                r.name,
                units.number(r.top, "depth"),
                units.number(r.base, "depth"),
                units.number(r.psi, "pressure"),
              ]),
      })}
      summary="Where each fluid of the job is at this moment, inside the pipe and in the annulus"
    >
      {(x) => stage && <Drawing stage={stage} moment={moment} x={x} scale={scale} />}
    </Track>
  );
}

interface DrawingProps {
  stage: JobStage;
  moment: number;
  x: (v: number) => number;
  scale: DepthScale;
}

function Drawing({ stage, moment, x, scale }: DrawingProps) {
  const prefix = useId().replace(/:/g, "");
  const y = (md: number) => scale.y(md);
  const level = stage.level_md_ft[moment]!;
  return (
    <>
      <FluidPatterns prefix={prefix} />
      {piecesOf(stage, moment, "annulus").flatMap((piece) =>
        stage.annulus.flatMap((s, k) => {
          const top = Math.max(piece.top, s.top_md_ft);
          const base = Math.min(piece.base, s.base_md_ft);
          return base <= top
            ? []
            : [-1, 1].map((side) => {
                const from = Math.min(x((side * s.inner_in) / 2), x((side * s.outer_in) / 2));
                const width = Math.abs(x(s.outer_in / 2) - x(s.inner_in / 2));
                return (
                  <Box
                    key={`${piece.kind}${piece.top}${k}${side}`}
                    x={from}
                    width={width}
                    y={y(top)}
                    end={y(base)}
                    fill={fluidFill(prefix, piece.kind)}
                  />
                );
              });
        }),
      )}
      {stage.inner &&
        stage.annulus.map((s, k) => (
          <Box
            key={`around${k}`}
            x={x(-s.inner_in / 2)}
            width={x(s.inner_in / 2) - x(-s.inner_in / 2)}
            y={y(s.top_md_ft)}
            end={y(s.base_md_ft)}
            fill={fluidFill(prefix, "mud")}
          />
        ))}
      {piecesOf(stage, moment, "pipe").flatMap((piece) =>
        stage.pipe.map((s, k) => {
          const top = Math.max(piece.top, s.top_md_ft);
          const base = Math.min(piece.base, s.base_md_ft);
          return base <= top ? null : (
            <Box
              key={`${piece.kind}${piece.top}${k}`}
              x={x(-s.outer_in / 2)}
              width={x(s.outer_in / 2) - x(-s.outer_in / 2)}
              y={y(top)}
              end={y(base)}
              fill={fluidFill(prefix, piece.kind)}
            />
          );
        }),
      )}
      <Walls stage={stage} x={x} y={y} />
      {level > 1 && <Level y={y(level)} left={x(-stage.pipe[0]!.outer_in / 2)} right={x(stage.pipe[0]!.outer_in / 2)} />}
      <Plugs stage={stage} moment={moment} x={x} y={y} />
    </>
  );
}

function Box({ x, width, y, end, fill }: { x: number; width: number; y: number; end: number; fill: string }) {
  return <rect x={x} width={Math.max(width, 0)} y={y} height={Math.max(end - y, 0)} style={{ fill }} />;
}

/** The pipe's wall, what is around it, and the place at which the fluids come out. */
function Walls({ stage, x, y }: { stage: JobStage; x: (v: number) => number; y: (md: number) => number }) {
  return (
    <g fill="none" pointerEvents="none">
      {stage.annulus.flatMap((s, k) =>
        [-1, 1].map((side) => (
          <g key={`${k}${side}`}>
            <line
              x1={x((side * s.outer_in) / 2)}
              x2={x((side * s.outer_in) / 2)}
              y1={y(s.top_md_ft)}
              y2={y(s.base_md_ft)}
              stroke="var(--mute)"
              strokeWidth={1}
            />
            <line
              x1={x((side * s.inner_in) / 2)}
              x2={x((side * s.inner_in) / 2)}
              y1={y(s.top_md_ft)}
              y2={y(s.base_md_ft)}
              stroke="var(--steel)"
              strokeWidth={WALL_PX}
            />
          </g>
        )),
      )}
      {[-1, 1].map((side) => {
        const last = stage.annulus[stage.annulus.length - 1]!;
        const at = x((side * last.inner_in) / 2);
        return <path key={side} d={`M${at},${y(stage.end_md_ft) - 8} l0,8 l${side * 5},0 z`} fill="var(--steel)" />;
      })}
      <line
        x1={x(-stage.pipe[stage.pipe.length - 1]!.outer_in / 2)}
        x2={x(stage.pipe[stage.pipe.length - 1]!.outer_in / 2)}
        y1={y(stage.seat_md_ft)}
        y2={y(stage.seat_md_ft)}
        stroke="var(--steel)"
        strokeWidth={2}
        strokeDasharray="3 3"
      />
    </g>
  );
}

function Level({ y, left, right }: { y: number; left: number; right: number }) {
  return (
    <g pointerEvents="none">
      <line x1={left} x2={right} y1={y} y2={y} stroke="var(--gold)" strokeWidth={2} />
      <path d={`M${(left + right) / 2 - 4},${y - 7} l8,0 l-4,6 z`} fill="var(--gold)" />
    </g>
  );
}

/** Rubber plugs on their way down, the bottom one ahead of the first slurry, the top one behind the last; as darts where the plugs
 * wait under a landing string. */
function Plugs({ stage, moment, x, y }: { stage: JobStage; moment: number; x: (v: number) => number; y: (md: number) => number }) {
  const count = stage.fluids.length;
  const md = stage.pipe_md_ft[moment]!;
  // boundaries run down the pipe: that under fluid j is at count - j, that over it one before
  const ahead = md[count - stage.first_slurry]!;
  const behind = md[count - stage.last_slurry - 1]!;
  if (stage.inner || stage.first_slurry === 0) return null;
  const sailing = (at: number) => at > stage.level_md_ft[moment]! + 1;
  const at = (depth: number) => {
    const stretch = stage.pipe.find((s) => depth <= s.base_md_ft + 1e-6) ?? stage.pipe[stage.pipe.length - 1]!;
    return { half: stretch.outer_in / 2, y: y(Math.min(depth, stage.seat_md_ft)) };
  };
  return (
    <g fill="var(--ink)" pointerEvents="none">
      {stage.bottom_plug && sailing(ahead) && <Plug x={x} {...at(ahead)} hollow />}
      {sailing(behind) && <Plug x={x} {...at(behind)} />}
    </g>
  );
}

function Plug({ x, half, y, hollow = false }: { x: (v: number) => number; half: number; y: number; hollow?: boolean }) {
  const width = x(half) - x(-half);
  return (
    <rect
      x={x(-half) + 1}
      y={y - 5}
      width={Math.max(width - 2, 1)}
      height={5}
      rx={1}
      fill={hollow ? "var(--sheet)" : "var(--ink)"}
      stroke="var(--ink)"
      strokeWidth={1.2}
    />
  );
}
