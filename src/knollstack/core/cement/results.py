"""What follows for cement: the job of each string."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words
from knollstack.core.cement.rheology import Model
from knollstack.core.document.cementing import FluidKind, SlurryKind


class FluidRow(Result):
    """A fluid of the job as it is pumped; `row` is its place among the document's fluids, None where it is proposed."""

    kind: FluidKind
    name: str
    density_ppg: float
    volume_bbl: float
    rate_bpm: float
    model: Model
    assumed: bool
    row: int | None


class StepRow(Result):
    volume_bbl: float
    rate_bpm: float
    stop_minutes: float


class RuleRow(Result):
    """A rule of placement with the number found and what is asked."""

    title: str
    subject: Words
    found: Words
    asked: Words
    state: Literal["kept", "short", "told"]


class ThickeningRow(Result):
    name: str
    job_minutes: float
    needed_minutes: float
    held_minutes: float | None
    key: str


class GasRow(Result):
    zone: str
    md_ft: float
    cement_ft: float
    overbalance_psi: float | None
    potential: float | None
    grade: Literal["minor", "moderate", "severe", "unknown"]
    working: str


class TopUpRow(Result):
    """Filling up from where the cement has fallen back to, by small pipe in the annulus."""

    from_md_ft: float
    to_md_ft: float
    volume_bbl: float
    sacks: float
    water_bbl: float


class WaitRow(Result):
    """What may be done from a strength, and after how many hours; by policy's hours where none is measured."""

    what: str
    strength_psi: float
    hours: float | None
    measured: bool


class BlendItem(Result):
    """One thing of the blend: by the sack, in all, and in each tank of mix water where it goes there."""

    name: str
    unit: Literal["lb", "gal"]
    per_sack: float
    total: float
    per_tank: float | None


class BlendRow(Result):
    """The blend sheet of one slurry of one stage."""

    slurry: SlurryKind
    stage: int
    volume_bbl: float
    sacks: float
    bulk_ft3: float
    water_bbl: float
    tanks: float
    items: tuple[BlendItem, ...]


class StageRow(Result):
    """One stage of the job followed in time; densities are the annulus where it is nearest to the rock."""

    number: int
    inner: bool
    """By an inner string: no plug is pumped."""
    fluids: tuple[FluidRow, ...]
    steps: tuple[StepRow, ...]
    rate_share: float
    minutes: float
    pumped_bbl: float
    bump_bbl: float
    displacement_bbl: float
    """As it is measured at surface: what is pumped shrinks under its pressure."""
    returns_bbl: float
    cement_back_bbl: float
    """Of the returns, what is cement."""
    overdisplace_bbl: float
    """What may be pumped beyond it where the plug does not bump."""
    bottom_plug_bbl: float | None
    """Pumped when the bottom plug lands."""
    bottom_plug_psi: float | None
    """At the pump when it ruptures."""
    dart_bbl: float | None
    """Pumped when the dart behind the slurry latches in a plug that waits under the landing string."""
    dart_psi: float | None
    """At the pump when it releases that plug."""
    final_pump_psi: float
    bumped_psi: float | None
    """At the pump with the plug bumped; None where it does not land."""
    test_psi: float | None
    """Of a casing test on green cement, where policy has one."""
    greatest_pump_psi: float
    greatest_return_bpm: float
    fall_bbl: float
    fall_level_md_ft: float
    greatest_emw_ppg: float | None
    fracture_ppg: float | None
    greatest_md_ft: float | None
    greatest_after_bbl: float | None
    least_emw_ppg: float | None
    pore_ppg: float | None
    least_md_ft: float | None
    least_after_bbl: float | None
    collapse_factor: float | None
    burst_factor: float | None
    float_psi: float
    """Held by the float once the pressure is bled back."""
    hanging_lbf: float
    rules: tuple[RuleRow, ...]
    thickening: tuple[ThickeningRow, ...]


class ReversingRow(Result):
    """Cement over a liner's top, and its way back up the drill pipe."""

    over_ft: float
    over_bbl: float
    volume_bbl: float
    """Pumped down the annulus until the last of it is back."""
    rate_bpm: float
    pump_psi: float
    reached_ppg: float | None
    fracture_ppg: float | None
    md_ft: float | None


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
    upper_collar_md_ft: float | None = None
    excess: float | None = None
    cased_annulus_bbl: float | None = None
    open_annulus_bbl: float | None = None
    shoe_track_bbl: float | None = None
    rathole_bbl: float | None = None
    over_hanger_bbl: float | None = None
    slurry_bbl: float | None = None
    lead_bbl: float | None = None
    tail_bbl: float | None = None
    second_stage_bbl: float | None = None
    third_stage_bbl: float | None = None
    sacks: float | None = None
    lead_sacks: float | None = None
    mix_water_bbl: float | None = None
    landing_string_bbl: float | None = None
    displacement_bbl: float | None = None
    second_displacement_bbl: float | None = None
    third_displacement_bbl: float | None = None
    greatest_emw_ppg: float | None = None
    fracture_ppg: float | None = None
    greatest_emw_md_ft: float | None = None
    float_differential_psi: float | None = None
    bump_psi: float | None = None
    bump_over_psi: float | None = None
    stages: tuple[StageRow, ...] = ()
    mix_water: str = "fresh water"
    blends: tuple[BlendRow, ...] = ()
    top_up: TopUpRow | None = None
    reversing: ReversingRow | None = None
    gas: tuple[GasRow, ...] = ()
    waits: tuple[WaitRow, ...] = ()


class PlugRow(Result):
    """A balanced plug: the mean hole that it fills, what is mixed and pumped, and the rock with the pipe in it."""

    hole_in: float
    mud_ppg: float
    slurry_ppg: float
    slurry_bbl: float
    sacks: float
    water_bbl: float
    spacer_behind_bbl: float
    displacement_bbl: float
    top_with_pipe_md_ft: float
    reached_ppg: float | None
    fracture_ppg: float | None
    weakest_md_ft: float | None


class CementResult(Result):
    strings: tuple[CementRow, ...]
    plugs: tuple[PlugRow | None, ...] = ()
    """Balanced plugs in the order of the document; None where something is wanting."""
