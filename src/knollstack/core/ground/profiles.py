"""The ground: pressure profiles against TVD.

A profile is linear in equivalent mud weight between its points; two points at one TVD make a step, and at the
step the worse value counts. Outside its points a profile is unknown, carried as NaN inside the core.
"""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.remember import remembered
from knollstack.core.document.design import GroundModel, Point
from knollstack.core.ground.formulas import gas_column_pore

Floats = NDArray[np.float64]


HELD_FT = 1.0
"""A planned path ends a hair below a profile that was typed to total depth: that is no gap in what is known."""


@dataclass(frozen=True, eq=False)
class Profile:
    """A piecewise linear profile with steps: unique depths, and the values just above and just below each."""

    tvd_ft: Floats
    above_ppg: Floats
    below_ppg: Floats
    worse_is_high: bool

    @property
    def known(self) -> bool:
        return len(self.tvd_ft) >= 2

    def held_to(self, tvd_ft: float) -> Profile:
        """The profile with its last value held to a depth that is no more than a foot below its end; else as it is."""
        if not self.known or not 0 < tvd_ft - self.tvd_ft[-1] <= HELD_FT:
            return self
        last = self.below_ppg[-1]
        return Profile(
            np.append(self.tvd_ft, tvd_ft),
            np.append(self.above_ppg, last),
            np.append(self.below_ppg, last),
            self.worse_is_high,
        )

    @cached_property
    def _line(self) -> tuple[Floats, Floats, Floats, Floats]:
        """Depths and values with both sides of each step in turn; depths and worse values of the steps alone."""
        step = self.above_ppg != self.below_ppg
        counts = np.where(step, 2, 1)
        depths = np.repeat(self.tvd_ft, counts)
        values = np.repeat(self.above_ppg, counts)
        values[np.cumsum(counts) - 1] = self.below_ppg
        worse = (
            np.maximum(self.above_ppg, self.below_ppg)
            if self.worse_is_high
            else np.minimum(self.above_ppg, self.below_ppg)
        )
        return depths, values, self.tvd_ft[step], worse[step]

    def at(self, tvd_ft: ArrayLike) -> Floats:
        """EMW [ppg] at depths [ft TVD], the worse side at a step, NaN where unknown."""
        z = np.asarray(tvd_ft, dtype=float)
        if not self.known:
            return np.full(z.shape, np.nan)
        depths, values, steps, worse = self._line
        found = np.interp(z, depths, values, left=np.nan, right=np.nan)
        if not len(steps):
            return np.asarray(found)
        k = np.minimum(np.searchsorted(steps, z), len(steps) - 1)
        return np.asarray(np.where(steps[k] == z, worse[k], found))

    def between(self, low_ft: float, high_ft: float, more_ft: Floats) -> tuple[Floats, Floats]:
        """Depths and values [ft TVD, ppg] from one depth to another: both sides of steps, and the depths asked besides."""
        depths, values, _, _ = self._line
        inside = (depths >= low_ft) & (depths <= high_ft)
        depths, values = depths[inside], values[inside]
        more = np.unique(np.concatenate([[low_ft], more_ft[(more_ft > low_ft) & (more_ft < high_ft)], [high_ft]]))
        more = more[~np.isin(more, depths)]
        where = np.searchsorted(depths, more)
        return np.insert(depths, where, more), np.insert(values, where, self.at(more))

    def lower_at(self, tvd_ft: ArrayLike) -> Floats:
        """EMW [ppg] as `at`, but the lower side at a step."""
        z, found = np.asarray(tvd_ft, dtype=float), self.at(tvd_ft)
        if not self.known or not len(self._line[2]):
            return found
        k = np.minimum(np.searchsorted(self.tvd_ft, z), len(self.tvd_ft) - 1)
        lower = np.minimum(self.above_ppg, self.below_ppg)
        return np.asarray(np.where(self.tvd_ft[k] == z, lower[k], found))

    @cached_property
    def _lists(self) -> tuple[list[float], list[float], list[float]]:
        return self.tvd_ft.tolist(), self.above_ppg.tolist(), self.below_ppg.tolist()

    def one(self, tvd_ft: float) -> float | None:
        """EMW [ppg] at one depth, None where unknown: as `at`, without the cost of arrays."""
        depths, above, below = self._lists
        if not self.known or not depths[0] <= tvd_ft <= depths[-1]:
            return None
        k = bisect_left(depths, tvd_ft)
        if depths[k] == tvd_ft:
            return max(above[k], below[k]) if self.worse_is_high else min(above[k], below[k])
        slope = (above[k] - below[k - 1]) / (depths[k] - depths[k - 1])
        return slope * (tvd_ft - depths[k - 1]) + below[k - 1]

    def beside(self, tvd_ft: float, side: int) -> float:
        """EMW [ppg] just above a depth (-1) or just below it (1); NaN where unknown."""
        depths, above, below = self._lists
        k = bisect_left(depths, tvd_ft)
        if k < len(depths) and depths[k] == tvd_ft:
            return above[k] if side < 0 else below[k]
        found = self.one(tvd_ft)
        return math.nan if found is None else found


