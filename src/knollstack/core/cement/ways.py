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
    collars, stands = _places(well, string, column, margin_ppg)
    first = _first(collars, lambda md: stands(string.shoe_md_ft, md))
    end = _first(collars, lambda md: not stands(md, None))
    if first >= end:
        return None
    collar = collars[(first + end - 1) // 2]
    change = string.change("cement/stage_collar_md_ft", collar)
    upper = string.own.cement.upper_collar_md_ft
    changes = change if upper is None else (change, string.change("cement/upper_collar_md_ft", None))
    return remedy(changes, "Cement in two stages, stage collar at ", depth(collar))


def _places(
    well: Well, string: LaidString, column: Column, margin_ppg: float
) -> tuple[list[float], Callable[[float, float | None], bool]]:
    """Depths [ft MD] for a collar, and whether the rock stands the stage between a shoe or collar and the collar over it."""
    unstaged, top = replace(column, collars=()), string.cement_top_md_ft

    def stands(shoe_md_ft: float, above_md_ft: float | None) -> bool:
        stage = unstaged if above_md_ft is None else unstaged.staged(well, above_md_ft).first
        return holds(well, replace(string, shoe_md_ft=shoe_md_ft), stage, margin_ppg)

    if top is None:
        return [], stands
    return _tens(max(top, string.previous_shoe_md_ft) + STEP_FT, landing_md_ft(string)), stands


def _in_three_stages(well: Well, string: LaidString, column: Column, margin_ppg: float) -> Remedy | None:
    """The highest lower collar, under which the second stage is shortest; the upper one midway of what it and the third allow."""
    collars, stands = _places(well, string, column, margin_ppg)
    first = _first(collars, lambda md: stands(string.shoe_md_ft, md))
    end = min(_first(collars, lambda md: not stands(md, None)), first)
    if first == len(collars) or end == 0 or not stands(collars[first], collars[end - 1]):
        return None
    least = _first(collars[:end], lambda md: stands(collars[first], md))
    lower, upper = collars[first], collars[(least + end - 1) // 2]
    changes = (string.change("cement/stage_collar_md_ft", lower), string.change("cement/upper_collar_md_ft", upper))
    return remedy(changes, "Cement in three stages, stage collars at ", depth(lower), " and ", depth(upper))


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
