"""Slurry from its recipe by absolute volumes: density and yield of a sack of cement with water and additives."""

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import (
    BBL_PER_FT_PER_IN2,
    FRESH_WATER_PPG,
    GAL_PER_BBL,
    GAL_PER_FT3,
    PPG_PER_SG,
    PSI_PER_PPG_FT,
)
from knollstack.core.base.formula import Value, formula, plain_value

Floats = NDArray[np.float64]
SACK_LB = 94.0
BENTONITE_SG, SILICA_FLOUR_SG, BARITE_SG, HAEMATITE_SG = 2.65, 2.63, 4.23, 5.02
SALT_GAL_LB = 0.0417
"""Volume of salt dissolved in mix water: 15 % brine by weight, 1.1085 SG, from 11.98 gal of water and 17.6 lb."""
ABSOLUTE_VOLUMES = (
    "Absolute volumes, textbook cementing; 94 lb sack at 3.14 SG, bentonite 2.65, silica flour 2.63, barite 4.23, "
    "haematite 5.02; dissolved salt 0.0417 gal/lb"
)


@formula(
    "ρ = (m·(1 + (b + f + β + h)/100) + ρ_mw·w·(1 + s/100) + m_a)/V,  y = V/7.480519,  "
    "V = m/8.3454·(1/γ + b/265 + f/263 + β/423 + h/502) + w + 0.0417·ρ_mw·w·s/100 + v_a",
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
        "other_lb_sk >= 0",
        "other_gal_sk >= 0",
    ),
)
def slurry(
    water_gal_sk: float,
    sack_lb: float = SACK_LB,
    cement_sg: float = 3.14,
    water_ppg: float = FRESH_WATER_PPG,
    bentonite_percent: float = 0.0,
    silica_flour_percent: float = 0.0,
    barite_percent: float = 0.0,
    haematite_percent: float = 0.0,
    salt_percent: float = 0.0,
    other_lb_sk: float = 0.0,
    other_gal_sk: float = 0.0,
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
    mass = sack_lb * (1 + sum(percent for percent, _ in dry) / 100) + water_ppg * water_gal_sk + salt_lb + other_lb_sk
    solids = sack_lb / PPG_PER_SG * (1 / cement_sg + sum(percent / (100 * sg) for percent, sg in dry))
    volume_gal = solids + water_gal_sk + SALT_GAL_LB * salt_lb + other_gal_sk
    return {"density_ppg": mass / volume_gal, "yield_ft3_sk": volume_gal / GAL_PER_FT3}


@formula(
    "m = a/100·94 of cement | a/100·ρ_mw·w of water | a in lb/sk | a·8.3454·γ in gal/sk;  v = m/(8.3454·γ)",
    "",
    "Dosage of cement additives: by weight of a 94 lb sack or of its mix water, or per sack",
    ("amount >= 0", "additive_sg > 0", "water_gal_sk > 0", "water_ppg > 0"),
)
def additive_per_sack(
    amount: float, dosage: int, additive_sg: float, water_gal_sk: float, water_ppg: float = FRESH_WATER_PPG
) -> dict[str, float]:
    """Mass and volume of an additive in a sack's slurry; dosage 0 is % of cement, 1 % of water, 2 lb/sk, 3 gal/sk."""
    mass = (amount / 100 * SACK_LB, amount / 100 * water_ppg * water_gal_sk, amount, amount * PPG_PER_SG * additive_sg)
    return {"mass_lb": mass[int(dosage)], "volume_gal": mass[int(dosage)] / (PPG_PER_SG * additive_sg)}


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


@formula(
    "V = Σ (c(dₖ) + c(dₖ₊₁))/2·Δs,  c(d) = (d² − D²)/1029.42",
    "bbl",
    "Annular volume from a caliper: capacities at two readings averaged over the length between them",
    ("md_ft >= 0", "diameter_in > 0", "pipe_od_in >= 0"),
)
def caliper_volume(md_ft: Floats, diameter_in: Floats, pipe_od_in: float) -> float:
    """Annulus around a pipe in a hole of measured diameters, linear between readings."""
    capacity = BBL_PER_FT_PER_IN2 * (np.asarray(diameter_in, dtype=float) ** 2 - pipe_od_in**2)
    return float(np.sum((capacity[:-1] + capacity[1:]) / 2 * np.diff(np.asarray(md_ft, dtype=float))))


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


@formula(
    "F = w·L + (ρᵢ·Aᵢ − ρₒ·Aₒ)·L·12/231",
    "lbf",
    "Weight of a string less the lift of what is outside: hydrostatics on its end areas",
    ("length_ft >= 0", "weight_lb_ft > 0", "od_in > 0", "id_in > 0", "inside_ppg >= 0", "outside_ppg >= 0"),
)
def hanging_weight(
    length_ft: Value, weight_lb_ft: Value, od_in: Value, id_in: Value, inside_ppg: Value, outside_ppg: Value
) -> Value:
    """What a string weighs with one fluid inside and another outside; below zero it floats out of the hole."""
    inside, outside = (np.pi / 4 * np.asarray(d) ** 2 for d in (id_in, od_in))
    lift = PSI_PER_PPG_FT * (inside_ppg * inside - outside_ppg * outside)
    return plain_value(weight_lb_ft * np.asarray(length_ft) + lift * length_ft)


@formula(
    "V' = V·(1 + c·p)",
    "bbl",
    "Isothermal compression of a liquid, first order",
    ("volume_bbl >= 0", "mean_pressure_psi >= 0", "compressibility_1_psi >= 0"),
)
def compressed_displacement(volume_bbl: Value, mean_pressure_psi: Value, compressibility_1_psi: Value) -> Value:
    """Displacement as it is measured at surface: what is pumped shrinks under the mean pressure inside the casing."""
    return volume_bbl * (1 + compressibility_1_psi * mean_pressure_psi)


@formula(
    "GFP = 1.67·L/(d·OBP),  d = dₒ − dᵢ",
    "",
    "Gas flow potential of a cemented annulus, textbook cementing: under 3 minor, to 8 moderate, above severe",
    ("cement_ft >= 0", "overbalance_psi > 0", "outer_in > 0", "inner_in > 0", "outer_in > inner_in"),
)
def gas_flow_potential(cement_ft: Value, overbalance_psi: Value, outer_in: Value, inner_in: Value) -> Value:
    """Greatest loss of pressure while the cement gels, over the overbalance on the gas at the end of the job."""
    return 1.67 * np.asarray(cement_ft) / (np.asarray(outer_in) - inner_in) / overbalance_psi


@formula(
    "p = p_a − p_i + Δp_a + Δp_i",
    "psi",
    "Balance of the U-tube at the end of the pipe; below zero the pump gives nothing and the pipe runs empty at its top",
    ("annulus_friction_psi >= 0", "inside_friction_psi >= 0"),
)
def pump_pressure(
    annulus_column_psi: float, inside_column_psi: float, annulus_friction_psi: float, inside_friction_psi: float
) -> float:
    """Pressure at the cementing head: what the annulus has over the pipe, and the friction in both."""
    return annulus_column_psi - inside_column_psi + annulus_friction_psi + inside_friction_psi


@formula("p = p₀ + Δp_c + Δp_f", "psi", "Sum of columns and friction from the top of the annulus down")
def annulus_pressure(top_psi: float, column_psi: float, friction_psi: float) -> float:
    """Pressure in the annulus at a depth while fluids move."""
    return top_psi + column_psi + friction_psi


@formula(
    "p = (12/231)·(ρ_c − ρ_m)·h + Δp_f",
    "psi",
    "Hydrostatics of cement reversed into the drill pipe, with mud around it and over it",
    ("cement_ppg > 0", "mud_ppg > 0", "height_ft >= 0", "friction_psi >= 0"),
)
def reversing_pressure(cement_ppg: float, mud_ppg: float, height_ft: float, friction_psi: float) -> float:
    """Pressure on the annulus while cement stands in the drill pipe over its end: its excess weight, and all friction."""
    return PSI_PER_PPG_FT * (cement_ppg - mud_ppg) * height_ft + friction_psi


@formula(
    "h = V/(c_a + c_p),  h' = V/c_h,  V_s' = V_s·c_p/c_a,  V_d = c_p·(D − h) − V_s',  "
    "c_a = (d_h² − D_p²)/1029.42,  c_p = d_p²/1029.42,  c_h = d_h²/1029.42",
    "",
    "Balanced plug of cement set through drill pipe, textbook cementing",
    (
        "slurry_bbl > 0",
        "hole_in > 0",
        "pipe_od_in > 0",
        "pipe_id_in > 0",
        "pipe_id_in < pipe_od_in",
        "pipe_od_in < hole_in",
        "spacer_ahead_bbl >= 0",
        "bottom_md_ft > 0",
    ),
)
def balanced_plug(
    slurry_bbl: float,
    hole_in: float,
    pipe_od_in: float,
    pipe_id_in: float,
    spacer_ahead_bbl: float,
    bottom_md_ft: float,
) -> dict[str, float]:
    """Height of a plug with the pipe in it and pulled, the spacer behind that balances the one ahead, and the displacement."""
    annulus = BBL_PER_FT_PER_IN2 * (hole_in**2 - pipe_od_in**2)
    pipe = BBL_PER_FT_PER_IN2 * pipe_id_in**2
    height = slurry_bbl / (annulus + pipe)
    behind = spacer_ahead_bbl * pipe / annulus
    return {
        "height_with_pipe_ft": height,
        "height_pulled_ft": slurry_bbl / (BBL_PER_FT_PER_IN2 * hole_in**2),
        "spacer_behind_bbl": behind,
        "displacement_bbl": pipe * (bottom_md_ft - height) - behind,
    }
