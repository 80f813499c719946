"""Kick tolerance at the shoe of a string while the next section is drilled."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.depths.formulas import formation_pressure, full_gas_margin, full_gas_shoe_pressure, maasp
from knollstack.core.depths.full_gas import full_gas
from knollstack.core.depths.results import KickDrawing, KickResult
from knollstack.core.depths.tolerance import (
    greatest_intensity_ppg,
    kick_depths_md,
    least_kick_md,
    open_hole,
    tolerance_at,
    tolerances,
)
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString

CURVE_STEP_FT = 100.0


def kick_drawing(well: Well, string: LaidString, below: LaidString | None) -> KickDrawing:
    """Tolerance for a kick at each depth, on a grid and at every pore point, where the rock limits it."""
    if below is None or string.role == "conductor" or below.bit_in is None or below.mud_ppg is None:
        return KickDrawing(curve_md_ft=(), curve_bbl=(), greatest_intensity_ppg=None)
    shoe, bottom = string.shoe_md_ft, below.shoe_md_ft
    steps = np.arange(shoe + CURVE_STEP_FT, bottom, CURVE_STEP_FT)
    depths = np.unique(np.concatenate([steps, kick_depths_md(well, shoe, bottom)]))
    hole, asked = open_hole(well, below.bit_in), well.kick_minimum_bbl(below.bit_in)
    found = tolerances(well, hole, np.array([shoe]), np.array([below.mud_ppg]), depths)
    known = np.isfinite(found.volume_bbl[0]) & found.limited[0]
    return KickDrawing(
        curve_md_ft=tuple(depths[known].tolist()),
        curve_bbl=tuple(found.volume_bbl[0][known].tolist()),
        greatest_intensity_ppg=greatest_intensity_ppg(well, hole, shoe, below.mud_ppg, bottom, asked),
    )


def kick_at_shoe(well: Well, string: LaidString, below: LaidString | None) -> KickResult | None:
    """Kick tolerance at a string's shoe while the next section is drilled; None where there is no such section."""
    if below is None or string.role == "conductor" or below.bit_in is None or below.mud_ppg is None:
        return None
    hole, asked = open_hole(well, below.bit_in), well.kick_minimum_bbl(below.bit_in)
    shoe_tvd = well.path.tvd(string.shoe_md_ft)
    worst_md = least_kick_md(well, hole, string.shoe_md_ft, below.mud_ppg, below.shoe_md_ft)
    least = None
    if worst_md is not None:
        with headline(f"depths/{string.index}/kick_tolerance"):
            least = tolerance_at(well, hole, string.shoe_md_ft, below.mud_ppg, worst_md)
    fracture, surface = well.ground.fracture.one(shoe_tvd), None
    if fracture is not None:
        with headline(f"depths/{string.index}/maasp"):
            surface = maasp(fracture, below.mud_ppg, shoe_tvd)
    gas_margin, gas_md = _full_gas(well, string, below)
    return KickResult(
        tolerance_bbl=least.volume_bbl if least else None,
        limited=least is None or least.limited,
        at_md_ft=least.kick_md_ft if least else None,
        required_bbl=asked,
        height_ft=least.height_ft if least else None,
        weak_md_ft=well.path.md(least.weak_tvd_ft) if least else None,
        weak_is_shoe=least is not None and abs(least.weak_tvd_ft - shoe_tvd) < 0.01,
        maasp_psi=surface,
        full_gas_margin_psi=gas_margin,
        full_gas_md_ft=gas_md,
    )


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
