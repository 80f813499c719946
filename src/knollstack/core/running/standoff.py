"""Standoff of a string between its centralizers once it is on bottom, in its mud, and the spacing that keeps what is wanted.

Each span of casing hangs between two centralizers with its weight and its tension in the dogleg (API RP 10D-2). Below the
lowest the shoe ends a span of twice that length; above the highest, pipe lies on the wall.
"""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import Value, sweeping
from knollstack.core.base.working import headline, is_recording
from knollstack.core.catalogue.rows import Centralizer
from knollstack.core.program.equipped import Equipped
from knollstack.core.running.centralizing import Interval, joints_of, positions, wanted_percent, wanted_span
from knollstack.core.running.formulas import (
    bow_standoff,
    buoyed_weight,
    lateral_load,
    lateral_shares,
    span_sag,
    standoff_ratio,
)
from knollstack.core.running.run import Run

Floats = NDArray[np.float64]
PER_SPAN = 5
"""Depths of a span at which standoff is compared with what is asked."""


@dataclass(frozen=True, eq=False)
class Placed:
    """Centralizers by distance above the shoe, each with its kind."""

    up_ft: Floats
    kinds: tuple[Centralizer, ...]
    counts: tuple[int, ...]
    """How many each run gave."""

    @cached_property
    def running_lbf(self) -> Floats:
        """Of each; what is not given counts as none, and is found."""
        return np.array([kind.running_lbf or 0.0 for kind in self.kinds])


@dataclass(frozen=True, eq=False)
class Standoffs:
    """Of each span, from the shoe up: its ends, standoff at its centralizers and midway [%], and what is asked there."""

    low_md_ft: Floats
    high_md_ft: Floats
    at_bow: Floats
    midway: Floats
    asked: Floats
    side_lbf: Floats
    tension_lbf: Floats

    def part(self, start: int, stop: int) -> Standoffs:
        """Of some of the spans."""
        return Standoffs(*(getattr(self, column.name)[start:stop] for column in fields(self)))

    @property
    def short(self) -> Floats:
        """By how much each span is under what is asked; no more than 0 where it holds."""
        return self.asked - self.midway


def place(run: Run, intervals: tuple[Interval, ...]) -> Placed:
    """All centralizers of all runs, from the shoe up."""
    found = [positions(run, joints_of(run, i), i.number, i.joints) for i in intervals]
    counts = tuple(len(up) for up in found)
    if len(found) == 1:  # joints stand in order
        return Placed(found[0], (intervals[0].kind,) * counts[0], counts)
    up = np.concatenate(found) if found else np.zeros(0)
    of = np.repeat(np.arange(len(found)), counts)
    order = np.argsort(up, kind="stable")
    return Placed(up[order], tuple(intervals[k].kind for k in of[order].tolist()), counts)


def _tension(run: Run, up_ft: Floats) -> Floats:
    """Effective tension at rest at distances above the shoe: the buoyed weight of what hangs below."""
    path, shoe = run.well.path, run.tally.shoe_md_ft
    held = np.zeros(len(up_ft))
    for leg in run.legs:
        weight = float(buoyed_weight(leg.weight_ppf, leg.od_in, leg.id_in, run.mud_ppg, run.mud_ppg))
        reached = np.clip(up_ft, leg.low_ft, leg.high_ft)
        held += weight * (path.tvd(shoe - leg.low_ft) - path.tvd_at(shoe - reached))
    return held


def _leg_at(run: Run, up_ft: Floats) -> NDArray[np.intp]:
    edges = np.array([leg.high_ft for leg in run.legs[:-1]])
    return np.searchsorted(edges, up_ft, side="right")


def _pipe_at(run: Run, up_ft: Floats) -> tuple[Value, Value, Value]:
    """Weight [lb/ft], OD and ID [in] of the pipe at distances above the shoe."""
    if len(run.legs) == 1:
        return run.legs[0].weight_ppf, run.legs[0].od_in, run.legs[0].id_in
    rows = np.array([(leg.weight_ppf, leg.od_in, leg.id_in) for leg in run.legs])
    weight, od, bore = rows[_leg_at(run, up_ft)].T
    return weight, od, bore


def _hole_at(run: Run, md_ft: Floats) -> Floats:
    edges = np.array([base for _, base, _ in run.outers[:-1]])
    bores = np.array([bore for _, _, bore in run.outers])
    return np.asarray(bores[np.searchsorted(edges, md_ft, side="left")])


def standoffs(run: Run, placed: Placed) -> Standoffs:
    """Standoff of every span between two centralizers, and of the one that the shoe ends."""
    return between(run, placed.up_ft, np.zeros(min(len(placed.up_ft), 1), dtype=np.intp), placed.kinds)


