"""Equations of running casing: hook load and drag, filling, surge and gels, standoff between centralizers, sticking.

Standoff follows API RP 10D-2 (fixed-ended spans under tension; a bow deflects in proportion to its load); drag is the
soft string of Johancsik, Friesen and Dawson, from the shoe up.
"""

from collections.abc import Sequence

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, STEEL_MODULUS_PSI, STEEL_PPG
from knollstack.core.base.formula import Value, formula, plain_value

API_10D2 = "API RP 10D-2, 1st ed., 2004"
SOFT_STRING = "Johancsik, Friesen and Dawson, 1984: soft string"
TEXTBOOK = "Textbook casing running"
POISSON = 0.3
BOW_SHARE = 0.33
"""Deflection over clearance at which a bow is rated: 67 % standoff (API Spec 10D)."""
_BORE = ("od_in > 0", "id_in >= 0", "id_in < od_in")


@formula(
    "δ = W·sin I·l³/(384·E·J)·(24/u⁴)·(u²/2 − u·(cosh u − 1)/sinh u),  u² = F·l²/(4·E·J)",
    "in",
    API_10D2,
    (
        "buoyed_weight_lb_ft >= 0",
        "inclination_deg >= 0",
        "inclination_deg <= 180",
        "span_ft > 0",
        "tension_lbf >= 0",
        "wall_in > 0",
        "wall_in < 0.5 od_in",
    ),
)
def span_sag(
    buoyed_weight_lb_ft: Value, inclination_deg: Value, span_ft: Value, tension_lbf: Value, od_in: Value, wall_in: Value
) -> Value:
    """Sag of the casing midway between two centralizers."""
    outside, bore = od_in**2, (od_in - 2 * wall_in) ** 2
    stiffness = STEEL_MODULUS_PSI * np.pi / 64 * (outside**2 - bore**2)
    span_in = span_ft * 12
    side_load = buoyed_weight_lb_ft * span_ft * np.sin(np.radians(inclination_deg))
    u = np.maximum(np.sqrt(tension_lbf * span_in**2 / (4 * stiffness)), 1e-2)
    squared = u**2
    # (cosh u − 1)/sinh u = tanh(u/2), which does not overflow on long spans
    relief = 24 / squared**2 * (squared / 2 - u * np.tanh(u / 2))
    return side_load * (span_in**2 * span_in) / (384 * stiffness) * relief


@formula(
    "h = p_c/(SF·(12/231)·ρ)",
    "ft",
    TEXTBOOK + ": empty pipe inside, mud outside",
    ("collapse_psi >= 0", "design_factor > 0", "mud_ppg > 0"),
)
def longest_empty_run(collapse_psi: Value, design_factor: Value, mud_ppg: Value) -> Value:
    """True vertical depth to which pipe may be empty in mud; the collapse rating is that under the tension there.

    Example: 2,570 psi, a factor of 1.125 and 10.2 ppg give 4,311 ft.

    >>> round(longest_empty_run(collapse_psi=2570.0, design_factor=1.125, mud_ppg=10.2))
    4311
    """
    return collapse_psi / (design_factor * PSI_PER_PPG_FT * mud_ppg)


@formula(
    "w_b = w + (12/231)·(ρᵢ·Aᵢ − ρₒ·Aₒ)",
    "lb/ft",
    "Hydrostatics: weight with its content, less what it displaces",
    (*_BORE, "inside_ppg >= 0", "outside_ppg >= 0"),
)
def buoyed_weight(weight_lb_ft: Value, od_in: Value, id_in: Value, inside_ppg: Value, outside_ppg: Value) -> Value:
    """Weight of pipe per foot with one fluid inside and one outside."""
    inside, outside = inside_ppg * np.asarray(id_in) ** 2, outside_ppg * np.asarray(od_in) ** 2
    return plain_value(weight_lb_ft + PSI_PER_PPG_FT * np.pi / 4 * (inside - outside))


