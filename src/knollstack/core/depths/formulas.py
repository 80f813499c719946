"""Equations of setting depths: kick tolerance of a single gas bubble, MAASP, and the conductor's depth for returns.

Single-bubble method of the well control texts: heights are vertical, volumes along hole, Boyle's law between
the weak point and bottom.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import Value, formula, plain_value

RETURNS = "Balance of the mud column and the ground's strength at the shoe, textbook conductor design"
SINGLE_BUBBLE = "Single-bubble kick tolerance, textbook well control; Boyle's law"


@formula(
    "MAASP = (F − ρ)·(12/231)·D_s",
    "psi",
    "Textbook well control",
    ("fracture_ppg > 0", "mud_ppg > 0", "shoe_tvd_ft >= 0"),
)
def maasp(fracture_ppg: Value, mud_ppg: Value, shoe_tvd_ft: Value) -> Value:
    """Maximum allowable annular surface pressure; negative when the mud alone breaks the shoe."""
    return (fracture_ppg - mud_ppg) * PSI_PER_PPG_FT * shoe_tvd_ft


@formula(
    "P_f = (12/231)·(P + i)·D_b", "psi", SINGLE_BUBBLE, ("pore_ppg > 0", "intensity_ppg >= 0", "section_tvd_ft > 0")
)
def formation_pressure(pore_ppg: Value, intensity_ppg: Value, section_tvd_ft: Value) -> Value:
    """Formation pressure of the design kick."""
    return PSI_PER_PPG_FT * (pore_ppg + intensity_ppg) * section_tvd_ft


@formula("P = P_w − Δp_c", "psi", SINGLE_BUBBLE, ("weak_psi >= 0", "choke_line_psi >= 0"))
def choke_line_allowance(weak_psi: Value, choke_line_psi: Value) -> Value:
    """Pressure that the weak point may see, less the friction in the choke line that it feels while circulating."""
    return weak_psi - choke_line_psi


@formula(
    "P_s = P_f − G_i·(D_b − D_s)",
    "psi",
    "Textbook well control, hole full of gas from the kick to the shoe",
    ("formation_psi >= 0", "influx_psi_ft >= 0", "section_tvd_ft >= shoe_tvd_ft"),
)
def full_gas_shoe_pressure(
    formation_psi: Value, section_tvd_ft: Value, shoe_tvd_ft: Value, influx_psi_ft: Value
) -> Value:
    """Pressure at the shoe with gas from the kick up to it, whatever its volume."""
    return formation_psi - influx_psi_ft * (np.asarray(section_tvd_ft) - shoe_tvd_ft)


@formula("Δp = P_w − P_s", "psi", "Textbook well control, full evacuation to gas", ("weak_psi >= 0",))
def full_gas_margin(weak_psi: Value, shoe_psi: Value) -> Value:
    """Margin of the shoe over full evacuation to gas; negative when it breaks down."""
    return weak_psi - shoe_psi


@formula(
    "H = (P_w − P_f + Gₘ·(D_b − D_w)) / (Gₘ − G_i), clipped to 0 … D_b − D_w;  Gₘ = (12/231)·ρ",
    "ft",
    SINGLE_BUBBLE,
    ("mud_ppg > 0", "influx_psi_ft >= 0", "section_tvd_ft >= weak_tvd_ft"),
)
def kick_height(
    weak_psi: Value,
    formation_psi: Value,
    mud_ppg: Value,
    section_tvd_ft: Value,
    weak_tvd_ft: Value,
    influx_psi_ft: Value = 0.1,
) -> Value:
    """Height of influx that the weak point withstands, with the bubble's top at the weak point."""
    mud_psi_ft = PSI_PER_PPG_FT * np.asarray(mud_ppg)
    open_ft = np.asarray(section_tvd_ft) - weak_tvd_ft
    height = (weak_psi - np.asarray(formation_psi) + mud_psi_ft * open_ft) / (mud_psi_ft - influx_psi_ft)
    return plain_value(np.clip(height, 0, open_ft))


@formula(
    "V₁ = (c_p·(ℓ − ℓ_c) + c_c·ℓ_c)·P_w/P_f,  ℓ_c = max(0, ℓ − (L_o − L_c))",
    "bbl",
    SINGLE_BUBBLE,
    ("bubble_length_ft >= 0", "open_length_ft >= 0", "formation_psi > 0", "collar_length_ft >= 0"),
)
def kick_volume_at_weak_point(
    bubble_length_ft: Value,
    open_length_ft: Value,
    pipe_annulus_bbl_ft: Value,
    collar_annulus_bbl_ft: Value,
    collar_length_ft: Value,
    weak_psi: Value,
    formation_psi: Value,
) -> Value:
    """Influx at bottom conditions that just reaches the allowed height at the weak point."""
    beside_collars = np.maximum(0, np.asarray(bubble_length_ft) - np.maximum(0, open_length_ft - collar_length_ft))
    volume = pipe_annulus_bbl_ft * (bubble_length_ft - beside_collars) + collar_annulus_bbl_ft * beside_collars
    return plain_value(volume * weak_psi / formation_psi)


