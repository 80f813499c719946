"""Joint strength of API round thread and buttress connections (API TR 5C3)."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import STEEL_MODULUS_PSI
from knollstack.core.base.formula import formula
from knollstack.core.catalogue.ratings import API_5C3, PIPE_LIMITS

ROUND_THREAD_HEIGHT_IN = 0.1425
"""Twice the height lost to the round thread on the diameter, TR 5C3."""


@formula(
    "lesser of 0.95·A_jp·Uₚ and 0.95·A_jp·L·(0.74·D^−0.59·Uₚ/(0.5L + 0.14D) + Yₚ/(L + 0.14D)), "
    "A_jp = (π/4)·((D − 0.1425)² − d²)",
    "lbf",
    API_5C3,
    (*PIPE_LIMITS, "ultimate_psi >= yield_psi", "engaged_length_in > 0"),
)
def round_thread_joint_strength(
    od_in: float, wall_in: float, yield_psi: float, ultimate_psi: float, engaged_length_in: float
) -> float:
    """Joint strength of API round thread, fracture or pull-out. Engaged length is L4 − M."""
    length = engaged_length_in
    area = np.pi / 4 * ((od_in - ROUND_THREAD_HEIGHT_IN) ** 2 - (od_in - 2 * wall_in) ** 2)
    fracture = 0.95 * area * ultimate_psi
    pull_out = (
        0.95
        * area
        * length
        * (0.74 * od_in**-0.59 * ultimate_psi / (0.5 * length + 0.14 * od_in) + yield_psi / (length + 0.14 * od_in))
    )
    return float(np.minimum(fracture, pull_out))


@formula(
    "lesser of pipe 0.95·Aₚ·Uₚ·(1.008 − 0.0396·(1.083 − Yₚ/Uₚ)·D) and coupling 0.95·(π/4)(W² − d₁²)·U_c",
    "lbf",
    API_5C3,
    (*PIPE_LIMITS, "ultimate_psi >= yield_psi", "coupling_root_in > 0", "coupling_od_in > coupling_root_in"),
)
def buttress_joint_strength(
    od_in: float,
    wall_in: float,
    yield_psi: float,
    ultimate_psi: float,
    coupling_od_in: float,
    coupling_root_in: float,
    coupling_ultimate_psi: float,
) -> float:
    """Joint strength of buttress thread, the lesser of pipe and coupling."""
    pipe_area = np.pi / 4 * (od_in**2 - (od_in - 2 * wall_in) ** 2)
    pipe = 0.95 * pipe_area * ultimate_psi * (1.008 - 0.0396 * (1.083 - yield_psi / ultimate_psi) * od_in)
    coupling = 0.95 * np.pi / 4 * (coupling_od_in**2 - coupling_root_in**2) * coupling_ultimate_psi
    return float(np.minimum(pipe, coupling))


@formula(
    "d₁ = E₇ − (L₇ + I)·T + h", "in", API_5C3, ("pitch_diameter_in > 0", "perfect_length_in > 0", "taper_in_in > 0")
)
def buttress_coupling_root(
    pitch_diameter_in: float, perfect_length_in: float, stand_off_in: float, taper_in_in: float, thread_height_in: float
) -> float:
    """Diameter at the root of the buttress coupling thread at the end of the pipe, power tight."""
    return pitch_diameter_in - (perfect_length_in + stand_off_in) * taper_in_in + thread_height_in


ROUND_TAPER_IN_IN = 0.0625
ROUND_HEIGHT_LESS_TRUNCATION_IN = 0.10825 - 2 * 0.017
"""Height of the sharp thread of 8 per inch less twice the root truncation, H − 2·S_rn of API 5B."""


@formula(
    "d₁ = E₁ − (L₄ − M)·0.0625 + 0.07425",
    "in",
    API_5C3 + "; L₁ + A = L₄ − M, H − 2·S_rn = 0.10825 − 0.034 in for 8 threads per inch",
    ("hand_tight_pitch_in > 0", "engaged_length_in > 0"),
)
def round_coupling_root(hand_tight_pitch_in: float, engaged_length_in: float) -> float:
    """Diameter at the root of the round coupling thread at the end of the pipe, power tight.

    Example: 7 in long thread, pitch diameter 6.90337 in, engaged 3.296 in, gives 6.7716 in.

    >>> round(round_coupling_root(hand_tight_pitch_in=6.90337, engaged_length_in=3.296), 4)
    6.7716
    """
    return hand_tight_pitch_in - engaged_length_in * ROUND_TAPER_IN_IN + ROUND_HEIGHT_LESS_TRUNCATION_IN


@formula(
    "p = Y_c·(W − d₁)/W",
    "psi",
    API_5C3,
    ("coupling_yield_psi > 0", "coupling_root_in > 0", "coupling_od_in > coupling_root_in"),
)
def coupling_internal_yield(coupling_od_in: float, coupling_root_in: float, coupling_yield_psi: float) -> float:
    """Internal yield pressure of the coupling, without a wall tolerance.

    Example: 7 in buttress, 7.656 in over 6.84625 in, 80,000 psi gives 8,461 psi.

    >>> round(coupling_internal_yield(coupling_od_in=7.656, coupling_root_in=6.84625, coupling_yield_psi=80_000.0))
    8461
    """
    return coupling_yield_psi * (coupling_od_in - coupling_root_in) / coupling_od_in


@formula(
    "p = E·T·N·p_t·(W² − E_s²)/(2·E_s·W²)",
    "psi",
    API_5C3 + "; N = hand-tight stand-off in turns plus 1½, from 16 in plus 1",
    ("taper_in_in > 0", "leak_turns > 0", "pitch_in > 0", "seal_diameter_in > 0", "coupling_od_in > seal_diameter_in"),
)
def leak_resistance(
    taper_in_in: float, leak_turns: float, pitch_in: float, seal_diameter_in: float, coupling_od_in: float
) -> float:
    """Internal pressure that the made-up threads hold tight, at the plane E₁ (round) or E₇ (buttress).

    Example: 13 3/8 in buttress, 2.5 turns, gives 4,932 psi.
    """
    seal, over = seal_diameter_in**2, coupling_od_in**2
    return STEEL_MODULUS_PSI * taper_in_in * leak_turns * pitch_in * (over - seal) / (2 * seal_diameter_in * over)


@formula("M = 0.01·F_j, least 75 % of it", "ft·lbf", "API RP 5C1, 18th ed., 1999, round thread", ("joint_lbf > 0",))
def round_thread_torque(joint_lbf: float) -> float:
    """Optimum make-up torque of API round thread; the least is three quarters of it.

    Example: a joint of 905,500 lbf gives 9,055 ft·lbf.

    >>> round_thread_torque(joint_lbf=905_500.0)
    9055.0
    """
    return 0.01 * joint_lbf
