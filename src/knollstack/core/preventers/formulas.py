"""Preventer arithmetic: accumulators (API 16D), shearing, hang-off, and what a cup tester pulls."""

import math

import numpy as np

from knollstack.core.base.constants import STEEL_PPG
from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.preventers.nitrogen import density_lb_ft3

API_16D = "API Spec 16D, 2nd ed., 2004"


@formula(
    "V_u = V·(p₀/p_min − p₀/p_op)",
    "gal",
    API_16D + ", ideal gas",
    ("gas_volume_gal > 0", "precharge_psi > 0", "minimum_psi >= precharge_psi", "operating_psi >= minimum_psi"),
)
def accumulator_usable(gas_volume_gal: Value, precharge_psi: Value, minimum_psi: Value, operating_psi: Value) -> Value:
    """Usable fluid of one accumulator bottle."""
    return gas_volume_gal * (precharge_psi / minimum_psi - precharge_psi / operating_psi)


@formula(
    "V_u = V·p₀·(1/(p_min + p_h + 14.7) − 1/(p_op + p_h + 14.7))",
    "gal",
    API_16D + ", ideal gas at the sea floor; precharge absolute",
    (
        "gas_volume_gal > 0",
        "precharge_psia > 0",
        "minimum_psi > 0",
        "operating_psi >= minimum_psi",
        "hydrostatic_psi >= 0",
    ),
)
def accumulator_usable_subsea(
    gas_volume_gal: Value, precharge_psia: Value, minimum_psi: Value, operating_psi: Value, hydrostatic_psi: Value
) -> Value:
    """Usable fluid of one accumulator bottle at the sea floor."""
    least, most = minimum_psi + hydrostatic_psi + 14.7, operating_psi + hydrostatic_psi + 14.7
    return gas_volume_gal * precharge_psia * (1 / least - 1 / most)


@formula(
    "V_u = V·(ρ(p₀, T₀)/ρ(p_min, T_min) − ρ(p₀, T₀)/ρ(p_op, T_op))",
    "gal",
    API_16D + ", real gas; density of nitrogen by its reference equation of state",
    (
        "gas_volume_gal > 0",
        "precharge_psi > 0",
        "operating_psi >= minimum_psi",
        "operating_psi <= 11900",
        "precharge_f >= -20",
        "precharge_f <= 250",
        "minimum_f >= -20",
        "minimum_f <= 250",
        "operating_f >= -20",
        "operating_f <= 250",
    ),
)
def accumulator_usable_nitrogen(
    gas_volume_gal: Value,
    precharge_psi: Value,
    precharge_f: Value,
    minimum_psi: Value,
    minimum_f: Value,
    operating_psi: Value,
    operating_f: Value,
) -> Value:
    """Usable fluid of one bottle of nitrogen, with the gas as it is.

    Example: 10 gal of gas at 1,000 psi and 70 °F give 4.48 gal between 3,000 and 1,200 psi at 40 °F.

    >>> round(accumulator_usable_nitrogen(10.0, 1000.0, 70.0, 1200.0, 40.0, 3000.0, 40.0), 2)
    4.48
    """
    charged = density_lb_ft3(precharge_psi, precharge_f)
    least, most = density_lb_ft3(minimum_psi, minimum_f), density_lb_ft3(operating_psi, operating_f)
    return plain_value(gas_volume_gal * (charged / least - charged / most))


@formula("n = ⌈k·V/V_u⌉", "", API_16D, ("needed_gal >= 0", "factor > 0", "usable_per_bottle_gal > 0"))
def accumulator_bottles(needed_gal: float, factor: float, usable_per_bottle_gal: float) -> float:
    """Bottles that hold the fluid of the functions with its factor."""
    return float(math.ceil(round(factor * needed_gal / usable_per_bottle_gal, 9)))


@formula("t = n·V_f/q", "min", "Volume balance", ("bottles >= 0", "fluid_gal >= 0", "pump_gpm > 0"))
def charging_time(bottles: float, fluid_gal: float, pump_gpm: float) -> float:
    """Time to charge the bottles from their precharge to operating pressure."""
    return bottles * fluid_gal / pump_gpm


