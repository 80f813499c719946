"""The family of a run of casing: the bushing out, rams that fit, the crew rigged, the string to bottom."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from knollstack.core.base.findings import Amount, Words, depth, emw, force, length, pressure, volume
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.times import run_hours

RACK_JOINTS_HOUR = 25.0
"""Joints drifted, measured and counted on the rack."""


def _gear(at: At) -> Words:
    words: list[str | Amount] = ["Rig up the casing crew: elevators, spider, tongs"]
    for row in at.run.torque:
        if row.best_ft_lbf is not None:
            words += ["; make up ", f"{row.connection} to ", Amount(value=row.best_ft_lbf, quantity="torque")]
        elif row.by == "mark":
            words += [f"; make up {row.connection} to its mark"]
        else:
            words += [f"; {row.connection}: make-up torque not known"]
    return tuple(words)


def _track(at: At) -> Words:
    run = at.run
    words: list[str | Amount] = [f"Pick up the shoe joint with its {run.shoe or 'shoe'}"]
    if run.collar is not None and run.collar != "none" and run.collar_joint is not None:
        words += [f"; {run.collar} at the bottom of joint {run.collar_joint}; thread-lock all below it"]
    words += ["; check that the float holds" if run.shoe is not None and "guide" not in run.shoe else ""]
    for at_md in run.stages_md_ft:
        words += ["; stage collar to stand at ", depth(at_md)]
    return tuple(words)


def _sections(at: At) -> Iterator[tuple[str, Any]]:
    """Sections as they go in: the deepest first."""
    rows = at.plan.pipe.strings[at.string.index].sections
    whole = sum(r.bottom_md_ft - r.top_md_ft for r in rows)
    for k in reversed(range(len(rows))):
        yield str(k + 1), (rows[k], (rows[k].bottom_md_ft - rows[k].top_md_ft) / whole if whole else 0.0)


def _pipe(at: At) -> Words:
    row, share = at.item
    joints = f"{round(at.run.joints * share)} joints of " if at.run.joints is not None else ""
    bows: Words = (f"; {at.run.centralizers} centralizers by the tally",) if at.run.centralizers and share == 1 else ()
    weight = Amount(value=row.weight_ppf, quantity="linear_weight")
    return (
        f"Run {joints}",
        *at.string.words,
        " ",
        weight,
        f" {row.grade} {row.connection}, to stand from ",
        depth(row.bottom_md_ft),
        " to ",
        depth(row.top_md_ft) if row.top_md_ft > 0.5 else "surface",
        *bows,
    )


def _fill(at: At) -> Words:
    run = at.run
    if run.fill == "every few joints" and run.fill_joints is not None and run.fill_bbl is not None:
        return (f"Fill every {run.fill_joints} joints with ", volume(run.fill_bbl))
    if run.fill == "every joint":
        return ("Fill each joint as it is run",)
    if run.fill == "auto-fill":
        return ("It fills by itself: watch the returns, and trip the equipment before cementing",)
    return ("Float it in empty; fill it from the top at bottom",)


def _fill_caution(at: At) -> Words:
    run = at.run
    if run.crushed_joint is not None:
        return (f"Empty pipe is crushed at joint {run.crushed_joint}: fill it before.",)
    if run.longest_empty_tvd_ft is not None and run.fill != "floated in":
        return ("It is crushed when empty for ", depth(run.longest_empty_tvd_ft), ".")
    return ()


def _speed(at: At) -> Words:
    run = at.run
    words: list[str | Amount] = ["Lower no faster than "]
    words += (
        [Amount(value=run.running_ft_min, quantity="trip_speed")] if run.running_ft_min is not None else ["unknown"]
    )
    slowed = run.running_ft_min is not None and run.running_ft_min < at.plan.well.policy.running.speed_ft_min - 1e-9
    words += (
        [" with the shoe at ", depth(run.slowest_shoe_md_ft)] if slowed and run.slowest_shoe_md_ft is not None else []
    )
    words += ["; surge ", emw(run.surge_ppg)] if run.surge_ppg is not None else []
    return tuple(words)


def _hook(at: At) -> Words:
    run = at.run
    words: list[str | Amount] = ["At bottom expect "]
    words += [force(run.hook_up_lbf), " picking up"] if run.hook_up_lbf is not None else ["a hook load not known"]
    words += [", ", force(run.hook_down_lbf), " slacking off"] if run.hook_down_lbf is not None else []
    words += ["; overpull left ", force(run.overpull_left_lbf)] if run.overpull_left_lbf is not None else []
    return tuple(words)


def _space_out(at: At) -> Words:
    run, string = at.run, at.string
    if string.run == "liner":
        return ("Run the liner in on drill pipe; its top to stand at ", depth(string.top_md_ft))
    if at.plan.subsea:
        return (
            "Make up the hanger and its running tool; land it in the housing at ",
            depth(string.top_md_ft),
            " on drill pipe",
        )
    if run.hung == "mandrel" and run.top_md_ft is not None:
        return (
            "Make up the mandrel hanger and landing joint; land it at ",
            length(run.top_md_ft),
            " in the ",
            at.bowl_words,
        )
    up = -run.top_md_ft if run.top_md_ft is not None else None
    stick: Words = (": stick-up ", length(up), " over the rotary") if up is not None else ()
    return ("Space out with the landing joint, shoe at ", depth(string.shoe_md_ft), *stick)


def _running(at: At) -> bool:
    return at.run.applies


TALLY = Rule(
    "tally",
    "running casing",
    lambda at: (
        f"On the rack: drift, measure and count {at.run.joints} joints and {at.run.spares} spares; "
        "two people check the tally",
    ),
    "A joint too few is found on the rack, not at bottom.",
    "running",
    "casing crew",
    when=lambda at: _running(at) and at.run.joints is not None,
    hours=lambda at: ((at.run.joints or 0) + (at.run.spares or 0)) / RACK_JOINTS_HOUR,
    place=lambda at: f"{at.path}/running/joints",
    beside="gear",
)
RUN: tuple[Rule, ...] = (
    Rule(
        "gear",
        "running casing",
        _gear,
        "Ratings and torque are checked before weight hangs on them.",
        "running",
        "casing crew",
        hours=lambda at: at.policy.casing_gear_hours,
        caution="Tong lines clear of people; nobody under the load.",
        place=lambda at: f"{at.path}/running",
    ),
    Rule(
        "shoe",
        "running casing",
        _track,
        "What lands the plug and holds the cement back goes in first.",
        "running",
        "casing crew",
        when=_running,
        place=lambda at: f"{at.path}/running/shoe",
    ),
    Rule(
        "pipe",
        "running casing",
        _pipe,
        "By the tally, from the shoe up.",
        "running",
        "casing crew",
        when=_running,
        each=_sections,
        hours=lambda at: None if (whole := run_hours(at)) is None else whole * at.item[1],
        does=lambda at: (Does("run", at.string.id),),
        place=lambda at: f"{at.path}/running/joints",
        working=lambda at: f"running/{at.string.index}/surge" if at.run.surge_ppg is not None else None,
    ),
    Rule(
        "pipe-unknown",
        "running casing",
        lambda at: ("Run the ", *at.casing, ": how it runs cannot be worked yet"),
        "What is missing is told by the steps of pipe and running.",
        "pipe",
        "casing crew",
        when=lambda at: not _running(at) or not at.plan.pipe.strings[at.string.index].sections,
        hours=lambda at: None,
        does=lambda at: (Does("run", at.string.id),),
        place=lambda at: f"{at.path}/pipe",
    ),
    Rule(
        "fill",
        "running casing",
        _fill,
        "Empty pipe is crushed, and floats.",
        "running",
        "driller",
        when=lambda at: _running(at) and at.run.fill is not None,
        caution=_fill_caution,
        place=lambda at: f"{at.path}/running/fill",
        working=lambda at: f"running/{at.string.index}/fill" if at.run.fill_bbl is not None else None,
    ),
    Rule(
        "speed",
        "running casing",
        _speed,
        "The rock breaks by surge before it breaks by mud.",
        "running",
        "driller",
        when=_running,
        place=lambda at: "/policy/running/speed_ft_min",
        working=lambda at: f"running/{at.string.index}/surge" if at.run.surge_ppg is not None else None,
    ),
    Rule(
        "hook",
        "running casing",
        _hook,
        "What it should weigh tells whether it is free.",
        "running",
        "driller",
        when=_running,
        caution=lambda at: (
            ()
            if at.run.lock_up_md_ft is None
            else ("By plan it no longer slides at ", depth(at.run.lock_up_md_ft), ".")
        ),
        place=lambda at: f"{at.path}/running",
        working=lambda at: f"running/{at.string.index}/hook_up" if at.run.hook_up_lbf is not None else None,
    ),
    Rule(
        "land",
        "running casing",
        _space_out,
        "The shoe stands where it was planned, and the head fits on top.",
        "running",
        "driller",
        when=lambda at: _running(at) and at.plan.equipped.carrier is not at.string,
        does=lambda at: (
            (Does("hanger", at.bowl),) if at.bops and at.run.hung == "mandrel" and at.string.run != "liner" else ()
        ),
        place=lambda at: f"{at.path}/running/landing_md_ft",
    ),
)
BREAK: tuple[Rule, ...] = (
    Rule(
        "break",
        "running casing",
        lambda at: ("Break circulation slowly: about ", pressure(at.run.break_psi or 0.0)),
        "Gelled mud is broken before the pumps are brought up.",
        "running",
        "driller",
        when=lambda at: _running(at) and at.run.break_psi is not None,
        caution=lambda at: () if at.run.break_ppg is None else ("The shoe sees ", emw(at.run.break_ppg), "."),
        place=lambda at: f"{at.path}/running/gel_lb_100ft2",
        working=lambda at: f"running/{at.string.index}/breaking",
    ),
)
