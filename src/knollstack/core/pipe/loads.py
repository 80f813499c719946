"""Pressures that a string sees: gas columns and lost returns. Textbook casing design."""

from __future__ import annotations

import numpy as np

from knollstack.core.constants import RANKINE_AT_0_F
from knollstack.core.formula import Value, formula, plain_value

CASING_DESIGN = "Textbook casing design"


@formula(
    "p_top = p_b·exp(−0.01875·SG·H/(z·T)), T in °R",
    "psi",
    "Static gas column, real gas with mean z and T",
    ("bottom_psi >= 0", "height_ft >= 0", "gas_sg > 0", "z > 0", "temperature_f > -459"),
)
def gas_column_top(bottom_psi: Value, height_ft: Value, gas_sg: Value, z: Value, temperature_f: Value) -> Value:
    """Pressure at the top of a gas column."""
    rankine = np.asarray(temperature_f) + RANKINE_AT_0_F
    return bottom_psi * np.exp(-0.01875 * gas_sg * height_ft / (z * rankine))


@formula(
    "p = p_b − G_g·H",
    "psi",
    CASING_DESIGN + ", constant gas gradient",
    ("bottom_psi >= 0", "height_ft >= 0", "gas_psi_ft >= 0"),
)
def gas_gradient_top(bottom_psi: Value, height_ft: Value, gas_psi_ft: Value) -> Value:
    """Pressure at the top of a gas column of constant gradient."""
    return bottom_psi - gas_psi_ft * height_ft


@formula(
    "h = D_z·(1 − P/ρ), not below 0",
    "ft",
    CASING_DESIGN + ": the remaining mud balances the pore pressure of the loss zone",
    ("zone_tvd_ft > 0", "pore_ppg > 0", "mud_ppg > 0"),
)
def loss_level(zone_tvd_ft: Value, pore_ppg: Value, mud_ppg: Value) -> Value:
    """Depth to which the mud level falls when returns are lost."""
    fall = zone_tvd_ft * (1 - np.asarray(pore_ppg) / mud_ppg)
    level = np.maximum(fall, 0)
    return plain_value(level)


@formula("F = W + F_o", "lbf", CASING_DESIGN, ("overpull_lbf >= 0",))
def running_tension(weight_lbf: Value, overpull_lbf: Value) -> Value:
    """Greatest tension while running: hung weight plus overpull."""
    return weight_lbf + overpull_lbf


@formula(
    "p = A/2 + √(A²/4 + (12/231)·ρ·V·P_f/c − G_i·V·P_f/c), A = P_f − (12/231)·ρ·(D_b − D)",
    "psi",
    CASING_DESIGN + ": Boyle, one bubble circulated out with the mud in the hole",
    ("formation_psi > 0", "mud_ppg > 0", "kick_bbl > 0", "annulus_bbl_ft > 0", "depth_tvd_ft >= 0"),
)
def kick_top_pressure(
    formation_psi: Value,
    mud_ppg: Value,
    section_tvd_ft: Value,
    depth_tvd_ft: Value,
    kick_bbl: Value,
    annulus_bbl_ft: Value,
    influx_psi_ft: Value,
) -> Value:
    """Pressure at the top of a kick when it has been circulated up to a depth; the greatest that depth sees.

    Validity: the annulus is taken as one capacity, and the bubble as not longer than the well.
    """
    mud_psi_ft = 12 / 231 * mud_ppg
    alone = formation_psi - mud_psi_ft * (section_tvd_ft - depth_tvd_ft)
    bubble = (mud_psi_ft - influx_psi_ft) * kick_bbl * formation_psi / annulus_bbl_ft
    return alone / 2 + np.sqrt(alone**2 / 4 + bubble)


@formula("p = p_0 + G_g·D", "psi", CASING_DESIGN, ("surface_psi >= 0", "gas_psi_ft >= 0", "tvd_ft >= 0"))
def gas_pressure(surface_psi: Value, gas_psi_ft: Value, tvd_ft: Value) -> Value:
    """Pressure in a gas column below a surface pressure."""
    return surface_psi + gas_psi_ft * tvd_ft


@formula("p = p_0 + (12/231)·ρ·D", "psi", CASING_DESIGN, ("surface_psi >= 0", "mud_ppg >= 0", "tvd_ft >= 0"))
def pressure_under(surface_psi: Value, mud_ppg: Value, tvd_ft: Value) -> Value:
    """Pressure in a fluid column below a surface pressure."""
    return surface_psi + 12 / 231 * mud_ppg * tvd_ft


@formula("Δp = pᵢ − pₒ", "psi", CASING_DESIGN)
def burst_load(internal_psi: Value, external_psi: Value) -> Value:
    """Burst load: internal less external pressure."""
    return internal_psi - external_psi


@formula(
    "p = min(p_P, p_F), not below 0",
    "psi",
    "Lesser-of school of maximum anticipated surface pressure, textbook",
)
def lesser_surface_pressure(from_pore_psi: Value, from_fracture_psi: Value) -> Value:
    """Maximum anticipated surface pressure: what the formation can feed, unless the shoe breaks down first."""
    return float(np.maximum(np.minimum(from_pore_psi, from_fracture_psi), 0))
