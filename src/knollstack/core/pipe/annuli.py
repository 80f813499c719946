"""Sealed annuli that production heats: pressure built up in all of them together, and what lets it go.

Fluid expands by heat and is pressed by its own pressure; both casings of an annulus move by heat and by the pressures on
either side of them, so that all annuli are solved at once. Pipe is held in length. An annulus whose cement stops under the
shoe of the casing around it is open to the rock there; a rupture disk opens it to the annulus outside.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import Pipe
from knollstack.core.document.sea import AnnulusRelief
from knollstack.core.ground.extremes import nodes_between, worst_depth
from knollstack.core.ground.well import Well
from knollstack.core.pipe.annuli_formulas import annulus_growth, radial_strain, sealed_annulus_pressure
from knollstack.core.pipe.heat import produced
from knollstack.core.program.equipped import Equipped, EquippedString

Floats = NDArray[np.float64]
ATMOSPHERE_PSI = 14.7
CLOSE_PSI = 0.01
MOST_ROUNDS = 200
LEAST_FT = 1.0


@dataclass(frozen=True, eq=False)
class Annulus:
    """One annulus from the wellhead down to the cement: the casings around it, what fills it, what bounds it."""

    inner: EquippedString
    outer: EquippedString
    top_md_ft: float
    bottom_md_ft: float
    inner_pipe: Pipe
    outer_pipe: Pipe
    heat_f: float
    start_psia: float
    share_gas: float
    sealed: bool
    relief: str
    shoe_psi: float | None
    """What the rock under the outer shoe stands over the fluid that fills it; None where it is sealed or unknown."""
    disk_psi: float | None


def _pipe_at(string: EquippedString, md_ft: float) -> Pipe | None:
    return next((s.pipe for s in string.sections if md_ft <= s.bottom_md_ft + 1e-6), None)


def around(equipped: Equipped) -> list[tuple[EquippedString, EquippedString]]:
    """Strings to the wellhead, each with the one around it, from the producing one outwards."""
    reach = [s for s in equipped.strings if s.drilled and (s.run != "liner" or s.own.tie_back)]
    return [(inner, outer) for outer, inner in itertools.pairwise(reach)][::-1]


def cemented_up(inner: EquippedString) -> bool:
    """Its annulus is full of cement up to the wellhead: there is nothing that heat could swell."""
    return inner.cement_top_md_ft is not None and inner.cement_top_md_ft <= inner.wellhead_md_ft + LEAST_FT


def relief_of(equipped: Equipped, string: EquippedString) -> AnnulusRelief:
    given = (row for row in equipped.design.sea.annuli if row.string == string.id)
    return next(given, AnnulusRelief(string=string.id))


def shoe_room_psi(well: Well, inner: EquippedString, shoe_md_ft: float, cement_md_ft: float) -> float | None:
    """What the rock between a shoe and the cement below it stands over the fluid in the annulus, at its weakest depth."""
    if inner.mud_ppg is None:
        return None
    mud = inner.mud_ppg
    low, high = well.path.span(shoe_md_ft, cement_md_ft)

    def over(z: Floats) -> Floats:
        return np.asarray(PSI_PER_PPG_FT * z * (mud - well.ground.fracture.lower_at(z)))

    at = worst_depth(over, nodes_between(well, low, high))
    return None if at is None else max(0.0, -float(over(np.array([at]))[0]))


def annulus_of(equipped: Equipped, inner: EquippedString, outer: EquippedString, heat_share: float) -> Annulus | None:
    """An annulus with all that is known of it; None where it is cemented to the wellhead, or something is unknown."""
    well, relief = equipped.well, relief_of(equipped, inner)
    top, cement = inner.wellhead_md_ft, inner.cement_top_md_ft
    if cement is None or inner.mud_ppg is None:
        return None
    sealed = cement <= outer.shoe_md_ft + 1e-6
    bottom = min(cement, outer.shoe_md_ft)
    middle = (top + bottom) / 2
    pipes = _pipe_at(inner, middle), _pipe_at(outer, middle)
    heat = produced(well, inner, equipped.strings[-1])
    if bottom - top < LEAST_FT or pipes[0] is None or pipes[1] is None or heat is None:
        return None
    share = (middle - inner.hung_md_ft) / max(inner.shoe_md_ft - inner.hung_md_ft, 1.0)
    start = PSI_PER_PPG_FT * inner.mud_ppg * well.path.tvd(middle) + ATMOSPHERE_PSI
    return Annulus(
        inner=inner,
        outer=outer,
        top_md_ft=top,
        bottom_md_ft=bottom,
        inner_pipe=pipes[0],
        outer_pipe=pipes[1],
        heat_f=heat_share * float(heat.along(np.array([share]))[0]),
        start_psia=start,
        share_gas=(relief.share or 0.0) if relief.relief == "compressible fluid" else 0.0,
        sealed=sealed,
        relief=relief.relief,
        shoe_psi=None if sealed else shoe_room_psi(well, inner, outer.shoe_md_ft, cement),
        disk_psi=relief.disk_psi if relief.relief == "rupture disk" else None,
    )


def growth(annulus: Annulus, inside_psi: float, own_psi: float, outside_psi: float) -> float:
    """Change of an annulus's volume over itself by heat and by changes of pressure inside it, in it and outside it."""
    inner, outer = annulus.inner_pipe, annulus.outer_pipe
    at = inner.od_in / 2, outer.id_in / 2
    small = radial_strain(at[0], inner.od_in, inner.id_in, inside_psi, own_psi, annulus.heat_f)
    large = radial_strain(at[1], outer.od_in, outer.id_in, own_psi, outside_psi, annulus.heat_f)
    return float(annulus_growth(at[1], at[0], large, small))


