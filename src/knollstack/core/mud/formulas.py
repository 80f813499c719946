"""Equations of mud: weighting up, riser margin and overbalance at rest; rheology, friction, surge and swab in motion.

Bingham plastic and power law as in Bourgoyne, Chenevert, Millheim and Young, Applied Drilling Engineering (SPE, 1986),
chapter 4, narrow-slot annulus; the greater of laminar and turbulent loss is taken. Herschel-Bulkley by API RP 13D, 2006.
Surge and swab by Burkhardt (1961): the mud moved by a closed pipe, with its clinging part.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import Value, formula, plain_value

BALANCE = "Material balance, textbook mud engineering; barite 35 ppg"
BOURGOYNE = "Bourgoyne et al., Applied Drilling Engineering, SPE Textbook 2, 1986, chapter 4"
API_13D = "API RP 13D, Rheology and hydraulics of oil-well drilling fluids, 5th edition, 2006"
_GAP = ("outer_in > 0", "inner_in >= 0", "outer_in > inner_in")


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
    pore_ppg: Value, tvd_ft: Value, air_gap_ft: Value, water_depth_ft: Value, sea_water_ppg: Value = SEA_WATER_PPG
) -> Value:
    """Mud weight that still holds the pore pressure when the riser is gone."""
    return (pore_ppg * tvd_ft - sea_water_ppg * water_depth_ft) / (tvd_ft - air_gap_ft - water_depth_ft)


@formula("Δp = (ρ − P)·(12/231)·D", "psi", "Hydrostatics", ("mud_ppg > 0", "pore_ppg > 0", "tvd_ft >= 0"))
def overbalance(mud_ppg: Value, pore_ppg: Value, tvd_ft: Value) -> Value:
    """Mud pressure over pore pressure; negative is underbalance."""
    return (mud_ppg - pore_ppg) * PSI_PER_PPG_FT * tvd_ft


@formula("μ_p = θ₆₀₀ − θ₃₀₀,  τ_y = θ₃₀₀ − μ_p", "", BOURGOYNE, ("reading_300 > 0", "reading_600 > reading_300"))
def bingham(reading_300: Value, reading_600: Value) -> dict[str, Value]:
    """Plastic viscosity [cP] and yield point [lbf/100 ft²] from the readings at 300 and 600 rpm."""
    plastic = reading_600 - reading_300
    return {"plastic_cp": plastic, "yield_lb_100ft2": reading_300 - plastic}


@formula(
    "n = 3.322·log₁₀(θ₆₀₀/θ₃₀₀),  K = 510·θ₃₀₀/511^n", "", BOURGOYNE, ("reading_300 > 0", "reading_600 > reading_300")
)
def power_law(reading_300: Value, reading_600: Value) -> dict[str, Value]:
    """Flow index, and consistency [eq. cP], from the readings at 300 and 600 rpm."""
    index = 3.322 * np.log10(np.asarray(reading_600) / reading_300)
    return {"flow_index": plain_value(index), "consistency_ecp": plain_value(510 * reading_300 / 511**index)}


@formula("v = q/(2.448·(dₒ² − dᵢ²))", "ft/s", BOURGOYNE, ("flow_gpm >= 0", *_GAP))
def annular_velocity(flow_gpm: Value, outer_in: Value, inner_in: Value) -> Value:
    """Mean velocity in an annulus."""
    return flow_gpm / (2.448 * (np.asarray(outer_in) ** 2 - np.asarray(inner_in) ** 2))


@formula(
    "v = v_p·(0.45 + dᵢ²/(dₒ² − dᵢ²))", "ft/s", "Burkhardt, 1961; clinging constant 0.45", ("pipe_ft_s >= 0", *_GAP)
)
def trip_velocity(pipe_ft_s: Value, outer_in: Value, inner_in: Value) -> Value:
    """Velocity of the mud past a closed pipe that is moved, with the mud that clings to it."""
    inner = np.asarray(inner_in) ** 2
    return pipe_ft_s * (0.45 + inner / (np.asarray(outer_in) ** 2 - inner))


@formula(
    "N = 757·ρ·v·d/(μ_p + 5·τ_y·d/v),  d = dₒ − dᵢ",
    "",
    BOURGOYNE + ", Bingham plastic by its apparent viscosity; turbulent from 2,100",
    ("velocity_ft_s > 0", "plastic_cp > 0", "yield_lb_100ft2 >= 0", "mud_ppg > 0", *_GAP),
)
def bingham_reynolds(
    velocity_ft_s: Value, plastic_cp: Value, yield_lb_100ft2: Value, mud_ppg: Value, outer_in: Value, inner_in: Value
) -> Value:
    """Reynolds number of a Bingham plastic in an annulus."""
    gap, v = np.asarray(outer_in) - inner_in, np.asarray(velocity_ft_s)
    return plain_value(757 * mud_ppg * v * gap / (plastic_cp + 5 * yield_lb_100ft2 * gap / v))


@formula("N = ρ·(60·v)²/(19.36·τ_w)", "", API_13D, ("velocity_ft_s >= 0", "wall_stress_lb_100ft2 > 0", "mud_ppg > 0"))
def generalized_reynolds(velocity_ft_s: Value, wall_stress_lb_100ft2: Value, mud_ppg: Value) -> Value:
    """Reynolds number of any fluid by the shear stress at the wall in laminar flow."""
    return plain_value(mud_ppg * (60 * np.asarray(velocity_ft_s)) ** 2 / (19.36 * np.asarray(wall_stress_lb_100ft2)))


def _turbulent(mud_ppg: Value, velocity_ft_s: Value, plastic_cp: Value, gap_in: Value) -> Value:
    return mud_ppg**0.75 * velocity_ft_s**1.75 * plastic_cp**0.25 / (1396 * gap_in**1.25)


@formula(
    "g = max(μ_p·v/(1000·d²) + τ_y/(200·d), ρ^0.75·v^1.75·μ_p^0.25/(1396·d^1.25)),  d = dₒ − dᵢ",
    "psi/ft",
    BOURGOYNE + ", Bingham plastic, laminar or turbulent",
    ("velocity_ft_s >= 0", "plastic_cp > 0", "yield_lb_100ft2 >= 0", "mud_ppg > 0", *_GAP),
)
def bingham_gradient(
    velocity_ft_s: Value, plastic_cp: Value, yield_lb_100ft2: Value, mud_ppg: Value, outer_in: Value, inner_in: Value
) -> Value:
    """Friction per foot of annulus, Bingham plastic."""
    gap = np.asarray(outer_in) - inner_in
    laminar = plastic_cp * np.asarray(velocity_ft_s) / (1000 * gap**2) + yield_lb_100ft2 / (200 * gap)
    return plain_value(np.maximum(laminar, _turbulent(mud_ppg, np.asarray(velocity_ft_s), plastic_cp, gap)))


@formula(
    "N = 109000·ρ·v^(2 − n)/K·(0.0208·d/(2 + 1/n))^n,  d = dₒ − dᵢ",
    "",
    BOURGOYNE + ", power law",
    ("velocity_ft_s >= 0", "flow_index > 0", "consistency_ecp > 0", "mud_ppg > 0", *_GAP),
)
def power_law_reynolds(
    velocity_ft_s: Value, flow_index: Value, consistency_ecp: Value, mud_ppg: Value, outer_in: Value, inner_in: Value
) -> Value:
    """Reynolds number of a power-law mud in an annulus."""
    n, gap = np.asarray(flow_index), np.asarray(outer_in) - inner_in
    slot = (0.0208 * gap / (2 + 1 / n)) ** n
    return plain_value(109_000 * mud_ppg * np.asarray(velocity_ft_s) ** (2 - n) / consistency_ecp * slot)


LEAST_REYNOLDS, _STEPS = 100.0, 30


@formula(
    "1/√f = (4/n^0.75)·log₁₀(N·f^(1 − n/2)) − 0.395/n^1.2",
    "",
    BOURGOYNE + "; Dodge and Metzner, AIChE Journal, 1959",
    ("reynolds >= 100", "flow_index > 0"),
)
def dodge_metzner(reynolds: Value, flow_index: Value) -> Value:
    """Friction factor of a power-law mud in turbulent flow, found by repeated substitution."""
    n = np.asarray(flow_index)
    root = np.full(np.broadcast(reynolds, n).shape, 10.0)
    for _ in range(_STEPS):  # root is 1/√f; half steps, since whole ones swing
        law = 4 / n**0.75 * np.log10(reynolds * root ** (n - 2)) - 0.395 / n**1.2
        root = (root + np.maximum(law, 1.0)) / 2
    return plain_value(1 / root**2)


def between_regimes(laminar: Value, turbulent: Value, reynolds: Value, flow_index: Value) -> Value:
    """Friction from laminar to turbulent, by API RP 13D's Reynolds numbers at both ends of the transition."""
    share = np.clip((reynolds - (3470 - 1370 * np.asarray(flow_index))) / 800, 0.0, 1.0)
    return (1 - share) * laminar + share * turbulent


