"""What pressure built up in sealed annuli does to the casings around them, with the columns on either side."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.pipe.annuli import Annulus, annulus_of, around, cemented_up, solved
from knollstack.core.pipe.annuli_formulas import annulus_load
from knollstack.core.pipe.exposure import Beside, Heated, completion_fluid_ppg
from knollstack.core.program.equipped import Equipped, EquippedString


@dataclass(frozen=True, eq=False)
class Annuli:
    """All annuli between strings to the wellhead, from the innermost outwards, and the pressure built up in each."""

    pairs: tuple[tuple[EquippedString, EquippedString], ...]
    annuli: tuple[Annulus | None, ...]
    pressure_psi: tuple[float | None, ...]


@remembered(8)
def annuli_of(equipped: Equipped) -> Annuli:
    pairs, share = tuple(around(equipped)), equipped.well.policy.sea.heat_share
    found = tuple(annulus_of(equipped, inner, outer, share**k) for k, (inner, outer) in enumerate(pairs))
    return Annuli(pairs, found, tuple(solved(equipped.well, list(found))))


def beside(found: Annuli, k: int) -> tuple[float, float]:
    """Pressure built up inside the inner casing of an annulus, and outside its outer one."""
    inside = found.pressure_psi[k - 1] if k else 0.0
    outside = found.pressure_psi[k + 1] if k + 1 < len(found.pressure_psi) else 0.0
    return inside or 0.0, outside or 0.0


@dataclass(frozen=True)
class CasingLoad:
    """What an annulus does to a casing beside it: pressure over that of the other side at its worst depth, and the rating."""

    psi: float
    rated_psi: float
    at_md_ft: float


def _columns(equipped: Equipped, found: Annuli, k: int) -> tuple[float, float, float]:
    """Densities inside the inner casing, in the annulus, outside the outer casing.

    Inside the producing string stands the packer fluid, outside the last annulus the sea and what came after it.
    """
    inside = found.pairs[k - 1][0].mud_ppg if k else completion_fluid_ppg(equipped.design, equipped.well)
    outside = found.pairs[k + 1][0].mud_ppg if k + 1 < len(found.pairs) else SEA_WATER_PPG
    own = found.pairs[k][0].mud_ppg or SEA_WATER_PPG
    return inside or own, own, outside or own


def loads_of(equipped: Equipped, found: Annuli, k: int) -> tuple[CasingLoad, CasingLoad] | None:
    """Collapse of the inner casing and burst of the outer one, with the columns on either side; None where unknown."""
    annulus, own = found.annuli[k], found.pressure_psi[k]
    if annulus is None or own is None:
        return None
    (inside, outside), (light, ppg, beyond) = beside(found, k), _columns(equipped, found, k)
    tvd = equipped.well.path.tvd
    with headline(f"sea/annulus_loads/{annulus.inner.index}"):
        collapse = _worst(annulus, annulus.inner, "collapse_psi", own - inside, ppg - light, tvd)
        burst = _worst(annulus, annulus.outer, "burst_psi", own - outside, ppg - beyond, tvd)
    return collapse, burst


def _worst(
    annulus: Annulus, string: EquippedString, key: str, built_psi: float, over_ppg: float, tvd: Callable[[float], float]
) -> CasingLoad:
    """At the ends of each section beside the annulus: the load is straight in depth, the rating that of the section."""
    tried = []
    for section in string.sections:
        if section.top_md_ft >= annulus.bottom_md_ft:
            continue
        for md in (max(section.top_md_ft, annulus.top_md_ft), min(section.bottom_md_ft, annulus.bottom_md_ft)):
            load = built_psi + PSI_PER_PPG_FT * over_ppg * tvd(md)
            tried.append((load / float(getattr(section.pipe, key)), load, float(getattr(section.pipe, key)), md))
    _, load, rated, md = max(tried)
    return CasingLoad(float(annulus_load(built_psi, over_ppg, tvd(md))), rated, md)


@remembered(8)
def heated_of(equipped: Equipped) -> dict[int, Heated]:
    """By string, both of its sides with what heat builds up there; none on land, where an annulus is bled off."""
    if equipped.well.site.setting != "subsea":
        return {}
    found, policy = annuli_of(equipped), equipped.well.policy
    if not found.pairs or not equipped.well.temperatures:  # without temperatures all heat is unknown, and told
        return {}
    chain = [found.pairs[0][0], *(outer for _, outer in found.pairs)]
    sides = [Beside(completion_fluid_ppg(equipped.design, equipped.well), 0.0, chain[0].shoe_md_ft)]
    for (inner, _), annulus, psi in zip(found.pairs, found.annuli, found.pressure_psi, strict=True):
        bottom = inner.hung_md_ft if annulus is None else annulus.bottom_md_ft
        built = 0.0 if annulus is None and cemented_up(inner) else psi
        sides.append(Beside(inner.mud_ppg or SEA_WATER_PPG, built, bottom))
    sides.append(Beside(SEA_WATER_PPG, 0.0, chain[-1].shoe_md_ft))
    share = policy.sea.heat_share
    return {s.index: Heated(sides[k], sides[k + 1], share**k) for k, s in enumerate(chain)}
