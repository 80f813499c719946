"""Equations of killing a well and of its rehearsal: kill sheet, real gas, inflow, choke."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import GAL_PER_FT3, PPG_PER_SG, PSI_PER_PPG_FT, RANKINE_AT_0_F
from knollstack.core.base.formula import Value, formula, plain_value

WELL_CONTROL = "Textbook well control, kill sheet"
REAL_GAS = "Real gas law; Hall and Yarborough 1973 for the deviation factor, Sutton 1985 for the pseudocritical state"
AIR_LB_FT3 = 28.9647 / 10.73159
"""Molar mass of air over the gas constant, for lb/ft³ from psia and °R."""
NEWTON_ROUNDS = 60


@formula(
    "ρ_k = ρ + p_dp/((12/231)·D) + m",
    "ppg",
    WELL_CONTROL,
    ("mud_ppg > 0", "sidpp_psi >= 0", "tvd_ft > 0", "kill_margin_ppg >= 0"),
)
def kill_mud(mud_ppg: Value, sidpp_psi: Value, tvd_ft: Value, kill_margin_ppg: Value = 0.0) -> Value:
    """Mud weight that balances the formation, with a margin over it.

    >>> round(kill_mud(mud_ppg=12.6, sidpp_psi=520.0, tvd_ft=11_100.0), 2)
    13.5
    """
    return mud_ppg + sidpp_psi / (PSI_PER_PPG_FT * tvd_ft) + kill_margin_ppg


@formula("p = p_s + p_dp", "psi", WELL_CONTROL, ("slow_pump_psi >= 0", "sidpp_psi >= 0"))
def initial_circulating_pressure(slow_pump_psi: Value, sidpp_psi: Value) -> Value:
    """Drill pipe pressure while the old mud is pumped at the slow rate."""
    return slow_pump_psi + sidpp_psi


@formula("p = p_s·ρ_k/ρ", "psi", WELL_CONTROL, ("slow_pump_psi >= 0", "mud_ppg > 0", "kill_ppg > 0"))
def final_circulating_pressure(slow_pump_psi: Value, mud_ppg: Value, kill_ppg: Value) -> Value:
    """Drill pipe pressure from kill mud at the bit onwards."""
    return slow_pump_psi * kill_ppg / mud_ppg


@formula(
    "G = (12/231)·ρ − (p_c − p_dp)/h",
    "psi/ft",
    WELL_CONTROL,
    ("mud_ppg > 0", "sicp_psi >= 0", "sidpp_psi >= 0", "height_ft > 0"),
)
def influx_gradient(mud_ppg: Value, sicp_psi: Value, sidpp_psi: Value, height_ft: Value) -> Value:
    """Gradient of the influx, from the shut-in pressures and its vertical height."""
    return PSI_PER_PPG_FT * mud_ppg - (np.asarray(sicp_psi) - sidpp_psi) / height_ft


@formula("n = V/v", "", WELL_CONTROL, ("volume_bbl >= 0", "pump_bbl_stroke > 0"))
def pump_strokes(volume_bbl: Value, pump_bbl_stroke: Value) -> Value:
    """Strokes that pump a volume."""
    return volume_bbl / pump_bbl_stroke


@formula("t = n/N", "min", WELL_CONTROL, ("strokes >= 0", "slow_spm > 0"))
def pump_minutes(strokes: Value, slow_spm: Value) -> Value:
    """Time of so many strokes at the slow rate."""
    return strokes / slow_spm


@formula(
    "p = max(0, p_c − p_cl)", "psi", WELL_CONTROL + ", stack on the sea floor", ("sicp_psi >= 0", "choke_line_psi >= 0")
)
def starting_casing_pressure(sicp_psi: Value, choke_line_psi: Value) -> Value:
    """Casing pressure at the rig with the pumps at the slow rate: what the choke line rubs is taken off it."""
    return np.maximum(0.0, np.asarray(sicp_psi) - choke_line_psi)


@formula(
    "p = p_s·(q/q_s)²",
    "psi",
    "Textbook hydraulics: circulating pressure by the square of the rate",
    ("slow_pump_psi >= 0", "flow_gpm >= 0", "slow_gpm > 0"),
)
def pump_pressure_at_rate(slow_pump_psi: Value, flow_gpm: Value, slow_gpm: Value) -> Value:
    """Circulating pressure at another rate than that at which it was read."""
    return slow_pump_psi * (np.asarray(flow_gpm) / slow_gpm) ** 2


@formula(
    "p = ρ·q²/(12032·C²·A²)",
    "psi",
    "Bourgoyne et al., Applied Drilling Engineering, 1986; discharge coefficient 0.95",
    ("mud_ppg > 0", "flow_gpm >= 0", "nozzle_in2 > 0"),
)
def bit_pressure_drop(mud_ppg: Value, flow_gpm: Value, nozzle_in2: Value) -> Value:
    """Pressure lost in the nozzles of the bit."""
    return mud_ppg * np.asarray(flow_gpm) ** 2 / (12_032 * 0.95**2 * np.asarray(nozzle_in2) ** 2)


@formula(
    "p_pc = 756.8 − 131·γ − 3.6·γ²,  T_pc = 169.2 + 349.5·γ − 74·γ²,  t = T_pc/T,  A = 0.06125·t·e^(−1.2·(1 − t)²);  "
    "−A·p/p_pc + (y + y² + y³ − y⁴)/(1 − y)³ − (14.76t − 9.76t² + 4.58t³)·y² "
    "+ (90.7t − 242.2t² + 42.4t³)·y^(2.18 + 2.82t) = 0;  z = A·(p/p_pc)/y",
    "",
    REAL_GAS,
    ("pressure_psia > 0", "pressure_psia <= 30000", "temperature_f > 0", "gas_sg >= 0.55", "gas_sg <= 1.2"),
)
def gas_z_hall_yarborough(pressure_psia: Value, temperature_f: Value, gas_sg: Value) -> Value:
    """Deviation factor of a natural gas."""
    sg = np.asarray(gas_sg, dtype=float)
    reduced = np.asarray(pressure_psia, dtype=float) / (756.8 - 131 * sg - 3.6 * sg**2)
    t = (169.2 + 349.5 * sg - 74 * sg**2) / (np.asarray(temperature_f, dtype=float) + RANKINE_AT_0_F)
    a = 0.06125 * t * np.exp(-1.2 * (1 - t) ** 2)
    b, c, d = 14.76 * t - 9.76 * t**2 + 4.58 * t**3, 90.7 * t - 242.2 * t**2 + 42.4 * t**3, 2.18 + 2.82 * t
    y = np.minimum(a * reduced, 0.6)
    for _ in range(NEWTON_ROUNDS):
        f = -a * reduced + (y + y**2 + y**3 - y**4) / (1 - y) ** 3 - b * y**2 + c * y**d
        slope = (1 + 4 * y + 4 * y**2 - 4 * y**3 + y**4) / (1 - y) ** 4 - 2 * b * y + c * d * y ** (d - 1)
        y = np.clip(y - f / slope, 1e-12, 0.98)
    return plain_value(a * reduced / y)


@formula(
    "ρ = 2.6988·γ·p/(z·(T + 459.67))/7.4805",
    "ppg",
    REAL_GAS,
    ("pressure_psia > 0", "temperature_f > 0", "gas_sg > 0", "deviation > 0"),
)
def gas_density(pressure_psia: Value, temperature_f: Value, gas_sg: Value, deviation: Value) -> Value:
    """Density of a gas where it stands in the well."""
    return (
        AIR_LB_FT3 * gas_sg * pressure_psia / (deviation * (np.asarray(temperature_f) + RANKINE_AT_0_F)) / GAL_PER_FT3
    )


@formula(
    "V₂ = V₁·(p₁/p₂)·(z₂·T₂)/(z₁·T₁)",
    "bbl",
    REAL_GAS,
    ("volume_bbl >= 0", "from_psia > 0", "to_psia > 0", "from_zt > 0", "to_zt > 0"),
)
def gas_volume(volume_bbl: Value, from_psia: Value, to_psia: Value, from_zt: Value, to_zt: Value) -> Value:
    """Volume of a bubble at another pressure; each z·T is the deviation factor times the temperature in °R."""
    return volume_bbl * from_psia / to_psia * to_zt / from_zt


@formula(
    "q = 7.08·10⁻³·k·h·Δp/(μ·ln(r_e/r_w))/1440",
    "bbl/min",
    "Darcy's law, radial and steady",
    ("permeability_md >= 0", "exposed_ft >= 0", "gas_viscosity_cp > 0", "drainage_ft > 0", "hole_in > 0"),
)
def radial_inflow(
    permeability_md: Value,
    exposed_ft: Value,
    underbalance_psi: Value,
    gas_viscosity_cp: Value,
    drainage_ft: Value,
    hole_in: Value,
) -> Value:
    """Inflow of the exposed rock while the hole is underbalanced, at hole conditions; none in balance."""
    shape = gas_viscosity_cp * np.log(np.asarray(drainage_ft) * 24 / hole_in)
    return 7.08e-3 * permeability_md * exposed_ft * np.maximum(0.0, underbalance_psi) / shape / 1440


@formula(
    "q = C_v·√(Δp/SG),  SG = ρ/8.3454",
    "gal/min",
    "Flow coefficient of a valve; for gas Δp is no more than half the absolute pressure before it (choked flow)",
    ("flow_coefficient >= 0", "drop_psi >= 0", "mud_ppg > 0"),
)
def choke_flow(flow_coefficient: Value, drop_psi: Value, mud_ppg: Value) -> Value:
    """Flow through the choke, at the conditions before it."""
    return flow_coefficient * np.sqrt(np.asarray(drop_psi) / (np.asarray(mud_ppg) / PPG_PER_SG))


@formula("h = V/c", "ft", WELL_CONTROL, ("volume_bbl >= 0", "capacity_bbl_ft > 0"))
def influx_length(volume_bbl: Value, capacity_bbl_ft: Value) -> Value:
    """Length of the influx along the hole, in an annulus of one size."""
    return volume_bbl / capacity_bbl_ft


@formula("p = p_i − n·(p_i − p_f)/n_b", "psi", WELL_CONTROL, ("strokes >= 0", "strokes_to_bit > 0"))
def schedule_pressure(initial_psi: Value, final_psi: Value, strokes: Value, strokes_to_bit: Value) -> Value:
    """Drill pipe pressure while kill mud goes down a vertical string of one size."""
    return initial_psi - np.asarray(strokes) * (np.asarray(initial_psi) - final_psi) / strokes_to_bit


@formula(
    "p = p_s + (p_f − p_s)·s/S + max(0, p_dp − (12/231)·(ρ_k − ρ)·d)",
    "psi",
    WELL_CONTROL + ", deviated wells: friction by measured depth, column by vertical depth",
    ("slow_pump_psi >= 0", "final_psi >= 0", "front_md_ft >= 0", "front_tvd_ft >= 0", "bit_md_ft > 0"),
)
def deviated_schedule_pressure(
    slow_pump_psi: Value,
    final_psi: Value,
    sidpp_psi: Value,
    mud_ppg: Value,
    kill_ppg: Value,
    front_md_ft: Value,
    front_tvd_ft: Value,
    bit_md_ft: Value,
) -> Value:
    """Drill pipe pressure with kill mud down to a depth in the string."""
    friction = slow_pump_psi + (np.asarray(final_psi) - slow_pump_psi) * front_md_ft / bit_md_ft
    column = PSI_PER_PPG_FT * (np.asarray(kill_ppg) - mud_ppg) * front_tvd_ft
    return plain_value(friction + np.maximum(0.0, sidpp_psi - column))
