"""Slurry from its recipe by absolute volumes: density and yield of a sack of cement with water and bentonite."""

from knollstack.core.constants import FRESH_WATER_PPG, GAL_PER_FT3, PPG_PER_SG
from knollstack.core.formula import formula

BENTONITE_SG = 2.65
ABSOLUTE_VOLUMES = "Absolute volumes, textbook cementing; 94 lb sack at 3.14 SG, bentonite 2.65"


@formula(
    "ρ = (m·(1 + b/100) + ρ_mw·w)/V,  y = V/7.480519,  V = m/(8.3454·γ) + (b/100)·m/(8.3454·2.65) + w",
    "",
    ABSOLUTE_VOLUMES,
    ("water_gal_sk > 0", "sack_lb > 0", "cement_sg > 1", "water_ppg > 0", "bentonite_percent >= 0"),
)
def slurry(
    water_gal_sk: float,
    sack_lb: float = 94.0,
    cement_sg: float = 3.14,
    water_ppg: float = FRESH_WATER_PPG,
    bentonite_percent: float = 0.0,
) -> dict[str, float]:
    """Density and yield of a slurry.

    Example: 4.97 gal/sk of fresh water gives 15.8 ppg and 1.144 ft³/sk.
    """
    bentonite_lb = sack_lb * bentonite_percent / 100
    volume_gal = sack_lb / (PPG_PER_SG * cement_sg) + bentonite_lb / (PPG_PER_SG * BENTONITE_SG) + water_gal_sk
    return {
        "density_ppg": (sack_lb + bentonite_lb + water_ppg * water_gal_sk) / volume_gal,
        "yield_ft3_sk": volume_gal / GAL_PER_FT3,
    }


@formula(
    "w = w₀ + 0.6·b",
    "gal/sk",
    "Common practice: 5.3 % more water by weight of cement for each 1 % of bentonite",
    ("water_gal_sk > 0", "bentonite_percent >= 0"),
)
def bentonite_water(water_gal_sk: float, bentonite_percent: float) -> float:
    """Mix water of a bentonite slurry from that of the neat slurry."""
    return water_gal_sk + 0.6 * bentonite_percent
