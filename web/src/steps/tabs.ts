// The tabs of the benches that have some: their words in the address and on the screen, and which shows a place.
import type { Step } from "../design/types";

export const TABS = {
  ground: {
    site: "Site",
    path: "Path",
    zones: "Zones",
    flags: "Flags",
    pore: "Pore",
    fracture: "Fracture",
    leak_off_tests: "Leak-off",
    stability: "Stability",
    overburden: "Overburden",
    temperature: "Temperature",
  },
  depths: { cards: "One by one", table: "As a table", schools: "Methods" },
  pipe: { strings: "Strings", catalogue: "Catalogue", own: "Own pipes", stock: "Stock" },
} as const;

/** Tabs of a step as pairs of word and title; none where it has none. */
export function tabsOf(step: Step): readonly (readonly [string, string])[] {
  return step in TABS ? Object.entries(TABS[step as keyof typeof TABS]) : [];
}

/** The tab on which a place of the document is worked; null where its step has no tabs, or any shows it. */
export function tabOf(step: Step, place: string): string | null {
  if (place === "") return null;
  if (step === "ground") return groundTab(place);
  if (step === "pipe") return place.startsWith("/pipes") ? "own" : place.startsWith("/stock") ? "stock" : "strings";
  return step === "depths" ? "cards" : null;
}

function groundTab(place: string): string {
  const [, first, second, , key] = place.split("/");
  if (first === "site" || first === "name" || first === "note") return "site";
  if (first === "trajectory") return "path";
  if (
    second === "pore" ||
    second === "fracture" ||
    second === "stability" ||
    second === "leak_off_tests" ||
    second === "overburden" ||
    second === "temperature"
  )
    return second;
  return ["permeable", "hazards", "case_before_deeper", "shoe_allowed", "gas_contact_tvd_ft"].includes(key ?? "") ? "flags" : "zones";
}
