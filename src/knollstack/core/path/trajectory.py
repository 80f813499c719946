"""The well path: survey stations to TVD, and back.

Minimum curvature between stations, as in API Bulletin D20 and the usual directional texts. Between two
stations the path is a circular arc, and interpolation stays on that arc.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import Value
from knollstack.core.base.remember import remembered
from knollstack.core.document.design import Trajectory
from knollstack.core.path.formulas import STRAIGHT_RAD, minimum_curvature

Floats = NDArray[np.float64]
KNOT_FT = 30.0


MOST_KEPT = 10_000


class DepthError(ValueError):
    """A depth that the well does not reach."""


@dataclass(frozen=True, eq=False)
class Path:
    """The path through the stations, exact on the arc between any two of them.

    `tvd_at` and `md_at` take floats or arrays. `down`, `north`, `east` are the components of the direction at the
    stations. Knots are the stations, and points along arcs from which the inverse starts.
    """

    md_ft: Floats
    tvd_ft: Floats
    north_ft: Floats
    east_ft: Floats
    dogleg_deg_100ft: Floats
    bend_rad: Floats
    down: Floats
    north: Floats
    east: Floats
    knots_md_ft: Floats
    knots_tvd_ft: Floats

    @property
    def total_md_ft(self) -> float:
        return float(self.md_ft[-1])

    @property
    def total_tvd_ft(self) -> float:
        return float(self.tvd_ft[-1])

    @cached_property
    def is_straight(self) -> bool:
        return not np.any(self.bend_rad > STRAIGHT_RAD)

    def tvd_at(self, md_ft: Value) -> Floats:
        """TVD [ft] at measured depths [ft]."""
        if self.is_straight:
            return np.asarray(np.interp(md_ft, self.knots_md_ft, self.knots_tvd_ft))
        return self._on_arc(np.clip(md_ft, 0.0, self.total_md_ft))[0]

    def _leg(self, md_ft: Floats) -> tuple[NDArray[np.intp], Floats, Floats, Floats]:
        """The leg of depths inside the well, their share of it, its length and its bend."""
        leg = np.clip(np.searchsorted(self.md_ft, md_ft, side="right") - 1, 0, len(self.md_ft) - 2)
        length = self.md_ft[leg + 1] - self.md_ft[leg]
        return leg, (md_ft - self.md_ft[leg]) / length, length, np.maximum(self.bend_rad[leg], 1e-12)

    def _along(self, md_ft: Floats, start: Floats, direction: Floats) -> Floats:
        """One coordinate at depths inside the well, from its values and directions at the stations."""
        leg, share, length, bend = self._leg(md_ft)
        sine = np.sin(bend)
        # the integrals of the turning direction, written without differences of near-equal cosines
        first = 2 * np.sin(bend * (1 - share / 2)) * np.sin(bend * share / 2) / (bend * sine)
        second = 2 * np.sin(bend * share / 2) ** 2 / (bend * sine)
        bent = first * direction[leg] + second * direction[leg + 1]
        return np.asarray(start[leg] + length * np.where(bend > STRAIGHT_RAD, bent, share * direction[leg]))

    def _on_arc(self, md_ft: Floats) -> tuple[Floats, Floats]:
        """TVD, and its slope per foot along hole, at depths inside the well."""
        leg, share, _, bend = self._leg(md_ft)
        sine = np.sin(bend)
        slope = (np.sin(bend * (1 - share)) * self.down[leg] + np.sin(bend * share) * self.down[leg + 1]) / sine
        tvd = self._along(md_ft, self.tvd_ft, self.down)
        return tvd, np.asarray(np.where(bend > STRAIGHT_RAD, slope, self.down[leg]))

    def plan_at(self, md_ft: Value) -> tuple[Floats, Floats]:
        """North and east [ft] of the wellhead at measured depths [ft]."""
        inside = np.clip(np.asarray(md_ft, dtype=float), 0.0, self.total_md_ft)
        return self._along(inside, self.north_ft, self.north), self._along(inside, self.east_ft, self.east)

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

    @cached_property
    def _inverse(self) -> tuple[Floats, Floats]:
        """TVD of every knot that goes deeper than all before it, and its measured depth: where the inverse starts."""
        deepest = np.maximum.accumulate(self.knots_tvd_ft)
        first = np.concatenate([[True], np.diff(deepest) > 0])
        return deepest[first], self.knots_md_ft[first]

    @property
    def deepest_tvd_ft(self) -> float:
        """The deepest point of the well: a path may climb again before its end."""
        return float(self._inverse[0][-1])

    def md_at(self, tvd_ft: Value) -> Floats:
        """Measured depths [ft] at the first crossing of TVDs [ft], clipped to the well."""
        depths, first_md = self._inverse
        md = np.asarray(np.interp(tvd_ft, depths, first_md))
        if self.is_straight:
            return md
        wanted = np.clip(tvd_ft, 0.0, depths[-1])
        for _ in range(3):  # Newton on the arc, from within a knot's spacing
            tvd, slope = self._on_arc(md)
            md = np.where(slope > 1e-3, np.clip(md + (wanted - tvd) / np.maximum(slope, 1e-3), 0, self.total_md_ft), md)
        return np.asarray(md)

    def md(self, tvd_ft: float) -> float:
        """Measured depth [ft] at the first crossing of a TVD [ft]; raises DepthError beyond the well."""
        deepest = self.deepest_tvd_ft
        if tvd_ft < 0 or tvd_ft > deepest + 1e-3:
            raise DepthError(f"the well does not reach {tvd_ft:,.0f} ft TVD; its deepest point is {deepest:,.0f} ft")
        return float(self.md_at(tvd_ft))


def build_path(stations: list[tuple[float, float, float]]) -> Path:
    """Path from (MD ft, inclination °, azimuth °) stations in increasing MD, the first at 0."""
    md, inclination, azimuth = np.array(stations, dtype=float).T
    legs = minimum_curvature(md[:-1], inclination[:-1], azimuth[:-1], md[1:], inclination[1:], azimuth[1:])
    steps = {key: np.atleast_1d(values) for key, values in legs.items()}
    tvd, north, east = (np.concatenate([[0.0], np.cumsum(steps[key])]) for key in ("tvd_ft", "north_ft", "east_ft"))
    doglegs = steps["dogleg_deg_100ft"]
    lean, turn = np.radians(inclination), np.radians(azimuth)
    bare = Path(
        md_ft=md,
        tvd_ft=tvd,
        north_ft=north,
        east_ft=east,
        dogleg_deg_100ft=np.concatenate([[0.0], doglegs]),
        bend_rad=np.radians(doglegs) * np.diff(md) / 100,
        down=np.cos(lean),
        north=np.sin(lean) * np.cos(turn),
        east=np.sin(lean) * np.sin(turn),
        knots_md_ft=md,
        knots_tvd_ft=tvd,
    )
    if bare.is_straight:
        return bare
    knots = np.unique(np.concatenate([md, *(np.linspace(a, b, int((b - a) / KNOT_FT) + 2) for a, b in pairwise(md))]))
    knots = np.unique(np.append(knots, _turning_points(bare, knots)))
    return replace(bare, knots_md_ft=knots, knots_tvd_ft=bare.tvd_at(knots))


@remembered(16)
def path_of(trajectory: Trajectory) -> Path:
    """The path of a document's stations, made once."""
    return build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in trajectory.stations])


def _turning_points(path: Path, knots: Floats) -> Floats:
    """Depths at which the path turns from going down to climbing: its deepest points must be knots."""
    low, high = knots[:-1], knots[1:]
    turns = (path._on_arc(low)[1] > 0) & (path._on_arc(high)[1] < 0)
    low, high = low[turns], high[turns]
    for _ in range(40):
        middle = (low + high) / 2
        down = path._on_arc(middle)[1] > 0
        low, high = np.where(down, middle, low), np.where(down, high, middle)
    return low
