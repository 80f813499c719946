"""The mud window of an open hole: the least and the greatest mud weight that the rock stands.

lower = max over the interval of max(pore + trip margin, stability);
upper = min over the interval of (fracture − fracture margin) and, in permeable zones, pore + Δp/((12/231)·D).
Both are exact: the extremes of piecewise linear bounds lie at profile points, zone boundaries and the ends of
the interval, and the convex sticking bound adds its stationary points.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.document.design import Zone
from knollstack.core.document.policy import MudPolicy
from knollstack.core.ground.formulas import greatest_mud, least_mud, sticking_mud
from knollstack.core.ground.profiles import Ground

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Bound:
    """One end of a window: its value, the depth that sets it, and what it comes from."""

    mud_ppg: float
    tvd_ft: float
    cause: str


@dataclass(frozen=True, eq=False)
class Permeable:
    """Permeable zones in their order: top, base, overbalance limit, and the pore pressure just inside either end."""

    top_ft: Floats
    base_ft: Floats
    limit_psi: Floats
    pore_at_top_ppg: Floats
    pore_at_base_ppg: Floats

    def holding(self, tvd_ft: Floats) -> Iterator[tuple[NDArray[np.intp], NDArray[np.intp]]]:
        """Which depths a zone holds, and which zone: on a boundary of two, first the lower and then the upper."""
        if not len(self.top_ft):
            return
        last = np.searchsorted(self.top_ft, tvd_ft, "right") - 1
        for zone in (last, last - 1):
            inside = np.flatnonzero((zone >= 0) & (self.base_ft[np.maximum(zone, 0)] >= tvd_ft) & (tvd_ft > 0))
            if len(inside):
                yield inside, zone[inside]


@dataclass(frozen=True, eq=False)
class Window:
    """Bounds against TVD, ready to be asked over any interval. NaN is unknown."""

    ground: Ground
    policy: MudPolicy
    depths_ft: Floats
    lower_ppg: Floats
    upper_ppg: Floats

    @sweeping()
    def lower_at(self, tvd_ft: Floats) -> Floats:
        pore = least_mud(self.ground.pore.at(tvd_ft), self.policy.trip_margin_ppg)
        stable = self.ground.stability.at(tvd_ft)
        return np.where(np.isnan(stable), pore, np.maximum(pore, stable))

    def upper_at(self, tvd_ft: Floats) -> Floats:
        return np.minimum(self._fracture_at(tvd_ft), self._sticking_at(tvd_ft))

    @sweeping()
    def _fracture_at(self, tvd_ft: Floats) -> Floats:
        return np.asarray(greatest_mud(self.ground.fracture.at(tvd_ft), self.policy.fracture_margin_ppg))

    @cached_property
    def _permeable(self) -> Permeable:
        zones = [z for z in self.ground.model.zones if z.permeable]
        pore = self.ground.pore
        return Permeable(
            np.array([z.top_tvd_ft for z in zones]),
            np.array([z.base_tvd_ft for z in zones]),
            np.array([sticking_limit_psi(z, self.ground, self.policy) for z in zones]),
            np.array([pore.beside(z.top_tvd_ft, 1) for z in zones]),
            np.array([pore.beside(z.base_tvd_ft, -1) for z in zones]),
        )

    @sweeping()
    def _sticking_at(self, tvd_ft: Floats) -> Floats:
        """Sticking bound [ppg], +inf outside permeable zones."""
        z = np.ravel(np.asarray(tvd_ft, dtype=float))
        bound = np.full(z.shape, np.inf)
        for inside, zone in self._permeable.holding(z):
            own = sticking_mud(self._least_pore(z[inside], zone), self._permeable.limit_psi[zone], z[inside])
            bound[inside] = np.minimum(bound[inside], own)
        return bound.reshape(np.shape(tvd_ft))

    def _least_pore(self, tvd_ft: Floats, zone: NDArray[np.intp]) -> Floats:
        """Pore pressure of each zone's own rock: at a step its lower side, which the mud presses hardest against."""
        held, least = self._permeable, self.ground.pore.lower_at(tvd_ft)
        least = np.where(tvd_ft == held.top_ft[zone], held.pore_at_top_ppg[zone], least)
        return np.where(tvd_ft == held.base_ft[zone], held.pore_at_base_ppg[zone], least)

    def over(self, tops_ft: Floats, bottom_ft: float) -> tuple[Floats, Floats]:
        """Lower and upper bounds over [top, bottom] for many tops at once, tops at or above the bottom."""
        inside = self.depths_ft < bottom_ft
        depths = self.depths_ft[inside]
        end = np.array([bottom_ft])
        lows = np.append(self.lower_ppg[inside], self.lower_at(end))
        highs = np.append(self.upper_ppg[inside], self.upper_at(end))
        low = np.maximum.accumulate(lows[::-1])[::-1]
        high = np.minimum.accumulate(highs[::-1])[::-1]
        first = np.searchsorted(depths, tops_ft, side="left")
        return np.maximum(self.lower_at(tops_ft), low[first]), np.minimum(self.upper_at(tops_ft), high[first])

    def bounds(self, top_ft: float, bottom_ft: float) -> tuple[Bound | None, Bound | None]:
        """Lower and upper bound over [top, bottom] with the depth and the cause; None where unknown."""
        return self.lower_bound(top_ft, bottom_ft), self.upper_bound(top_ft, bottom_ft)

    def _over(self, top_ft: float, bottom_ft: float) -> Floats:
        """Every depth of an interval at which a bound can be greatest or least."""
        inside = (self.depths_ft > top_ft) & (self.depths_ft < bottom_ft)
        return np.concatenate([[top_ft], self.depths_ft[inside], [bottom_ft]])

    def lower_bound(self, top_ft: float, bottom_ft: float) -> Bound | None:
        """The lower bound over [top, bottom], worked at the depth that sets it; None where unknown."""
        return _bound(self._least_mud, top_ft, bottom_ft)

    def upper_bound(self, top_ft: float, bottom_ft: float) -> Bound | None:
        """The upper bound over [top, bottom], worked at the depth that sets it; None where unknown."""
        return _bound(self._greatest_mud, top_ft, bottom_ft)

    def _least_mud(self, top_ft: float, bottom_ft: float) -> Bound | None:
        z = self._over(top_ft, bottom_ft)
        low = self.lower_at(z)
        if np.any(np.isnan(low)):
            return None
        k = int(np.argmax(low))
        held = float(least_mud(float(self.ground.pore.at(z[k])), self.policy.trip_margin_ppg))
        if held >= low[k] - 1e-9:
            return Bound(held, float(z[k]), "pore pressure plus trip margin")
        return Bound(float(low[k]), float(z[k]), "hole stability")

    def _greatest_mud(self, top_ft: float, bottom_ft: float) -> Bound | None:
        z = self._over(top_ft, bottom_ft)
        fracture, sticking = self._fracture_at(z), self._sticking_at(z)
        high = np.minimum(fracture, sticking)
        if np.any(np.isnan(high)):
            return None
        k = int(np.argmin(high))
        at = float(z[k])
        if fracture[k] <= sticking[k]:
            value = greatest_mud(float(self.ground.fracture.at(at)), self.policy.fracture_margin_ppg)
            return Bound(float(value), at, "fracture less margin")
        point = np.array([at])
        touching = [zone for _, zone in self._permeable.holding(point)]
        limits = [(float(self._least_pore(point, z)[0]), float(self._permeable.limit_psi[z[0]])) for z in touching]
        return Bound(float(min(sticking_mud(pore, limit, at) for pore, limit in limits)), at, "differential sticking")


