"""How a casing fits its hole: by policy's chart of pairs, and beyond the chart by the diametral clearance over its joint."""

from __future__ import annotations

from bisect import bisect_right
from typing import Literal

from knollstack.core.base.remember import remembered
from knollstack.core.document.policy import ClearanceRow, PairUse, SizesPolicy

Fitness = Literal["common", "less common", "special", "none"]
ALLOWED: dict[str, tuple[Fitness, ...]] = {"common": ("common",), "tight": ("common", "less common")}
"""By policy's minimum clearance, what a casing is proposed with; special pairs are a person's own choice."""


@remembered(16)
def _rows(policy: SizesPolicy) -> tuple[tuple[ClearanceRow, ...], dict[tuple[float, float], PairUse]]:
    """The clearances by size, and the chart by casing and hole; of two rows of one pair the first counts."""
    rows = tuple(sorted(policy.clearances, key=lambda row: row.from_od_in))
    return rows, {(row.od_in, row.hole_in): row.use for row in reversed(policy.pairs)}


def limits_in(policy: SizesPolicy, od_in: float) -> tuple[float, float]:
    """Least common and tight diametral clearance [in] over the joint of a casing size."""
    rows, _ = _rows(policy)
    row = rows[max(0, bisect_right(rows, od_in, key=lambda row: row.from_od_in) - 1)]
    return row.common_in, row.tight_in


def charted(policy: SizesPolicy, od_in: float, hole_in: float) -> PairUse | None:
    """What the chart says of a casing in a hole; None where it does not hold the pair."""
    return _rows(policy)[1].get((od_in, hole_in))


def fitness(policy: SizesPolicy, od_in: float, hole_in: float, joint_od_in: float, *, usual: bool = True) -> Fitness:
    """How a casing with a joint fits a hole. The chart is of usual couplings; slimmer joints are measured."""
    clearance = hole_in - joint_od_in
    common, tight = limits_in(policy, od_in)
    use = charted(policy, od_in, hole_in) if usual else None
    if clearance <= 0:
        return "none"
    if use is not None:
        return use
    if clearance >= common - 1e-9:
        return "common"
    return "less common" if clearance >= tight - 1e-9 else "none"
