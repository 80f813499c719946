// The gauges as they stand, and what of them can be put into the log.
import { useState } from "react";
import { useEvaluated } from "../../design/context";
import type { Channel, Doing, Quantity } from "../../design/types";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";
import { CHANNEL_TITLES } from "./channels";
import { EntryForm } from "./EntryForm";
import type { LiveState } from "./live";
import { moment } from "./live";
import { useSizes } from "./useLog";

const SHOWN: readonly (readonly [Channel, Quantity])[] = [
  ["hole_md_ft", "depth"],
  ["bit_md_ft", "depth"],
  ["hook_lbf", "force"],
  ["pump_psi", "pressure"],
  ["flow_in_gpm", "flow"],
  ["flow_out_gpm", "flow"],
  ["pit_bbl", "volume"],
  ["casing_psi", "pressure"],
  ["mud_in_ppg", "emw"],
  ["cement_bbl", "volume"],
  ["cement_psi", "pressure"],
  ["cement_in_bpm", "pump_rate"],
];

export function Gauges({ state, doing, index }: { state: LiveState; doing: Doing; index: number }) {
  const units = useUnits();
  const id = useEvaluated((e) => e.strings[index]?.id) ?? "";
  const sizeOf = useSizes();
  const [logging, setLogging] = useState(false);
  const current = state.spans[state.spans.length - 1]?.values ?? {};
  const shown = SHOWN.filter(
    ([channel]) => state.latest[channel] !== undefined && (!channel.startsWith("cement") || current[channel] !== undefined),
  );
  return (
    <section aria-label="Gauges">
      <p className="mb-1 flex flex-wrap items-center gap-2 text-[13px]">
        <span data-doing={doing}>
          {doing === "other" ? "Neither drilling, tripping, running casing nor cementing" : doing.charAt(0).toUpperCase() + doing.slice(1)}
          {id !== "" && (doing === "running casing" || doing === "cementing") ? ` ${sizeOf(id)}` : ""}
        </span>
        <Button onClick={() => setLogging(!logging)}>Log the depth</Button>
      </p>
      {logging && (
        <div className="mb-2 border border-rule bg-sheet p-2">
          <EntryForm
            kind="depth"
            initial={{
              at: moment(state.atS),
              md_ft: state.latest.hole_md_ft ?? null,
              mud_ppg: state.latest.mud_in_ppg === undefined ? null : Number(state.latest.mud_in_ppg.toFixed(1)),
            }}
            action="Write entry"
            anyKind
            onDone={() => setLogging(false)}
            onCancel={() => setLogging(false)}
          />
        </div>
      )}
      <dl className="grid grid-cols-[repeat(auto-fill,minmax(8.2rem,1fr))] gap-x-3 gap-y-1">
        {shown.map(([channel, quantity]) => (
          <div key={channel} className="border-b border-rule/60" data-gauge={channel}>
            <dt className="text-[11.5px] text-mute">
              {CHANNEL_TITLES[channel]}, {units.unit(quantity)}
            </dt>
            <dd className="text-[17px] leading-tight tabular-nums">{units.number(state.latest[channel], quantity)}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
