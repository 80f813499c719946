"""Holes drilled before the riser is on, with returns to the sea floor: sea water above the mudline, mud below it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formulas import equivalent_mud_weight
from knollstack.core.ground.extremes import nodes_between, worst_depth
from knollstack.core.ground.formulas import riserless_pressure
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
MUD_STEP_PPG = 0.1
MOST_MUD_PPG = 14.0


def is_riserless(well: Well, index: int) -> bool:
    """The conductor's hole and that of the first casing at sea are drilled before the riser is on."""
    return well.site.setting == "subsea" and index <= 1


def column_psi(well: Well, mud_ppg: float, tvd_ft: Floats) -> Floats:
    """Sea water down to the mudline, mud below it."""
    return np.asarray(riserless_pressure(mud_ppg, tvd_ft, well.site.rig_floor_ft, well.site.water_depth_ft))


def worst_depths(
    well: Well, mud_ppg: float, top_tvd_ft: float, bottom_tvd_ft: float
) -> tuple[float | None, float | None]:
    """TVDs at which the column is most under the pore pressure and most over the fracture pressure; None is unknown."""
    nodes = nodes_between(well, top_tvd_ft, bottom_tvd_ft)
    pore, fracture = well.ground.pore, well.ground.fracture

    def under(z: Floats) -> Floats:
        return np.asarray(PSI_PER_PPG_FT * pore.at(z) * z - column_psi(well, mud_ppg, z))

    def over(z: Floats) -> Floats:
        return np.asarray(column_psi(well, mud_ppg, z) - PSI_PER_PPG_FT * fracture.at(z) * z)

    return worst_depth(under, nodes, as_weight=True), worst_depth(over, nodes, as_weight=True)


def column_emw(well: Well, mud_ppg: float, tvd_ft: float) -> float:
    """The column as equivalent mud weight from the rig floor."""
    return float(equivalent_mud_weight(column_psi(well, mud_ppg, np.asarray(tvd_ft)), tvd_ft))


def stands(well: Well, mud_ppg: float, top_tvd_ft: float, bottom_tvd_ft: float) -> bool | None:
    """The column holds the pore pressure and is held by the rock over the open hole; None where unknown."""
    under, over = worst_depths(well, mud_ppg, top_tvd_ft, bottom_tvd_ft)
    if under is None or over is None:
        return None
    pore, fracture = float(well.ground.pore.at(under)), float(well.ground.fracture.at(over))
    return column_emw(well, mud_ppg, under) >= pore - 1e-9 and column_emw(well, mud_ppg, over) <= fracture + 1e-9


def planned_ppg(well: Well, top_tvd_ft: float, bottom_tvd_ft: float) -> float | None:
    """Sea water where it stands, else the least weight in tenths that does; None where none is known to."""
    mud = SEA_WATER_PPG
    while mud <= MOST_MUD_PPG:
        if stands(well, mud, top_tvd_ft, bottom_tvd_ft):
            return mud
        mud = round(np.floor(mud * 10) / 10 + MUD_STEP_PPG, 2)
    return None
