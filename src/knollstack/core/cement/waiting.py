"""How long the slurry must stay thin, how long it takes to set, and what may be done when."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.cement.job import Followed
from knollstack.core.cement.reversing import reversing_of
from knollstack.core.document.cementing import FluidKind, StrengthPoint
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString

SET_PSI, USUAL_PSI = 50.0, 500.0


@dataclass(frozen=True)
class Thickening:
    """One slurry: how long it is pumped until the job ends [min], with the margin of policy, and what the laboratory gives."""

    kind: FluidKind
    name: str
    job_minutes: float
    needed_minutes: float
    held_minutes: float | None
    key: str


@dataclass(frozen=True)
class Wait:
    """What may be done, from which strength, and after how many hours; None where the strength is not reached in the table."""

    what: str
    strength_psi: float
    hours: float | None
    measured: bool


def thickenings(well: Well, string: EquippedString, followed: Followed) -> tuple[Thickening, ...]:
    """From the first barrel of each slurry mixed to the end of its stage, and of reversing out."""
    own, course, stage = string.own.cement, followed.worked.course, followed.worked.stage
    found = []
    for begun, fluid in zip(stage.edges_bbl, stage.fluids, strict=False):
        if fluid.kind not in ("lead", "tail") or fluid.volume_bbl <= 0:
            continue
        started = float(np.interp(begun, course.pumped_bbl, course.minutes))
        minutes = float(course.minutes[-1]) - started + _reversing_minutes(well, string, followed)
        key = "lead_thickening_minutes" if fluid.kind == "lead" else "thickening_minutes"
        margin = well.policy.cement.thickening_margin_minutes
        found.append(Thickening(fluid.kind, fluid.name, minutes, minutes + margin, getattr(own, key), key))
    return tuple(found)


def _reversing_minutes(well: Well, string: EquippedString, followed: Followed) -> float:
    """Until what stands over a liner's top is back."""
    reverse = reversing_of(well, string, followed.worked)
    return 0.0 if reverse is None else reverse.volume_bbl / reverse.rate_bpm


def hours_to(points: tuple[StrengthPoint, ...], strength_psi: float) -> float | None:
    """When a strength is first reached, straight between two points from nothing at mixing; None where it is not."""
    before = (0.0, 0.0)
    for point in points:
        if point.strength_psi >= strength_psi:
            rise = point.strength_psi - before[1]
            share = 1.0 if rise <= 0 else (strength_psi - before[1]) / rise
            return before[0] + max(share, 0.0) * (point.after_hours - before[0])
        before = (point.after_hours, point.strength_psi)
    return None


def waits(well: Well, string: EquippedString) -> tuple[Wait, ...]:
    """By the laboratory's strengths; where there are none, by the hours of policy for everything."""
    policy, points = well.policy.cement, string.own.cement.strength
    asked = (
        ("Slack off and hang the string", SET_PSI),
        ("Set, by the usual measure", USUAL_PSI),
        ("Nipple down, test the casing, drill out", policy.drill_out_psi),
    )
    if not points:
        return tuple(Wait(what, psi, policy.wait_hours, False) for what, psi in asked)
    return tuple(Wait(what, psi, hours_to(points, psi), True) for what, psi in asked)
