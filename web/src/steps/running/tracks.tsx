// What the run looks like against depth: mud outside over mud inside, hook load, speed, and standoff along the hole.
import { scaleLinear } from "d3-scale";
import type { RunTracks } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { interpolate } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { useUnits } from "../../ui/units";

interface TrackProps {
  scale: DepthScale;
  widthPx: number;
  run: RunTracks | undefined;
}

const NONE: readonly number[] = [];

function nice(values: readonly number[], least: number, from = 0): [number, number] {
  return scaleLinear([from, Math.max(least, ...values)], [0, 1])
    .nice(4)
    .domain() as [number, number];
}

interface Curve {
  md: readonly number[];
  values: readonly number[];
  colour: string;
  dashed?: boolean;
  wide?: boolean;
}

function Curves({ curves, x, scale }: { curves: readonly Curve[]; x: (v: number) => number; scale: DepthScale }) {
  return (
    <>
      {curves.map((curve, k) => (
        <path
          key={k}
          d={line(curve.md.map((md, i) => [x(curve.values[i]!), scale.y(md)] as const))}
          fill="none"
          stroke={curve.colour}
          strokeWidth={curve.wide ? 2 : 1.2}
          strokeDasharray={curve.dashed ? "5 3" : undefined}
        />
      ))}
    </>
  );
}

export function FillTrack({ scale, widthPx, run }: TrackProps) {
  const units = useUnits();
  const factor = units.factor("pressure");
  const md = run?.fill.shoe_md_ft ?? NONE;
  const float = run?.fill.float_psi ?? NONE;
  const load = run?.fill.load_psi ?? NONE;
  const allowed = run?.fill.allowed_psi ?? NONE;
  // a rating far beyond the load only squeezes what is to be seen
  const most = Math.max(...load, 100) * 3;
  const show = (v: number | null) => (v === null ? "unknown" : units.number(v, "pressure"));
  return (
    <Track
      title="Before each fill"
      unit={`${units.unit("pressure")} by shoe depth`}
      scale={scale}
      widthPx={widthPx}
      domain={nice(
        [...float, ...load, ...allowed.filter((v) => v < most)].map((v) => v * factor),
        100 * factor,
      )}
      read={(at) => (md.length === 0 ? null : `float ${show(interpolate(md, float, at))} · of ${show(interpolate(md, allowed, at))}`)}
      table={() => ({
        columns: [
          `Shoe, ${units.unit("depth")}`,
          `Empty, ${units.unit("depth")}`,
          `At the float, ${units.unit("pressure")}`,
          "Collapse load",
          "Collapse rating over design factor",
          "Factor",
        ],
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          units.number(run!.fill.empty_ft[i]!, "depth"),
          show(float[i]!),
          show(load[i]!),
          show(allowed[i]!),
          run!.fill.factor[i]?.toFixed(2) ?? "–",
        ]),
      })}
      summary="Differential at the float, and the greatest collapse load with the rating there, against depth of the shoe"
    >
      {(x) => (
        <Curves
          x={x}
          scale={scale}
          curves={[
            { md, values: float.map((v) => v * factor), colour: "var(--petrol)", wide: true },
            { md, values: load.map((v) => v * factor), colour: "var(--ink)" },
            { md, values: allowed.map((v) => v * factor), colour: "var(--brick)", dashed: true, wide: true },
          ]}
        />
      )}
    </Track>
  );
}

export function HookTrack({ scale, widthPx, run }: TrackProps) {
  const units = useUnits();
  const thousands = units.unit("force") === "lbf";
  const factor = units.factor("force") / (thousands ? 1000 : 1);
  const label = thousands ? "klbf" : units.unit("force");
  const hook = run?.hook;
  const md = hook?.shoe_md_ft ?? NONE;
  const of = (values: readonly number[] | undefined) => (values ?? NONE).map((v) => v * factor);
  const limit = hook?.limit_lbf == null ? null : hook.limit_lbf * factor;
  const shown = [...of(hook?.up_lbf), ...of(hook?.flooded_up_lbf), ...(limit === null ? [] : [limit])];
  const least = Math.min(0, ...of(hook?.floated_in_lbf), ...of(hook?.in_lbf));
  const text = (values: readonly number[] | undefined, at: number) => {
    const v = interpolate(md, values ?? NONE, at);
    return v === null ? "–" : (v * factor).toFixed(0);
  };
  return (
    <Track
      title="Hook load"
      unit={hook && hook.block_lbf === null ? `${label}, without block` : `${label} by shoe depth`}
      scale={scale}
      widthPx={widthPx}
      domain={nice(shown, 10, least)}
      read={(at) => (hook ? `in ${text(hook.in_lbf, at)} · up ${text(hook.up_lbf, at)}` : null)}
      table={() => ({
        columns: [
          `Shoe, ${units.unit("depth")}`,
          "Running in",
          "Picking up",
          "Still",
          "Flooded in",
          "Flooded up",
          "Floated in",
          "Floated up",
        ].map((c, i) => (i === 0 ? c : `${c}, ${units.unit("force")}`)),
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          ...[
            hook!.in_lbf,
            hook!.up_lbf,
            hook!.still_lbf,
            hook!.flooded_in_lbf,
            hook!.flooded_up_lbf,
            hook!.floated_in_lbf,
            hook!.floated_up_lbf,
          ].map((v) => units.number(v[i]!, "force")),
        ]),
      })}
      summary="Hook load running in, picking up and standing still against depth of the shoe, with the rig's limit"
    >
      {(x) => (
        <>
          {least < 0 && (
            <line x1={x(0)} x2={x(0)} y1={scale.y(0)} y2={scale.y(md[md.length - 1] ?? 0)} stroke="var(--ink)" strokeWidth={0.8} />
          )}
          <Curves
            x={x}
            scale={scale}
            curves={[
              { md, values: of(hook?.floated_in_lbf), colour: "var(--mute)", dashed: true },
              { md, values: of(hook?.floated_up_lbf), colour: "var(--mute)", dashed: true },
              { md, values: of(hook?.still_lbf), colour: "var(--mute)" },
              { md, values: of(hook?.in_lbf), colour: "var(--petrol)", wide: true },
              { md, values: of(hook?.up_lbf), colour: "var(--ink)", wide: true },
            ]}
          />
          {limit !== null && (
            <line
              x1={x(limit)}
              x2={x(limit)}
              y1={scale.y(0)}
              y2={scale.y(md[md.length - 1] ?? 0)}
              stroke="var(--brick)"
              strokeWidth={1.8}
              strokeDasharray="5 3"
            />
          )}
        </>
      )}
    </Track>
  );
}

