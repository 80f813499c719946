"""Setting depths from the bottom up, and the rule that sets each shoe.

Start at total depth; the previous shoe is the shallowest depth from which the hole below can still be drilled;
repeat until the hole reaches up to the conductor shoe. A section [a, b] stands when one mud drills it, its kick
tolerance meets policy, its open hole is short enough, and every zone to be cased before drilling deeper has a
shoe in its reach. No shoe stands above the fresh-water cover or inside a zone marked "no shoe".

Where the shallowest depth leads to a dead end, the shallowest depth of the next run of allowed depths is tried.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from knollstack.core.conductor import conductor_md_ft
from knollstack.core.constants import PSI_PER_PPG_FT
from knollstack.core.design import Zone
from knollstack.core.findings import Words
from knollstack.core.riserless import planned_ppg
from knollstack.core.tolerance import Section, gives, section_of
from knollstack.core.well import Well, depth, emw, volume
from knollstack.core.window import planned_mud_ppg

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
STEP_FT = 10.0
MOST_STRINGS = 8
_CHUNK = 64


@dataclass(frozen=True)
class Shoe:
    """A proposed shoe, and why it is not shallower."""

    md_ft: float
    rule: str
    reason: Words


@dataclass(frozen=True)
class Proposal:
    """Shoes from conductor to total depth; no shoes and a failure where no program exists."""

    shoes: tuple[Shoe, ...]
    failure: Words


def fresh_water_shoe_tvd_ft(well: Well) -> float:
    """Least TVD [ft] of every shoe below the conductor: all fresh water behind it, with cover."""
    bases = [z.base_tvd_ft for z in well.ground.model.zones if z.fluid == "fresh water"]
    return max(bases) + well.policy.fresh_water_cover_ft if bases else 0.0


def reach_of(well: Well, zone: Zone) -> tuple[float, float]:
    """Band of TVD [ft] in which a zone to be cased before drilling deeper needs a shoe."""
    return zone.base_tvd_ft + well.policy.zone_cover_ft, zone.base_tvd_ft + well.policy.zone_reach_ft


def bands(well: Well) -> list[tuple[Zone, float, float]]:
    return [(z, *reach_of(well, z)) for z in well.ground.model.zones if z.case_before_deeper]


class Search:
    """One search upward from total depth. `holes_in` are the hole sizes from the innermost section out."""

    def __init__(self, well: Well, floor_md_ft: float, holes_in: tuple[float, ...]) -> None:
        self.well, self.floor = well, floor_md_ft
        self.sections = [section_of(well, hole) for hole in holes_in]
        self.asked = [well.kick_minimum_bbl(hole) for hole in holes_in]
        self.bands = bands(well)
        self.fresh = fresh_water_shoe_tvd_ft(well)
        self.banned = [
            (z.top_tvd_ft, z.base_tvd_ft + well.policy.zone_cover_ft)
            for z in well.ground.model.zones
            if not z.shoe_allowed
        ]
        self.marks_md_ft: Floats
        self.candidates = self._candidates()

    def _candidates(self) -> Floats:
        well = self.well
        grid = np.arange(math.ceil(self.floor / STEP_FT) * STEP_FT, well.path.total_md_ft, STEP_FT)
        marks = [self.fresh, *(d for _, lo, hi in self.bands for d in (lo, hi))]
        marks.extend(base for _, base in self.banned)
        deepest = float(well.path.knots_tvd_ft.max())
        self.marks_md_ft = np.asarray(well.path.md_at(np.array([m for m in marks if m < deepest])))
        depths = np.unique(np.concatenate([grid, self.marks_md_ft]))
        return depths[(depths > self.floor) & (depths < well.path.total_md_ft)]

    def tests(self, tops: Floats, bottom: float) -> dict[str, Bools]:
        """Each cheap rule on its own, for many shoes above one bottom."""
        tvd, end = self.well.path.tvd_at(tops), self.well.path.tvd(bottom)
        low, high = self.well.window.over(tvd, end)
        banned = np.zeros(tops.shape, dtype=bool)
        for top, base in self.banned:
            banned |= (tvd > top) & (tvd < base)
        passed = np.zeros(tops.shape, dtype=bool)
        for _, shallow, deep in self.bands:
            passed |= (tvd < shallow) & (end > deep)
        return {
            "mud window": low <= high + 1e-9,
            "fresh water": tvd >= self.fresh - 1e-6,
            "case before deeper": ~passed,
            "no shoe": ~banned,
            "open-hole length": bottom - tops <= self.well.policy.open_hole_limit_ft,
        }

    def kick_ok(self, tops: Floats, bottom: float, level: int) -> Bools:
        """Kick tolerance of the hole `level` sections above total depth meets policy; unknown does not."""
        if self.well.policy.kick_school == "full gas":
            return self._full_gas_ok(tops, bottom)
        section, asked = self.section(level)
        low, high = self.well.window.over(self.well.path.tvd_at(tops), self.well.path.tvd(bottom))
        rounded = np.ceil(np.round(low * 10, 6)) / 10
        mud = np.where(rounded <= high, rounded, low)
        return gives(self.well, section, tops, mud, bottom, asked)

    def _full_gas_ok(self, tops: Floats, bottom: float) -> Bools:
        """The shoe stands a hole full of gas from the worst depth of the section; unknown does not."""
        well, gas = self.well, self.well.policy.influx_psi_ft
        shoes, end = well.path.tvd_at(tops), well.path.tvd(bottom)
        nodes = well.ground.pore.tvd_ft
        kicks = np.append(nodes[nodes < end], end)
        formation = PSI_PER_PPG_FT * (well.ground.pore.at(kicks) + well.policy.kick_intensity_ppg) * kicks
        # the worst from each depth down: gas from there to a shoe above takes off its own weight
        worst = np.maximum.accumulate((formation - gas * kicks)[::-1])[::-1]
        at_shoe = worst[np.searchsorted(kicks, shoes, side="right").clip(max=len(kicks) - 1)] + gas * shoes
        return np.asarray(at_shoe <= PSI_PER_PPG_FT * well.ground.fracture.at(shoes) * shoes)

    def section(self, level: int) -> tuple[Section, float]:
        k = min(level, len(self.sections) - 1)
        return self.sections[k], self.asked[k]

    def reaches_floor(self, bottom: float) -> bool:
        """The hole from the conductor shoe to `bottom` stands.

        It is drilled on a diverter, which cannot shut a kick in: no kick rule, but a limit of depth.
        """
        if bottom - self.well.ground_md_ft > self.well.policy.diverter_limit_ft:
            return False
        tests = self.tests(np.array([self.floor]), bottom)
        if self.well.site.setting == "subsea":
            # drilled before the riser is on: sea water and mud together, not a column from the rig floor
            top, end = self.well.path.tvd(self.floor), self.well.path.tvd(bottom)
            tests["mud window"] = np.array([planned_ppg(self.well, top, end) is not None])
        return all(bool(tests[rule][0]) for rule in ("mud window", "case before deeper", "open-hole length"))

    def climb(self, bottom: float, level: int) -> list[float] | None:
        """Shoes from just below the conductor to `bottom`, or None."""
        if self.reaches_floor(bottom):
            return [bottom]
        if level >= MOST_STRINGS:
            return None
        for top in self._tops(bottom, level):
            above = self.climb(top, level + 1)
            if above is not None:
                return [*above, bottom]
        return None

    def _tops(self, bottom: float, level: int) -> list[float]:
        """The shallowest depth of each run of allowed depths, shallow first, exact to a foot."""
        tops = self.candidates[self.candidates < bottom - STEP_FT]
        if not len(tops):
            return []
        cheap = np.logical_and.reduce(list(self.tests(tops, bottom).values()))
        found: list[float] = []
        where = np.nonzero(cheap)[0]
        before = -2
        for chunk in (where[i : i + _CHUNK] for i in range(0, len(where), _CHUNK)):
            for k in chunk[self.kick_ok(tops[chunk], bottom, level)]:
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
        allowed = np.logical_and.reduce(list(self.tests(feet, bottom).values())) & self.kick_ok(feet, bottom, level)
        # from the deep end up: allowed depths that reach the candidate without a gap
        run = np.logical_and.accumulate(allowed[::-1])
        return float(feet[::-1][run][-1]) if run[0] else high

    def explain(self, top: float, bottom: float, level: int) -> tuple[str, Words]:
        """Which rule keeps the shoe from standing one foot shallower, in words."""
        tests = self.tests(np.array([top - 1.0]), bottom)
        failed = next((rule for rule, ok in tests.items() if not ok[0]), "kick tolerance")
        return failed, self._why(failed, top, bottom, level)

    def _why(self, rule: str, top: float, bottom: float, level: int) -> Words:
        path = self.well.path
        if rule == "mud window":
            lower, upper = self.well.window.bounds(path.tvd(top - 1), path.tvd(bottom))
            if lower is None or upper is None:
                return ("The mud window is not known above.",)
            return (
                f"Shallower, {lower.cause} at ", depth(path.md(lower.tvd_ft)), " asks ", emw(lower.mud_ppg),
                f" and {upper.cause} at ", depth(path.md(upper.tvd_ft)), " allows ", emw(upper.mud_ppg), ".",
            )  # fmt: skip
        if rule == "fresh water":
            return (
                "Fresh water must be behind the shoe with ",
                depth(self.well.policy.fresh_water_cover_ft),
                " of cover.",
            )
        if rule == "case before deeper":
            zone = next(z for z, lo, hi in self.bands if path.tvd(top - 1) < lo and path.tvd(bottom) > hi)
            return (
                f"{zone.name} must be cased, with ",
                depth(self.well.policy.zone_cover_ft),
                " of cover, before drilling deeper.",
            )
        if rule == "no shoe":
            return ("No shoe may stand in the rock just above.",)
        if rule == "open-hole length":
            return ("Open hole is limited to ", depth(self.well.policy.open_hole_limit_ft), ".")
        return (
            "Kick tolerance below the shoe would be under ",
            volume(self.section(level)[1]),
            " any shallower.",
        )

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
        tops = self.candidates[self.candidates < bottom - STEP_FT]
        tests = self.tests(tops, bottom)
        allowed = np.logical_and.reduce(list(tests.values())) if len(tops) else np.array([])
        if len(tops) and np.any(allowed):
            deepest = float(tops[np.nonzero(allowed)[0][-1]])
            asked = self.section(level)[1]
            return (
                "Drilling to ", depth(bottom), ", no shoe gives the kick tolerance of ", volume(asked),
                " that policy asks; the deepest that the other rules allow is ", depth(deepest), ".",
            )  # fmt: skip
        binding = [rule for rule, ok in tests.items() if len(ok) and not ok[-1]] or ["mud window"]
        return (
            "Drilling to ",
            depth(bottom),
            f", no shoe stands above it: {' and '.join(binding)} rule it out.",
        )


def not_ready(well: Well) -> Words:
    """Why no program can be sought, in words; nothing where it can."""
    if not well.knows_pressures:
        return ("Pore and fracture profiles are needed before depths can be proposed.",)
    for name, profile in (("Pore", well.ground.pore), ("Fracture", well.ground.fracture)):
        if profile.tvd_ft[-1] < well.path.total_tvd_ft - 1e-6:
            return (
                f"{name} pressure is not known below ",
                depth(float(profile.tvd_ft[-1])),
                ", so no program follows.",
            )
    floor, _ = conductor_md_ft(well)
    if floor >= well.path.total_md_ft:
        return ("Total depth is above the conductor shoe.",)
    known_from = max(float(well.ground.pore.tvd_ft[0]), float(well.ground.fracture.tvd_ft[0]))
    if known_from > well.path.tvd(floor):
        words: Words = (
            "Pressures are not known between the conductor shoe at ",
            depth(floor),
            " and ",
            depth(known_from),
        )
        return (*words, ", so no program follows.")
    return ()


@lru_cache(maxsize=16)
def propose(well: Well, holes_in: tuple[float, ...]) -> Proposal:
    """The bottom-up program of a well; nothing is proposed where pressures are unknown."""
    why_not = not_ready(well)
    if why_not:
        return Proposal((), why_not)
    total = well.path.total_md_ft
    floor, why = conductor_md_ft(well)
    search = Search(well, floor, holes_in)
    depths = search.climb(total, 0)
    if depths is None:
        return Proposal((), search.failure())
    shoes = [Shoe(floor, "conductor", why)]
    for i, md in enumerate(depths[:-1]):
        rule, reason = search.explain(md, depths[i + 1], len(depths) - 2 - i)
        shoes.append(Shoe(md, rule, reason))
    shoes.append(Shoe(total, "total depth", ("Production casing is set at total depth.",)))
    return Proposal(tuple(shoes), ())


def planned_mud_over(well: Well, top_md_ft: float, bottom_md_ft: float) -> float | None:
    """Planned mud weight [ppg] of an open hole, None where the window is unknown."""
    lower, upper = well.window.bounds(well.path.tvd(top_md_ft), well.path.tvd(bottom_md_ft))
    if lower is None or upper is None:
        return None
    return planned_mud_ppg(lower.mud_ppg, upper.mud_ppg)
