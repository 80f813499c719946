// The mud window against depth: pore and fracture, the band between lower and upper bound, and the mud of each hole.
import type { ReactNode } from "react";
import { memo } from "react";
import { useSnapshot } from "../design/context";
import { useGroundDrawing } from "../design/drawings";
import type { Evaluation, GroundDrawing } from "../design/types";
import { useUnits } from "../ui/units";
import type { TableData } from "./ChartTable";
import { usePreferences } from "../preferences";
import { PressureTrack, WindowSwitch } from "./PressureTrack";
import { mudAt } from "./reading";
import { Muds } from "./Muds";
import type { DepthScale } from "./scale";
import { interpolate } from "./scale";
import type { HorizontalScale } from "./Track";
import { Track, line } from "./Track";

const NOTHING: GroundDrawing = { pore: [], fracture: [], stability: [], window: [], pressures: [] };

interface Series {
  md: number[];
  emw: number[];
}

function series(points: readonly { md_ft: number; emw_ppg: number }[]): Series {
  return { md: points.map((p) => p.md_ft), emw: points.map((p) => p.emw_ppg) };
}

function domainOf(evaluation: Evaluation, ground: GroundDrawing): [number, number] {
  const values = [
    ...ground.pore.map((p) => p.emw_ppg),
    ...ground.fracture.map((p) => p.emw_ppg),
    ...ground.stability.map((p) => p.emw_ppg),
    ...evaluation.strings.map((s) => s.mud_ppg ?? NaN).filter(Number.isFinite),
  ];
  if (values.length === 0) return [8, 18];
  return [Math.floor(Math.min(...values) - 0.9), Math.ceil(Math.max(...values) + 0.2)];
}

interface WindowTrackProps {
  scale: DepthScale;
  widthPx: number;
  /** What can be grabbed in the track; `x` takes ppg. */
  grips?: (x: (ppg: number) => number, ppgAt: (px: number) => number) => ReactNode;
}

export function WindowTrack(props: WindowTrackProps) {
  const { window } = usePreferences();
  return window === "pressure" ? <PressureTrack scale={props.scale} widthPx={props.widthPx} /> : <EmwTrack {...props} />;
}

function EmwTrack({ scale, widthPx, grips }: WindowTrackProps) {
  const evaluation = useSnapshot("evaluation");
  const ground = useGroundDrawing() ?? NOTHING;
  const units = useUnits();
  if (evaluation === null) return null;
  const [low, high] = domainOf(evaluation, ground);
  const show = (ppg: number) => ppg * units.factor("emw");
  const pore = series(ground.pore);
  const fracture = series(ground.fracture);
  const stability = series(ground.stability);
  const read = (mdFt: number) => {
    const parts: string[] = [];
    for (const [name, value] of [
      ["pore", interpolate(pore.md, pore.emw, mdFt)],
      ["mud", mudAt(evaluation, mdFt)],
      ["frac", interpolate(fracture.md, fracture.emw, mdFt)],
    ] as const) {
      if (value !== null) parts.push(`${name} ${units.number(value, "emw")}`);
    }
    return parts.length ? parts.join(" · ") : null;
  };
  const table = (): TableData => {
    const depths = [...new Set([...pore.md, ...fracture.md, ...stability.md, ...evaluation.strings.map((s) => s.shoe_md_ft)])].sort(
      (a, b) => a - b,
    );
    const cell = (value: number | null) => (value === null ? "unknown" : units.number(value, "emw"));
    const bound = (md: number, key: "lower_ppg" | "upper_ppg") => {
      const known = ground.window.filter((p) => p[key] !== null);
      return interpolate(
        known.map((p) => p.md_ft),
        known.map((p) => p[key]!),
        md,
      );
    };
    return {
      columns: [`MD, ${units.unit("depth")}`, `pore, ${units.unit("emw")}`, "least mud", "mud", "greatest mud", "fracture"],
      rows: depths.map((md) => [
        units.number(md, "depth"),
        cell(interpolate(pore.md, pore.emw, md)),
        cell(bound(md, "lower_ppg")),
        cell(mudAt(evaluation, md)),
        cell(bound(md, "upper_ppg")),
        cell(interpolate(fracture.md, fracture.emw, md)),
      ]),
    };
  };
  return (
    <Track
      title="Mud window"
      unit={`EMW, ${units.unit("emw")}`}
      scale={scale}
      widthPx={widthPx}
      domain={[show(low), show(high)]}
      read={read}
      table={table}
      graspable
      action={<WindowSwitch />}
      summary="Mud window against depth: pore pressure, fracture gradient, and the mud weight of each section"
      grips={
        grips &&
        ((x) =>
          grips(
            (ppg) => x(show(ppg)),
            (px) => x.invert(px) / units.factor("emw"),
          ))
      }
    >
      {(x: HorizontalScale) => {
        const at = (ppg: number) => x(show(ppg));
        return (
          <>
            <Profiles ground={ground} scale={scale} zeroPx={at(0)} ppgPx={at(1) - at(0)} />
            <Muds at={at} ppgAt={(px) => x.invert(px) / units.factor("emw")} scale={scale} />
            {evaluation.strings.map((s, i) => (
              <line
                key={i}
                x1={at(low)}
                x2={at(high)}
                y1={scale.y(s.shoe_md_ft)}
                y2={scale.y(s.shoe_md_ft)}
                stroke="var(--mute)"
                strokeDasharray="1.5 3"
              />
            ))}
            <Name text="pore" of={pore} at={at} scale={scale} colour="var(--iris)" side={-1} />
            <Name text="fracture" of={fracture} at={at} scale={scale} colour="var(--rust)" side={1} />
          </>
        );
      }}
    </Track>
  );
}

