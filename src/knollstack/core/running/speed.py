"""How fast a string may be run: the speed at which closed pipe brings the mud to what the weakest rock stands, less the
margin of policy; how long the run takes; and what breaks the gels after it.

Friction counts along hole from the shoe up, in casing and in open hole; rock below the shoe sees it whole.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.mud.formulas import circulating_density, trip_velocity
from knollstack.core.mud.friction import Friction, friction_of
from knollstack.core.running.fill import planned
from knollstack.core.running.formulas import gel_pressure
from knollstack.core.running.run import Run

Floats = NDArray[np.float64]
NODE_FT = 100.0
Gradient = Callable[[float, float], Floats]
"""Loss per foot [psi] in an annulus of an outer and an inner diameter, for each depth of the shoe."""


@dataclass(frozen=True, eq=False)
class Rock:
    """Rock of the open hole: measured depths, and how much friction [psi] each bears over its mud at rest."""

    md_ft: Floats
    room_psi: Floats


@dataclass(frozen=True, eq=False)
class Speeds:
    """Greatest speeds [ft/min, whole] by depth of the shoe, 0 where none is slow enough, and the rock that limits each."""

    shoe_md_ft: Floats
    ft_min: Floats
    limit_md_ft: Floats
    limited: NDArray[np.bool_]

    @cached_property
    def slowest(self) -> int:
        return int(np.argmin(self.ft_min))

    def at(self, shoe_md_ft: Floats) -> Floats:
        """Between two depths the lesser of their speeds."""
        k = np.minimum(np.searchsorted(self.shoe_md_ft, shoe_md_ft), len(self.shoe_md_ft) - 1)
        return np.minimum(self.ft_min[k], self.ft_min[np.maximum(k - 1, 0)])


@remembered(32)
def rock_of(run: Run) -> Rock | None:
    """Fracture less margin and mud at each node; None where it is not known over the whole open hole."""
    well, top, bottom = run.well, run.string.previous_shoe_md_ft, run.string.shoe_md_ft
    marks = np.concatenate(
        [
            well.path.md_at(well.window.depths_ft),
            well.path.marks_md_ft,
            np.arange(top, bottom, NODE_FT),
            run.depths_md_ft,  # friction grows no more below the shoe
        ]
    )
    nodes = np.unique(np.concatenate([[top, bottom], marks[(marks > top) & (marks < bottom)]]))
    tvd = well.path.tvd_at(nodes)
    fracture = well.ground.fracture.lower_at(tvd)
    if np.any(np.isnan(fracture)):
        return None
    spare = fracture - well.policy.mud.fracture_margin_ppg - run.mud_ppg
    return Rock(nodes, np.asarray(PSI_PER_PPG_FT * tvd * spare))


Annulus = tuple[float, float, Floats]
"""Outer and inner diameter of an annulus, and its length [ft]: depth of the shoe × depth."""


def _annuli(run: Run, shoes: Floats, to_md_ft: Floats) -> list[Annulus]:
    """Every annulus beside the string from the top down to depths, no deeper than the shoe."""
    found = []
    for leg in run.legs:
        high, low = (shoes - leg.high_ft)[:, None], (shoes - leg.low_ft)[:, None]
        reached = np.minimum(to_md_ft, low)
        for top, base, bore in run.outers:
            length = np.maximum(np.minimum(reached, base) - np.maximum(high, top), 0.0)
            if length.any():
                found.append((bore, leg.od_in, length))
    return found


def _lost(annuli: list[Annulus], gradient: Gradient) -> Floats:
    """Friction [psi] along all of them: depth of the shoe × depth."""
    total = np.zeros((1, 1))
    for outer, inner, length in annuli:
        total = total + np.asarray(gradient(outer, inner)).reshape(-1, 1) * length
    return total


@sweeping()
def _fastest(run: Run, rock: Rock, friction: Friction) -> Speeds:
    """Whole speeds by bisection, all depths of the shoe at once: friction grows with speed."""
    shoes, most = run.depths_md_ft, int(run.well.policy.running.speed_ft_min)
    annuli = _annuli(run, shoes, rock.md_ft)

    def left(ft_min: Floats) -> Floats:
        def gradient(outer: float, inner: float) -> Floats:
            return np.asarray(friction.along(trip_velocity(ft_min / 60, outer, inner), outer, inner))

        return rock.room_psi - _lost(annuli, gradient)

    low, high = np.zeros(len(shoes)), np.full(len(shoes), float(most))
    low = np.where(left(high).min(axis=1) >= -1e-9, high, low)
    while np.any(high - low > 1):
        middle = np.floor((low + high) / 2)
        stands = left(middle).min(axis=1) >= -1e-9
        low, high = np.where(stands, np.maximum(low, middle), low), np.where(stands, high, np.minimum(high, middle))
        high = np.maximum(high, low)
    at = left(np.minimum(low + 1, most))
    return Speeds(shoes, low, rock.md_ft[np.argmin(at, axis=1)], low < most)


@remembered(32)
def speeds(run: Run) -> Speeds | None:
    """The greatest speed at each depth; None where rheology or fracture pressure is not known."""
    rock, friction = rock_of(run), friction_of(run.well, run.string.own, run.mud_ppg)
    return None if rock is None or friction is None else _fastest(run, rock, friction)


def hours(run: Run, found: Speeds) -> float | None:
    """Time of the run [h]: lowering, connections and fills; None where some joint may not be lowered at all."""
    policy, shoes = run.well.policy.running, run.lowered_md_ft
    ft_min = found.at(shoes)
    if np.any(ft_min <= 0):
        return None
    lowering = float(np.sum(np.diff(shoes, prepend=0.0) / ft_min))
    filled = planned(run)
    fills = len(filled.shoe_md_ft) if np.any(filled.empty_md_ft > 0) else 0
    return (lowering + len(shoes) * policy.connection_minutes + fills * policy.fill_minutes) / 60


@dataclass(frozen=True)
class Surge:
    """The slowest place of the run and the equivalent density that it makes at the rock that limits it."""

    ft_min: float
    shoe_md_ft: float
    limit_md_ft: float
    emw_ppg: float
    fracture_ppg: float
    limited: bool


def slowest(run: Run, found: Speeds) -> Surge:
    k = found.slowest
    shoe, at, ft_min = float(found.shoe_md_ft[k]), float(found.limit_md_ft[k]), float(found.ft_min[k])
    tvd = run.well.path.tvd(at)
    with headline(f"running/{run.string.index}/surge"):
        friction = friction_of(run.well, run.string.own, run.mud_ppg)
        assert friction is not None

        def gradient(outer: float, inner: float) -> Floats:
            return np.array([friction.psi_ft(trip_velocity(ft_min / 60, outer, inner), outer, inner)])

        lost = float(_lost(_annuli(run, np.array([shoe]), np.array([at])), gradient)[0, 0])
        density = float(circulating_density(run.mud_ppg, lost, tvd))
    fracture = float(run.well.ground.fracture.lower_at(tvd))
    return Surge(ft_min, shoe, at, density, fracture, bool(found.limited[k]))


@dataclass(frozen=True)
class Breaking:
    """Breaking circulation at the end of the run: pressure at the bottom, and where rock is nearest to breaking."""

    bottom_psi: float
    at_md_ft: float
    emw_ppg: float
    fracture_ppg: float | None


def breaking(run: Run) -> Breaking:
    own = run.string.own.running.gel_lb_100ft2
    gel = own if own is not None else run.well.policy.running.gel_lb_100ft2
    shoe = np.array([run.tally.shoe_md_ft])

    def gradient(outer: float, inner: float) -> Floats:
        return np.array([float(gel_pressure(gel, 1.0, outer, inner))])

    with headline(f"running/{run.string.index}/breaking"):
        rock = rock_of(run)
        depths = shoe if rock is None else np.append(rock.md_ft, shoe)
        lost = np.broadcast_to(_lost(_annuli(run, shoe, depths), gradient)[0], depths.shape)
        bottom, k = float(lost[-1]), -1 if rock is None else int(np.argmin(rock.room_psi - lost[:-1]))
        at, there = float(depths[k]), float(lost[k])
        tvd = run.well.path.tvd(at)
        density = float(circulating_density(run.mud_ppg, there, tvd))
    return Breaking(bottom, at, density, None if rock is None else float(run.well.ground.fracture.lower_at(tvd)))
