"""How a casing fits its hole: by policy's chart of pairs, and beyond the chart by the diametral clearance over its joint."""

from __future__ import annotations

from typing import Literal

from knollstack.core.document.policy import PairUse, SizesPolicy

Fitness = Literal["common", "less common", "special", "none"]
ALLOWED: dict[str, tuple[Fitness, ...]] = {"common": ("common",), "tight": ("common", "less common")}
"""By policy's minimum clearance, what a casing is proposed with; special pairs are a person's own choice."""


def limits_in(policy: SizesPolicy, od_in: float) -> tuple[float, float]:
    """Least common and tight diametral clearance [in] over the joint of a casing size."""
    rows = sorted(policy.clearances, key=lambda row: row.from_od_in)
    fits = [row for row in rows if row.from_od_in <= od_in] or rows[:1]
    return fits[-1].common_in, fits[-1].tight_in


def charted(policy: SizesPolicy, od_in: float, hole_in: float) -> PairUse | None:
    """What the chart says of a casing in a hole; None where it does not hold the pair."""
    return next((row.use for row in policy.pairs if row.od_in == od_in and row.hole_in == hole_in), None)


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
