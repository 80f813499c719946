"""What a fluid of the job loses by friction, in pipe and in the annulus: a law fitted to its rheometer readings.

Two readings, at 300 and 600 rpm, give Bingham plastic or the power law of policy. Three and more are fitted by least squares
to both and to Herschel-Bulkley, and the law that lies nearest to the readings is taken.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import Value
from knollstack.core.cement.fits import bingham_fit, herschel_bulkley_fit, power_law_fit
from knollstack.core.mud.formulas import (
    bingham,
    bingham_gradient,
    bingham_reynolds,
    generalized_reynolds,
    herschel_bulkley_gradient,
    power_law,
    power_law_gradient,
    power_law_reynolds,
    wall_shear_stress,
)
from knollstack.core.mud.pipe_flow import bingham_bore_gradient, bore_wall_stress, power_law_bore_gradient

Floats = NDArray[np.float64]
Model = Literal["Bingham", "power law", "Herschel-Bulkley"]
BINGHAM_TURBULENT = 2_100.0
Readings = tuple[tuple[int, float], ...]
KEYS: Mapping[Model, tuple[str, ...]] = {
    "Bingham": ("plastic_cp", "yield_lb_100ft2"),
    "power law": ("flow_index", "consistency_ecp"),
    "Herschel-Bulkley": ("yield_stress_lb_100ft2", "flow_index", "consistency_lb_sn_100ft2"),
}


@dataclass(frozen=True)
class Law:
    """A fluid's law of flow: its constants in the order of `KEYS`, and how far it lies from the readings [dial, rms]."""

    model: Model
    constants: tuple[float, ...]
    misfit: float = 0.0

    def annulus_psi_ft(self, velocity_ft_s: Value, density_ppg: Value, outer_in: Value, inner_in: Value) -> Value:
        a, b, *more = self.constants
        if self.model == "Bingham":
            return bingham_gradient(velocity_ft_s, a, b, density_ppg, outer_in, inner_in)
        if self.model == "power law":
            return power_law_gradient(velocity_ft_s, a, b, density_ppg, outer_in, inner_in)
        wall = wall_shear_stress(velocity_ft_s, a, b, more[0], outer_in, inner_in)
        return herschel_bulkley_gradient(velocity_ft_s, wall, b, density_ppg, outer_in, inner_in)

    def turbulence(self, velocity_ft_s: Value, density_ppg: Value, outer_in: Value, inner_in: Value) -> Value:
        """Reynolds number in an annulus over that at which flow is turbulent: 1 and more is turbulent."""
        a, b, *more = self.constants
        if self.model == "Bingham":
            found = bingham_reynolds(velocity_ft_s, a, b, density_ppg, outer_in, inner_in)
            return np.asarray(found) / BINGHAM_TURBULENT
        if self.model == "power law":
            return np.asarray(power_law_reynolds(velocity_ft_s, a, b, density_ppg, outer_in, inner_in)) / (
                4270 - 1370 * a
            )
        wall = wall_shear_stress(velocity_ft_s, a, b, more[0], outer_in, inner_in)
        return np.asarray(generalized_reynolds(velocity_ft_s, wall, density_ppg)) / (4270 - 1370 * b)

    def bore_psi_ft(self, velocity_ft_s: Value, density_ppg: Value, bore_in: Value) -> Value:
        a, b, *more = self.constants
        if self.model == "Bingham":
            return bingham_bore_gradient(velocity_ft_s, a, b, density_ppg, bore_in)
        if self.model == "power law":
            return power_law_bore_gradient(velocity_ft_s, a, b, density_ppg, bore_in)
        wall = bore_wall_stress(velocity_ft_s, a, b, more[0], bore_in)
        return herschel_bulkley_gradient(velocity_ft_s, wall, b, density_ppg, bore_in, 0.0)


def law_of(readings: Readings, usual: Model) -> Law | None:
    """The law of a fluid; None where its readings are too few, or are no fluid's that any law here describes."""
    held = dict(readings)
    dials = [dial for _, dial in sorted(held.items())]
    if len(dials) < 2 or any(b < a for a, b in pairwise(dials)) or dials[-1] <= dials[0]:
        return None
    if len(dials) == 2:
        return _of_two(held, usual)
    rpm, dial = np.array(sorted(held)), np.array(dials)
    fits = [fit for fit in (_fit(model, rpm, dial) for model in KEYS) if fit is not None]
    return min(fits, key=lambda law: law.misfit, default=None)


def _of_two(held: Mapping[int, float], usual: Model) -> Law | None:
    if set(held) != {300, 600} or held[600] > 2 * held[300]:
        return None
    if usual == "power law":
        law = power_law(held[300], held[600])
        return Law("power law", (float(law["flow_index"]), float(law["consistency_ecp"])))
    plastic = bingham(held[300], held[600])
    return Law("Bingham", (float(plastic["plastic_cp"]), float(plastic["yield_lb_100ft2"])))


def _fit(model: Model, rpm: Floats, dial: Floats) -> Law | None:
    """One law by least squares; None where its constants are no fluid's."""
    fitted = {"Bingham": bingham_fit, "power law": power_law_fit, "Herschel-Bulkley": herschel_bulkley_fit}[model]
    found = fitted(rpm, dial)
    constants = tuple(float(found[key]) for key in KEYS[model])
    least = (0.0, -1e-9) if model == "Bingham" else (-1e-9, 0.0) if model == "Herschel-Bulkley" else (0.0, 0.0)
    if not all(np.isfinite(constants)) or any(c <= low for c, low in zip(constants, least, strict=False)):
        return None
    if model != "Bingham" and constants[KEYS[model].index("flow_index")] > 1.0 + 1e-9:
        return None
    return Law(model, tuple(max(c, 0.0) for c in constants), float(found["misfit"]))