@formula(
    "H = L·(w − (12/231)·ρ·(Aₒ − Aᵢ)) − (12/231)·ρ·Aᵢ·h_e + W_b",
    "lbf",
    TEXTBOOK + ", vertical hole without friction",
    (*_BORE, "length_ft >= 0", "weight_lb_ft > 0", "mud_ppg >= 0", "empty_ft >= 0", "empty_ft <= length_ft"),
)
def running_hook_load(
    length_ft: Value, weight_lb_ft: Value, od_in: Value, id_in: Value, mud_ppg: Value, empty_ft: Value, block_lbf: Value
) -> Value:
    """Hook load of casing in mud, empty from the top down to a level.

    Example: 9,000 ft of 9 5/8 in 43.5 lb/ft, full of 10.5 ppg, and 35,000 lbf of block give 364,847 lbf.

    >>> round(running_hook_load(9000.0, 43.5, 9.625, 8.755, 10.5, 0.0, 35_000.0))
    364847
    """
    outside, bore = np.pi / 4 * np.asarray(od_in) ** 2, np.pi / 4 * np.asarray(id_in) ** 2
    mud = PSI_PER_PPG_FT * np.asarray(mud_ppg)
    full = length_ft * (weight_lb_ft - mud * (outside - bore))
    return plain_value(full - mud * bore * empty_ft + block_lbf)


@formula(
    "N = √((2·F·sin(β/2) − W·cos γ₀)² + (W·cos γₙ)²),  W = w·l,  cos γ₀ = (cos I₁ − cos I₂)/(2·sin(β/2)),  "
    "cos γₙ = sin I₁·sin I₂·sin(A₂ − A₁)/sin β,  cos β = cos I₁·cos I₂ + sin I₁·sin I₂·cos(A₂ − A₁);  W·sin I where straight",
    "lbf",
    API_10D2 + ": in the plane of the dogleg, and across it",
    ("buoyed_weight_lb_ft >= 0", "span_ft > 0"),
)
def lateral_load(
    buoyed_weight_lb_ft: Value,
    span_ft: Value,
    inc1_deg: Value,
    azi1_deg: Value,
    inc2_deg: Value,
    azi2_deg: Value,
    tension_lbf: Value,
) -> Value:
    """Side load of a span of casing by its weight and by its tension in the dogleg.

    Example: 40 ft of 38 lb/ft along 45° weigh 1,075 lbf on the wall.

    >>> round(lateral_load(38.0, 40.0, 45.0, 110.0, 45.0, 110.0, 0.0))
    1075
    """
    share, across, turn = lateral_shares(heading(inc1_deg, azi1_deg), heading(inc2_deg, azi2_deg))
    weight = np.asarray(buoyed_weight_lb_ft) * span_ft
    return plain_value(np.hypot(turn * tension_lbf - weight * share, weight * across))


def heading(inclination_deg: Value, azimuth_deg: Value) -> tuple[Value, Value, Value]:
    """A direction as a unit vector: down, north, east."""
    lean, turn = np.radians(inclination_deg), np.radians(azimuth_deg)
    return np.cos(lean), np.sin(lean) * np.cos(turn), np.sin(lean) * np.sin(turn)


def lateral_shares(upper: Sequence[Value], lower: Sequence[Value]) -> tuple[Value, Value, Value]:
    """Of a span between two headings: weight's share in the plane of its dogleg and across it, and what tension adds."""
    down, north, east = (np.asarray(b) - a for a, b in zip(upper, lower, strict=True))
    chord = np.minimum(np.sqrt(down**2 + north**2 + east**2), 2.0)  # 2·sin(β/2)
    bent = chord > 2e-9
    safe = np.where(bent, chord, 1.0)
    along = np.where(bent, -down / safe, 0.0)
    whole = safe * np.sqrt(np.maximum(1 - safe**2 / 4, 1e-18))  # sin β
    aside = upper[1] * lower[2] - upper[2] * lower[1]
    lying = np.sqrt((upper[1] + north / 2) ** 2 + (upper[2] + east / 2) ** 2)
    return along, np.where(bent, aside / whole, lying), np.where(bent, chord, 0.0)


@formula(
    "F₂ = F₁ + w·H + μ·N",
    "lbf",
    SOFT_STRING + "; H is l·cos I; μ counts over 0 where the string is pulled, under 0 where it is lowered",
    ("height_ft >= -1000", "side_lbf >= 0"),
)
def soft_string_tension(
    tension_lbf: Value, buoyed_weight_lb_ft: Value, height_ft: Value, friction: Value, side_lbf: Value
) -> Value:
    """Tension at the top of a span from that at its bottom."""
    return plain_value(np.asarray(tension_lbf) + buoyed_weight_lb_ft * np.asarray(height_ft) + friction * side_lbf)


