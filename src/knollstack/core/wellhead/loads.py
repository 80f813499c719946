"""Loads on the wellhead: on every bowl, on surface casing and conductor, and what growth in production does."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.base.formulas import safety_factor, steel_area_in2
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import Pipe
from knollstack.core.ground.well import Well
from knollstack.core.pipe.heat import produced
from knollstack.core.pipe.hung import stack_weight_lbf
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.formulas import column_buckling, conductor_share, weight_to_mudline, wellhead_growth
from knollstack.core.wellhead.heights import Heights, floor_to_rotary_ft
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import SupportRow
from knollstack.core.wellhead.stages import greatest_psi, stage_pressures

COLUMN = "Conductor, as a free column"
SLENDER_FT = 10.0
"""What stands free for less is no column: compression alone is judged."""
FIXED_FT = 1.0
"""A string cemented to within this of the wellhead holds it."""


def hung_lbf(equipped: Equipped, string: EquippedString) -> float | None:
    """Load of a string on its bowl, as cemented: all that hangs, or down to its mudline hanger."""
    with headline(f"wellhead/hung/{string.index}"):
        if equipped.design.wellhead.mudline_hangers == "none" or equipped.well.site.setting != "platform":
            weight = landed_weight_lbf(equipped.well, string)
            return None if weight is None else max(0.0, weight)
        return _to_mudline_lbf(equipped, string)


def _to_mudline_lbf(equipped: Equipped, string: EquippedString) -> float | None:
    """Weight of the string from the wellhead down to its mudline hanger."""
    bottom = equipped.well.ground_md_ft + equipped.design.wellhead.seabed_hanger_ft
    if not string.sections or string.mud_ppg is None:
        return None
    spans = [(s.pipe.weight_ppf, max(0.0, min(s.bottom_md_ft, bottom) - s.top_md_ft)) for s in string.sections]
    weights, lengths = zip(*spans, strict=True)
    return weight_to_mudline(list(weights), list(lengths), string.mud_ppg)


@dataclass(frozen=True)
class Borne:
    """What stands on surface casing and conductor when every string hangs and preventers stand on top."""

    total_lbf: float | None
    casing_lbf: float | None
    conductor_lbf: float | None
    free_ft: float | None


def _top_pipe(string: EquippedString | None) -> Pipe | None:
    return string.sections[0].pipe if string is not None and string.sections else None


def free_conductor_ft(equipped: Equipped, heights: Heights) -> float | None:
    """Length that stands free: typed, else in the cellar, or from the mudline up to the deck where that is given."""
    given, site = equipped.design.wellhead.free_conductor_ft, equipped.design.site
    if given is not None:
        return given
    if site.setting == "land":
        return max(0.0, heights.conductor_in / 12)
    above = floor_to_rotary_ft(equipped)
    if above is None:
        return None
    return max(0.0, equipped.well.ground_md_ft - above + max(0.0, heights.conductor_in) / 12)


def borne_of(
    equipped: Equipped, pieces: tuple[HeadPiece, ...], heights: Heights, hung: tuple[float | None, ...]
) -> Borne:
    """All that is hung and set on the head, shared by steel area where a base plate stands on the conductor."""
    bearer, outer = _top_pipe(pieces[0].string), _top_pipe(_conductor(equipped))
    free = free_conductor_ft(equipped, heights)
    if bearer is None or any(load is None for load in hung):
        return Borne(None, None, None, free)
    total = sum(load for load in hung if load is not None) + stack_weight_lbf(equipped)
    shares = equipped.well.policy.wellhead.stands_on == "casing and conductor"
    if not shares or not equipped.design.wellhead.base_plate_in or outer is None:
        return Borne(total, total, 0.0, free)
    with headline("wellhead/conductor_load"):
        steel = [steel_area_in2(p.od_in, p.id_in) for p in (bearer, outer)]
        share = float(conductor_share(total, *steel))
    return Borne(total, total - share, share, free)


def _conductor(equipped: Equipped) -> EquippedString | None:
    first = equipped.strings[0] if equipped.strings else None
    return first if first is not None and first.role == "conductor" else None


def load_rows(equipped: Equipped, pieces: tuple[HeadPiece, ...], borne: Borne) -> tuple[SupportRow, ...]:
    """Casing and conductor under what they carry, as a free column, and under pressure on the diverter."""
    policy, outer = equipped.well.policy.wellhead, _conductor(equipped)
    bearer, conductor = _top_pipe(pieces[0].string), _top_pipe(outer)
    rows: list[SupportRow] = []
    if bearer is not None:
        carries = min(bearer.body_lbf, bearer.joint_lbf or bearer.body_lbf)
        asked = equipped.well.policy.pipe.factors.compression
        rows.append(_row("Surface casing, top", borne.casing_lbf, carries, asked, None))
    stands = conductor if borne.conductor_lbf else bearer
    if conductor is not None and borne.conductor_lbf:
        key = "wellhead/conductor_load"
        rows.append(
            _row("Conductor, compression", borne.conductor_lbf, conductor.body_lbf, policy.conductor_factor, key)
        )
    if stands is not None and borne.free_ft is None:
        rows.append(
            SupportRow(what=COLUMN, load=None, rating=None, quantity="force", factor=None, asked=None, working=None)
        )
    if stands is not None and borne.free_ft is not None and borne.free_ft >= SLENDER_FT:
        with headline("wellhead/column"):
            most = float(column_buckling(stands.od_in, stands.id_in, borne.free_ft, policy.end_factor))
        load = borne.conductor_lbf or borne.casing_lbf
        title = COLUMN if stands is conductor else "Surface casing, as a free column"
        rows.append(_row(title, load, most, policy.buckling, "wellhead/column"))
    if outer is not None and conductor is not None:
        reached = greatest_psi(stage_pressures(equipped, outer))
        asked = equipped.well.policy.pipe.factors.burst
        key = f"wellhead/{outer.index}/surface_pressure"
        rows.append(_row("Conductor, shut in at the diverter", reached, conductor.burst_psi, asked, key, "pressure"))
        if outer.run == "driven":
            rows.append(_row("Conductor, driven: most at the hammer", None, DRIVEN * conductor.body_lbf, None, None))
    return tuple(rows)


DRIVEN = 0.9
"""Stress in driving over yield that pipe stands, as common in pile driving."""


def _row(
    what: str, load: float | None, rating: float, asked: float | None, working: str | None, quantity: str = "force"
) -> SupportRow:
    factor = float(safety_factor(rating, load)) if load else None
    return SupportRow(
        what=what,
        load=load,
        rating=rating,
        quantity="pressure" if quantity == "pressure" else "force",
        factor=factor,
        asked=asked,
        working=working,
    )


@dataclass(frozen=True)
class Growth:
    """Rise of the wellhead [in] in production, and the force [lbf] on the top of each string fixed to it."""

    growth_in: float
    force_lbf: dict[int, float]


def growth_of(equipped: Equipped, pieces: tuple[HeadPiece, ...]) -> Growth | None:
    """None where a temperature, a pipe or a top of cement is unknown, or nothing is produced."""
    fixed = tuple(s for s in (pieces[0].string, *(s for p in pieces for s in p.holds)) if s is not None)
    last = equipped.strings[-1] if equipped.strings else None
    if not fixed or last is None or any(not s.sections or s.cement_top_md_ft is None for s in fixed):
        return None
    above = floor_to_rotary_ft(equipped) or 0.0
    head_md = equipped.well.ground_md_ft if equipped.well.site.setting == "land" else above
    return _growth(equipped.well, fixed, last, head_md)


@remembered(64, traced=True)
def _growth(well: Well, fixed: tuple[EquippedString, ...], last: EquippedString, head_md_ft: float) -> Growth | None:
    od, bore, free, warm = [], [], [], []
    for string in fixed:
        heat, cement = produced(well, string, last), string.cement_top_md_ft
        if heat is None or cement is None:
            return None
        length = max(0.0, cement - head_md_ft)
        share = length / max(1.0, string.shoe_md_ft - string.hung_md_ft)
        pipe = string.sections[0].pipe
        od.append(pipe.od_in)
        bore.append(pipe.id_in)
        free.append(length)
        warm.append(float(np.mean(heat.along(np.array([0.0, share])))))
    held = min(free) < FIXED_FT
    with headline("wellhead/growth"):
        lengths = np.array([max(length, FIXED_FT) for length in free])
        found = wellhead_growth(np.array(od), np.array(bore), lengths, np.array(warm))
    forces = np.atleast_1d(np.asarray(found["force_lbf"], dtype=float))
    growth = 0.0 if held else float(found["growth_in"])
    return Growth(growth, {s.index: float(f) for s, f in zip(fixed, forces, strict=True)})
