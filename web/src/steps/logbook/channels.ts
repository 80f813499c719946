// What the channels of a feed are called.
import type { Channel } from "../../design/types";

export const CHANNEL_TITLES: Record<Channel, string> = {
  hole_md_ft: "Hole depth",
  bit_md_ft: "Bit or shoe",
  hook_lbf: "Hook load",
  pump_psi: "Pump pressure",
  casing_psi: "Casing pressure",
  flow_in_gpm: "Flow in",
  flow_out_gpm: "Flow out",
  flow_out_percent: "Flow out, paddle",
  pit_bbl: "Pit volume",
  mud_in_ppg: "Mud weight in",
  activity: "Activity code",
  cement_psi: "Cement pump",
  cement_in_bpm: "Rate in",
  cement_out_bpm: "Rate out",
  cement_bbl: "Cement pumped",
  cement_ppg: "Cement density",
};