@formula(
    "g_l = K·v^n·((2 + 1/n)/0.0208)^n/(144000·d^(1 + n)),  g_t = f·ρ·v²/(21.1·d),  d = dₒ − dᵢ;  "
    "s = (N − (3470 − 1370·n))/800, clipped to 0 … 1;  g = (1 − s)·g_l + s·g_t",
    "psi/ft",
    BOURGOYNE + ", power law; laminar to turbulent by API RP 13D",
    ("velocity_ft_s >= 0", "flow_index > 0", "consistency_ecp > 0", "mud_ppg > 0", *_GAP),
)
def power_law_gradient(
    velocity_ft_s: Value, flow_index: Value, consistency_ecp: Value, mud_ppg: Value, outer_in: Value, inner_in: Value
) -> Value:
    """Friction per foot of annulus, power law."""
    n, gap, v = np.asarray(flow_index), np.asarray(outer_in) - inner_in, np.asarray(velocity_ft_s)
    laminar = consistency_ecp * v**n * ((2 + 1 / n) / 0.0208) ** n / (144_000 * gap ** (1 + n))
    reynolds = power_law_reynolds(v, n, consistency_ecp, mud_ppg, outer_in, inner_in)
    turbulent = dodge_metzner(np.maximum(reynolds, LEAST_REYNOLDS), n) * mud_ppg * v**2 / (21.1 * gap)
    return plain_value(between_regimes(laminar, turbulent, reynolds, n))


