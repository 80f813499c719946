"""Conductor depth for returns: the mud column from flowline to shoe against the strength of the ground there."""

from __future__ import annotations

import math

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.findings import Words, depth, emw
from knollstack.core.base.remember import remembered
from knollstack.core.depths.formulas import conductor_depth_land, conductor_depth_sea
from knollstack.core.ground.well import Well

MOST_FT = 2_000


def _returns_need_ft(well: Well, fracture_ppg: float, below_ft: float) -> float | None:
    """Depth below the ground that returns need with the ground's strength at a depth; None where it never holds."""
    site, mud = well.site, well.policy.depths.conductor_mud_ppg
    if site.setting == "land":
        if fracture_ppg <= mud:
            return None
        return conductor_depth_land(mud, fracture_ppg, site.flowline_height_ft)
    # the profile counts from the rig floor; the soil's own strength is what it adds below the mudline
    soil = (fracture_ppg * (well.ground_md_ft + below_ft) - SEA_WATER_PPG * site.water_depth_ft) / below_ft
    if soil <= mud:
        return None
    return conductor_depth_sea(mud, soil, site.rig_floor_ft, site.water_depth_ft)


@remembered(32)
def conductor_md_ft(well: Well) -> tuple[float, Words]:
    """Conductor shoe [ft MD] by the returns rule and the policy's minimum, in whole feet, with the reason."""
    policy = well.policy.depths
    mud = policy.conductor_mud_ppg
    top = well.ground_md_ft
    least = max(1, math.ceil(policy.conductor_minimum_ft))
    for below in range(least, MOST_FT + 1):
        fracture = well.ground.fracture.one(top + below)
        if fracture is None:
            break
        needed = _returns_need_ft(well, fracture, below)
        if needed is None or below < needed:
            continue
        if below == least:
            return top + below, ("Policy asks at least ", depth(policy.conductor_minimum_ft), " below the ground.")
        return top + below, ("Returns of ", emw(mud), " mud to the flowline need ", depth(needed), " below the ground.")
    return top + policy.conductor_minimum_ft, (
        "The ground's strength near surface is not known; policy's minimum of ",
        depth(policy.conductor_minimum_ft),
        " below the ground is taken.",
    )
