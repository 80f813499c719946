"""Conductor depth for returns: the mud column from flowline to shoe against the strength of the ground there."""

from __future__ import annotations

import math

from knollstack.core.constants import SEA_WATER_PPG
from knollstack.core.findings import Words
from knollstack.core.formula import Value, formula
from knollstack.core.well import Well, depth, emw

MOST_FT = 2_000
RETURNS = "Balance of the mud column and the ground's strength at the shoe, textbook conductor design"


@formula("D = ρ·h_f/(F − ρ)", "ft", RETURNS, ("mud_ppg > 0", "fracture_ppg > mud_ppg", "flowline_height_ft >= 0"))
def conductor_depth_land(mud_ppg: Value, fracture_ppg: Value, flowline_height_ft: Value) -> Value:
    """Least conductor depth below ground for returns to the flowline."""
    return mud_ppg * flowline_height_ft / (fracture_ppg - mud_ppg)


@formula(
    "D = (ρ·(h_a + h_w) − ρ_w·h_w)/(F_s − ρ)",
    "ft",
    RETURNS,
    ("mud_ppg > 0", "soil_ppg > mud_ppg", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def conductor_depth_sea(
    mud_ppg: Value,
    soil_ppg: Value,
    air_gap_ft: Value,
    water_depth_ft: Value,
    sea_water_ppg: Value = SEA_WATER_PPG,
) -> Value:
    """Least conductor depth below mudline for returns to the rig."""
    return (mud_ppg * (air_gap_ft + water_depth_ft) - sea_water_ppg * water_depth_ft) / (soil_ppg - mud_ppg)


def _returns_need_ft(well: Well, fracture_ppg: float, below_ft: float) -> float | None:
    """Depth below the ground that returns need with the ground's strength at a depth; None where it never holds."""
    site, mud = well.site, well.policy.conductor_mud_ppg
    if site.setting == "land":
        if fracture_ppg <= mud:
            return None
        return conductor_depth_land(mud, fracture_ppg, site.flowline_height_ft)
    # the profile counts from the rig floor; the soil's own strength is what it adds below the mudline
    soil = (fracture_ppg * (well.ground_md_ft + below_ft) - SEA_WATER_PPG * site.water_depth_ft) / below_ft
    if soil <= mud:
        return None
    return conductor_depth_sea(mud, soil, site.rig_floor_ft, site.water_depth_ft)


def conductor_md_ft(well: Well) -> tuple[float, Words]:
    """Conductor shoe [ft MD] by the returns rule and the policy's minimum, in whole feet, with the reason."""
    policy = well.policy
    mud = policy.conductor_mud_ppg
    top = well.ground_md_ft
    least = math.ceil(policy.conductor_minimum_ft)
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
