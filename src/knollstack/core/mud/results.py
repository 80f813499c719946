"""What follows for mud: each section's window, weights, volumes, and the mud at rest and moving."""

from __future__ import annotations

from knollstack.core.base.findings import Result


class BoundResult(Result):
    mud_ppg: float
    md_ft: float
    cause: str


class ZoneOverbalance(Result):
    """Greatest overbalance in a zone of the open hole; a limit only where it is permeable and the pipe may stick."""

    name: str
    overbalance_psi: float
    at_md_ft: float
    limit_psi: float | None


class MudVolumes(Result):
    """`hole_bbl` holds casing, open hole and riser, without the drill string."""

    hole_bbl: float
    riser_bbl: float
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


class Nearest(Result):
    """Where in the open hole the moving mud is nearest to what the rock stands, or farthest beyond it."""

    md_ft: float
    emw_ppg: float
    rock_ppg: float


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
    ecd_worst: Nearest | None = None
    surge_worst: Nearest | None = None
    swab_worst: Nearest | None = None
    riser: RiserResult | None = None
    sweep_bbl: float | None = None
    riserless: bool = False
    steps: tuple[MudStepResult, ...] = ()


class MudResult(Result):
    strings: tuple[MudRow, ...]
