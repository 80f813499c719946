"""What follows for pipe and liners: the rows of these steps."""

from __future__ import annotations

from typing import Literal

from knollstack.core.findings import Result, Words

LoadKind = Literal["burst", "collapse", "tension", "compression", "triaxial"]
Weakest = Literal["body", "coupling", "leak"]


class LoadResult(Result):
    """The governing point of one kind of load over all cases, and its case's curve along the string.

    Curves are in psi; those of tension, compression and triaxial are not carried here.
    """

    name: str
    stage: str
    kind: LoadKind
    factor: float
    required: float
    at_md_ft: float
    section: int
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
    """The pipe in force, and the least factor of each kind. `governs` says in one line which load rules where."""

    chosen: bool
    sections: tuple[SectionResult, ...] = ()
    loads: tuple[LoadResult, ...] = ()
    governs: Words = ()
    neutral_md_ft: float | None = None
    buckles: Words = ()
    buckles_md_ft: float | None = None
    hung_lbf: float | None = None
    hung_factor: float | None = None


class LinersResult(Result):
    """For each string, the option of hanging it as a liner; None where it is none."""

    strings: tuple[LinerOption | None, ...]


class PipeResult(Result):
    strings: tuple[PipeRow, ...]
