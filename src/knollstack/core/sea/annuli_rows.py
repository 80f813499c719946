"""Rows of the sealed annuli: what builds up in each, and what that does to the casings around it."""

from __future__ import annotations

from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.pipe.annuli import cemented_up, relief_of, worked
from knollstack.core.pipe.annuli_loads import Annuli, beside, loads_of
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.results import AnnulusRow


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
