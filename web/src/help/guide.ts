// The start guide: what to give first, in which order, and where it is said. No React.
import type { Design, Step } from "../design/types";

export interface GuideStep {
  title: string;
  text: string;
  step: Step;
  place: string;
  /** Whether it is given; null where there is nothing to tick off. */
  given: (design: Design) => boolean | null;
}

export const GUIDE: readonly GuideStep[] = [
  {
    title: "Where the well is",
    text: "Land, platform or subsea; rig floor, cellar and flow line; temperatures; H2S and CO2 if there is any.",
    step: "ground",
    place: "/site/setting",
    given: (d) => d.site.assumed.every((name) => name === "total_depth"),
  },
  {
    title: "Total depth and path",
    text: "The last survey station is total depth. Type stations, paste or import a survey, or plan a path to a target.",
    step: "ground",
    place: "/trajectory/stations/1/md_ft",
    given: (d) => !d.site.assumed.includes("total_depth"),
  },
  {
    title: "Pore pressure",
    text: "Two points at least, as equivalent mud weight against TVD: typed, pasted from a spreadsheet, or imported (CSV, XLSX, LAS).",
    step: "ground",
    place: "/ground/pore",
    given: (d) => d.ground.pore.length >= 2,
  },
  {
    title: "Fracture pressure",
    text: "The same way; or estimated from pore pressure and overburden, under its table.",
    step: "ground",
    place: "/ground/fracture",
    given: (d) => d.ground.fracture.length >= 2,
  },
  {
    title: "Zones",
    text: "Fresh water, oil and gas, losses, caving beds; where no shoe may stand and what is to be cased off.",
    step: "ground",
    place: "/ground/zones",
    given: (d) => d.ground.zones.length > 0,
  },
  {
    title: "Production casing",
    text: "Its size is said in Policy, under Sizes. Every other hole and casing follows outward from it. Margins and limits stand there too.",
    step: "policy",
    place: "/policy/sizes/production_od_in",
    given: () => null,
  },
  {
    title: "The program",
    text: "A program is proposed on Depths as soon as pore and fracture are known. Adopt it or move a shoe, then go through the steps along the top, from Sizes to the run sheet.",
    step: "depths",
    place: "/strings",
    given: (d) => d.strings.length > 0,
  },
];

/** Nothing can be proposed yet, and nothing is decided. */
export function isEmpty(design: Design): boolean {
  return design.strings.length === 0 && (design.ground.pore.length < 2 || design.ground.fracture.length < 2);
}
