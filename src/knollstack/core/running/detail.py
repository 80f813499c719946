"""One string's run in full: every joint of its tally, and the curves that its view draws."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.program.equipped import Equipped
from knollstack.core.running.centralizing import types_for
from knollstack.core.running.fill import crush_planned, fill_bbl, planned
from knollstack.core.running.gear import fill_joints_of, fill_of
from knollstack.core.running.handling import torque_of
from knollstack.core.running.hookload import HookLoads, hook_loads
from knollstack.core.running.results_detail import (
    FillTrack,
    HookTrack,
    JointRow,
    RunTracks,
    SpeedTrack,
    StandoffTrack,
    TallyDetail,
)
from knollstack.core.running.run import Run, run_of
from knollstack.core.running.scratching import scratched
from knollstack.core.running.spacing import placing
from knollstack.core.running.speed import speeds
from knollstack.core.running.standoff import Placed, Standoffs

Floats = NDArray[np.float64]


def _floats(values: Floats) -> tuple[float, ...]:
    return tuple(float(v) for v in np.round(values, 3))


def _known(values: Floats) -> tuple[float | None, ...]:
    return tuple(float(round(v, 3)) if np.isfinite(v) else None for v in values.tolist())


def _run(equipped: Equipped, index: int) -> Run | None:
    return run_of(equipped, equipped.strings[index]) if index < len(equipped.strings) else None


def tally_detail_of(equipped: Equipped, index: int) -> TallyDetail | None:
    """The tally of one string as it goes in; None where it is not run, or not known."""
    run = _run(equipped, index)
    if run is None:
        return None
    own = equipped.design.centralizers
    return TallyDetail(
        joints=_joints(run, placing(run, equipped.catalogue, own).placed),
        left_out_ft=sum(j.length_ft for j in run.string.own.running.joints if j.left_out),
        scratched_md_ft=tuple(scratched(run)),
        types=tuple(types_for(run.string.od_in or 0.0, equipped.catalogue, own)),
    )


def tracks_of(equipped: Equipped, index: int) -> RunTracks | None:
    """Filling, hook load, speed and standoff of one string against depth; None where it is not run, or not known."""
    run = _run(equipped, index)
    if run is None:
        return None
    made = placing(run, equipped.catalogue, equipped.design.centralizers)
    return RunTracks(
        fill=_fill_track(run),
        hook=_hook_track(run, hook_loads(run, made.placed)),
        speed=_speed_track(run),
        standoff=_standoff_track(made.whole),
    )


def _carried(run: Run) -> dict[int, list[str]]:
    """What stands on which joint, counted from 0."""
    gear, found = run.tally.gear, {0: [run.tally.gear.shoe.gear]}
    if gear.collar is not None and gear.collar_joint is not None and gear.collar_joint <= run.tally.count:
        found.setdefault(gear.collar_joint - 1, []).append(gear.collar.gear)
    for joint in run.tally.stage_joints:
        found.setdefault(joint, []).append("stage collar")
    if run.tally.hung == "liner hanger":
        found.setdefault(run.tally.count - 1, []).append("liner hanger")
    return found


def _joints(run: Run, placed: Placed) -> tuple[JointRow, ...]:
    tally, carried = run.tally, _carried(run)
    level = planned(run)
    fills = fill_of(run.well, run.string) in ("every joint", "every few joints") and np.any(level.empty_md_ft > 0)
    after = set(level.joint.tolist()) if fills else set()
    with sweeping():
        bbl = fill_bbl(run, fill_joints_of(run.well, run.string))
    counts = np.bincount(np.searchsorted(tally.top_ft, placed.up_ft), minlength=tally.count)
    found = speeds(run)
    fastest = None if found is None else found.at(run.lowered_md_ft)
    edges = np.array([leg.high_ft for leg in run.legs[:-1]])
    legs = np.searchsorted(edges, (tally.bottom_ft + tally.top_ft) / 2, side="right").tolist()
    made_up = [None if leg.pipe is None else (leg.pipe.connection, torque_of(run, leg.pipe).best) for leg in run.legs]
    columns = (tally.row, tally.length_ft, tally.effective_ft, tally.bottom_ft, tally.top_ft, tally.section, counts)
    lowered = run.lowered_md_ft.tolist()
    rows = []
    for k, values in enumerate(zip(*(column.tolist() for column in columns), strict=True)):
        row, length, effective, bottom, top, section, centralizers = values
        up = made_up[legs[k]]
        assert up is not None
        rows.append(
            JointRow(
                number=k + 1,
                row=row,
                length_ft=length,
                effective_ft=effective,
                total_ft=top,
                section=section + 1,
                kind=tally.kind[k],
                carries=tuple(carried.get(k, ())),
                centralizers=centralizers,
                bottom_md_ft=tally.shoe_md_ft - bottom,
                top_md_ft=tally.shoe_md_ft - top,
                shoe_md_ft=lowered[k],
                speed_ft_min=None if fastest is None else float(fastest[k]),
                fill=k + 1 in after,
                fill_bbl=bbl if k + 1 in after else None,
                connection=up[0],
                torque_ft_lbf=up[1],
            )
        )
    return tuple(rows)


def _fill_track(run: Run) -> FillTrack:
    crushed = crush_planned(run)
    asked = run.well.policy.pipe.factors.collapse
    return FillTrack(
        shoe_md_ft=_floats(crushed.level.shoe_md_ft),
        empty_ft=_floats(crushed.level.empty_md_ft),
        float_psi=_floats(crushed.float_psi),
        load_psi=_floats(crushed.load_psi),
        allowed_psi=_floats(crushed.rating_psi / asked),
        factor=_known(crushed.factor),
    )


def _hook_track(run: Run, loads: HookLoads) -> HookTrack:
    block = run.well.site.block_lbf
    more = block or 0.0

    def of(fluid: str, motion: str) -> tuple[float, ...]:
        return _floats(loads.of(fluid, motion) + more)

    return HookTrack(
        shoe_md_ft=_floats(loads.shoe_md_ft),
        in_lbf=of("planned", "in"),
        up_lbf=of("planned", "up"),
        still_lbf=of("planned", "still"),
        flooded_in_lbf=of("flooded", "in"),
        flooded_up_lbf=of("flooded", "up"),
        floated_in_lbf=of("floated", "in"),
        floated_up_lbf=of("floated", "up"),
        block_lbf=block,
        limit_lbf=run.well.site.hook_load_limit_lbf,
    )


def _speed_track(run: Run) -> SpeedTrack | None:
    found = speeds(run)
    if found is None:
        return None
    return SpeedTrack(
        shoe_md_ft=_floats(found.shoe_md_ft), ft_min=_floats(found.ft_min), limit_md_ft=_floats(found.limit_md_ft)
    )


def _standoff_track(found: Standoffs) -> StandoffTrack:
    return StandoffTrack(
        low_md_ft=_floats(found.low_md_ft),
        high_md_ft=_floats(found.high_md_ft),
        at_bow_percent=_known(found.at_bow),
        midway_percent=_known(found.midway),
        asked_percent=_floats(found.asked),
        side_lbf=_floats(found.side_lbf),
    )
