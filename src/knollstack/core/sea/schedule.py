"""The schedule of the riser: hours of each piece of work that a well on the sea floor adds, in order, with their sum."""

from __future__ import annotations

from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import ScheduleRow
from knollstack.core.sea.riser import running_hours


def displaced_hours(equipped: Equipped, made: MadeUp) -> float:
    """To fill the riser with another fluid, through the booster line."""
    policy = equipped.well.policy
    fill = float(interval_volume(float(circle_capacity(policy.mud.riser_id_in)), made.foot_md_ft))
    return fill / policy.sea.displace_bpm / 60


def recovered_hours(equipped: Equipped, made: MadeUp) -> float:
    """To pull the riser with its stack, or its package."""
    return sum(made.counts) / equipped.well.policy.sea.joints_hour


def schedule_of(equipped: Equipped, made: MadeUp) -> tuple[ScheduleRow, ...]:
    """From the conductor's soak to the riser on deck again; what is drilled between them is not of it."""
    own, policy = equipped.design.sea.conductor, equipped.well.policy.sea
    work: list[tuple[str, float]] = []
    if equipped.strings[0].run == "jetted":
        soak = own.soak_hours if own.soak_hours is not None else policy.soak_hours
        work.append(("Soak the jetted conductor", soak))
    displaced = displaced_hours(equipped, made)
    work.append(("Run the riser with its stack, test its lines on the way", running_hours(equipped, made)[0]))
    work.append(("Displace the riser to mud", displaced))
    work.append(("Displace the riser to sea water", displaced))
    work.append(("Unlatch and recover the riser", recovered_hours(equipped, made)))
    rows, total = [], 0.0
    for name, hours in work:
        total += hours
        rows.append(ScheduleRow(work=name, hours=hours, total_hours=total))
    return tuple(rows)
