"""Preventer arithmetic: accumulators (API 16D, ideal gas) and the force to shear a pipe."""

import numpy as np

from knollstack.core.base.formula import Value, formula


@formula(
    "V_u = V·(p₀/p_min − p₀/p_op)",
    "gal",
    "API Spec 16D, 2nd ed., 2004, ideal gas",
    ("gas_volume_gal > 0", "precharge_psi > 0", "minimum_psi >= precharge_psi", "operating_psi >= minimum_psi"),
)
def accumulator_usable(gas_volume_gal: Value, precharge_psi: Value, minimum_psi: Value, operating_psi: Value) -> Value:
    """Usable fluid of one accumulator bottle."""
    return gas_volume_gal * (precharge_psi / minimum_psi - precharge_psi / operating_psi)


@formula(
    "F = 0.577·Yₚ·(π/4)(D² − d²)",
    "lbf",
    "Distortion energy shear strength of the pipe body",
    ("od_in > 0", "id_in >= 0", "id_in < od_in", "yield_psi > 0"),
)
def shear_force(od_in: Value, id_in: Value, yield_psi: Value) -> Value:
    """Force to shear a pipe."""
    return 0.577 * yield_psi * np.pi / 4 * (od_in**2 - id_in**2)
