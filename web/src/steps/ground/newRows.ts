// New rows of the tables of the ground: after the last one, or between two.
import type { Row } from "../../ui/grid/columns";

const last = (rows: readonly Row[], key: string, otherwise: number) => (rows.length ? Number(rows[rows.length - 1]![key]) : otherwise);
/** After the last row a step further on; between two rows midway. */
const next = (rows: readonly Row[], below: Row | undefined, key: string, otherwise: number, step: number) => {
  const above = last(rows, key, otherwise);
  return below === undefined ? above + step : Math.round((above + Number(below[key])) * 50) / 100;
};
export const newPoint = (rows: readonly Row[], below?: Row): Row => ({
  tvd_ft: next(rows, below, "tvd_ft", 0, 500),
  emw_ppg: next(rows, below, "emw_ppg", 9, 0),
});
export const newTemperature = (rows: readonly Row[], below?: Row): Row => ({
  tvd_ft: next(rows, below, "tvd_ft", 0, 1000),
  temperature_f: next(rows, below, "temperature_f", 60, 15),
});
export const newStation = (rows: readonly Row[], below?: Row): Row => ({
  md_ft: next(rows, below, "md_ft", 0, 500),
  inclination_deg: next(rows, below, "inclination_deg", 0, 0),
  azimuth_deg: last(rows, "azimuth_deg", 0),
});
/** A zone from the base of the one above: over the gap under it, or over half of the zone below. */
export const newZone = (rows: readonly Row[], below?: Row): Row => ({
  name: `Zone ${rows.length + 1}`,
  top_tvd_ft: last(rows, "base_tvd_ft", 0),
  base_tvd_ft: baseOf(last(rows, "base_tvd_ft", 0), below),
  rock: "shale",
  fluid: "none",
  permeable: false,
  hazards: [],
  case_before_deeper: false,
  shoe_allowed: true,
});

function baseOf(topFt: number, below: Row | undefined): number {
  if (below === undefined) return topFt + 500;
  const nextTop = Number(below.top_tvd_ft);
  return nextTop > topFt ? nextTop : Math.round((nextTop + Number(below.base_tvd_ft)) / 2);
}
