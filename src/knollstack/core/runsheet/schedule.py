"""When each step begins and ends: by what the rig does itself and what is done beside it, with the band of its times.

The rig's own steps follow one another. What is done beside them begins when the step before it in the sheet ends, and the step
that waits for it begins no sooner than it is done. Days count from the spud.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from knollstack.core.base.formula import sweeping
from knollstack.core.document.runsheet import StepKind
from knollstack.core.document.runsheet_policy import RunSheetPolicy
from knollstack.core.runsheet.formulas import expected_hours, with_lost_time
from knollstack.core.runsheet.rule import NEXT_BUT_ONE, Line

HOURS_A_DAY = 24.0
P90_DEVIATIONS = 1.2816
"""Standard deviations from the mean to the tenth and the ninetieth percentile of a normal distribution."""


@dataclass(frozen=True)
class Slot:
    """A step in time, in days from the spud, with its lost time; `slack_hours` is what it may be late."""

    line: Line
    begins: float
    ends: float
    least_hours: float
    likely_hours: float
    most_hours: float
    expected_hours: float
    slack_hours: float = 0.0

    @property
    def critical(self) -> bool:
        return self.slack_hours < 1e-6


@dataclass(frozen=True)
class Band:
    """Days from the spud to a step's end: its mean, and the tenth and ninetieth percentile."""

    mean: float
    low: float
    high: float


@dataclass(frozen=True)
class Schedule:
    slots: tuple[Slot, ...]
    bands: tuple[Band, ...]
    """Of each slot."""
    unknown: tuple[str, ...]
    """Keys of steps whose time is not known: days are at least what is told."""

    @property
    def least_days(self) -> float:
        return sum(s.least_hours for s in self.own) / HOURS_A_DAY

    @property
    def likely_days(self) -> float:
        return sum(s.likely_hours for s in self.own) / HOURS_A_DAY

    @property
    def most_days(self) -> float:
        return sum(s.most_hours for s in self.own) / HOURS_A_DAY

    @property
    def own(self) -> list[Slot]:
        """The rig's own steps after the spud."""
        return [s for s in self.slots if not s.line.beside and s.begins >= -1e-9]

    @property
    def end(self) -> Band:
        return self.bands[-1] if self.bands else Band(0.0, 0.0, 0.0)


def schedule_of(lines: list[Line], policy: RunSheetPolicy) -> Schedule:
    """The whole sheet in time; what is crossed out takes none."""
    done = [line for line in lines if not line.crossed]
    least, likely, most, expected = _times(done, policy)
    before = _before(done)
    begins = _earliest(before, expected)
    slack = _slack(before, begins, expected)
    at = next((k for k, line in enumerate(done) if any(act == "spud" for act, _ in line.does)), None)
    zero = begins[at] if at is not None else 0.0
    slots = tuple(
        Slot(
            line=line,
            begins=(begins[k] - zero) / HOURS_A_DAY,
            ends=(begins[k] - zero + expected[k]) / HOURS_A_DAY,
            least_hours=least[k],
            likely_hours=likely[k],
            most_hours=most[k],
            expected_hours=expected[k],
            slack_hours=slack[k],
        )
        for k, line in enumerate(done)
    )
    return Schedule(slots, _bands(slots), tuple(line.key for line in done if line.hours is None))


def _times(done: list[Line], policy: RunSheetPolicy) -> tuple[list[float], list[float], list[float], list[float]]:
    """Least, likely, most and mean of each step, lost time included; what the person gave spreads alike."""
    rows = {r.kind: (r.least, r.most) for r in policy.spread}
    shares = np.array([rows.get(line.kind, (1.0, 1.0)) for line in done]).reshape(-1, 2)
    with sweeping():
        likely = np.asarray(with_lost_time(np.array([line.hours or 0.0 for line in done]), policy.npt_share))
        least, most = likely * shares[:, 0], likely * shares[:, 1]
        expected = np.asarray(expected_hours(least, likely, most))
    return least.tolist(), likely.tolist(), most.tolist(), expected.tolist()


def _before(done: list[Line]) -> list[list[int]]:
    """Which steps must have ended before each: the rig's own before it, and all that is done beside and that it waits for."""
    own = [k for k, line in enumerate(done) if not line.beside]
    before: list[list[int]] = [[] for _ in done]
    for first, second in pairwise(own):
        before[second].append(first)
    by_key = {done[k].key: k for k in own}
    last_for: dict[int | None, int] = {}
    for k, line in enumerate(done):
        if not line.beside:
            continue
        later = own[bisect_right(own, k) :]
        earlier = own[: bisect_right(own, k)]
        waits = _waits(line, later, by_key)
        before[k] += [earlier[-1]] if earlier else []
        before[k] += [last_for[waits]] if waits in last_for else []
        last_for[waits] = k
        if waits is not None:
            before[waits].append(k)
    return before


def _waits(line: Line, later: list[int], by_key: dict[str, int]) -> int | None:
    """Which of the rig's later steps waits for one that is done beside them: None is the end of the well."""
    if line.beside == NEXT_BUT_ONE:
        return later[1] if len(later) > 1 else None
    named = by_key.get(line.beside)
    return named if named in later else later[0] if later else None


def _earliest(before: list[list[int]], hours: list[float]) -> list[float]:
    """What must have ended before a step stands before it in the sheet: one pass is enough."""
    begins = [0.0] * len(before)
    for k, earlier in enumerate(before):
        begins[k] = max((begins[n] + hours[n] for n in earlier), default=0.0)
    return begins


def _slack(before: list[list[int]], begins: list[float], hours: list[float]) -> list[float]:
    """How late each step may be [h] without the well ending later."""
    end = max((b + h for b, h in zip(begins, hours, strict=True)), default=0.0)
    latest_end = [end] * len(before)
    for k in reversed(range(len(before))):
        for n in before[k]:
            latest_end[n] = min(latest_end[n], latest_end[k] - hours[k])
    return [e - h - b for e, h, b in zip(latest_end, hours, begins, strict=True)]


def _bands(slots: tuple[Slot, ...]) -> tuple[Band, ...]:
    """Steps of one kind are long or short together, kinds apart from each other; what is done beside adds nothing."""
    spread: dict[StepKind, float] = {}
    found = []
    for slot in slots:
        if not slot.line.beside and slot.begins >= -1e-9:
            deviation = (slot.most_hours - slot.least_hours) / 6  # as `deviation_hours` of each kind tells it
            spread[slot.line.kind] = spread.get(slot.line.kind, 0.0) + deviation
        whole = math.sqrt(sum(d * d for d in spread.values())) / HOURS_A_DAY * P90_DEVIATIONS
        found.append(Band(slot.ends, slot.ends - whole, slot.ends + whole))
    return tuple(found)