@formula(
    "y = 2·θ₃ − θ₆,  n = 3.322·log₁₀((θ₆₀₀ − y)/(θ₃₀₀ − y)),  k = 1.066·(θ₃₀₀ − y)/511^n,  τ_y = 1.066·y",
    "",
    API_13D,
    ("reading_3 > 0", "reading_6 >= reading_3", "reading_300 > reading_6", "reading_600 > reading_300"),
)
def herschel_bulkley(reading_3: Value, reading_6: Value, reading_300: Value, reading_600: Value) -> dict[str, Value]:
    """Yield stress [lbf/100 ft²], flow index and consistency [lbf·sⁿ/100 ft²] from readings at 3, 6, 300 and 600 rpm."""
    dial = 2 * np.asarray(reading_3) - reading_6
    index = 3.322 * np.log10((reading_600 - dial) / (reading_300 - dial))
    return {
        "yield_stress_lb_100ft2": plain_value(1.066 * dial),
        "flow_index": plain_value(index),
        "consistency_lb_sn_100ft2": plain_value(1.066 * (reading_300 - dial) / 511**index),
    }


@formula(
    "τ_w = 1.5^n·τ_y + k·((1 + 2·n)/(2·n)·96·v/d)^n,  d = dₒ − dᵢ",
    "lbf/100 ft²",
    API_13D + ", annulus",
    ("velocity_ft_s >= 0", "yield_stress_lb_100ft2 >= 0", "flow_index > 0", "consistency_lb_sn_100ft2 > 0", *_GAP),
)
def wall_shear_stress(
    velocity_ft_s: Value,
    yield_stress_lb_100ft2: Value,
    flow_index: Value,
    consistency_lb_sn_100ft2: Value,
    outer_in: Value,
    inner_in: Value,
) -> Value:
    """Shear stress at the wall of an annulus, Herschel-Bulkley mud in laminar flow."""
    n = np.asarray(flow_index)
    rate = (1 + 2 * n) / (2 * n) * 96 * np.asarray(velocity_ft_s) / (np.asarray(outer_in) - inner_in)
    return plain_value(1.5**n * yield_stress_lb_100ft2 + consistency_lb_sn_100ft2 * rate**n)


