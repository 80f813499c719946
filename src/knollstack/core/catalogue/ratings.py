"""Ratings of the pipe body by API TR 5C3 / ISO 10400, the historical API equations.

Nominal diameter and wall; collapse by the four regimes of D/t, with the yield reduced by axial tension.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.formula import Value, formula, plain_value

API_5C3 = "API Bulletin 5C3, 6th ed., 1994; kept in API TR 5C3 / ISO/TR 10400:2007 as the historical API equations"
PIPE_LIMITS = ("od_in > 0", "wall_in > 0", "wall_in < 0.5 od_in", "yield_psi > 0")


@formula("p = 0.875·2·Yₚ·t/D", "psi", API_5C3, PIPE_LIMITS)
def pipe_internal_yield(od_in: Value, wall_in: Value, yield_psi: Value) -> Value:
    """Internal yield pressure of the pipe body (burst).

    Example: 7 in, 0.408 in, 80,000 psi gives 8,160 psi.

    >>> round(pipe_internal_yield(od_in=7.0, wall_in=0.408, yield_psi=80_000.0))
    8160
    """
    return 0.875 * 2 * yield_psi * wall_in / od_in


@formula("F = (π/4)·(D² − d²)·Yₚ", "lbf", API_5C3, PIPE_LIMITS)
def pipe_body_yield(od_in: Value, wall_in: Value, yield_psi: Value) -> Value:
    """Axial yield strength of the pipe body."""
    return np.pi / 4 * (od_in**2 - (od_in - 2 * wall_in) ** 2) * yield_psi


HIGHEST_STRESS_SHARE = 0.9
"""Share of yield up to which the reduced-yield equations are used; beyond it the pipe is all but spent in tension."""


@formula(
    "Y_pa = Yₚ·(√(1 − 0.75·(Sₐ/Yₚ)²) − 0.5·Sₐ/Yₚ), Sₐ < 0 counts as 0",
    "psi",
    API_5C3,
    ("yield_psi > 0", "axial_stress_psi <= 0.9 yield_psi"),
)
def reduced_yield(yield_psi: Value, axial_stress_psi: Value) -> Value:
    """Yield strength left for collapse under axial tension; compression takes no credit."""
    share = np.maximum(axial_stress_psi, 0) / yield_psi
    return yield_psi * (np.sqrt(1 - 0.75 * share**2) - 0.5 * share)


@formula(
    "by D/t: yield 2Yₚ(D/t − 1)/(D/t)² | plastic Yₚ(A/(D/t) − B) − C | transition Yₚ(F/(D/t) − G) "
    "| elastic 46.95·10⁶/((D/t)(D/t − 1)²), with Y_pa for Yₚ",
    "psi",
    API_5C3,
    (*PIPE_LIMITS, "axial_stress_psi <= 0.9 yield_psi"),
)
def pipe_collapse(od_in: Value, wall_in: Value, yield_psi: Value, axial_stress_psi: Value = 0.0) -> Value:
    """Collapse resistance of the pipe body, reduced by axial tension.

    Validity: internal pressure zero (with internal pressure compare with the equivalent external pressure).
    Example: 9 5/8 in, 0.472 in, 80,000 psi gives 4,754 psi.

    >>> round(pipe_collapse(od_in=9.625, wall_in=0.472, yield_psi=80_000.0))
    4754
    """
    y = reduced_yield(yield_psi, axial_stress_psi)
    a = 2.8762 + 0.10679e-5 * y + 0.21301e-10 * y**2 - 0.53132e-16 * y * y * y
    b = 0.026233 + 0.50609e-6 * y
    c = -465.93 + 0.030867 * y - 0.10483e-7 * y**2 + 0.36989e-13 * y * y * y
    r = b / a
    q = 3 * r / (2 + r)
    f = 46.95e6 * q * q * q / (y * (q - r) * (1 - q) ** 2)
    g = f * r
    root = np.sqrt((a - 2) ** 2 + 8 * (b + c / y))
    yield_plastic = (root + (a - 2)) / (2 * (b + c / y))
    plastic_transition = y * (a - f) / (c + y * (b - g))
    transition_elastic = (2 + r) / (3 * r)
    dt = od_in / np.asarray(wall_in)
    pressure = np.where(dt <= transition_elastic, y * (f / dt - g), 46.95e6 / (dt * (dt - 1) ** 2))
    pressure = np.where(dt <= plastic_transition, y * (a / dt - b) - c, pressure)
    return plain_value(np.where(dt <= yield_plastic, 2 * y * (dt - 1) / dt**2, pressure))


@formula("P_e = pₒ − (1 − 2t/D)·pᵢ", "psi", API_5C3, ("od_in > 0", "wall_in > 0", "wall_in < 0.5 od_in"))
def equivalent_external_pressure(external_psi: Value, internal_psi: Value, od_in: Value, wall_in: Value) -> Value:
    """External pressure that collapse resistance is compared with when there is pressure inside."""
    return external_psi - (1 - 2 * wall_in / od_in) * internal_psi


@formula(
    "σ = √(½·((σ_z − σ_h)² + (σ_h − σ_r)² + (σ_r − σ_z)²)), Lamé hoop and radial, worst of both walls and both sides of the bend",
    "psi",
    "Lamé thick cylinder with the distortion energy criterion (von Mises); ISO 10400",
    (
        "od_in > 0",
        "wall_in > 0",
        "wall_in < 0.5 od_in",
        "internal_psi >= 0",
        "external_psi >= 0",
        "dogleg_deg_100ft >= 0",
    ),
)
def von_mises(
    od_in: Value,
    wall_in: Value,
    internal_psi: Value,
    external_psi: Value,
    axial_force_lbf: Value,
    dogleg_deg_100ft: Value = 0.0,
) -> Value:
    """Greatest von Mises equivalent stress of the pipe wall."""
    ro, ri = od_in / 2, od_in / 2 - wall_in
    axial = axial_force_lbf / (np.pi * (ro**2 - ri**2))
    mean = (internal_psi * ri**2 - external_psi * ro**2) / (ro**2 - ri**2)
    stresses = []
    for radius in (ri, ro):
        swing = (internal_psi - external_psi) * ri**2 * ro**2 / ((ro**2 - ri**2) * radius**2)
        radial, hoop = mean - swing, mean + swing
        bending = 218 * 2 * radius * dogleg_deg_100ft
        for z in (axial + bending, axial - bending):
            stresses.append(np.sqrt(((z - hoop) ** 2 + (hoop - radial) ** 2 + (radial - z) ** 2) / 2))
    worst = np.maximum.reduce(stresses)
    return plain_value(worst)


@formula(
    "t = t₀·(1 − ω/100)",
    "in",
    "Worn wall in place of the nominal",
    ("wall_in > 0", "wear_percent >= 0", "wear_percent < 100"),
)
def worn_wall(wall_in: Value, wear_percent: Value) -> Value:
    """Wall left after wear: it replaces the wall in burst and, as a conservative rule, in collapse."""
    return wall_in * (1 - wear_percent / 100)


DERATE_FROM_F = 70.0


@formula(
    "Y = Yₚ·(1 − k·(T − 70)), T under 70 °F counts as 70",
    "psi",
    "Linear loss of yield in heat, by policy",
    ("yield_psi > 0", "derate_per_f >= 0"),
)
def derated_yield(yield_psi: Value, derate_per_f: Value, pipe_temperature_f: Value) -> Value:
    """Yield strength of hot pipe.

    Example: 110,000 psi, 0.0003 per °F and 270 °F give 103,400 psi.

    >>> round(derated_yield(yield_psi=110_000.0, derate_per_f=0.0003, pipe_temperature_f=270.0))
    103400
    """
    return yield_psi * (1 - derate_per_f * np.maximum(pipe_temperature_f - DERATE_FROM_F, 0))
