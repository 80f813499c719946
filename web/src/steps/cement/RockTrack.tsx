// The annulus beside the rock it stands in, at one moment of the job and over all of it.
import { scaleLinear } from "d3-scale";
import { interpolate } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { useUnits } from "../../ui/units";
import type { JobTrackProps } from "./FluidTrack";
import { useMoment } from "./moment";

export function RockTrack({ scale, widthPx, stage }: JobTrackProps) {
  const units = useUnits();
  const moment = useMoment(stage);
  const rock = stage?.rock ?? null;
  const factor = units.factor("emw");
  const md = rock?.md_ft ?? [];
  const now = rock?.now_ppg[moment] ?? [];
  const known = (values: readonly (number | null)[]) => values.filter((v): v is number => v !== null);
  const all = rock === null ? [8, 16] : [...rock.greatest_ppg, ...rock.least_ppg, ...known(rock.fracture_ppg), ...known(rock.pore_ppg)];
  const domain = scaleLinear([Math.min(...all) * factor, Math.max(...all) * factor], [0, 1])
    .nice(4)
    .domain() as [number, number];
  const text = (values: readonly (number | null)[], at: number) => {
    const v = interpolate(
      md,
      values.map((w) => w ?? NaN),
      at,
    );
    return v === null || Number.isNaN(v) ? "–" : units.number(v, "emw");
  };
  const curve = (values: readonly (number | null)[], x: (v: number) => number) =>
    line(md.flatMap((depth, i) => (values[i] == null ? [] : [[x(values[i] * factor), scale.y(depth)] as const])));
  return (
    <Track
      title="Annulus and rock"
      unit={`${units.unit("emw")}, now and whole job`}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      read={(at) =>
        rock === null || interpolate(md, now, at) === null ? null : `now ${text(now, at)} · breaks ${text(rock.fracture_ppg, at)}`
      }
      table={() => ({
        columns: [`Depth, ${units.unit("depth")}`, `Pore, ${units.unit("emw")}`, "Least", "Now", "Greatest", "Fracture"],
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          units.number(rock!.pore_ppg[i] ?? null, "emw"),
          units.number(rock!.least_ppg[i]!, "emw"),
          units.number(now[i] ?? null, "emw"),
          units.number(rock!.greatest_ppg[i]!, "emw"),
          units.number(rock!.fracture_ppg[i] ?? null, "emw"),
        ]),
      })}
      summary="Equivalent weight of the annulus along the open hole at this moment and over the whole job, with pore and fracture pressure"
    >
      {(x) =>
        rock && (
          <g fill="none">
            <path d={curve(rock.pore_ppg, x)} stroke="var(--iris)" strokeWidth={1.6} />
            <path d={curve(rock.fracture_ppg, x)} stroke="var(--rust)" strokeWidth={1.8} strokeDasharray="6 3" />
            <path d={curve(rock.least_ppg, x)} stroke="var(--mute)" strokeWidth={1} strokeDasharray="2 3" />
            <path d={curve(rock.greatest_ppg, x)} stroke="var(--ink)" strokeWidth={1.2} />
            <path d={curve(now, x)} stroke="var(--petrol)" strokeWidth={2.2} />
            {rock.greatest_ppg.map((v, i) =>
              rock.fracture_ppg[i] != null && v > rock.fracture_ppg[i] + 0.001 ? (
                <circle key={i} cx={x(v * factor)} cy={scale.y(md[i]!)} r={2.4} fill="var(--brick)" />
              ) : null,
            )}
          </g>
        )
      }
    </Track>
  );
}
