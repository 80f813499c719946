"""What gives a shoe the kick tolerance that it lacks: the nearest deeper shoe, or another mud; tried before offered."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.findings import Remedy, depth, emw, remedy
from knollstack.core.depths.bubble import open_hole
from knollstack.core.depths.rule import tried
from knollstack.core.depths.rules import depth_rules
from knollstack.core.depths.tolerance import gives
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString

SHOE_STEP_FT = 10.0
MUD_STEP_PPG = 0.1


def mud_fits(well: Well, top_md_ft: float, bottom_md_ft: float, mud_ppg: float) -> bool:
    lower, upper = well.window.bounds(well.path.tvd(top_md_ft), well.path.tvd(bottom_md_ft))
    return lower is not None and upper is not None and lower.mud_ppg <= mud_ppg + 1e-9 <= upper.mud_ppg + 2e-9


def deeper_shoe(well: Well, string: LaidString, below: LaidString, asked_bbl: float) -> Remedy | None:
    """The nearest deeper shoe, in tens of feet, that gives the tolerance and leaves both sections drillable."""
    if below.bit_in is None or below.mud_ppg is None:
        return None
    first = np.floor(string.shoe_md_ft / SHOE_STEP_FT) * SHOE_STEP_FT + SHOE_STEP_FT
    depths = np.arange(first, below.shoe_md_ft, SHOE_STEP_FT)
    depths = depths[depth_rules(well).no_shoe.holds(tried(well, depths, below.shoe_md_ft))]
    if not len(depths):
        return None
    mud = np.full(depths.shape, below.mud_ppg)
    enough = depths[gives(well, open_hole(well, below.bit_in), depths, mud, below.shoe_md_ft, asked_bbl)]
    if not len(enough):
        return None
    md = float(enough[0])
    # a deeper bottom never widens the window of the section above, so the nearest depth decides
    if string.mud_ppg is not None and not mud_fits(well, string.previous_shoe_md_ft, md, string.mud_ppg):
        return None
    moved = depth(md - string.shoe_md_ft)
    return remedy(string.change("shoe_md_ft", md), "Move the shoe ", moved, " deeper, to ", depth(md))


def other_mud(well: Well, string: LaidString, below: LaidString, asked_bbl: float) -> Remedy | None:
    """The nearest other mud of the section below, in tenths, that gives the tolerance and holds the window."""
    if below.bit_in is None or below.mud_ppg is None:
        return None
    hole, shoe = open_hole(well, below.bit_in), np.array([string.shoe_md_ft])
    for sign, word in ((1, " more mud, "), (-1, " less mud, ")):
        mud = below.mud_ppg
        while mud_fits(well, string.shoe_md_ft, below.shoe_md_ft, mud := round(mud + sign * MUD_STEP_PPG, 2)):
            if gives(well, hole, shoe, np.array([mud]), below.shoe_md_ft, asked_bbl)[0]:
                change = emw(round(abs(mud - below.mud_ppg), 2))
                return remedy(below.change("mud_ppg", mud), "Drill with ", change, word, emw(mud))
    return None
