// The path seen from above and from the side, true to one another; from the side along the plane of the farthest point.
import { useSnapshot } from "../../design/context";
import { line } from "../../depth/Track";
import { ChartTable } from "../../depth/ChartTable";
import { scaleLinear } from "d3-scale";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";

const SIZE_PX = 172;
const PAD_PX = { left: 38, right: 10, top: 20, bottom: 30 };

export function PathPicture() {
  const basis = useSnapshot("evaluation")?.basis;
  const units = useUnits();
  if (!basis || Math.max(...basis.axis_departure_ft.map(Math.abs)) < 1) return null;
  const table = () => ({
    columns: ["MD", "TVD", "north", "east", "departure"].map((c) => `${c}, ${units.unit("depth")}`),
    rows: basis.axis_md_ft.map((md, i) =>
      [md, basis.axis_tvd_ft[i]!, basis.axis_north_ft[i]!, basis.axis_east_ft[i]!, basis.axis_departure_ft[i]!].map((v) =>
        units.number(v, "depth"),
      ),
    ),
  });
  const farthest = Math.max(...basis.axis_departure_ft.map(Math.abs));
  return (
    <figure className="mb-2 flex flex-wrap items-end gap-3" data-picture>
      <View title="Plan" across={basis.axis_east_ft} down={basis.axis_north_ft.map((n) => -n)} labels={["east", "north"]} northUp />
      <View title="Vertical section" across={basis.axis_departure_ft} down={basis.axis_tvd_ft} labels={["departure", "TVD"]} />
      <figcaption className="text-[12px] text-mute">
        Departure {units.text(farthest, "depth")}
        <br />
        section at {units.text(basis.section_azimuth_deg, "angle")}
        <br />
        <ChartTable title="Path of the well" data={table} />
      </figcaption>
    </figure>
  );
}

interface ViewProps {
  title: string;
  across: readonly number[];
  down: readonly number[];
  labels: readonly [string, string];
  northUp?: boolean;
}

function View({ title, across, down, labels, northUp = false }: ViewProps) {
  const units = useUnits();
  const factor = units.factor("depth");
  const [left, right] = [Math.min(0, ...across), Math.max(0, ...across)];
  const [top, bottom] = [Math.min(0, ...down), Math.max(0, ...down)];
  const room = SIZE_PX - PAD_PX.left - PAD_PX.right;
  const perFt = room / Math.max(1, right - left, bottom - top);
  const x = scaleLinear([left, left + room / perFt], [PAD_PX.left, PAD_PX.left + room]);
  const y = scaleLinear([top, top + room / perFt], [PAD_PX.top, PAD_PX.top + room]);
  // one step for both, since a foot is as long across as down
  const ticks = (from: number, to: number, sign = 1) =>
    scaleLinear([from * factor, to * factor], [0, 1])
      .ticks(3)
      .map((shown) => ({ ft: shown / factor, label: grouped(shown === 0 ? 0 : sign * shown) }));
  const foot = SIZE_PX - PAD_PX.bottom;
  return (
    <svg width={SIZE_PX} height={SIZE_PX} role="img" aria-label={`${title} of the path`} className="border border-rule bg-sheet">
      <text x={6} y={12} fontSize={10.5} fontWeight={600}>
        {title}, {units.unit("depth")}
      </text>
      {ticks(left, left + room / perFt).map((tick) => (
        <g key={tick.label}>
          <line x1={x(tick.ft)} x2={x(tick.ft)} y1={PAD_PX.top} y2={foot} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={x(tick.ft)} y={foot + 10} fontSize={9.5} textAnchor="middle" style={{ fill: "var(--mute)" }}>
            {tick.label}
          </text>
        </g>
      ))}
      {ticks(top, top + room / perFt, northUp ? -1 : 1).map((tick) => (
        <g key={tick.label}>
          <line x1={PAD_PX.left} x2={SIZE_PX - PAD_PX.right} y1={y(tick.ft)} y2={y(tick.ft)} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={PAD_PX.left - 3} y={y(tick.ft) + 3} fontSize={9.5} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {tick.label}
          </text>
        </g>
      ))}
      <text x={SIZE_PX - 5} y={SIZE_PX - 4} fontSize={10} textAnchor="end" style={{ fill: "var(--mute)" }}>
        {labels[0]} →
      </text>
      <text x={5} y={SIZE_PX - 4} fontSize={10} style={{ fill: "var(--mute)" }}>
        {northUp ? "↑" : "↓"} {labels[1]}
      </text>
      <path d={line(across.map((v, i) => [x(v), y(down[i]!)] as const))} fill="none" stroke="var(--petrol)" strokeWidth={2} />
      <circle cx={x(0)} cy={y(0)} r={3} fill="var(--sheet)" stroke="var(--ink)" />
    </svg>
  );
}
