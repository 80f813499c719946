"""What follows for pipe and liners: the rows of these steps."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words

LoadKind = Literal["burst", "collapse", "tension", "compression", "triaxial"]


class LoadResult(Result):
    """The governing point of one kind of load over all cases."""

    name: str
    stage: str
    kind: LoadKind
    factor: float
    required: float
    at_md_ft: float
    section: int
    load: float
    rating: float


class SectionResult(Result):
    """One section of a string: its pipe, its ratings when new and cold, and why it ends where it does."""

    top_md_ft: float
    bottom_md_ft: float
    weight_ppf: float
    grade: str
    connection: str
    wall_in: float
    id_in: float
    drift_in: float
    special_drift: bool
    coupling_od_in: float
    burst_psi: float
    coupling_psi: float | None
    leak_psi: float | None
    collapse_psi: float
    body_lbf: float
    joint_lbf: float | None
    torque_ft_lbf: float | None
    torque_least_ft_lbf: float | None
    suits_service: bool | None
    joints_least: int
    joints_most: int
    cost: float
    priced: bool
    ends_because: Words = ()


class PipeRow(Result):
    """The pipe in force, and the least factor of each kind."""

    chosen: bool
    sections: tuple[SectionResult, ...] = ()
    loads: tuple[LoadResult, ...] = ()
    buckles: Words = ()
    buckles_md_ft: float | None = None
    buckled_factor: float | None = None
    """Triaxial safety factor where it is buckled, its bending included."""
    hung_lbf: float | None = None
    hung_factor: float | None = None
    test_psi: float | None = None
    """Pressure test at the wellhead, on the sea floor where that stands there."""
    test_rig_psi: float | None = None
    """The same as the rig's gauge reads it, with mud up to the rig; None where that is the same."""
    test_share: float | None = None
    """Least share of what it stands over the load of that test with policy's factors; None is not known, or no test."""


class PipeResult(Result):
    strings: tuple[PipeRow, ...]
