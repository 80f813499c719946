"""The pipe of each string: the cheapest single weight and grade that stands its loads and lets the next bit through."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import safety_factor, steel_area_in2
from knollstack.core.catalogue import Pipe
from knollstack.core.pipe.cases import LoadCase, burst_case, collapse_case
from knollstack.core.pipe.loads import burst_load, hung_weight, running_tension
from knollstack.core.pipe.ratings import (
    equivalent_external_pressure,
    pipe_body_yield,
    pipe_collapse,
    pipe_internal_yield,
)
from knollstack.core.program import Planned, Program
from knollstack.core.results import Finding, LoadResult, PipeResult, PipeRow, Remedy, Severity, Words
from knollstack.core.well import depth, pressure
from knollstack.core.working import headline

Floats = NDArray[np.float64]
POINTS = 41
H2S_LIMIT_PSI = 0.05
"""Partial pressure of H2S from which sour-service rules apply (NACE MR0175 / ISO 15156-2)."""


@dataclass(frozen=True)
class Loads:
    """What one string must stand, on depths along it."""

    string: Planned
    tvd_ft: Floats
    md_ft: Floats
    burst: LoadCase | None
    collapse: LoadCase | None
    mud_ppg: float
    collapse_required: Floats
    burst_psi: Floats
    external_psi: Floats
    internal_psi: Floats

    @property
    def hung_tvd_ft(self) -> float:
        """Vertical length that hangs."""
        return float(self.tvd_ft[-1] - self.tvd_ft[0])


def build_loads(program: Program, string: Planned) -> Loads | None:
    """Loads of a string; None where its mud is unknown."""
    if string.mud_ppg is None:
        return None
    path, factors = program.well.path, program.well.policy.factors
    burst, collapse = burst_case(program, string), collapse_case(program, string)
    top, shoe = path.tvd(string.top_md_ft), path.tvd(string.shoe_md_ft)
    marks = [z for case in (burst, collapse) if case for z in case.marks_tvd_ft if top < z < shoe]
    marks += [z for z in program.well.window.depths_ft if top < z < shoe]
    tvd = np.unique(np.concatenate([np.linspace(top, shoe, POINTS), marks]))
    md = path.md_at(tvd)
    cemented = string.cement_top_md_ft is not None
    required = np.full(tvd.shape, factors.collapse)
    if cemented and string.cement_top_md_ft is not None:
        required[md >= string.cement_top_md_ft] = factors.collapse_cemented
    zero = np.zeros(tvd.shape)
    return Loads(
        string=string,
        tvd_ft=tvd,
        md_ft=md,
        burst=burst,
        collapse=collapse,
        mud_ppg=string.mud_ppg,
        collapse_required=required,
        burst_psi=burst_load(burst.internal_psi(tvd), burst.external_psi(tvd)) if burst else zero,
        external_psi=collapse.external_psi(tvd) if collapse else zero,
        internal_psi=collapse.internal_psi(tvd) if collapse else zero,
    )


def axial_stress_psi(pipe: Pipe, loads: Loads, tvd_ft: Floats) -> Floats:
    """Axial stress of the string hung in its mud by the pressure-area method, compression negative."""
    area = steel_area_in2(pipe.od_in, pipe.id_in)
    shoe = loads.tvd_ft[-1]
    return (pipe.weight_ppf * (shoe - tvd_ft) - 12 / 231 * loads.mud_ppg * shoe * area) / area


def tension_lbf(program: Program, pipe: Pipe, loads: Loads) -> float:
    """Greatest tension while running, at the top of the string."""
    area = steel_area_in2(pipe.od_in, pipe.id_in)
    weight = hung_weight(pipe.weight_ppf, loads.hung_tvd_ft, loads.mud_ppg, area)
    return running_tension(weight, program.well.policy.overpull_lbf)


def _collapse_shares(pipe: Pipe, loads: Loads) -> tuple[Floats, Floats, Floats]:
    """Collapse rating and load along the string, and safety factor over required factor."""
    stress = np.minimum(axial_stress_psi(pipe, loads, loads.tvd_ft), 0.999 * pipe.grade.yield_psi)
    rating = np.asarray(pipe_collapse(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi, stress))
    load = np.asarray(equivalent_external_pressure(loads.external_psi, loads.internal_psi, pipe.od_in, pipe.wall_in))
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.where(load > 0, rating / np.where(load > 0, load, 1) / loads.collapse_required, np.inf)
    return rating, load, share


def stands(program: Program, pipe: Pipe, loads: Loads) -> bool:
    """The pipe stands every load with the policy's factors; an unknown joint does not."""
    factors = program.well.policy.factors
    if float(np.max(loads.burst_psi)) * factors.burst > pipe.burst_psi:
        return False
    joint = pipe.joint_lbf
    if joint is None or min(joint, pipe.body_lbf) < factors.tension * tension_lbf(program, pipe, loads):
        return False
    return bool(np.min(_collapse_shares(pipe, loads)[2]) >= 1)


def sour_grades(program: Program) -> set[str] | None:
    """Grades fit for sour service at the coldest the string gets; None when the well is sweet or not known sour."""
    site, well = program.design.site, program.well
    pore = well.ground.pore.one(well.path.total_tvd_ft)
    if not site.h2s_ppm or pore is None:
        return None
    partial = site.h2s_ppm * 1e-6 * 12 / 231 * pore * well.path.total_tvd_ft
    if partial < H2S_LIMIT_PSI:
        return None
    coldest = site.surface_temperature_f if site.surface_temperature_f is not None else 0.0
    return {g.grade for g in program.catalogue.grades if g.sour_from_f is not None and g.sour_from_f <= coldest}


def cheapest(program: Program, string: Planned, loads: Loads) -> Pipe | None:
    """The first pipe in order of cost that drifts the next bit, suits the service and stands the loads."""
    below = program.next(string)
    bit = below.bit_in if below and below.bit_in is not None else 0.0
    grades = sour_grades(program)
    for pipe in program.catalogue.by_od.get(string.od_in or 0.0, ()):
        if (
            pipe.drift_in >= bit - 1e-9
            and (grades is None or pipe.grade.grade in grades)
            and stands(program, pipe, loads)
        ):
            return pipe
    return None


def decided_pipe(program: Program, string: Planned) -> Pipe | None:
    """The catalogue's pipe for the document's choice, None when it is not held."""
    choice = string.pipe_choice
    if choice is None:
        return None
    for pipe in program.catalogue.by_od.get(string.od_in or 0.0, ()):
        if (pipe.weight_ppf, pipe.grade.grade, pipe.connection) == (
            choice.weight_ppf,
            choice.grade,
            choice.connection,
        ):
            return pipe
    return None


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
    rating_curve, load_curve, share = _collapse_shares(pipe, loads)
    k = int(np.argmin(share))
    if loads.collapse is None or not np.isfinite(share[k]):
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
    pipe = cheapest(program, string, loads)
    if pipe is None and string.od_in in program.catalogue.by_od:
        _find(
            program,
            string,
            "stop",
            ("No pipe of this size in the catalogue stands its loads and lets the next bit through.",),
        )
    return pipe
