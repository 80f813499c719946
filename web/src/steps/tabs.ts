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
  running: { tally: "Tally", float: "Float and fill", moving: "Hook load", centralizers: "Centralizers", floor: "Rig floor" },
  cement: {
    slurries: "Slurries",
    hole: "Hole",
    blend: "Blend",
    fluids: "Fluids",
    job: "Job in time",
    placement: "Placing",
    plugs: "Plugs",
  },
  wellhead: { pieces: "Pieces", heights: "Heights", bores: "Bores", loads: "Loads", tests: "Tests" },
  preventers: { stack: "Stack", coverage: "Closes on", shear: "Shear", unit: "Closing unit", tests: "Tests", steps: "Sequence" },
  sea: { conductor: "Conductor", landing: "Landing", riser: "Riser", disconnect: "Disconnect", annuli: "Sealed annuli" },
  completion: {
    evaluation: "Evaluation",
    decision: "Decision",
    barriers: "Barriers",
    completed: "Tubing and tree",
    suspension: "Suspension",
    abandonment: "Abandonment",
  },
  runsheet: { sheet: "Run sheet", floor: "Step by step", schedule: "Schedule", materials: "Materials" },
  logbook: { log: "Log", tests: "Leak-off tests", today: "Today", live: "Live", compare: "Plan and actual" },
  drills: { rehearse: "Rehearse", sheet: "Kill sheet", procedures: "Procedures", known: "Pumps and string", scores: "Scores" },
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
  if (step === "running") return runningTab(place);
  if (step === "wellhead") return wellheadTab(place);
  if (step === "sea") return seaTab(place);
  if (step === "completion") return completionTab(place);
  if (step === "runsheet") return sheetTab(place);
  if (step === "logbook") return place.startsWith("/log") ? "log" : "today";
  if (step === "drills") return place.startsWith("/drills") ? "known" : "rehearse";
  if (step === "preventers") return place.startsWith("/closing_unit") ? "unit" : "stack";
  if (place.startsWith("/balanced_plugs")) return "plugs";
  if (step === "cement") return cementTab(place.split("/")[4] ?? "");
  return step === "depths" ? "cards" : null;
}

const PLACING = ["top_up_md_ft", "thickening_minutes", "free_fluid_percent", "fluid_loss_cm3", "strength"];

function cementTab(key: string): string {
  if (["fluids", "steps", "form"].includes(key)) return "fluids";
  if (["caliper", "excesses"].includes(key)) return "hole";
  if (["additives", "water"].includes(key)) return "blend";
  return PLACING.some((part) => key.endsWith(part)) ? "placement" : "slurries";
}

function completionTab(place: string): string {
  const key = place.split("/")[2] ?? "";
  if (["evaluation", "pressure_points"].includes(key)) return "evaluation";
  if (key === "verified") return "barriers";
  return key === "suspension" || key === "abandonment" || key === "decision" ? key : "completed";
}

function sheetTab(place: string): string {
  if (place.startsWith("/runsheet/orders")) return "materials";
  return ["/runsheet/rates", "/runsheet/spud"].some((key) => place.startsWith(key)) ? "schedule" : "sheet";
}

function seaTab(place: string): string {
  if (place.startsWith("/site") || place === "/sea/riser/collapse_psi" || place === "/sea/pad_mud_ppg") return "landing";
  if (place.startsWith("/sea/riser")) return "riser";
  if (place.startsWith("/sea/annuli")) return "annuli";
  return ["/sea/weather", "/sea/limits", "/sea/disconnect", "/sea/storm_hours"].some((key) => place.startsWith(key))
    ? "disconnect"
    : "conductor";
}

function wellheadTab(place: string): string {
  if (place.startsWith("/wellhead/pieces")) return "pieces";
  return ["free_conductor_ft", "mudline_hangers", "seabed_hanger_ft"].some((key) => place.endsWith(key)) ? "loads" : "heights";
}

function runningTab(place: string): string {
  if (place.startsWith("/centralizers")) return "centralizers";
  if (place.startsWith("/site")) return "moving";
  const key = place.split("/")[4] ?? "";
  if (["shoe", "collar", "collar_joint", "fill", "fill_joints"].includes(key)) return "float";
  if (["gel_lb_100ft2", "torque_ft_lbf"].includes(key)) return "moving";
  return ["centralizers", "moved", "scratchers"].includes(key) ? "centralizers" : "tally";
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
  return ["permeable", "hazards", "case_before_deeper", "shoe_allowed", "gas_contact_tvd_ft", "standoff_percent"].includes(key ?? "")
    ? "flags"
    : "zones";
}
