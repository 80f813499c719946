"""Kick tolerance at the shoe of a string while the next section is drilled."""

from __future__ import annotations

import math

import numpy as np

from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.depths.bubble import OpenHole, open_hole, tolerance_of
from knollstack.core.depths.formulas import formation_pressure, full_gas_margin, full_gas_shoe_pressure, maasp
from knollstack.core.depths.full_gas import full_gas
from knollstack.core.depths.results import KickDrawing, KickResult
from knollstack.core.depths.tolerance import (
    Least,
    greatest_intensity_ppg,
    known_pairs,
    least_of,
    of_weak_point,
    tolerance_against_depth,
)
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString

CURVE_STEP_FT = 100.0
SAME_FT = 0.01


def kick_drawing(well: Well, string: LaidString, below: LaidString | None) -> KickDrawing:
    """Tolerance for a kick at each depth, on a grid and at every pore point, where the rock limits it."""
    if below is None or string.role == "conductor" or below.bit_in is None or below.mud_ppg is None:
        return KickDrawing(curve_md_ft=(), curve_bbl=(), greatest_intensity_ppg=None)
    shoe, bottom, path = string.shoe_md_ft, below.shoe_md_ft, well.path
    steps = np.concatenate(
        [np.arange(shoe + CURVE_STEP_FT, bottom, CURVE_STEP_FT), path.md_at(well.ground.pore.tvd_ft)]
    )
    depths = np.unique(np.append(steps[(steps > shoe) & (steps < bottom)], bottom))
    hole, asked = open_hole(well, below.bit_in), well.kick_minimum_bbl(below.bit_in)
    found = tolerance_against_depth(well, hole, shoe, below.mud_ppg, depths)
    limited = np.isfinite(found)
    return KickDrawing(
        curve_md_ft=tuple(depths[limited].tolist()),
        curve_bbl=tuple(found[limited].tolist()),
        greatest_intensity_ppg=greatest_intensity_ppg(well, hole, shoe, below.mud_ppg, bottom, asked),
    )


def kick_at_shoe(well: Well, string: LaidString, below: LaidString | None) -> KickResult | None:
    """Kick tolerance at a string's shoe while the next section is drilled; None where there is no such section."""
    if below is None or string.role == "conductor" or below.bit_in is None or below.mud_ppg is None:
        return None
    shoe_tvd, mud = well.path.tvd(string.shoe_md_ft), below.mud_ppg
    fracture, surface = well.ground.fracture.one(shoe_tvd), None
    if fracture is not None:
        with headline(f"depths/{string.index}/maasp"):
            surface = maasp(fracture, mud, shoe_tvd)
    gas_margin, gas_md = _full_gas(well, string, below)
    return KickResult(
        **_tolerance(well, string, below, open_hole(well, below.bit_in), mud),
        required_bbl=well.kick_minimum_bbl(below.bit_in),
        maasp_psi=surface,
        full_gas_margin_psi=gas_margin,
        full_gas_md_ft=gas_md,
    )


def _tolerance(
    well: Well, string: LaidString, below: LaidString, hole: OpenHole, mud_ppg: float
) -> dict[str, float | bool | None]:
    """The least tolerance of the hole, and the shoe's own where another depth is weaker."""
    nothing: dict[str, float | bool | None] = dict.fromkeys(
        ("tolerance_bbl", "limited", "at_md_ft", "height_ft", "weak_md_ft", "at_shoe_bbl")
    )
    pairs = known_pairs(well, string.shoe_md_ft, mud_ppg, below.shoe_md_ft)
    if pairs is None:
        return nothing | {"weak_is_shoe": False}
    least = least_of(well, hole, pairs, mud_ppg)
    if math.isinf(least.volume_bbl):
        return nothing | {"limited": False, "weak_is_shoe": False}
    place, shoe = f"depths/{string.index}/kick_tolerance", well.path.tvd(string.shoe_md_ft)
    with headline(place):
        found = tolerance_of(well, hole.hole_in, least.weak_tvd_ft, mud_ppg, least.kick_tvd_ft)
    is_shoe, own = abs(least.weak_tvd_ft - shoe) < SAME_FT, None
    if not is_shoe:
        own = _at_shoe(well, hole, mud_ppg, least_of(well, hole, of_weak_point(pairs, shoe), mud_ppg), place)
    return {
        "tolerance_bbl": found.volume_bbl,
        "limited": True,
        "at_md_ft": _kick_md_ft(well, least.kick_tvd_ft, below.shoe_md_ft),
        "height_ft": found.height_ft,
        "weak_md_ft": well.path.md(least.weak_tvd_ft),
        "weak_is_shoe": is_shoe,
        "at_shoe_bbl": own,
    }


def _at_shoe(well: Well, hole: OpenHole, mud_ppg: float, least: Least, place: str) -> float | None:
    """The tolerance of the shoe alone; None where no kick breaks it."""
    if math.isinf(least.volume_bbl):
        return None
    with headline(f"{place}_at_shoe"):
        return tolerance_of(well, hole.hole_in, least.weak_tvd_ft, mud_ppg, least.kick_tvd_ft).volume_bbl


def _kick_md_ft(well: Well, kick_tvd_ft: float, bottom_md_ft: float) -> float:
    """Depth of the kick along hole: the end of the hole where it is as deep."""
    at_end = abs(well.path.tvd(bottom_md_ft) - kick_tvd_ft) < SAME_FT
    return bottom_md_ft if at_end else well.path.md(kick_tvd_ft)


def _full_gas(well: Well, string: LaidString, below: LaidString) -> tuple[float | None, float | None]:
    """What the weakest rock below the shoe has over a hole full of gas [psi], and its depth [ft MD]; None if unknown."""
    policy, path = well.policy.depths, well.path
    found = full_gas(well, *path.span(string.shoe_md_ft, below.shoe_md_ft))
    if found is None:
        return None, None
    weak, kick = found.weak_tvd_ft, found.kick_tvd_ft
    with headline(f"depths/{string.index}/full_gas"):
        formation = formation_pressure(float(well.ground.pore.at(kick)), policy.kick_intensity_ppg, kick)
        gas = full_gas_shoe_pressure(formation, kick, weak, policy.influx_psi_ft)
        margin = full_gas_margin(hydrostatic_pressure(float(well.ground.fracture.at(weak)), weak), gas)
    return float(margin), path.md(weak)
