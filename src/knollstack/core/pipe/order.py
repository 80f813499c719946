"""What a string may be made of: the pipes that fit it, and the ones that the document has decided."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.strings import PipeChoice
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.formulas import partial_pressure
from knollstack.core.program.laid import LaidString
from knollstack.core.program.section import Section

Floats = NDArray[np.float64]
H2S_LIMIT_PSI = 0.05
"""Partial pressure of H2S from which sour-service rules apply (NACE MR0175 / ISO 15156-2)."""
SHORTEST_FT = 1.0


@remembered(32)
def is_sour(well: Well) -> bool | None:
    """Partial pressure of H2S at total depth over the limit; None where H2S or pore pressure is unknown."""
    h2s, tvd = well.site.h2s_ppm, well.path.total_tvd_ft
    if h2s is None:
        return None
    pore = well.ground.pore.one(tvd)
    if pore is None:
        return None if h2s else False
    return bool(partial_pressure(h2s * 1e-6, hydrostatic_pressure(pore, tvd)) >= H2S_LIMIT_PSI)


def coldest_f(well: Well, top_md_ft: float) -> float | None:
    """The coldest that pipe from a depth down gets in service; None where temperature is unknown."""
    points = well.temperatures
    if not points:
        return None
    depths, values = zip(*points, strict=True)
    top = well.path.tvd(top_md_ft)
    return min(float(np.interp(top, depths, values)), *(t for z, t in points if z >= top), values[-1])


def suits_service(well: Well, pipe: Pipe, top_md_ft: float) -> bool | None:
    """Fit for the service from a depth down: sweet, or sour at the coldest there; None where that is unknown."""
    sour = is_sour(well)
    if not sour:
        return True if sour is False else None
    if pipe.grade.sour_from_f is None:
        return False
    if pipe.grade.sour_from_f <= 0:
        return True
    coldest = coldest_f(well, top_md_ft)
    return None if coldest is None else coldest >= pipe.grade.sour_from_f


def passes(special_drift: bool, pipe: Pipe, bit_in: float) -> bool:
    drift = pipe.drift_in if special_drift else pipe.api_drift_in
    return drift >= bit_in - 1e-9


def candidates(
    well: Well,
    catalogue: Catalogue,
    string: LaidString,
    exposed: Exposure,
    *,
    top_md_ft: float | None = None,
    any_connection: bool = False,
) -> tuple[Pipe, ...]:
    """Pipes of the string's size to choose from, the cheapest first: allowed, passing the next bit, fit for service.

    Fit from the string's top down, or from a section's. Sour service of unknown temperature leaves only what is fit at
    any temperature.
    """
    policy, special = well.policy.pipe, well.policy.sizes.special_drift
    wanted = (string.own.connection,) if string.own.connection else policy.connections
    if any_connection:
        wanted = tuple(c.connection for c in catalogue.connections)
    found = _fitting(
        catalogue, string.od_in or 0.0, exposed.next_bit_in, wanted, special, policy.choose_from, policy.least
    )
    if is_sour(well):
        top = string.hung_md_ft if top_md_ft is None else top_md_ft
        return tuple(p for p in found if suits_service(well, p, top))
    return found


@remembered(64)
def _fitting(
    catalogue: Catalogue,
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
        for p in catalogue.by_od.get(od_in, ())
        if passes(special, p, bit_in)
        and (p.connection in connections or p.joint.kind == "custom")
        and (choose_from == "catalogue" or p.price_per_ft is not None)
    ]
    return tuple(sorted(found, key=lambda p: (p.weight_ppf, p.cost_per_ft)) if least == "weight" else found)


def held(catalogue: Catalogue, od_in: float | None, choice: PipeChoice) -> Pipe | None:
    """The catalogue's pipe for a choice, None when it is not held."""
    return catalogue.by_key.get((od_in or 0.0, choice.weight_ppf, choice.grade, choice.connection))


def decided_sections(catalogue: Catalogue, string: LaidString) -> tuple[Section, ...]:
    """The sections that the document decides, cut at the shoe; empty where none is, or one is not in the catalogue."""
    own, top = string.own, string.hung_md_ft
    choices: list[tuple[PipeChoice, float | None]] = [(s, s.to_md_ft) for s in own.sections]
    if not choices and own.pipe is not None:
        choices = [(own.pipe, None)]
    sections: list[Section] = []
    for i, (choice, to) in enumerate(choices):
        pipe = held(catalogue, string.od_in, choice)
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


def too_cold(well: Well, pipes: tuple[Pipe, ...], md_ft: Floats) -> NDArray[np.bool_]:
    """Depths, pipe × node, at which a pipe is not fit for the sour service; none where the well is sweet."""
    cold = np.zeros((len(pipes), len(md_ft)), dtype=bool)
    if not is_sour(well):
        return cold
    coldest = [coldest_f(well, float(md)) for md in md_ft]
    for i, pipe in enumerate(pipes):
        limit = pipe.grade.sour_from_f
        if limit is None or limit > 0:
            cold[i] = [limit is None or t is None or t < limit for t in coldest]
    return cold


def choice_of(pipe: Pipe) -> dict[str, object]:
    """A pipe as the document decides it."""
    return {"weight_ppf": pipe.weight_ppf, "grade": pipe.grade.grade, "connection": pipe.connection}


def pipe_words(pipe: Pipe) -> str:
    return f"{pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}"
