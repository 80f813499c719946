// The section in words and numbers: zones and strings by depth.
import type { TableData } from "../depth/ChartTable";
import type { Evaluation } from "../design/types";
import type { Units } from "../ui/units";

export function sectionTable(evaluation: Evaluation, units: Units): TableData {
  const rows: { at: number; cells: string[] }[] = [];
  const add = (md: number, what: string, detail: string) => {
    rows.push({ at: md, cells: [units.number(md, "depth"), what, detail] });
  };
  for (const z of evaluation.ground.zones) {
    add(z.top_md_ft, `${z.name} begins`, [z.rock, ...(z.fluid === "none" ? [] : [z.fluid]), ...z.hazards].join(", "));
  }
  for (const s of evaluation.strings) {
    const size = s.od_in === null ? s.role : `${units.text(s.od_in, "size")} ${s.role}`;
    if (s.run === "liner") add(s.top_md_ft, `top of the ${size} liner`, "");
    if (s.cement_top_md_ft !== null) add(s.cement_top_md_ft, `top of cement, ${size}`, "");
    if (s.tail_top_md_ft !== null) add(s.tail_top_md_ft, `top of tail, ${size}`, "");
    for (const md of [s.stage_collar_md_ft, s.upper_collar_md_ft]) if (md !== null) add(md, `stage collar, ${size}`, "");
    const hole = s.bit_in === null ? s.run : `in ${units.text(s.bit_in, "size")} hole`;
    add(s.shoe_md_ft, `${size} shoe`, s.mud_ppg === null ? hole : `${hole}, drilled with ${units.text(s.mud_ppg, "emw")}`);
  }
  rows.sort((a, b) => a.at - b.at);
  return { columns: [`MD, ${units.unit("depth")}`, "what", "detail"], rows: rows.map((r) => r.cells), words: true };
}
