"""Which centralizers a string gets: the runs decided, else the widest pattern that keeps what policy and the zones ask.

All patterns of a run are tried at once, each as if it stood alone.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue, Centralizer
from knollstack.core.document.design import CentralizerType
from knollstack.core.running.centralizing import (
    PATTERNS,
    Interval,
    decided,
    joints_of,
    positions,
    types_for,
    wanted_span,
)
from knollstack.core.running.run import Run
from knollstack.core.running.standoff import Placed, Standoffs, between, place, standoffs, with_uncovered

Floats = NDArray[np.float64]
USUAL = "bow spring"
SPARSE = PATTERNS.index((1, 1)) + 1
"""Patterns of one a joint and less: few centralizers, tried before the others."""
TRIED = (PATTERNS[:SPARSE], *((pattern,) for pattern in PATTERNS[SPARSE:-1]))
"""What is tried at once. The closest pattern needs no trial: it is what is left."""


@dataclass(frozen=True, eq=False)
class Placing:
    """The runs of centralizers in force, where each stands, and the standoff that they give."""

    intervals: tuple[Interval, ...]
    placed: Placed
    between: Standoffs
    whole: Standoffs
    """With what is not centralized above the highest."""


def _keeping(run: Run, interval: Interval, ups: list[Floats], percent: float | None) -> tuple[int, Standoffs] | None:
    """The first placing that keeps, by itself, what is asked over its interval: a given standoff, or that of policy and zones."""
    counts = np.array([len(up) for up in ups])
    some = np.flatnonzero(counts)
    if not len(some):
        return None
    starts = (np.cumsum(counts) - counts)[some]
    found = between(run, np.concatenate(ups), starts, (interval.kind,))
    asked = np.maximum(found.asked, percent) if percent is not None else found.asked
    holds = found.midway >= asked - 1e-9
    if run.tally.shoe_md_ft - interval.base_md_ft >= run.tally.effective_ft[0]:
        holds[starts] = True  # what the shoe ends is then not of this run
    kept = np.flatnonzero(np.logical_and.reduceat(holds, starts))
    if not len(kept):
        return None
    k, start = some[kept[0]], starts[kept[0]]
    return int(k), found.part(start, start + counts[k])


class Spaced(NamedTuple):
    """A run of centralizers in force, and the standoff that it gives by itself where that was sought."""

    interval: Interval
    alone: Standoffs | None = None


@remembered(64)
def spaced(run: Run, interval: Interval, percent: float | None) -> Spaced:
    """The widest pattern that keeps what is asked; the closest there is where none does."""
    on = joints_of(run, interval)
    for patterns in TRIED:
        found = _keeping(run, interval, [positions(run, on, *pattern) for pattern in patterns], percent)
        if found is not None:
            number, joints = patterns[found[0]]
            return Spaced(replace(interval, number=number, joints=joints), found[1])
    return Spaced(replace(interval, number=PATTERNS[-1][0], joints=PATTERNS[-1][1]))


def _proposed(run: Run, kind: Centralizer) -> tuple[Spaced, ...]:
    """Runs over the cemented open hole: one wherever policy and the zones ask for one standoff, a joint beyond its top."""
    span = wanted_span(run)
    if span is None:
        return ()
    path, joint = run.well.path, float(np.mean(run.tally.effective_ft))
    zones = [z for z in run.well.ground.model.zones if z.standoff_percent is not None]
    edges = [float(path.md_at(tvd)) for z in zones for tvd in (z.top_tvd_ft, z.base_tvd_ft)]
    cuts = sorted({span[0], *(e for e in edges if span[0] < e < span[1]), span[1]})
    at = f"{run.string.path}/running/centralizers"
    made = [Interval(at, max(top - joint, 0.0), base, kind, 1, 1, None) for top, base in pairwise(cuts)]
    return tuple(spaced(run, interval, None) for interval in made)


def _in_force(run: Run, catalogue: Catalogue, own: tuple[CentralizerType, ...]) -> tuple[Spaced, ...]:
    """The runs in force; a decided one whose centralizer is not known for this size is left out, and found."""
    types = types_for(run.string.od_in or 0.0, catalogue, own)
    rows = list(decided(run, types))
    if not rows:
        return _proposed(run, types[USUAL]) if USUAL in types else ()
    found: list[Spaced] = []
    for row, kind, at in rows:
        if kind is None or row.base_md_ft <= row.top_md_ft:
            continue
        interval = Interval(at, row.top_md_ft, row.base_md_ft, kind, row.number, row.joints, row.standoff_percent)
        wanted = row.standoff_percent
        found.append(Spaced(interval) if wanted is None else spaced(run, interval, wanted))
    return tuple(found)


@remembered(32)
def placing(run: Run, catalogue: Catalogue, own: tuple[CentralizerType, ...]) -> Placing:
    """All of it, worked once for judgement and view."""
    runs = _in_force(run, catalogue, own)
    intervals = tuple(spaced.interval for spaced in runs)
    placed = place(run, intervals)
    alone = runs[0].alone if len(runs) == 1 else None
    found = standoffs(run, placed) if alone is None else alone
    return Placing(intervals, placed, found, with_uncovered(run, found))
