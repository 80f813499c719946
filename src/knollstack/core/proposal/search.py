"""Setting depths from the bottom up, and the rule that sets each shoe.

Start at total depth; the previous shoe is the shallowest depth from which the hole below can still be drilled;
repeat until the hole reaches up to the conductor shoe. A section [a, b] stands when it keeps every rule of setting
depths and its kick tolerance meets policy.

Where the shallowest depth leads to a dead end, the shallowest depth of the next run of allowed depths is tried.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.findings import Words, depth, volume
from knollstack.core.base.remember import remembered
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.rule import Tried, tried
from knollstack.core.depths.rules import KickTolerance, depth_rules, kick_rule
from knollstack.core.ground.riserless import planned_ppg
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import Proposal, Shoe
from knollstack.core.proposal.effort import CUT, MOST_PROPOSED, CutShortError, Effort, unit_of

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
STEP_FT = 10.0
MOST_STRINGS = 8
_CHUNK = 64
CHEAP = 0.2
"""Units that the rules but kick tolerance cost."""
TITLES = {"pore": "pore pressure", "fracture": "fracture gradient"}


class Search:
    """One search upward from total depth. `holes_in` are the hole sizes from the innermost section out."""

    def __init__(self, well: Well, floor_md_ft: float, holes_in: tuple[float, ...], effort: Effort) -> None:
        self.well, self.floor, self.rules = well, floor_md_ft, depth_rules(well)
        self.effort, self.unit = effort, unit_of(well)
        self.dead_ends: set[tuple[float, int]] = set()
        self.kick_rules = [kick_rule(well, hole) for hole in holes_in]
        self.marks_md_ft: Floats
        self.candidates = self._candidates()

    def _candidates(self) -> Floats:
        well = self.well
        grid = np.arange(math.ceil(self.floor / STEP_FT) * STEP_FT, well.path.total_md_ft, STEP_FT)
        marks = [m for m in self.rules.marks_tvd_ft() if m < well.path.deepest_tvd_ft]
        self.marks_md_ft = np.asarray(well.path.md_at(np.array(marks)))
        depths = np.unique(np.concatenate([grid, self.marks_md_ft]))
        return depths[(depths > self.floor) & (depths < well.path.total_md_ft)]

    def kick_rule(self, level: int) -> KickTolerance:
        """The rule of the hole `level` sections above total depth."""
        return self.kick_rules[min(level, len(self.kick_rules) - 1)]

    def keep(self, at: Tried) -> Bools:
        """Shoes that keep every rule but kick tolerance, which costs more."""
        return np.logical_and.reduce([rule.holds(at) for rule in self.rules.all])

    def stand(self, tops: Floats, bottom: float, level: int) -> Bools:
        """Shoes that keep every rule, kick tolerance included."""
        at = tried(self.well, tops, bottom)
        ok = self.keep(at)
        self.effort.spend(CHEAP + self.unit * bool(np.any(ok)))
        if np.any(ok):
            ok[ok] = self.kick_rule(level).holds(tried(self.well, tops[ok], bottom))
        return np.asarray(ok)

    def reaches_floor(self, bottom: float) -> bool:
        """The hole from the conductor shoe to `bottom` stands."""
        well, rules = self.well, self.rules
        if not all(rule.keeps(self.floor, bottom) for rule in rules.on_the_diverter):
            return False
        if well.site.setting == "subsea":
            # drilled before the riser is on: sea water and mud together, not a column from the rig floor
            return planned_ppg(well, well.path.tvd(self.floor), well.path.tvd(bottom)) is not None
        return rules.one_mud.keeps(self.floor, bottom)

    def climb(self, bottom: float, level: int) -> list[float] | None:
        """Shoes from just below the conductor to `bottom`, or None."""
        if self.reaches_floor(bottom):
            return [bottom]
        if level >= MOST_STRINGS or (bottom, level) in self.dead_ends:
            return None
        for top in self._tops(bottom, level):
            above = self.climb(top, level + 1)
            if above is not None:
                return [*above, bottom]
        self.dead_ends.add((bottom, level))
        return None

    def _tops(self, bottom: float, level: int) -> list[float]:
        """The shallowest depth of each run of allowed depths, shallow first, exact to a foot."""
        tops = self.candidates[self.candidates < bottom - STEP_FT]
        if not len(tops):
            return []
        cheap = self.keep(tried(self.well, tops, bottom))
        found: list[float] = []
        where = np.nonzero(cheap)[0]
        before = -2
        for chunk in (where[i : i + _CHUNK] for i in range(0, len(where), _CHUNK)):
            self.effort.spend(self.unit)
            for k in chunk[self.kick_rule(level).holds(tried(self.well, tops[chunk], bottom))]:
                if k != before + 1:
                    found.append(self._refine(tops, int(k), bottom, level))
                before = int(k)
            if found:
                break
        return found

    def _refine(self, tops: Floats, k: int, bottom: float, level: int) -> float:
        """The shallowest whole foot that is allowed between a candidate and the one above it, which is not."""
        high = float(tops[k])
        low = float(tops[k - 1]) if k else self.floor
        feet = np.arange(math.floor(low) + 1.0, high)
        if not len(feet):
            return high
        at = tried(self.well, feet, bottom)
        self.effort.spend(self.unit)
        allowed = self.keep(at) & self.kick_rule(level).holds(at)
        # from the deep end up: allowed depths that reach the candidate without a gap
        run = np.logical_and.accumulate(allowed[::-1])
        return float(feet[::-1][run][-1]) if run[0] else high

    def explain(self, top: float, bottom: float, level: int) -> tuple[str, Words]:
        """Which rule keeps the shoe from standing one foot shallower, in words."""
        at = tried(self.well, np.array([top - 1.0]), bottom)
        broken = next((rule for rule in self.rules.all if not rule.holds(at)[0]), self.kick_rule(level))
        return broken.name, broken.why(top - 1.0, bottom, "Shallower")

    def failure(self) -> Words:
        """Where the search stops, and which rules leave no depth there."""
        bottom = self.well.path.total_md_ft
        for level in range(MOST_STRINGS):
            tops = self._tops(bottom, level)
            if not tops:
                return self._stuck(bottom, level)
            bottom = tops[0]
        return (f"No program of {MOST_STRINGS} strings or fewer reaches the conductor shoe.",)

    def _stuck(self, bottom: float, level: int) -> Words:
        at = tried(self.well, self.candidates[self.candidates < bottom - STEP_FT], bottom)
        kept = {rule.name: rule.holds(at) for rule in self.rules.all}
        allowed = np.logical_and.reduce(list(kept.values()))
        on_diverter = (rule for rule in self.rules.on_the_diverter if not rule.keeps(self.floor, bottom))
        also: Words = next(((" ", *rule.why(self.floor, bottom, "Deeper")) for rule in on_diverter), ())
        if np.any(allowed):
            deepest = float(at.tops_md_ft[np.nonzero(allowed)[0][-1]])
            return (
                "Drilling to ",
                depth(bottom),
                ", no shoe gives the kick tolerance of ",
                volume(self.kick_rule(level).asked_bbl),
                " that policy asks; the deepest that the other rules allow is ",
                depth(deepest),
                ".",
                *also,
            )
        binding = [name for name, ok in kept.items() if len(ok) and not ok[-1]] or ["mud window"]
        what = f", no shoe can be set above it: {' and '.join(binding)} rule it out."
        return "Drilling to ", depth(bottom), what, *also


def not_ready(well: Well) -> Proposal | None:
    """A proposal without shoes, of what is to be entered and where, before a program can be sought; None where it can."""
    profiles = {"pore": well.ground.pore, "fracture": well.ground.fracture}
    empty = [key for key, profile in profiles.items() if not profile.known]
    if empty:
        what = " and ".join(TITLES[key] for key in empty)
        words: Words = (f"Enter {what} against depth on Ground. Setting depths are proposed from there.",)
        return Proposal((), words, f"/ground/{empty[0]}", missing=True)
    for key, profile in profiles.items():
        known_to = float(profile.tvd_ft[-1])
        if known_to < well.path.total_tvd_ft - 1e-6:
            words = (f"No {TITLES[key]} below ", depth(known_to), ": enter it down to ", depth(well.path.total_tvd_ft))
            return Proposal((), (*words, " TVD."), f"/ground/{key}/{len(profile.tvd_ft) - 1}/tvd_ft", missing=True)
    floor, _ = conductor_md_ft(well)
    if floor >= well.path.total_md_ft:
        words = "Total depth ", depth(well.path.total_md_ft), " is above the conductor shoe at ", depth(floor), "."
        return Proposal((), words, "/trajectory/stations")
    for key, profile in profiles.items():
        known_from, shoe = float(profile.tvd_ft[0]), well.path.tvd(floor)
        if known_from > shoe:
            words = (f"No {TITLES[key]} above ", depth(known_from), ": enter it from the conductor shoe at ")
            return Proposal((), (*words, depth(shoe), " TVD down."), f"/ground/{key}/0/tvd_ft", missing=True)
    return None


@remembered(16)
def propose(well: Well, holes_in: tuple[float, ...]) -> Proposal:
    """The bottom-up program of a well; nothing is proposed where pressures are unknown."""
    if why_not := not_ready(well):
        return why_not
    total = well.path.total_md_ft
    floor, why = conductor_md_ft(well)
    search = Search(well, floor, holes_in, Effort(MOST_PROPOSED))
    try:
        depths = search.climb(total, 0)
        failure = search.failure() if depths is None else ()
    except CutShortError:
        return Proposal((), CUT, cut=True, effort=search.effort.spent)
    if depths is None:
        return Proposal((), failure, effort=search.effort.spent)
    shoes = [Shoe(floor, "conductor", why)]
    for i, md in enumerate(depths[:-1]):
        rule, reason = search.explain(md, depths[i + 1], len(depths) - 2 - i)
        shoes.append(Shoe(md, rule, reason))
    shoes.append(Shoe(total, "total depth", ("Production casing is set at total depth.",)))
    return Proposal(tuple(shoes), (), effort=search.effort.spent)
