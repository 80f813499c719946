"""Mud weights: weighting up, the riser margin, overbalance.

Sources: material balance (textbook mud engineering); hydrostatics.
"""

from __future__ import annotations

from knollstack.core.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.formula import Value, formula

BALANCE = "Material balance, textbook mud engineering; barite 35 ppg"


@formula(
    "m = V·42·ρₛ·(W₂ − W₁)/(ρₛ − W₂),  ΔV = m/(42·ρₛ)",
    "",
    BALANCE,
    ("old_mud_ppg > 0", "new_mud_ppg >= old_mud_ppg", "new_mud_ppg < solid_ppg", "volume_bbl >= 0"),
)
def weight_up(old_mud_ppg: Value, new_mud_ppg: Value, volume_bbl: Value, solid_ppg: Value = 35.0) -> dict[str, float]:
    """Weighting solid for raising the mud weight, and the volume it adds.

    Example: 100 bbl from 10 to 11 ppg takes 6,125 lb and gains 4.17 bbl.
    """
    mass = volume_bbl * 42 * solid_ppg * (new_mud_ppg - old_mud_ppg) / (solid_ppg - new_mud_ppg)
    return {"mass_lb": mass, "volume_gain_bbl": mass / (42 * solid_ppg)}


@formula(
    "ρ = (P·D − ρ_w·h_w)/(D − h_a − h_w)",
    "ppg",
    "Hydrostatics with the riser gone: mud below mudline plus sea water",
    ("pore_ppg > 0", "tvd_ft > 0", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def riser_margin_mud(
    pore_ppg: Value,
    tvd_ft: Value,
    air_gap_ft: Value,
    water_depth_ft: Value,
    sea_water_ppg: Value = SEA_WATER_PPG,
) -> Value:
    """Mud weight that still holds the pore pressure when the riser is gone."""
    return (pore_ppg * tvd_ft - sea_water_ppg * water_depth_ft) / (tvd_ft - air_gap_ft - water_depth_ft)


@formula("Δp = (ρ − P)·(12/231)·D", "psi", "Hydrostatics", ("mud_ppg > 0", "pore_ppg > 0", "tvd_ft >= 0"))
def overbalance(mud_ppg: Value, pore_ppg: Value, tvd_ft: Value) -> Value:
    """Mud pressure over pore pressure; negative is underbalance."""
    return (mud_ppg - pore_ppg) * PSI_PER_PPG_FT * tvd_ft
