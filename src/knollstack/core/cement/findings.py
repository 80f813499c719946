"""What is wrong with a string's cement: a column that breaks the rock, no bond, volumes that are not known."""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Iterator
from dataclasses import replace
from functools import partial

import numpy as np

from knollstack.core.base.findings import Finding, Remedy, Words, depth, emw, find, remedy
from knollstack.core.cement.column import Column, heaviest_held, holds
from knollstack.core.ground.well import Well
from knollstack.core.program.hanging import hang_higher
from knollstack.core.program.laid import LaidString

TOP_STEP_FT = 10.0
_find = partial(find, "cement")


def _subject(string: LaidString) -> Words:
    return (*string.words, " cement")


def setting_findings(well: Well) -> Iterator[Finding]:
    """What the setting leaves unworked: the step is not good on it."""
    if well.site.setting == "subsea":
        text = "Cement is worked as on land: landing string, riser and sea water are not in it."
        yield _find("unknown", "/site/setting", ("Setting",), text)


def unknown_volumes(string: LaidString) -> Finding:
    text = "Cement volumes are unknown: a hole or pipe size of this string or the one outside is missing."
    return _find("unknown", string.path, _subject(string), text)


def unknown_displacement(string: LaidString) -> Finding:
    text = "Displacement is unknown: the ID of the drill pipe that lands this string is not given."
    return _find("unknown", "/policy/mud/drill_strings", _subject(string), text)


def unknown_rock(string: LaidString) -> Finding:
    text = "Whether the cement column breaks the rock down is unknown: fracture pressure is not given over the whole open hole."
    return _find("unknown", string.path, _subject(string), text)


def _standing_top(well: Well, string: LaidString, column: Column) -> float | None:
    """The highest top of cement [ft MD, in tens] at which the rock stands the column; None when none does.

    A deeper top never raises the column, so the tens are searched by halving.
    """
    first = math.ceil((string.cement_top_md_ft or 0.0) / TOP_STEP_FT) * TOP_STEP_FT
    tops = np.arange(first, string.shoe_md_ft, TOP_STEP_FT)

    def stands(k: int) -> bool:
        return holds(well, string, replace(column, top_tvd_ft=well.path.tvd(float(tops[k]))))

    if not len(tops) or not stands(len(tops) - 1):
        return None
    return float(tops[bisect_left(range(len(tops)), True, key=stands)])


def _remedies(well: Well, string: LaidString, column: Column) -> Iterator[Remedy]:
    recipe = heaviest_held(well, string, column, string.slurry.additives if string.slurry else ())
    if recipe is not None:
        changes = (
            string.change("cement/bentonite_percent", recipe.bentonite_percent),
            string.change("cement/slurry_water_gal_sk", round(recipe.water_gal_sk, 2)),
        )
        yield remedy(changes, "Use ", emw(recipe.density_ppg), f" slurry: {recipe.bentonite_percent:g} % bentonite")
    top = _standing_top(well, string, column)
    if top is not None:
        yield remedy(string.change("cement/top_md_ft", top), "Set the top of cement at ", depth(top))


def breakdown(well: Well, string: LaidString, column: Column, tvd: float, fracture: float) -> Finding:
    zone, reached = well.ground.zone_at(tvd), emw(float(column.emw_ppg(tvd)))
    remedies = tuple(_remedies(well, string, column))
    return _find(
        "stop",
        f"{string.path}/cement/top_md_ft",
        _subject(string),
        f"In {zone} at " if zone else "At ",
        depth(well.path.md(tvd)),
        " the cement column reaches ",
        reached,
        "; the rock breaks at ",
        emw(fracture),
        ".",
        *(
            ()
            if remedies
            else (" No slurry weight or top of cement tried here avoids breakdown; the job needs stages.",)
        ),
        value=reached,
        limit=emw(fracture),
        remedies=remedies,
        working=f"cement/{string.index}/column",
    )


def bond_findings(well: Well, string: LaidString) -> Iterator[Finding]:
    """Surface casing not cemented to the ground, or no cement into the string above: no bond there."""
    top, shoe, ground = string.cement_top_md_ft, string.previous_shoe_md_ft, well.ground_md_ft
    if top is None or string.index == 0:
        return
    message: Words = (
        "The top of cement, ",
        depth(top),
        ", is below the shoe above, ",
        depth(shoe),
        ": no bond into it.",
    )
    wanted = max(ground, shoe - well.policy.cement.overlap_ft)
    if string.role == "surface" and top > ground + 1:
        message = ("The top of cement is at ", depth(top), ". Surface casing is cemented back to the ground.")
        wanted = ground
    elif top <= shoe:
        return
    place = f"{string.path}/cement/top_md_ft"
    mend = remedy(string.change("cement/top_md_ft", wanted), "Set the top of cement at ", depth(wanted))
    if string.run == "liner" and string.top_md_ft > shoe:  # its cement reaches its top, and no higher
        mend = hang_higher(well, string)
    yield _find("caution", place, _subject(string), *message, value=depth(top), limit=depth(shoe), remedies=(mend,))
