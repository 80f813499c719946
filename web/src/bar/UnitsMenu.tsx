// Units: field, metric, or a unit of one's own for each quantity.
import type { Quantity } from "../design/types";
import { usePreferences } from "../preferences";
import { BarPopover } from "../ui/BarPopover";
import { Button } from "../ui/Button";
import { useUnits } from "../ui/units";

const QUANTITY_WORDS: Partial<Record<Quantity, string>> = {
  depth: "Depth",
  emw: "Mud weight",
  pressure: "Pressure",
  size: "Pipe and hole size",
  diameter: "Bore, drift, clearance",
  height: "Heights of pieces",
  volume: "Volume",
  force: "Force, weight",
  linear_weight: "Weight per length",
  capacity: "Capacity",
  gradient: "Gradient",
  temperature: "Temperature",
  water: "Mix water",
  slurry_yield: "Slurry yield",
  torque: "Make-up torque",
};

export function UnitsMenu() {
  const units = useUnits();
  const { prefer } = usePreferences();
  const { system, mixed } = units.choice;
  const own = Object.keys(mixed).length > 0;
  const setSystem = (next: "field" | "metric") => {
    prefer({ units: { system: next, mixed: {} } });
  };
  return (
    <BarPopover
      label="Units"
      trigger={
        <Button kind="bar" title="Units (u goes between field and metric)">
          {["depth", "emw", "pressure"].map((q) => units.unit(q as Quantity)).join(" · ")}
        </Button>
      }
    >
      <div className="mb-2 flex gap-1.5">
        {(["field", "metric"] as const).map((s) => (
          <Button
            key={s}
            aria-pressed={system === s && !own}
            className={system === s && !own ? "border-petrol! font-semibold" : ""}
            onClick={() => {
              setSystem(s);
            }}
          >
            {s === "field" ? "Field" : "Metric"}
          </Button>
        ))}
        <span className="ml-auto text-mute">{own ? "mixed" : ""}</span>
      </div>
      {(Object.entries(QUANTITY_WORDS) as [Quantity, string][]).map(([quantity, words]) => (
        <label key={quantity} className="flex items-center justify-between py-px">
          {words}
          <select
            className="w-24 rounded border border-rule bg-sheet px-1"
            value={units.unit(quantity)}
            onChange={(event) => {
              prefer({ units: { system, mixed: { ...mixed, [quantity]: event.target.value } } });
            }}
          >
            {units.table[quantity]!.options.map((option) => (
              <option key={option.unit}>{option.unit}</option>
            ))}
          </select>
        </label>
      ))}
      <p className="mt-2 text-[12px] text-mute">Any of these may also be typed after a number, whatever is shown: 2500 m, 1.32 sg.</p>
    </BarPopover>
  );
}
