"""Where a column of fluid and the rock around it can come nearest: every depth at which their difference can turn.

A profile is linear in equivalent mud weight, so its pressure is a quadratic of depth between two of its points; a
column of fluid is linear in depth between its own marks. Their difference q is a quadratic between two nodes, and
three depths inside give it whole. As a pressure it turns where q' = 0; as an equivalent weight, q over the depth below
a datum, where (q/u)' = 0, at u = √(c/a) for q = a·u² + b·u + c.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Worst:
    """Where a difference is greatest, the side of that depth (-1 just above, 1 just below), and its value there."""

    depth_ft: float
    side: int
    value: float


@dataclass(frozen=True, eq=False)
class Spans:
    """A difference between each two nodes as c₀ + c₁·s + c₂·s², s from -1 at the upper node to 1 at the lower."""

    nodes_ft: Floats
    terms: Floats

    def plus(self, other: Spans, times: float = 1.0) -> Spans:
        """The sum with so many times another over the same spans."""
        return Spans(self.nodes_ft, self.terms + times * other.terms)

    def _turn(self) -> Floats:
        _, slope, curve = self.terms
        return np.divide(-0.5 * slope, curve, out=np.full(curve.shape, np.nan), where=curve != 0)

    def _depth(self, s: Floats) -> Floats:
        low, high = self.nodes_ft[:-1], self.nodes_ft[1:]
        return np.asarray((low + high) / 2 + (high - low) / 2 * s)

    def turns(self) -> Floats:
        """Depths between the nodes at which the difference turns."""
        s = self._turn()
        return self._depth(s)[np.abs(s) < 1]

    def turns_over(self, datum_ft: float) -> Floats:
        """Depths between the nodes at which the difference over the depth below a datum turns: u = √(c/a) there."""
        low, high = self.nodes_ft[:-1], self.nodes_ft[1:]
        half, under = (high - low) / 2, (low + high) / 2 - datum_ft
        value, slope, curve = self.terms
        # with s = (u − under)/half; both sides times half², since a hole along a level has spans of no length
        squared = np.divide(
            value * half**2 - slope * half * under + curve * under**2,
            curve,
            out=np.full(half.shape, -1.0),
            where=curve != 0,
        )
        found = datum_ft + np.sqrt(np.maximum(squared, 0.0))
        return found[(squared > 0) & (found > low) & (found < high)]

    @cached_property
    def _greatest(self) -> Floats:
        """Of each span: just below its upper node, where it turns, just above its lower node."""
        value, slope, curve = self.terms
        s, ends = self._turn(), value + curve
        return np.array([ends - slope, np.where(np.abs(s) < 1, value + (slope + curve * s) * s, -np.inf), ends + slope])

    def worst(self, between_ft: tuple[float, float] | None = None) -> Worst | None:
        """Where the difference is greatest, each side of a step by itself, also between two of the nodes; None where it
        is unknown there. Overbalance and losses are worst at the side of a step where the rock holds less pressure.
        """
        first, last = (0, None) if between_ft is None else np.searchsorted(self.nodes_ft, between_ft).tolist()
        values = self._greatest[:, first:last]
        kind, k = divmod(int(np.argmax(values)), values.shape[1])  # NaN where any is
        value = float(values[kind, k])
        if math.isnan(value):
            return None
        k += first
        depth = self._depth(self._turn())[k] if kind == 1 else self.nodes_ft[k + kind // 2]
        return Worst(float(depth), (1, 1, -1)[kind], value)


def inside_of(nodes_ft: Floats) -> Floats:
    """Three depths inside each span, one after another: what a quadratic is known by, with no step crossed."""
    low, reach = nodes_ft[:-1], (nodes_ft[1:] - nodes_ft[:-1]) / 4
    return np.concatenate([low + reach, low + 2 * reach, low + 3 * reach])


def spans_through(nodes_ft: Floats, values: Floats) -> Spans:
    """The spans of something that is quadratic between nodes, by its values at the depths inside of them."""
    before, at, after = values.reshape(3, -1)
    return Spans(nodes_ft, np.array([at, after - before, 2 * (before - 2 * at + after)]))


def spans_of(difference: Callable[[Floats], Floats], nodes_ft: Floats) -> Spans:
    return spans_through(nodes_ft, difference(inside_of(nodes_ft)))


def nodes_between(well: Well, low_tvd_ft: float, high_tvd_ft: float, marks_tvd_ft: tuple[float, ...] = ()) -> Floats:
    """TVDs from one to another between which nothing of the rock, nor any mark of a column, changes its course."""
    nodes = well.window.depths_ft
    first, last = np.searchsorted(nodes, low_tvd_ft, side="right"), np.searchsorted(nodes, high_tvd_ft, side="left")
    found = np.concatenate([[low_tvd_ft], nodes[first:last], [high_tvd_ft]])
    inside = [mark for mark in marks_tvd_ft if low_tvd_ft < mark < high_tvd_ft]
    return np.unique(np.concatenate([found, inside])) if inside else found


def open_nodes(well: Well, top_md_ft: float, bottom_md_ft: float, marks_tvd_ft: tuple[float, ...] = ()) -> Floats:
    """The nodes of an open hole, from the shallowest to the deepest that it reaches: a path may climb on its way."""
    return nodes_between(well, *well.path.span(top_md_ft, bottom_md_ft), marks_tvd_ft)


def worst_depth(
    difference: Callable[[Floats], Floats], nodes_ft: Floats, *, as_weight: bool = False, datum_ft: float = 0.0
) -> float | None:
    """TVD [ft] at which a difference of pressures is greatest, or greatest as a weight; None where any is unknown."""
    spans = spans_of(difference, nodes_ft)
    depths = np.concatenate([nodes_ft, spans.turns_over(datum_ft) if as_weight else spans.turns()])
    values = difference(depths)
    if as_weight:
        values = values / np.maximum(depths - datum_ft, 1e-9)
    worst = int(np.argmax(values))  # NaN where any is
    return None if np.isnan(values[worst]) else float(depths[worst])