def build_profile(points: Sequence[Point], worse_is_high: bool) -> Profile:
    """A profile from points sorted by TVD, at most two at one depth (a step)."""
    depths: list[float] = []
    above: list[float] = []
    below: list[float] = []
    for point in points:
        if depths and depths[-1] == point.tvd_ft:
            below[-1] = point.emw_ppg
        else:
            depths.append(point.tvd_ft)
            above.append(point.emw_ppg)
            below.append(point.emw_ppg)
    return Profile(np.array(depths), np.array(above), np.array(below), worse_is_high)


def _one(points: Sequence[Point], tvd_ft: float, worse: Callable[[float, float], float]) -> float | None:
    """EMW [ppg] of a profile given by its points at one depth, as `Profile.one`, without making the profile."""
    if len(points) < 2 or not points[0].tvd_ft <= tvd_ft <= points[-1].tvd_ft or points[0].tvd_ft == points[-1].tvd_ft:
        return None
    k = bisect_left(points, tvd_ft, key=_depth)
    if points[k].tvd_ft == tvd_ft:
        return worse(points[k].emw_ppg, points[bisect_right(points, tvd_ft, key=_depth) - 1].emw_ppg)
    above, below = points[k - 1], points[k]
    slope = (below.emw_ppg - above.emw_ppg) / (below.tvd_ft - above.tvd_ft)
    return slope * (tvd_ft - above.tvd_ft) + above.emw_ppg


def _depth(point: Point) -> float:
    return point.tvd_ft


@dataclass(frozen=True, eq=False)
class Ground:
    """The ground as the rules use it: the document's profiles and zones, ready to be asked at any depth."""

    model: GroundModel
    pore: Profile
    fracture: Profile
    stability: Profile
    held: tuple[tuple[str, float], ...] = ()
    """Profiles that end within a foot of total depth and are held to it: their names and where they end."""

    def held_to(self, tvd_ft: float) -> Ground:
        """The ground with every profile that ends within a foot above a depth held to it."""
        names = ("pore", "fracture", "stability")
        longer = {name: getattr(self, name).held_to(tvd_ft) for name in names}
        held = tuple((n, float(getattr(self, n).tvd_ft[-1])) for n in names if longer[n] is not getattr(self, n))
        return replace(self, **longer, held=held) if held else self

    @cached_property
    def fracture_psi(self) -> Floats:
        """Fracture pressure [psi] at the points of its profile."""
        nodes = self.fracture.tvd_ft
        return np.asarray(PSI_PER_PPG_FT * self.fracture.at(nodes) * nodes)

    def breakpoints(self, deepest_tvd_ft: float) -> Floats:
        """Every profile point and zone boundary down to a depth: where anything can change its course."""
        zones = [z for zone in self.model.zones for z in (zone.top_tvd_ft, zone.base_tvd_ft)]
        parts = [self.pore.tvd_ft, self.fracture.tvd_ft, self.stability.tvd_ft, np.array(zones)]
        depths = np.unique(np.concatenate(parts))
        return depths[depths <= deepest_tvd_ft]

    def zone_at(self, tvd_ft: float) -> str | None:
        """Name of the zone at a depth; on a boundary, the one that takes losses."""
        touching = [z for z in self.model.zones if z.top_tvd_ft <= tvd_ft <= z.base_tvd_ft]
        touching.sort(key=lambda z: ("losses" not in z.hazards, -z.top_tvd_ft))
        return touching[0].name if touching else None


