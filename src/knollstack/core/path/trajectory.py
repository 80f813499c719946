"""The well path: survey stations to TVD, and back.

Minimum curvature between stations, as in API Bulletin D20 and the usual directional texts. Between two
stations the path is a circular arc: with u the angle turned since the station above, each component of the direction is
a·cos u + c·sin u, so a coordinate is start + R·(a·sin u + c·(1 − cos u)), and its inverse is closed too.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import Value
from knollstack.core.base.remember import remembered
from knollstack.core.document.design import Trajectory
from knollstack.core.path.formulas import STRAIGHT_RAD, minimum_curvature

Floats = NDArray[np.float64]
KNOT_FT, MARK_FT = 30.0, 100.0
LEAST_BEND_RAD = 1e-12
"""A straight leg counts as one bent by so little: the same equations then hold for every leg."""
MOST_KEPT = 10_000


class DepthError(ValueError):
    """A depth that the well does not reach."""


@dataclass(frozen=True, eq=False)
class Along:
    """One coordinate along the legs: its value at each leg's start, and its direction as a·cos u + c·sin u."""

    start: Floats
    cosine: Floats
    sine: Floats

    def at(self, leg: NDArray[np.intp], turned: Floats, radius: Floats) -> Floats:
        half = np.sin(turned / 2)
        return np.asarray(
            self.start[leg] + radius[leg] * (self.cosine[leg] * np.sin(turned) + self.sine[leg] * 2 * half * half)
        )


