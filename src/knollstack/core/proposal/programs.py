"""Every program with the fewest strings, by dynamic programming over candidate shoes.

From total depth up: R(k) is the set of depths from which total depth is reached in k sections. With N, the fewest
sections, from the conductor down: L(i) is the set of depths in R(N − i) that a program reaches with i sections. L(i)
is the freedom of shoe i: every depth at which it stands in some program of N sections. The bottom-up school takes the
shallowest shoe each time, the top-down school the deepest; both are read off these sets.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.findings import Words
from knollstack.core.base.remember import remembered
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.rule import Rule, tried
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import Shoe
from knollstack.core.proposal.effort import CUT, CutShortError, Effort
from knollstack.core.proposal.search import MOST_STRINGS, Search, not_ready

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
SPACING_FT = 50.0
LEAST_SECTION_FT = 10.0
_FIRST_TRY = 24


@dataclass(frozen=True)
class Freedom:
    """Depths at which a shoe stands in some program with the fewest strings: the ends of its set."""

    shallow_md_ft: float
    deep_md_ft: float


@dataclass(frozen=True)
class Programs:
    """All programs with the fewest strings: how many sections, the freedom of each shoe, and the top-down one.

    `cut` where the search went no further.
    """

    sections: int
    freedom: tuple[Freedom, ...]
    top_down: tuple[Shoe, ...]
    failure: Words
    cut: bool = False


class Sets:
    """The sets R and L over one list of candidate depths."""

    def __init__(self, search: Search, candidates: Floats) -> None:
        self.search, self.depths = search, candidates
        self.bottom = search.well.path.total_md_ft
        self.may_stand = search.rules.where_a_shoe_may_stand(tried(search.well, candidates, self.bottom))
        self.reached_from_floor = np.array([search.reaches_floor(float(b)) for b in candidates], dtype=bool)
        self.up: list[Bools] = []
        self.down: list[Bools] = []
        self.sections = self._climb()
        if self.sections:
            self._descend()

    def _climb(self) -> int:
        """Fill R(1), R(2), … until the conductor is reached; the number of sections, 0 where none is enough."""
        if self.search.reaches_floor(self.bottom):
            return 1
        ends: list[float] = [self.bottom]
        for level in range(MOST_STRINGS):
            found = self._any_bottom(ends, level)
            self.up.append(found)
            if np.any(found & self.reached_from_floor):
                return level + 2
            if not np.any(found):
                return 0
            ends = self.depths[found].tolist()
        return 0

    def _any_bottom(self, bottoms: list[float], level: int) -> Bools:
        """Candidates from which some of the bottoms is reached in one section."""
        found = np.zeros(self.depths.shape, dtype=bool)
        for bottom in bottoms:
            wanted = np.flatnonzero(self.may_stand & ~found & (self.depths <= bottom - LEAST_SECTION_FT))
            if len(wanted):
                found[wanted[self.search.stand(self.depths[wanted], bottom, level)]] = True
        return found

    def _descend(self) -> None:
        """Fill L(1), L(2), … down to the last shoe above total depth."""
        count = self.sections
        for i in range(1, count):
            allowed = self.up[count - i - 1] & self.may_stand
            if i == 1:
                self.down.append(allowed & self.reached_from_floor)
                continue
            tops = self.depths[self.down[-1]]
            found = np.zeros(self.depths.shape, dtype=bool)
            for k in np.flatnonzero(allowed):
                found[k] = self._some_top(tops, float(self.depths[k]), count - i)
            self.down.append(found)

    def _some_top(self, tops: Floats, bottom: float, level: int) -> bool:
        """Some top reaches the bottom: the deepest are tried first, since they mostly do."""
        tops = tops[tops <= bottom - LEAST_SECTION_FT][::-1]
        first, rest = tops[:_FIRST_TRY], tops[_FIRST_TRY:]
        return bool(
            (len(first) and np.any(self.search.stand(first, bottom, level)))
            or (len(rest) and np.any(self.search.stand(rest, bottom, level)))
        )

    def deepest(self) -> list[float]:
        """Shoes of the top-down program above total depth: each as deep as the sets allow."""
        shoes: list[float] = []
        for i, members in enumerate(self.down):
            level = self.sections - i - 1
            for bottom in self.depths[members][::-1]:
                if not shoes or self.search.stand(np.array(shoes[-1:]), float(bottom), level)[0]:
                    shoes.append(float(bottom))
                    break
        return shoes


def candidates(search: Search, spacing_ft: float) -> Floats:
    """Candidate shoes: the search's own marks, and a grid between them."""
    well = search.well
    grid = np.arange(np.ceil(search.floor / spacing_ft) * spacing_ft, well.path.total_md_ft, spacing_ft)
    depths = np.unique(np.concatenate([grid, search.marks_md_ft]))
    return depths[(depths > search.floor) & (depths < well.path.total_md_ft)]


@remembered(16)
def programs(
    well: Well, holes_in: tuple[float, ...], spacing_ft: float = SPACING_FT, most: float = math.inf
) -> Programs:
    """All programs of a well with the fewest strings, as far as so much work finds them."""
    return sought(well, holes_in, spacing_ft, Effort(most))


def sought(well: Well, holes_in: tuple[float, ...], spacing_ft: float, effort: Effort) -> Programs:
    """All programs of a well with the fewest strings; none, and why, where there is no program or the search was cut."""
    if why := not_ready(well):
        return Programs(0, (), (), why.failure)
    floor, reason = conductor_md_ft(well)
    search = Search(well, floor, holes_in, effort)
    try:
        sets = Sets(search, candidates(search, spacing_ft))
        if sets.sections == 0:
            return Programs(0, (), (), search.failure())
        shoes = sets.deepest()
    except CutShortError:
        return Programs(0, (), (), CUT, cut=True)
    freedom = tuple(Freedom(float(sets.depths[members][0]), float(sets.depths[members][-1])) for members in sets.down)
    total = well.path.total_md_ft
    listed = [Shoe(floor, "conductor", reason)]
    for i, md in enumerate(shoes):
        above = shoes[i - 1] if i else floor
        rule, words = _why_not_deeper(search, above, md, sets, i)
        listed.append(Shoe(md, rule, words))
    listed.append(Shoe(total, "total depth", ("Production casing is set at total depth.",)))
    return Programs(sets.sections, freedom, tuple(listed), ())


def _why_not_deeper(search: Search, above: float, md: float, sets: Sets, i: int) -> tuple[str, Words]:
    """Which rule keeps a top-down shoe from the next candidate below it, in words."""
    deeper = sets.depths[sets.depths > md]
    if not len(deeper):
        return "total depth", ("Total depth follows.",)
    to, rules, level = float(deeper[0]), search.rules, sets.sections - i - 1
    if not sets.may_stand[np.searchsorted(sets.depths, to)]:
        return rules.no_shoe.name, rules.no_shoe.why(above, to, "Deeper")
    below: tuple[Rule, ...] = (rules.one_mud, rules.case_off, rules.open_hole, search.kick_rule(level))
    asked = below if i else (rules.one_mud, *rules.on_the_diverter)
    broken = next((rule for rule in asked if not rule.keeps(above, to)), None)
    if broken is not None:
        return broken.name, broken.why(above, to, "Deeper")
    return "the sections below", ("A deeper shoe would leave the sections below without a program of so few strings.",)
