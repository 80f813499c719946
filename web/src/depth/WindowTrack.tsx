// The mud window against depth: pore and fracture, the band between lower and upper bound, and the mud of each hole.
import { scaleLinear } from "d3-scale";
import { useBench, useSnapshot } from "../design/context";
import type { Evaluation } from "../design/types";
import { useUnits } from "../ui/units";
import type { DepthScale } from "./scale";
import { interpolate } from "./scale";
import { Track, line } from "./Track";

interface Series {
  md: number[];
  emw: number[];
}

function series(points: readonly { md_ft: number; emw_ppg: number }[]): Series {
  return { md: points.map((p) => p.md_ft), emw: points.map((p) => p.emw_ppg) };
}

function domainOf(evaluation: Evaluation): [number, number] {
  const values = [
    ...evaluation.ground.pore.map((p) => p.emw_ppg),
    ...evaluation.ground.fracture.map((p) => p.emw_ppg),
    ...evaluation.ground.stability.map((p) => p.emw_ppg),
    ...evaluation.strings.map((s) => s.mud_ppg ?? NaN).filter(Number.isFinite),
  ];
  if (values.length === 0) return [8, 18];
  return [Math.floor(Math.min(...values) - 0.9), Math.ceil(Math.max(...values) + 0.2)];
}

export function mudAt(evaluation: Evaluation, mdFt: number): number | null {
  const string = evaluation.strings.find((s) => s.previous_shoe_md_ft <= mdFt && mdFt <= s.shoe_md_ft);
  return string?.mud_ppg ?? null;
}

export function WindowTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const { evaluation } = useSnapshot();
  const { selected } = useBench();
  const units = useUnits();
  if (evaluation === null) return null;
  const [low, high] = domainOf(evaluation);
  const show = (ppg: number) => units.parse("1", "emw")! && ppg / units.parse("1", "emw")!;
  const pore = series(evaluation.ground.pore);
  const fracture = series(evaluation.ground.fracture);
  const stability = series(evaluation.ground.stability);
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
  return (
    <Track
      title="Mud window"
      unit={`EMW, ${units.unit("emw")}`}
      scale={scale}
      widthPx={widthPx}
      domain={[show(low), show(high)]}
      depthFactor={1 / units.parse("1", "depth")!}
      read={read}
      summary="Mud window against depth: pore pressure, fracture gradient, and the mud weight of each section"
    >
      {(x) => {
        const path = (s: Series) => line(s.md.map((md, i) => [x(show(s.emw[i]!)), scale.y(md)] as const));
        return (
          <>
            <path d={band(evaluation, (ppg) => x(show(ppg)), scale)} fill="var(--window)" />
            <path d={path(pore)} fill="none" stroke="var(--iris)" strokeWidth={1.8} />
            <path d={path(fracture)} fill="none" stroke="var(--rust)" strokeWidth={1.8} strokeDasharray="5 3" />
            {stability.md.length > 1 && <path d={path(stability)} fill="none" stroke="var(--mute)" strokeWidth={1.4} strokeDasharray="2 3" />}
            {evaluation.strings.map(
              (s, i) =>
                s.mud_ppg !== null && (
                  <g key={i}>
                    <line
                      x1={x(show(s.mud_ppg))}
                      x2={x(show(s.mud_ppg))}
                      y1={scale.y(s.previous_shoe_md_ft)}
                      y2={scale.y(s.shoe_md_ft)}
                      stroke="var(--petrol)"
                      strokeWidth={i === selected ? 3.4 : 2.2}
                    />
                    {evaluation.strings[i + 1]?.mud_ppg != null && (
                      <line
                        x1={x(show(s.mud_ppg))}
                        x2={x(show(evaluation.strings[i + 1]!.mud_ppg!))}
                        y1={scale.y(s.shoe_md_ft)}
                        y2={scale.y(s.shoe_md_ft)}
                        stroke="var(--petrol)"
                        strokeWidth={2.2}
                      />
                    )}
                    <text
                      x={x(show(s.mud_ppg)) + 5}
                      y={(scale.y(Math.max(s.previous_shoe_md_ft, scale.topFt)) + scale.y(Math.min(s.shoe_md_ft, scale.bottomFt))) / 2}
                      fontSize={12}
                      fontWeight={600}
                      className="halo"
                      style={{ fill: "var(--petrol)" }}
                    >
                      {units.number(s.mud_ppg, "emw")}
                    </text>
                  </g>
                ),
            )}
            {evaluation.strings.map((s, i) => (
              <line key={i} x1={x(show(low))} x2={x(show(high))} y1={scale.y(s.shoe_md_ft)} y2={scale.y(s.shoe_md_ft)} stroke="var(--mute)" strokeDasharray="1.5 3" />
            ))}
            <Name text="pore" at={pore} x={(v) => x(show(v))} scale={scale} colour="var(--iris)" side={-1} />
            <Name text="fracture" at={fracture} x={(v) => x(show(v))} scale={scale} colour="var(--rust)" side={1} />
          </>
        );
      }}
    </Track>
  );
}

function Name({ text, at, x, scale, colour, side }: { text: string; at: Series; x: (v: number) => number; scale: DepthScale; colour: string; side: 1 | -1 }) {
  const mdFt = scale.topFt + (scale.bottomFt - scale.topFt) * (side < 0 ? 0.33 : 0.42);
  const value = interpolate(at.md, at.emw, mdFt);
  if (value === null) return null;
  return (
    <text x={x(value) + side * 6} y={scale.y(mdFt)} fontSize={11.5} textAnchor={side < 0 ? "end" : "start"} className="halo" style={{ fill: colour }}>
      {text}
    </text>
  );
}

/** The band between the bounds, wherever both are known and the lower is under the upper. */
function band(evaluation: Evaluation, x: (ppg: number) => number, scale: DepthScale): string {
  const runs: { md: number; low: number; high: number }[][] = [[]];
  for (const p of evaluation.ground.window) {
    const open = p.lower_ppg !== null && p.upper_ppg !== null && p.lower_ppg <= p.upper_ppg;
    if (open) runs[runs.length - 1]!.push({ md: p.md_ft, low: p.lower_ppg!, high: p.upper_ppg! });
    else runs.push([]);
  }
  return runs
    .filter((run) => run.length > 1)
    .map((run) => {
      const left = run.map((p) => [x(p.low), scale.y(p.md)] as const);
      const right = [...run].reverse().map((p) => [x(p.high), scale.y(p.md)] as const);
      return `${line([...left, ...right])}Z`;
    })
    .join("");
}

/** A domain from zero to a round number over the values. */
export function fromZero(values: readonly number[], least: number): [number, number] {
  return scaleLinear([0, Math.max(least, ...values)], [0, 1]).nice(4).domain() as [number, number];
}
