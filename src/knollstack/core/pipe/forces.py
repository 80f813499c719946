"""Axial forces of a string: hung in its mud, held by its cement, heated, blown up, and where it buckles.

The pressure-area method: what hangs below, the pressure on the end, and the local pressures give the real force.
Sources: textbook casing design; Lubinski, Dawson and Paslay for buckling.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.constants import PSI_PER_PPG_FT, STEEL_MODULUS_PSI
from knollstack.core.formula import Value, formula
from knollstack.core.pipe.loads import CASING_DESIGN

POISSON = 0.3
EXPANSION_PER_F = 6.9e-6
AREAS = ("od_in > 0", "wall_in > 0", "wall_in < 0.5 od_in")


def areas_in2(od_in: Value, wall_in: Value) -> tuple[Value, Value, Value]:
    """Areas [in²] of the outside, of the bore, and of the steel."""
    outside, bore = np.pi / 4 * od_in**2, np.pi / 4 * (od_in - 2 * wall_in) ** 2
    return outside, bore, outside - bore


@formula(
    "X = h·(w + (12/231)·ρ·Aᵢ)",
    "lbf",
    CASING_DESIGN,
    (*AREAS, "weight_ppf > 0", "mud_ppg >= 0"),
)
def weight_below(weight_ppf: Value, below_tvd_ft: Value, mud_ppg: Value, od_in: Value, wall_in: Value) -> Value:
    """Weight of the string below a depth and of the mud inside it."""
    return below_tvd_ft * (weight_ppf + PSI_PER_PPG_FT * mud_ppg * areas_in2(od_in, wall_in)[1])


@formula("Fₐ = X + pᵢ·Aᵢ − pₒ,b·Aₒ", "lbf", CASING_DESIGN + ", pressure-area method", AREAS)
def hanging_force(
    below_lbf: Value, internal_psi: Value, shoe_external_psi: Value, od_in: Value, wall_in: Value
) -> Value:
    """Real axial force of a string that hangs free with its end closed.

    Example: 7 in 29 lb/ft at 10,000 ft in 10 ppg hangs with 246,107 lbf at its top.
    """
    outside, bore, _ = areas_in2(od_in, wall_in)
    return below_lbf + internal_psi * bore - shoe_external_psi * outside


@formula("ΔF = −α·E·Aₛ·ΔT", "lbf", CASING_DESIGN + "; α = 6.9·10⁻⁶ /°F, E = 30·10⁶ psi", AREAS)
def thermal_force(od_in: Value, wall_in: Value, heat_f: Value) -> Value:
    """Force that a temperature change puts into pipe that cannot move: 207 lbf per in² and °F.

    Example: 7 in 29 lb/ft heated by 100 °F takes −174,900 lbf.
    """
    return -EXPANSION_PER_F * STEEL_MODULUS_PSI * areas_in2(od_in, wall_in)[2] * heat_f


@formula("ΔF = 2ν·(Δpᵢ·Aᵢ − Δpₒ·Aₒ)", "lbf", CASING_DESIGN + "; ν = 0.3", AREAS)
def ballooning_force(od_in: Value, wall_in: Value, internal_change_psi: Value, external_change_psi: Value) -> Value:
    """Force that pressure changes put into pipe that cannot move, averaged over its free length."""
    outside, bore, _ = areas_in2(od_in, wall_in)
    return 2 * POISSON * (internal_change_psi * bore - external_change_psi * outside)


@formula("F_e = Fₐ − pᵢ·Aᵢ + pₒ·Aₒ", "lbf", CASING_DESIGN, AREAS)
def effective_force(
    axial_force_lbf: Value, internal_psi: Value, external_psi: Value, od_in: Value, wall_in: Value
) -> Value:
    """Effective axial force: below zero the string tends to buckle."""
    outside, bore, _ = areas_in2(od_in, wall_in)
    return axial_force_lbf - internal_psi * bore + external_psi * outside


@formula(
    "F_c = max(1.94·(E·J·w²)^⅓, 2·√(E·J·w·sin I/r))",
    "lbf",
    "Lubinski (vertical hole); Dawson and Paslay (inclined hole)",
    (*AREAS, "buoyed_weight_lb_ft >= 0", "inclination_deg >= 0", "clearance_in > 0"),
)
def buckling_force(
    od_in: Value, wall_in: Value, buoyed_weight_lb_ft: Value, inclination_deg: Value, clearance_in: Value
) -> Value:
    """Compression, as effective force, at which free pipe begins to buckle."""
    stiffness = STEEL_MODULUS_PSI * np.pi / 64 * (od_in**4 - (od_in - 2 * wall_in) ** 4)
    weight = buoyed_weight_lb_ft / 12
    inclined = 2 * np.sqrt(stiffness * weight * np.sin(np.radians(inclination_deg)) / clearance_in)
    return np.maximum(1.94 * np.cbrt(stiffness * weight**2), inclined)
