// The gauges of the panel: what a driller reads, and nothing more.
import type { ReactNode } from "react";
import type { DrillPanel, Quantity } from "../../design/types";
import { useUnits } from "../../ui/units";

const CIRCLE = { green: "text-moss", yellow: "text-gold-text", red: "text-brick", "": "" } as const;

export function PanelGauges({ panel }: { panel: DrillPanel }) {
  const units = useUnits();
  const number = (value: number | null, quantity: Quantity) => (value === null ? "–" : units.number(value, quantity));
  return (
    <div className="grid gap-2">
      <dl className="grid grid-cols-3 gap-2">
        <Big title="Drill pipe pressure" unit={units.unit("pressure")} gauge="pipe">
          {number(panel.pipe_psi, "pressure")}
        </Big>
        <Big title="Casing pressure" unit={units.unit("pressure")} gauge="casing">
          {number(panel.casing_psi, "pressure")}
        </Big>
        {panel.at_sea ? (
          <Big title="Kill line" unit={units.unit("pressure")} gauge="kill">
            {number(panel.kill_psi, "pressure")}
          </Big>
        ) : (
          <Big title="Pit change" unit={units.unit("volume")} gauge="gain">
            {number(panel.pit_change_bbl, "volume")}
          </Big>
        )}
      </dl>
      <dl className="grid grid-cols-4 gap-x-3 gap-y-1">
        <Small title="Pumps, spm" gauge="spm">
          {Math.round(panel.spm)}
        </Small>
        <Small title="Strokes" gauge="strokes">
          {units.number(panel.strokes, "count")}
        </Small>
        <Small title={`Flow in, ${units.unit("flow")}`} gauge="in">
          {number(panel.flow_in_gpm, "flow")}
        </Small>
        <Small title={`Flow out, ${units.unit("flow")}`} gauge="out">
          {number(panel.flow_out_gpm, "flow")}
        </Small>
        <Small title={`Pit volume, ${units.unit("volume")}`} gauge="pit">
          {number(panel.pit_bbl, "volume")}
        </Small>
        {panel.at_sea && (
          <Small title={`Pit change, ${units.unit("volume")}`} gauge="gain">
            {number(panel.pit_change_bbl, "volume")}
          </Small>
        )}
        <Small title={`Hole, ${units.unit("depth")}`} gauge="hole">
          {number(panel.hole_md_ft, "depth")}
        </Small>
        <Small title={`Bit or shoe, ${units.unit("depth")}`} gauge="bit">
          {number(panel.bit_md_ft, "depth")}
        </Small>
        <Small title={`Hook load, ${units.unit("force")}`} gauge="hook">
          {number(panel.hook_lbf, "force")}
        </Small>
        <Small title="String" gauge="string">
          <span className="text-[13px]">{panel.string}</span>
        </Small>
        <Small title="Pipe" gauge="moving">
          <span className="text-[13px]">{panel.hung ? "hung off" : panel.moving}</span>
        </Small>
        <Small title="Choke, %" gauge="choke">
          {(100 * panel.choke).toFixed(1)}
        </Small>
        <Small title={`Mud lined up, ${units.unit("emw")}`} gauge="mud">
          {number(panel.mud_in_ppg, "emw")}
        </Small>
        {panel.fill_taken_bbl !== null && (
          <>
            <Small title={`Fill by trip sheet, ${units.unit("volume")}`} gauge="asked">
              {number(panel.fill_asked_bbl, "volume")}
            </Small>
            <Small title={`Fill taken, ${units.unit("volume")}`} gauge="taken">
              {number(panel.fill_taken_bbl, "volume")}
            </Small>
          </>
        )}
        {panel.offset !== null && (
          <Small title="Offset, % of the limit" gauge="offset">
            <span className={CIRCLE[panel.circle]}>
              {Math.round(100 * panel.offset)} {panel.circle}
            </span>
          </Small>
        )}
      </dl>
    </div>
  );
}

function Big({ title, unit, gauge, children }: { title: string; unit: string; gauge: string; children: ReactNode }) {
  return (
    <div className="rounded border border-rule bg-sheet px-2 py-1" data-gauge={gauge}>
      <dt className="text-[12px] text-mute">
        {title}, {unit}
      </dt>
      <dd className="text-right text-[30px] leading-tight tabular-nums">{children}</dd>
    </div>
  );
}

function Small({ title, gauge, children }: { title: string; gauge: string; children: ReactNode }) {
  return (
    <div className="border-b border-rule/60" data-gauge={gauge}>
      <dt className="text-[11.5px] whitespace-nowrap text-mute">{title}</dt>
      <dd className="text-[17px] leading-tight tabular-nums">{children}</dd>
    </div>
  );
}