@formula(
    "H = T + W_b + F_d + W_h",
    "lbf",
    TEXTBOOK + ": F_d is the drag of the centralizers, over 0 pulled and under 0 lowered; W_h a housing landed with it",
    ("block_lbf >= 0", "head_lbf >= 0"),
)
def hook_load(tension_lbf: Value, block_lbf: Value, drag_lbf: Value, head_lbf: Value = 0.0) -> Value:
    """Hook load from the tension at the rotary."""
    return plain_value(np.asarray(tension_lbf) + block_lbf + drag_lbf + head_lbf)


@formula(
    "Δ = 12·L²·(12/231)·(ρₛₜ − 2·(1 − ν)·ρ)/(2·E)",
    "in",
    "Elastic stretch of pipe hung in a fluid, with the fluid's pressure on its walls; ν = 0.3, steel 65.5 ppg",
    ("length_ft >= 0", "fluid_ppg >= 0"),
)
def self_weight_stretch(length_ft: Value, fluid_ppg: Value) -> Value:
    """Stretch of casing under its own weight in a fluid.

    Example: 10,000 ft in 10 ppg stretch by 53.5 in.

    >>> round(self_weight_stretch(length_ft=10_000.0, fluid_ppg=10.0), 1)
    53.5
    """
    net = STEEL_PPG - 2 * (1 - POISSON) * np.asarray(fluid_ppg)
    return plain_value(12 * np.asarray(length_ft) ** 2 * PSI_PER_PPG_FT * net / (2 * STEEL_MODULUS_PSI))


@formula("Δ = 12·F·L/(E·Aₛ)", "in", "Hooke's law; E = 30·10⁶ psi", ("length_ft >= 0", "steel_area_in2 > 0"))
def load_stretch(pull_lbf: Value, length_ft: Value, steel_area_in2: Value) -> Value:
    """Stretch under a pull beyond the weight."""
    return plain_value(12 * np.asarray(pull_lbf) * length_ft / (STEEL_MODULUS_PSI * np.asarray(steel_area_in2)))


@formula(
    "p = τ·L/(300·(dₒ − dᵢ))",
    "psi",
    TEXTBOOK + ": gels in an annulus",
    ("gel_lb_100ft2 >= 0", "length_ft >= 0", "inner_in < outer_in"),
)
def gel_pressure(gel_lb_100ft2: Value, length_ft: Value, outer_in: Value, inner_in: Value) -> Value:
    """Pressure that breaks the gel in an annulus: circulation begins at it."""
    return plain_value(np.asarray(gel_lb_100ft2) * length_ft / (300 * (np.asarray(outer_in) - inner_in)))


@formula(
    "s = c − 0.33·c·F/F_r, not below 0,  c = (d_h − D)/2",
    "in",
    API_10D2 + ": deflection in proportion to load; F_r at 67 % standoff (API Spec 10D)",
    ("lateral_load_lbf >= 0", "restoring_force_lbf > 0", "hole_in > od_in", "od_in > 0"),
)
def bow_standoff(lateral_load_lbf: Value, restoring_force_lbf: Value, hole_in: Value, od_in: Value) -> Value:
    """Room left between casing and hole at a bow-spring centralizer.

    Example: 900 lbf on a bow of 1,600 lbf, 9 5/8 in in 12 1/4 in hole, leave 1.069 in.

    >>> round(bow_standoff(900.0, 1600.0, 12.25, 9.625), 3)
    1.069
    """
    room = (np.asarray(hole_in) - od_in) / 2
    return plain_value(np.maximum(room - BOW_SHARE * room * lateral_load_lbf / restoring_force_lbf, 0.0))


@formula("S = 100·(s − δ)/((d_h − D)/2), not below 0", "%", API_10D2, ("hole_in > od_in", "od_in > 0", "sag_in >= 0"))
def standoff_ratio(hole_in: Value, od_in: Value, standoff_at_bow_in: Value, sag_in: Value) -> Value:
    """Standoff over that of casing in the middle of its hole; with the sag of a span, midway."""
    room = (np.asarray(hole_in) - od_in) / 2
    return plain_value(np.maximum(100 * (np.asarray(standoff_at_bow_in) - sag_in) / room, 0.0))


@formula(
    "F = μ·Δp·12·L·b",
    "lbf",
    TEXTBOOK + ": differential sticking",
    ("overbalance_psi >= 0", "length_ft >= 0", "contact_in >= 0", "friction >= 0"),
)
def sticking_force(overbalance_psi: Value, length_ft: Value, contact_in: Value, friction: Value) -> Value:
    """Pull that frees casing held against permeable rock by the overbalance."""
    return plain_value(np.asarray(friction) * overbalance_psi * 12 * np.asarray(length_ft) * contact_in)
