"""What is wrong with a string on its way down: hook load against rig and pipe, tools, speed, gels."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.findings import Amount, Finding, Remedy, Severity, Words, depth, emw, find, force, remedy
from knollstack.core.document.design import Site
from knollstack.core.mud.friction import missing_readings
from knollstack.core.running.fill import crush_floated
from knollstack.core.running.findings import say
from knollstack.core.running.gear import fill_of
from knollstack.core.running.handling import Pull, Torque
from knollstack.core.running.hookload import HookLoads
from knollstack.core.running.run import Run
from knollstack.core.running.speed import Breaking, Speeds, Surge

RIG = (("hook_load_limit_lbf", "hook load limit"), ("block_lbf", "block weight"))
TOOLS = (("elevator_lbf", "elevators"), ("spider_lbf", "spider"), ("tong_ft_lbf", "tongs"))


def rig_findings(site: Site) -> Iterator[Finding]:
    """What of the rig is not given: told once, for all strings."""
    for rows, unsure, of in (
        (RIG, "the rig lifts the strings", "its "),
        (TOOLS, "its tools stand the runs", "ratings of "),
    ):
        missing = [(key, words) for key, words in rows if getattr(site, key) is None]
        if missing:
            *first, last = (words for _, words in missing)
            names = f"{', '.join(first)} and {last}" if first else last
            be = "is" if len(missing) == 1 and of == "its " else "are"
            text = f"Whether {unsure} is unknown: {of}{names} {be} not given."
            yield find("running", "unknown", f"/site/{missing[0][0]}", ("Rig",), text)


def pull_findings(run: Run, loads: HookLoads, pull: Pull) -> Iterator[Finding]:
    """Hook load over what the rig lifts, too little overpull left, a string that goes down no more."""
    if pull.pipe_left_lbf is None:
        text = "What the pipe can be pulled with is unknown: joint strength is not held."
        yield say(run, "unknown", f"{run.string.path}/pipe", text)
    limit, hook = run.well.site.hook_load_limit_lbf, pull.hook_up_lbf
    if hook is not None and limit is not None and hook > limit + 1e-9:
        words: Words = (
            "Picked up, the string and block hang with ",
            force(hook),
            "; the rig's limit is ",
            force(limit),
        )
        mends, place = tuple(_lighter(run, loads, limit)), "/site/hook_load_limit_lbf"
        yield say(run, "stop", place, *words, ".", remedies=mends, working="hook_up")
    else:
        yield from _overpull(run, pull)
    if loads.lock_up_md_ft is not None:
        words = ("With the shoe at ", depth(loads.lock_up_md_ft), " the string goes down no more by its own weight")
        mends = tuple(_heavier(run, loads))
        yield say(run, "stop", "fill", *words, ": slacking off gives nothing.", remedies=mends, working="hook_in")


def _overpull(run: Run, pull: Pull) -> Iterator[Finding]:
    """What rig or pipe leaves of overpull, the lesser, against what policy asks."""
    asked = run.well.policy.pipe.overpull_lbf
    left = ((pull.rig_left_lbf, "the rig"), (pull.pipe_left_lbf, "the pipe"))
    least = min(((v, words) for v, words in left if v is not None), default=None)
    if least is None or least[0] >= asked - 1e-9:
        return
    severity: Severity = "stop" if least[0] < 0 else "caution"
    said: Words = ("Picked up at the end of the run, ", least[1], " leaves ", force(max(least[0], 0.0)), " of overpull")
    place = "/policy/pipe/overpull_lbf"
    yield say(run, severity, place, *said, "; policy asks ", force(asked), ".", working="hook_up")


def _lighter(run: Run, loads: HookLoads, limit_lbf: float) -> Iterator[Remedy]:
    """Floated in, where the rig then lifts it and the pipe stands the mud outside."""
    block, asked = run.well.site.block_lbf or 0.0, run.well.policy.pipe.factors.collapse
    lifts = float(loads.of("floated", "up").max()) + block <= limit_lbf
    stands = crush_floated(run).factor.min() >= asked
    if lifts and stands and fill_of(run.well, run.string) != "floated in" and run.tally.gear.fills == "closed":
        yield remedy(run.string.change("running/fill", "floated in"), "Float the string in")


def _heavier(run: Run, loads: HookLoads) -> Iterator[Remedy]:
    """Full of mud, where it then goes down all the way; without the drag of its centralizers otherwise."""
    if np.all(loads.of("flooded", "in") > 0) and fill_of(run.well, run.string) == "floated in":
        changes = (run.string.change("running/fill", "every joint"), run.string.change("running/fill_joints", None))
        yield remedy(changes, "Fill every joint")
    bare = loads.of("planned", "in") + loads.running_force_lbf
    if np.all(bare > 0) and any(loads.running_force_lbf > 0):
        rigid = [row.model_dump(mode="json") | {"type": "rigid"} for row in run.string.own.running.centralizers]
        if rigid:
            yield remedy(run.string.change("running/centralizers", rigid), "Use rigid centralizers")


def tool_findings(run: Run, pull: Pull, torques: tuple[tuple[str, Torque], ...]) -> Iterator[Finding]:
    """Elevators, spider and tongs against hook load and torque; connections whose make-up is not known."""
    site = run.well.site
    load = None if pull.hook_up_lbf is None or site.block_lbf is None else pull.hook_up_lbf - site.block_lbf
    for key, words in TOOLS[:2]:
        rating = getattr(site, key)
        if rating is not None and load is not None and load > rating + 1e-9:
            text: Words = (f"The {words} hold ", force(load), " picked up; they are rated ", force(rating), ".")
            yield say(run, "stop", f"/site/{key}", *text)
    for connection, torque in torques:
        if torque.by == "unknown":
            yield say(
                run, "unknown", "torque_ft_lbf", f"Make-up torque of {connection} is not known: give that of its maker."
            )
        elif torque.most is not None and site.tong_ft_lbf is not None and torque.most > site.tong_ft_lbf + 1e-9:
            most, rating = (Amount(value=v, quantity="torque") for v in (torque.most, site.tong_ft_lbf))
            yield say(
                run,
                "caution",
                "/site/tong_ft_lbf",
                f"{connection} is made up with up to ",
                most,
                "; the tongs give ",
                rating,
                ".",
            )


def speed_findings(run: Run, found: Speeds | None, surge: Surge | None) -> Iterator[Finding]:
    if found is None or surge is None:
        gaps = missing_readings(run.well, run.string.own)
        if gaps:
            text = "Running speed is unknown: rheometer readings of the mud are not given."
            yield say(run, "unknown", f"{run.string.path}/reading_{gaps[-1]}", text)
        else:
            text = (
                "Running speed is unknown: fracture is not given over the whole open hole, or the mud fits no rheology."
            )
            yield say(run, "unknown", f"{run.string.path}/mud_ppg", text)
        return
    at, shoe = depth(surge.limit_md_ft), depth(surge.shoe_md_ft)
    if surge.ft_min <= 0:
        text_: Words = ("With the shoe at ", shoe, " no running speed keeps the surge at ", at)
        yield say(
            run,
            "stop",
            "/policy/running/speed_ft_min",
            *text_,
            " under fracture less policy's margin.",
            working="surge",
        )
    elif surge.limited:
        speed = Amount(value=surge.ft_min, quantity="trip_speed")
        text_ = ("With the shoe at ", shoe, " no faster than ", speed, ": surge at ", at)
        yield say(
            run,
            "note",
            "/policy/running/speed_ft_min",
            *text_,
            " then meets fracture less policy's margin.",
            working="surge",
        )


def breaking_findings(run: Run, found: Breaking) -> Iterator[Finding]:
    if found.fracture_ppg is None:
        return
    margin = run.well.policy.mud.fracture_margin_ppg
    if found.emw_ppg <= found.fracture_ppg - margin + 1e-9:
        return
    stop = found.emw_ppg > found.fracture_ppg + 1e-9
    text: Words = ("Breaking circulation after the run brings ", emw(found.emw_ppg), " on ", depth(found.at_md_ft))
    rest: Words = (
        "; fracture is at ",
        emw(found.fracture_ppg),
        ". Break circulation on the way in, slowly, with the pipe moving.",
    )
    yield say(run, "stop" if stop else "caution", "gel_lb_100ft2", *text, *rest, working="breaking")
