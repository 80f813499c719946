"""What follows for cement: the job of each string."""

from __future__ import annotations

from knollstack.core.base.findings import Result


class CementRow(Result):
    applies: bool
    top_md_ft: float | None = None
    slurry_ppg: float | None = None
    yield_ft3_sk: float | None = None
    water_gal_sk: float | None = None
    bentonite_percent: float | None = None
    displacement_ppg: float | None = None
    tail_top_md_ft: float | None = None
    lead_ppg: float | None = None
    lead_yield_ft3_sk: float | None = None
    lead_water_gal_sk: float | None = None
    lead_bentonite_percent: float | None = None
    stage_collar_md_ft: float | None = None
    excess: float | None = None
    cased_annulus_bbl: float | None = None
    open_annulus_bbl: float | None = None
    shoe_track_bbl: float | None = None
    rathole_bbl: float | None = None
    slurry_bbl: float | None = None
    lead_bbl: float | None = None
    tail_bbl: float | None = None
    second_stage_bbl: float | None = None
    sacks: float | None = None
    lead_sacks: float | None = None
    mix_water_bbl: float | None = None
    landing_string_bbl: float | None = None
    displacement_bbl: float | None = None
    second_displacement_bbl: float | None = None
    greatest_emw_ppg: float | None = None
    fracture_ppg: float | None = None
    greatest_emw_md_ft: float | None = None
    float_differential_psi: float | None = None
    bump_psi: float | None = None


class CementResult(Result):
    strings: tuple[CementRow, ...]
