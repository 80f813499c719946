"""What a string must stand, and whether a pipe stands it: loads along the string, ratings, the cheapest choice."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import steel_area_in2
from knollstack.core.catalogue import Pipe
from knollstack.core.pipe.cases import LoadCase, burst_case, collapse_case
from knollstack.core.pipe.loads import burst_load, hung_weight, running_tension
from knollstack.core.pipe.ratings import HIGHEST_STRESS_SHARE, equivalent_external_pressure, pipe_collapse
from knollstack.core.program import Planned, Program

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


def collapse_shares(pipe: Pipe, loads: Loads) -> tuple[Floats, Floats, Floats]:
    """Collapse rating and load along the string, and safety factor over required factor."""
    stress = axial_stress_psi(pipe, loads, loads.tvd_ft)
    highest = HIGHEST_STRESS_SHARE * pipe.grade.yield_psi
    known = pipe_collapse(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi, np.minimum(stress, highest))
    rating = np.where(stress <= highest, known, 0.0)
    load = np.asarray(equivalent_external_pressure(loads.external_psi, loads.internal_psi, pipe.od_in, pipe.wall_in))
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.where(load > 0, rating / np.where(load > 0, load, 1) / loads.collapse_required, np.inf)
    return rating, load, share


def is_spent(pipe: Pipe, loads: Loads) -> bool:
    """The string's own weight brings its top beyond the stress up to which collapse is known."""
    return bool(np.max(axial_stress_psi(pipe, loads, loads.tvd_ft)) > HIGHEST_STRESS_SHARE * pipe.grade.yield_psi)


def stands(program: Program, pipe: Pipe, loads: Loads) -> bool:
    """The pipe stands every load with the policy's factors; an unknown joint does not."""
    factors = program.well.policy.factors
    if float(np.max(loads.burst_psi)) * factors.burst > pipe.burst_psi:
        return False
    joint = pipe.joint_lbf
    if joint is None or min(joint, pipe.body_lbf) < factors.tension * tension_lbf(program, pipe, loads):
        return False
    return bool(np.min(collapse_shares(pipe, loads)[2]) >= 1)


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
