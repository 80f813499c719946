"""Joint strength of API round thread and buttress connections (API TR 5C3)."""

from __future__ import annotations

import numpy as np

from knollstack.core.formula import formula
from knollstack.core.pipe.ratings import API_5C3, PIPE_LIMITS

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
    "d₁ = E₇ − (L₇ + I)·T + h",
    "in",
    API_5C3,
    ("pitch_diameter_in > 0", "perfect_length_in > 0", "taper_in_in > 0"),
)
def buttress_coupling_root(
    pitch_diameter_in: float,
    perfect_length_in: float,
    stand_off_in: float,
    taper_in_in: float,
    thread_height_in: float,
) -> float:
    """Diameter at the root of the buttress coupling thread at the end of the pipe, power tight."""
    return pitch_diameter_in - (perfect_length_in + stand_off_in) * taper_in_in + thread_height_in
