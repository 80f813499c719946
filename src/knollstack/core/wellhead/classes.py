"""Pressure classes of wellhead and preventers (API 6A)."""

from __future__ import annotations

CLASSES_PSI = (2_000.0, 3_000.0, 5_000.0, 10_000.0, 15_000.0, 20_000.0)


def lowest_class_psi(pressure_psi: float) -> float | None:
    """The lowest class at or over a pressure; None above the highest."""
    return next((c for c in CLASSES_PSI if c >= pressure_psi), None)
