// Kick tolerance against the depth at which the kick enters, section by section, with what policy asks.
import { useSnapshot } from "../../design/context";
import { useKicks } from "./kicks";
import type { KickDrawing } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { interpolate } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { fromZero } from "../../depth/domain";
import { useUnits } from "../../ui/units";

const MOST_SHOWN = 4;
const NO_CURVE: KickDrawing = { curve_md_ft: [], curve_bbl: [], greatest_intensity_ppg: null };

export function KickTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const evaluation = useSnapshot("evaluation");
  const drawn = useKicks();
  const units = useUnits();
  if (evaluation === null) return null;
  const kicks = evaluation.depths.strings.flatMap((row, i) =>
    row.kick ? [{ kick: { ...row.kick, ...(drawn?.[i] ?? NO_CURVE) }, index: i }] : [],
  );
  const factor = units.factor("volume");
  const asked = Math.max(25, ...kicks.map(({ kick }) => kick.required_bbl));
  const greatest = Math.max(0, ...kicks.flatMap(({ kick }) => kick.curve_bbl));
  const domain = fromZero([Math.min(greatest, asked * MOST_SHOWN) * factor], 10 * factor);
  const read = (mdFt: number) => {
    for (const { kick } of kicks) {
      const value = interpolate(kick.curve_md_ft, kick.curve_bbl, mdFt);
      if (value !== null) return units.text(value, "volume");
    }
    return null;
  };
  const table = () => ({
    columns: [`MD, ${units.unit("depth")}`, `tolerance, ${units.unit("volume")}`, `policy asks, ${units.unit("volume")}`],
    rows: kicks.flatMap(({ kick }) =>
      kick.curve_md_ft.map((md, i) => [
        units.number(md, "depth"),
        units.number(kick.curve_bbl[i]!, "volume"),
        units.number(kick.required_bbl, "volume"),
      ]),
    ),
  });
  return (
    <Track
      title="Kick tolerance"
      unit={units.unit("volume")}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      table={table}
      read={read}
      summary="Kick tolerance against depth of each section, with what policy asks"
    >
      {(x) =>
        kicks.map(({ kick, index }) => {
          const clampX = (bbl: number) => Math.min(x(bbl * factor), x(domain[1]));
          const from = scale.y(evaluation.strings[index]!.shoe_md_ft);
          const to = scale.y(evaluation.strings[index + 1]!.shoe_md_ft);
          return (
            <g key={index}>
              <line
                x1={x(kick.required_bbl * factor)}
                x2={x(kick.required_bbl * factor)}
                y1={from}
                y2={to}
                stroke="var(--brick)"
                strokeDasharray="4 3"
              />
              <text
                x={x(kick.required_bbl * factor) + 3}
                y={scale.edgeY(evaluation.strings[index]!.shoe_md_ft) + 12}
                fontSize={10.5}
                className="halo"
                style={{ fill: "var(--brick)" }}
              >
                asks {units.number(kick.required_bbl, "volume", 0)}
              </text>
              <path
                d={line(kick.curve_md_ft.map((md, i) => [clampX(kick.curve_bbl[i]!), scale.y(md)] as const))}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.8}
              />
            </g>
          );
        })
      }
    </Track>
  );
}
