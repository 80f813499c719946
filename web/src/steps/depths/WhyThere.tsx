// Why a decided shoe stands where it stands: which rule holds it from above, which from below, and whether it is between.
import { useEvaluated } from "../../design/context";
import { useUnits } from "../../ui/units";
import { usePrograms } from "./usePrograms";

export function WhyThere({ index }: { index: number }) {
  const units = useUnits();
  const string = useEvaluated((e) => e.strings[index])!;
  const row = useEvaluated((e) => e.depths.strings[index])!;
  const count = useEvaluated((e) => e.strings.length);
  const { programs } = usePrograms();
  if (row.rule !== null) {
    return (
      <p className="text-[12px] leading-snug text-mute">
        <span className="font-semibold">Set by {row.rule}.</span> {units.words(row.reason)}
      </p>
    );
  }
  const [shallow, deep, free] = [programs?.bottom_up[index], programs?.top_down[index], programs?.freedom[index - 1]];
  if (!free || !shallow || !deep || count !== programs?.bottom_up.length) return null;
  const where =
    string.shoe_md_ft < free.shallow_md_ft
      ? "Shallower than its freedom"
      : string.shoe_md_ft > free.deep_md_ft
        ? "Deeper than its freedom"
        : "Free";
  return (
    <details className="text-[12px] leading-snug text-mute" data-testid={`why-${index}`}>
      <summary>
        <span className={where === "Free" ? "" : "font-semibold text-brick"}>{where}</span>: {units.number(free.shallow_md_ft, "depth")} to{" "}
        {units.text(free.deep_md_ft, "depth")}
      </summary>
      <p>
        Shallower, {shallow.rule}: {units.words(shallow.reason)}
      </p>
      <p>
        Deeper, {deep.rule}: {units.words(deep.reason)}
      </p>
    </details>
  );
}