@sweeping()
def solved(well: Well, annuli: list[Annulus | None]) -> list[float | None]:
    """Pressure built up in each annulus, from the innermost outwards; None where it is unknown.

    Each is worked against its neighbours' pressures until none moves; a bound holds it down.
    """
    policy = well.policy.sea
    pressure = [0.0] * len(annuli)
    for _ in range(MOST_ROUNDS):
        moved = 0.0
        for k, annulus in enumerate(annuli):
            if annulus is None:
                continue
            inside = pressure[k - 1] if k else 0.0
            outside = pressure[k + 1] if k + 1 < len(annuli) else 0.0
            now = _balanced(policy.expansion_per_f, policy.compressibility_1_psi, annulus, inside, outside)
            moved = max(moved, abs(now - pressure[k]))
            pressure[k] = now
        if moved < CLOSE_PSI:
            break
    return [None if annulus is None else pressure[k] for k, annulus in enumerate(annuli)]


def _balanced(expansion: float, compressibility: float, annulus: Annulus, inside: float, outside: float) -> float:
    """Its own pressure against given ones: its growth is straight in its pressure, so the swell is taken up by both."""
    at_rest, at_one = growth(annulus, inside, 0.0, outside), growth(annulus, inside, 1000.0, outside)
    liquid = 1 - annulus.share_gas
    swell = liquid * expansion * annulus.heat_f - at_rest
    stiff, start = liquid * compressibility + (at_one - at_rest) / 1000.0, annulus.start_psia
    if swell <= 0:
        return 0.0
    # stiff·x² + (stiff·p₀ + s − swell)·x − swell·p₀ = 0; without gas x = swell/stiff
    b = stiff * start + annulus.share_gas - swell
    found = float((-b + np.sqrt(b**2 + 4 * stiff * swell * start)) / (2 * stiff))
    bounds = [found]
    if annulus.shoe_psi is not None:
        bounds.append(annulus.shoe_psi)
    if annulus.disk_psi is not None:
        bounds.append(annulus.disk_psi + outside)
    return min(bounds)


def worked(well: Well, annulus: Annulus, key: str, pressures: tuple[float, float, float]) -> None:
    """The balance of one annulus by the registered formulas: what its working shows."""
    inside, own, outside = pressures
    policy = well.policy.sea
    with headline(key):
        grown = growth(annulus, inside, own, outside)
        sealed_annulus_pressure(
            policy.expansion_per_f,
            annulus.heat_f,
            grown,
            policy.compressibility_1_psi,
            annulus.share_gas,
            annulus.start_psia,
        )


def opened(annulus: Annulus, well: Well, down_ft: float) -> Annulus | None:
    """The same with its cement stopped so far under the outer shoe; None where the hole is not so deep."""
    cement = annulus.outer.shoe_md_ft + down_ft
    if cement >= annulus.inner.shoe_md_ft:
        return None
    room = shoe_room_psi(well, annulus.inner, annulus.outer.shoe_md_ft, cement)
    return replace(annulus, sealed=False, bottom_md_ft=annulus.outer.shoe_md_ft, shoe_psi=room)
