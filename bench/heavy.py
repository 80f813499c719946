"""A heavy well to measure with: 20,000 ft, 30 zones, 200 profile points, 6 strings. Made up; regular on purpose."""

from __future__ import annotations

import math
from typing import Any

TOTAL_FT = 20_000.0
ZONES, POINTS = 30, 100
ROCKS = ("gravel", "sand", "clay", "shale", "limestone", "dolomite", "salt", "marl", "coal", "basement")
STRINGS = (
    ("conductor", "driven", 150.0, None, 30.0, None),
    ("surface", "cased", 2_500.0, 26.0, 20.0, 9.0),
    ("intermediate", "cased", 7_000.0, 17.5, 13.375, 9.9),
    ("intermediate", "cased", 11_500.0, 12.25, 9.625, 11.2),
    ("intermediate", "cased", 15_800.0, 8.5, 7.0, 12.6),
    ("production", "cased", 20_000.0, 6.0, 4.5, 13.9),
)


def heavy_well() -> dict[str, Any]:
    """The document."""
    depths = [30.0 + i * (TOTAL_FT - 30.0) / (POINTS - 1) for i in range(POINTS)]
    edges = [30.0 + i * (TOTAL_FT - 30.0) / ZONES for i in range(ZONES + 1)]
    return {
        "format": "knollstack.well",
        "version": 7,
        "name": "Bench",
        "site": {"rig_floor_ft": 30.0, "h2s_ppm": 0.0},
        "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": TOTAL_FT}]},
        "ground": {
            "zones": [
                {"name": f"Zone {i + 1}", "top_tvd_ft": edges[i], "base_tvd_ft": edges[i + 1], "rock": ROCKS[i % 10]}
                for i in range(ZONES)
            ],
            "pore": [
                {"tvd_ft": z, "emw_ppg": 8.5 + 5.0 * z / TOTAL_FT + 0.1 * math.sin(i)} for i, z in enumerate(depths)
            ],
            "fracture": [
                {"tvd_ft": z, "emw_ppg": 12.5 + 5.5 * z / TOTAL_FT + 0.1 * math.cos(i)} for i, z in enumerate(depths)
            ],
        },
        "strings": [
            {"role": role, "run": run, "shoe_md_ft": shoe, "bit_in": bit, "od_in": od, "mud_ppg": mud}
            for role, run, shoe, bit, od, mud in STRINGS
        ],
    }
