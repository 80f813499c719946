"""A stage of the job followed in time: what is pumped, what comes back, and how far the pipe runs empty above its fluids.

What has moved around the end of the pipe, X, and what is missing in the pipe's top, U, tell the whole state: pumped is X − U.
Fluid that went in after s barrels stands X − s barrels down the way. Where the column in the pipe outweighs the annulus and both
frictions, the pump's pressure is nothing and the return rate is that at which they balance; so the level falls, and the pump
catches it up later. The float lets nothing come back.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from dataclasses import dataclass
from math import ceil

import numpy as np
from numpy.typing import NDArray

from knollstack.core.cement.balance import Balance
from knollstack.core.cement.stage import Stage

Floats = NDArray[np.float64]
PIECES = 96
"""Steps of volume into which the pumping of a stage is cut, at least."""
STOP_MINUTES = 0.5
MOMENT_BBL = 1e-6
CLOSE_BBL = 1e-9
CLOSE_PSI = 0.02
MOST_TRIES = 60
MOST_SECANTS = 6


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
    falls = np.append((full < -1e-6).nonzero()[0], len(rates)).tolist()
    falling = _Falling(balance, stage.bump_bbl)
    rows: list[Floats] = [np.zeros((1, 5))]
    i = 0
    while i < len(rates):
        if not falling.void:
            j = falls[bisect_left(falls, i)]
            held = slice(i, j)
            rows.append(np.stack([minutes[held], rates[held], rates[held], np.zeros(j - i), full[held]], axis=1))
            i, falling.out = j, float(rates[j - 1]) if j else 0.0
        if i < len(rates):
            falling.moved = (float(pumped[i - 1]) if i else 0.0) + falling.void
            rows.append(falling.through(float(rates[i]), float(minutes[i]), float(full[i])))
            i += 1
    course = np.concatenate(rows)
    at, into = np.cumsum(course[:, 0]), np.cumsum(course[:, 0] * course[:, 1])
    return Course(
        at, into, into + course[:, 3], course[:, 3], course[:, 1], course[:, 2], np.maximum(course[:, 4], 0.0)
    )


class _Falling:
    """The pipe empty at its top, from one small step to the next."""

    def __init__(self, balance: Balance, bump_bbl: float) -> None:
        self.balance, self.bump_bbl = balance, bump_bbl
        self.kinks = [*balance.kinks_bbl.tolist(), np.inf]
        self.moved = self.void = self.out = 0.0
        self.slope = 0.0  # of the last balance, in psi by bpm: the next one is sought along it

    def through(self, rate: float, minutes: float, full_psi: float) -> Floats:
        """One small step, ended also wherever a boundary passes a change of size: rows of minutes, rates, void, pump."""
        found, left = [], minutes
        while left > 0:
            before, taken = self.void, self._step(rate, left)
            self.moved += self.void - before + rate * taken
            left = left - taken if left - taken > 1e-12 * minutes else 0.0
            closed = not self.void and not left
            found.append((taken, rate, rate if closed else self.out, self.void, full_psi if closed else 0.0))
            if not self.void and left:  # full before its end: what is left of it is pumped full
                found.append((left, rate, rate, 0.0, full_psi))
                self.moved += rate * left
                left = 0.0
        return np.array(found)

    def _step(self, rate: float, minutes: float) -> float:
        """So much further, or to the next change of size: how long that takes."""
        kink = self.kinks[bisect_right(self.kinks, self.moved + CLOSE_BBL)]
        way, taken = kink - self.moved, minutes
        while True:
            out = self._fall(self.moved, self.void, rate, taken, self.out)
            void = max(self.void + (out - rate) * taken, 0.0)
            reached = void - self.void + rate * taken
            if reached <= way + 1e-6:
                break
            taken *= way / reached
        self.void, self.out = (void if void > CLOSE_BBL else 0.0), out
        return taken

    def _fall(self, moved: float, void: float, rate: float, minutes: float, near: float) -> float:
        """The return rate after some minutes at which columns and frictions then balance."""
        least = max(0.0, rate - void / minutes)
        most = min(self.balance.most_bpm, max(self.bump_bbl - moved, 0.0) / minutes)

        def left(out: float) -> float:
            return self.balance.left_psi(moved + out * minutes, max(void + (out - rate) * minutes, 0.0), out)

        if most <= least:
            return min(least, most)
        found = self._along_slope(left, least, most, min(max(near, least), most))
        return _root(left, least, most, near) if found is None else found

    def _along_slope(self, left: Balance.Left, low: float, high: float, at: float) -> float | None:
        """The balance sought by secants from a place near it; None where that leads out of bounds or takes too long."""
        here = left(at)
        for _ in range(MOST_SECANTS):
            if abs(here) < CLOSE_PSI:
                return at
            further = at - here / self.slope if self.slope < 0 else at + 0.02
            if not low < further < high or further == at:
                return None
            there = left(further)
            self.slope, at, here = (there - here) / (further - at), further, there
        return None


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
