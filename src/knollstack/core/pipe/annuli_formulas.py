"""Arithmetic of sealed annuli that production heats: casings that move, fluid that swells, and what they see."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, STEEL_MODULUS_PSI
from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.pipe.formulas import EXPANSION_PER_F, POISSON

LAME = "Lamé: thick cylinder held in length (plane strain)"


@formula(
    "u/r = (1 + ν)·α·ΔT + (1 + ν)/E·((1 − 2ν)·(pᵢ·a² − pₒ·b²) + (pᵢ − pₒ)·a²·b²/r²)/(b² − a²),  a = dᵢ/2, b = d/2",
    "",
    LAME + ", heated evenly",
    ("od_in > 0", "id_in > 0", "id_in < od_in", "radius_in > 0"),
)
def radial_strain(
    radius_in: Value, od_in: Value, id_in: Value, inside_psi: Value, outside_psi: Value, heat_f: Value
) -> Value:
    """Change of a radius of casing over itself by changes of pressure and temperature."""
    a2, b2 = np.asarray(id_in) ** 2 / 4, np.asarray(od_in) ** 2 / 4
    even = (1 - 2 * POISSON) * (inside_psi * a2 - outside_psi * b2)
    hoop = (inside_psi - outside_psi) * a2 * b2 / np.asarray(radius_in) ** 2
    pressed = (1 + POISSON) / STEEL_MODULUS_PSI * (even + hoop) / (b2 - a2)
    return plain_value((1 + POISSON) * EXPANSION_PER_F * heat_f + pressed)


@formula(
    "ΔV/V = 2·(R²·u_R/R − r²·u_r/r)/(R² − r²)",
    "",
    "Geometry of a ring whose length is held",
    ("outer_radius_in > 0", "inner_radius_in > 0", "inner_radius_in < outer_radius_in"),
)
def annulus_growth(outer_radius_in: Value, inner_radius_in: Value, outer_strain: Value, inner_strain: Value) -> Value:
    """Change of an annulus's volume over itself by the radial strains of the two casings around it."""
    outer, inner = np.asarray(outer_radius_in) ** 2, np.asarray(inner_radius_in) ** 2
    return plain_value(2 * (outer * outer_strain - inner * inner_strain) / (outer - inner))


@formula(
    "Δp = Δp_own + (12/231)·Δρ·z",
    "psi",
    "Hydrostatics: pressure built up, and the columns on either side of a casing",
    ("at_tvd_ft >= 0",),
)
def annulus_load(built_psi: Value, over_ppg: Value, at_tvd_ft: Value) -> Value:
    """Pressure on a casing from an annulus over that of its other side."""
    return built_psi + PSI_PER_PPG_FT * over_ppg * at_tvd_ft


@formula(
    "Δp = ((1 − s)·α·ΔT − ΔV/V)/((1 − s)·c + s/(p₀ + Δp));  without gas (α·ΔT − ΔV/V)/c",
    "psi",
    "Volume balance of a sealed annulus; gas by Boyle's law at its own temperature",
    ("expansion_per_f > 0", "annulus_compressibility_1_psi > 0", "share_gas >= 0", "share_gas < 1", "start_psia > 0"),
)
def sealed_annulus_pressure(
    expansion_per_f: Value,
    heat_f: Value,
    annulus_growth: Value,
    annulus_compressibility_1_psi: Value,
    share_gas: Value,
    start_psia: Value,
) -> Value:
    """Pressure that builds up in a sealed annulus by its heating and the growth of its volume."""
    liquid = 1 - np.asarray(share_gas)
    swell = liquid * expansion_per_f * heat_f - annulus_growth
    stiff = liquid * annulus_compressibility_1_psi
    # stiff·x² + (stiff·p₀ + s − swell)·x − swell·p₀ = 0
    b, c = stiff * start_psia + share_gas - swell, -swell * start_psia
    root = np.sqrt(np.maximum(b**2 - 4 * stiff * c, 0.0))
    with_gas = (-b + root) / (2 * stiff)
    return plain_value(np.where(np.asarray(share_gas) > 0, with_gas, swell / stiff))
