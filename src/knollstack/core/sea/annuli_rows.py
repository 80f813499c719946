"""Rows of the sealed annuli: what builds up in each, and what that does to the casings around it."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.annuli import Annulus, annulus_of, around, relief_of, solved, worked
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


def least_ratings(annulus: Annulus) -> tuple[float, float]:
    """The least collapse rating of the inner casing and the least burst rating of the outer one beside the annulus."""

    def least(string: EquippedString, key: str) -> float:
        beside = (s for s in string.sections if s.top_md_ft < annulus.bottom_md_ft)
        return min(float(getattr(section.pipe, key)) for section in beside)

    return least(annulus.inner, "collapse_psi"), least(annulus.outer, "burst_psi")


def cemented_up(inner: EquippedString) -> bool:
    return inner.cement_top_md_ft is not None and inner.cement_top_md_ft <= inner.wellhead_md_ft + 1.0


def row_of(equipped: Equipped, found: Annuli, k: int) -> AnnulusRow | None:
    (inner, outer), annulus, pressure = found.pairs[k], found.annuli[k], found.pressure_psi[k]
    if annulus is None and cemented_up(inner):
        return None
    at = next((i for i, row in enumerate(equipped.design.sea.annuli) if row.string == inner.id), None)
    key, bottom = f"sea/annulus/{inner.index}", min(inner.cement_top_md_ft or outer.shoe_md_ft, outer.shoe_md_ft)
    place = f"{inner.path}/cement/top_md_ft" if at is None else f"/sea/annuli/{at}"
    row = AnnulusRow(
        string=inner.index,
        what=(*inner.words, " in ", *outer.words),
        place=place,
        top_md_ft=inner.wellhead_md_ft,
        bottom_md_ft=bottom,
        volume_bbl=None,
        heating_f=None,
        sealed=None,
        relief=relief_of(equipped, inner).relief,
        pressure_psi=pressure,
        bound_psi=None,
        collapse_psi=None,
        burst_psi=None,
        working=key,
    )
    if annulus is None or pressure is None:
        return row
    inside, outside = beside(found, k)
    worked(equipped.well, annulus, key, (inside, pressure, outside))
    collapse, burst = least_ratings(annulus)
    capacity = circle_capacity(annulus.outer_pipe.id_in) - circle_capacity(annulus.inner_pipe.od_in)
    bounds = [
        b for b in (annulus.shoe_psi, None if annulus.disk_psi is None else annulus.disk_psi + outside) if b is not None
    ]
    return row.model_copy(
        update={
            "volume_bbl": float(interval_volume(float(capacity), annulus.bottom_md_ft - annulus.top_md_ft)),
            "heating_f": annulus.heat_f,
            "sealed": annulus.sealed,
            "bound_psi": min(bounds, default=None),
            "collapse_psi": collapse,
            "burst_psi": burst,
        }
    )


def rows_of(equipped: Equipped, found: Annuli) -> tuple[AnnulusRow, ...]:
    rows = (row_of(equipped, found, k) for k in range(len(found.pairs)))
    return tuple(row for row in rows if row is not None)
