"""The cement job of a string in time: its stages followed, at the rates decided or as fast as the rock lets them be."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.remember import remembered
from knollstack.core.cement.balance import Balance
from knollstack.core.cement.checks import (
    Nearest,
    OpenHole,
    breaks_at_rest,
    open_hole,
    pipe_nearest,
    pump_nearest,
    rock_nearest,
    worked,
)
from knollstack.core.cement.closing import Closed, State, closed
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.stage import Stage
from knollstack.core.cement.train import Missing, slowed, stages_of, usual_rates
from knollstack.core.ground.well import Well
from knollstack.core.program.column import bump_over_psi
from knollstack.core.program.equipped import EquippedString

SHARES = (1.0, 0.8, 0.65, 0.5, 0.4, 0.3)
"""Shares of policy's rates that are tried where the whole is more than the rock or the pump stands."""
HELD = -1e-4


class Followed:
    """One stage with what is judged of it, worked when it is asked; None is not known, or there is nothing of its kind."""

    def __init__(
        self, well: Well, string: EquippedString, stage: Stage, share: float = 1.0, balance: Balance | None = None
    ) -> None:
        self.well, self.string, self.stage, self.share = well, string, stage, share
        self.worked = worked(stage if share == 1.0 else slowed(stage, share), balance or Balance(stage))

    def at(self, share: float) -> Followed:
        """The same stage at a share of its own rates."""
        return Followed(self.well, self.string, self.stage, share, self.worked.balance)

    @cached_property
    def hole(self) -> OpenHole | None:
        return open_hole(self.well, self.string, self.worked)

    @cached_property
    def fracture(self) -> Nearest | None:
        return None if self.hole is None else rock_nearest(self.well, self.hole, self.worked, "fracture")

    @cached_property
    def pore(self) -> Nearest | None:
        return None if self.hole is None else rock_nearest(self.well, self.hole, self.worked, "pore")

    @cached_property
    def closed(self) -> Closed:
        return self.closed_with(None)

    @cached_property
    def collapse(self) -> Nearest | None:
        return self._pipe("collapse")

    @cached_property
    def burst(self) -> Nearest | None:
        return self._pipe("burst")

    def _pipe(self, what: str) -> Nearest | None:
        """While it is pumped or once it is closed: moments of the latter are counted on from those of the course."""
        pumped = pipe_nearest(self.well, self.string, self.worked, what)
        state: State = "bled" if what == "collapse" else "bump"  # the one that loads it
        if pumped is None or state not in self.closed.states:
            return pumped
        still = pipe_nearest(self.well, self.string, self.closed.only(state).worked, what)
        if still is None or pumped.left <= still.left:
            return pumped
        return replace(still, moment=len(self.worked.course.minutes) + self.closed.states.index(state))

    def closed_with(self, test_psi: float | None) -> Closed:
        """With a casing test on green cement."""
        return closed(self.worked, bump_over_psi(self.well, self.string.laid), test_psi)

    def tested(self, test_psi: float) -> Nearest | None:
        """In burst under a casing test on green cement; None where there is none, or a rating is unknown."""
        whole = self.closed_with(test_psi)
        if "test" not in whole.states:
            return None
        return pipe_nearest(self.well, self.string, whole.only("test").worked, "burst")

    def state(self, near: Nearest) -> State | None:
        """The closing state of a moment; None while it is pumped."""
        k = near.moment - len(self.worked.course.minutes)
        return self.closed.states[k] if k >= 0 else None

    @cached_property
    def pump(self) -> Nearest:
        return pump_nearest(self.worked, self.well.policy.cement.pump_limit_psi)

    def held(self) -> bool:
        """Nothing that is known is passed."""
        return self.slow_enough and all(_holds(getattr(self, what)) for what in ("pore", "collapse"))

    @cached_property
    def slow_enough(self) -> bool:
        """What a slower rate would mend is mended."""
        return all(_holds(getattr(self, what)) for what in ("fracture", "pump", "burst"))

    @cached_property
    def no_rate_helps(self) -> bool:
        return self.hole is not None and breaks_at_rest(self.well, self.hole, self.worked)


def _holds(near: Nearest | None) -> bool:
    return near is None or near.left >= HELD


@remembered(64)
def job_of(well: Well, string: EquippedString, bores: Bores) -> tuple[Followed, ...] | Missing:
    """Every stage of a string's job, or what is wanting for it."""
    stages = stages_of(well, string, bores)
    if isinstance(stages, Missing):
        return stages
    chosen = _fast_enough if usual_rates(string) else _as_decided
    return tuple(chosen(well, string, stage) for stage in stages)


def _as_decided(well: Well, string: EquippedString, stage: Stage) -> Followed:
    return Followed(well, string, stage)


def _fast_enough(well: Well, string: EquippedString, stage: Stage) -> Followed:
    """The greatest share of policy's rates that the rock, the pipe and the pump stand; all of them where none is enough."""
    whole = Followed(well, string, stage)
    if whole.slow_enough or whole.no_rate_helps:
        return whole
    slowest = whole.at(SHARES[-1])
    if not slowest.slow_enough:
        return whole
    low, high, best = 0, len(SHARES) - 1, slowest  # fails at low, holds at high
    while high - low > 1:
        middle = (low + high) // 2
        found = whole.at(SHARES[middle])
        if found.slow_enough:
            high, best = middle, found
        else:
            low = middle
    return best


@dataclass(frozen=True)
class Verdict:
    """Whether a job stands at some rate, by how much [ppg] the rock is short of it, and whether its fluids are too light."""

    stands: bool
    short_ppg: float = 0.0
    light: bool = False


def verdict(well: Well, string: EquippedString, bores: Bores) -> Verdict:
    """The job judged at its own rates; where nobody decided them, at the slowest that are tried and at the fastest."""
    stages = stages_of(well, string, bores)
    if isinstance(stages, Missing):
        return Verdict(True)
    for stage in stages:
        other = usual_rates(string)
        found = Followed(well, string, stage, SHARES[-1] if other else 1.0)
        if found.held():
            continue
        if not other or found.no_rate_helps or not found.at(1.0).held():
            near = found.fracture
            over = 0.0 if near is None else -near.left / (PSI_PER_PPG_FT * max(well.path.tvd(near.md_ft), 1.0))
            return Verdict(False, max(over, 0.0), not (_holds(found.pore) and _holds(found.collapse)))
    return Verdict(True)


def fastest_share(well: Well, string: EquippedString, stage: Stage) -> float | None:
    """The greatest share of a decided job's rates that would be stood; None where slower pumping mends nothing."""
    found = _fast_enough(well, string, stage)
    return found.share if found.slow_enough and found.share < 1.0 else None
