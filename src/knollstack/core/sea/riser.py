"""The riser's tension in every section that is drilled through it, and the time and mud that it takes to have it there."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.formulas import riser_minimum_tension, tension_at_foot
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import RiserString, StandingJoints, TensionRow


@dataclass(frozen=True)
class Pull:
    """What holds the riser up: None is not given."""

    tensioners: int | None
    failed: int
    most_lbf: float | None
    """Of all tensioners together, at their limit."""


def pull_of(equipped: Equipped) -> Pull:
    riser, policy = equipped.design.sea.riser, equipped.well.policy.sea
    failed = riser.failed if riser.failed is not None else policy.failed
    one, count = riser.tensioner_lbf, riser.tensioners
    return Pull(count, failed, None if one is None or count is None else one * count)


def hung_lbf(equipped: Equipped, made: MadeUp) -> tuple[float, float]:
    """Weight in water of all that hangs under the tension ring, and the lift of its modules."""
    return made.wet_lbf + equipped.design.sea.riser.barrel_lbf, made.lift_lbf


def through_riser(equipped: Equipped) -> list[EquippedString]:
    """Strings whose hole is drilled through the riser."""
    return [s for s in equipped.strings if s.drilled and not is_riserless(equipped.well, s.index)]


def least_lbf(equipped: Equipped, made: MadeUp, mud_ppg: float, failed: int) -> float | None:
    """Least tension at the ring with a mud in the riser; None where tensioners are not known, or as many are lost."""
    riser, policy, site = equipped.design.sea.riser, equipped.well.policy.sea, equipped.well.site
    if riser.tensioners is None or failed >= riser.tensioners:
        return None
    wet, lift = hung_lbf(equipped, made)
    found = riser_minimum_tension(
        wet,
        policy.weight_tolerance,
        lift,
        policy.buoyancy_tolerance,
        equipped.well.policy.mud.riser_id_in,
        mud_ppg,
        made.foot_md_ft,
        SEA_WATER_PPG,
        max(0.0, made.foot_md_ft - site.rig_floor_ft),
        riser.tensioners,
        failed,
        policy.reduction,
    )
    return max(0.0, float(found))


def set_lbf(equipped: Equipped, least: float | None) -> float | None:
    """Tension that is set: decided, else the least with tensioners lost and policy's margin."""
    given = equipped.design.sea.riser.setting_lbf
    if given is not None:
        return given
    return None if least is None else least + equipped.well.policy.sea.tension_margin_lbf


def tension_rows(equipped: Equipped, made: MadeUp, pull: Pull) -> tuple[TensionRow, ...]:
    rows = []
    capacity = float(circle_capacity(equipped.well.policy.mud.riser_id_in))
    fill = float(interval_volume(capacity, made.foot_md_ft))
    for string in through_riser(equipped):
        key, mud = f"sea/tension/{string.index}", string.mud_ppg
        whole = least = held = left = None
        if mud is not None:
            whole = least_lbf(equipped, made, mud, 0)
            with headline(key):
                least = least_lbf(equipped, made, mud, pull.failed)
            held = set_lbf(equipped, least)
            left = _package_lbf(equipped, made, held)
        rows.append(
            TensionRow(
                string=string.index,
                what=string.words,
                mud_ppg=mud,
                least_lbf=whole,
                least_failed_lbf=least,
                set_lbf=held,
                package_lbf=left,
                fill_bbl=fill,
                working=key,
            )
        )
    return tuple(rows)


def _package_lbf(equipped: Equipped, made: MadeUp, held: float | None) -> float | None:
    riser, policy = equipped.design.sea.riser, equipped.well.policy.sea
    if held is None or riser.tensioners is None:
        return None
    wet, lift = hung_lbf(equipped, made)
    tolerances = policy.weight_tolerance, lift, policy.buoyancy_tolerance
    return float(tension_at_foot(held, policy.reduction, riser.tensioners, 0, wet, *tolerances))


def running_hours(equipped: Equipped, made: MadeUp) -> tuple[float, int]:
    """Hours to run the riser with its stack, and how often its lines are tested on the way."""
    policy, joints = equipped.well.policy.sea, sum(made.counts)
    tests = -(-joints // policy.test_joints)
    return joints / policy.joints_hour + tests * policy.test_minutes / 60, tests


def result_of(equipped: Equipped, made: MadeUp) -> RiserString:
    pull = pull_of(equipped)
    hours, tests = running_hours(equipped, made)
    wet, lift = hung_lbf(equipped, made)
    joints = tuple(
        StandingJoints(
            name=row.name,
            count=count,
            length_ft=row.length_ft,
            total_ft=count * row.length_ft,
            wet_lbf=count * row.wet_lbf,
            lift_lbf=count * row.lift_lbf,
        )
        for row, count in zip(made.rows, made.counts, strict=True)
    )
    return RiserString(
        made=made.usual or any(row.run is None for row in made.rows),
        top_md_ft=made.top_md_ft,
        foot_md_ft=made.foot_md_ft,
        stack_top_md_ft=made.stack_top_md_ft,
        housing_md_ft=made.housing_md_ft,
        space_ft=made.space_ft,
        joints=joints,
        made_ft=made.made_ft,
        off_ft=made.off_ft,
        wet_lbf=wet,
        lift_lbf=lift,
        tensioners=pull.tensioners,
        failed=pull.failed,
        most_lbf=pull.most_lbf,
        may_set_lbf=None if pull.most_lbf is None else pull.most_lbf * equipped.well.policy.sea.tension_share,
        tensions=tension_rows(equipped, made, pull),
        hours=hours,
        tests=tests,
    )
