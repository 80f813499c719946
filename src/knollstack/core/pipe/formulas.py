"""Equations of the pipe step: pressures that a string sees, and the axial forces in it.

Gas columns, lost returns, a kick circulated out; hung in its mud, held by its cement, heated, blown up, bent, stopped,
and where it buckles. The pressure-area method: what hangs below, the pressure on the end, and the local pressures give
the real force. Sources: textbook casing design; Lubinski, Dawson and Paslay for buckling.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, RANKINE_AT_0_F, STEEL_MODULUS_PSI
from knollstack.core.base.formula import Value, formula, plain_value

CASING_DESIGN = "Textbook casing design"
POISSON = 0.3
EXPANSION_PER_F = 6.9e-6
AREAS = ("od_in > 0", "wall_in > 0", "wall_in < 0.5 od_in")


def areas_in2(od_in: Value, wall_in: Value) -> tuple[Value, Value, Value]:
    """Areas [in²] of the outside, of the bore, and of the steel."""
    outside, bore = np.pi / 4 * od_in**2, np.pi / 4 * (od_in - 2 * wall_in) ** 2
    return outside, bore, outside - bore


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
    (
        "formation_psi > 0",
        "mud_ppg > 0",
        "kick_bbl > 0",
        "annulus_bbl_ft > 0",
        "depth_tvd_ft >= 0",
        "influx_psi_ft <= 0.05195 mud_ppg",
    ),
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

    Validity: influx no heavier than the mud; one capacity all along the annulus; a bubble not longer than the well.
    """
    mud_psi_ft = PSI_PER_PPG_FT * mud_ppg
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
    return surface_psi + PSI_PER_PPG_FT * mud_ppg * tvd_ft


@formula(
    "p = p_b − (12/231)·ρ·(D_b − D)",
    "psi",
    CASING_DESIGN + ", gas over mud",
    ("bottom_psi >= 0", "mud_ppg > 0", "section_tvd_ft >= 0", "tvd_ft >= 0"),
)
def under_mud(bottom_psi: Value, mud_ppg: Value, section_tvd_ft: Value, tvd_ft: Value) -> Value:
    """Pressure on top of the mud over a pressure below."""
    return bottom_psi - PSI_PER_PPG_FT * mud_ppg * (np.asarray(section_tvd_ft) - tvd_ft)


@formula("Δp = pᵢ − pₒ", "psi", CASING_DESIGN)
def burst_load(internal_psi: Value, external_psi: Value) -> Value:
    """Burst load: internal less external pressure."""
    return internal_psi - external_psi


@formula("p = min(p_P, p_F), not below 0", "psi", "Lesser-of school of maximum anticipated surface pressure, textbook")
def lesser_surface_pressure(from_pore_psi: Value, from_fracture_psi: Value) -> Value:
    """Maximum anticipated surface pressure: what the formation can feed, unless the shoe breaks down first."""
    return float(np.maximum(np.minimum(from_pore_psi, from_fracture_psi), 0))


