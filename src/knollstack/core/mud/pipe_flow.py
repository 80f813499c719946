"""Friction inside pipe: the mirror of the annulus in `formulas.py`, by the same models and sources."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.mud.formulas import API_13D, BOURGOYNE, LEAST_REYNOLDS, between_regimes, dodge_metzner

_BORE = ("bore_in > 0",)


@formula("v = q/(2.448·d²)", "ft/s", BOURGOYNE, ("flow_gpm >= 0", *_BORE))
def bore_velocity(flow_gpm: Value, bore_in: Value) -> Value:
    """Mean velocity inside pipe."""
    return flow_gpm / (2.448 * np.asarray(bore_in) ** 2)


@formula(
    "g = max(μ_p·v/(1500·d²) + τ_y/(225·d), ρ^0.75·v^1.75·μ_p^0.25/(1800·d^1.25))",
    "psi/ft",
    BOURGOYNE + ", Bingham plastic in pipe, laminar or turbulent",
    ("velocity_ft_s >= 0", "plastic_cp > 0", "yield_lb_100ft2 >= 0", "mud_ppg > 0", *_BORE),
)
def bingham_bore_gradient(
    velocity_ft_s: Value, plastic_cp: Value, yield_lb_100ft2: Value, mud_ppg: Value, bore_in: Value
) -> Value:
    """Friction per foot inside pipe, Bingham plastic."""
    v, d = np.asarray(velocity_ft_s), np.asarray(bore_in)
    laminar = plastic_cp * v / (1500 * d**2) + yield_lb_100ft2 / (225 * d)
    turbulent = np.asarray(mud_ppg) ** 0.75 * v**1.75 * np.asarray(plastic_cp) ** 0.25 / (1800 * d**1.25)
    return plain_value(np.maximum(laminar, turbulent))


@formula(
    "g_l = K·v^n·((3 + 1/n)/0.0416)^n/(144000·d^(1 + n)),  N = 89100·ρ·v^(2 − n)/K·(0.0416·d/(3 + 1/n))^n,  "
    "g_t = f·ρ·v²/(25.8·d);  s = (N − (3470 − 1370·n))/800, clipped to 0 … 1;  g = (1 − s)·g_l + s·g_t",
    "psi/ft",
    BOURGOYNE + ", power law in pipe; laminar to turbulent by API RP 13D",
    ("velocity_ft_s >= 0", "flow_index > 0", "consistency_ecp > 0", "mud_ppg > 0", *_BORE),
)
def power_law_bore_gradient(
    velocity_ft_s: Value, flow_index: Value, consistency_ecp: Value, mud_ppg: Value, bore_in: Value
) -> Value:
    """Friction per foot inside pipe, power law."""
    n, v, d = np.asarray(flow_index), np.asarray(velocity_ft_s), np.asarray(bore_in)
    laminar = consistency_ecp * v**n * ((3 + 1 / n) / 0.0416) ** n / (144_000 * d ** (1 + n))
    reynolds = 89_100 * mud_ppg * v ** (2 - n) / consistency_ecp * (0.0416 * d / (3 + 1 / n)) ** n
    turbulent = dodge_metzner(np.maximum(reynolds, LEAST_REYNOLDS), n) * mud_ppg * v**2 / (25.8 * d)
    return plain_value(between_regimes(laminar, turbulent, reynolds, n))


@formula(
    "τ_w = (4/3)^n·τ_y + k·((1 + 3·n)/(4·n)·96·v/d)^n",
    "lbf/100 ft²",
    API_13D + ", pipe",
    ("velocity_ft_s >= 0", "yield_stress_lb_100ft2 >= 0", "flow_index > 0", "consistency_lb_sn_100ft2 > 0", *_BORE),
)
def bore_wall_stress(
    velocity_ft_s: Value,
    yield_stress_lb_100ft2: Value,
    flow_index: Value,
    consistency_lb_sn_100ft2: Value,
    bore_in: Value,
) -> Value:
    """Shear stress at the wall inside pipe, Herschel-Bulkley fluid in laminar flow."""
    n = np.asarray(flow_index)
    rate = (1 + 3 * n) / (4 * n) * 96 * np.asarray(velocity_ft_s) / np.asarray(bore_in)
    return plain_value((4 / 3) ** n * yield_stress_lb_100ft2 + consistency_lb_sn_100ft2 * rate**n)
