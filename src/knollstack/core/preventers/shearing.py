"""What shear rams cut, and how a drill string is hung off on the rams below."""

from __future__ import annotations

from knollstack.core.base.formulas import steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.document.policy import DrillString
from knollstack.core.preventers.closing import sea_psi
from knollstack.core.preventers.coverage import Shears, verdict
from knollstack.core.preventers.formulas import (
    design_shear_force,
    hang_off_load,
    shear_force,
    shear_pressure,
    shear_pressure_subsea,
)
from knollstack.core.preventers.results import HangOffRow, ShearRow
from knollstack.core.preventers.stacks import Cavity
from knollstack.core.preventers.tubulars import Tubular, drill_pipe_id_in
from knollstack.core.program.equipped import Equipped, EquippedString

STEEL_LB_IN2_FT = 3.4
"""Weight of a foot of steel of 1 in²."""
BLADES = ("blind shear rams", "casing shear rams")


def shear_rows(
    equipped: Equipped,
    string: EquippedString,
    elements: tuple[Cavity, ...],
    tubulars: tuple[Tubular, ...],
    well_psi: float | None,
) -> tuple[tuple[ShearRow, ...], Shears]:
    """Force and pressure to cut every body, against the operating pressure of the closing unit."""
    rows: list[ShearRow] = []
    cut: Shears = {}
    seen: set[tuple[int, float, float | None, float | None]] = set()
    for cavity in elements:
        if cavity.element not in BLADES:
            continue
        for what in tubulars:
            if what.kind not in ("drill pipe", "casing", "tubing"):
                continue
            key = f"preventers/{string.index}/shear/{cavity.index}/{len(rows)}"
            row = _shear(equipped, cavity, what, well_psi, key)
            cut[cavity.index, what] = row.shears
            alike = (cavity.index, what.od_in, what.id_in, what.yield_psi)
            if alike not in seen:
                seen.add(alike)
                rows.append(row)
    return tuple(rows), cut


def _shear(equipped: Equipped, cavity: Cavity, what: Tubular, well_psi: float | None, key: str) -> ShearRow:
    """Cut where the operator's pressure is enough and the blades are wide enough; unknown where a datum is missing."""
    available = equipped.design.closing_unit.operating_psi
    too_wide = cavity.shears_to_in is not None and what.od_in > cavity.shears_to_in
    force = needed = None
    with headline(key):
        if what.id_in is not None and what.yield_psi is not None:
            body = float(shear_force(what.od_in, what.id_in, what.yield_psi))
            force = float(design_shear_force(body, equipped.well.policy.preventers.shear_factor))
            if cavity.area_in2 is not None and cavity.closing_ratio is not None and well_psi is not None:
                needed = _closing_psi(equipped, cavity, force, well_psi)
    shears = False if too_wide else None if needed is None else needed <= available
    return ShearRow(
        element=cavity.index,
        what=what.words,
        force_lbf=force,
        needed_psi=needed,
        available_psi=available,
        shears=shears,
        widest_in=cavity.shears_to_in if too_wide else None,
        working=key,
    )


def _closing_psi(equipped: Equipped, cavity: Cavity, force_lbf: float, well_psi: float) -> float:
    """Closing pressure that shears: on the sea floor over the weight of the sea, which stands on either side."""
    assert cavity.area_in2 is not None
    assert cavity.closing_ratio is not None
    if equipped.well.site.setting != "subsea":
        return float(shear_pressure(force_lbf, cavity.area_in2, well_psi, cavity.closing_ratio))
    sea = sea_psi(equipped.well)
    return float(shear_pressure_subsea(force_lbf, cavity.area_in2, max(well_psi, sea), sea, cavity.closing_ratio))


def hang_rows(
    equipped: Equipped, string: EquippedString, elements: tuple[Cavity, ...], tops_md_ft: tuple[float | None, ...]
) -> tuple[HangOffRow, ...]:
    """The heaviest drill string of each size on every ram that hangs it, and where its tool joint stands then."""
    rows: list[HangOffRow] = []
    last = max((s.index for s in equipped.laid.strings if _crosses(equipped, string, s.index)), default=None)
    for below in equipped.strings[string.index + 1 : (last or 0) + 1]:
        if below.bit_in is None or below.mud_ppg is None:
            continue
        drill = equipped.well.drill_string(below.bit_in)
        pipe = Tubular((), "drill pipe", (), drill.pipe_od_in)
        for cavity in elements:
            if cavity.kind != "ram" or verdict(cavity, pipe, None) != "seals and hangs":
                continue
            key = f"preventers/{string.index}/hang_off/{cavity.index}/{below.index}"
            with headline(key):
                load = _weight(equipped, drill, below.shoe_md_ft, below.mud_ppg)
            rows.append(
                HangOffRow(
                    element=cavity.index,
                    what=below.hole_words,
                    load_lbf=load,
                    capacity_lbf=cavity.hang_off_lbf,
                    tool_joint_md_ft=tops_md_ft[cavity.index],
                    working=key,
                )
            )
    return tuple(rows)


def _crosses(equipped: Equipped, string: EquippedString, index: int) -> bool:
    """A string drilled through this one's stack: down to the first that reaches surface."""
    between = equipped.strings[string.index + 1 : index]
    return index > string.index and all(s.run == "liner" for s in between)


def _weight(equipped: Equipped, drill: DrillString, length_ft: float, mud_ppg: float) -> float | None:
    usual = equipped.catalogue.drill_pipe_of(drill.pipe_od_in)
    bore = drill_pipe_id_in(equipped.catalogue, drill)
    if usual is not None:
        pipe_ppf = usual.adjusted_ppf
    elif bore is not None:
        pipe_ppf = STEEL_LB_IN2_FT * steel_area_in2(drill.pipe_od_in, bore)
    else:
        return None
    collar_ppf = STEEL_LB_IN2_FT * steel_area_in2(drill.collar_od_in, drill.collar_id_in or 0.0)
    collars = min(drill.collar_length_ft, length_ft)
    return float(hang_off_load(pipe_ppf, length_ft, collar_ppf, collars, mud_ppg))