@sweeping()
def between(run: Run, up: Floats, starts: NDArray[np.intp], kinds: tuple[Centralizer, ...]) -> Standoffs:
    """The same of several placings one after another, each from the shoe up; `starts` are their lowest centralizers."""
    if not len(up):
        none = np.zeros(0)
        return Standoffs(none, none, none, none, none, none, none)
    path, shoe = run.well.path, run.tally.shoe_md_ft
    nodes = np.concatenate([[0.0], up])

    def lower(values: Floats) -> Floats:
        """At the lower end of each span."""
        below = values[:-1].copy()
        below[starts] = values[0]
        return below

    low, high = lower(nodes), up
    length = np.maximum(high - low, 0.5)
    length[starts] = np.maximum(2 * up[starts], 0.5)  # mirrored at the shoe
    middle = (low + high) / 2
    weight, od, bore = _pipe_at(run, middle)
    buoyed = np.maximum(np.asarray(buoyed_weight(weight, od, bore, run.mud_ppg, run.mud_ppg)), 0.0)
    way = path.heading_at(shoe - nodes)
    tension = np.maximum(_tension(run, middle), 0.0)
    hole = np.maximum(_hole_at(run, shoe - middle), od + 1e-3)
    share, across, turn = lateral_shares([part[1:] for part in way], [lower(part) for part in way])
    lying = buoyed * length
    side = np.sqrt((turn * tension - lying * share) ** 2 + (lying * across) ** 2)
    room = _room(kinds, side, hole, od)
    sag = np.asarray(span_sag(side / length, 90.0, length, tension, od, (od - bore) / 2))
    asked = _asked(run, shoe - high, shoe - low)
    return Standoffs(
        low_md_ft=shoe - low,
        high_md_ft=shoe - high,
        at_bow=np.asarray(standoff_ratio(hole, od, room, 0.0)),
        midway=np.asarray(standoff_ratio(hole, od, room, sag)),
        asked=asked,
        side_lbf=side,
        tension_lbf=tension,
    )


def _room(kinds: tuple[Centralizer, ...], side: Floats, hole: Floats, od: Value) -> Floats:
    """Room left at the centralizers of each span: the lesser of its two ends."""
    least = np.full(len(side), np.inf)
    used = tuple(dict.fromkeys(kinds))
    for kind in used:
        if kind.kind == "rigid":
            room = np.clip((np.minimum(kind.blade_in or np.nan, hole) - od) / 2, 0.0, None)
        else:
            room = np.asarray(bow_standoff(side, kind.restoring_lbf or np.nan, hole, od))
        if len(used) == 1:
            return np.asarray(room)
        at = np.array([other is kind for other in kinds])
        ends = at | np.concatenate([at[:1], at[:-1]])
        least = np.where(ends, np.fmin(least, room), least)
    return least


def with_uncovered(run: Run, found: Standoffs) -> Standoffs:
    """The same, and the stretch over the highest centralizer as far as standoff is asked there: pipe lies on the wall."""
    span = wanted_span(run)
    if span is None:
        return found
    base = float(found.high_md_ft.min()) if len(found.high_md_ft) else span[1]
    if base <= span[0] + 1.0:
        return found
    asked = _asked(run, np.array([span[0]]), np.array([min(base, span[1])]))
    zero = np.zeros(1)
    more = (np.array([min(base, span[1])]), np.array([span[0]]), zero, zero, asked, zero, zero)
    held = (
        found.low_md_ft,
        found.high_md_ft,
        found.at_bow,
        found.midway,
        found.asked,
        found.side_lbf,
        found.tension_lbf,
    )
    return Standoffs(*(np.concatenate(pair) for pair in zip(held, more, strict=True)))


def _asked(run: Run, high_md_ft: Floats, low_md_ft: Floats) -> Floats:
    """The most that is asked anywhere in each span."""
    if not any(zone.standoff_percent is not None for zone in run.well.ground.model.zones):
        return np.maximum(wanted_percent(run, high_md_ft), wanted_percent(run, low_md_ft))
    shares = np.linspace(0.0, 1.0, PER_SPAN)
    depths = high_md_ft[:, None] + (low_md_ft - high_md_ft)[:, None] * shares
    return np.asarray(wanted_percent(run, depths.ravel()).reshape(depths.shape).max(axis=1))


def least(run: Run, found: Standoffs) -> int | None:
    """The span that is farthest under what is asked, or nearest to it; None where nothing is asked."""
    judged = found.asked > 0
    if not np.any(judged):
        return None
    return int(np.argmax(np.where(judged, found.short, -np.inf)))


def worked(run: Run, placed: Placed, found: Standoffs, k: int) -> float:
    """The standoff midway of one span; by the registered formulas while workings are asked for."""
    if not is_recording():
        return float(found.midway[k])
    low, high = float(found.low_md_ft[k]), float(found.high_md_ft[k])
    span = low - high if k else 2 * (low - high)
    leg = run.legs[int(_leg_at(run, np.array([run.tally.shoe_md_ft - (low + high) / 2]))[0])]
    hole = float(_hole_at(run, np.array([(low + high) / 2]))[0])
    inc, azi = run.well.path.direction_at(np.array([high, low]))
    kinds = dict.fromkeys((placed.kinds[k], placed.kinds[max(k - 1, 0)]))
    with headline(f"running/{run.string.index}/standoff"):
        buoyed = float(buoyed_weight(leg.weight_ppf, leg.od_in, leg.id_in, run.mud_ppg, run.mud_ppg))
        tension = float(found.tension_lbf[k])
        ends = float(inc[0]), float(azi[0]), float(inc[1]), float(azi[1])
        side = float(lateral_load(max(buoyed, 0.0), span, *ends, tension))
        rooms = []
        for kind in kinds:
            if kind.kind == "rigid":
                rooms.append(max((min(kind.blade_in or 0.0, hole) - leg.od_in) / 2, 0.0))
            else:
                rooms.append(float(bow_standoff(side, kind.restoring_lbf or 0.0, hole, leg.od_in)))
        sag = float(span_sag(side / span, 90.0, span, tension, leg.od_in, (leg.od_in - leg.id_in) / 2))
        return float(standoff_ratio(hole, leg.od_in, min(rooms), sag))


def narrowest_drift_in(equipped: Equipped, run: Run) -> float | None:
    """The least drift [in] of the casing that a string passes; None where there is none."""
    outer = [s.pipe.drift_in for s in equipped.strings[: run.string.index] if s.pipe is not None]
    return min(outer, default=None)
