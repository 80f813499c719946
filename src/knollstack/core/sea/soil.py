"""Soil under the mudline: undrained strength and effective stress by depth, and the friction that follows on a shaft.

Strength and unit weight are straight between points. Over the first point strength falls to nothing at the mudline; below
the last one nothing is known.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.document.sea import SoilPoint
from knollstack.core.sea.formulas import alpha_shaft_friction

Floats = NDArray[np.float64]
STEP_FT = 1.0
CLOSE = 24
"""Places in the first foot."""


@dataclass(frozen=True, eq=False)
class Soil:
    depth_ft: Floats
    strength_psf: Floats
    submerged_pcf: Floats
    stress_psf: Floats

    @property
    def deepest_ft(self) -> float:
        return float(self.depth_ft[-1])

    def strength_at(self, depth_ft: Floats) -> Floats:
        return np.interp(depth_ft, self.depth_ft, self.strength_psf)

    def stress_at(self, depth_ft: Floats) -> Floats:
        """Weight of the submerged soil above: the unit weight is straight between points, so this is a quadratic."""
        k = np.clip(np.searchsorted(self.depth_ft, depth_ft, side="right") - 1, 0, len(self.depth_ft) - 2)
        into = depth_ft - self.depth_ft[k]
        low, high = self.submerged_pcf[k], np.interp(depth_ft, self.depth_ft, self.submerged_pcf)
        return np.asarray(self.stress_psf[k] + into * (low + high) / 2)

    def mean_friction_psf(self, down_to_ft: float) -> float | None:
        """Friction on a shaft from the mudline to a depth, taken foot by foot; None where the soil is not known so deep."""
        if down_to_ft > self.deepest_ft + 1e-9 or down_to_ft <= 0:
            return None
        inside = self.depth_ft[(self.depth_ft > 0) & (self.depth_ft < down_to_ft)]
        close = np.linspace(0.0, min(STEP_FT, down_to_ft) ** (1 / 3), CLOSE) ** 3  # friction begins steeply
        z = np.unique(np.concatenate([close, np.arange(0.0, down_to_ft, STEP_FT), inside, [down_to_ft]]))
        friction = self.friction_at(z)
        return float(np.sum((friction[1:] + friction[:-1]) / 2 * np.diff(z)) / down_to_ft)

    @sweeping()
    def friction_at(self, z: Floats) -> Floats:
        strength, stress = self.strength_at(z), self.stress_at(z)
        some = (strength > 0) & (stress > 0)
        found = np.zeros(len(z))
        found[some] = alpha_shaft_friction(strength[some], stress[some])
        return found


@remembered(16)
def soil_of(points: tuple[SoilPoint, ...]) -> Soil | None:
    """The soil of a profile; None where none is given."""
    if not points:
        return None
    depth = [p.below_mudline_ft for p in points]
    strength, unit = [p.strength_psf for p in points], [p.submerged_pcf for p in points]
    if depth[0] > 0:
        depth, strength, unit = [0.0, *depth], [0.0, *strength], [unit[0], *unit]
    z, weight = np.array(depth), np.array(unit)
    if len(z) < 2:  # a point on the mudline alone says nothing of what is below it
        return None
    stress = np.concatenate([[0.0], np.cumsum((weight[1:] + weight[:-1]) / 2 * np.diff(z))])
    return Soil(z, np.array(strength), weight, stress)
