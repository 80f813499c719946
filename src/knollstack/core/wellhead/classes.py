"""Pressure classes of wellhead and preventers (API 6A)."""

from __future__ import annotations

from knollstack.core.base.constants import CLASSES_PSI


def lowest_class_psi(pressure_psi: float) -> float | None:
    """The lowest class at or over a pressure; None above the highest."""
    return next((c for c in CLASSES_PSI if c >= pressure_psi), None)
