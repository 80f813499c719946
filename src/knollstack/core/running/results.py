"""What follows for running: the tally as it lands, filling, hook load, speed, torque and centralizers of each string."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result
from knollstack.core.document.running import CollarKind, FillMethod, Movement, ShoeKind


class FluidRow(Result):
    """One way to hold fluid inside: flooded, filled as planned, floated in; at the end of the run."""

    inside: Literal["flooded", "planned", "floated"]
    hook_in_lbf: float | None
    hook_up_lbf: float | None
    worst_float_psi: float
    collapse_factor: float | None


class TorqueRow(Result):
    """Make-up of one section's connection."""

    connection: str
    by: Literal["torque", "mark", "weld", "unknown"]
    least_ft_lbf: float | None
    best_ft_lbf: float | None
    most_ft_lbf: float | None


class IntervalRow(Result):
    """A run of centralizers in force; `place` is where it is decided."""

    type: str
    top_md_ft: float
    base_md_ft: float
    number: int
    joints: int
    count: int


class StickingRow(Result):
    zone: str
    top_md_ft: float
    base_md_ft: float
    overbalance_psi: float | None
    force_lbf: float | None
    centralized: bool


class RunningRow(Result):
    """One string's run; None is not known."""

    applies: bool
    made: bool = True
    hung: str | None = None
    joints: int | None = None
    pups: int | None = None
    spares: int | None = None
    left_out: int | None = None
    total_ft: float | None = None
    over_ft: float | None = None
    shoe_md_ft: float | None = None
    shoe_off_ft: float | None = None
    top_md_ft: float | None = None
    mean_joint_ft: float | None = None
    shoe: ShoeKind | None = None
    collar: CollarKind | None = None
    collar_joint: int | None = None
    collar_md_ft: float | None = None
    track_ft: float | None = None
    stages_md_ft: tuple[float, ...] = ()
    fill: FillMethod | None = None
    fill_joints: int | None = None
    fills: int | None = None
    fill_bbl: float | None = None
    empty_ft: float | None = None
    float_psi: float | None = None
    collapse_factor: float | None = None
    collapse_joint: int | None = None
    crushed_joint: int | None = None
    collapse_md_ft: float | None = None
    longest_empty_tvd_ft: float | None = None
    fluids: tuple[FluidRow, ...] = ()
    hook_up_lbf: float | None = None
    hook_down_lbf: float | None = None
    overpull_left_lbf: float | None = None
    lock_up_md_ft: float | None = None
    vertical_hook_lbf: float | None = None
    running_ft_min: float | None = None
    slowest_shoe_md_ft: float | None = None
    slowest_limit_md_ft: float | None = None
    surge_ppg: float | None = None
    hours: float | None = None
    break_psi: float | None = None
    break_ppg: float | None = None
    stretch_in: float | None = None
    pulled_in: float | None = None
    torque: tuple[TorqueRow, ...] = ()
    intervals: tuple[IntervalRow, ...] = ()
    centralizers: int | None = None
    centralizer_md_ft: tuple[float, ...] = ()
    stop_collars: int | None = None
    centralizer_price: float | None = None
    running_force_lbf: float | None = None
    least_standoff_percent: float | None = None
    least_standoff_md_ft: float | None = None
    moved: Movement | None = None
    scratchers: int | None = None
    sticking: tuple[StickingRow, ...] = ()


class RunningResult(Result):
    strings: tuple[RunningRow, ...]
