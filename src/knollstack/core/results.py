"""The shape of an evaluation: every number that follows from a design, step by step.

A step's word is its key here, its core module, its folder in the front end and its address. Rows of `strings`
and of each step's `strings` stand in the same order, conductor first. None is unknown.
"""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

Quantity = Literal[
    "depth", "size", "diameter", "height", "emw", "pressure", "volume", "force", "linear_weight", "water", "slurry_yield",
    "sacks", "factor", "angle", "temperature", "gradient", "fraction", "capacity", "concentration",
]  # fmt: skip
Step = Literal["ground", "depths", "sizes", "mud", "pipe", "cement", "wellhead", "preventers", "policy"]
STEPS: tuple[Step, ...] = ("ground", "depths", "sizes", "mud", "pipe", "cement", "wellhead", "preventers")
Severity = Literal["stop", "caution", "unknown", "note"]
State = Literal["blank", "incomplete", "good", "caution", "stop"]


class Result(BaseModel):
    model_config = ConfigDict(frozen=True)


class Amount(Result):
    """A number with its quantity, so that it can be shown in the units of the person."""

    value: float
    quantity: Quantity


Words = tuple[str | Amount, ...]


class Change(Result):
    """One edit of the document: a JSON pointer and the new value."""

    path: str
    value: Any


class Remedy(Result):
    label: Words
    changes: tuple[Change, ...]


class Finding(Result):
    """What is wrong, where, by how much, and what would mend it."""

    severity: Severity
    step: Step
    place: str
    subject: Words
    message: Words
    value: Amount | None = None
    limit: Amount | None = None
    remedies: tuple[Remedy, ...] = ()
    working: str | None = None


class Assumption(Result):
    step: Step
    place: str
    text: Words


class Basis(Result):
    total_md_ft: float
    total_tvd_ft: float
    ground_md_ft: float
    at_sea: bool
    temperature_tvd_ft: tuple[float, ...]
    temperature_f: tuple[float, ...]
    axis_md_ft: tuple[float, ...]
    axis_tvd_ft: tuple[float, ...]
    axis_departure_ft: tuple[float, ...]
    axis_north_ft: tuple[float, ...]
    axis_east_ft: tuple[float, ...]
    section_azimuth_deg: float


class TrackPoint(Result):
    md_ft: float
    tvd_ft: float
    emw_ppg: float


class ZoneBand(Result):
    index: int
    name: str
    top_md_ft: float
    base_md_ft: float
    top_tvd_ft: float
    base_tvd_ft: float
    rock: str
    fluid: str
    hazards: tuple[str, ...]


class WindowPoint(Result):
    md_ft: float
    lower_ppg: float | None
    upper_ppg: float | None


class ZoneNote(Result):
    """A rule that a zone brings into the design."""

    index: int
    text: Words


class PressurePoint(Result):
    """The same ground as pressures, for drawing: None is unknown."""

    md_ft: float
    pore_psi: float | None
    fracture_psi: float | None


class GroundResult(Result):
    zones: tuple[ZoneBand, ...]
    pore: tuple[TrackPoint, ...]
    fracture: tuple[TrackPoint, ...]
    stability: tuple[TrackPoint, ...]
    window: tuple[WindowPoint, ...]
    pressures: tuple[PressurePoint, ...]
    notes: tuple[ZoneNote, ...]


class StringResult(Result):
    """One string as drawn: where it stands and its sizes. `index` is its place in the document, or proposed."""

    name: str
    role: str
    run: str
    proposed: bool
    top_md_ft: float
    shoe_md_ft: float
    shoe_tvd_ft: float
    previous_shoe_md_ft: float
    bit_in: float | None
    od_in: float | None
    id_in: float | None
    cement_top_md_ft: float | None
    mud_ppg: float | None


class BoundResult(Result):
    mud_ppg: float
    md_ft: float
    cause: str


class KickResult(Result):
    """Kick tolerance at a shoe. `limited` is false where the rock stands a bubble that fills the whole open hole:
    the volume is then that of the open hole, and is no limit.
    """

    tolerance_bbl: float | None
    limited: bool
    at_md_ft: float | None
    required_bbl: float
    height_ft: float | None
    weak_md_ft: float | None
    weak_is_shoe: bool
    maasp_psi: float | None
    greatest_intensity_ppg: float | None
    full_gas_margin_psi: float | None
    curve_md_ft: tuple[float, ...]
    curve_bbl: tuple[float, ...]


class ProposedShoe(Result):
    """A shoe of the bottom-up program: its depth and the rule that set it there."""

    role: str
    md_ft: float
    rule: str
    reason: Words


class FreedomResult(Result):
    """Where a shoe stands in some program with the fewest strings, conductor apart."""

    shallow_md_ft: float
    deep_md_ft: float


class ProgramsResult(Result):
    """Both schools side by side, the freedom of each shoe between them, and what would free a program if none is."""

    sections: int
    bottom_up: tuple[ProposedShoe, ...]
    top_down: tuple[ProposedShoe, ...]
    freedom: tuple[FreedomResult, ...]
    failure: Words
    reliefs: tuple[Remedy, ...]


class ShoeRow(Result):
    kick: KickResult | None
    rule: str | None
    reason: Words


class DepthsResult(Result):
    """`strings[i].kick` is the tolerance at this string's shoe while drilling the next section."""

    proposal: tuple[ProposedShoe, ...]
    failure: Words
    strings: tuple[ShoeRow, ...]


class SpareSize(Result):
    """A casing that can be set above a string without taking its hole."""

    bit_in: float
    od_in: float


