"""Equations of the completion: how a tubing changes its length over a packer, what it pulls there, and perforating.

Lubinski, Althouse and Logan (1962): piston, buckling, ballooning and temperature for a tubing sealed in a packer whose bore
may differ from the tubing's. Changes are from the moment of spacing out; shortening is below zero. The well is taken as
vertical for buckling.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, STEEL_MODULUS_PSI
from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.pipe.formulas import EXPANSION_PER_F, POISSON

LUBINSKI = "Lubinski, Althouse and Logan, 1962: helical buckling of tubing sealed in packers"
SIZES = ("od_in > 0", "bore_in > 0", "bore_in < od_in")
PACKED = (*SIZES, "seal_bore_in > 0")
PPG_TO_LB_IN3 = 1 / 231.0


def tubing_areas_in2(od_in: Value, bore_in: Value) -> tuple[Value, Value, Value]:
    """Areas [in²] of the outside, the bore and the steel."""
    outside, bore = np.pi / 4 * np.square(od_in), np.pi / 4 * np.square(bore_in)
    return outside, bore, outside - bore


def inertia_in4(od_in: Value, bore_in: Value) -> Value:
    return np.pi / 64 * (np.power(od_in, 4) - np.power(bore_in, 4))


@formula(
    "F = A_p·p_b − Aᵢ·pᵢ − (A_p − Aₒ)·pₒ",
    "lbf",
    LUBINSKI + ": upwards on the tubing; in open tubing p_b is pᵢ, under a plug what stands below it",
    PACKED,
)
def piston_force(
    seal_bore_in: Value, od_in: Value, bore_in: Value, below_psi: Value, inside_psi: Value, outside_psi: Value
) -> Value:
    """Piston force at the packer: what pressures below, inside and outside push the tubing up with."""
    outside, bore, _ = tubing_areas_in2(od_in, bore_in)
    seal = np.pi / 4 * np.square(seal_bore_in)
    return plain_value(seal * below_psi - bore * np.asarray(inside_psi) - (seal - outside) * outside_psi)


@formula("ΔL₁ = −F·L/(E·Aₛ)", "in", "Hooke's law; E = 30·10⁶ psi", (*SIZES, "length_ft > 0"))
def piston_change(od_in: Value, bore_in: Value, length_ft: Value, upward_lbf: Value) -> Value:
    """Change of length by a force at the lower end of the tubing (Hooke's law)."""
    steel = tubing_areas_in2(od_in, bore_in)[2]
    return plain_value(-np.asarray(upward_lbf) * 12 * length_ft / (STEEL_MODULUS_PSI * steel))


@formula("w = wₛ/12 + ρᵢ·Aᵢ/231 − ρₒ·Aₒ/231", "lb/in", LUBINSKI, (*SIZES, "weight_ppf > 0"))
def tubing_buoyed_weight(
    od_in: Value, bore_in: Value, weight_ppf: Value, inside_ppg: Value, outside_ppg: Value
) -> Value:
    """Weight of tubing in its fluids, per inch."""
    outside, bore, _ = tubing_areas_in2(od_in, bore_in)
    return plain_value(weight_ppf / 12 + PPG_TO_LB_IN3 * (inside_ppg * bore - outside_ppg * outside))


@formula(
    "ΔL₂ = −r²·F²/(8·E·I·w), F ≤ L·w; beyond, −r²·L·(2F − L·w)/(8·E·I); none where F ≤ 0",
    "in",
    LUBINSKI + "; F is the fictitious force at the packer, beyond L·w the whole tubing is a helix",
    (*SIZES, "length_ft > 0", "radial_in >= 0", "buoyed_lb_in > 0"),
)
def buckling_change(
    od_in: Value, bore_in: Value, length_ft: Value, radial_in: Value, fictitious_lbf: Value, buoyed_lb_in: Value
) -> Value:
    """Change of length by buckling into a helix in the casing."""
    force, whole = np.maximum(fictitious_lbf, 0.0), 12 * np.asarray(length_ft) * buoyed_lb_in
    stiff = 8 * STEEL_MODULUS_PSI * inertia_in4(od_in, bore_in)
    part = np.square(force) / buoyed_lb_in
    all_of_it = 12 * np.asarray(length_ft) * (2 * force - whole)
    return plain_value(-np.square(radial_in) / stiff * np.where(force <= whole, part, all_of_it))


@formula("F_f = A_p·(p_b − pₒ)", "lbf", LUBINSKI + "; in open tubing p_b is pᵢ", ("seal_bore_in > 0",))
def fictitious_force(seal_bore_in: Value, below_psi: Value, outside_psi: Value) -> Value:
    """Force at the packer that buckles the tubing: pressure below over that outside, on the seal bore."""
    return plain_value(np.pi / 4 * np.square(seal_bore_in) * (np.asarray(below_psi) - outside_psi))


@formula(
    "ΔL₃ = −2ν·L/E·(Δpᵢ − R²·Δpₒ)/(R² − 1), R = D/d, mean changes of pressure",
    "in",
    LUBINSKI + ", fluid at rest; ν = 0.3",
    (*SIZES, "length_ft > 0"),
)
def ballooning_change(
    od_in: Value, bore_in: Value, length_ft: Value, inside_change_psi: Value, outside_change_psi: Value
) -> Value:
    """Change of length by ballooning: pressure inside widens and shortens, pressure outside lengthens."""
    ratio = np.square(np.asarray(od_in) / bore_in)
    change = (inside_change_psi - ratio * outside_change_psi) / (ratio - 1)
    return plain_value(-2 * POISSON * 12 * length_ft / STEEL_MODULUS_PSI * change)


@formula("ΔL₄ = α·L·ΔT", "in", "Thermal expansion; α = 6.9·10⁻⁶ /°F", ("length_ft > 0",))
def temperature_change(length_ft: Value, heat_f: Value) -> Value:
    """Change of length by the mean change of temperature."""
    return plain_value(EXPANSION_PER_F * 12 * np.asarray(length_ft) * heat_f)


@formula(
    "ΔL₁(F_r) + ΔL₂(F_f + F_r) = −(ΔL₁ + ΔL₃ + ΔL₄) + ΔL, solved for F_r",
    "lbf",
    LUBINSKI + ": the force that keeps the end where the packer holds it",
    (*SIZES, "length_ft > 0", "radial_in >= 0", "buoyed_lb_in > 0"),
)
def holding_force(
    od_in: float,
    bore_in: float,
    length_ft: float,
    radial_in: float,
    buoyed_lb_in: float,
    fictitious_lbf: float,
    unbuckled_in: float,
    moved_in: float,
) -> float:
    """Force upwards on the tubing by the packer that leaves its end moved by so much; below zero it pulls down.

    `unbuckled_in` is the change of length without buckling, `moved_in` what the packer lets it move.
    """
    steel = float(tubing_areas_in2(od_in, bore_in)[2])
    length, stiff = 12 * length_ft, 8 * STEEL_MODULUS_PSI * float(inertia_in4(od_in, bore_in))
    a, k, whole = length / (STEEL_MODULUS_PSI * steel), radial_in**2 / stiff, length * buoyed_lb_in
    # u = F_f + F_r is what buckles: a·(u − F_f) + buckling(u) = unbuckled − moved
    right = unbuckled_in - moved_in + a * fictitious_lbf
    if right <= 0 or k == 0:
        return right / a - fictitious_lbf
    bent = k / buoyed_lb_in
    u = (-a + np.sqrt(a * a + 4 * bent * right)) / (2 * bent)
    if u > whole:
        u = (right + k * length * whole) / (a + 2 * k * length)
    return float(u - fictitious_lbf)


@formula(
    "Fₐ = w·h − F",
    "lbf",
    "Axial force along a hanging string: what hangs below, less what pushes its end up",
    ("below_ft >= 0", "weight_ppf > 0"),
)
def tubing_axial_force(below_ft: Value, weight_ppf: Value, upward_lbf: Value) -> Value:
    """Real axial force in tubing: its weight in air below a depth, less all that pushes its end up."""
    return plain_value(np.asarray(below_ft) * weight_ppf - upward_lbf)


@formula("p = p_r − Δp_u", "psi", "Definition of underbalance", ("formation_psi >= 0",))
def perforating_pressure(formation_psi: Value, underbalance_psi: Value) -> Value:
    """Pressure in the hole when the guns fire."""
    return plain_value(np.asarray(formation_psi) - underbalance_psi)


@formula(
    "h = D − p/((12/231)·ρ), not above the wellhead",
    "ft",
    "Hydrostatics: a tubing filled so far and no further",
    ("tvd_ft > 0", "inside_psi >= 0", "mud_ppg > 0"),
)
def cushion_level(tvd_ft: Value, inside_psi: Value, mud_ppg: Value) -> Value:
    """Depth of the fluid level that gives a pressure at a depth; 0 where more than a full column is asked."""
    return plain_value(np.maximum(0.0, tvd_ft - np.asarray(inside_psi) / (PSI_PER_PPG_FT * mud_ppg)))


@formula(
    "t = L/r + 2·D/v",
    "h",
    "Planning: the interval at its rate, and the way to it and back",
    ("interval_ft >= 0", "interval_ft_hour > 0", "to_md_ft >= 0", "way_ft_hour > 0"),
)
def interval_hours(interval_ft: Value, interval_ft_hour: Value, to_md_ft: Value, way_ft_hour: Value) -> Value:
    """Rig time of work over an interval, with the way there and back."""
    return plain_value(np.asarray(interval_ft) / interval_ft_hour + 2 * np.asarray(to_md_ft) / way_ft_hour)
