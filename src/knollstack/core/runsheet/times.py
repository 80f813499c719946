"""What policy and the design give of times: drilling rates, trips, the run of casing, the cement job. None is not known."""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.cement.results import StageRow
from knollstack.core.completion.producing import zone_md_ft
from knollstack.core.document.design import Zone
from knollstack.core.document.runsheet_policy import RateRow
from knollstack.core.program.equipped import EquippedString
from knollstack.core.runsheet.formulas import casing_hours, drilling_hours, tripping_hours
from knollstack.core.runsheet.plan import At, Plan

Span = tuple[float, float]


def stand_ft(plan: Plan) -> float:
    return plan.policy.stand_joints * plan.policy.pipe_joint_ft


def trip_hours(plan: Plan, string: EquippedString, to_md_ft: float) -> float:
    """One way between the rotary and a depth of a string's hole."""
    shoe = min(string.previous_shoe_md_ft, to_md_ft)
    policy = plan.policy
    hours = tripping_hours(shoe, to_md_ft - shoe, stand_ft(plan), policy.stand_minutes, policy.open_stand_minutes)
    return float(hours)


def cased_trip_hours(plan: Plan, to_md_ft: float) -> float:
    """One way between the rotary and a depth of a well that is cased to it."""
    return float(
        tripping_hours(to_md_ft, 0.0, stand_ft(plan), plan.policy.stand_minutes, plan.policy.open_stand_minutes)
    )


def row_for(plan: Plan, hole_in: float) -> RateRow | None:
    """The row of policy for a hole size: the largest that is not above it, else the smallest there is."""
    rows = sorted(plan.policy.rates, key=lambda r: r.from_hole_in)
    fits = [r for r in rows if r.from_hole_in <= hole_in + 1e-9] or rows[:1]
    return fits[-1] if fits else None


def section_rate(plan: Plan, string: EquippedString) -> tuple[float | None, bool]:
    """The rate of a section [ft/h], and whether the person gave it."""
    given = [r.ft_hour for r in plan.own.rates if r.string == string.id and r.zone is None]
    if given:
        return given[-1], True
    row = None if string.bit_in is None else row_for(plan, string.bit_in)
    return (None if row is None else row.ft_hour), False


def bit_hours(plan: Plan, string: EquippedString) -> float | None:
    row = None if string.bit_in is None else row_for(plan, string.bit_in)
    return None if row is None else row.bit_hours


def rates(plan: Plan, string: EquippedString, span: Span) -> list[tuple[float, float, float]] | None:
    """Pieces of an interval from top to bottom, each with its rate [ft/h]: a zone's own, else the section's."""
    usual, _ = section_rate(plan, string)
    own = {r.zone: r.ft_hour for r in plan.own.rates if r.string == string.id and r.zone is not None}
    zones = [(*at, own[z.id]) for z in plan.well.ground.model.zones if z.id in own and (at := _along(plan, z))]
    edges = sorted({span[0], span[1], *(min(max(z, span[0]), span[1]) for a, b, _ in zones for z in (a, b))})
    found = []
    for top, base in pairwise(edges):
        middle = (top + base) / 2
        rate = next((r for a, b, r in zones if a <= middle <= b), usual)
        if rate is None:
            return None
        found.append((top, base, rate))
    return found


def _along(plan: Plan, zone: Zone) -> Span | None:
    return zone_md_ft(plan.well, zone.top_tvd_ft, zone.base_tvd_ft)


def on_bottom_hours(pieces: list[tuple[float, float, float]]) -> float:
    """Rotating time over pieces with their rates."""
    return sum((base - top) / rate for top, base, rate in pieces)


def drilled_hours(plan: Plan, pieces: list[tuple[float, float, float]]) -> float:
    """Time to drill pieces, with their connections."""
    length = pieces[-1][1] - pieces[0][0] if pieces else 0.0
    if length <= 0:
        return 0.0
    connections = length / stand_ft(plan)
    mean = length / on_bottom_hours(pieces)
    return float(drilling_hours(length, mean, connections, plan.policy.connection_minutes))


def conductor_hole_hours(at: At) -> float | None:
    """The hole of a conductor that is drilled, by the rate of its section."""
    if at.string.bit_in is None:
        return None
    pieces = rates(at.plan, at.string, (at.plan.well.ground_md_ft, at.string.shoe_md_ft))
    return None if pieces is None else drilled_hours(at.plan, pieces)


def joints_hour(plan: Plan, od_in: float) -> float | None:
    rows = sorted(plan.policy.joints, key=lambda r: r.from_od_in)
    fits = [r for r in rows if r.from_od_in <= od_in + 1e-9] or rows[:1]
    return fits[-1].joints_hour if fits else None


def run_hours(at: At) -> float | None:
    """The run of a string by the crew, or by fills and speed where these take longer; a liner's on drill pipe besides."""
    run, od = at.run, at.string.od_in
    if run.joints is None or run.hours is None or od is None:
        return None
    rate = joints_hour(at.plan, od)
    if rate is None:
        return None
    hours = float(casing_hours(run.joints, rate, run.hours))
    on_pipe = max(at.string.top_md_ft, 0.0) if at.string.run == "liner" or at.plan.subsea else 0.0
    return hours + (trip_hours(at.plan, at.string, on_pipe) if on_pipe else 0.0)


def tubing_hours(plan: Plan, joints: int, od_in: float) -> float | None:
    """Joint by joint, by the row of casing that is its size."""
    rate = joints_hour(plan, od_in)
    return None if rate is None else float(casing_hours(joints, rate, 0.0))


def stage_hours(at: At, stage: StageRow) -> float:
    """A stage of the cement job as it is followed in time."""
    return stage.minutes / 60


def job_hours(at: At) -> float:
    """Of a job that cannot be followed: policy's."""
    return at.policy.cement_hours


def wait_hours(at: At) -> float | None:
    """Until the string may be hung and its shoe drilled out."""
    return at.cement.waits[-1].hours if at.cement.waits else None
