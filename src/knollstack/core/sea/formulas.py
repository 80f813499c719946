"""Arithmetic at sea: shaft friction of a conductor, tension of a riser, drift, landing, gas in the riser."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, STEEL_PPG
from knollstack.core.base.formula import Value, formula, plain_value

API_2GEO = "API RP 2GEO, 1st ed., 2011: driven piles in cohesive soil"
API_16Q = "API RP 16Q, 1st ed., 1993"


@formula(
    "f = α·s_u,  α = 0.5·ψ^−0.5 up to ψ = 1, 0.5·ψ^−0.25 beyond, at most 1,  ψ = s_u/σ'",
    "psf",
    API_2GEO,
    ("undrained_strength_psf > 0", "effective_stress_psf > 0"),
)
def alpha_shaft_friction(undrained_strength_psf: Value, effective_stress_psf: Value) -> Value:
    """Friction of clay on the shaft of a pile once it has set up.

    >>> round(alpha_shaft_friction(600.0, 1500.0), 1)
    474.3
    """
    ratio = np.asarray(undrained_strength_psf) / effective_stress_psf
    alpha = np.minimum(np.where(ratio <= 1, 0.5 * ratio**-0.5, 0.5 * ratio**-0.25), 1.0)
    return plain_value(alpha * undrained_strength_psf)


@formula(
    "s = 12·(L_a − L_c)",
    "in",
    "Lengths of the assembly and of the conductor below its housing",
    ("assembly_ft > 0", "conductor_ft > 0"),
)
def space_out(assembly_ft: Value, conductor_ft: Value) -> Value:
    """How far the bit of a jetting assembly stands out of the conductor; under 0 it stands inside."""
    return 12 * (assembly_ft - conductor_ft)


@formula(
    "Q = f·π·(d/12)·L",
    "lbf",
    API_2GEO + "; the end of the pipe bears nothing",
    ("mean_friction_psf >= 0", "od_in > 0", "penetration_ft >= 0"),
)
def shaft_capacity(mean_friction_psf: Value, od_in: Value, penetration_ft: Value) -> Value:
    """Long-run capacity of a conductor by the friction of the soil over its shaft."""
    return mean_friction_psf * np.pi * od_in / 12 * penetration_ft


@formula(
    "Q_t = Q₀ + s·(Q_∞ − Q₀)",
    "lbf",
    "Set-up of disturbed clay: a share of what lies between the immediate and the long-run capacity, by policy",
    ("immediate_lbf >= 0", "long_run_lbf >= 0", "set_up_share >= 0", "set_up_share <= 1"),
)
def set_up_capacity(immediate_lbf: Value, long_run_lbf: Value, set_up_share: Value) -> Value:
    """What a conductor bears some hours after it was set."""
    return immediate_lbf + set_up_share * (long_run_lbf - immediate_lbf)


@formula(
    "W = w·L·(1 − ρ_w/65.5)",
    "lbf",
    "Buoyancy of steel open at both ends",
    ("weight_lb_ft > 0", "length_ft >= 0", "sea_water_ppg >= 0"),
)
def weight_in_sea_water(weight_lb_ft: Value, length_ft: Value, sea_water_ppg: Value) -> Value:
    """Weight of pipe that stands in sea water inside and outside."""
    return weight_lb_ft * length_ft * (1 - sea_water_ppg / STEEL_PPG)


@formula(
    "T_min = T_SR·N/(R·(N − n)),  T_SR = W_s·f_wt − B_n·f_bt + A_i·(12/231)·(ρ_m·H_m − ρ_w·H_w)",
    "lbf",
    API_16Q,
    (
        "wet_weight_lbf >= 0",
        "weight_tolerance > 0",
        "buoyancy_tolerance > 0",
        "id_in > 0",
        "mud_ppg >= 0",
        "mud_height_ft >= 0",
        "sea_water_ppg >= 0",
        "water_height_ft >= 0",
        "tensioners > failed",
        "failed >= 0",
        "reduction > 0",
        "reduction <= 1",
    ),
)
def riser_minimum_tension(
    wet_weight_lbf: Value,
    weight_tolerance: Value,
    buoyancy_lbf: Value,
    buoyancy_tolerance: Value,
    id_in: Value,
    mud_ppg: Value,
    mud_height_ft: Value,
    sea_water_ppg: Value,
    water_height_ft: Value,
    tensioners: Value,
    failed: Value,
    reduction: Value,
) -> Value:
    """Least tension of all tensioners that keeps the riser in tension at its foot with some of them lost."""
    area = np.pi / 4 * np.asarray(id_in) ** 2
    column = PSI_PER_PPG_FT * (np.asarray(mud_ppg) * mud_height_ft - np.asarray(sea_water_ppg) * water_height_ft)
    ring = wet_weight_lbf * weight_tolerance - buoyancy_lbf * buoyancy_tolerance + area * column
    return plain_value(ring * tensioners / (reduction * (tensioners - failed)))


@formula(
    "T = T_set·R·(N − n)/N − (W_s·f_wt − B_n·f_bt)",
    "lbf",
    API_16Q + ": what is left at the foot of the riser, sea water inside and outside",
    ("tension_lbf >= 0", "tensioners > failed", "failed >= 0", "reduction > 0", "wet_weight_lbf >= 0"),
)
def tension_at_foot(
    tension_lbf: Value,
    reduction: Value,
    tensioners: Value,
    failed: Value,
    wet_weight_lbf: Value,
    weight_tolerance: Value,
    buoyancy_lbf: Value,
    buoyancy_tolerance: Value,
) -> Value:
    """Pull that is left for the riser package once the riser itself is carried."""
    held = np.asarray(tension_lbf) * reduction * (tensioners - failed) / tensioners
    return plain_value(held - (wet_weight_lbf * weight_tolerance - buoyancy_lbf * buoyancy_tolerance))


@formula(
    "x = L·tan β",
    "ft",
    "Geometry: a straight riser between its flex joints",
    ("length_ft >= 0", "angle_deg >= 0", "angle_deg <= 30"),
)
def offset_at_angle(length_ft: Value, angle_deg: Value) -> Value:
    """Offset of the rig at which the lower flex joint has an angle."""
    return length_ft * np.tan(np.radians(angle_deg))


@formula("t = 60·(x_max − x)/v", "s", "Drift at a steady speed", ("limit_offset_ft >= 0", "drift_ft_min > 0"))
def drift_seconds(limit_offset_ft: Value, offset_ft: Value, drift_ft_min: Value) -> Value:
    """Time until a drifting rig has gone from one offset to another."""
    return 60 * (limit_offset_ft - offset_ft) / drift_ft_min


@formula(
    "H_h = H·(1 + h)", "lbf", "Planning allowance for heave, by policy", ("hook_load_lbf >= 0", "heave_share >= 0")
)
def heave_load(hook_load_lbf: Value, heave_share: Value) -> Value:
    """Hook load with what heave adds."""
    return hook_load_lbf * (1 + heave_share)


@formula(
    "F = s·Y·A",
    "lbf",
    "Yield of a pipe body, less a share by policy",
    ("steel_area_in2 > 0", "yield_psi > 0", "landing_share > 0"),
)
def landing_strength(steel_area_in2: Value, yield_psi: Value, landing_share: Value) -> Value:
    """What the drill pipe of a landing string may carry."""
    return landing_share * yield_psi * steel_area_in2


@formula("V₀ = V·(p + 14.7)/14.7", "bbl", "Boyle's law, at one temperature", ("volume_bbl >= 0", "gas_psi >= 0"))
def gas_expanded(volume_bbl: Value, gas_psi: Value) -> Value:
    """Volume at atmospheric pressure of gas that stood under a pressure."""
    return volume_bbl * (gas_psi + 14.7) / 14.7
