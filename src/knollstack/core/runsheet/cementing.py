"""The family of a cement job: circulated, plugs witnessed, fluid by fluid, bumped, and the wait until it is set."""

from __future__ import annotations

from knollstack.core.base.findings import Words, pressure, volume
from knollstack.core.runsheet.cement_words import (
    bump_words,
    displace_words,
    each_fluid,
    fluid_words,
    later_stages,
    nearest_words,
    opened_words,
    returns_words,
    reverse_words,
    stages,
    top_up_words,
    wait_words,
)
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import NEXT_BUT_ONE, Does, Held, Line, Rule, lines
from knollstack.core.runsheet.standing import job_held
from knollstack.core.runsheet.times import job_hours, stage_hours, wait_hours

WITNESSED = "cementer, drilling supervisor"


def _moved(at: At) -> str:
    moved = at.run.moved
    return f"; the pipe {moved}" if moved in ("reciprocated", "rotated") else ""


def _circulate(at: At) -> Words:
    cement = at.cement
    casing: Words = (
        (" at least ", volume(cement.displacement_bbl), ", a casing volume") if cement.displacement_bbl else ()
    )
    return ("Circulate", *casing, f", until the mud is even{_moved(at)}")


def _lines(at: At) -> Words:
    most = max((s.bumped_psi or s.greatest_pump_psi for s in at.cement.stages), default=None)
    over: Words = (" over the ", pressure(most), " of the job") if most is not None else ()
    return ("Rig up the cementing head and lines; test them", *over)


def _plugs(at: At) -> Words:
    stage = at.cement.stages[0] if at.cement.stages else None
    both = stage is None or stage.bottom_plug_bbl is not None
    if stage is not None and stage.dart_bbl is not None:
        return ("Load the darts in the head; two people witness it",)
    return (f"Load {'bottom and top plug' if both else 'the top plug'} in the head; two people witness it",)


LINES = Rule(
    "lines",
    "cementing",
    _lines,
    "No leak is looked for with cement in the lines.",
    "cement",
    "cementer",
    hours=lambda at: at.policy.cement_gear_hours,
    caution="Nobody near lines under pressure.",
    place=lambda at: f"{at.path}/cement",
    beside="job",
)
BEFORE: tuple[Rule, ...] = (
    Rule(
        "circulate",
        "cementing",
        _circulate,
        "Cement follows where mud has moved.",
        "cement",
        hours=lambda at: at.policy.circulate_hours,
        place=lambda at: f"{at.path}/cement",
    ),
    Rule(
        "plugs",
        "cementing",
        _plugs,
        "A plug left out, or the wrong way round, is cement in the wrong place.",
        "cement",
        WITNESSED,
        when=lambda at: not any(s.inner for s in at.cement.stages),
        hold=True,
        place=lambda at: f"{at.path}/cement/form",
    ),
    Rule(
        "job",
        "cementing",
        lambda at: ("Meeting on the floor: volumes, rates and pressures of the job, who stops it and when",),
        "Once it is mixed it does not wait.",
        "cement",
        "drilling supervisor",
        place=lambda at: f"{at.path}/cement",
        held=job_held,
    ),
)


STAGED: tuple[Rule, ...] = (
    Rule(
        "open",
        "cementing",
        opened_words,
        "What is above the first cement is reached only through it.",
        "cement",
        WITNESSED,
        each=later_stages,
        hours=lambda at: at.policy.circulate_hours,
        hold=True,
        place=lambda at: f"{at.path}/cement/stage_collar_md_ft",
    ),
    Rule(
        "pump",
        "cementing",
        fluid_words,
        "In the order that keeps mud and cement apart, and the rock whole.",
        "cement",
        "cementer",
        each=each_fluid,
        place=lambda at: f"{at.path}/cement/fluids",
        working=lambda at: f"cement/{at.string.index}/sacks" if at.item[1].kind == "tail" else None,
    ),
    Rule(
        "displace",
        "cementing",
        displace_words,
        "The plug wipes the pipe and tells when cement is around the shoe.",
        "cement",
        "cementer",
        each=stages,
        hours=lambda at: stage_hours(at, at.item),
        caution=nearest_words,
        place=lambda at: f"{at.path}/cement/steps",
        working=lambda at: f"cement/{at.string.index}/column",
    ),
    Rule(
        "bump",
        "cementing",
        bump_words,
        "Plug and float hold the cement until it sets; more than the track's volume over would leave the shoe wet.",
        "cement",
        WITNESSED,
        each=stages,
        hold=True,
        does=lambda at: (Does("cemented", at.string.id),) if at.item is at.cement.stages[-1] else (),
        place=lambda at: f"{at.path}/cement",
        working=lambda at: f"cement/{at.string.index}/bump",
    ),
)
AFTER: tuple[Rule, ...] = (
    Rule(
        "unfollowed",
        "cementing",
        lambda at: ("Cement the ", *at.casing, ": the job cannot be worked yet"),
        "What is missing is told by the step of cement.",
        "cement",
        "cementer",
        when=lambda at: not at.cement.stages,
        hours=job_hours,
        does=lambda at: (Does("cemented", at.string.id),),
        held=lambda at: Held(("its volumes and pressures are not known",), True),
        place=lambda at: f"{at.path}/cement",
    ),
    Rule(
        "returns",
        "cementing",
        returns_words,
        "What comes back says where the cement is.",
        "cement",
        "mud engineer",
        place=lambda at: f"{at.path}/cement/top_md_ft",
    ),
    Rule(
        "top-up",
        "cementing",
        top_up_words,
        "The annulus is to be full up to the head.",
        "cement",
        "cementer",
        when=lambda at: at.cement.top_up is not None,
        hours=lambda at: at.policy.top_up_hours,
        place=lambda at: f"{at.path}/cement/top_up_md_ft",
        working=lambda at: f"cement/{at.string.index}/top_up",
    ),
    Rule(
        "release",
        "cementing",
        reverse_words,
        "Drill pipe is clear of cement before it sets.",
        "cement",
        "liner hand",
        when=lambda at: at.string.run == "liner",
        hours=lambda at: at.policy.reverse_hours,
        place=lambda at: f"{at.path}/hanger_md_ft",
        working=lambda at: f"cement/{at.string.index}/reversing" if at.cement.reversing is not None else None,
    ),
    Rule(
        "clear",
        "cementing",
        lambda at: ("While it sets: lay out head and lines, clean tanks and lines, ready what comes on top",),
        "The wait is used, and nothing touches the string.",
        "cement",
        "toolpusher",
        hours=lambda at: at.policy.casing_gear_hours + at.policy.cement_gear_hours,
        place=lambda at: f"{at.path}/cement",
        beside=NEXT_BUT_ONE,
    ),
    Rule(
        "wait",
        "waiting on cement",
        wait_words,
        "Moved between gel and set it leaves a channel; the cement left inside the shoe track is a barrier.",
        "cement",
        "drilling supervisor",
        hours=wait_hours,
        hold=True,
        does=lambda at: (Does("set", at.string.id),),
        place=lambda at: f"{at.path}/cement/strength",
    ),
)


def job(at: At) -> list[Line]:
    """From circulating to the end of the wait; each stage is displaced and shut before the next is pumped."""
    staged = sorted(lines(STAGED, at), key=lambda line: line.key.rsplit("/", 1)[1].split("-")[0])
    return [*lines(BEFORE, at), *staged, *lines(AFTER, at)]
