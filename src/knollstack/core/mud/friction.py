"""What mud loses by friction in an annulus, by the model of policy, fitted to the rheometer readings of a hole."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Protocol

from knollstack.core.base.formula import Value
from knollstack.core.document.strings import String
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import (
    bingham,
    bingham_gradient,
    herschel_bulkley,
    herschel_bulkley_gradient,
    power_law,
    power_law_gradient,
    wall_shear_stress,
)


class Friction(Protocol):
    def along(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> Value:
        """Loss per foot of an annulus, at one velocity or many."""

    def psi_ft(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> float:
        """Loss per foot of an annulus."""


@dataclass(frozen=True)
class TwoReadings:
    """A model of two constants, as its gradient takes them: Bingham plastic or power law."""

    mud_ppg: float
    constants: tuple[Value, ...]
    gradient: Callable[..., Value]

    def along(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> Value:
        return self.gradient(velocity_ft_s, *self.constants, self.mud_ppg, outer_in, inner_in)

    def psi_ft(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> float:
        return float(self.along(velocity_ft_s, outer_in, inner_in))


@dataclass(frozen=True)
class HerschelBulkley:
    mud_ppg: float
    fitted: Mapping[str, Value]

    def along(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> Value:
        fitted = self.fitted
        law = fitted["yield_stress_lb_100ft2"], fitted["flow_index"], fitted["consistency_lb_sn_100ft2"]
        wall = wall_shear_stress(velocity_ft_s, *law, outer_in, inner_in)
        return herschel_bulkley_gradient(velocity_ft_s, wall, fitted["flow_index"], self.mud_ppg, outer_in, inner_in)

    def psi_ft(self, velocity_ft_s: Value, outer_in: float, inner_in: float) -> float:
        return float(self.along(velocity_ft_s, outer_in, inner_in))


SPEEDS = {"Bingham": (300, 600), "power law": (300, 600), "Herschel-Bulkley": (3, 6, 300, 600)}


def missing_readings(well: Well, own: String) -> tuple[int, ...]:
    """Rheometer speeds [rpm] that the model of policy needs and the hole does not have."""
    return tuple(rpm for rpm in SPEEDS[well.policy.mud.rheology] if getattr(own, f"reading_{rpm}") is None)


def friction_of(well: Well, own: String, mud_ppg: float) -> Friction | None:
    """Friction of a hole's mud; None where readings are missing or fit no fluid of the model."""
    low, high = own.reading_300, own.reading_600
    if missing_readings(well, own) or low is None or high is None or not low < high:
        return None
    if well.policy.mud.rheology == "Herschel-Bulkley":
        slow, slower = own.reading_6, own.reading_3
        if slow is None or slower is None or not slower <= slow < low:
            return None
        rest = 2 * slower - slow
        # a yield stress that is none, or so much that the mud would thicken with speed
        if rest < 0 or high - rest > 2 * (low - rest):
            return None
        return HerschelBulkley(mud_ppg, herschel_bulkley(slower, slow, low, high))
    if high > 2 * low:
        return None
    if well.policy.mud.rheology == "power law":
        law = power_law(low, high)
        return TwoReadings(mud_ppg, (law["flow_index"], law["consistency_ecp"]), power_law_gradient)
    plastic = bingham(low, high)
    return TwoReadings(mud_ppg, (plastic["plastic_cp"], plastic["yield_lb_100ft2"]), bingham_gradient)
