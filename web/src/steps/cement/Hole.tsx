// What the open hole holds: its caliper, or the excess of each interval, beside the bit and the casing on the depth axis.
import { scaleLinear } from "d3-scale";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { CementRow } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { interpolate } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { DocNumber, FieldLabel } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import { useUnits } from "../../ui/units";

export function Hole({ row }: { row: CementRow }) {
  const units = useUnits();
  const { selected } = useBench();
  const path = `/strings/${selected}/cement`;
  const string = useEvaluated((e) => e.strings)?.[selected];
  const shoe = string?.shoe_md_ft ?? 0;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <section aria-label="Excess">
        <div className="grid grid-cols-[1fr_minmax(0,7rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
          <FieldLabel path={`${path}/excess`} />
          <DocNumber path={`${path}/excess`} proposed={row.excess} />
        </div>
        <p className="py-1 text-[12.5px]">
          Open-hole annulus under the top of cement: <b>{units.text(row.open_annulus_bbl, "volume")}</b>
          <span className="text-mute">, of {units.text(row.slurry_bbl, "volume")} of slurry in all</span>
        </p>
        <h3 className="mb-1 text-[13px] font-semibold">Excess by interval</h3>
        <Grid
          title="Excess by interval"
          className="font-narrow"
          target="excesses"
          path={`${path}/excesses`}
          columns={[
            { key: "top_md_ft", label: "From" },
            { key: "base_md_ft", label: "To" },
            { key: "excess", label: "Excess" },
          ]}
          sortBy="top_md_ft"
          newRow={(rows) => {
            const from = Number(rows[rows.length - 1]?.base_md_ft ?? Math.round(shoe - 500));
            return { top_md_ft: Math.max(from, 0), base_md_ft: Math.max(Math.round(shoe), from + 100), excess: row.excess ?? 0.5 };
          }}
          empty="The same excess all along."
        />
      </section>
      <section aria-label="Caliper">
        <h3 className="mb-1 text-[13px] font-semibold">Caliper</h3>
        <p className="mb-1 text-[12px] text-mute">
          Typed, pasted or imported from LAS, CSV or XLSX. Where it is read it holds in place of the excess, with policy&apos;s own over it.
        </p>
        <Grid
          title="Caliper"
          className="font-narrow"
          target="caliper"
          path={`${path}/caliper`}
          columns={["md_ft", "diameter_in"]}
          sortBy="md_ft"
          newRow={(rows) => {
            const last = rows[rows.length - 1];
            return { md_ft: Number(last?.md_ft ?? 0) + 100, diameter_in: last?.diameter_in ?? string?.bit_in ?? 12.25 };
          }}
          empty="No caliper: the bit's size with its excess."
        />
      </section>
    </div>
  );
}

export function HoleTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const units = useUnits();
  const { selected } = useBench();
  const strings = useEvaluated((e) => e.strings);
  const points = useDocument((d) => d.strings[selected]?.cement?.caliper) ?? [];
  const string = strings?.[selected];
  const top = strings?.[selected - 1]?.shoe_md_ft ?? 0;
  const factor = units.factor("diameter");
  const bit = string?.bit_in ?? null;
  const od = string?.od_in ?? null;
  const md = points.map((p) => p.md_ft);
  const diameter = points.map((p) => p.diameter_in);
  const most = Math.max(...diameter, (bit ?? 12) * 1.15);
  const least = Math.min(od ?? 4, ...diameter);
  const domain = scaleLinear([least * factor, most * factor], [0, 1])
    .nice(4)
    .domain() as [number, number];
  return (
    <Track
      title="Hole"
      unit={`${units.unit("diameter")}: casing, bit, caliper`}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      read={(at) => {
        const found = interpolate(md, diameter, at);
        return found === null ? (bit === null ? null : `bit ${units.text(bit, "size")}`) : `caliper ${units.text(found, "diameter")}`;
      }}
      table={() => ({
        columns: [`Depth, ${units.unit("depth")}`, `Caliper, ${units.unit("diameter")}`],
        rows: points.map((p) => [units.number(p.md_ft, "depth"), units.number(p.diameter_in, "diameter")]),
      })}
      summary="The hole's diameter by caliper along the open hole, with the bit and the casing in it"
    >
      {(x) =>
        string && (
          <g fill="none">
            {od !== null && (
              <line
                x1={x(od * factor)}
                x2={x(od * factor)}
                y1={scale.y(top)}
                y2={scale.y(string.shoe_md_ft)}
                stroke="var(--steel)"
                strokeWidth={2}
              />
            )}
            {bit !== null && (
              <line
                x1={x(bit * factor)}
                x2={x(bit * factor)}
                y1={scale.y(top)}
                y2={scale.y(string.shoe_md_ft)}
                stroke="var(--mute)"
                strokeDasharray="5 3"
                strokeWidth={1.2}
              />
            )}
            <path
              d={line(points.map((p) => [x(p.diameter_in * factor), scale.y(p.md_ft)] as const))}
              stroke="var(--petrol)"
              strokeWidth={1.6}
            />
          </g>
        )
      }
    </Track>
  );
}
