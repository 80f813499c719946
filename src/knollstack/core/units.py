"""Quantities and their display units: one table, factors from pint. The core itself works in oilfield units.

A value in core units is shown as `value × factor + offset` with `decimals`, and read back the other way.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal, get_args

import pint
from pydantic import BaseModel

from knollstack.core.results import Quantity, Words

System = Literal["field", "metric"]


class DisplayUnit(BaseModel):
    unit: str
    factor: float
    offset: float
    decimals: int


class QuantityUnits(BaseModel):
    field: DisplayUnit
    metric: DisplayUnit


# quantity: (core unit in pint's words, field label, decimals, metric unit in pint's words, metric label, decimals)
_TABLE: dict[str, tuple[str, str, int, str, str, int]] = {
    "depth": ("foot", "ft", 0, "meter", "m", 1),
    "size": ("inch", "in", 3, "millimeter", "mm", 1),
    "diameter": ("inch", "in", 3, "millimeter", "mm", 1),
    "height": ("inch", "in", 2, "millimeter", "mm", 0),
    "emw": ("pound / gallon", "ppg", 2, "kilogram / liter", "SG", 3),
    "pressure": ("psi", "psi", 0, "bar", "bar", 1),
    "volume": ("oil_barrel", "bbl", 1, "meter ** 3", "m³", 2),
    "force": ("force_pound", "lbf", 0, "kilonewton", "kN", 0),
    "linear_weight": ("pound / foot", "lb/ft", 1, "kilogram / meter", "kg/m", 1),
    "water": ("gallon", "gal/sk", 2, "liter", "L/sk", 2),
    "slurry_yield": ("foot ** 3", "ft³/sk", 3, "liter", "L/sk", 2),
    "sacks": ("dimensionless", "sk", 0, "dimensionless", "sk", 0),
    "factor": ("dimensionless", "", 2, "dimensionless", "", 2),
    "fraction": ("dimensionless", "", 2, "dimensionless", "", 2),
    "angle": ("degree", "°", 2, "degree", "°", 2),
    "temperature": ("degF", "°F", 0, "degC", "°C", 0),
    "gradient": ("psi / foot", "psi/ft", 3, "kilopascal / meter", "kPa/m", 2),
    "capacity": ("oil_barrel / foot", "bbl/ft", 4, "meter ** 3 / meter", "m³/m", 5),
    "concentration": ("dimensionless", "ppm", 0, "dimensionless", "ppm", 0),
}


@lru_cache(maxsize=1)
def table() -> dict[str, QuantityUnits]:
    """Display units of every quantity."""
    assert set(_TABLE) == set(get_args(Quantity))
    registry: pint.UnitRegistry[float] = pint.UnitRegistry()
    units = {}
    for name, (core, label, decimals, metric, metric_label, metric_decimals) in _TABLE.items():
        zero = registry.Quantity(0.0, core).to(metric).magnitude
        one = registry.Quantity(1.0, core).to(metric).magnitude
        units[name] = QuantityUnits(
            field=DisplayUnit(unit=label, factor=1.0, offset=0.0, decimals=decimals),
            metric=DisplayUnit(unit=metric_label, factor=one - zero, offset=zero, decimals=metric_decimals),
        )
    return units


def shown(value: float, quantity: Quantity, system: System = "field") -> str:
    """A value with its unit as a person reads it."""
    if quantity == "size" and system == "field":
        return f"{fraction(value)} in"
    unit = getattr(table()[quantity], system)
    number = f"{value * unit.factor + unit.offset:,.{unit.decimals}f}"
    return f"{number} {unit.unit}".strip()


def fraction(value: float) -> str:
    """Inches as the trade writes them: 9.625 is 9 5/8; what is not in sixteenths stays decimal."""
    sixteenths = round(value * 16)
    if abs(value * 16 - sixteenths) > 1e-6:
        return f"{value:.3f}"
    whole, part = divmod(sixteenths, 16)
    if part == 0:
        return str(whole)
    bottom = 16
    while part % 2 == 0:
        part, bottom = part // 2, bottom // 2
    return f"{whole} {part}/{bottom}" if whole else f"{part}/{bottom}"


def plain(words: Words, system: System = "field") -> str:
    """Words of a finding as one plain sentence in the units of a system."""
    return "".join(w if isinstance(w, str) else shown(w.value, w.quantity, system) for w in words)