export function SpeedTrack({ scale, widthPx, run }: TrackProps) {
  const units = useUnits();
  const factor = units.factor("trip_speed");
  const md = run?.speed?.shoe_md_ft ?? NONE;
  const speed = run?.speed?.ft_min ?? NONE;
  return (
    <Track
      title="Maximum speed"
      unit={`${units.unit("trip_speed")} by shoe depth`}
      scale={scale}
      widthPx={widthPx}
      domain={nice(
        speed.map((v) => v * factor),
        10 * factor,
      )}
      read={(at) => {
        const v = interpolate(md, speed, at);
        return v === null ? null : `${units.number(v, "trip_speed")} ${units.unit("trip_speed")}`;
      }}
      table={() => ({
        columns: [`Shoe, ${units.unit("depth")}`, `Speed, ${units.unit("trip_speed")}`, "Limited by rock at"],
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          units.number(speed[i]!, "trip_speed"),
          units.number(run!.speed!.limit_md_ft[i]!, "depth"),
        ]),
      })}
      summary={run?.speed == null ? "Running speed is unknown" : "Greatest running speed against depth of the shoe"}
    >
      {(x) => <Curves x={x} scale={scale} curves={[{ md, values: speed.map((v) => v * factor), colour: "var(--petrol)", wide: true }]} />}
    </Track>
  );
}

export function StandoffTrack({ scale, widthPx, run }: TrackProps) {
  const units = useUnits();
  const track = run?.standoff;
  const spans = (track?.low_md_ft ?? NONE).map((low, i) => ({
    low,
    high: track!.high_md_ft[i]!,
    bow: track!.at_bow_percent[i] ?? null,
    midway: track!.midway_percent[i] ?? null,
    asked: track!.asked_percent[i]!,
  }));
  const at = (md: number) => spans.find((s) => md <= s.low && md >= s.high);
  const percent = (v: number | null) => (v === null ? "unknown" : `${v.toFixed(0)} %`);
  return (
    <Track
      title="Standoff"
      unit="%, at bow and midway"
      scale={scale}
      widthPx={widthPx}
      domain={[0, 100]}
      read={(md) => {
        const span = at(md);
        return span ? `midway ${percent(span.midway)} · asked ${percent(span.asked)}` : null;
      }}
      table={() => ({
        columns: [`From, ${units.unit("depth")}`, "To", "At the centralizers, %", "Midway, %", "Asked, %"],
        rows: spans.map((s) => [
          units.number(s.high, "depth"),
          units.number(s.low, "depth"),
          percent(s.bow),
          percent(s.midway),
          percent(s.asked),
        ]),
      })}
      summary="Standoff at the centralizers and midway between them along the hole, with what is asked"
    >
      {(x) => (
        <>
          {spans.map((s, i) => (
            <g key={i}>
              {s.midway !== null && s.bow !== null && (
                <path
                  d={line([
                    [x(s.bow), scale.y(s.low)],
                    [x(s.midway), scale.y((s.low + s.high) / 2)],
                    [x(s.bow), scale.y(s.high)],
                  ])}
                  fill="none"
                  stroke={s.midway < s.asked ? "var(--brick)" : "var(--petrol)"}
                  strokeWidth={s.midway < s.asked ? 2 : 1.4}
                />
              )}
              {s.asked > 0 && (
                <line
                  x1={x(s.asked)}
                  x2={x(s.asked)}
                  y1={scale.y(s.high)}
                  y2={scale.y(s.low)}
                  stroke="var(--ink)"
                  strokeDasharray="5 3"
                  strokeWidth={1.2}
                />
              )}
            </g>
          ))}
        </>
      )}
    </Track>
  );
}
