// Which moment of the well the stack-up shows, and whether it reaches up to the rotary.
import type { StackMoment, Words } from "../design/types";
import { useUnits } from "../ui/units";

interface MomentPickerProps {
  moments: readonly StackMoment[];
  shown: number;
  onShow: (index: number) => void;
  /** Whether it reaches up to the rotary, where it can. */
  toRotary?: boolean;
  onRotary?: (on: boolean) => void;
}

export function MomentPicker({ moments, shown, onShow, toRotary, onRotary }: MomentPickerProps) {
  const units = useUnits();
  return (
    <div className="mb-1 flex shrink-0 items-center gap-2">
      <select
        className="cell min-w-0 flex-1 bg-sheet"
        aria-label="Moment of the well"
        value={shown}
        onChange={(event) => {
          onShow(Number(event.target.value));
        }}
      >
        {moments.map((moment, i) => (
          <option key={i} value={i} className="bg-sheet text-ink">
            {units.words(moment.title as Words)}
          </option>
        ))}
      </select>
      {onRotary !== undefined && (
        <label className="flex items-center gap-1 font-narrow text-[12px] whitespace-nowrap text-mute">
          <input
            type="checkbox"
            className="size-3.5 accent-petrol"
            checked={toRotary === true}
            onChange={(event) => {
              onRotary(event.target.checked);
            }}
          />
          to rotary
        </label>
      )}
    </div>
  );
}
