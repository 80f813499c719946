// A depth of a string that can be dragged: its shoe, the top of a liner, what its cement has, the end of a section.
import { editString, factAt, useBench } from "../design/context";
import { read } from "../design/pointer";
import type { Evaluation, StringResult } from "../design/types";
import { setCursor } from "../depth/cursor";
import type { DepthScale } from "../depth/scale";
import { restingDepth } from "../depth/snapping";
import { useGrip } from "../depth/useGrip";
import { useUnits } from "../ui/units";

const LEAST_GAP_FT = 10;

type OwnKey =
  "shoe_md_ft" | "hanger_md_ft" | "cement/top_md_ft" | "cement/tail_top_md_ft" | "cement/stage_collar_md_ft" | "cement/upper_collar_md_ft";
export type DepthKey = OwnKey | `sections/${number}/to_md_ft`;

/** The depth in force: what the document says, which is ahead of the evaluation while a key is held down. */
const HELD: Record<OwnKey, (s: StringResult) => number | null> = {
  shoe_md_ft: (s) => s.shoe_md_ft,
  hanger_md_ft: (s) => s.top_md_ft,
  "cement/top_md_ft": (s) => s.cement_top_md_ft,
  "cement/tail_top_md_ft": (s) => s.tail_top_md_ft,
  "cement/stage_collar_md_ft": (s) => s.stage_collar_md_ft,
  "cement/upper_collar_md_ft": (s) => s.upper_collar_md_ft,
};

/** Which section's end a key names; null where it names none. */
function sectionOf(key: DepthKey): number | null {
  return key.startsWith("sections/") ? Number(key.split("/")[1]) : null;
}

/** Between which depths it may stand: a shoe between its neighbours, a top above its own shoe, a break between breaks. */
function limits(key: DepthKey, index: number, evaluation: Evaluation): [number, number] {
  const { strings, basis } = evaluation;
  const place = sectionOf(key);
  if (place !== null) {
    const sections = evaluation.pipe.strings[index]!.sections;
    return [sections[place]!.top_md_ft + LEAST_GAP_FT, sections[place + 1]!.bottom_md_ft - LEAST_GAP_FT];
  }
  if (key !== "shoe_md_ft") return [basis.ground_md_ft, strings[index]!.shoe_md_ft - LEAST_GAP_FT];
  const above = strings[index - 1]?.shoe_md_ft ?? basis.ground_md_ft;
  const below = strings[index + 1]?.shoe_md_ft ?? basis.total_md_ft + LEAST_GAP_FT;
  return [above + LEAST_GAP_FT, Math.min(below - LEAST_GAP_FT, basis.total_md_ft)];
}

export function useDepthGrip(key: DepthKey, index: number, scale: DepthScale, label: string) {
  const { session, select, typeOver } = useBench();
  const units = useUnits();
  const fact = () => factAt(session, `/strings/${index}/${key}`);
  const held = () => {
    const { document, evaluation } = session.snapshot();
    const drilled = fact()?.value;
    if (typeof drilled === "number") return drilled;
    const decided = read(document, `/strings/${index}/${key}`);
    if (typeof decided === "number") return decided;
    const string = evaluation?.strings[index];
    const place = sectionOf(key);
    if (place !== null) return evaluation?.pipe.strings[index]?.sections[place]?.bottom_md_ft ?? 0;
    return string ? (HELD[key as OwnKey](string) ?? 0) : 0;
  };
  const move = (mdFt: number) => {
    const { document, evaluation } = session.snapshot();
    // what stands by the log is corrected there
    if (evaluation === null || fact() !== undefined) return;
    const [least, most] = limits(key, index, evaluation);
    const to = Math.min(most, Math.max(least, mdFt));
    const string = document.strings[index];
    if (key === "shoe_md_ft" && string?.shoe_md_ft === to) return;
    editString(session, index, key, to);
    setCursor(to);
  };
  return useGrip<number>({
    held,
    take: () => {
      select(index);
    },
    drag: (start, from, to, free) => {
      const zones = session.snapshot().evaluation?.ground.zones ?? [];
      const boundaries = zones.flatMap((z) => [z.top_md_ft, z.base_md_ft]);
      const moved = scale.md(scale.y(start) + to.y - from.y);
      move(restingDepth(moved, boundaries, scale, units, free));
    },
    nudge: (from, _, down) => {
      if (down !== 0) move(units.snapDepth(from + down * units.depthStepFt()));
    },
    type: (box, first) => {
      if (fact() !== undefined) return;
      typeOver({
        box,
        label,
        quantity: "depth",
        value: held(),
        first,
        commit: (value) => {
          editString(session, index, key, value);
        },
      });
    },
  });
}