@formula(
    "F = 0.577·Yₚ·(π/4)(D² − d²)",
    "lbf",
    "Distortion energy shear strength of the pipe body",
    ("od_in > 0", "id_in >= 0", "id_in < od_in", "yield_psi > 0"),
)
def shear_force(od_in: Value, id_in: Value, yield_psi: Value) -> Value:
    """Force to shear a pipe."""
    return 0.577 * yield_psi * np.pi / 4 * (od_in**2 - id_in**2)


@formula("F_d = k·F", "lbf", "A factor on the distortion energy force", ("shear_force_lbf >= 0", "factor > 0"))
def design_shear_force(shear_force_lbf: Value, factor: Value) -> Value:
    """Force that a shear ram must give: that of the pipe body with policy's factor."""
    return factor * shear_force_lbf


@formula(
    "p = F/A + p_w/r",
    "psi",
    "Balance of the operating piston; the well pushes back on its rod",
    ("shear_force_lbf >= 0", "closing_area_in2 > 0", "wellbore_psi >= 0", "closing_ratio > 0"),
)
def shear_pressure(shear_force_lbf: Value, closing_area_in2: Value, wellbore_psi: Value, closing_ratio: Value) -> Value:
    """Closing pressure that shears a pipe under a pressure in the well.

    Example: 490,000 lbf on 238 in² with 5,000 psi below and a ratio of 7.1 asks 2,763 psi.

    >>> round(shear_pressure(490_000.0, 238.0, 5_000.0, 7.1))
    2763
    """
    return shear_force_lbf / closing_area_in2 + wellbore_psi / closing_ratio


@formula(
    "p = F/A + (p_w − p_h)/r",
    "psi",
    "Balance of the operating piston on the sea floor: closing pressure over that of the sea",
    (
        "shear_force_lbf >= 0",
        "closing_area_in2 > 0",
        "hydrostatic_psi >= 0",
        "wellbore_psi >= hydrostatic_psi",
        "closing_ratio > 0",
    ),
)
def shear_pressure_subsea(
    shear_force_lbf: Value, closing_area_in2: Value, wellbore_psi: Value, hydrostatic_psi: Value, closing_ratio: Value
) -> Value:
    """Closing pressure over that of the sea that shears a pipe under a pressure in the well.

    Example: 490,000 lbf on 238 in² with 5,000 psi below, 2,000 psi of sea and a ratio of 7.1 asks 2,481 psi.

    >>> round(shear_pressure_subsea(490_000.0, 238.0, 5_000.0, 2_000.0, 7.1))
    2481
    """
    return shear_force_lbf / closing_area_in2 + (wellbore_psi - hydrostatic_psi) / closing_ratio


@formula(
    "W = (w_p·(L − L_c) + w_c·L_c)·(1 − ρ/ρₛₜ)",
    "lbf",
    "Archimedes; steel 65.5 ppg",
    ("length_ft >= collar_length_ft", "mud_ppg >= 0"),
)
def hang_off_load(
    pipe_weight_ppf: Value, length_ft: Value, collar_weight_ppf: Value, collar_length_ft: Value, mud_ppg: Value
) -> Value:
    """Weight of a drill string hung off on a ram."""
    air = pipe_weight_ppf * (length_ft - collar_length_ft) + collar_weight_ppf * collar_length_ft
    return air * (1 - mud_ppg / STEEL_PPG)


@formula(
    "T = p·(π/4)(d_c² − d_p²)",
    "lbf",
    "Pressure on the area of the cup",
    ("pressure_psi >= 0", "pipe_od_in > 0", "pipe_od_in < casing_id_in"),
)
def cup_test_tension(pressure_psi: Value, casing_id_in: Value, pipe_od_in: Value) -> Value:
    """Tension on the pipe that holds a cup tester.

    Example: 3,000 psi over a cup in 8.755 in casing on 5 in pipe pulls 121,698 lbf.

    >>> round(cup_test_tension(pressure_psi=3000.0, casing_id_in=8.755, pipe_od_in=5.0))
    121698
    """
    return pressure_psi * np.pi / 4 * (casing_id_in**2 - pipe_od_in**2)