@formula(
    "V₂ = c_c·min(ℓ, L_c) + c_p·max(0, ℓ − L_c)",
    "bbl",
    SINGLE_BUBBLE,
    ("bubble_length_ft >= 0", "collar_length_ft >= 0"),
)
def kick_volume_on_bottom(
    bubble_length_ft: Value, pipe_annulus_bbl_ft: Value, collar_annulus_bbl_ft: Value, collar_length_ft: Value
) -> Value:
    """Influx of the allowed height on bottom at shut-in."""
    length = np.asarray(bubble_length_ft)
    beside_collars = np.minimum(length, collar_length_ft)
    return plain_value(collar_annulus_bbl_ft * beside_collars + pipe_annulus_bbl_ft * (length - beside_collars))


@formula("V = min(V₁, V₂)", "bbl", SINGLE_BUBBLE, ("at_weak_point_bbl >= 0", "at_bottom_bbl >= 0"))
def lesser_kick_volume(at_weak_point_bbl: Value, at_bottom_bbl: Value) -> Value:
    """Kick tolerance: the lesser of the two volumes."""
    return plain_value(np.minimum(at_weak_point_bbl, at_bottom_bbl))


@formula(
    "P_w = (12/231)·F·D_w,  P_f = (12/231)·(P + i)·D_b,  Gₘ = (12/231)·ρ;  "
    "H = (P_w − P_f + Gₘ·(D_b − D_w))/(Gₘ − G_i), clipped to 0 … D_b − D_w;  "
    "V₁ = (c_p·(H − H_c) + c_c·H_c)·P_w/P_f,  H_c = max(0, H − max(0, D_b − D_w − L_c));  "
    "V₂ = c_c·min(H, L_c) + c_p·max(0, H − L_c);  V = min(V₁, V₂)",
    "",
    SINGLE_BUBBLE,
    ("section_tvd_ft > 0", "fracture_ppg > 0", "pore_ppg > 0", "mud_ppg > 0", "weak_tvd_ft <= section_tvd_ft"),
)
def kick_tolerance(
    section_tvd_ft: Value,
    weak_tvd_ft: Value,
    fracture_ppg: Value,
    pore_ppg: Value,
    intensity_ppg: Value,
    mud_ppg: Value,
    influx_psi_ft: Value,
    pipe_annulus_bbl_ft: Value,
    collar_annulus_bbl_ft: Value,
    collar_length_ft: Value,
) -> dict[str, float]:
    """Kick tolerance of a vertical section: allowed height, and the lesser of the two volumes."""
    weak = formation_pressure(fracture_ppg, 0.0, weak_tvd_ft) if np.all(np.asarray(weak_tvd_ft) > 0) else 0.0
    formation = formation_pressure(pore_ppg, intensity_ppg, section_tvd_ft)
    height = kick_height(weak, formation, mud_ppg, section_tvd_ft, weak_tvd_ft, influx_psi_ft)
    open_ft = section_tvd_ft - weak_tvd_ft
    at_weak = kick_volume_at_weak_point(
        height, open_ft, pipe_annulus_bbl_ft, collar_annulus_bbl_ft, collar_length_ft, weak, formation
    )
    on_bottom = kick_volume_on_bottom(height, pipe_annulus_bbl_ft, collar_annulus_bbl_ft, collar_length_ft)
    return {
        "height_ft": height,
        "volume_bbl": lesser_kick_volume(at_weak, on_bottom),
        "at_weak_point_bbl": at_weak,
        "at_bottom_bbl": on_bottom,
    }


@formula("D = ρ·h_f/(F − ρ)", "ft", RETURNS, ("mud_ppg > 0", "fracture_ppg > mud_ppg", "flowline_height_ft >= 0"))
def conductor_depth_land(mud_ppg: Value, fracture_ppg: Value, flowline_height_ft: Value) -> Value:
    """Least conductor depth below ground for returns to the flowline."""
    return mud_ppg * flowline_height_ft / (fracture_ppg - mud_ppg)


@formula(
    "D = (ρ·(h_a + h_w) − ρ_w·h_w)/(F_s − ρ)",
    "ft",
    RETURNS,
    ("mud_ppg > 0", "soil_ppg > mud_ppg", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def conductor_depth_sea(
    mud_ppg: Value, soil_ppg: Value, air_gap_ft: Value, water_depth_ft: Value, sea_water_ppg: Value = SEA_WATER_PPG
) -> Value:
    """Least conductor depth below mudline for returns to the rig."""
    return (mud_ppg * (air_gap_ft + water_depth_ft) - sea_water_ppg * water_depth_ft) / (soil_ppg - mud_ppg)