@dataclass(frozen=True, eq=False)
class Path:
    """The path through the stations, exact on the arc between any two of them.

    `tvd_at` and `md_at` take floats or arrays. Knots are the stations and points along the arcs, for drawing.
    """

    md_ft: Floats
    tvd_ft: Floats
    north_ft: Floats
    east_ft: Floats
    dogleg_deg_100ft: Floats
    down: Floats
    radius_ft: Floats
    """Radius of each leg's arc."""
    along_down: Along
    along_north: Along
    along_east: Along

    @property
    def total_md_ft(self) -> float:
        return float(self.md_ft[-1])

    @property
    def total_tvd_ft(self) -> float:
        return float(self.tvd_ft[-1])

    @property
    def deepest_tvd_ft(self) -> float:
        """The deepest point of the well: a path may climb again before its end."""
        return float(self._nodes[2][-1])

    def _turned(self, md_ft: Value) -> tuple[NDArray[np.intp], Floats]:
        """The leg of depths, clipped to the well, and the angle turned on it."""
        md = np.minimum(np.maximum(md_ft, 0.0), self.md_ft[-1])
        leg = np.minimum(np.searchsorted(self.md_ft, md, side="right") - 1, len(self.radius_ft) - 1)
        return leg, (md - self.md_ft[leg]) / self.radius_ft[leg]

    @cached_property
    def is_straight(self) -> bool:
        return not np.any(self.dogleg_deg_100ft > 0)

    def tvd_at(self, md_ft: Value) -> Floats:
        """TVD [ft] at measured depths [ft]."""
        if self.is_straight:  # exact to the last digit where MD is TVD
            return np.asarray(np.interp(md_ft, self.md_ft, self.tvd_ft))
        return self.along_down.at(*self._turned(md_ft), self.radius_ft)

    def plan_at(self, md_ft: Value) -> tuple[Floats, Floats]:
        """North and east [ft] of the wellhead at measured depths [ft]."""
        leg, turned = self._turned(md_ft)
        return self.along_north.at(leg, turned, self.radius_ft), self.along_east.at(leg, turned, self.radius_ft)

    def heading_at(self, md_ft: Value) -> tuple[Floats, Floats, Floats]:
        """Direction down, north and east, as a unit vector, at measured depths [ft]."""
        leg, turned = self._turned(md_ft)
        cosine, sine = np.cos(turned), np.sin(turned)
        down, north, east = (
            a.cosine[leg] * cosine + a.sine[leg] * sine for a in (self.along_down, self.along_north, self.along_east)
        )
        return down, north, east

    def direction_at(self, md_ft: Value) -> tuple[Floats, Floats]:
        """Inclination and azimuth [°] at measured depths [ft]."""
        down, north, east = self.heading_at(md_ft)
        azimuth = np.degrees(np.arctan2(east, north)) % 360
        return np.degrees(np.arctan2(np.hypot(north, east), down)), azimuth

    @cached_property
    def section_azimuth_deg(self) -> float:
        """Azimuth [°] of the vertical section: from the wellhead to where the path goes farthest."""
        k = int(np.argmax(np.hypot(self.north_ft, self.east_ft)))
        return float(np.degrees(np.arctan2(self.east_ft[k], self.north_ft[k])) % 360)

    def departure_at(self, md_ft: Value) -> Floats:
        """Departure [ft] along the vertical section at measured depths [ft]."""
        north, east = self.plan_at(md_ft)
        azimuth = np.radians(self.section_azimuth_deg)
        return np.asarray(north * np.cos(azimuth) + east * np.sin(azimuth))

    @cached_property
    def _known_tvd(self) -> dict[float, float]:
        return {}

    def tvd(self, md_ft: float) -> float:
        """TVD [ft] at one measured depth [ft]; kept, since the same shoes and tops are asked for many times."""
        known = self._known_tvd
        if md_ft not in known:
            if len(known) >= MOST_KEPT:
                known.clear()
            known[md_ft] = float(self.tvd_at(md_ft))
        return known[md_ft]

    def span(self, top_md_ft: float, bottom_md_ft: float) -> tuple[float, float]:
        """Least and greatest TVD [ft] between two measured depths: a path may climb again on its way."""
        ends = self.tvd(top_md_ft), self.tvd(bottom_md_ft)
        if self.falls:
            return ends
        inside = (self.knots_md_ft > top_md_ft) & (self.knots_md_ft < bottom_md_ft)
        between = self.knots_tvd_ft[inside]
        return min([*ends, *between]), max([*ends, *between])

    def lows(self, tops_md_ft: Floats, bottom_md_ft: float) -> Floats:
        """Least TVD [ft] from each of some measured depths down to one, as `span` has it."""
        ends = self.tvd_at(tops_md_ft)
        if self.falls:
            return ends
        knots = self.knots_md_ft[self.knots_md_ft < bottom_md_ft]
        between = np.append(self.tvd_at(knots), self.tvd(bottom_md_ft))
        least = np.minimum.accumulate(between[::-1])[::-1]
        return np.asarray(np.minimum(ends, least[np.searchsorted(knots, tops_md_ft, side="right")]))

    @cached_property
    def falls(self) -> bool:
        """The path never climbs: every foot along it is as deep as the one before, or deeper."""
        return bool(np.all(self.down >= 0))

    @cached_property
    def _phase(self) -> tuple[Floats, Floats]:
        """Of the downward direction on each leg, r·cos(u − φ): r and φ."""
        cosine, sine = self.along_down.cosine, self.along_down.sine
        return np.hypot(cosine, sine), np.arctan2(sine, cosine)

    @cached_property
    def _straight(self) -> tuple[NDArray[np.bool_], Floats]:
        """Legs that turn so little that depth grows evenly along them, and how much of each foot it grows."""
        straight = self.radius_ft * LEAST_BEND_RAD > np.diff(self.md_ft) * 1e-4
        return straight, np.maximum(self.along_down.cosine, 1e-12)

    @cached_property
    def _nodes(self) -> tuple[Floats, NDArray[np.intp], Floats]:
        """Measured depths of stations and of the lowest points of arcs, the leg that ends at each, the deepest so far."""
        lowest = self.md_ft[:-1] + self.radius_ft * (self._phase[1] + np.pi / 2)
        turns = (self.along_down.cosine > 0) & (lowest > self.md_ft[:-1]) & (lowest < self.md_ft[1:])
        md = np.sort(np.concatenate([self.md_ft, lowest[turns]]))
        ends = np.maximum(np.searchsorted(self.md_ft, md, side="left") - 1, 0)
        return md, ends, np.maximum.accumulate(self.tvd_at(md))

    def md_at(self, tvd_ft: Value) -> Floats:
        """Measured depths [ft] at the first crossing of TVDs [ft], clipped to the well."""
        if self.is_straight:
            return np.asarray(np.interp(tvd_ft, self.tvd_ft, self.md_ft))
        _, ends, deepest = self._nodes
        z = np.minimum(np.maximum(tvd_ft, 0.0), deepest[-1])
        # the first node as deep as this ends the leg on which the depth is crossed going down
        leg = ends[np.maximum(np.searchsorted(deepest, z, side="left"), 1)]
        amplitude, phase = self._phase
        radius, drop = self.radius_ft[leg], z - self.along_down.start[leg]
        share = (drop / radius - self.along_down.sine[leg]) / amplitude[leg]
        turned = phase[leg] + np.arcsin(np.minimum(np.maximum(share, -1.0), 1.0))
        straight, downward = self._straight
        along = np.where(straight[leg], drop / downward[leg], radius * turned)
        return np.asarray(np.minimum(self.md_ft[leg] + np.maximum(along, 0.0), self.md_ft[leg + 1]))

    def md(self, tvd_ft: float) -> float:
        """Measured depth [ft] at the first crossing of a TVD [ft]; raises DepthError beyond the well."""
        deepest = self.deepest_tvd_ft
        if tvd_ft < 0 or tvd_ft > deepest + 1e-3:
            raise DepthError(f"the well does not reach {tvd_ft:,.0f} ft TVD; its deepest point is {deepest:,.0f} ft")
        known = self._known_md
        if tvd_ft not in known:
            if len(known) >= MOST_KEPT:
                known.clear()
            known[tvd_ft] = float(self.md_at(tvd_ft))
        return known[tvd_ft]

    @cached_property
    def _known_md(self) -> dict[float, float]:
        return {}

    @cached_property
    def knots_md_ft(self) -> Floats:
        """Stations, lowest points, and points along what is bent, close enough to draw straight between."""
        if self.is_straight:
            return self.md_ft
        between = [np.linspace(a, b, int((b - a) / KNOT_FT) + 2) for a, b in pairwise(self.md_ft)]
        return np.unique(np.concatenate([self._nodes[0], *between]))

    @cached_property
    def marks_md_ft(self) -> Floats:
        """Depths between which TVD grows evenly along hole, or all but evenly: stations, and points along each bend."""
        legs = zip(pairwise(self.md_ft), self.dogleg_deg_100ft[1:], strict=True)
        bends = [np.arange(a, b, MARK_FT) for (a, b), dogleg in legs if dogleg > 0]
        return np.unique(np.concatenate([self._nodes[0], *bends]))

    @cached_property
    def knots_tvd_ft(self) -> Floats:
        return self.tvd_at(self.knots_md_ft)