class SizeRow(Result):
    usual: bool
    outer_drift_in: float | None
    bit_margin_in: float | None
    coupling_od_in: float | None
    clearance_in: float | None
    common_in: float | None
    tight_in: float | None
    spare: SpareSize | None = None


class SizesResult(Result):
    strings: tuple[SizeRow, ...]


class ZoneOverbalance(Result):
    """Greatest overbalance in a zone of the open hole; a limit only where it is permeable and the pipe may stick."""

    name: str
    overbalance_psi: float
    at_md_ft: float
    limit_psi: float | None


class MudVolumes(Result):
    hole_bbl: float
    string_displacement_bbl: float | None
    pits_bbl: float
    total_bbl: float | None


class WeightUp(Result):
    """From the mud of the section above: weighting solid and gain when heavier, base fluid to add when lighter."""

    from_ppg: float
    volume_bbl: float
    solid_lb: float | None
    gain_bbl: float | None
    base_bbl: float | None


class RiserResult(Result):
    """Mud that holds the pore pressure with the riser gone. `possible`: it is under the practical limit."""

    needed_ppg: float
    margin_ppg: float
    at_md_ft: float
    held: bool
    possible: bool


class MudStepResult(Result):
    """One weight of a section drilled in steps, with the window of the open hole down to the step's end."""

    from_md_ft: float
    to_md_ft: float
    mud_ppg: float
    lower_ppg: float | None
    upper_ppg: float | None


class MudRow(Result):
    planned_ppg: float | None
    lower: BoundResult | None
    upper: BoundResult | None
    open_hole_ft: float
    hole_volume_bbl: float | None
    overbalance_psi: float | None
    overbalance_md_ft: float | None
    top_psi: float | None = None
    bottom_psi: float | None = None
    zones: tuple[ZoneOverbalance, ...] = ()
    volumes: MudVolumes | None = None
    weight_up: WeightUp | None = None
    ecd_shoe_ppg: float | None = None
    ecd_bottom_ppg: float | None = None
    surge_ppg: float | None = None
    swab_ppg: float | None = None
    riser: RiserResult | None = None
    sweep_bbl: float | None = None
    riserless: bool = False
    steps: tuple[MudStepResult, ...] = ()


class MudResult(Result):
    strings: tuple[MudRow, ...]


class LoadResult(Result):
    """The governing point of one load case and its curve along the string."""

    name: str
    kind: Literal["burst", "collapse", "tension"]
    factor: float
    required: float
    at_md_ft: float
    load: float
    rating: float
    curve_md_ft: tuple[float, ...] = ()
    curve_load_psi: tuple[float, ...] = ()
    curve_rating_psi: tuple[float, ...] = ()


class LinerOption(Result):
    """What it would save to hang this string as a liner, and what it costs the casing above in burst."""

    hanger_md_ft: float
    steel_saved_lbf: float | None
    cement_saved_bbl: float | None
    burst_factor_above: float | None
    burst_required: float


class PipeRow(Result):
    chosen: bool
    weight_ppf: float | None = None
    grade: str | None = None
    connection: str | None = None
    wall_in: float | None = None
    id_in: float | None = None
    drift_in: float | None = None
    burst_psi: float | None = None
    collapse_psi: float | None = None
    body_lbf: float | None = None
    joint_lbf: float | None = None
    loads: tuple[LoadResult, ...] = ()


class LinersResult(Result):
    """For each string, the option of hanging it as a liner; None where it is none."""

    strings: tuple[LinerOption | None, ...]


class PipeResult(Result):
    strings: tuple[PipeRow, ...]


class CementRow(Result):
    applies: bool
    top_md_ft: float | None = None
    slurry_ppg: float | None = None
    yield_ft3_sk: float | None = None
    water_gal_sk: float | None = None
    bentonite_percent: float | None = None
    excess: float | None = None
    cased_annulus_bbl: float | None = None
    open_annulus_bbl: float | None = None
    shoe_track_bbl: float | None = None
    rathole_bbl: float | None = None
    slurry_bbl: float | None = None
    sacks: float | None = None
    mix_water_bbl: float | None = None
    displacement_bbl: float | None = None
    greatest_emw_ppg: float | None = None
    fracture_ppg: float | None = None
    greatest_emw_md_ft: float | None = None
    float_differential_psi: float | None = None


class CementResult(Result):
    strings: tuple[CementRow, ...]


class PieceResult(Result):
    name: str
    string: str
    height_in: float
    gap_in: float
    bore_in: float
    bottom_psi: float | None
    top_psi: float
    flange: str | None
    needed_psi: float | None


class WellheadResult(Result):
    applies: bool
    pieces: tuple[PieceResult, ...]
    reference_height_in: float | None
    surface_cut_in: float | None
    conductor_cut_in: float | None
    surface_pressure_psi: tuple[float | None, ...]


class ElementResult(Result):
    element: str
    title: str
    height_in: float | None


class StackRow(Result):
    """The stack on this string while the next section is drilled; no elements when none is carried."""

    decided: bool
    pressure_psi: float | None
    class_psi: float | None
    bore_in: float | None
    flange: str | None
    elements: tuple[ElementResult, ...]
    height_in: float | None


class PreventersResult(Result):
    strings: tuple[StackRow, ...]


class StepState(Result):
    step: Step
    state: State


class Evaluation(Result):
    basis: Basis
    path: tuple[StepState, ...]
    strings: tuple[StringResult, ...]
    ground: GroundResult
    depths: DepthsResult
    sizes: SizesResult
    mud: MudResult
    pipe: PipeResult
    liners: LinersResult
    cement: CementResult
    wellhead: WellheadResult
    preventers: PreventersResult
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]
