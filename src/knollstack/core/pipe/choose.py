"""The pipe of each string: the cheapest single weight and grade that stands its loads and lets the next bit through."""

from __future__ import annotations

import numpy as np

from knollstack.core.basics import safety_factor
from knollstack.core.catalogue import Pipe
from knollstack.core.findings import Assumption, Finding, Remedy, Severity, Words
from knollstack.core.pipe.cases import burst_case, collapse_case
from knollstack.core.pipe.loads import burst_load
from knollstack.core.pipe.ratings import (
    equivalent_external_pressure,
    pipe_body_yield,
    pipe_collapse,
    pipe_internal_yield,
)
from knollstack.core.pipe.stand import (
    Loads,
    axial_stress_psi,
    build_loads,
    cheapest,
    collapse_shares,
    decided_pipe,
    is_spent,
    sour_grades,
    tension_lbf,
)
from knollstack.core.program import Planned, Program
from knollstack.core.results_pipe import LoadResult, PipeResult, PipeRow
from knollstack.core.well import depth, pressure
from knollstack.core.working import headline


def _burst_result(program: Program, pipe: Pipe, loads: Loads) -> LoadResult | None:
    k = int(np.argmax(loads.burst_psi))
    if loads.burst is None or loads.burst_psi[k] <= 0:
        return None
    string, tvd = loads.string, float(loads.tvd_ft[k])
    with headline(f"pipe/{string.index}/burst"):
        again = burst_case(program, string)
        assert again is not None
        load = burst_load(again.internal_psi(tvd), again.external_psi(tvd))
        rating = pipe_internal_yield(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi)
        factor = safety_factor(rating, load)
    return LoadResult(
        name=loads.burst.name, kind="burst", factor=factor, required=program.well.policy.factors.burst,
        at_md_ft=float(loads.md_ft[k]), load=load, rating=rating, curve_md_ft=tuple(loads.md_ft.tolist()),
        curve_load_psi=tuple(loads.burst_psi.tolist()), curve_rating_psi=(rating,) * len(loads.md_ft),
    )  # fmt: skip


def _collapse_result(program: Program, pipe: Pipe, loads: Loads) -> LoadResult | None:
    rating_curve, load_curve, share = collapse_shares(pipe, loads)
    k = int(np.argmin(share))
    if loads.collapse is None or not np.isfinite(share[k]) or is_spent(pipe, loads):
        return None
    string, tvd = loads.string, float(loads.tvd_ft[k])
    stress = float(axial_stress_psi(pipe, loads, np.array([tvd]))[0])
    with headline(f"pipe/{string.index}/collapse"):
        again = collapse_case(program, string)
        assert again is not None
        load = equivalent_external_pressure(again.external_psi(tvd), again.internal_psi(tvd), pipe.od_in, pipe.wall_in)
        rating = pipe_collapse(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi, stress)
        factor = safety_factor(rating, load)
    return LoadResult(
        name=loads.collapse.name, kind="collapse", factor=factor, required=float(loads.collapse_required[k]),
        at_md_ft=float(loads.md_ft[k]), load=load, rating=rating, curve_md_ft=tuple(loads.md_ft.tolist()),
        curve_load_psi=tuple(load_curve.tolist()), curve_rating_psi=tuple(rating_curve.tolist()),
    )  # fmt: skip


def _tension_result(program: Program, pipe: Pipe, loads: Loads) -> LoadResult | None:
    with headline(f"pipe/{loads.string.index}/tension"):
        load = tension_lbf(program, pipe, loads)
        body = float(pipe_body_yield(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi))
        joint = pipe.joint_strength()
        if joint is None or load <= 0:
            return None
        factor = safety_factor(min(body, joint), load)
    return LoadResult(
        name="running", kind="tension", factor=factor, required=program.well.policy.factors.tension,
        at_md_ft=loads.string.top_md_ft, load=load, rating=min(body, joint),
    )  # fmt: skip


def _row(program: Program, string: Planned, loads: Loads | None) -> PipeRow:
    pipe = string.pipe
    if pipe is None:
        return PipeRow(chosen=string.pipe_choice is not None)
    results: list[LoadResult] = []
    if loads is not None and string.drilled and string.role != "conductor":
        found = (f(program, pipe, loads) for f in (_burst_result, _collapse_result, _tension_result))
        results = [r for r in found if r is not None]
    return PipeRow(
        chosen=string.pipe_choice is not None, weight_ppf=pipe.weight_ppf, grade=pipe.grade.grade,
        connection=pipe.connection, wall_in=pipe.wall_in, id_in=pipe.id_in, drift_in=pipe.drift_in,
        burst_psi=pipe.burst_psi, collapse_psi=pipe.collapse_psi, body_lbf=pipe.body_lbf,
        joint_lbf=pipe.joint_lbf, loads=tuple(results),
    )  # fmt: skip