interface ProfilesProps {
  ground: GroundDrawing;
  scale: DepthScale;
  /** Where 0 ppg would lie, and the width of 1 ppg. */
  zeroPx: number;
  ppgPx: number;
}

/** Window and profiles: they follow the ground alone, so a dragged shoe or mud leaves them as they are. */
const Profiles = memo(function Profiles({ ground, scale, zeroPx, ppgPx }: ProfilesProps) {
  const at = (ppg: number) => zeroPx + ppg * ppgPx;
  const path = (points: GroundDrawing["pore"]) => line(points.map((p) => [at(p.emw_ppg), scale.y(p.md_ft)] as const));
  return (
    <>
      <path d={band(ground, at, scale)} fill="var(--window)" />
      <path d={path(ground.pore)} fill="none" stroke="var(--iris)" strokeWidth={1.8} />
      <path d={path(ground.fracture)} fill="none" stroke="var(--rust)" strokeWidth={1.8} strokeDasharray="5 3" />
      {ground.stability.length > 1 && (
        <path d={path(ground.stability)} fill="none" stroke="var(--mute)" strokeWidth={1.4} strokeDasharray="2 3" />
      )}
    </>
  );
});

interface NameProps {
  text: string;
  of: Series;
  at: (ppg: number) => number;
  scale: DepthScale;
  colour: string;
  side: 1 | -1;
}

function Name({ text, of, at, scale, colour, side }: NameProps) {
  const y = scale.axisY(scale.topFt + (scale.bottomFt - scale.topFt) * (side < 0 ? 0.33 : 0.42));
  const value = interpolate(of.md, of.emw, scale.md(y));
  if (value === null) return null;
  const px = at(value) + side * 6;
  return (
    <text
      x={side < 0 ? Math.max(px, 34) : px}
      y={y}
      fontSize={11.5}
      textAnchor={side < 0 ? "end" : "start"}
      className="halo"
      style={{ fill: colour }}
    >
      {text}
    </text>
  );
}

/** The band between the bounds, wherever both are known and the lower is under the upper. */
function band(ground: GroundDrawing, at: (ppg: number) => number, scale: DepthScale): string {
  const runs: { md: number; low: number; high: number }[][] = [[]];
  for (const p of ground.window) {
    const open = p.lower_ppg !== null && p.upper_ppg !== null && p.lower_ppg <= p.upper_ppg;
    if (open) runs[runs.length - 1]!.push({ md: p.md_ft, low: p.lower_ppg!, high: p.upper_ppg! });
    else runs.push([]);
  }
  return runs
    .filter((run) => run.length > 1)
    .map((run) => {
      const left = run.map((p) => [at(p.low), scale.y(p.md)] as const);
      const right = [...run].reverse().map((p) => [at(p.high), scale.y(p.md)] as const);
      return `${line([...left, ...right])}Z`;
    })
    .join("");
}
