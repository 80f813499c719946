"""Heights, loads and tests of a wellhead on land or a platform."""

from collections.abc import Sequence

import numpy as np

from knollstack.core.base.constants import STEEL_MODULUS_PSI, STEEL_PPG
from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.pipe.formulas import EXPANSION_PER_F

STACK_UP = "Stack-up of wellhead pieces, geometry"

TEST_STEP_PSI = 50.0


@formula(
    "surface = H − (Σhᵢ + Σgⱼ) + s,  conductor = surface − s − b",
    "",
    STACK_UP,
    ("piece_heights_in >= 0", "gaps_in >= 0", "socket_depth_in >= 0", "base_plate_in >= 0"),
)
def cut_off_height(
    reference_height_in: float,
    piece_heights_in: Sequence[float],
    gaps_in: Sequence[float],
    socket_depth_in: float,
    base_plate_in: float,
) -> dict[str, float]:
    """Heights above the cellar floor at which surface casing and conductor are cut.

    A negative height means that the cellar is too shallow by that much.
    """
    surface = reference_height_in - float(np.sum(piece_heights_in) + np.sum(gaps_in)) + socket_depth_in
    return {"surface_casing_in": surface, "conductor_in": surface - socket_depth_in - base_plate_in}


@formula("h = s + Σhᵢ + Σgⱼ", "in", STACK_UP, ("piece_heights_in >= 0", "gaps_in >= 0"))
def face_height(lower_end_in: float, piece_heights_in: Sequence[float], gaps_in: Sequence[float]) -> float:
    """Height of a piece's top face above the cellar floor, from the lower end of the head."""
    return lower_end_in + float(np.sum(piece_heights_in) + np.sum(gaps_in))


@formula("h = g + e", "in", STACK_UP, ("gap_in >= 0", "engagement_in >= 0"))
def cut_above_flange(gap_in: Value, engagement_in: Value) -> Value:
    """Final cut of a hung casing above the flange that it hangs in: the made-up gap and its way up into the seal."""
    return gap_in + engagement_in


@formula("h_r = h + s", "in", STACK_UP, ("spare_in >= 0",))
def rough_cut(final_cut_in: Value, spare_in: Value) -> Value:
    """Rough cut: what is left over the final cut when the casing is first cut."""
    return final_cut_in + spare_in


@formula("D = F + (C − h)/12", "ft", STACK_UP + "; from the rotary", ("floor_height_ft >= 0",))
def landing_depth(floor_height_ft: Value, cellar_ft: Value, shoulder_in: Value) -> Value:
    """Depth of a hanger's landing shoulder from the rotary: height of the rig floor over ground, and the cellar."""
    return floor_height_ft + cellar_ft - shoulder_in / 12


@formula(
    "P = π²·E·I/(K·L)²",
    "lbf",
    "Euler's column; I = π/64·(D⁴ − d⁴), E = 30·10⁶ psi",
    ("od_in > 0", "id_in >= 0", "id_in < od_in", "length_ft > 0", "end_factor > 0"),
)
def column_buckling(od_in: Value, id_in: Value, length_ft: Value, end_factor: Value) -> Value:
    """Load at which a free-standing conductor or casing buckles.

    Example: 30 in with a bore of 28 in, 120 ft free over a fixed foot, buckles at 342,299 lbf.

    >>> round(column_buckling(od_in=30.0, id_in=28.0, length_ft=120.0, end_factor=2.0))
    342299
    """
    inertia = np.pi / 64 * (od_in**4 - id_in**4)
    return plain_value(np.pi**2 * STEEL_MODULUS_PSI * inertia / (end_factor * length_ft * 12) ** 2)


@formula(
    "ΔL = Σ(E·Aᵢ·α·ΔTᵢ) / Σ(E·Aᵢ/Lᵢ),  Fᵢ = E·Aᵢ·(ΔL/Lᵢ − α·ΔTᵢ)",
    "",
    "Stiffnesses in parallel; α = 6.9·10⁻⁶ /°F, E = 30·10⁶ psi",
    ("free_length_ft > 0", "od_in > 0", "id_in >= 0", "id_in < od_in"),
)
def wellhead_growth(od_in: Value, id_in: Value, free_length_ft: Value, temperature_change_f: Value) -> dict[str, Value]:
    """How far a wellhead rises when the strings fixed to it warm, and the force that this puts on the top of each.

    A positive force is tension. Each string is free from the wellhead down to its cement.
    """
    od, bore = np.asarray(od_in, dtype=float), np.asarray(id_in, dtype=float)
    length_in = np.asarray(free_length_ft, dtype=float) * 12
    stiff = STEEL_MODULUS_PSI * np.pi / 4 * (od**2 - bore**2)
    strain = EXPANSION_PER_F * np.asarray(temperature_change_f, dtype=float)
    growth = float(np.sum(stiff * strain) / np.sum(stiff / length_in))
    return {"growth_in": growth, "force_lbf": plain_value(stiff * (growth / length_in - strain))}


@formula("W = Σ(wᵢ·Lᵢ)·(1 − ρ/ρₛₜ)", "lbf", "Archimedes; steel 65.5 ppg", ("lengths_ft >= 0", "mud_ppg >= 0"))
def weight_to_mudline(weights_lb_ft: Sequence[float], lengths_ft: Sequence[float], mud_ppg: float) -> float:
    """Weight of a string in its mud from the wellhead down to its mudline hanger."""
    return float(np.sum(np.asarray(weights_lb_ft) * np.asarray(lengths_ft))) * (1 - mud_ppg / STEEL_PPG)


@formula("W_c = W·A_c/(Aₛ + A_c)", "lbf", "Springs in parallel, by steel area", ("steel_area_in2 > 0",))
def conductor_share(carried_lbf: Value, steel_area_in2: Value, conductor_area_in2: Value) -> Value:
    """Load that a base plate brings onto the conductor, of all that the wellhead carries."""
    return carried_lbf * conductor_area_in2 / (steel_area_in2 + conductor_area_in2)


@formula("p = min(R, k·p_c)", "psi", "Common practice: never over a share of collapse", ("collapse_share > 0",))
def outside_test_pressure(rated_psi: Value, collapse_psi: Value, collapse_share: Value) -> Value:
    """Pressure of a test that presses on the outside of the casing: of welds, of seals, between flanges."""
    return plain_value(np.minimum(rated_psi, collapse_share * collapse_psi))


@formula(
    "p = min(R, H, 50·⌈(p₀ + Δp)/50⌉)",
    "psi",
    "Common practice; to the next 50 psi, never over the class of element or head",
    ("margin_psi >= 0",),
)
def high_test_pressure(element_psi: Value, head_psi: Value, surface_psi: Value, margin_psi: Value) -> Value:
    """High-pressure test of an element: the surface pressure expected with its margin, within the classes."""
    asked = TEST_STEP_PSI * np.ceil(np.round((surface_psi + margin_psi) / TEST_STEP_PSI, 9))
    return plain_value(np.minimum(np.minimum(element_psi, head_psi), asked))


@formula(
    "W = F + p·A",
    "lbf",
    "Pressure-area method: the fluid over the hanger presses on the steel's top, as at its foot",
    ("pressure_psi >= 0", "steel_area_in2 > 0"),
)
def hanger_load(hanging_lbf: Value, pressure_psi: Value, steel_area_in2: Value) -> Value:
    """What a hanger under a column sets down on its seat: the weight of the string in its fluid.

    >>> round(hanger_load(266_600.0, 1_970.0, 48.95))
    363032
    """
    return hanging_lbf + pressure_psi * steel_area_in2
