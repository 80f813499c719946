"""Slurry from its recipe by absolute volumes: density and yield of a sack of cement with water and bentonite."""

from knollstack.core.base.constants import FRESH_WATER_PPG, GAL_PER_BBL, GAL_PER_FT3, PPG_PER_SG
from knollstack.core.base.formula import formula

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


@formula(
    "V = V_c + V_o + V_t + V_r",
    "bbl",
    "Volume balance of a cement job",
    ("cased_annulus_bbl >= 0", "open_annulus_bbl >= 0", "shoe_track_bbl >= 0", "rathole_bbl >= 0"),
)
def slurry_volume(
    cased_annulus_bbl: float, open_annulus_bbl: float, shoe_track_bbl: float, rathole_bbl: float
) -> float:
    """Slurry of a job: annulus in casing and in open hole with its excess, shoe track, rathole."""
    return cased_annulus_bbl + open_annulus_bbl + shoe_track_bbl + rathole_bbl


@formula("V = n·w/42", "bbl", "Volume balance; 42 gal/bbl", ("sack_count_sk >= 0", "water_gal_sk > 0"))
def mix_water(sack_count_sk: float, water_gal_sk: float) -> float:
    """Mix water of a number of sacks."""
    return sack_count_sk * water_gal_sk / GAL_PER_BBL


@formula(
    "Δp = p_a − (p_m + p_s − p_c)",
    "psi",
    "Hydrostatics of the annulus and of the casing with its shoe track at the end of displacement",
)
def float_differential(
    annulus_psi: float, mud_to_collar_psi: float, slurry_to_shoe_psi: float, slurry_to_collar_psi: float
) -> float:
    """Differential that the float holds after the job: annulus at the shoe, less mud to the collar and slurry below."""
    return annulus_psi - (mud_to_collar_psi + (slurry_to_shoe_psi - slurry_to_collar_psi))
