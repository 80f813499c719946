"""The theory beside the drill: one bubble, bottom-hole pressure held, no slip and no friction.

What it gives is the textbook's curve of casing and shoe pressure against what was pumped.
"""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.drills.gas import ATMOSPHERE_PSI, Gas
from knollstack.core.drills.geometry import Line, Way

ROUNDS = 12


@dataclass(frozen=True)
class Circulating:
    """What stands in the well as circulating begins, and what comes after: kill mud once the string is pumped through."""

    way: Way
    gas: Gas
    heat: Line
    bottom_psi: float
    amount: float
    mud_ppg: float
    kill_ppg: float
    string_bbl: float


@dataclass(frozen=True)
class Moment:
    pumped_bbl: float
    casing_psi: float
    shoe_psi: float
    top_bbl: float
    bottom_bbl: float
    """Of the bubble, from the choke; both 0 once it is out."""
    gas_bbl: float


def _below(c: Circulating, low_bbl: float, pumped_bbl: float) -> float:
    """Weight [psi] of what stands between a volume and the bottom: kill mud under old mud once it is round the bit."""
    total = c.way.total_bbl
    kill = min(max(pumped_bbl - c.string_bbl, 0.0), total - low_bbl)
    turn, end = c.way.at(total - kill)[0], c.way.at(total)[0]
    start = c.way.at(low_bbl)[0]
    return PSI_PER_PPG_FT * (c.kill_ppg * (end - turn) + c.mud_ppg * (turn - start))


def moment(c: Circulating, shoe_bbl: float, pumped_bbl: float) -> Moment:
    """Pressures with a volume pumped since the well was shut in."""
    low = c.way.total_bbl - pumped_bbl
    if low <= 0 or c.amount <= 0:
        return _clean(c, shoe_bbl, pumped_bbl)
    tvd = c.way.at(low)[0]
    foot = c.bottom_psi - _below(c, low, pumped_bbl)
    volume, weight, top_tvd = 0.0, 0.0, tvd
    for _ in range(ROUNDS):
        psia = max(foot - weight / 2, 1.0) + ATMOSPHERE_PSI
        volume = c.amount * c.gas.zt(psia, c.heat.at(0.5 * (tvd + top_tvd))) / psia
        top_tvd = c.way.at(max(low - volume, 0.0))[0]
        ppg = psia / c.gas.zt(psia, c.heat.at(0.5 * (tvd + top_tvd))) * c.gas.mass
        weight = PSI_PER_PPG_FT * ppg * (tvd - top_tvd)
    top = max(low - volume, 0.0)
    casing = foot - weight - PSI_PER_PPG_FT * c.mud_ppg * (top_tvd - c.way.tvd[0])
    shoe_tvd = c.way.at(shoe_bbl)[0]
    if shoe_bbl >= low:
        shoe = c.bottom_psi - _below(c, shoe_bbl, pumped_bbl)
    elif shoe_bbl >= top:
        shoe = foot - weight * (tvd - shoe_tvd) / (tvd - top_tvd) if tvd > top_tvd else foot
    else:
        shoe = casing + PSI_PER_PPG_FT * c.mud_ppg * (shoe_tvd - c.way.tvd[0])
    return Moment(pumped_bbl, max(casing, 0.0), shoe, top, low, low - top)


def _clean(c: Circulating, shoe_bbl: float, pumped_bbl: float) -> Moment:
    """No gas is left: old mud over kill mud."""
    casing = max(0.0, c.bottom_psi - _below(c, 0.0, pumped_bbl))
    shoe = c.bottom_psi - _below(c, shoe_bbl, pumped_bbl)
    return Moment(pumped_bbl, casing, shoe, 0.0, 0.0, 0.0)


def curve(c: Circulating, shoe_bbl: float, to_bbl: float, steps: int = 120) -> list[Moment]:
    return [moment(c, shoe_bbl, to_bbl * k / steps) for k in range(steps + 1)]