def _find(program: Program, string: Planned, severity: Severity, message: Words, remedies: tuple[Remedy, ...] = (),
          working: str | None = None) -> None:  # fmt: skip
    program.findings.append(
        Finding(severity=severity, step="pipe", place=f"{string.path}/pipe", subject=(*string.words, " casing"),
                message=message, remedies=remedies, working=working)
    )  # fmt: skip


def _mend(program: Program, string: Planned, loads: Loads) -> tuple[Remedy, ...]:
    pipe = cheapest(program, string, loads)
    if pipe is None:
        return ()
    value = {"weight_ppf": pipe.weight_ppf, "grade": pipe.grade.grade, "connection": pipe.connection}
    label: Words = (f"Use {pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}",)
    return (Remedy(label=label, changes=program.change(string, "pipe", value)),)


def _judge(program: Program, string: Planned, loads: Loads, row: PipeRow) -> None:
    missing = [n for n, case in (("burst", loads.burst), ("collapse", loads.collapse)) if case is None]
    if missing:
        text = f"The {' and '.join(missing)} load is unknown: pore, fracture or mud is missing below this string."
        _find(program, string, "unknown", (text,))
    if string.pipe is not None and is_spent(string.pipe, loads):
        _find(
            program, string, "unknown", ("Collapse is unknown: the string's own weight takes over 90 % of its yield.",)
        )
    if row.joint_lbf is None:
        _find(
            program,
            string,
            "unknown",
            ("Joint strength is unknown: the catalogue holds no thread data for this row.",),
        )
    for load in row.loads:
        if load.factor < load.required - 1e-9:
            where: Words = (" at ", depth(load.at_md_ft)) if load.kind != "tension" else (" at the top",)
            size_of: Words = (pressure(load.load),) if load.kind != "tension" else (f"{load.load / 1000:,.0f},000 lbf",)
            message = (f"{load.name.capitalize()}: {load.kind} factor is {load.factor:.2f}", *where, "; policy asks ",
                       f"{load.required:.3g}. The load is ", *size_of, ".")  # fmt: skip
            _find(
                program,
                string,
                "stop",
                message,
                _mend(program, string, loads),
                f"pipe/{string.index}/{load.kind}",
            )


def pipe_notes(program: Program) -> None:
    """Sour service and pipes not held by the catalogue."""
    site = program.design.site
    if site.h2s_ppm is None:
        program.findings.append(
            Finding(severity="unknown", step="pipe", place="/site/h2s_ppm", subject=("H2S",),
                    message=("H2S is not given. Grades are judged as sweet.",))
        )  # fmt: skip
    grades = sour_grades(program)
    for string in program.strings:
        if string.pipe is not None and grades is not None and string.drilled and string.pipe.grade.grade not in grades:
            message: Words = (
                f"{string.pipe.grade.grade} is not for sour service at the coldest that this string gets.",
            )
            _find(program, string, "stop", message)
        if string.pipe_choice is not None and string.pipe is None:
            choice = string.pipe_choice
            text = (
                f"{choice.weight_ppf:g} lb/ft {choice.grade} {choice.connection} is not in the catalogue for this size."
            )
            _find(program, string, "unknown", (text,))


def choose_pipe(program: Program) -> PipeResult:
    """Pipe and governing loads of every string, innermost first so that each weight drifts the bit below."""
    rows = []
    for string in program.strings:
        loads = build_loads(program, string)
        string.pipe = decided_pipe(program, string)
        if string.pipe_choice is None:
            string.pipe = _propose(program, string, loads)
        row = _row(program, string, loads)
        if string.pipe is not None and loads is not None and string.drilled and string.role != "conductor":
            _judge(program, string, loads, row)
        rows.append(row)
    pipe_notes(program)
    return PipeResult(strings=tuple(rows))


def _propose(program: Program, string: Planned, loads: Loads | None) -> Pipe | None:
    """The cheapest pipe that stands; a conductor, which is not judged here, gets the lightest that drifts."""
    if string.role == "conductor":
        below = program.next(string)
        bit = below.bit_in if below and below.bit_in is not None else 0.0
        fits = [p for p in program.catalogue.by_od.get(string.od_in or 0.0, ()) if p.drift_in >= bit]
        return fits[0] if fits else None
    if loads is None or string.od_in is None:
        _find(program, string, "unknown", ("No pipe can be chosen: mud or size of this string is unknown.",))
        return None
    if loads.burst is None or loads.collapse is None:
        _find(program, string, "unknown", ("No pipe is chosen: a load of this string is unknown.",))
        return None
    pipe = cheapest(program, string, loads)
    if pipe is None and string.od_in in program.catalogue.by_od:
        _find(
            program,
            string,
            "stop",
            ("No pipe of this size in the catalogue stands its loads and lets the next bit through.",),
        )
    if pipe is not None and not string.proposed:
        words = f" casing: {pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}, the cheapest that stands its loads."
        text: Words = (*string.words, words)
        program.assumptions.append(Assumption(step="pipe", place=f"{string.path}/pipe", text=text))
    return pipe
