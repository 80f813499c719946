"""What follows for pipe and liners: the rows of these steps."""

from __future__ import annotations

from typing import Literal

from knollstack.core.findings import Result


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
