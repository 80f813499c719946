"""What follows for a well at sea: what the conductor carries, the riser and its tension, the disconnect, sealed annuli."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words


class CarryRow(Result):
    """What a conductor carries at a moment, and what the soil bears then."""

    moment: str
    hours: float | None
    load_lbf: float | None
    capacity_lbf: float | None
    factor: float | None
    working: str


class ConductorResult(Result):
    how: Literal["driven", "jetted", "cased"]
    od_in: float | None
    penetration_ft: float
    top_md_ft: float
    """Top of the high-pressure housing."""
    weight_lbf: float | None
    friction_psf: float | None
    long_run_lbf: float | None
    immediate_lbf: float | None
    bit_out_in: float | None
    """How far the jetting bit stands out: typed, or by the length of its assembly."""
    soak_needed_hours: float | None
    """Until it bears its own load with policy's factor; None where it never does, or nothing is known."""
    rows: tuple[CarryRow, ...]
    soil_md_ft: tuple[float, ...]
    soil_friction_psf: tuple[float, ...]
    capacity_hours: tuple[float, ...]
    capacity_lbf: tuple[float, ...]


class StandingJoints(Result):
    """A kind of joint in the riser."""

    name: str
    count: int
    length_ft: float
    total_ft: float
    wet_lbf: float
    lift_lbf: float


class TensionRow(Result):
    """The tension of a hole section drilled through the riser."""

    string: int
    what: Words
    mud_ppg: float | None
    least_lbf: float | None
    """With no tensioner lost."""
    least_failed_lbf: float | None
    set_lbf: float | None
    package_lbf: float | None
    """What is left to lift the riser package, all tensioners pulling, sea water in the riser."""
    fill_bbl: float
    working: str


class RiserString(Result):
    made: bool
    """Made up by the tool from what is aboard, or from planning values."""
    top_md_ft: float
    """Middle of the telescopic joint's lower end: where the joints begin."""
    foot_md_ft: float
    """Lower flex joint: where the joints end."""
    stack_top_md_ft: float
    housing_md_ft: float
    space_ft: float
    joints: tuple[StandingJoints, ...]
    made_ft: float
    off_ft: float
    """Joints over the space: the telescopic joint stands so much shorter than at mid-stroke."""
    wet_lbf: float
    lift_lbf: float
    tensioners: int | None
    failed: int
    most_lbf: float | None
    may_set_lbf: float | None
    """Policy's share of that."""
    tensions: tuple[TensionRow, ...]
    hours: float
    tests: int


class DriftRow(Result):
    """A weather: how long a drifting rig takes, and the circles at which the crew acts."""

    name: str
    drift_ft_min: float | None
    limit_ft: float | None
    seconds: float | None
    red_ft: float | None
    yellow_ft: float | None
    red_s: float | None
    """When the emergency sequence begins, and when securing does: at once where there is no time before."""
    yellow_s: float | None
    spare_seconds: float | None


class DisconnectStepRow(Result):
    name: str
    when: Literal["secure", "emergency"]
    begins_s: float
    ends_s: float


class AcrossRow(Result):
    """What may stand across the stack in a section, and what happens to it at a disconnect."""

    string: int
    section: Words
    what: Words
    kind: str
    cut: Literal["cut and sealed", "cut, not sealed", "not cut", "unknown"]
    by: str
    hang_off: str
    margin_held: bool | None


class BarrierRow(Result):
    """What closes a hole in once the riser is off, and how many barriers are asked for then."""

    string: int
    section: Words
    moment: Literal["emergency disconnect", "leaving before a storm"]
    stands: tuple[str, ...]
    unknown: tuple[str, ...]
    needed: int


class DisconnectResult(Result):
    steps: tuple[DisconnectStepRow, ...]
    usual: bool
    answer_s: float
    secure_s: float
    emergency_s: float
    drift: tuple[DriftRow, ...]
    across: tuple[AcrossRow, ...]
    barriers: tuple[BarrierRow, ...] = ()


class AnnulusRow(Result):
    """An annulus between two strings, closed at the wellhead, that production heats; None is not known."""

    string: int
    what: Words
    place: str
    top_md_ft: float
    bottom_md_ft: float
    volume_bbl: float | None = None
    heating_f: float | None = None
    sealed: bool | None = None
    relief: str
    pressure_psi: float | None
    bound_psi: float | None = None
    """The most that a shoe left open or a disk lets build up."""
    collapse_load_psi: float | None = None
    """On the inner casing, with the columns on either side, at its worst depth."""
    collapse_psi: float | None = None
    burst_load_psi: float | None = None
    burst_psi: float | None = None
    working: str


class LandingRow(Result):
    """A string landed on drill pipe: its greatest pull, with what heave adds, and what holds it."""

    string: int
    what: Words
    through: Literal["open water", "riser"]
    pipe_in: float
    hook_lbf: float | None
    heaved_lbf: float | None
    limit_lbf: float | None
    block_lbf: float | None
    strength_lbf: float | None
    working: str


class RiserlessRow(Result):
    """A hole drilled before the riser is on, and the pad mud that fills it before casing is run."""

    string: int
    what: Words
    hole_bbl: float
    pad_ppg: float | None
    pad_bbl: float | None
    working: str


class ScheduleRow(Result):
    """A piece of work that the sea adds: its hours, and those of all up to it."""

    work: str
    hours: float
    total_hours: float


class StormStep(Result):
    name: str
    hours: float


class StormResult(Result):
    """How long it takes to leave the well with the riser on deck, and how long before a storm is told."""

    steps: tuple[StormStep, ...]
    total_hours: float | None
    warning_hours: float | None


class WaitRow(Result):
    """A piece of work against its weather limits: the weathers in which it waits, and those of which it is not known."""

    work: str
    waits: tuple[str, ...]
    unknown: tuple[str, ...]


class DiverterResult(Result):
    """A kick that got past the stack."""

    kick_bbl: float
    at_stack_psi: float
    at_flow_line_bbl: float
    empty_psi: float
    collapse_psi: float | None
    working: str


class SeaResult(Result):
    applies: bool
    conductor: ConductorResult | None = None
    riser: RiserString | None = None
    disconnect: DisconnectResult | None = None
    annuli: tuple[AnnulusRow, ...] = ()
    landing: tuple[LandingRow, ...] = ()
    diverter: DiverterResult | None = None
    riserless: tuple[RiserlessRow, ...] = ()
    storm: StormResult | None = None
    waits: tuple[WaitRow, ...] = ()
    schedule: tuple[ScheduleRow, ...] = ()
    reconnect: tuple[str, ...] = ()
