"""Pressures of a string whose wellhead stands on the sea floor, and what the rig's gauge reads of them."""

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value, formula, plain_value
from knollstack.core.pipe.formulas import CASING_DESIGN


@formula(
    "p = p_w + (12/231)·ρ·(D − D_w)",
    "psi",
    CASING_DESIGN + ", wellhead on the sea floor",
    ("wellhead_psi >= 0", "mud_ppg >= 0", "wellhead_tvd_ft >= 0"),
)
def pressure_under_wellhead(wellhead_psi: Value, mud_ppg: Value, tvd_ft: Value, wellhead_tvd_ft: Value) -> Value:
    """Pressure in a fluid column below a pressure at the wellhead; what stands over the wellhead adds none.

    Example: 5,000 psi at a wellhead 4,400 ft down and 8.6 ppg give 7,502 psi at 10,000 ft.

    >>> round(pressure_under_wellhead(5000.0, 8.6, 10_000.0, 4400.0))
    7502
    """
    return wellhead_psi + PSI_PER_PPG_FT * mud_ppg * np.maximum(np.asarray(tvd_ft) - wellhead_tvd_ft, 0.0)


@formula(
    "p_g = p_w − (12/231)·ρ·D_w, no less than 0",
    "psi",
    "Hydrostatics of what fills the line from the rig down to the wellhead",
    ("wellhead_psi >= 0", "mud_ppg >= 0", "wellhead_tvd_ft >= 0"),
)
def gauge_at_rig(wellhead_psi: Value, mud_ppg: Value, wellhead_tvd_ft: Value) -> Value:
    """What the rig's gauge reads for a pressure at the wellhead.

    Example: 5,000 psi at a wellhead 4,400 ft down in 10.2 ppg is 2,669 psi at the rig.

    >>> round(gauge_at_rig(5000.0, 10.2, 4400.0))
    2669
    """
    return plain_value(np.maximum(wellhead_psi - PSI_PER_PPG_FT * mud_ppg * np.asarray(wellhead_tvd_ft), 0.0))
