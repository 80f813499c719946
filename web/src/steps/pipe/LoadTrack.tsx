// One load of the string in hand against depth: the load, and the rating over the factor that policy asks.
import { useBench, useSnapshot } from "../../design/context";
import type { LoadResult } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { interpolate } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { fromZero } from "../../depth/domain";
import { useUnits } from "../../ui/units";

export function LoadTrack({ kind, scale, widthPx }: { kind: LoadResult["kind"]; scale: DepthScale; widthPx: number }) {
  const evaluation = useSnapshot("evaluation");
  const { selected } = useBench();
  const units = useUnits();
  const load = evaluation?.pipe.strings[selected]?.loads.find((l) => l.kind === kind);
  const factor = units.factor("pressure");
  const allowed = load?.curve_rating_psi.map((r) => r / load.required) ?? [];
  const domain = fromZero([...(load?.curve_load_psi ?? []), ...allowed].map((v) => v * factor), 100 * factor);
  const read = (mdFt: number) => {
    if (!load) return null;
    const value = interpolate(load.curve_md_ft, load.curve_load_psi, mdFt);
    const rating = interpolate(load.curve_md_ft, load.curve_rating_psi, mdFt);
    if (value === null || rating === null) return null;
    return value > 0 ? `${units.number(value, "pressure")} · SF ${(rating / value).toFixed(2)}` : units.number(value, "pressure");
  };
  const table = () => ({
    columns: [`MD, ${units.unit("depth")}`, `load, ${units.unit("pressure")}`, `rating, ${units.unit("pressure")}`, "SF"],
    rows: (load?.curve_md_ft ?? []).map((md, i) => {
      const value = load!.curve_load_psi[i]!;
      const rating = load!.curve_rating_psi[i]!;
      return [units.number(md, "depth"), units.number(value, "pressure"), units.number(rating, "pressure"), value > 0 ? (rating / value).toFixed(2) : "no load"];
    }),
  });
  const title = kind === "burst" ? "Burst" : "Collapse";
  return (
    <Track
      title={load ? `${title}: ${load.name}` : title}
      unit={units.unit("pressure")}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      table={table}
      read={read}
      summary={load ? `${title} load of ${load.name} and rating over its factor against depth` : `${title}: no load known for this string`}
    >
      {(x) =>
        load && (
          <>
            <path d={line(load.curve_md_ft.map((md, i) => [x(load.curve_load_psi[i]! * factor), scale.y(md)] as const))} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
            <path d={line(load.curve_md_ft.map((md, i) => [x(allowed[i]! * factor), scale.y(md)] as const))} fill="none" stroke="var(--brick)" strokeWidth={1.6} strokeDasharray="5 3" />
            <circle cx={x(load.load * factor)} cy={scale.y(load.at_md_ft)} r={3.5} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.6} />
          </>
        )
      }
    </Track>
  );
}
