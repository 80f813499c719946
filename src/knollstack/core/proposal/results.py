"""What the tool proposes beside a design: both methods of setting depths, and liners as an option."""

from __future__ import annotations

from knollstack.core.base.findings import Remedy, Result, Words
from knollstack.core.depths.results import ProposedShoe


class FreedomResult(Result):
    """Where a shoe stands in some program with the fewest strings, conductor apart."""

    shallow_md_ft: float
    deep_md_ft: float


class ProgramsResult(Result):
    """Both schools side by side, the freedom of each shoe between them, and what would free a program if none is.

    `cut` where the search of programs went no further, `reliefs_cut` where not every change that might free one was tried.
    """

    sections: int
    bottom_up: tuple[ProposedShoe, ...]
    top_down: tuple[ProposedShoe, ...]
    freedom: tuple[FreedomResult, ...]
    failure: Words
    reliefs: tuple[Remedy, ...]
    cut: bool
    reliefs_cut: bool


class LinerOption(Result):
    """What it would save to hang this string as a liner, and what it costs the casing above in burst."""

    hanger_md_ft: float
    steel_saved_lbf: float | None
    cement_saved_bbl: float | None
    burst_factor_above: float | None
    burst_required: float


class LinersResult(Result):
    """For each string, the option of hanging it as a liner; None where it is none."""

    strings: tuple[LinerOption | None, ...]
