// Balanced plugs: where each stands, what is mixed and pumped for it, and what the rock bears with the pipe still in it.
import { useId } from "react";
import { useBench, useDocument, useEvaluated, useSnapshot } from "../../design/context";
import type { PlugRow } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Track } from "../../depth/Track";
import type { ColumnSpec, Told } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { Outcome } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { FluidPatterns, fluidFill } from "./fluidLook";
import { NEW_PLUG } from "./newPlug";

const PATH = "/balanced_plugs";
const WHERE: readonly ColumnSpec[] = [
  "name",
  "inside",
  { key: "bottom_md_ft", label: "Bottom" },
  { key: "top_md_ft", label: "Top" },
  { key: "spacer_bbl", label: "Spacer" },
  { key: "spacer_ppg", label: "Spacer weight" },
  { key: "mud_ppg", label: "Mud" },
];
const HOW: readonly ColumnSpec[] = [
  "name",
  { key: "hole_to_md_ft", label: "Hole to" },
  { key: "pipe_od_in", label: "Pipe OD" },
  { key: "pipe_id_in", label: "Pipe ID" },
  { key: "water_gal_sk", label: "Mix water" },
  { key: "excess", label: "Excess" },
];
const USUAL_FT = 500;

export function Plugs({ rows }: { rows: readonly (PlugRow | null)[] }) {
  const units = useUnits();
  const plugs = useDocument((d) => d.balanced_plugs) ?? [];
  const total = useEvaluated((e) => e.basis.total_md_ft) ?? 0;
  const told: Told[] = [
    { label: "Slurry", unit: units.unit("volume"), px: 62, cell: (i) => units.number(rows[i]?.slurry_bbl, "volume") },
    { label: "Sacks", unit: "", px: 52, cell: (i) => units.number(rows[i]?.sacks, "sacks") },
  ];
  const newRow = () => {
    const bottom = Math.round(total);
    return { ...NEW_PLUG, inside: "open hole", bottom_md_ft: bottom, top_md_ft: Math.max(bottom - USUAL_FT, 0) };
  };
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Grid
        title="Balanced plugs"
        className="font-narrow"
        target="balanced_plugs"
        path={PATH}
        columns={WHERE}
        told={told}
        sortBy={null}
        newRow={newRow}
        empty="No plug is planned."
      />
      {plugs.length > 0 && (
        <Grid
          title="Pipe and slurry of the plugs"
          className="font-narrow"
          target="balanced_plugs"
          path={PATH}
          columns={HOW}
          second
          sortBy={null}
          newRow={newRow}
          empty="No plug is planned."
        />
      )}
      {plugs.map((plug, k) => (
        <Plug
          key={plug.id}
          index={k}
          name={plug.name ? plug.name : `Plug ${k + 1}`}
          row={rows[k]}
          spacer={plug.spacer_bbl ?? NEW_PLUG.spacer_bbl}
        />
      ))}
      <p className="text-[11.5px] text-mute">
        A planning calculation for pipe and hole of one size each. Pull slowly out of the plug, then reverse or circulate clean; tag and
        test it when it has set. Local rules say how long it must be.
      </p>
    </div>
  );
}

function Plug({ index, name, row, spacer }: { index: number; name: string; row: PlugRow | null | undefined; spacer: number }) {
  const units = useUnits();
  if (row == null)
    return (
      <section aria-label={name}>
        <h3 className="mb-0.5 text-[13px] font-semibold">{name}</h3>
        <Empty>Something is wanting for its volumes: see the findings.</Empty>
      </section>
    );
  const working = `cement/plug${index}`;
  return (
    <section aria-label={name}>
      <h3 className="mb-0.5 text-[13px] font-semibold">{name}, in the order pumped</h3>
      <Outcome label="Spacer ahead" value={spacer} quantity="volume" />
      <Outcome
        label="Cement slurry"
        value={row.slurry_bbl}
        quantity="volume"
        note={`${units.text(row.slurry_ppg, "emw")}, ${units.text(row.sacks, "sacks")}, ${units.text(row.water_bbl, "volume")} of water`}
      />
      <Outcome label="Spacer behind" value={row.spacer_behind_bbl} quantity="volume" working={working} />
      <Outcome label="Displacement" value={row.displacement_bbl} quantity="volume" working={working} bad={row.displacement_bbl < 0} />
      <Outcome label="Top of cement with the pipe in it" value={row.top_with_pipe_md_ft} quantity="depth" working={working} />
      <Outcome label="Mean diameter of the hole, excess included" value={row.hole_in} quantity="diameter" />
      {row.reached_ppg !== null && (
        <Outcome
          label="Open hole bears with the pipe in it"
          value={row.reached_ppg}
          quantity="emw"
          note={`at ${units.text(row.weakest_md_ft, "depth")}, breaks at ${units.text(row.fracture_ppg, "emw")}`}
          bad={row.reached_ppg > (row.fracture_ppg ?? Infinity)}
        />
      )}
    </section>
  );
}

const ROOM = 0.9;

/** Each plug where it stands once the pipe is out, and how far it reaches with the pipe in it. */
export function PlugTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const units = useUnits();
  const prefix = useId().replace(/:/g, "");
  const plugs = useSnapshot("document").balanced_plugs ?? [];
  const rows = useEvaluated((e) => e.cement.plugs) ?? [];
  const { goTo } = useBench();
  const widest = Math.max(1, ...rows.map((r) => r?.hole_in ?? 0)) / 2 / ROOM;
  return (
    <Track
      title="Plugs"
      unit="dashed: with the pipe in it"
      scale={scale}
      widthPx={widthPx}
      domain={[-widest, widest]}
      bare
      read={(md) => plugs.find((p) => p.top_md_ft <= md && md <= p.bottom_md_ft)?.name ?? null}
      table={() => ({
        columns: ["Plug", `Top, ${units.unit("depth")}`, "Bottom", "Top with the pipe in it", `Hole, ${units.unit("diameter")}`],
        rows: plugs.map((p, k) => [
          p.name ? p.name : `Plug ${k + 1}`,
          units.number(p.top_md_ft, "depth"),
          units.number(p.bottom_md_ft, "depth"),
          units.number(rows[k]?.top_with_pipe_md_ft, "depth"),
          units.number(rows[k]?.hole_in, "diameter"),
        ]),
      })}
      summary="Balanced plugs of cement where they stand"
    >
      {(x) => (
        <>
          <FluidPatterns prefix={prefix} />
          {plugs.map((plug, k) => {
            const row = rows[k];
            if (plug.bottom_md_ft <= plug.top_md_ft) return null;
            const half = (row?.hole_in ?? widest * ROOM) / 2;
            const [left, right] = [x(-half), x(half)];
            const [top, base] = [scale.y(plug.top_md_ft), scale.y(plug.bottom_md_ft)];
            return (
              <g
                key={plug.id}
                onClick={() => {
                  goTo("cement", `${PATH}/${k}/top_md_ft`);
                }}
              >
                <rect
                  x={left}
                  width={right - left}
                  y={top}
                  height={Math.max(base - top, 1)}
                  style={{ fill: fluidFill(prefix, "tail") }}
                  stroke="var(--ink)"
                  strokeWidth={0.8}
                />
                {row && (
                  <line
                    x1={left}
                    x2={right}
                    y1={scale.y(row.top_with_pipe_md_ft)}
                    y2={scale.y(row.top_with_pipe_md_ft)}
                    stroke="var(--ink)"
                    strokeWidth={1.4}
                    strokeDasharray="4 3"
                  />
                )}
              </g>
            );
          })}
        </>
      )}
    </Track>
  );
}
