"""Slurry from its recipe by absolute volumes: density and yield of a sack of cement with water and additives."""

from knollstack.core.base.constants import FRESH_WATER_PPG, GAL_PER_BBL, GAL_PER_FT3, PPG_PER_SG
from knollstack.core.base.formula import formula

BENTONITE_SG, SILICA_FLOUR_SG, BARITE_SG, HAEMATITE_SG = 2.65, 2.63, 4.23, 5.02
SALT_GAL_LB = 0.0417
"""Volume of salt dissolved in mix water: 15 % brine by weight, 1.1085 SG, from 11.98 gal of water and 17.6 lb."""
ABSOLUTE_VOLUMES = (
    "Absolute volumes, textbook cementing; 94 lb sack at 3.14 SG, bentonite 2.65, silica flour 2.63, barite 4.23, "
    "haematite 5.02; dissolved salt 0.0417 gal/lb"
)


@formula(
    "ρ = (m·(1 + (b + f + β + h)/100) + ρ_mw·w·(1 + s/100))/V,  y = V/7.480519,  "
    "V = m/8.3454·(1/γ + b/265 + f/263 + β/423 + h/502) + w + 0.0417·ρ_mw·w·s/100",
    "",
    ABSOLUTE_VOLUMES,
    (
        "water_gal_sk > 0",
        "sack_lb > 0",
        "cement_sg > 1",
        "water_ppg > 0",
        "bentonite_percent >= 0",
        "silica_flour_percent >= 0",
        "barite_percent >= 0",
        "haematite_percent >= 0",
        "salt_percent >= 0",
    ),
)
def slurry(
    water_gal_sk: float,
    sack_lb: float = 94.0,
    cement_sg: float = 3.14,
    water_ppg: float = FRESH_WATER_PPG,
    bentonite_percent: float = 0.0,
    silica_flour_percent: float = 0.0,
    barite_percent: float = 0.0,
    haematite_percent: float = 0.0,
    salt_percent: float = 0.0,
) -> dict[str, float]:
    """Density and yield of a slurry: dry additives by weight of cement, salt by weight of the mix water.

    Example: 4.97 gal/sk of fresh water gives 15.8 ppg and 1.144 ft³/sk.
    """
    dry = (
        (bentonite_percent, BENTONITE_SG),
        (silica_flour_percent, SILICA_FLOUR_SG),
        (barite_percent, BARITE_SG),
        (haematite_percent, HAEMATITE_SG),
    )
    salt_lb = water_ppg * water_gal_sk * salt_percent / 100
    mass = sack_lb * (1 + sum(percent for percent, _ in dry) / 100) + water_ppg * water_gal_sk + salt_lb
    solids = sack_lb / PPG_PER_SG * (1 / cement_sg + sum(percent / (100 * sg) for percent, sg in dry))
    volume_gal = solids + water_gal_sk + SALT_GAL_LB * salt_lb
    return {"density_ppg": mass / volume_gal, "yield_ft3_sk": volume_gal / GAL_PER_FT3}


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
    "V = V_p + V_l",
    "bbl",
    "Volume balance; a liner, or a string hung at the sea floor, is displaced through its landing string",
    ("inside_bbl >= 0", "landing_string_bbl >= 0"),
)
def landing_displacement(inside_bbl: float, landing_string_bbl: float) -> float:
    """Displacement to the float collar: inside the string, and inside the drill pipe that it is landed on."""
    return inside_bbl + landing_string_bbl
