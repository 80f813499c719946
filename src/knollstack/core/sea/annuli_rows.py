"""Rows of the sealed annuli: what builds up in each, and what that does to the casings around it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.annuli import Annulus, annulus_of, around, relief_of, solved, worked
from knollstack.core.sea.formulas import annulus_load
from knollstack.core.sea.results import AnnulusRow


@dataclass(frozen=True, eq=False)
class Annuli:
    """All annuli between strings to the wellhead, from the innermost outwards, and the pressure built up in each."""

    pairs: tuple[tuple[EquippedString, EquippedString], ...]
    annuli: tuple[Annulus | None, ...]
    pressure_psi: tuple[float | None, ...]


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
    inside = found.pairs[k - 1][0].mud_ppg if k else equipped.well.policy.pipe.packer_fluid_ppg
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


def cemented_up(inner: EquippedString) -> bool:
    return inner.cement_top_md_ft is not None and inner.cement_top_md_ft <= inner.wellhead_md_ft + 1.0


def row_of(equipped: Equipped, found: Annuli, k: int) -> AnnulusRow | None:
    (inner, outer), annulus, pressure = found.pairs[k], found.annuli[k], found.pressure_psi[k]
    if annulus is None and cemented_up(inner):
        return None
    at = next((i for i, row in enumerate(equipped.design.sea.annuli) if row.string == inner.id), None)
    key, bottom = f"sea/annulus/{inner.index}", min(inner.cement_top_md_ft or outer.shoe_md_ft, outer.shoe_md_ft)
    row = AnnulusRow(
        string=inner.index,
        what=(*inner.words, " in ", *outer.words),
        place=f"{inner.path}/cement/top_md_ft" if at is None else f"/sea/annuli/{at}",
        top_md_ft=inner.wellhead_md_ft,
        bottom_md_ft=bottom,
        relief=relief_of(equipped, inner).relief,
        pressure_psi=pressure,
        working=key,
    )
    loads = loads_of(equipped, found, k)
    if annulus is None or pressure is None or loads is None:
        return row
    inside, outside = beside(found, k)
    worked(equipped.well, annulus, key, (inside, pressure, outside))
    capacity = circle_capacity(annulus.outer_pipe.id_in) - circle_capacity(annulus.inner_pipe.od_in)
    disk = None if annulus.disk_psi is None else annulus.disk_psi + outside
    return row.model_copy(
        update={
            "volume_bbl": float(interval_volume(float(capacity), annulus.bottom_md_ft - annulus.top_md_ft)),
            "heating_f": annulus.heat_f,
            "sealed": annulus.sealed,
            "bound_psi": min((b for b in (annulus.shoe_psi, disk) if b is not None), default=None),
            "collapse_load_psi": loads[0].psi,
            "collapse_psi": loads[0].rated_psi,
            "burst_load_psi": loads[1].psi,
            "burst_psi": loads[1].rated_psi,
        }
    )


def rows_of(equipped: Equipped, found: Annuli) -> tuple[AnnulusRow, ...]:
    rows = (row_of(equipped, found, k) for k in range(len(found.pairs)))
    return tuple(row for row in rows if row is not None)