GAS_STEP_FT = 10.0
LEAST_PPG, MOST_PPG = 0.5, 30.0
"""Bounds of a point of the profile."""


class GasColumnError(ValueError):
    """A gas column whose pore pressure at its top is none that rock holds. Names the zone by its place."""

    def __init__(self, zone: int, tvd_ft: float, emw_ppg: float) -> None:
        self.zone, self.tvd_ft, self.emw_ppg = zone, tvd_ft, emw_ppg
        super().__init__(f"gas of zone {zone + 1} has {emw_ppg:.2f} ppg at {tvd_ft:.0f} ft")


def _with_gas(pore: list[Point], model: GroundModel, gas_psi_ft: float) -> list[Point]:
    """The pore profile with every gas column of known contact put in: a step at its top, the gas gradient inside."""
    for i, zone in enumerate(model.zones):
        contact = zone.gas_contact_tvd_ft
        if contact is None or zone.fluid != "gas":
            continue
        low, top = min(contact, zone.base_tvd_ft), max(zone.top_tvd_ft, 1.0)
        at_contact, above = _one(pore, contact, max), _one(pore, top, max)
        if at_contact is None or above is None or low <= top:
            continue
        depths = np.append(np.arange(top, low, GAS_STEP_FT), low)
        emw = gas_column_pore(at_contact, contact, depths, gas_psi_ft)
        if not LEAST_PPG <= float(np.min(emw)) <= float(np.max(emw)) <= MOST_PPG:
            k = int(np.argmax(np.abs(emw)))
            raise GasColumnError(i, float(depths[k]), float(emw[k]))
        inside = [Point(tvd_ft=float(z), emw_ppg=float(e)) for z, e in zip(depths, emw, strict=True)]
        below = _one(pore, low, max)
        steps = [Point(tvd_ft=top, emw_ppg=above), *inside]
        if low < contact and below is not None:
            steps.append(Point(tvd_ft=low, emw_ppg=below))
        pore = [*pore[: bisect_left(pore, top, key=_depth)], *steps, *pore[bisect_right(pore, low, key=_depth) :]]
    return pore


def _with_tests(fracture: list[Point], model: GroundModel) -> list[Point]:
    """The fracture profile with the tests put in: a leak-off as it is, an integrity test where it shows more."""
    for test in model.leak_off_tests:
        if len(fracture) < 2:
            break
        held = _one(fracture, test.tvd_ft, min)
        if test.kind == "integrity" and held is not None and held >= test.emw_ppg:
            continue
        first, last = (bisect(fracture, test.tvd_ft, key=_depth) for bisect in (bisect_left, bisect_right))
        fracture = [*fracture[:first], Point(tvd_ft=test.tvd_ft, emw_ppg=test.emw_ppg), *fracture[last:]]
    return fracture


@remembered(16)
def build_ground(model: GroundModel, gas_psi_ft: float = 0.1) -> Ground:
    """Ground from the document, with gas columns in the pore profile and tests in the fracture profile."""
    return Ground(
        model=model,
        pore=build_profile(_with_gas(list(model.pore), model, gas_psi_ft), worse_is_high=True),
        fracture=build_profile(_with_tests(list(model.fracture), model), worse_is_high=False),
        stability=build_profile(model.stability, worse_is_high=True),
    )
