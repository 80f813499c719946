"""Hydrostatics and capacities: the arithmetic under every other room.

Sources: textbook hydrostatics with the exact factor 12/231; geometry.
"""

import numpy as np

from knollstack.core.base.constants import BBL_PER_FT_PER_IN2, GAL_PER_FT3, PSI_PER_PPG_FT, STEEL_PPG
from knollstack.core.base.formula import Value, formula

HYDROSTATICS = "Hydrostatics; 1 gal = 231 in³ gives the factor 12/231 psi/(ppg·ft)"
GEOMETRY = "Geometry of the circle; 42 gal/bbl, 231 in³/gal"


@formula("p = (12/231)·ρ·D", "psi", HYDROSTATICS, ("mud_ppg >= 0", "tvd_ft >= 0"))
def hydrostatic_pressure(mud_ppg: Value, tvd_ft: Value) -> Value:
    """Hydrostatic pressure of a fluid column.

    Example: 10.4 ppg at 8,650 ft gives 4,673 psi.

    >>> round(hydrostatic_pressure(mud_ppg=10.4, tvd_ft=8650.0))
    4673
    """
    return PSI_PER_PPG_FT * mud_ppg * tvd_ft


@formula("ρ = p / ((12/231)·D)", "ppg", HYDROSTATICS, ("tvd_ft > 0",))
def equivalent_mud_weight(pressure_psi: Value, tvd_ft: Value) -> Value:
    """Equivalent mud weight of a pressure at a depth."""
    return pressure_psi / (PSI_PER_PPG_FT * tvd_ft)


@formula("c = d² / 1029.42", "bbl/ft", GEOMETRY, ("diameter_in >= 0",))
def circle_capacity(diameter_in: Value) -> Value:
    """Capacity of a hole or pipe bore per foot."""
    return BBL_PER_FT_PER_IN2 * diameter_in**2


@formula("c = (dₒ² − dᵢ²) / 1029.42", "bbl/ft", GEOMETRY, ("inner_in >= 0", "outer_in >= 0", "inner_in <= outer_in"))
def annular_capacity(outer_in: Value, inner_in: Value) -> Value:
    """Capacity of an annulus per foot.

    Example: 12 1/4 in hole around 9 5/8 in casing holds 0.05578 bbl/ft.

    >>> round(annular_capacity(outer_in=12.25, inner_in=9.625), 5)
    0.05578
    """
    return BBL_PER_FT_PER_IN2 * (outer_in**2 - inner_in**2)


@formula("BF = 1 − ρ/ρₛₜ", "", "Archimedes; steel 65.5 ppg", ("mud_ppg >= 0", "mud_ppg < steel_ppg"))
def buoyancy_factor(mud_ppg: Value, steel_ppg: Value = STEEL_PPG) -> Value:
    """Buoyancy factor of steel wholly in one fluid."""
    return 1 - mud_ppg / steel_ppg


@formula("V = c·L·(1 + e)", "bbl", GEOMETRY, ("length_ft >= 0", "capacity_bbl_ft >= 0", "excess >= 0"))
def interval_volume(capacity_bbl_ft: Value, length_ft: Value, excess: Value = 0.0) -> Value:
    """Volume of a length of hole, annulus or pipe, with excess."""
    return capacity_bbl_ft * length_ft * (1 + excess)


@formula("SF = R / Q", "", "Definition of a safety factor", ("load_value > 0", "rating_value >= 0"))
def safety_factor(rating_value: Value, load_value: Value) -> Value:
    """Safety factor: rating over load."""
    return rating_value / load_value


@formula("n = V·5.614583 / y", "sk", "Volume balance; 5.614583 ft³/bbl", ("volume_bbl >= 0", "yield_ft3_sk > 0"))
def sacks(volume_bbl: Value, yield_ft3_sk: Value) -> Value:
    """Sacks of cement for a slurry volume."""
    return volume_bbl * 42 / GAL_PER_FT3 / yield_ft3_sk


def steel_area_in2(od_in: float, id_in: float) -> float:
    """Cross section of steel, in²."""
    return float(np.pi / 4 * (od_in**2 - id_in**2))
