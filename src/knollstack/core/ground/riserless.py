"""Holes drilled before the riser is on, with returns to the sea floor: sea water above the mudline, mud below it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formulas import equivalent_mud_weight
from knollstack.core.ground.formulas import riserless_pressure
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
MUD_STEP_PPG = 0.1
MOST_MUD_PPG = 14.0


def is_riserless(well: Well, index: int) -> bool:
    """The conductor's hole and that of the first casing at sea are drilled before the riser is on."""
    return well.site.setting == "subsea" and index <= 1


def depths_of(well: Well, top_tvd_ft: float, bottom_tvd_ft: float) -> Floats:
    nodes = well.window.depths_ft
    inside = nodes[(nodes > top_tvd_ft) & (nodes < bottom_tvd_ft)]
    return np.concatenate([[top_tvd_ft], inside, [bottom_tvd_ft]])


def column_emw(well: Well, mud_ppg: float, tvd_ft: Floats) -> Floats:
    """The column as equivalent mud weight from the rig floor."""
    psi = riserless_pressure(mud_ppg, tvd_ft, well.site.rig_floor_ft, well.site.water_depth_ft)
    return np.asarray(equivalent_mud_weight(psi, tvd_ft))


def stands(well: Well, mud_ppg: float, top_tvd_ft: float, bottom_tvd_ft: float) -> bool | None:
    """The column holds the pore pressure and is held by the rock over the open hole; None where unknown."""
    depths = depths_of(well, top_tvd_ft, bottom_tvd_ft)
    column, pore, fracture = (
        column_emw(well, mud_ppg, depths),
        well.ground.pore.at(depths),
        well.ground.fracture.at(depths),
    )
    if np.any(np.isnan(pore)) or np.any(np.isnan(fracture)):
        return None
    return bool(np.all(column >= pore - 1e-9) and np.all(column <= fracture + 1e-9))


def planned_ppg(well: Well, top_tvd_ft: float, bottom_tvd_ft: float) -> float | None:
    """Sea water where it stands, else the least weight in tenths that does; None where none is known to."""
    mud = SEA_WATER_PPG
    while mud <= MOST_MUD_PPG:
        if stands(well, mud, top_tvd_ft, bottom_tvd_ft):
            return mud
        mud = round(np.floor(mud * 10) / 10 + MUD_STEP_PPG, 2)
    return None
