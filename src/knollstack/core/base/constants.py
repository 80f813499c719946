"""Physical constants and unit factors that the field shares. One home for each."""

import math

PSI_PER_PPG_FT = 12 / 231
"""Exact: 1 gal = 231 in³, so a column of 1 ft of 1 lb/gal weighs 12/231 psi (hand work rounds to 0.052)."""

GAL_PER_BBL = 42.0
GAL_PER_FT3 = 1728 / 231
FT3_PER_BBL = GAL_PER_BBL / GAL_PER_FT3
BBL_PER_FT_PER_IN2 = math.pi / 4 / 144 / FT3_PER_BBL
"""Capacity in bbl/ft of a circle of 1 in."""

STEEL_PPG = 65.5
STEEL_MODULUS_PSI = 30.0e6
FRESH_WATER_PPG = 8.33
SEA_WATER_PPG = 8.55
PPG_PER_SG = 8.3454
RANKINE_AT_0_F = 459.67
CLASSES_PSI = (2_000.0, 3_000.0, 5_000.0, 10_000.0, 15_000.0, 20_000.0)
"""Pressure classes of wellhead and preventers (API 6A)."""
