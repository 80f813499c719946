"""Running casing: the sag between centralizers (API RP 10D-2, a fixed-ended span under tension)."""

import numpy as np

from knollstack.core.base.constants import STEEL_MODULUS_PSI
from knollstack.core.base.formula import Value, formula


@formula(
    "δ = W·sin I·l³/(384·E·J)·(24/u⁴)·(u²/2 − u·(cosh u − 1)/sinh u),  u² = F·l²/(4·E·J)",
    "in",
    "API RP 10D-2, 1st ed., 2004",
    (
        "buoyed_weight_lb_ft >= 0",
        "inclination_deg >= 0",
        "inclination_deg <= 180",
        "span_ft > 0",
        "tension_lbf >= 0",
        "wall_in > 0",
        "wall_in < 0.5 od_in",
    ),
)
def span_sag(
    buoyed_weight_lb_ft: Value, inclination_deg: Value, span_ft: Value, tension_lbf: Value, od_in: Value, wall_in: Value
) -> Value:
    """Sag of the casing midway between two centralizers."""
    stiffness = STEEL_MODULUS_PSI * np.pi / 64 * (od_in**4 - (od_in - 2 * wall_in) ** 4)
    span_in = span_ft * 12
    side_load = buoyed_weight_lb_ft * span_ft * np.sin(np.radians(inclination_deg))
    u = np.maximum(np.sqrt(tension_lbf * span_in**2 / (4 * stiffness)), 1e-2)
    relief = 24 / u**4 * (u**2 / 2 - u * (np.cosh(u) - 1) / np.sinh(u))
    return side_load * span_in**3 / (384 * stiffness) * relief
