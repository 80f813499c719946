"""What follows for ground, depths, sizes and mud: the rows of these steps."""

from __future__ import annotations

from knollstack.core.findings import Remedy, Result, Words


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
    tied_back: bool = False


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
