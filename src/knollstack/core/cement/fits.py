"""Laws of flow fitted to many rheometer readings by least squares."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import formula

Floats = NDArray[np.float64]
PER_RPM = 1.703
"""Shear rate [1/s] of a rotor and bob of the usual size at 1 rpm (API RP 13D)."""
_LIMITS = ("speed_rpm > 0", "reading_dial > 0")
_FITTED = "Least squares on rheometer readings, shear rate 1.703·rpm (API RP 13D)"
_TRIED = 41


def _line(x: Floats, y: Floats) -> tuple[float, float]:
    """Slope and intercept of the line nearest to points."""
    spread = x - x.mean()
    slope = float(np.sum(spread * (y - y.mean())) / np.sum(spread**2))
    return slope, float(y.mean() - slope * x.mean())


def _misfit(found: Floats, reading: Floats) -> float:
    return float(np.sqrt(np.mean((found - reading) ** 2)))


@formula("θ = τ_y + μ_p·N/300", "", _FITTED + ", Bingham plastic", _LIMITS)
def bingham_fit(speed_rpm: Floats, reading_dial: Floats) -> dict[str, float]:
    """Plastic viscosity [cP] and yield point [lbf/100 ft²] nearest to many readings."""
    slope, rest = _line(np.asarray(speed_rpm) / 300, np.asarray(reading_dial))
    found = rest + slope * np.asarray(speed_rpm) / 300
    return {"plastic_cp": slope, "yield_lb_100ft2": rest, "misfit": _misfit(found, np.asarray(reading_dial))}


@formula("ln θ = ln(K/510) + n·ln(1.703·N)", "", _FITTED + ", power law", _LIMITS)
def power_law_fit(speed_rpm: Floats, reading_dial: Floats) -> dict[str, float]:
    """Flow index and consistency [eq. cP] nearest to many readings."""
    rate = np.log(PER_RPM * np.asarray(speed_rpm))
    index, rest = _line(rate, np.log(np.asarray(reading_dial)))
    found = np.exp(rest + index * rate)
    return {
        "flow_index": index,
        "consistency_ecp": float(510 * np.exp(rest)),
        "misfit": _misfit(found, np.asarray(reading_dial)),
    }


@formula(
    "ln(θ − y) = ln(k/1.066) + n·ln(1.703·N),  τ_y = 1.066·y, y below the least reading that misses least",
    "",
    _FITTED + ", Herschel-Bulkley",
    _LIMITS,
)
def herschel_bulkley_fit(speed_rpm: Floats, reading_dial: Floats) -> dict[str, float]:
    """Yield stress [lbf/100 ft²], flow index and consistency [lbf·sⁿ/100 ft²] nearest to many readings."""
    rate, dial = np.log(PER_RPM * np.asarray(speed_rpm)), np.asarray(reading_dial, dtype=float)
    most = 0.995 * float(dial.min())
    low, high = 0.0, most
    for _ in range(4):  # each time between the neighbours of the best before
        tried = np.linspace(low, high, _TRIED)
        fits = [_with_rest(float(rest), rate, dial) for rest in tried]
        k = int(np.argmin([fit["misfit"] for fit in fits]))
        low, high = float(tried[max(k - 1, 0)]), float(tried[min(k + 1, _TRIED - 1)])
    return fits[k]


def _with_rest(rest: float, rate: Floats, dial: Floats) -> dict[str, float]:
    """The law nearest to readings of a fluid whose dial stands at so much at rest."""
    index, log = _line(rate, np.log(dial - rest))
    return {
        "yield_stress_lb_100ft2": 1.066 * rest,
        "flow_index": index,
        "consistency_lb_sn_100ft2": float(1.066 * np.exp(log)),
        "misfit": _misfit(rest + np.exp(log + index * rate), dial),
    }
