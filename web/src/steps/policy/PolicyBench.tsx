// Policy: every margin, limit, factor and school that the design is judged by.
import type { Quantity } from "../../design/types";
import { DocCheck, DocChoice, DocNumber } from "../../ui/DocField";
import { Panel, Scroll } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { Grid } from "../../ui/grid/Grid";
import { Connections } from "./Connections";

interface Entry {
  label: string;
  key: string;
  /** A yes or no. */
  check?: boolean;
  /** May be left empty. */
  optional?: boolean;
  quantity?: Quantity;
  unit?: string;
  options?: readonly string[];
}

const GROUPS: readonly { title: string; entries: readonly Entry[] }[] = [
  {
    title: "Mud window",
    entries: [
      { label: "Trip margin over pore", key: "trip_margin_ppg", quantity: "emw" },
      { label: "Margin under fracture", key: "fracture_margin_ppg", quantity: "emw" },
      { label: "Pore pressure counted normal up to", key: "normal_pore_ppg", quantity: "emw" },
      { label: "Overbalance limit, normal pore", key: "sticking_normal_psi", quantity: "pressure" },
      { label: "Overbalance limit, abnormal pore", key: "sticking_abnormal_psi", quantity: "pressure" },
    ],
  },
  {
    title: "Setting depths",
    entries: [
      { label: "School of the proposal", key: "depth_school", options: ["bottom up", "top down"] },
      { label: "Cover below fresh water", key: "fresh_water_cover_ft", quantity: "depth" },
      { label: "Cover below a zone to be cased", key: "zone_cover_ft", quantity: "depth" },
      { label: "Reach below a zone to be cased", key: "zone_reach_ft", quantity: "depth" },
      { label: "Overlap of a liner", key: "liner_overlap_ft", quantity: "depth" },
      { label: "Longest open hole", key: "open_hole_limit_ft", quantity: "depth" },
      { label: "Deepest hole on a diverter, below ground", key: "diverter_limit_ft", quantity: "depth" },
      { label: "Least conductor below ground", key: "conductor_minimum_ft", quantity: "depth" },
      { label: "Mud under the conductor", key: "conductor_mud_ppg", quantity: "emw" },
    ],
  },
  {
    title: "Kick",
    entries: [
      { label: "Intensity over pore", key: "kick_intensity_ppg", quantity: "emw" },
      { label: "Influx gradient", key: "influx_psi_ft", quantity: "gradient" },
      { label: "School", key: "kick_school", options: ["volume", "full gas"] },
    ],
  },
  {
    title: "Mud",
    entries: [
      { label: "Rheology", key: "rheology", options: ["Bingham", "power law"] },
      { label: "Pits", key: "pit_volume_bbl", quantity: "volume" },
      { label: "Weighting solid", key: "weighting_solid_ppg", quantity: "emw" },
      { label: "Trip speed, ft/min", key: "trip_speed_ft_min", quantity: "factor" },
      { label: "Practical limit of a riser-margin mud", key: "riser_mud_limit_ppg", quantity: "emw" },
      { label: "Gel sweep, riserless", key: "sweep_bbl", quantity: "volume" },
      { label: "A sweep every", key: "sweep_every_ft", quantity: "depth" },
    ],
  },
  {
    title: "Sizes",
    entries: [
      { label: "Production casing", key: "production_od_in", quantity: "size" },
      { label: "Tubing", key: "tubing_od_in", quantity: "size", optional: true },
      { label: "Least clearance", key: "clearance", options: ["common", "tight"] },
      { label: "Casing may be ordered to special drift", key: "special_drift", check: true },
      { label: "Keep one size spare for a contingency", key: "keep_spare", check: true },
    ],
  },
  {
    title: "Pipe",
    entries: [
      { label: "Burst factor", key: "factors/burst", quantity: "factor" },
      { label: "Collapse factor", key: "factors/collapse", quantity: "factor" },
      { label: "Collapse factor, cemented", key: "factors/collapse_cemented", quantity: "factor" },
      { label: "Tension factor", key: "factors/tension", quantity: "factor" },
      { label: "Compression factor", key: "factors/compression", quantity: "factor" },
      { label: "Triaxial factor", key: "factors/triaxial", quantity: "factor" },
      { label: "Triaxial wall", key: "triaxial_wall", options: ["nominal", "minimum"] },
      { label: "Yield lost per °F over 70 °F", key: "derate_per_f", quantity: "fraction" },
      { label: "Length range", key: "length_range", options: ["1", "2", "3"] },
      { label: "Choose from", key: "choose_from", options: ["catalogue", "stock list"] },
      { label: "Choose the least", key: "least", options: ["cost", "weight"] },
      { label: "Sections of a proposed string, at most", key: "most_sections", options: ["1", "2", "3", "4"] },
      { label: "Shortest section", key: "least_section_ft", quantity: "depth" },
    ],
  },
  {
    title: "Loads on pipe",
    entries: [
      { label: "Burst while drilling", key: "burst_school", options: ["gas to surface", "gas over mud", "kick volume"] },
      { label: "Share of gas over mud", key: "gas_share", quantity: "fraction" },
      { label: "Kick to be circulated out", key: "design_kick_bbl", quantity: "volume" },
      { label: "Gas", key: "gas_model", options: ["gradient", "real gas"] },
      { label: "Gas gradient", key: "gas_psi_ft", quantity: "gradient" },
      { label: "Gas gravity, air = 1", key: "gas_sg", quantity: "factor" },
      { label: "Gas deviation factor", key: "gas_z", quantity: "factor" },
      { label: "Behind pipe in burst", key: "burst_backup", options: ["pore", "base fluid", "mud", "mix water"] },
      { label: "Base fluid", key: "base_fluid_ppg", quantity: "emw" },
      { label: "Mix water", key: "mix_water_ppg", quantity: "emw" },
      { label: "Collapse while drilling", key: "collapse_school", options: ["by role", "lost returns", "evacuated"] },
      { label: "Packer fluid", key: "packer_fluid_ppg", quantity: "emw" },
      { label: "Heating of the wellhead in production, °F", key: "production_heat_f", quantity: "factor" },
      { label: "Pressure test over expected surface pressure", key: "test_share", quantity: "factor" },
      { label: "Tested in green cement", key: "test_in_green_cement", check: true },
      { label: "Plug bump over the differential", key: "bump_psi", quantity: "pressure" },
      { label: "Longest length run empty", key: "unfilled_ft", quantity: "depth" },
      { label: "Speed at which the string is stopped, ft/s", key: "shock_ft_s", quantity: "factor" },
      { label: "Overpull while running", key: "overpull_lbf", quantity: "force" },
      { label: "Wellhead stands on", key: "wellhead_on", options: ["casing and conductor", "casing alone"] },
    ],
  },
  {
    title: "Cement and preventers",
    entries: [
      { label: "Excess over open hole, fraction", key: "cement_excess", quantity: "fraction" },
      { label: "Cement above the previous shoe", key: "cement_overlap_ft", quantity: "depth" },
      { label: "Shoe track", key: "shoe_track_ft", quantity: "depth" },
      { label: "Rathole", key: "rathole_ft", quantity: "depth" },
      { label: "Mix water, neat", key: "slurry_water_gal_sk", quantity: "water" },
      { label: "Least stack class", key: "stack_minimum_class_psi", quantity: "pressure" },
    ],
  },
];