@formula("X = h·(w + (12/231)·ρ·Aᵢ)", "lbf", CASING_DESIGN, (*AREAS, "weight_ppf > 0", "mud_ppg >= 0"))
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

    >>> round(thermal_force(od_in=7.0, wall_in=0.408, heat_f=100.0), -2)
    -174900.0
    """
    return -EXPANSION_PER_F * STEEL_MODULUS_PSI * areas_in2(od_in, wall_in)[2] * heat_f


@formula("ΔF = 2ν·(Δpᵢ·Aᵢ − Δpₒ·Aₒ)", "lbf", CASING_DESIGN + "; ν = 0.3", AREAS)
def ballooning_force(od_in: Value, wall_in: Value, internal_change_psi: Value, external_change_psi: Value) -> Value:
    """Force that pressure changes put into pipe that cannot move, averaged over its free length."""
    outside, bore, _ = areas_in2(od_in, wall_in)
    return 2 * POISSON * (internal_change_psi * bore - external_change_psi * outside)


@formula(
    "X' = X + Aᵢ·(pᵢ,b − pᵢ − (12/231)·ρ·h)",
    "lbf",
    CASING_DESIGN + ", pressure-area method: what stands inside is not the mud",
    (*AREAS, "mud_ppg >= 0", "below_tvd_ft >= 0"),
)
def weight_with_other_fluid(
    below_lbf: Value,
    shoe_internal_psi: Value,
    internal_psi: Value,
    mud_ppg: Value,
    below_tvd_ft: Value,
    od_in: Value,
    wall_in: Value,
) -> Value:
    """Weight of the string below a depth and of the fluid that stands inside it, from that with mud inside."""
    fluid = shoe_internal_psi - np.asarray(internal_psi) - PSI_PER_PPG_FT * mud_ppg * below_tvd_ft
    return plain_value(below_lbf + areas_in2(od_in, wall_in)[1] * fluid)


@formula("ΔF = Δpᵢ·Aᵢ", "lbf", CASING_DESIGN + ": a closed end that is free to move", AREAS)
def closed_end_force(od_in: Value, wall_in: Value, internal_change_psi: Value) -> Value:
    """Force that a change of internal pressure puts into a string whose closed top is free to move."""
    return plain_value(internal_change_psi * areas_in2(od_in, wall_in)[1])


@formula(
    "σ = D·r·F/(4·J)",
    "psi",
    "Lubinski, Althouse and Logan, 1962: bending of a helix",
    (*AREAS, "clearance_in > 0", "compression_lbf >= 0"),
)
def buckled_bending_stress(od_in: Value, wall_in: Value, clearance_in: Value, compression_lbf: Value) -> Value:
    """Bending stress at the outside of pipe buckled into a helix by an effective compression."""
    inertia = np.pi / 64 * (od_in**4 - (od_in - 2 * wall_in) ** 4)
    return plain_value(od_in * clearance_in * np.asarray(compression_lbf) / (4 * inertia))


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
    "Lubinski, 1950 (vertical hole); Dawson and Paslay, 1984 (inclined hole)",
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


@formula(
    "F = 218·D·θ·Aₛ",
    "lbf",
    "Textbook casing design: E·π/(360·100·12) ≈ 218 per °/100 ft",
    ("od_in > 0", "dogleg_deg_100ft >= 0", "steel_area_in2 > 0"),
)
def bending_force(od_in: Value, dogleg_deg_100ft: Value, steel_area_in2: Value) -> Value:
    """Axial force equivalent to the bending stress in a dogleg."""
    return 218 * od_in * dogleg_deg_100ft * steel_area_in2


@formula(
    "F = 1780·v·Aₛ",
    "lbf",
    "Textbook casing design: stress wave in steel stopped from running speed",
    ("speed_ft_s >= 0", "steel_area_in2 > 0"),
)
def shock_load(speed_ft_s: Value, steel_area_in2: Value) -> Value:
    """Axial force when a moving string is stopped at once."""
    return 1780 * speed_ft_s * steel_area_in2


@formula(
    "W = (ΣW_i + W_s)·Aₛ/(Aₛ + A_c)",
    "lbf",
    CASING_DESIGN + "; a base plate shares by steel area, A_c = 0 without one",
    ("stack_lbf >= 0", "steel_area_in2 > 0", "conductor_area_in2 >= 0"),
)
def carried_load(
    hung_lbf: list[float], stack_lbf: float, steel_area_in2: float, conductor_area_in2: float = 0.0
) -> float:
    """Load on the top of the casing that carries the wellhead: every string hung in it and all that is set on it.

    Example: 300,000 lbf hung and 60,000 lbf on top, 15.5 and 26.9 in² of steel, leave 131,604 lbf on the casing.

    >>> round(carried_load(hung_lbf=[300_000.0], stack_lbf=60_000.0, steel_area_in2=15.5, conductor_area_in2=26.9))
    131604
    """
    share = steel_area_in2 / (steel_area_in2 + conductor_area_in2)
    return (float(np.sum(hung_lbf)) + stack_lbf) * share


@formula(
    "p = x·p_f",
    "psi",
    "Dalton's law of partial pressures",
    ("gas_fraction >= 0", "gas_fraction <= 1", "formation_psi >= 0"),
)
def partial_pressure(gas_fraction: Value, formation_psi: Value) -> Value:
    """Partial pressure of a gas in a mixture: of H2S and CO2 for sour service and corrosion."""
    return gas_fraction * formation_psi


@formula(
    "p = max(0, Δp_f) + Δp_b",
    "psi",
    CASING_DESIGN + ": the plug bumped over the final differential",
    ("bump_psi >= 0",),
)
def bump_pressure(differential_psi: Value, bump_psi: Value) -> Value:
    """Surface pressure when the plug bumps: what the annulus holds against the inside, and the bump on top."""
    return plain_value(np.maximum(0.0, differential_psi) + bump_psi)


@formula(
    "p = k·p_0",
    "psi",
    CASING_DESIGN + ": a pressure test as a share of the surface pressure expected",
    ("test_share >= 0",),
)
def casing_test_pressure(surface_psi: Value, test_share: Value) -> Value:
    """Pressure test at the wellhead."""
    return surface_psi * test_share
