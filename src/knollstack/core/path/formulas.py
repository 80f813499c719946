"""The equation of the well path: minimum curvature between two survey stations (API Bulletin D20)."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.formula import Value, formula, plain_value

STRAIGHT_RAD = 1e-9
"""Under this dogleg a leg counts as a straight line."""


@formula(
    "ΔD = ½·ΔM·(cos I₁ + cos I₂)·RF, RF = (2/DL)·tan(DL/2)",
    "",
    "Minimum curvature method, API Bulletin D20, 1985",
    ("md1_ft >= 0", "md2_ft > md1_ft", "inc1_deg >= 0", "inc2_deg >= 0", "inc1_deg <= 180", "inc2_deg <= 180"),
)
def minimum_curvature(
    md1_ft: Value, inc1_deg: Value, azi1_deg: Value, md2_ft: Value, inc2_deg: Value, azi2_deg: Value
) -> dict[str, Value]:
    """Steps in TVD, north and east, and the dogleg, between two survey stations."""
    length = np.asarray(md2_ft) - md1_ft
    i1, i2 = np.radians(inc1_deg), np.radians(inc2_deg)
    a1, a2 = np.radians(azi1_deg), np.radians(azi2_deg)
    cosine = np.cos(i2 - i1) - np.sin(i1) * np.sin(i2) * (1 - np.cos(a2 - a1))
    dogleg = np.arccos(np.clip(cosine, -1, 1))
    bent = np.maximum(dogleg, STRAIGHT_RAD)
    half = length / 2 * np.where(dogleg < STRAIGHT_RAD, 1.0, 2 / bent * np.tan(bent / 2))
    return {
        "tvd_ft": plain_value(half * (np.cos(i1) + np.cos(i2))),
        "north_ft": plain_value(half * (np.sin(i1) * np.cos(a1) + np.sin(i2) * np.cos(a2))),
        "east_ft": plain_value(half * (np.sin(i1) * np.sin(a1) + np.sin(i2) * np.sin(a2))),
        "dogleg_deg_100ft": plain_value(np.degrees(dogleg) / length * 100),
    }
