// What the crew may do, by group; each button with its key. A thing that cannot be done says why in the record.
import { useState } from "react";
import type { DrillAction, DrillDoing, DrillPanel, DrillState } from "../../design/types";
import { NumberField } from "../../ui/Field";
import { useUnits } from "../../ui/units";
import { ACTION_KEYS } from "./panelKeys";

export type Act = (action: DrillAction, more?: Partial<DrillDoing>) => void;

const PIPE: readonly (readonly [DrillAction, string])[] = [
  ["pick up", "Pick up, space out"],
  ["lower", "Run to bottom"],
  ["slips", "Set slips"],
  ["stab valve", "Stab safety valve"],
  ["close valve", "Close safety valve"],
  ["open valve", "Open safety valve"],
  ["make up", "Make up top drive"],
  ["hang off", "Hang off"],
  ["strip in", "Strip in"],
  ["stop pipe", "Stop pipe"],
  ["fill casing", "Fill casing"],
  ["drop", "Drop string"],
  ["disconnect", "Unlatch riser"],
];

export function PanelControls({ state, act }: { state: DrillState; act: Act }) {
  const { panel, can } = state;
  const units = useUnits();
  const pumps = can.includes("pump");
  return (
    <div className="grid content-start gap-2 text-[12.5px]">
      {pumps && (
        <Group title="Pumps">
          <Do text="Off" keyed="o" onClick={() => act("pump", { value: 0 })} />
          <Do text={`Slow, ${Math.round(panel.slow_spm)}`} keyed="s" onClick={() => act("pump", { value: panel.slow_spm })} />
          <Do text={`Full, ${Math.floor(panel.most_spm)}`} keyed="p" onClick={() => act("pump", { value: Math.floor(panel.most_spm) })} />
          <Do text="−1" keyed="-" onClick={() => act("pump", { value: Math.max(0, Math.round(panel.spm) - 1) })} />
          <Do text="+1" keyed="+" onClick={() => act("pump", { value: Math.min(panel.most_spm, Math.round(panel.spm) + 1) })} />
        </Group>
      )}
      <Group title="Pipe">
        <Do text="Flow check" keyed="f" onClick={() => act("flow check")} />
        {PIPE.filter(([action]) => can.includes(action)).map(([action, text]) => (
          <Do key={action} text={text} keyed={ACTION_KEYS[action]} onClick={() => act(action)} />
        ))}
      </Group>
      {panel.has_choke && <Choke panel={panel} act={act} />}
      {can.includes("line up mud") && (
        <Group title={`Mud lined up, ${units.unit("emw")}`}>
          <span className="bordered w-24">
            <NumberField
              label="Mud lined up"
              place="drill/mud"
              quantity="emw"
              value={panel.mud_in_ppg}
              onCommit={(value) => {
                if (value !== null) act("line up mud", { value });
              }}
            />
          </span>
        </Group>
      )}
      <Record act={act} />
    </div>
  );
}

function Choke({ panel, act }: { panel: DrillPanel; act: Act }) {
  const units = useUnits();
  const by = (step: number) => () => act("choke", { value: Math.min(1, Math.max(0, Math.round((panel.choke + step) * 1000) / 1000)) });
  const hold = panel.choke_mode === "drill pipe pressure" ? "hold drill pipe pressure" : "hold casing pressure";
  return (
    <Group title={`Choke: ${panel.choke_mode === "by hand" ? "by hand" : `holds ${panel.choke_mode}`}`}>
      <Do text="Close" keyed="0" onClick={() => act("choke", { value: 0 })} />
      <Do text="−5" keyed="{" onClick={by(-0.05)} />
      <Do text="−1" keyed="[" onClick={by(-0.01)} />
      <Do text="+1" keyed="]" onClick={by(0.01)} />
      <Do text="+5" keyed="}" onClick={by(0.05)} />
      <Do text="50 %" onClick={() => act("choke", { value: 0.5 })} />
      <Do text="Hold casing" keyed="a" onClick={() => act("hold casing pressure")} />
      <Do text="Hold drill pipe" keyed="w" onClick={() => act("hold drill pipe pressure")} />
      {panel.choke_mode !== "by hand" && (
        <span className="bordered flex w-40 items-center gap-1">
          at
          <NumberField
            label="Choke holds"
            place="drill/holds"
            quantity="pressure"
            value={Math.round(panel.choke_target_psi)}
            onCommit={(value) => {
              if (value !== null) act(hold, { value });
            }}
          />
          {units.unit("pressure")}
        </span>
      )}
    </Group>
  );
}

/** What was read once the pressures rest. */
function Record({ act }: { act: Act }) {
  const units = useUnits();
  const [pipe, setPipe] = useState<number | null>(null);
  const [casing, setCasing] = useState<number | null>(null);
  const [gain, setGain] = useState<number | null>(null);
  return (
    <form
      aria-label="Record"
      data-form="record"
      className="border-t border-rule pt-1"
      onSubmit={(event) => {
        event.preventDefault();
        act("record", { sidpp_psi: pipe, sicp_psi: casing, gain_bbl: gain });
      }}
    >
      <div className="bordered grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-x-1.5">
        <label className="text-[11.5px] text-mute">
          Drill pipe, {units.unit("pressure")}
          <NumberField label="Drill pipe pressure read" place="drill/sidpp" quantity="pressure" optional value={pipe} onCommit={setPipe} />
        </label>
        <label className="text-[11.5px] text-mute">
          Casing, {units.unit("pressure")}
          <NumberField label="Casing pressure read" place="drill/sicp" quantity="pressure" optional value={casing} onCommit={setCasing} />
        </label>
        <label className="text-[11.5px] text-mute">
          Gain, {units.unit("volume")}
          <NumberField label="Gain read" place="drill/gain" quantity="volume" optional value={gain} onCommit={setGain} />
        </label>
        <button type="submit" className="rounded border border-petrol px-2 py-0.5 text-[12px] font-semibold text-petrol">
          Record
        </button>
      </div>
    </form>
  );
}

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title} className="border-t border-rule pt-1">
      <h3 className="text-[11.5px] text-mute">{title}</h3>
      <div className="flex flex-wrap gap-1">{children}</div>
    </section>
  );
}

function Do({ text, keyed, onClick }: { text: string; keyed?: string; onClick: () => void }) {
  return (
    <button
      type="button"
      className="inline-flex items-center gap-1 rounded border border-rule bg-sheet px-1.5 py-0.5 text-[12px] leading-5 hover:border-petrol"
      onClick={onClick}
    >
      {text}
      {keyed !== undefined && <kbd className="rounded border border-rule px-1 text-[10.5px] text-mute">{keyed}</kbd>}
    </button>
  );
}
