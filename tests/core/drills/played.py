"""Right crews' drills, each played once and given as copies in which what was done, and when, is changed."""

from copy import copy
from dataclasses import replace
from functools import cache

from knollstack.core.drills.scoring import outcomes
from tests.core.drills import crews
from tests.core.drills.crews import Crew
from tests.core.drills.wells import DEEP, LAND, PLATFORM, play

PLACES = {
    "drilling": (PLATFORM, "s4"),
    "tripping": (LAND, "s3"),
    "swab": (LAND, "s3"),
    "no pipe": (LAND, "s4"),
    "collars": (PLATFORM, "s3"),
    "casing": (LAND, "s4"),
    "unshearable": (LAND, "s3"),
    "failed annular": (LAND, "s4"),
    "leaking ram": (LAND, "s4"),
    "diverter": (PLATFORM, "s2"),
    "gas above": (DEEP, "s4"),
    "drift-off": (DEEP, "s4"),
}


def credits(found):
    return {o.key: o.credit for o in outcomes(found)}


def missed(found):
    return {key for key, credit in credits(found).items() if credit < 1}


@cache
def _right(kind, school):
    well, hole = PLACES[kind]
    found = play(well, kind, hole, dict(school), seed=7)
    crews.RIGHT[kind](Crew(found))
    return found


def right(kind, **school):
    return changed(_right(kind, tuple(school.items())))


def changed(found):
    """A copy of which the lists may be changed."""
    own = copy(found)
    own.events, own.samples = list(found.events), list(found.samples)
    return own


@cache
def killed(goal, **policy):
    """A kick that is shut in and circulated out by a method, by a right crew."""
    found = play(LAND, "drilling", "s3", policy, md_ft=3_000.0, goal=goal, seed=2)
    crew = Crew(found)
    crews.drilling(crew)
    {"driller's method": crews.drillers_method, "wait and weight": crews.wait_and_weight}[goal](crew)
    return found


def at(found, action, n=0):
    """Where a doing stands among the events."""
    return [i for i, e in enumerate(found.events) if e.action == action and not e.refused][n]


def edit(found, place, **changes):
    """The drill with one doing otherwise."""
    found.events[place] = found.events[place].model_copy(update=changes)
    return found


def without(found, action):
    found.events = [e for e in found.events if e.action != action]
    return found


def sampled(found, change, which=lambda s: True):
    """The drill with samples otherwise."""
    found.samples = [replace(s, **change) if which(s) else s for s in found.samples]
    return found
