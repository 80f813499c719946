// Places of the document in words, and the step that works on each.

export const STEP_WORDS: Record<string, string> = {
  ground: "Ground",
  depths: "Depths",
  sizes: "Sizes",
  mud: "Mud",
  pipe: "Pipe",
  cement: "Cement",
  wellhead: "Wellhead",
  preventers: "Preventers",
  policy: "Policy",
};

const KEY_WORDS: Record<string, string> = {
  strings: "string",
  zones: "zone",
  stations: "station",
  pieces: "piece",
  rows: "row",
  columns: "column",
  shoe_md_ft: "shoe depth",
  hanger_md_ft: "hanger depth",
  top_md_ft: "top",
  top_tvd_ft: "top",
  base_tvd_ft: "base",
  tvd_ft: "TVD",
  md_ft: "MD",
  emw_ppg: "EMW",
  od_in: "casing size",
  bit_in: "hole size",
  h2s_ppm: "H2S",
  co2_percent: "CO2",
  price_per_ft: "price",
  pipes: "own pipe",
};
const UNIT_ENDING = /_(ft|in|ppg|psi|ppf|lbf|bbl|deg|f|ppm|percent|psi_ft|gal_sk)$/;

/** A document path in words: "/ground/pore/2/tvd_ft" is "ground, pore 3, TVD". */
export function placeWords(path: string): string {
  const words = path
    .split("/")
    .slice(1)
    .map((part) => {
      if (/^\d+$/.test(part)) return String(Number(part) + 1);
      return KEY_WORDS[part] ?? part.replace(UNIT_ENDING, "").replaceAll("_", " ");
    });
  return words.join(", ").replace(/, (\d+)/g, " $1") || "the document";
}

const PIPE_KEYS = new Set(["pipe", "sections", "connection", "tie_back", "wear_percent", "test_psi", "stimulation_psi", "packer_md_ft", "loads"]);

/** The step on whose bench a place stands. */
export function stepOf(path: string): string {
  const [, first = "", , key = ""] = path.split("/");
  if (first === "wellhead" || first === "preventers" || first === "policy") return first;
  if (first === "pipes" || first === "stock") return "pipe";
  if (first !== "strings") return "ground";
  if (key === "od_in" || key === "bit_in" || key === "opened_from_in") return "sizes";
  if (key === "mud_ppg" || key === "mud_steps") return "mud";
  if (PIPE_KEYS.has(key)) return "pipe";
  return key === "cement" ? key : "depths";
}
