"""Gas in the well: its deviation factor from a table made once, and amounts that neither pressure nor heat change."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from typing import Any

import numpy as np

from knollstack.core.base.constants import GAL_PER_FT3, RANKINE_AT_0_F
from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.drills.formulas import AIR_LB_FT3, gas_z_hall_yarborough

ATMOSPHERE_PSI = 14.7
MOST_PSIA = 30_000.0


@dataclass(frozen=True, eq=False)
class Gas:
    """A gas of one gravity. An amount is p·V/(z·T) in psia·bbl/°R: it stays what it is wherever the bubble goes."""

    gas_sg: float
    pressures: list[float]
    temperatures: list[float]
    table: list[list[float]]

    @property
    def mass(self) -> float:
        """ppg·bbl of a unit of amount."""
        return AIR_LB_FT3 / GAL_PER_FT3 * self.gas_sg

    def z(self, psia: float, temperature_f: float) -> float:
        """Deviation factor, straight between the points of the table."""
        i, u = _place(self.pressures, psia)
        j, v = _place(self.temperatures, temperature_f)
        low, high = self.table[i], self.table[i + 1]
        return (1 - u) * ((1 - v) * low[j] + v * low[j + 1]) + u * ((1 - v) * high[j] + v * high[j + 1])

    def zt(self, psia: float, temperature_f: float) -> float:
        return self.z(psia, temperature_f) * (temperature_f + RANKINE_AT_0_F)

    def amount(self, bbl: float, psia: float, temperature_f: float) -> float:
        """Amount of a volume as it stands."""
        return bbl * psia / self.zt(psia, temperature_f)


def _place(points: list[float], value: float) -> tuple[int, float]:
    i = min(max(bisect_right(points, value) - 1, 0), len(points) - 2)
    return i, min(max((value - points[i]) / (points[i + 1] - points[i]), 0.0), 1.0)


@remembered(8)
def gas_of(gas_sg: float) -> Gas:
    pressures = np.concatenate(
        [[1.0, 100.0], np.arange(250.0, 8_000.0, 250.0), np.arange(8_000.0, MOST_PSIA + 1, 1_000.0)]
    )
    temperatures = np.arange(30.0, 521.0, 10.0)
    with sweeping():
        z: Any = gas_z_hall_yarborough(pressures[:, None], temperatures[None, :], gas_sg)
    return Gas(gas_sg, pressures.tolist(), temperatures.tolist(), np.asarray(z).tolist())
