"""A stage of the job followed in time: what is pumped, what comes back, and how far the pipe runs empty above its fluids.

What has moved around the end of the pipe, X, and what is missing in the pipe's top, U, tell the whole state: pumped is X − U.
Fluid that went in after s barrels stands X − s barrels down the way. Where the column in the pipe outweighs the annulus and both
frictions, the pump's pressure is nothing and the return rate is that at which they balance at the end of each small step; so
the level falls, and the pump catches it up later. The float lets nothing come back.
"""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from math import ceil

import numpy as np
from numpy.typing import NDArray

from knollstack.core.cement.balance import Balance
from knollstack.core.cement.train import Stage

Floats = NDArray[np.float64]
PIECES = 120
"""Steps of volume into which the pumping of a stage is cut, at least."""
STOP_MINUTES = 0.5
MOMENT_BBL = 1e-6
CLOSE_BBL = 1e-9
CLOSE_PSI = 0.02
MOST_TRIES = 60


@dataclass(frozen=True, eq=False)
class Course:
    """A stage by moments: the first before anything is pumped, the others at the end of each small step."""

    minutes: Floats
    pumped_bbl: Floats
    moved_bbl: Floats
    empty_bbl: Floats
    in_bpm: Floats
    out_bpm: Floats
    pump_psi: Floats

    @property
    def falls(self) -> bool:
        """The pipe runs empty at its top at some moment."""
        return bool(np.any(self.empty_bbl > 1e-6))


def _pieces(stage: Stage, balance: Balance, pieces: int) -> tuple[Floats, Floats]:
    """Length in minutes and rate of each small step.

    A step of the schedule begins with a moment, so that its rate is seen on what stands there, and is cut evenly and where a
    boundary between fluids passes a change of size: with the pipe full all pressures are straight between such cuts.
    """
    most = max(sum(step.volume_bbl or 0.0 for step in stage.steps) / pieces, 1e-3)
    minutes: list[Floats] = []
    rates: list[Floats] = []
    begun = 0.0
    for step in stage.steps:
        volume, cuts = step.volume_bbl or 0.0, [0.0]
        if volume > 0:
            kinks = balance.kinks_bbl
            inside = kinks[(kinks > begun) & (kinks < begun + volume)] - begun
            even = np.linspace(0.0, volume, ceil(volume / most - 1e-9) + 1)
            cuts = [0.0, min(MOMENT_BBL, volume / 2), *np.unique(np.concatenate([even[1:], inside])).tolist()]
            minutes.append(np.diff(np.unique(cuts)) / step.rate_bpm)
            rates.append(np.full(len(minutes[-1]), step.rate_bpm))
        if step.stop_minutes > 0:
            stops = max(ceil(step.stop_minutes / STOP_MINUTES * pieces / PIECES), 2)
            marks = np.concatenate(
                [[0.0, step.stop_minutes * 1e-6], np.linspace(0.0, step.stop_minutes, stops + 1)[1:]]
            )
            minutes.append(np.diff(marks))
            rates.append(np.zeros(len(marks) - 1))
        begun += volume
    if not minutes:
        return np.zeros(0), np.zeros(0)
    return np.concatenate(minutes), np.concatenate(rates)


def follow(stage: Stage, balance: Balance, pieces: int = PIECES) -> Course:
    """The stage from its first barrel to its last."""
    minutes, rates = _pieces(stage, balance, pieces)
    pumped = np.cumsum(minutes * rates)
    full = balance.pump_psi(pumped, rates)
    empty, out = np.zeros(len(rates)), rates.copy()
    void, falling = 0.0, (full < -1e-6).nonzero()[0].tolist()
    i, bump = falling[0] if falling else len(rates), stage.bump_bbl
    while i < len(rates):
        moved = (float(pumped[i - 1]) if i else 0.0) + void
        void, out[i] = _fall(
            balance, moved, void, float(rates[i]), float(minutes[i]), bump, float(out[i - 1]) if i else 0.0
        )
        void = void if void > CLOSE_BBL else 0.0
        empty[i] = void
        i += 1
        if not void:  # full again as far as the next place at which it would fall
            k = bisect_right(falling, i - 1)
            i = falling[k] if k < len(falling) else len(rates)
    pump = np.where(empty > 0, 0.0, np.maximum(full, 0.0))
    out = np.where(empty > 0, out, rates)

    def started(values: Floats, first: float = 0.0) -> Floats:
        return np.concatenate([[first], values])

    return Course(
        minutes=started(np.cumsum(minutes)),
        pumped_bbl=started(pumped),
        moved_bbl=started(pumped + empty),
        empty_bbl=started(empty),
        in_bpm=started(rates),
        out_bpm=started(out),
        pump_psi=started(pump),
    )


def _fall(
    balance: Balance, moved: float, void: float, rate: float, minutes: float, bump_bbl: float, before: float
) -> tuple[float, float]:
    """What is missing in the pipe at the end of a small step, and the return rate there; `before` is that before it."""
    least = max(0.0, rate - void / minutes)
    most = min(balance.most_bpm, max(bump_bbl - moved, 0.0) / minutes)

    def left(out: float) -> float:
        return balance.left_psi(moved + out * minutes, max(void + (out - rate) * minutes, 0.0), out)

    out = min(least, most) if most <= least else _root(left, least, most, before)
    return max(void + (out - rate) * minutes, 0.0), out


def _root(left: Balance.Left, low: float, high: float, near: float) -> float:
    """Where a falling function is 0 between two places, sought from one near it; else the end that is nearer (Illinois)."""
    first = min(max(near, low), high)
    at = left(first)
    if abs(at) < CLOSE_PSI:
        return first
    if at > 0:
        low, at_low = first, at
        high, at_high = _beyond(left, first, high, 1)
        if at_high >= 0:
            return high
    else:
        high, at_high = first, at
        low, at_low = _beyond(left, first, low, -1)
        if at_low <= 0:
            return low
    side = 0
    for _ in range(MOST_TRIES):
        middle = (low * at_high - high * at_low) / (at_high - at_low)
        here = left(middle)
        if abs(here) < CLOSE_PSI or high - low < 1e-7:
            return middle
        if here > 0:
            low, at_low = middle, here
            at_high = at_high / 2 if side > 0 else at_high
            side = 1
        else:
            high, at_high = middle, here
            at_low = at_low / 2 if side < 0 else at_low
            side = -1
    return (low + high) / 2


def _beyond(left: Balance.Left, start: float, end: float, side: int) -> tuple[float, float]:
    """A place from another towards an end at which the function has the other sign, or the end; and its value there."""
    step = max(0.02 * start, 0.02)
    while True:
        at = min(start + step, end) if side > 0 else max(start - step, end)
        here = left(at)
        if here * side <= 0 or at == end:
            return at, here
        step *= 4
