"""The family of a shoe that is drilled out: casing tested, track and new hole drilled, the rock tried."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, emw, length, pressure
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.standing import casing_test_held
from knollstack.core.runsheet.string import bit_words
from knollstack.core.runsheet.times import trip_hours


def _drilled_out(at: At) -> bool:
    """There is a shoe track with cement above this hole."""
    return at.above is not None and at.above.drilled and at.plan.cement.strings[at.above.index].applies


def _deeper(at: At) -> float:
    assert at.above is not None
    collar = at.above.collar_md_ft
    return collar if collar is not None else at.above.shoe_md_ft


def _tested(at: At) -> bool:
    green = at.plan.well.policy.pipe.pressure_test == "in green cement"
    return _drilled_out(at) and not green and at.above is not None and at.above.role != "conductor" and at.bops


def _test_words(at: At) -> Words:
    assert at.above is not None
    row = at.plan.pipe.strings[at.above.index]
    if row.test_psi is None:
        return ("Test the ", *at.above.words, " casing: its test pressure is not known")
    gauge: Words = (", ", pressure(row.test_rig_psi), " at the rig's gauge") if row.test_rig_psi is not None else ()
    kind = " liner and its top" if at.above.run == "liner" else " casing"
    return ("Test the ", *at.above.words, kind, " to ", pressure(row.test_psi), *gauge, "; hold and record")


def _strength(at: At) -> Words:
    assert at.above is not None
    waits = at.plan.cement.strings[at.above.index].waits
    return ("Begin once the cement has ", pressure(waits[-1].strength_psi), ".") if waits else ()


def _track_hours(at: At) -> float | None:
    assert at.above is not None
    return max(at.above.shoe_md_ft - _deeper(at), 0.0) / at.policy.drill_out_ft_hour


def new_hole_md_ft(at: At) -> float:
    assert at.above is not None
    return min(at.above.shoe_md_ft + at.policy.new_hole_ft, at.string.shoe_md_ft)


def _least_ppg(at: At) -> float | None:
    """What the shoe must at least hold: the heaviest mud of the section with the margin under fracture."""
    muds = [m for m in (at.string.mud_ppg, *(step.mud_ppg for step in at.string.own.mud_steps)) if m is not None]
    return max(muds) + at.plan.well.policy.mud.fracture_margin_ppg if muds else None


def _leak_off(at: At) -> Words:
    assert at.above is not None
    well, shoe = at.plan.well, at.above
    expected, least = well.ground.fracture.one(well.path.tvd(shoe.shoe_md_ft)), _least_ppg(at)
    words: list[str | Amount] = ["Leak-off test at the ", *shoe.words, " shoe: "]
    words += ["expect ", emw(expected)] if expected is not None else ["what the rock holds is not known"]
    words += ["; at least ", emw(least)] if least is not None else []
    return (*words, ". Below it do not drill on: squeeze the shoe or plan the section anew")


def _drilled_words(at: At) -> Words:
    """From above: collars of later stages, then what is in the shoe track."""
    assert at.above is not None
    own = at.above.own.cement
    words: list[str | Amount] = ["Drill out "]
    for collar in sorted(md for md in (own.upper_collar_md_ft, own.stage_collar_md_ft) if md is not None):
        words += ["the stage collar at ", depth(collar), ", "]
    return (*words, "plugs, collar at ", depth(_deeper(at)), " and cement to the shoe at ", depth(at.above.shoe_md_ft))


DRILL_OUT: tuple[Rule, ...] = (
    Rule(
        "bha",
        "tripping",
        lambda at: (
            "Make up the ",
            *bit_words(at),
            " and its assembly; run in to ",
            depth(_deeper(at) if at.above is not None and _drilled_out(at) else at.string.previous_shoe_md_ft),
        ),
        "The hole above is cased, and what closes it in is tested.",
        "sizes",
        hours=lambda at: at.policy.bha_hours + trip_hours(at.plan, at.string, at.string.previous_shoe_md_ft),
        place=lambda at: f"{at.path}/bit_in",
    ),
    Rule(
        "casing-test",
        "testing",
        _test_words,
        "Casing is proved before its shoe is opened to what lies below; not between gel and set.",
        "pipe",
        "drilling supervisor",
        when=_tested,
        hours=lambda at: at.policy.casing_test_hours,
        hold=True,
        does=lambda at: (Does("casing test", at.above.id if at.above else ""),),
        place=lambda at: f"/strings/{at.above.index}/test_psi" if at.above else "",
        working=lambda at: f"pipe/{at.above.index}/test" if at.above else None,
        held=lambda at: casing_test_held(at, at.above, at.stack, at.on) if at.above else None,
        caution="Nobody near lines under pressure.",
    ),
    Rule(
        "drill-out",
        "drilling",
        _drilled_words,
        "The cement in the shoe track is a barrier until now: it has its strength, and the stack is tested.",
        "cement",
        when=_drilled_out,
        hours=_track_hours,
        caution=_strength,
        does=lambda at: (Does("drill out", at.above.id if at.above else ""),),
        place=lambda at: f"/strings/{at.above.index}/cement" if at.above else "",
    ),
    Rule(
        "new-hole",
        "drilling",
        lambda at: (
            "Drill ",
            length(new_hole_md_ft(at) - at.string.previous_shoe_md_ft),
            " of new hole to ",
            depth(new_hole_md_ft(at)),
            "; circulate even",
        ),
        "The test is of the rock under the shoe, and not of its cement.",
        "runsheet",
        when=lambda at: _drilled_out(at) and at.bops,
        hours=lambda at: at.policy.new_hole_ft / at.policy.drill_out_ft_hour,
        does=lambda at: (Does("drill", at.string.id),),
        place=lambda at: "/policy/runsheet/new_hole_ft",
    ),
    Rule(
        "leak-off",
        "testing",
        _leak_off,
        "Mud weight and kick tolerance of the section stand on what this shoe holds.",
        "ground",
        "drilling supervisor",
        when=lambda at: _drilled_out(at) and at.bops,
        hours=lambda at: at.plan.well.policy.completion.leak_off_hours,
        hold=True,
        place=lambda at: "/ground/fracture",
        working=lambda at: f"mud/{at.string.index}/upper",
    ),
)
