"""The best run of sections: least cost or weight, every load stood at every depth, at most n sections.

All that a depth asks of a pipe there is an interval for one number, the weight below (pipe and the mud in it):
tension bounds it from above, collapse under tension too, triaxial and compression from both sides. So sections are
joined from the shoe up, carrying cost and weight; a partial string is dropped only where another costs no more and
stands wherever it would. The optimum is therefore exact on the nodes; tests compare it with every combination.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.ratings import HIGHEST_STRESS_SHARE, equivalent_external_pressure, pipe_collapse
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.formulas import areas_in2, bending_force
from knollstack.core.pipe.frame import Frame
from knollstack.core.pipe.strength import LEAST_YIELD_PSI, Rack, added_force, rack, triaxial_wall, weight_per_ft

Floats = NDArray[np.float64]
BISECTIONS = 34
CELLS_A_UNIT, LABELS_A_UNIT = 4_000, 20
"""Pipes times nodes, and partial strings made, that cost about as much as looking at one partial string."""


@dataclass(frozen=True)
class Bounds:
    """Least and greatest weight below [lbf] with which each pipe stands at each node: pipe × node. Empty is lo > hi."""

    least_lbf: Floats
    greatest_lbf: Floats


def _yield_needed(od_in: float, worn_in: Floats, needed_psi: Floats, most_psi: float) -> Floats:
    """Yield strength [psi] at which collapse just meets pressures, wall × …; infinite where the highest does not."""
    od = np.full(needed_psi.shape, od_in)
    wall = np.broadcast_to(worn_in.reshape(-1, *[1] * (needed_psi.ndim - 1)), needed_psi.shape)
    low, high = np.full(needed_psi.shape, LEAST_YIELD_PSI), np.full(needed_psi.shape, most_psi)
    fails = np.asarray(pipe_collapse(od, wall, high)) < needed_psi
    for _ in range(BISECTIONS):
        middle = (low + high) / 2
        enough = np.asarray(pipe_collapse(od, wall, middle)) >= needed_psi
        low, high = np.where(enough, low, middle), np.where(enough, middle, high)
    return np.asarray(np.where(fails, np.inf, high))


def _collapse_limit(frame: Frame, pipes: Rack, steel: Floats) -> Floats:
    """Greatest axial force [lbf] at which collapse stands each case; infinite without an external load."""
    od, keys = float(pipes.od_in[0, 0, 0]), np.stack([pipes.worn_in[:, 0, 0], pipes.collapse_scale[:, 0, 0]], axis=1)
    kinds, kind_of = np.unique(keys, axis=0, return_inverse=True)
    worn, scale = kinds[:, :1, None], kinds[:, 1:, None]
    crush = np.asarray(equivalent_external_pressure(frame.outside_psi[None], frame.inside_psi[None], od, worn))
    needed = crush * frame.collapse_required[None] / scale
    # only where the outside wins; the same wall serves every grade and connection
    columns = np.any(needed > 0, axis=0)
    asked = np.full(needed.shape, 0.0)
    if np.any(columns):
        asked[:, columns] = _yield_needed(od, worn[:, 0, 0], needed[:, columns], float(pipes.yield_psi.max()))
    loaded, wanted = (needed > 0)[kind_of.ravel()], asked[kind_of.ravel()]
    yields = pipes.yield_psi * frame.yield_share
    ratio = wanted / yields
    clipped = np.clip(ratio, 0.0, 1.0)
    share = np.minimum((np.sqrt(4 - 3 * clipped**2) - clipped) / 2, HIGHEST_STRESS_SHARE)
    limit = np.where(ratio > 1 + 1e-12, -np.inf, share * yields * steel)
    return np.asarray(np.where(loaded, limit, np.inf))


def _triaxial_limits(policy: PipePolicy, frame: Frame, pipes: Rack, steel: Floats) -> tuple[Floats, Floats]:
    """Axial force [lbf] between which the von Mises stress stays under the allowed, both walls and sides of a bend."""
    wall = triaxial_wall(policy, pipes)
    outer, inner = pipes.od_in / 2, pipes.od_in / 2 - wall
    area = areas_in2(pipes.od_in, wall)[2]
    allowed = pipes.yield_psi * frame.yield_share / policy.factors.triaxial
    inside, outside = frame.inside_psi[None], frame.outside_psi[None]
    mean = (inside * inner**2 - outside * outer**2) / (outer**2 - inner**2)
    low: Floats = np.array(-np.inf)
    high: Floats = np.array(np.inf)
    for radius in (inner, outer):
        swing = (inside - outside) * inner**2 * outer**2 / ((outer**2 - inner**2) * radius**2)
        half = allowed**2 - 3 * swing**2
        bend = 218 * 2 * radius * frame.dogleg_deg_100ft
        reach = np.where(half >= 0, np.sqrt(np.maximum(half, 0.0)) - bend, -np.inf)
        low, high = np.maximum(low, mean - reach), np.minimum(high, mean + reach)
    return np.asarray(low * area), np.asarray(high * area)


@sweeping()
def bounds(policy: PipePolicy, frame: Frame, pipes: Sequence[Pipe]) -> Bounds:
    """What every pipe may carry at every node."""
    side, factors = rack(pipes, frame.string.own.wear_percent), policy.factors
    added, steel = added_force(frame, side), np.asarray(areas_in2(side.od_in, side.wall_in)[2])
    bending = np.asarray(bending_force(side.od_in, frame.dogleg_deg_100ft, steel))
    low, high = _triaxial_limits(policy, frame, side, steel)
    high = np.minimum(high, side.pull_lbf * frame.yield_share / factors.tension - bending)
    high = np.minimum(high, _collapse_limit(frame, side, steel))
    low = np.maximum(low, bending - side.push_lbf * frame.yield_share / factors.compression)
    burst = np.broadcast_to(frame.inside_psi - frame.outside_psi, high.shape)
    stands = ~(burst > 0) | (side.internal_psi * frame.yield_share >= burst * factors.burst - 1e-9)
    greatest = np.where(stands, np.nan_to_num(high - added, nan=-np.inf), -np.inf)
    return Bounds(np.max(low - added, axis=1), np.min(greatest, axis=1))


@dataclass(frozen=True)
class Leg:
    """One section of a found string, by nodes, top to bottom."""

    pipe: int
    top: int
    bottom: int


@dataclass(frozen=True)
class _Label:
    cost: float
    below: float
    node: int
    used: int
    leg: Leg | None
    parent: _Label | None

    def taken(self, pipe: int, md_ft: Floats) -> float:
        """Length [ft] of a pipe in the sections so far."""
        return sum(float(md_ft[leg.bottom] - md_ft[leg.top]) for leg in self.legs() if leg.pipe == pipe)

    def legs(self) -> list[Leg]:
        found: list[Leg] = []
        label: _Label | None = self
        while label is not None and label.leg is not None:
            found.append(label.leg)
            label = label.parent
        return found


class Search:
    """Sections joined from the shoe up, for one string and one list of pipes."""

    def __init__(
        self,
        policy: PipePolicy,
        frame: Frame,
        pipes: Sequence[Pipe],
        most: int,
        least_ft: float,
        barred: NDArray[np.bool_] | None = None,
        effort: float = np.inf,
    ) -> None:
        self.frame, self.pipes, self.most, self.least_ft = frame, pipes, most, least_ft
        self.left, self.cut = effort, False
        side = rack(pipes, frame.string.own.wear_percent)
        self.per_ft = weight_per_ft(frame, side)[:, 0, 0]
        self.price = np.array([p.weight_ppf if policy.least == "weight" else p.cost_per_ft for p in pipes])
        self.stock = np.array([np.inf if p.available_ft is None else p.available_ft for p in pipes])
        self.limited = np.flatnonzero(np.isfinite(self.stock)).tolist()
        found = bounds(policy, frame, pipes)
        depth = frame.below_tvd_ft
        # bounds on the weight at the shoe end of a pipe that began there: its own weight since then taken off
        self.low = found.least_lbf - self.per_ft[:, None] * depth
        self.high = found.greatest_lbf - self.per_ft[:, None] * depth
        if barred is not None:
            self.high[barred] = -np.inf
        self.cheapest_above = self._cheapest_above()

    def _cheapest_above(self) -> Floats:
        """Least cost from each node to the top, of pipes that stand there with some weight: a bound from below."""
        md = self.frame.md_ft
        fits = self.low <= self.high
        price = np.where(fits, self.price[:, None], np.inf).min(axis=0)
        spans = np.maximum(price[:-1], price[1:]) * np.diff(md)
        return np.concatenate([[0.0], np.cumsum(spans)])

    def _extend(self, label: _Label, bound: float) -> list[_Label]:
        """Every pipe and every top that a section from a label's node can have."""
        self.left -= 1 + (label.node + 1) * len(self.pipes) / CELLS_A_UNIT
        k, md = label.node, self.frame.md_ft
        offset = label.below - self.per_ft * self.frame.below_tvd_ft[k]
        inside = (offset[:, None] >= self.low[:, k::-1] - 1e-6) & (offset[:, None] <= self.high[:, k::-1] + 1e-6)
        reach = np.logical_and.accumulate(inside, axis=1)
        tops = np.arange(k, -1, -1)
        length = md[k] - md[tops]
        cost = label.cost + self.price[:, None] * length[None, :]
        left = self.stock.copy()
        for p in self.limited:
            left[p] -= label.taken(p, md)
        ok = reach & (length >= self.least_ft - 1e-6) & (length <= left[:, None] + 1e-6)
        if label.leg is None:  # a string shorter than a section may be whole
            ok[:, -1:] |= reach[:, -1:] & (length[-1] <= left + 1e-6)[:, None]
        else:
            ok[label.leg.pipe] = False
        whole = np.where(ok[:, -1], cost[:, -1], np.inf)
        bound = min(bound, float(whole.min()))
        ok &= cost + self.cheapest_above[tops] <= bound + 1e-9
        if label.used + 1 == self.most:
            ok[:, :-1] = False
        below = label.below + self.per_ft[:, None] * (self.frame.below_tvd_ft[tops] - self.frame.below_tvd_ft[k])
        self.left -= np.count_nonzero(ok) / LABELS_A_UNIT
        return [
            _Label(
                float(cost[p, j]), float(below[p, j]), int(tops[j]), label.used + 1, Leg(int(p), int(tops[j]), k), label
            )
            for p, j in zip(*np.nonzero(ok), strict=True)
        ]

    def best(self) -> list[Leg] | None:
        """The cheapest string, top to bottom; None where none stands.

        A first pass holds that less weight below never hurts, which is nearly so, and gives a good string; the second
        is exact and only looks at what could be cheaper. `cut` tells that the work was not enough for it: then what was
        found before is given.
        """
        good = self._pass(np.inf, np.full(len(self.frame.md_ft), -np.inf))
        bound = good.cost if good is not None else np.inf
        found = self._pass(bound, self._least_ever()) or good
        return None if found is None else found.legs()

    def _least_ever(self) -> Floats:
        """Weight at each node from which on less never hurts: the most that anything above could ask for at least."""
        depth = self.frame.below_tvd_ft
        least = np.where(self.low <= self.high, self.low + self.per_ft[:, None] * depth, -np.inf).max(axis=0)
        return np.asarray(np.maximum.accumulate(least))

    def _pass(self, bound: float, floor_lbf: Floats) -> _Label | None:
        nodes = len(self.frame.md_ft)
        waiting: dict[int, list[_Label]] = {nodes - 1: [_Label(0.0, 0.0, nodes - 1, 0, None, None)]}
        best: _Label | None = None
        for k in range(nodes - 1, 0, -1):
            for label in self._undominated(waiting.pop(k, []), float(floor_lbf[k])):
                if label.cost + self.cheapest_above[k] > bound + 1e-9:
                    continue
                if self.left < 0:
                    self.cut = True
                    return best
                for found in self._extend(label, bound):
                    if found.node:
                        waiting.setdefault(found.node, []).append(found)
                    elif best is None or found.cost < best.cost - 1e-9:
                        best, bound = found, min(bound, found.cost)
        return best

    def _undominated(self, labels: list[_Label], floor_lbf: float) -> list[_Label]:
        """Labels that no other makes needless: one that costs no more, with no more sections and no more weight."""
        kept: list[_Label] = []
        for label in sorted(labels, key=lambda x: (x.cost, x.below, x.used)):
            if not any(self._makes_needless(other, label, floor_lbf) for other in kept):
                kept.append(label)
        return kept

    def _makes_needless(self, other: _Label, label: _Label, floor_lbf: float) -> bool:
        if other.used > label.used or other.below > label.below + 1e-9:
            return False
        if other.below < floor_lbf and other.below != label.below:
            return False
        md = self.frame.md_ft
        if any(other.taken(p, md) > label.taken(p, md) + 1e-6 for p in self.limited):
            return False
        # a limited pipe cannot be drawn out in place of the one that would follow it
        return (
            other.leg is None
            or label.leg is None
            or other.leg.pipe == label.leg.pipe
            or (np.isinf(self.stock[other.leg.pipe]))
        )
