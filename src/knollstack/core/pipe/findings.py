"""What is wrong with a string's pipe, by how much, and the nearest pipe that mends it."""

from __future__ import annotations

import numpy as np

from knollstack.core.findings import Amount, Change, Finding, Remedy, Severity, Words
from knollstack.core.pipe.frame import Frame
from knollstack.core.pipe.judge import Judged, stands
from knollstack.core.pipe.order import candidates, coldest_f, decided_sections, is_sour, suits_service
from knollstack.core.pipe.product import Pipe
from knollstack.core.pipe.section import Section
from knollstack.core.pipe.strength import least_shares, may_stand, stand_alone
from knollstack.core.program import Planned, Program
from knollstack.core.results_pipe import LoadResult, PipeRow
from knollstack.core.well import depth, pressure

THIN = 1.05
"""A factor within 5 % of what policy asks is noted."""


def say(program: Program, string: Planned, severity: Severity, message: Words, remedies: tuple[Remedy, ...] = (),
        working: str | None = None) -> None:  # fmt: skip
    program.findings.append(
        Finding(severity=severity, step="pipe", place=f"{string.path}/pipe", subject=(*string.words, " casing"),
                message=message, remedies=remedies, working=working)
    )  # fmt: skip


def choice_of(pipe: Pipe) -> dict[str, object]:
    return {"weight_ppf": pipe.weight_ppf, "grade": pipe.grade.grade, "connection": pipe.connection}


def _change(program: Program, string: Planned, place: int, pipe: Pipe) -> tuple[Change, ...]:
    if string.own.sections:
        to = string.own.sections[place].to_md_ft
        return program.change(string, f"sections/{place}", choice_of(pipe) | {"to_md_ft": to})
    return program.change(string, "pipe", choice_of(pipe))


def mend(program: Program, string: Planned, judged: Judged, place: int, share: float = 1.0) -> tuple[Remedy, ...]:
    """The pipe nearest in cost that, put in one section, makes the whole string stand; tried before it is offered.

    `share` of the factors asked, 1 to stand and more to be no longer thin.
    """
    sections, policy = judged.sections, program.well.policy
    have = sections[place].pipe
    fits = candidates(program, string, sections[place].top_md_ft)
    if len(sections) == 1 and fits:  # all at once, since most or all of them may fail
        least = np.nan_to_num(least_shares(policy, judged.frame, fits), nan=-1.0)
        fits = [p for p, reached in zip(fits, least, strict=True) if reached >= share - 1e-9]
    for pipe in sorted(fits, key=lambda p: (abs(p.cost_per_ft - have.cost_per_ft), p.key)):
        if pipe.key == have.key:
            continue
        trial = tuple(Section(s.top_md_ft, s.bottom_md_ft, pipe) if i == place else s for i, s in enumerate(sections))
        if stands(policy, judged.frame, trial, share):
            label: Words = (f"Use {pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}",)
            return (Remedy(label=label, changes=_change(program, string, place, pipe)),)
    return ()


def other_connection(program: Program, string: Planned, frame: Frame) -> tuple[Remedy, ...]:
    """The cheapest pipe that stands with a connection that policy does not choose from by itself."""
    pipes = may_stand(program.well.policy, frame, candidates(program, string, any_connection=True))
    if not pipes:
        return ()
    ok = np.flatnonzero(stand_alone(program.well.policy, frame, pipes))
    if not len(ok):
        return ()
    pipe = pipes[int(ok[0])]
    label: Words = (f"Use {pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}: {pipe.joint.title}",)
    return (Remedy(label=label, changes=program.change(string, "pipe", choice_of(pipe))),)


def _force(lbf: float) -> Amount:
    return Amount(value=lbf, quantity="force")


def _load_finding(program: Program, judged: Judged, load: LoadResult) -> None:
    string = judged.frame.string
    pressures = load.kind in ("burst", "collapse", "triaxial")
    size = pressure(load.load) if pressures else _force(load.load)
    stress = "The stress" if load.kind == "triaxial" else "The load"
    said: Words = (
        f"{load.name.capitalize()}: {load.kind} factor is {load.factor:.2f} at ", depth(load.at_md_ft),
        f"; policy asks {load.required:.3g}. {stress} is ", size, ", the rating ",
        pressure(load.rating) if pressures else _force(load.rating), ".",
    )  # fmt: skip
    working = f"pipe/{string.index}/{load.kind}"
    if load.factor < load.required - 1e-9:
        say(program, string, "stop", said, mend(program, string, judged, load.section), working)
    elif load.factor < load.required * THIN and (string.own.pipe is not None or string.own.sections):
        say(program, string, "note", said, mend(program, string, judged, load.section, THIN), working)


def judge_string(program: Program, judged: Judged, row: PipeRow) -> None:
    """Unknown loads and ratings, and every factor that is short or thin."""
    string, frame = judged.frame.string, judged.frame
    if frame.missing:
        what = " and ".join(frame.missing)
        say(program, string, "unknown",
            (f"The {what} load is unknown: pore, fracture, overburden, temperature, mud or pipe below is missing.",))  # fmt: skip
    for section in judged.sections:
        if section.pipe.joint_lbf is None or section.pipe.coupling_psi is None or section.pipe.leak_psi is None:
            text = f"Joint ratings of {section.pipe.connection} are unknown: the catalogue holds no thread data for this row."
            say(program, string, "unknown", (text,))
            break
    if judged.unknown("collapse"):
        text = "Collapse is unknown: tension takes over 90 % of the yield, where its equation ends."
        say(program, string, "unknown", (text,))
    for load in row.loads:
        _load_finding(program, judged, load)
    if row.buckles:
        say(program, string, "note", row.buckles)


def pipe_notes(program: Program) -> None:
    """Sour service, and pipes that the catalogue does not hold."""
    if program.design.site.h2s_ppm is None:
        program.findings.append(
            Finding(severity="unknown", step="pipe", place="/site/h2s_ppm", subject=("H2S",),
                    message=("H2S is not given. Grades are judged as sweet.",))
        )  # fmt: skip
    for string in program.strings:
        if is_sour(program) and string.drilled:
            for section in string.sections:
                grade, suits = section.pipe.grade.grade, suits_service(program, section.pipe, section.top_md_ft)
                if suits is False:
                    where: Words = (f"{grade} is not for sour service",)
                    coldest = coldest_f(program, section.top_md_ft)
                    if coldest is not None:
                        where = (*where, " at ", Amount(value=coldest, quantity="temperature"))
                    say(program, string, "stop", (*where, ", the coldest that it gets."))
                elif suits is None:
                    say(
                        program,
                        string,
                        "unknown",
                        (f"Whether {grade} suits the sour service is unknown: no temperature is given.",),
                    )
        choices = string.own.sections or ((string.own.pipe,) if string.own.pipe is not None else ())
        if choices and not decided_sections(program, string):
            names = ", ".join(f"{c.weight_ppf:g} lb/ft {c.grade} {c.connection}" for c in choices if c is not None)
            say(program, string, "unknown", (f"{names} is not in the catalogue for this size.",))
