"""What the log shows that the plan did not count on, in words."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Assumption, Finding, Step, Words, assume, depth, emw, find, pressure, volume
from knollstack.core.ground.profiles import Ground
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.logbook.tests_of import Tested
from knollstack.core.program.equipped import Equipped, EquippedString

STEP: Step = "logbook"
ALIKE_PPG = 0.05
"""Strengths that agree within what a gauge reads."""


def place_of(number: int) -> str:
    """An entry by its number."""
    return f"/log/{number}"


def log_findings(equipped: Equipped, drilled: Drilled, tests: tuple[Tested, ...], planned: Ground) -> Iterator[Finding]:
    yield from _against_the_plan(drilled)
    yield from _depth_findings(equipped, drilled)
    for test in tests:
        yield from _test_findings(equipped, drilled, test, planned)
    yield from _job_findings(equipped, drilled)
    yield from _event_findings(drilled)


def _against_the_plan(drilled: Drilled) -> Iterator[Finding]:
    for entry in drilled.told.strays:
        yield find(
            STEP,
            "caution",
            place_of(entry.number),
            (f"Log entry {entry.number}",),
            f"It is about a string ({entry.string}) that the plan does not have, and is not in force. ",
            "Add the string to the plan, or correct the entry.",
        )
    for unfit in drilled.unfit:
        numbers = ", ".join(str(n) for n in unfit.fact.entries)
        yield find(
            STEP,
            "stop",
            place_of(unfit.fact.entries[-1]),
            (f"Log entry {numbers}",),
            "What happened does not go with the plan below it, and is not in force: ",
            f"{unfit.value} at {unfit.path}; expected {unfit.expected}. Change the plan there.",
        )


def _depth_findings(equipped: Equipped, drilled: Drilled) -> Iterator[Finding]:
    today, at = drilled.today_md_ft, drilled.told.drilling
    if today is None or at >= len(equipped.strings):
        return
    string = equipped.strings[at]
    if today > string.shoe_md_ft and string.drilled:
        yield find(
            STEP,
            "caution",
            f"{string.path}/shoe_md_ft",
            string.hole_words,
            "The hole is at ",
            depth(today),
            ", deeper than the planned shoe. Log the shoe where it landed, or plan it deeper.",
            value=depth(today),
            limit=depth(string.shoe_md_ft),
        )


def _test_findings(equipped: Equipped, drilled: Drilled, test: Tested, planned: Ground) -> Iterator[Finding]:
    string = equipped.strings[test.index]
    subject: Words = (*string.words, " shoe")
    place = place_of(test.entry.number)
    if test.emw_ppg is None:
        yield find(STEP, "unknown", place, subject, "The points of the test show no line: its strength is not known.")
        return
    counted = planned.fracture.one(test.tvd_ft)
    if counted is None or test.emw_ppg >= counted - ALIKE_PPG:
        return
    if test.kind == "integrity":
        yield find(
            STEP,
            "note",
            place,
            subject,
            "Integrity test to ",
            emw(test.emw_ppg),
            ": it shows that the rock holds that much, and not the ",
            emw(counted),
            " that the plan counts on.",
            value=emw(test.emw_ppg),
            limit=emw(counted),
            working=test.working,
        )
        return
    yield find(
        STEP,
        "caution",
        place,
        subject,
        "Leak-off at ",
        emw(test.emw_ppg),
        "; the plan counts on ",
        emw(counted),
        ". All below is worked with the test.",
        value=emw(test.emw_ppg),
        limit=emw(counted),
        working=test.working,
    )


def _job_findings(equipped: Equipped, drilled: Drilled) -> Iterator[Finding]:
    for index, entry in sorted(drilled.told.cemented.items()):
        words, place = equipped.strings[index].words, place_of(entry.number)
        if entry.bumped is False:
            text = (
                "The plug did not bump: the float must hold, and cement may stand high in the shoe track, or not around the "
                "shoe at all. Tag it before the casing is tested."
            )
            yield find(STEP, "caution", place, (*words, " cement"), text)
        if entry.returns in ("partial", "lost") and entry.top_md_ft is None:
            yield find(
                STEP,
                "unknown",
                f"/strings/{index}/cement/top_md_ft",
                (*words, " cement"),
                f"Returns were {entry.returns} while cementing and no top of cement is logged: it is not known.",
            )


def _event_findings(drilled: Drilled) -> Iterator[Finding]:
    told = drilled.told
    for entry in told.about("test"):
        if not entry.passed:
            what: Words = (entry.element,) if entry.element else ("Pressure test",)
            gauge = pressure(entry.pressure_psi or 0.0)
            yield find(STEP, "stop", place_of(entry.number), what, "It did not hold ", gauge, ".")
    for entry in told.about("kick"):
        if entry.drill_pipe_psi is None:
            text = "A kick without shut-in drill pipe pressure: the pore pressure at it is not known."
            yield find(STEP, "unknown", place_of(entry.number), ("Kick at ", depth(entry.md_ft or 0.0)), text)
        elif entry.volume_bbl is not None:
            yield find(
                STEP,
                "note",
                place_of(entry.number),
                ("Kick at ", depth(entry.md_ft or 0.0)),
                volume(entry.volume_bbl),
                " gained. The pore pressure of the plan is raised to what the shut-in well shows.",
            )


def log_assumptions(equipped: Equipped, drilled: Drilled, tests: tuple[Tested, ...]) -> Iterator[Assumption]:
    """What is taken from the plan although it has happened."""
    tested = {test.index for test in tests if test.emw_ppg is not None}
    deep = drilled.today_md_ft or 0.0
    for string in equipped.strings[: drilled.told.drilling]:
        if not string.drilled:
            continue
        if deep > string.shoe_md_ft and string.index not in tested:
            yield _taken(string, "/shoe_md_ft", " shoe: no test of its strength is logged; the plan's holds.")
        if string.index not in drilled.told.cemented:
            yield _taken(string, "/cement/top_md_ft", " cement: no job is logged; it is taken as planned.")


def _taken(string: EquippedString, key: str, text: str) -> Assumption:
    return assume(STEP, f"{string.path}{key}", *string.words, text)
