"""The cement job of a string in time: its stages followed, at the rates decided or as fast as the rock lets them be."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.remember import remembered
from knollstack.core.cement.checks import (
    Nearest,
    OpenHole,
    Worked,
    open_hole,
    pipe_nearest,
    pump_nearest,
    rock_nearest,
    worked,
)
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.train import Missing, Stage, slowed, stages_of, usual_rates
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString

SHARES = (1.0, 0.8, 0.65, 0.5, 0.4, 0.3)
"""Shares of policy's rates that are tried where the whole is more than the rock or the pump stands."""
HELD = -1e-6


@dataclass(frozen=True, eq=False)
class Followed:
    """One stage with what was judged of it; None of a check is not known, or there is nothing of its kind."""

    worked: Worked
    hole: OpenHole | None
    fracture: Nearest | None
    pore: Nearest | None
    collapse: Nearest | None
    burst: Nearest | None
    pump: Nearest
    share: float
    """Of policy's rates."""

    @property
    def rock_known(self) -> bool:
        return self.hole is None or (self.fracture is not None and self.pore is not None)

    @property
    def pipe_known(self) -> bool:
        return self.collapse is not None and self.burst is not None

    def held(self) -> bool:
        """Nothing that is known is passed."""
        judged = (self.fracture, self.pore, self.collapse, self.burst, self.pump)
        return all(found is None or found.left >= HELD for found in judged)

    @property
    def slow_enough(self) -> bool:
        """What a slower rate would mend is mended."""
        return all(found is None or found.left >= HELD for found in (self.fracture, self.burst, self.pump))


def _followed(well: Well, string: EquippedString, stage: Stage, share: float) -> Followed:
    held = worked(stage if share == 1.0 else slowed(stage, share))
    hole = open_hole(well, string, held)
    return Followed(
        worked=held,
        hole=hole,
        fracture=None if hole is None else rock_nearest(well, hole, held, "fracture"),
        pore=None if hole is None else rock_nearest(well, hole, held, "pore"),
        collapse=pipe_nearest(well, string, held, "collapse"),
        burst=pipe_nearest(well, string, held, "burst"),
        pump=pump_nearest(held, well.policy.cement.pump_limit_psi),
        share=share,
    )


@remembered(64)
def job_of(well: Well, string: EquippedString, bores: Bores) -> tuple[Followed, ...] | Missing:
    """Every stage of a string's job, or what is wanting for it."""
    stages = stages_of(well, string, bores)
    if isinstance(stages, Missing):
        return stages
    chosen = _fast_enough if usual_rates(string) else _as_decided
    return tuple(chosen(well, string, stage) for stage in stages)


def _as_decided(well: Well, string: EquippedString, stage: Stage) -> Followed:
    return _followed(well, string, stage, 1.0)


def _fast_enough(well: Well, string: EquippedString, stage: Stage) -> Followed:
    """The greatest share of policy's rates that the rock, the pipe and the pump stand; all of them where none is enough."""
    whole = _followed(well, string, stage, 1.0)
    if whole.slow_enough:
        return whole
    slowest = _followed(well, string, stage, SHARES[-1])
    if not slowest.slow_enough:
        return whole
    low, high, best = 0, len(SHARES) - 1, slowest  # fails at low, holds at high
    while high - low > 1:
        middle = (low + high) // 2
        found = _followed(well, string, stage, SHARES[middle])
        if found.slow_enough:
            high, best = middle, found
        else:
            low = middle
    return best


def fastest_share(well: Well, string: EquippedString, stage: Stage) -> float | None:
    """The greatest share of a decided job's rates that would be stood; None where slower pumping mends nothing."""
    found = _fast_enough(well, string, stage)
    return found.share if found.slow_enough and found.share < 1.0 else None