def build_path(stations: list[tuple[float, float, float]]) -> Path:
    """Path from (MD ft, inclination °, azimuth °) stations in increasing MD, the first at 0."""
    md, inclination, azimuth = np.array(stations, dtype=float).T
    legs = minimum_curvature(md[:-1], inclination[:-1], azimuth[:-1], md[1:], inclination[1:], azimuth[1:])
    steps = {key: np.atleast_1d(values) for key, values in legs.items()}
    tvd, north, east = (np.concatenate([[0.0], np.cumsum(steps[key])]) for key in ("tvd_ft", "north_ft", "east_ft"))
    lean, turn = np.radians(inclination), np.radians(azimuth)
    bend = np.radians(steps["dogleg_deg_100ft"]) * np.diff(md) / 100
    bend = np.where(bend > STRAIGHT_RAD, bend, LEAST_BEND_RAD)

    def along(start: Floats, direction: Floats) -> Along:
        a, b = direction[:-1], direction[1:]
        return Along(start[:-1], a, (b - a * np.cos(bend)) / np.sin(bend))

    down, to_north, to_east = np.cos(lean), np.sin(lean) * np.cos(turn), np.sin(lean) * np.sin(turn)
    return Path(
        md_ft=md,
        tvd_ft=tvd,
        north_ft=north,
        east_ft=east,
        dogleg_deg_100ft=np.concatenate([[0.0], steps["dogleg_deg_100ft"]]),
        down=down,
        radius_ft=np.diff(md) / bend,
        along_down=along(tvd, down),
        along_north=along(north, to_north),
        along_east=along(east, to_east),
    )


@remembered(16)
def path_of(trajectory: Trajectory) -> Path:
    """The path of a document's stations, made once."""
    return build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in trajectory.stations])
