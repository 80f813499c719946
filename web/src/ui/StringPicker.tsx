// The strings that a bench works on, one in hand.
import { useBench, useSnapshot } from "../design/context";
import { useUnits } from "./units";

export function StringPicker({ rows }: { rows: readonly { applies: boolean }[] }) {
  const evaluation = useSnapshot("evaluation");
  const { selected, select } = useBench();
  const units = useUnits();
  if (evaluation === null) return null;
  return (
    <div role="group" aria-label="String" className="mb-2 flex flex-wrap gap-1 font-narrow">
      {evaluation.strings.map((string, index) =>
        rows[index]?.applies ? (
          <button
            key={index}
            type="button"
            aria-pressed={index === selected}
            title={string.name || string.role}
            className={`rounded border px-2 py-0.5 text-[12.5px] ${index === selected ? "border-petrol bg-petrol/10 font-semibold text-petrol" : "border-rule hover:border-petrol"}`}
            onClick={() => {
              select(index);
            }}
          >
            {string.od_in === null ? string.role : units.text(string.od_in, "size")}
          </button>
        ) : null,
      )}
    </div>
  );
}
