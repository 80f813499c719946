"""The family of stack and riser: looked over, run, latched, tensioned by section, and taken off."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, force, length, minutes
from knollstack.core.runsheet.plan import HOUSING, At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.sea.results import TensionRow

INSPECT_JOINTS_HOUR = 4.0
"""Riser joints looked over on deck."""
TEST_LATCH_HOURS = 2.0


def _tension(at: At) -> TensionRow | None:
    riser = at.plan.sea.riser
    return next((t for t in riser.tensions if t.string == at.string.index), None) if riser is not None else None


def _joints(at: At) -> Words:
    riser = at.plan.sea.riser
    if riser is None:
        return ("Run stack and riser: what is aboard is not known",)
    kinds = ", ".join(f"{j.count} × {j.name or 'joint'}" for j in riser.joints if j.count)
    return (
        f"Run stack and riser: {kinds}, ",
        length(riser.made_ft),
        f" made up; choke, kill and conduit lines tested {riser.tests} times on the way",
    )


def _inspected(at: At) -> float | None:
    riser = at.plan.sea.riser
    return None if riser is None else sum(j.count for j in riser.joints) / INSPECT_JOINTS_HOUR


def _hours_of(at: At, work: str) -> float | None:
    return next((row.hours for row in at.plan.sea.schedule if row.work.startswith(work)), None)


def _tension_words(at: At) -> Words:
    row = _tension(at)
    if row is None or row.set_lbf is None:
        return ("Set the riser tension: what it needs is not known",)
    least: Words = ("; least ", force(row.least_failed_lbf), " with tensioners lost") if row.least_failed_lbf else ()
    return ("Set the riser tension to ", force(row.set_lbf), *least)


def _margin(at: At) -> Words:
    row = at.mud.riser
    if row is None or row.held:
        return ()
    return ("The mud does not hold the well with the riser off: closed rams and other barriers do.",)


def _plan_words(at: At) -> Words:
    found = at.plan.sea.disconnect
    assert found is not None
    words: list[str | Amount] = [
        "Disconnect plan of this section posted and drilled: secure in ",
        minutes(found.secure_s / 60),
        ", emergency in ",
        minutes(found.emergency_s / 60),
    ]
    reds = [r.red_ft for r in found.drift if r.red_ft is not None]
    yellows = [r.yellow_ft for r in found.drift if r.yellow_ft is not None]
    if reds:
        words += (
            ["; red at ", depth(min(reds))] if min(reds) > 0 else ["; in the worst weather no time for the sequence"]
        )
    if yellows:
        words += (
            [", yellow at ", depth(min(yellows))] if min(yellows) > 0 else [", secure at once in the worst weather"]
        )
    uncut = [a for a in found.across if a.string == at.string.index and a.cut == "not cut"]
    for row in uncut:
        words += ["; not cut: ", *row.what]
    return tuple(words)


INSPECT = Rule(
    "riser-inspect",
    "riser",
    lambda at: ("On deck: look over each riser joint, its seals and buoyancy",),
    "A leaking line is found on deck, not at its test in the water.",
    "sea",
    "subsea engineer",
    when=lambda at: at.plan.sea.riser is not None,
    hours=_inspected,
    place=lambda at: "/sea/riser/joints",
    beside="stack-deck",
)
RISER: tuple[Rule, ...] = (
    Rule(
        "stack-deck",
        "testing",
        lambda at: ("Function the whole stack on deck from both pods, dead-man and automatic shear armed and tried",),
        "It is mended on deck, or with the riser pulled.",
        "preventers",
        "subsea engineer, drilling supervisor",
        hours=lambda at: at.policy.function_hours * 2,
        hold=True,
        place=lambda at: "/preventers",
    ),
    Rule(
        "riser-run",
        "riser",
        _joints,
        "The well is closed by cement while it comes.",
        "sea",
        "subsea engineer",
        hours=lambda at: None if at.plan.sea.riser is None else at.plan.sea.riser.hours,
        caution="Weather limits of running the riser hold.",
        place=lambda at: "/sea/riser/joints",
    ),
    Rule(
        "telescopic",
        "riser",
        lambda at: ("Pick up the telescopic joint; tensioners to the ring; flex joint and diverter above",),
        "The riser hangs on the tensioners before it is landed.",
        "sea",
        "subsea engineer",
        hours=lambda at: TEST_LATCH_HOURS,
        place=lambda at: "/sea/riser/tensioners",
    ),
    Rule(
        "latch",
        "riser",
        lambda at: ("Space out above the housing, land and latch; pull to check the latch; test the connector",),
        "A latch is proved by pull and by pressure.",
        "preventers",
        "subsea engineer, drilling supervisor",
        hours=lambda at: TEST_LATCH_HOURS,
        hold=True,
        does=lambda at: (Does("on", HOUSING),),
        place=lambda at: "/sea/housing",
    ),
)
DISPLACE = Rule(
    "riser-mud",
    "riser",
    lambda at: ("Displace the riser to mud",),
    "The stack is tested, so that it may be opened to the well.",
    "sea",
    "mud engineer",
    hours=lambda at: _hours_of(at, "Displace the riser to mud"),
    place=lambda at: "/policy/sea/displace_bpm",
)
SECTION: tuple[Rule, ...] = (
    Rule(
        "tension",
        "riser",
        _tension_words,
        "A heavier mud asks for more.",
        "sea",
        "subsea engineer",
        place=lambda at: "/sea/riser/setting_lbf",
        working=lambda at: row.working if (row := _tension(at)) is not None and row.set_lbf is not None else None,
    ),
    Rule(
        "disconnect-plan",
        "riser",
        _plan_words,
        "What stands across the shears changes with the section.",
        "sea",
        "subsea engineer, drilling supervisor",
        when=lambda at: at.plan.sea.disconnect is not None,
        caution=_margin,
        hold=True,
        place=lambda at: "/sea/disconnect",
    ),
)
OFF: tuple[Rule, ...] = (
    Rule(
        "riser-water",
        "riser",
        lambda at: ("Displace the riser to sea water",),
        "Mud is not left in the sea; the plugs hold without it.",
        "sea",
        "mud engineer",
        hours=lambda at: _hours_of(at, "Displace the riser to sea water"),
        place=lambda at: "/policy/sea/displace_bpm",
    ),
)
