"""Ways out of a cement column that breaks the rock: a lighter slurry, lead and tail, two stages, a lower top.

Each is tried on the rock at rest with a margin, and, where the job can be followed, on every moment of it.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Callable, Iterator
from dataclasses import replace

import numpy as np

from knollstack.core.base.findings import Remedy, depth, emw, remedy
from knollstack.core.cement.column import Column, heaviest_held, holds, lead_held, recipe_with, solids_of, water_of
from knollstack.core.cement.job import Verdict
from knollstack.core.document.cementing import additives_of
from knollstack.core.ground.well import Well
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.laid import LaidString

STEP_FT = 10.0
MOST_COLLARS, COLLAR_STEPS = 6, 20
"""Lower collars that are tried for three stages, and how many steps lie between two."""


Tried = Callable[[Remedy], Verdict]
Way = Callable[[Well, LaidString, Column, float], Remedy | None]
MOST_TRIES = 3
MORE_PPG = 0.05


def ways_out(
    well: Well, string: LaidString, column: Column, tried: Tried, friction_ppg: float = 0.0, *, at_rest: bool = True
) -> Iterator[Remedy]:
    """Each of them sought on the rock at rest, with so much margin that the whole job stands too: what is offered holds.

    Three stages are sought where two do not stand, and the rock breaks under the column at rest.
    """
    for way in (_lighter, _lead_and_tail):
        yield from _standing(way, well, string, column, tried, friction_ppg)
    staged = list(_standing(_in_stages, well, string, column, tried, friction_ppg))
    if not staged and at_rest:
        staged = list(_standing(_in_three_stages, well, string, column, tried, friction_ppg))
    yield from staged
    yield from _standing(_lower, well, string, column, tried, friction_ppg)


def _standing(
    way: Way, well: Well, string: LaidString, column: Column, tried: Tried, friction_ppg: float
) -> Iterator[Remedy]:
    """One way, with the job's friction as margin and more as it is short of it; where nothing leaves that, with none."""
    margin, before = friction_ppg, None
    for _ in range(MOST_TRIES):
        found = way(well, string, column, margin)
        if found is None and before is None and margin > 0:
            margin = 0.0
            found = way(well, string, column, margin)
        if found is None:
            return
        if found != before:
            said = tried(found)
            if said.stands:
                yield found
                return
            margin += said.short_ppg
        before = found
        margin += MORE_PPG


def _lighter(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    recipe = heaviest_held(well, string, column, margin_ppg)
    if recipe is None:
        return None
    changes = (
        string.change("cement/bentonite_percent", recipe.bentonite_percent),
        string.change("cement/slurry_water_gal_sk", round(recipe.water_gal_sk, 10)),
    )
    return remedy(changes, "Use ", emw(recipe.density_ppg), f" slurry: {recipe.bentonite_percent:g} % bentonite")


def _lead_and_tail(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    """A neat tail over the height of policy, and over it the heaviest lead that the rock stands."""
    neat = well.policy.cement.water_gal_sk
    tail_top = string.shoe_md_ft - well.policy.cement.tail_ft
    if string.cement_top_md_ft is None or tail_top <= string.cement_top_md_ft:
        return None
    own = string.own.cement
    tail = recipe_with(neat, 0.0, (*solids_of(own), *water_of(own)), additives_of(own, "tail"))
    split = replace(column, slurry_ppg=tail.density_ppg, tail_top_tvd_ft=well.path.tvd(tail_top))
    lead = lead_held(well, string, split, margin_ppg)
    if lead is None:
        return None
    changes = (
        string.change("cement/bentonite_percent", 0.0),
        string.change("cement/slurry_water_gal_sk", neat),
        string.change("cement/tail_top_md_ft", tail_top),
        string.change("cement/lead_bentonite_percent", lead.bentonite_percent),
        string.change("cement/lead_water_gal_sk", round(lead.water_gal_sk, 10)),
    )
    words = ("Use ", emw(lead.density_ppg), " lead over ", emw(tail.density_ppg), " tail from ", depth(tail_top))
    return remedy(changes, *words)


def _in_stages(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    """A stage collar midway between the highest that the first stage allows and the lowest that the second does."""
    found = _collar(well, string, column, (string.cement_top_md_ft, landing_md_ft(string)), margin_ppg)
    if found is None:
        return None
    changes = (string.change("cement/stage_collar_md_ft", found), string.change("cement/upper_collar_md_ft", None))
    return remedy(
        changes if string.own.cement.upper_collar_md_ft is not None else changes[0],
        "Cement in two stages, stage collar at ",
        depth(found),
    )


def _in_three_stages(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    """The highest collar that the first stage allows, and over it one midway, as for two."""
    top = string.cement_top_md_ft
    if top is None:
        return None
    collars = _tens(max(top, string.previous_shoe_md_ft) + STEP_FT, landing_md_ft(string))
    unstaged = replace(column, collars=())
    first = _first(collars, lambda md: holds(well, string, unstaged.staged(well, md).first, margin_ppg))
    for lower in collars[first : first + MOST_COLLARS * COLLAR_STEPS : COLLAR_STEPS]:
        over = _collar(well, replace(string, shoe_md_ft=lower), column, (top, lower), margin_ppg)
        if over is not None:
            changes = (
                string.change("cement/stage_collar_md_ft", lower),
                string.change("cement/upper_collar_md_ft", over),
            )
            words = ("Cement in three stages, stage collars at ", depth(lower), " and ", depth(over))
            return remedy(changes, *words)
    return None


def _collar(
    well: Well, string: LaidString, column: Column, span_md_ft: tuple[float | None, float], margin_ppg: float
) -> float | None:
    """Of two stages the collar [ft MD, in tens] at which the rock stands both; None where there is none."""
    top, landing = span_md_ft
    if top is None:
        return None
    collars = _tens(max(top, string.previous_shoe_md_ft) + STEP_FT, landing)
    unstaged = replace(column, collars=())

    def first_holds(collar: float) -> bool:
        return holds(well, string, unstaged.staged(well, collar).first, margin_ppg)

    def second_fails(collar: float) -> bool:
        return not holds(well, replace(string, shoe_md_ft=collar), unstaged, margin_ppg)

    first, end = _first(collars, first_holds), _first(collars, second_fails)
    return None if first >= end else collars[(first + end - 1) // 2]


def _lower(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    """The highest top of cement [ft MD, in tens] at which the rock stands the column."""
    tops = _tens(string.cement_top_md_ft or 0.0, string.shoe_md_ft)
    found = _first(tops, lambda top: holds(well, string, replace(column, top_tvd_ft=well.path.tvd(top)), margin_ppg))
    if found == len(tops):
        return None
    return remedy(string.change("cement/top_md_ft", tops[found]), "Set the top of cement at ", depth(tops[found]))


def _tens(top_md_ft: float, below_md_ft: float) -> list[float]:
    """Depths in tens from one down to, and without, another."""
    found: list[float] = np.arange(math.ceil(top_md_ft / STEP_FT) * STEP_FT, below_md_ft, STEP_FT).tolist()
    return found


def _first(depths: list[float], test: Callable[[float], bool]) -> int:
    """Place of the first depth of which a test is true that stays true below; as many as there are where none is."""
    return bisect_left(range(len(depths)), True, key=lambda k: test(depths[k]))
