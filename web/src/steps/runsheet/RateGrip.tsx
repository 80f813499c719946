// The end of a hole on the schedule: dragged along the days it asks for another drilling rate of its section.
import { useBench, useEvaluated } from "../../design/context";
import type { SheetSection } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import type { HorizontalScale } from "../../depth/Track";
import { useGrip } from "../../depth/useGrip";
import { useUnits } from "../../ui/units";
import { rateSection } from "./edits";

const LEAST_FT_HOUR = 0.5;
const MOST_FT_HOUR = 1000;
const SIZE_PX = 5;
const TARGET_PX = 12;
/** Room that the rate takes beside its grip. */
const LABEL_PX = 60;

interface Held {
  rate: number;
  day: number;
}

export function RateGrip({ section, x, scale }: { section: SheetSection; x: HorizontalScale; scale: DepthScale }) {
  const { session, typeOver, select } = useBench();
  const units = useUnits();
  const string = useEvaluated((e) => (section.string === null ? undefined : e.strings[section.string]));
  const { rate_ft_hour: rate, drilled_day: day, on_bottom_hours: hours, bottom_md_ft: bottom, top_md_ft: top } = section;
  const id = string?.id ?? "";
  const commit = (to: number | null) => {
    const held = to === null ? null : Math.min(MOST_FT_HOUR, Math.max(LEAST_FT_HOUR, Math.round(to * 10) / 10));
    session.edit(rateSection(session.snapshot().document, id, held));
  };
  const title = `Drilling rate, ${units.words(section.name)}`;
  const grip = useGrip<Held>({
    held: () => ({ rate: rate ?? 0, day: day ?? 0 }),
    take: () => {
      if (section.string !== null) select(section.string);
    },
    drag: (held, from, to) => {
      if (hours == null || top == null || bottom == null || held.rate <= 0) return;
      // days over or under what it takes now are hours on bottom over or under, with what is lost beside them
      const gained = (x.invert(x(held.day) + to.x - from.x) - held.day) / section.day_factor;
      const wanted = Math.max((bottom - top) / held.rate + gained, (bottom - top) / MOST_FT_HOUR);
      commit((bottom - top) / wanted);
    },
    nudge: (held, right, down) => {
      const step = right !== 0 ? right : -down;
      if (step !== 0) commit(Math.round(held.rate) - step);
    },
    type: (box, first) => {
      typeOver({ box, label: title, quantity: "drilling_rate", value: rate ?? 0, first, commit: (value: number) => commit(value) });
    },
    remove: () => {
      commit(null);
    },
  });
  if (rate == null || day == null || bottom == null || id === "") return null;
  const [cx, cy] = [x(day), scale.y(bottom)];
  const left = cx > LABEL_PX;
  return (
    <g
      {...grip}
      tabIndex={0}
      role="slider"
      aria-label={title}
      aria-valuenow={rate}
      aria-valuetext={`${units.text(rate, "drilling_rate")}, drilled on day ${units.number(day, "days")}`}
      aria-orientation="horizontal"
      className="grip cursor-ew-resize"
      data-rate={id}
    >
      <circle cx={cx} cy={cy} r={TARGET_PX} fill="transparent" />
      <circle
        cx={cx}
        cy={cy}
        r={SIZE_PX}
        fill={section.rate_given ? "var(--petrol)" : "var(--sheet)"}
        stroke="var(--petrol)"
        strokeWidth={2}
      />
      <text
        x={left ? cx - SIZE_PX - 4 : cx + SIZE_PX + 4}
        y={cy - 4}
        fontSize={10.5}
        textAnchor={left ? "end" : "start"}
        className="halo"
        style={{ fill: "var(--ink)" }}
      >
        {units.text(rate, "drilling_rate")}
      </text>
    </g>
  );
}
