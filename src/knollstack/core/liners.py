"""Liners as an option: what hanging a string in the casing above saves in steel and cement, and what it costs.

Hung as a liner a string no longer shields the casing above it, which then takes the burst loads of the section below.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.program import Planned, Program
from knollstack.core.results import CementResult
from knollstack.core.results_pipe import LinerOption, LinersResult, PipeResult, PipeRow


def judge_liners(program: Program, pipe: PipeResult, cement: CementResult) -> LinersResult:
    """The option for every string run to surface below another casing: not for conductor and surface casing."""
    options: list[LinerOption | None] = []
    for i, string in enumerate(program.strings):
        above = program.previous(string)
        fits = string.run == "cased" and string.role in ("intermediate", "production") and above is not None
        hanger = string.previous_shoe_md_ft - program.well.policy.liner_overlap_ft
        if not fits or above is None or above.role == "conductor" or hanger <= program.well.ground_md_ft:
            options.append(None)
            continue
        options.append(_option(program, string, hanger, pipe.strings[i - 1], pipe.strings[i], cement))
    return LinersResult(strings=tuple(options))


def _option(
    program: Program, string: Planned, hanger: float, above: PipeRow, own: PipeRow, cement: CementResult
) -> LinerOption:
    spans = [(min(p.bottom_md_ft, hanger) - p.top_md_ft, p.weight_ppf) for p in own.sections]
    steel = sum(weight * length for length, weight in spans if length > 0) if own.sections else None
    row = cement.strings[string.index]
    saved = None
    if row.applies and row.cased_annulus_bbl is not None and row.top_md_ft is not None:
        overlap = string.previous_shoe_md_ft - row.top_md_ft
        share = max(0.0, hanger - row.top_md_ft) / overlap if overlap > 0 else 0.0
        saved = row.cased_annulus_bbl * share
    return LinerOption(
        hanger_md_ft=hanger, steel_saved_lbf=steel, cement_saved_bbl=saved,
        burst_factor_above=_burst_above(hanger, above, own), burst_required=program.well.policy.factors.burst,
    )  # fmt: skip


def _burst_above(hanger: float, above: PipeRow, own: PipeRow) -> float | None:
    """Least factor of the casing above under this string's burst loads, down to the hanger; None where unknown."""
    if not above.sections or any(p.coupling_psi is None or p.leak_psi is None for p in above.sections):
        return None
    stands = min(min(p.burst_psi, p.coupling_psi or 0.0, p.leak_psi or 0.0) for p in above.sections)
    least = None
    for load in own.loads:
        if load.kind != "burst" or not load.curve_md_ft:
            continue
        depths = np.append(np.array(load.curve_md_ft), hanger)
        values = np.interp(depths, load.curve_md_ft, load.curve_load_psi)[depths <= hanger]
        greatest = float(np.max(values))
        if greatest > 0:
            factor = stands / greatest
            least = factor if least is None else min(least, factor)
    return least
