"""Density of nitrogen in accumulator bottles, from its deviation factor.

Chebyshev polynomials in pressure and temperature fitted to the reference equation of state (Span and others, J. Phys.
Chem. Ref. Data 29, 2000) as a property library gives it; within 0.002 % of it. Tests hold them beside that library.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Any

import numpy as np
from numpy.polynomial.chebyshev import chebval, chebval2d
from numpy.typing import NDArray

from knollstack.core.base.constants import RANKINE_AT_0_F

ATMOSPHERE_PSI = 14.696
MOST_PSIA, COLDEST_F, WARMEST_F = 12_000.0, -20.0, 250.0
_GAS_CONSTANT = 10.7316
_MOLAR_LB = 28.0134
# rows by the degree in pressure, columns by that in temperature
_Z = np.array(
    (
        (1.3105537, -0.0349992, 0.0025085, -0.0003909, 0.0000777, -0.0000137, 0.0000021, -0.0000003),
        (0.3919682, -0.0872260, 0.0131490, -0.0021264, 0.0003192, -0.0000427, 0.0000050, -0.0000005),
        (0.0550211, -0.0308356, 0.0048565, -0.0004567, -0.0000046, 0.0000131, -0.0000035, 0.0000007),
        (-0.0220554, 0.0171140, -0.0042588, 0.0008183, -0.0001237, 0.0000132, -0.0000004, -0.0000003),
        (0.0052348, -0.0053280, 0.0018452, -0.0005143, 0.0001208, -0.0000239, 0.0000039, -0.0000005),
        (-0.0001383, 0.0003119, -0.0002466, 0.0001259, -0.0000482, 0.0000149, -0.0000038, 0.0000008),
        (-0.0006270, 0.0007603, -0.0002714, 0.0000662, -0.0000096, -0.0000007, 0.0000011, -0.0000004),
        (0.0003647, -0.0005166, 0.0002385, -0.0000844, 0.0000247, -0.0000061, 0.0000012, -0.0000001),
        (-0.0000995, 0.0001635, -0.0000932, 0.0000413, -0.0000153, 0.0000049, -0.0000015, 0.0000004),
        (-0.0000113, 0.0000084, 0.0000030, -0.0000055, 0.0000036, -0.0000016, 0.0000006, -0.0000002),
        (0.0000284, -0.0000428, 0.0000224, -0.0000085, 0.0000023, -0.0000004, 0.0, 0.0),
        (-0.0000159, 0.0000260, -0.0000163, 0.0000082, -0.0000032, 0.0000010, -0.0000002, 0.0000001),
        (0.0000038, -0.0000065, 0.0000049, -0.0000033, 0.0000018, -0.0000007, 0.0000002, -0.0000001),
        (0.0000013, -0.0000023, 0.0000013, -0.0000003, -0.0000002, 0.0000002, -0.0000001, 0.0),
    )
)


@lru_cache(maxsize=64)
def _at(temperature_f: float) -> NDArray[np.float64]:
    """The polynomial in pressure at one temperature."""
    y = 2 * (temperature_f - COLDEST_F) / (WARMEST_F - COLDEST_F) - 1
    return np.asarray(chebval(y, _Z.T))


def deviation_factor(psia: Any, temperature_f: Any) -> Any:
    """z of nitrogen at an absolute pressure."""
    x = 2 * np.asarray(psia, dtype=float) / MOST_PSIA - 1
    if np.ndim(temperature_f) == 0:
        return chebval(x, _at(float(temperature_f)))
    x, y = np.broadcast_arrays(
        x, 2 * (np.asarray(temperature_f, dtype=float) - COLDEST_F) / (WARMEST_F - COLDEST_F) - 1
    )
    return chebval2d(x, y, _Z)


def density_lb_ft3(gauge_psi: Any, temperature_f: Any) -> Any:
    """Density of nitrogen at a gauge pressure."""
    psia = np.asarray(gauge_psi, dtype=float) + ATMOSPHERE_PSI
    rankine = np.asarray(temperature_f, dtype=float) + RANKINE_AT_0_F
    return psia * _MOLAR_LB / (deviation_factor(psia, temperature_f) * _GAS_CONSTANT * rankine)
