"""A whole well moved to other water: everything under the sea floor goes down or up with it.

Depths count from the rig floor, so all of them change by the difference. Pressures of the rock keep what they have over sea
water, and muds their pressure at the shoe: with more water above, equivalent weights come nearer to that of the sea.
"""

from __future__ import annotations

from typing import Any

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.findings import Change
from knollstack.core.document.design import Design
from knollstack.core.path.trajectory import path_of

PROFILES = ("pore", "fracture", "stability", "overburden", "leak_off_tests")
PLACES_PPG = 2
"""Decimals in which a mud is told."""
EXACT = 7
"""Decimals of a profile: enough that there and back is the same."""


def at_water_depth(design: Design, water_depth_ft: float) -> tuple[Change, ...]:
    """The edits that set a well in other water, none where it stands in it already."""
    by = water_depth_ft - design.site.water_depth_ft
    if not by:
        return ()
    document = design.model_dump(mode="json")
    sea_level, path = design.site.rig_floor_ft, path_of(design.trajectory)
    for station in document["trajectory"]["stations"]:
        if station["md_ft"] > sea_level:
            station["md_ft"] += by
    for name in PROFILES:
        for point in document["ground"][name]:
            point["emw_ppg"] = _moved_emw(point["emw_ppg"], point["tvd_ft"], by)
    for string in document["strings"]:
        shoe = float(path.tvd_at(min(string["shoe_md_ft"], path.total_md_ft)))
        if string["mud_ppg"] is not None:
            string["mud_ppg"] = round(_moved_emw(string["mud_ppg"], shoe, by), PLACES_PPG)
        for step in string["mud_steps"]:
            tvd = float(path.tvd_at(min(step["to_md_ft"], path.total_md_ft)))
            step["mud_ppg"] = round(_moved_emw(step["mud_ppg"], tvd, by), PLACES_PPG)
    for part in ("ground", "strings", "balanced_plugs", "completion"):
        _shift(document[part], by, sea_level)
    changed = ("trajectory", "ground", "strings", "balanced_plugs", "completion")
    water = Change(path="/site/water_depth_ft", value=water_depth_ft)
    return (water, *(Change(path=f"/{part}", value=document[part]) for part in changed))


def _moved_emw(emw_ppg: float, tvd_ft: float, by_ft: float) -> float:
    """The same pressure over that of the sea, so many feet deeper."""
    deeper = tvd_ft + by_ft
    if deeper <= 0:
        return emw_ppg
    return round((emw_ppg * tvd_ft + SEA_WATER_PPG * by_ft) / deeper, EXACT)


def _shift(node: Any, by_ft: float, sea_level_ft: float) -> None:
    """Every depth below the surface of the sea, wherever it stands in a part."""
    if isinstance(node, list):
        for row in node:
            _shift(row, by_ft, sea_level_ft)
    elif isinstance(node, dict):
        for key, value in node.items():
            if key.endswith(("_md_ft", "_tvd_ft")) or key in ("md_ft", "tvd_ft"):
                if isinstance(value, float) and value > sea_level_ft:
                    node[key] = value + by_ft
            else:
                _shift(value, by_ft, sea_level_ft)
