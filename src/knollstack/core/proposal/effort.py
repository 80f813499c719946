"""How far a search goes. What every evaluation seeks is bounded by counted work, so that a well always gives the same answer;
what is asked for apart goes on as long as whoever asks lets it.
"""

from __future__ import annotations

from collections.abc import Callable

from knollstack.core.base.findings import Words
from knollstack.core.ground.well import Well

MOST_PROPOSED = 500.0
"""Units of the search that every evaluation makes."""
POINTS_A_UNIT = 800
GoingOn = Callable[[], bool]
CUT: Words = (
    "Not searched further: the ground has so many points and zones that the search was cut short. A thinner profile, or shoes "
    "of your own, go on from here.",
)


class CutShortError(Exception):
    """The search has gone as far as it goes."""


class Effort:
    """What is left of a search's work: a unit is about a kick rule asked once, of a ground of few points."""

    def __init__(self, most: float, going_on: GoingOn | None = None) -> None:
        self.most, self.left, self.going_on = most, most, going_on

    @property
    def spent(self) -> float:
        return self.most - self.left

    def spend(self, units: float) -> None:
        """Count some work; raises CutShortError where none is left for it."""
        self.left -= units
        if self.left < 0 or (self.going_on is not None and not self.going_on()):
            raise CutShortError


def unit_of(well: Well) -> float:
    """What one question to the rules costs on a ground: more with every point and zone of it."""
    ground = well.ground
    points = len(ground.pore.tvd_ft) + len(ground.fracture.tvd_ft) + len(ground.model.zones)
    return 1 + (points + (0 if well.path.is_straight else len(well.path.md_ft))) / POINTS_A_UNIT
