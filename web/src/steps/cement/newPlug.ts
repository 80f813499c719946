/** What a plug begins with before anything is decided of it; null waits for the policy or the well. */
export const NEW_PLUG = {
  name: "",
  spacer_bbl: 15,
  spacer_ppg: null,
  mud_ppg: null,
  hole_to_md_ft: null,
  pipe_od_in: null,
  pipe_id_in: null,
  water_gal_sk: null,
  excess: null,
};
