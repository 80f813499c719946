"""What a string may be made of: the pipes that fit it, and the ones that the document has decided."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from knollstack.core.catalogue import Catalogue, CatalogueKey
from knollstack.core.pipe.product import Pipe
from knollstack.core.pipe.section import Section
from knollstack.core.program import Planned, Program
from knollstack.core.strings import PipeChoice

Floats = NDArray[np.float64]
H2S_LIMIT_PSI = 0.05
"""Partial pressure of H2S from which sour-service rules apply (NACE MR0175 / ISO 15156-2)."""
SHORTEST_FT = 1.0


def is_sour(program: Program) -> bool | None:
    """Partial pressure of H2S at total depth over the limit; None where H2S or pore pressure is unknown."""
    site, well = program.design.site, program.well
    if site.h2s_ppm is None:
        return None
    pore = well.ground.pore.one(well.path.total_tvd_ft)
    if pore is None:
        return None if site.h2s_ppm else False
    return site.h2s_ppm * 1e-6 * 12 / 231 * pore * well.path.total_tvd_ft >= H2S_LIMIT_PSI


def coldest_f(program: Program, top_md_ft: float) -> float | None:
    """The coldest that pipe from a depth down gets in service; None where temperature is unknown."""
    points = program.well.temperatures
    if not points:
        return None
    depths, values = zip(*points, strict=True)
    top = program.well.path.tvd(top_md_ft)
    return min(float(np.interp(top, depths, values)), *(t for z, t in points if z >= top), values[-1])


def suits_service(program: Program, pipe: Pipe, top_md_ft: float) -> bool | None:
    """Fit for the service from a depth down: sweet, or sour at the coldest there; None where that is unknown."""
    sour = is_sour(program)
    if not sour:
        return True if sour is False else None
    if pipe.grade.sour_from_f is None:
        return False
    if pipe.grade.sour_from_f <= 0:
        return True
    coldest = coldest_f(program, top_md_ft)
    return None if coldest is None else coldest >= pipe.grade.sour_from_f


def next_bit_in(program: Program, string: Planned) -> float:
    """The largest bit that must pass a string."""
    below = program.next(string)
    if below is None:
        return 0.0
    return below.own.opened_from_in or below.bit_in or 0.0


def passes(program: Program, pipe: Pipe, bit_in: float) -> bool:
    drift = pipe.drift_in if program.well.policy.special_drift else pipe.api_drift_in
    return drift >= bit_in - 1e-9


def candidates(
    program: Program, string: Planned, top_md_ft: float | None = None, any_connection: bool = False
) -> list[Pipe]:
    """Pipes of the string's size to choose from, the cheapest first: allowed, passing the next bit, fit for service.

    Fit from the string's top down, or from a section's. Sour service of unknown temperature leaves only what is fit at
    any temperature.
    """
    policy = program.well.policy
    wanted = (string.own.connection,) if string.own.connection else policy.connections
    if any_connection:
        wanted = tuple(c.connection for c in program.catalogue.connections)
    key, bit = CatalogueKey(program.catalogue), next_bit_in(program, string)
    found = _fitting(key, string.od_in or 0.0, bit, wanted, policy.special_drift, policy.choose_from, policy.least)
    if is_sour(program):
        top = string.hung_md_ft if top_md_ft is None else top_md_ft
        return [p for p in found if suits_service(program, p, top)]
    return list(found)


@lru_cache(maxsize=64)
def _fitting(
    key: CatalogueKey,
    od_in: float,
    bit_in: float,
    connections: tuple[str, ...],
    special: bool,
    choose_from: str,
    least: str,
) -> tuple[Pipe, ...]:
    """What `candidates` is but for the service: it does not change while a shoe is dragged."""
    found = [
        p
        for p in key.catalogue.by_od.get(od_in, ())
        if (p.drift_in if special else p.api_drift_in) >= bit_in - 1e-9
        and (p.connection in connections or p.joint.kind == "custom")
        and (choose_from == "catalogue" or p.price_per_ft is not None)
    ]
    return tuple(sorted(found, key=lambda p: (p.weight_ppf, p.cost_per_ft)) if least == "weight" else found)


def held(catalogue: Catalogue, od_in: float | None, choice: PipeChoice) -> Pipe | None:
    """The catalogue's pipe for a choice, None when it is not held."""
    return catalogue.by_key.get((od_in or 0.0, choice.weight_ppf, choice.grade, choice.connection))


def decided_sections(program: Program, string: Planned) -> tuple[Section, ...]:
    """The sections that the document decides, cut at the shoe; empty where none is, or one is not in the catalogue."""
    own, top = string.own, string.hung_md_ft
    choices: list[tuple[PipeChoice, float | None]] = [(s, s.to_md_ft) for s in own.sections]
    if not choices and own.pipe is not None:
        choices = [(own.pipe, None)]
    sections: list[Section] = []
    for i, (choice, to) in enumerate(choices):
        pipe = held(program.catalogue, string.od_in, choice)
        if pipe is None:
            return ()
        last = i == len(choices) - 1 or to is None or to >= string.shoe_md_ft - SHORTEST_FT
        bottom = string.shoe_md_ft if last or to is None else to
        if bottom > top:
            sections.append(Section(top, bottom, pipe))
            top = bottom
        if last:
            break
    return tuple(sections)


def too_cold(program: Program, pipes: list[Pipe], md_ft: Floats) -> NDArray[np.bool_]:
    """Depths, pipe × node, at which a pipe is not fit for the sour service; none where the well is sweet."""
    cold = np.zeros((len(pipes), len(md_ft)), dtype=bool)
    if not is_sour(program):
        return cold
    coldest = [coldest_f(program, float(md)) for md in md_ft]
    for i, pipe in enumerate(pipes):
        limit = pipe.grade.sour_from_f
        if limit is None or limit > 0:
            cold[i] = [limit is None or t is None or t < limit for t in coldest]
    return cold
