"""Equations of the ground: fracture estimators, gas columns, the bounds of the mud window, holes open to the sea.

Estimators in gradient terms: Eaton (1969), Hubbert and Willis (1957), Matthews and Kelly (1967).
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import Value, formula

WINDOW = "Textbook mud window: pore plus trip margin to fracture less margin"


@formula(
    "F = P + (S − P)·ν/(1 − ν)",
    "ppg",
    "Eaton, 1969, Fracture Gradient Prediction",
    ("pore_ppg > 0", "overburden_ppg >= pore_ppg", "poisson >= 0", "poisson <= 0.5"),
)
def eaton_fracture(pore_ppg: Value, overburden_ppg: Value, poisson: Value) -> Value:
    """Fracture gradient by Eaton."""
    return pore_ppg + (overburden_ppg - pore_ppg) * poisson / (1 - poisson)


@formula(
    "F = (S + 2P)/3",
    "ppg",
    "Hubbert and Willis, 1957, Mechanics of Hydraulic Fracturing (minimum)",
    ("pore_ppg > 0", "overburden_ppg >= pore_ppg"),
)
def hubbert_willis_fracture(pore_ppg: Value, overburden_ppg: Value) -> Value:
    """Least fracture gradient by Hubbert and Willis."""
    return (overburden_ppg + 2 * pore_ppg) / 3


@formula(
    "F = P + K·(S − P)",
    "ppg",
    "Matthews and Kelly, 1967",
    ("pore_ppg > 0", "overburden_ppg >= pore_ppg", "matrix_stress_ratio >= 0", "matrix_stress_ratio <= 1"),
)
def matthews_kelly_fracture(pore_ppg: Value, overburden_ppg: Value, matrix_stress_ratio: Value) -> Value:
    """Fracture gradient by Matthews and Kelly."""
    return pore_ppg + matrix_stress_ratio * (overburden_ppg - pore_ppg)


@formula(
    "P = ((12/231)·P_c·D_c − G_g·(D_c − D))/((12/231)·D)",
    "ppg",
    "Hydrostatics of a gas column above its contact",
    ("contact_pore_ppg > 0", "tvd_ft > 0", "contact_tvd_ft >= tvd_ft", "gas_psi_ft >= 0"),
)
def gas_column_pore(contact_pore_ppg: Value, contact_tvd_ft: Value, tvd_ft: Value, gas_psi_ft: Value) -> Value:
    """Pore pressure inside a gas column: it falls upward along the gas gradient, so as EMW it rises."""
    contact_psi = PSI_PER_PPG_FT * contact_pore_ppg * contact_tvd_ft
    return (contact_psi - gas_psi_ft * (np.asarray(contact_tvd_ft) - tvd_ft)) / (PSI_PER_PPG_FT * np.asarray(tvd_ft))


@formula("ρ = P + m_t", "ppg", WINDOW, ("pore_ppg > 0", "trip_margin_ppg >= 0"))
def least_mud(pore_ppg: Value, trip_margin_ppg: Value) -> Value:
    """Least mud weight that holds back the pore pressure."""
    return pore_ppg + trip_margin_ppg


@formula("ρ = F − m_f", "ppg", WINDOW, ("fracture_ppg > 0", "fracture_margin_ppg >= 0"))
def greatest_mud(fracture_ppg: Value, fracture_margin_ppg: Value) -> Value:
    """Greatest mud weight that leaves the fracture margin."""
    return fracture_ppg - fracture_margin_ppg


@formula(
    "ρ = P + Δp / ((12/231)·D)",
    "ppg",
    "Overbalance limit against differential sticking, textbook",
    ("pore_ppg > 0", "limit_psi >= 0", "tvd_ft > 0"),
)
def sticking_mud(pore_ppg: Value, limit_psi: Value, tvd_ft: Value) -> Value:
    """Greatest mud weight that stays under the overbalance limit in permeable rock."""
    return pore_ppg + limit_psi / (PSI_PER_PPG_FT * tvd_ft)


@formula(
    "p = (12/231)·(ρ_w·h_w + ρ·(D − h_a − h_w))",
    "psi",
    "Hydrostatics with returns to the sea floor",
    ("mud_ppg > 0", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def riserless_pressure(
    mud_ppg: Value, tvd_ft: Value, air_gap_ft: Value, water_depth_ft: Value, sea_water_ppg: Value = SEA_WATER_PPG
) -> Value:
    """Pressure below the mudline of a hole open to the sea."""
    below = np.maximum(0.0, np.asarray(tvd_ft) - air_gap_ft - water_depth_ft)
    return PSI_PER_PPG_FT * (sea_water_ppg * water_depth_ft + mud_ppg * below)