@remembered(256, traced=True)
def _bound(work: Callable[[float, float], Bound | None], top_ft: float, bottom_ft: float) -> Bound | None:
    """Planned mud, its judgement and its findings ask for the same bound."""
    return work(top_ft, bottom_ft)


def sticking_limit_psi(zone: Zone, ground: Ground, policy: MudPolicy) -> float:
    """The overbalance limit of a permeable zone: the abnormal one when its pore pressure exceeds normal anywhere."""
    z = np.array([zone.top_tvd_ft, zone.base_tvd_ft])
    inner = ground.pore.tvd_ft[(ground.pore.tvd_ft > z[0]) & (ground.pore.tvd_ft < z[1])]
    pore = ground.pore.at(np.concatenate([z, inner]))
    abnormal = np.nanmax(pore, initial=0.0) > policy.normal_pore_ppg
    return policy.sticking_abnormal_psi if abnormal else policy.sticking_normal_psi


def _stationary_depths(ground: Ground, policy: MudPolicy) -> list[float]:
    """Depths inside permeable zones where the sticking bound P + Δp/(c·D) has its own least value."""
    pore = ground.pore
    if len(pore.tvd_ft) < 2:
        return []
    top, base = pore.tvd_ft[:-1], pore.tvd_ft[1:]
    slope = (pore.above_ppg[1:] - pore.below_ppg[:-1]) / (base - top)
    rising = np.flatnonzero(slope > 0)
    found: list[float] = []
    for zone in ground.model.zones:
        if not zone.permeable:
            continue
        limit = sticking_limit_psi(zone, ground, policy) / PSI_PER_PPG_FT
        first, last = (
            np.searchsorted(base[rising], zone.top_tvd_ft, "right"),
            np.searchsorted(top[rising], zone.base_tvd_ft),
        )
        spans = rising[first:last]
        depths = np.sqrt(limit / slope[spans])
        low, high = np.maximum(top[spans], zone.top_tvd_ft), np.minimum(base[spans], zone.base_tvd_ft)
        found += depths[(low < depths) & (depths < high)].tolist()
    return found


@remembered(16)
def build_window(ground: Ground, policy: MudPolicy, deepest_tvd_ft: float) -> Window:
    """The window of a ground under a policy, with every depth at which an extreme can lie."""
    depths = np.unique(np.append(ground.breakpoints(deepest_tvd_ft), _stationary_depths(ground, policy)))
    bare = Window(ground, policy, depths, depths, depths)
    return Window(ground, policy, depths, bare.lower_at(depths), bare.upper_at(depths))


def planned_mud_ppg(lower_ppg: float, upper_ppg: float) -> float:
    """Planned weight: the lower bound rounded up to 0.1 ppg, unless that exceeds the upper bound."""
    rounded = math.ceil(round(lower_ppg * 10, 6)) / 10
    return rounded if rounded <= upper_ppg else lower_ppg
