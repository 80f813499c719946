// The sizes of the strings at their shoes, where there is nothing to grab.
import type { StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { useUnits } from "../ui/units";
import { AXIS_PX, shapes } from "./geometry";

export function StringNames({ strings, scale }: { strings: readonly StringResult[]; scale: DepthScale }) {
  const units = useUnits();
  return shapes(strings, scale)
    .filter((shape) => strings[shape.index]!.od_in !== null && scale.shows(strings[shape.index]!.shoe_md_ft))
    .map((shape) => (
      <text key={shape.index} x={AXIS_PX + 2} y={shape.labelY} fontSize={10.5} fontWeight={600} className="halo">
        {units.text(strings[shape.index]!.od_in, "size")}
      </text>
    ));
}