export function PolicyBench() {
  const units = useUnits();
  return (
    <Panel title="Policy">
      <Scroll label="Policy">
        <p className="mb-2 text-[12px] text-mute">Defaults are common practice, not a rule of any place. Local rules prevail.</p>
        <div className="columns-2 gap-8">
          {GROUPS.map((group) => (
            <section key={group.title} className="mb-4 break-inside-avoid" aria-label={group.title}>
              <h3 className="mb-0.5 text-[13px] font-semibold">{group.title}</h3>
              {group.entries.map((entry) => (
                <div key={entry.key} className="grid grid-cols-[1fr_5.5rem_3rem] items-center border-b border-rule/60">
                  <span>{entry.label}</span>
                  {entry.check ? (
                    <span className="text-right">
                      <DocCheck label={entry.label} path={`/policy/${entry.key}`} />
                    </span>
                  ) : entry.options ? (
                    <span className="col-span-2">
                      <DocChoice label={entry.label} path={`/policy/${entry.key}`} options={entry.options} numeric={entry.key === "most_sections" || entry.key === "length_range"} />
                    </span>
                  ) : (
                    <DocNumber label={entry.label} path={`/policy/${entry.key}`} quantity={entry.quantity!} optional={entry.optional} />
                  )}
                  {!entry.options && <span className="pl-1.5 text-mute">{entry.quantity ? units.unit(entry.quantity) : ""}</span>}
                </div>
              ))}
            </section>
          ))}
          <Connections />
          <section className="mb-4 break-inside-avoid" aria-label="Kick minimums">
            <h3 className="mb-0.5 text-[13px] font-semibold">Least kick tolerance by hole size</h3>
            <Grid
              title="Kick minimum"
              target="kick_minimums"
              path="/policy/kick_minimums"
              sortBy="from_hole_in"
              columns={[
                { key: "from_hole_in", label: "From hole", kind: "number", quantity: "size" },
                { key: "volume_bbl", label: "Volume", kind: "number", quantity: "volume" },
              ]}
              newRow={() => ({ from_hole_in: 6, volume_bbl: 15 })}
              empty="No minimum is asked."
            />
          </section>
          <section className="mb-4 break-inside-avoid" aria-label="Drill strings">
            <h3 className="mb-0.5 text-[13px] font-semibold">Drill string by hole size</h3>
            <Grid
              title="Drill string"
              target="drill_strings"
              path="/policy/drill_strings"
              sortBy="from_hole_in"
              columns={[
                { key: "from_hole_in", label: "From hole", kind: "number", quantity: "size" },
                { key: "pipe_od_in", label: "Pipe", kind: "number", quantity: "size" },
                { key: "collar_od_in", label: "Collars", kind: "number", quantity: "size" },
                { key: "collar_length_ft", label: "Length", kind: "number", quantity: "depth" },
                { key: "pipe_id_in", label: "Pipe bore", kind: "number", quantity: "diameter", optional: true },
                { key: "collar_id_in", label: "Collar bore", kind: "number", quantity: "diameter", optional: true },
              ]}
              newRow={() => ({ from_hole_in: 6, pipe_od_in: 3.5, collar_od_in: 4.75, collar_length_ft: 450, pipe_id_in: 2.764, collar_id_in: 2.25 })}
              least={1}
              empty=""
            />
          </section>
        </div>
      </Scroll>
    </Panel>
  );
}