@formula(
    "N = ρ·(60·v)²/(19.36·τ_w);  f_l = 16/N,  f_x = 16·N/(3470 − 1370·n)²,  f_t = a/N^b,  a = (log₁₀n + 3.93)/50,  "
    "b = (1.75 − log₁₀n)/7;  f_i = (f_x^−8 + f_t^−8)^(−1/8),  f = (f_i^12 + f_l^12)^(1/12);  "
    "g = 1.076·ρ·(60·v)²·f/(100000·d),  d = dₒ − dᵢ",
    "psi/ft",
    API_13D + ", annulus: laminar, between and turbulent",
    ("velocity_ft_s >= 0", "wall_stress_lb_100ft2 > 0", "flow_index > 0", "mud_ppg > 0", *_GAP),
)
def herschel_bulkley_gradient(
    velocity_ft_s: Value,
    wall_stress_lb_100ft2: Value,
    flow_index: Value,
    mud_ppg: Value,
    outer_in: Value,
    inner_in: Value,
) -> Value:
    """Friction per foot of annulus, Herschel-Bulkley. At rest the yield stress alone holds."""
    gap, n, speed = np.asarray(outer_in) - inner_in, np.asarray(flow_index), np.asarray(velocity_ft_s) * 60
    inertia = mud_ppg * speed**2
    reynolds = np.maximum(inertia / (19.36 * np.asarray(wall_stress_lb_100ft2)), 1e-6)
    turbulent = (np.log10(n) + 3.93) / 50 / reynolds ** ((1.75 - np.log10(n)) / 7)
    between = 16 * reynolds / (3470 - 1370 * n) ** 2
    fast = (between**-8 + turbulent**-8) ** (-1 / 8)
    laminar = 1.076 * 16 * 19.36 * np.asarray(wall_stress_lb_100ft2) / (100_000 * gap)
    return plain_value((laminar**12 + (1.076 * inertia * fast / (100_000 * gap)) ** 12) ** (1 / 12))


@formula("ECD = ρ + Δp/((12/231)·D)", "ppg", "Hydrostatics", ("mud_ppg > 0", "tvd_ft > 0"))
def circulating_density(mud_ppg: Value, friction_psi: Value, tvd_ft: Value) -> Value:
    """Equivalent density with the friction of the annulus above; negative friction is swab."""
    return mud_ppg + friction_psi / (PSI_PER_PPG_FT * tvd_ft)


@formula(
    "V_b = V·(W₁ − W₂)/(W₂ − ρ_b)",
    "bbl",
    BALANCE.split(";")[0],
    ("volume_bbl >= 0", "base_ppg > 0", "new_mud_ppg > base_ppg", "old_mud_ppg >= new_mud_ppg"),
)
def dilution(old_mud_ppg: Value, new_mud_ppg: Value, volume_bbl: Value, base_ppg: Value) -> Value:
    """Base fluid to add for lowering the mud weight: volumes and masses conserved.

    Example: 100 bbl from 11 to 10 ppg takes 59.9 bbl of 8.33 ppg.

    >>> round(float(dilution(old_mud_ppg=11, new_mud_ppg=10, volume_bbl=100, base_ppg=8.33)), 1)
    59.9
    """
    return volume_bbl * (np.asarray(old_mud_ppg) - new_mud_ppg) / (np.asarray(new_mud_ppg) - base_ppg)
