"""What the open hole around a string holds: by its caliper where there is one, else by the bit with its interval's excess."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formulas import annular_capacity, interval_volume
from knollstack.core.cement.formulas import caliper_volume
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString

Floats = NDArray[np.float64]
PART_FT = 400.0


@dataclass(frozen=True)
class Hole:
    """The open hole of one string."""

    bit_in: float
    excess: float
    intervals: tuple[tuple[float, float, float], ...]
    """Top, base and excess of each interval that has its own."""
    caliper: tuple[tuple[float, float], ...]
    caliper_excess: float

    @cached_property
    def _readings(self) -> tuple[Floats, Floats]:
        return np.array([md for md, _ in self.caliper]), np.array([d for _, d in self.caliper])

    def excess_at(self, md_ft: float) -> float:
        return next((more for top, base, more in self.intervals if top <= md_ft < base), self.excess)

    def cuts(self, top_md_ft: float, base_md_ft: float) -> list[float]:
        """Depths from one to another between which one rule holds."""
        ends = [m for top, base, _ in self.intervals for m in (top, base)]
        ends += [self.caliper[0][0], self.caliper[-1][0]] if len(self.caliper) > 1 else []
        return sorted({top_md_ft, base_md_ft, *(m for m in ends if top_md_ft < m < base_md_ft)})

    def measured(self, md_ft: float) -> bool:
        return len(self.caliper) > 1 and self.caliper[0][0] <= md_ft <= self.caliper[-1][0]

    def between(self, top_md_ft: float, base_md_ft: float) -> tuple[Floats, Floats]:
        """The caliper's readings over an interval, with its ends."""
        md, diameter = self._readings
        inside = md[(md > top_md_ft) & (md < base_md_ft)]
        at = np.concatenate([[top_md_ft], inside, [base_md_ft]])
        # capacities are straight between readings: so any cut gives the same whole
        return at, np.sqrt(np.interp(at, md, diameter**2))

    def annulus_bbl(self, top_md_ft: float, base_md_ft: float, od_in: float) -> float:
        """The annulus around a pipe between two depths, with what is pumped in excess."""
        whole = 0.0
        for top, base in pairwise(self.cuts(top_md_ft, base_md_ft)):
            if self.measured((top + base) / 2):
                at, diameter = self.between(top, base)
                whole += caliper_volume(at, np.maximum(diameter, od_in), od_in) * (1 + self.caliper_excess)
            else:
                capacity = annular_capacity(self.bit_in, od_in)
                whole += interval_volume(capacity, base - top, self.excess_at((top + base) / 2))
        return float(whole)

    def parts(self, top_md_ft: float, base_md_ft: float, od_in: float) -> list[tuple[float, float, float]]:
        """Top, base and what the annulus holds more than that of the bit, short enough to follow a caliper."""
        found = []
        for top, base in pairwise(self.cuts(top_md_ft, base_md_ft)):
            count = max(int(np.ceil((base - top) / PART_FT)), 1) if self.measured((top + base) / 2) else 1
            for low, high in pairwise(np.linspace(top, base, count + 1).tolist()):
                gauge = interval_volume(annular_capacity(self.bit_in, od_in), high - low)
                found.append((low, high, self.annulus_bbl(low, high, od_in) / float(gauge) - 1))
        return found


def hole_of(well: Well, string: LaidString) -> Hole | None:
    """None where the bit is not known."""
    own, policy = string.own.cement, well.policy.cement
    if string.bit_in is None:
        return None
    return Hole(
        bit_in=string.bit_in,
        excess=own.excess if own.excess is not None else policy.excess,
        intervals=tuple((row.top_md_ft, row.base_md_ft, row.excess) for row in own.excesses),
        caliper=tuple((point.md_ft, point.diameter_in) for point in own.caliper),
        caliper_excess=policy.caliper_excess,
    )
