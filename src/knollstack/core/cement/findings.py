"""What is wrong with a string's cement: a column that breaks the rock, no bond, volumes that are not known."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Amount, Finding, Remedy, Words, depth, emw, find, remedy
from knollstack.core.cement.column import Weakest
from knollstack.core.ground.well import Well
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.hanging import hang_higher
from knollstack.core.program.laid import LaidString

_find = partial(find, "cement")


def _subject(string: LaidString) -> Words:
    return (*string.words, " cement")


def unknown_volumes(string: LaidString) -> Finding:
    text = "Cement volumes are unknown: a hole or pipe size of this string or the one outside is missing."
    return _find("unknown", string.path, _subject(string), text)


def unknown_displacement(string: LaidString) -> Finding:
    text = "Displacement is unknown: the ID of the drill pipe that lands this string is not given."
    return _find("unknown", "/policy/mud/drill_strings", _subject(string), text)


def unknown_rock(string: LaidString) -> Finding:
    text = "Whether the cement column breaks the rock down is unknown: fracture pressure is not given over the whole open hole."
    return _find("unknown", string.path, _subject(string), text)


def breakdown(well: Well, string: LaidString, worst: Weakest, remedies: tuple[Remedy, ...]) -> Finding:
    zone, reached, fracture = well.ground.zone_at(worst.tvd_ft), emw(worst.reached_ppg), emw(worst.fracture_ppg)
    none = " No slurry, lead, stage collar or top of cement tried here avoids breakdown."
    return _find(
        "stop",
        f"{string.path}/cement/top_md_ft",
        _subject(string),
        f"In {zone} at " if zone else "At ",
        depth(well.path.md(worst.tvd_ft)),
        f" the {worst.stage}cement column reaches ",
        reached,
        " at rest; the rock breaks at ",
        fracture,
        ".",
        *(() if remedies else (none,)),
        value=reached,
        limit=fracture,
        remedies=remedies,
        working=f"cement/{string.index}/column",
    )


def placement_findings(well: Well, string: LaidString) -> Iterator[Finding]:
    """A tail without a lead over it, a stage collar that is not in the cement."""
    own, top, shoe = string.own.cement, string.cement_top_md_ft, string.shoe_md_ft
    if top is None:
        return
    track = landing_md_ft(string)
    tail = own.tail_top_md_ft
    if tail is not None and not top < tail < shoe:
        text: Words = ("The top of the tail, ", depth(tail), ", is not between the top of cement, ", depth(top))
        usual = shoe - well.policy.cement.tail_ft
        yield _placed(
            string, "tail_top_md_ft", tail, usual if usual > top else None, *text, ", and the shoe, ", depth(shoe), "."
        )
    for key, name in (("stage_collar_md_ft", "stage collar"), ("upper_collar_md_ft", "upper stage collar")):
        collar: float | None = getattr(own, key)
        if collar is not None and not top < collar < track:
            text = (f"The {name}, ", depth(collar), ", is not between the top of cement, ", depth(top))
            yield _placed(string, key, collar, None, *text, ", and the float collar, ", depth(track), ".")
    lower, upper = own.stage_collar_md_ft, own.upper_collar_md_ft
    if upper is not None and (lower is None or upper >= lower):
        text = ("The upper stage collar, ", depth(upper), ", has no stage collar below it")
        yield _placed(string, "upper_collar_md_ft", upper, None, *text, ".")


def _placed(string: LaidString, key: str, held_ft: float, wanted_ft: float | None, *message: str | Amount) -> Finding:
    label: Words = ("Leave it out",) if wanted_ft is None else ("Set it at ", depth(wanted_ft))
    mend = remedy(string.change(f"cement/{key}", wanted_ft), *label)
    place = f"{string.path}/cement/{key}"
    return _find("caution", place, _subject(string), *message, value=depth(held_ft), remedies=(mend,))


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
