"""Liners as an option: what hanging a string in the casing above saves in steel and cement, and what it costs.

Hung as a liner a string no longer shields the casing above it, which then takes the burst loads of the section below.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.cement.results import CementResult, CementRow
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.judge import exposed_of, judged_string
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.hanging import hanger_by_policy_ft
from knollstack.core.proposal.results import LinerOption, LinersResult


def liner_options(equipped: Equipped, cement: CementResult) -> LinersResult:
    """The option for every string run to surface below another casing: not for conductor and surface casing."""
    options: list[LinerOption | None] = []
    for string in equipped.strings:
        above = equipped.previous(string)
        fits = string.run == "cased" and string.role in ("intermediate", "production") and above is not None
        hanger = hanger_by_policy_ft(equipped.well, string.previous_shoe_md_ft)
        if not fits or above is None or above.role == "conductor" or hanger <= equipped.well.ground_md_ft:
            options.append(None)
            continue
        exposed = exposed_of(equipped, string)
        options.append(_option(equipped.well, string, above, exposed, hanger, cement.strings[string.index]))
    return LinersResult(strings=tuple(options))


@remembered(128)
def _option(
    well: Well, string: EquippedString, above: EquippedString, exposed: Exposure, hanger: float, cement: CementRow
) -> LinerOption:
    spans = [(min(s.bottom_md_ft, hanger) - s.top_md_ft, s.pipe.weight_ppf) for s in string.sections]
    steel = sum(weight * length for length, weight in spans if length > 0) if string.sections else None
    saved = None
    if cement.applies and cement.cased_annulus_bbl is not None and cement.top_md_ft is not None:
        overlap = string.previous_shoe_md_ft - cement.top_md_ft
        share = max(0.0, hanger - cement.top_md_ft) / overlap if overlap > 0 else 0.0
        saved = cement.cased_annulus_bbl * share
    return LinerOption(
        hanger_md_ft=hanger,
        steel_saved_lbf=steel,
        cement_saved_bbl=saved,
        burst_factor_above=_burst_above(well, string, above, exposed, hanger),
        burst_required=well.policy.pipe.factors.burst,
    )


@sweeping()
def _burst_above(
    well: Well, string: EquippedString, above: EquippedString, exposed: Exposure, hanger: float
) -> float | None:
    """Least factor of the casing above under this string's governing burst load, down to the hanger; None if unknown."""
    pipes = [s.pipe for s in above.sections]
    if not pipes or any(p.coupling_psi is None or p.leak_psi is None for p in pipes):
        return None
    judged = judged_string(well, string, exposed)
    point = judged.worst("burst") if judged is not None else None
    if judged is None or point is None:
        return None
    md = judged.frame.md_ft
    stands = min(min(p.burst_psi, p.coupling_psi or 0.0, p.leak_psi or 0.0) for p in pipes)
    loads = judged.along(judged.shares.burst_psi, point.case)
    depths = np.append(md, hanger)
    greatest = float(np.max(np.interp(depths, md, loads)[depths <= hanger]))
    return stands / greatest if greatest > 0 else None
