"""The running step: each string's tally as it lands, filled, lowered, pulled, made up and centralized."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from knollstack.core.base.findings import Assumption, Finding, Words, assume, depth, find, height, percent
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import CentralizerType
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.fill import crush_planned, emptiest, fill_bbl
from knollstack.core.running.findings import fill_findings, gear_findings, say, tally_findings
from knollstack.core.running.findings_hole import centralizer_findings, standoff_findings, sticking_findings
from knollstack.core.running.findings_moving import (
    breaking_findings,
    pull_findings,
    rig_findings,
    speed_findings,
    tool_findings,
)
from knollstack.core.running.formulas import running_hook_load
from knollstack.core.running.gear import fill_joints_of, fill_of
from knollstack.core.running.handling import pull_of, stretch_in, torque_of
from knollstack.core.running.hookload import hook_loads
from knollstack.core.running.results import RunningResult, RunningRow
from knollstack.core.running.rows import (
    drag_lbf,
    drawn_md_ft,
    fluid_rows,
    interval_row,
    price_of,
    sticking_row,
    torque_rows,
)
from knollstack.core.running.run import Run, run_of
from knollstack.core.running.scratching import moved_of, scratchers
from knollstack.core.running.spacing import placing
from knollstack.core.running.speed import breaking, hours, slowest, speeds
from knollstack.core.running.standoff import Placed, Standoffs, least, narrowest_drift_in, worked
from knollstack.core.running.sticking import held_zones
from knollstack.core.running.tally import held_loss_in
from knollstack.core.running.worked import worked_hook_load

Judged = tuple[dict[str, Any], list[Finding]]


def judge(equipped: Equipped) -> tuple[RunningResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """The run of every string that is set in a drilled hole."""
    rows: list[RunningRow] = []
    findings: list[Finding] = []
    assumptions: list[Assumption] = []
    own = equipped.design.centralizers
    for string in equipped.strings:
        if not string.drilled:
            rows.append(RunningRow(applies=False))
            continue
        run = run_of(equipped, string)
        if run is None:
            rows.append(RunningRow(applies=False))
            findings.append(_unknown(string))
            continue
        row, found = _judge_run(run, equipped.catalogue, own, narrowest_drift_in(equipped, run))
        rows.append(row)
        findings += found
        if not string.proposed:
            assumptions += _assumed(run, equipped.catalogue, row)
    if any(row.applies for row in rows):
        findings += rig_findings(equipped.well.site)
    return RunningResult(strings=tuple(rows)), tuple(findings), tuple(assumptions)


def _unknown(string: EquippedString) -> Finding:
    text = "The run is unknown: hole, mud, the pipe of this string or the one outside, the drill pipe's ID or a joint is missing."
    return find("running", "unknown", string.path, (*string.words, " running"), text)


def _assumed(run: Run, catalogue: Catalogue, row: RunningRow) -> list[Assumption]:
    """What was filled in: a made tally, float equipment, filling, centralizers."""
    own, at, words = run.string.own.running, f"{run.string.path}/running", run.string.words
    said = []
    if row.made:
        said.append(
            assume("running", f"{at}/joints", *words, f" tally: {row.joints} joints made from the length range.")
        )
    if row.hung == "mandrel" and own.landing_md_ft is None:
        landing: Words = (" hanger: lands at the ground, ", depth(run.tally.landing_md_ft), ".")
        said.append(assume("running", f"{at}/landing_md_ft", *words, *landing))
    sections = range(max(len(run.string.own.sections), 1))
    if any(held_loss_in(run.string, catalogue, k) is None for k in sections):
        loss: Words = (" tally: make-up loss of policy, ", height(run.well.policy.running.make_up_loss_in), ".")
        said.append(assume("running", "/policy/running/make_up_loss_in", *words, *loss))
    if own.shoe is None or (own.collar is None and own.collar_joint is None):
        collar = "no collar" if row.collar is None else f"{row.collar} in joint {row.collar_joint}"
        said.append(assume("running", f"{at}/shoe", *words, f" float equipment: {row.shoe}, {collar}."))
    if not own.centralizers and row.centralizers:
        wanted = percent(run.well.policy.running.standoff_percent)
        text = f" casing: {row.centralizers} bow springs of generic force, as close as the standoff of policy asks, "
        said.append(assume("running", f"{at}/centralizers", *words, text, wanted, "."))
    return said


@remembered(64, traced=True)
def _judge_run(
    run: Run, catalogue: Catalogue, own: tuple[CentralizerType, ...], drift_in: float | None
) -> tuple[RunningRow, tuple[Finding, ...]]:
    parts: list[Judged] = [_tally(run, catalogue), _fill(run), _centralized(run, catalogue, own, drift_in)]
    row: dict[str, Any] = {}
    findings: list[Finding] = []
    for values, found in parts:
        row |= values
        findings += found
    return RunningRow(applies=True, **row), tuple(findings)


def _tally(run: Run, catalogue: Catalogue) -> Judged:
    tally, policy = run.tally, run.well.policy.running
    pups, joints = tally.kind.count("pup joint"), run.string.own.running.joints
    row = {
        "made": tally.made,
        "hung": tally.hung,
        "joints": tally.count - pups,
        "pups": pups,
        "spares": max(1, math.ceil(policy.spare_share * (tally.count - pups) - 1e-9)),
        "left_out": sum(j.left_out for j in joints),
        "total_ft": tally.total_ft,
        "over_ft": tally.over_ft,
        "shoe_md_ft": tally.shoe_md_ft,
        "shoe_off_ft": tally.shoe_md_ft - tally.planned_shoe_md_ft,
        "top_md_ft": tally.top_md_ft,
        "mean_joint_ft": float(np.mean(tally.length_ft)),
        "shoe": tally.gear.shoe.gear,
        "collar": None if tally.gear.collar is None else tally.gear.collar.gear,
        "collar_joint": tally.gear.collar_joint,
        "collar_md_ft": None if tally.gear.collar is None else tally.shoe_md_ft - tally.track_ft,
        "track_ft": tally.track_ft,
        "stages_md_ft": tally.stages_md_ft,
    }
    return row, [*tally_findings(run, catalogue), *gear_findings(run)]


def _fill(run: Run) -> Judged:
    method, joints = fill_of(run.well, run.string), fill_joints_of(run.well, run.string)
    crushed = crush_planned(run)
    level, worst = crushed.level, emptiest(run, crushed, crushed.worst, "crush")
    first = None if crushed.first is None else emptiest(run, crushed, crushed.first, "crushed")
    filled = method in ("every joint", "every few joints") and bool(np.any(level.empty_md_ft > 0))
    row: dict[str, Any] = {
        "fill": method,
        "fill_joints": joints if filled else None,
        "fills": len(level.shoe_md_ft) if filled else 0,
        "fill_bbl": fill_bbl(run, joints) if filled else None,
        "empty_ft": float(level.empty_md_ft.max()),
        "float_psi": float(crushed.float_psi.max()),
    }
    if worst is not None:
        row |= {
            "collapse_factor": worst.factor,
            "collapse_joint": worst.joint,
            "crushed_joint": None if first is None else first.joint,
            "collapse_md_ft": worst.at_md_ft,
            "longest_empty_tvd_ft": worst.longest_empty_tvd_ft,
        }
    return row, list(fill_findings(run, first or worst))


def _centralized(run: Run, catalogue: Catalogue, own: tuple[CentralizerType, ...], drift_in: float | None) -> Judged:
    """Centralizers first, since their drag is on the hook; then all that moves, and what sticks."""
    made = placing(run, catalogue, own)
    intervals, placed, found, whole = made.intervals, made.placed, made.between, made.whole
    worst = least(run, whole)
    row: dict[str, Any] = {
        "intervals": tuple(interval_row(i, n) for i, n in zip(intervals, placed.counts, strict=True)),
        "centralizers": len(placed.up_ft),
        "centralizer_md_ft": drawn_md_ft(run, placed),
        "stop_collars": len(placed.up_ft),
        "centralizer_price": price_of(placed),
        "running_force_lbf": drag_lbf(placed),
        "moved": moved_of(run),
        "scratchers": scratchers(run),
    }
    if worst is not None and not np.isnan(whole.midway[worst]):
        row |= {
            "least_standoff_percent": _worked(run, placed, found, whole, worst),
            "least_standoff_md_ft": float((whole.low_md_ft[worst] + whole.high_md_ft[worst]) / 2),
        }
    findings = [
        *centralizer_findings(run, catalogue, own, intervals, drift_in),
        *standoff_findings(run, intervals, placed, whole, worst),
    ]
    if row["scratchers"] == 0:
        text = "Scratchers work by movement: the string is held still while cementing."
        findings.append(say(run, "caution", "moved", text))
    moving, more = _moving(run, placed, whole)
    return row | moving, [*findings, *more]


def _worked(run: Run, placed: Placed, found: Standoffs, whole: Standoffs, worst: int) -> float:
    return worked(run, placed, found, worst) if worst < len(found.midway) else float(whole.midway[worst])


def _moving(run: Run, placed: Placed, found: Standoffs) -> Judged:
    """What hangs on the hook, and what it meets on its way."""
    loads = hook_loads(run, placed)
    pull = pull_of(run, loads)
    worked_hook_load(run, loads)
    torques = tuple((leg.pipe.connection, torque_of(run, leg.pipe)) for leg in run.casing_legs if leg.pipe is not None)
    own, pulled = stretch_in(run)
    held = held_zones(run, found)
    row: dict[str, Any] = {
        "fluids": fluid_rows(run, loads),
        "hook_up_lbf": pull.hook_up_lbf,
        "hook_down_lbf": pull.hook_down_lbf,
        "overpull_left_lbf": pull.left_lbf,
        "lock_up_md_ft": loads.lock_up_md_ft,
        "vertical_hook_lbf": _vertical(run),
        "stretch_in": own,
        "pulled_in": pulled,
        "torque": torque_rows(torques),
        "sticking": tuple(sticking_row(zone) for zone in held),
    }
    surging, more = _surging(run)
    return row | surging, [
        *pull_findings(run, loads, pull),
        *tool_findings(run, pull, torques),
        *more,
        *sticking_findings(run, held, pull.left_lbf),
    ]


def _surging(run: Run) -> Judged:
    """How fast the string may be lowered, how long that takes, and what breaks the gels after it."""
    fastest, broken = speeds(run), breaking(run)
    surge = None if fastest is None else slowest(run, fastest)
    row: dict[str, Any] = {"break_psi": broken.bottom_psi, "break_ppg": broken.emw_ppg}
    if fastest is not None and surge is not None:
        row |= {
            "hours": hours(run, fastest),
            "running_ft_min": surge.ft_min,
            "slowest_shoe_md_ft": surge.shoe_md_ft,
            "slowest_limit_md_ft": surge.limit_md_ft,
            "surge_ppg": surge.emw_ppg,
        }
    return row, [*speed_findings(run, fastest, surge), *breaking_findings(run, broken)]


def _vertical(run: Run) -> float | None:
    """Hook load without friction as if the hole were vertical: what a calculator gives for a string of one pipe."""
    if len(run.legs) != 1 or run.well.site.block_lbf is None:
        return None
    leg, length = run.legs[0], run.well.path.tvd(run.tally.shoe_md_ft)
    with headline(f"running/{run.string.index}/vertical_hook"):
        size = leg.weight_ppf, leg.od_in, leg.id_in
        return float(running_hook_load(length, *size, run.mud_ppg, 0.0, run.well.site.block_lbf))
