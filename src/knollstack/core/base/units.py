"""Quantities and their display units: one table, factors from pint. The core itself works in oilfield units.

A value in core units is shown as `value × factor + offset` with `decimals`, and read back the other way. The first
unit of a quantity is the field unit and the core's own, the second the metric one; a person may mix them freely.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal, get_args

import pint
from pydantic import BaseModel

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.endings import unit_of
from knollstack.core.base.findings import Quantity, Words

System = Literal["field", "metric"]
_FRACTION = re.compile(r"^\s*(?:(\d+)[\s-]+)?(\d+)\s*/\s*(\d+)\s*$")


class DisplayUnit(BaseModel):
    """A unit with the ways in which it may be written, in lower case."""

    unit: str
    spellings: tuple[str, ...]
    factor: float
    offset: float
    decimals: int


class QuantityUnits(BaseModel):
    """The units in which a quantity can be shown and typed; the first is the field one, the second the metric one."""

    options: tuple[DisplayUnit, ...]

    def of(self, label: str) -> DisplayUnit | None:
        return next((o for o in self.options if o.unit == label), None)


# quantity: units as (label, pint's words, decimals), the core unit first
_INCHES = (("in", "inch", 3), ("mm", "millimeter", 1), ("cm", "centimeter", 2))
_TABLE: dict[str, tuple[tuple[str, str, int], ...]] = {
    "depth": (("ft", "foot", 0), ("m", "meter", 1)),
    "size": _INCHES,
    "diameter": _INCHES,
    "height": (("in", "inch", 2), ("mm", "millimeter", 0), ("ft", "foot", 2), ("m", "meter", 3)),
    "emw": (
        ("ppg", "pound / gallon", 2),
        ("SG", "kilogram / liter", 3),
        ("kg/m³", "kilogram / meter ** 3", 0),
        ("lb/ft³", "pound / foot ** 3", 1),
    ),
    "pressure": (("psi", "psi", 0), ("bar", "bar", 1), ("kPa", "kilopascal", 0), ("MPa", "megapascal", 2)),
    "volume": (
        ("bbl", "oil_barrel", 1),
        ("m³", "meter ** 3", 2),
        ("ft³", "foot ** 3", 0),
        ("gal", "gallon", 0),
        ("L", "liter", 0),
    ),
    "force": (
        ("lbf", "force_pound", 0),
        ("kN", "kilonewton", 0),
        ("klbf", "kiloforce_pound", 1),
        ("t", "force_metric_ton", 1),
    ),
    "mass": (("lb", "pound", 0), ("kg", "kilogram", 0), ("t", "metric_ton", 2)),
    "linear_weight": (("lb/ft", "pound / foot", 1), ("kg/m", "kilogram / meter", 1)),
    "water": (("gal/sk", "gallon", 2), ("L/sk", "liter", 2)),
    "slurry_yield": (("ft³/sk", "foot ** 3", 3), ("L/sk", "liter", 2)),
    "sacks": (("sk", "dimensionless", 0), ("sk", "dimensionless", 0)),
    "factor": (("", "dimensionless", 2), ("", "dimensionless", 2)),
    "fraction": (("", "dimensionless", 2), ("", "dimensionless", 2)),
    "angle": (("°", "degree", 2), ("°", "degree", 2)),
    "temperature": (("°F", "degF", 0), ("°C", "degC", 0)),
    "gradient": (("psi/ft", "psi / foot", 3), ("kPa/m", "kilopascal / meter", 2), ("bar/m", "bar / meter", 4)),
    "capacity": (("bbl/ft", "oil_barrel / foot", 4), ("m³/m", "meter ** 3 / meter", 5), ("L/m", "liter / meter", 2)),
    "torque": (("ft·lbf", "foot * force_pound", 0), ("N·m", "newton * meter", 0), ("kN·m", "kilonewton * meter", 2)),
    "concentration": (("ppm", "dimensionless", 0), ("ppm", "dimensionless", 0)),
    "percent": (("%", "dimensionless", 1), ("%", "dimensionless", 1)),
    "temperature_change": (("°F", "delta_degF", 0), ("°C", "delta_degC", 0)),
    "per_degree": (("1/°F", "1 / delta_degF", 5), ("1/°C", "1 / delta_degC", 5)),
    "flow": (("gal/min", "gallon / minute", 0), ("L/min", "liter / minute", 0), ("bbl/min", "oil_barrel / minute", 2)),
    "pump_rate": (
        ("bbl/min", "oil_barrel / minute", 1),
        ("m³/min", "meter ** 3 / minute", 2),
        ("L/min", "liter / minute", 0),
    ),
    "compressibility": (("1/psi", "1 / psi", 7), ("1/bar", "1 / bar", 6)),
    "trip_speed": (("ft/min", "foot / minute", 0), ("m/min", "meter / minute", 1), ("m/s", "meter / second", 2)),
    "pipe_speed": (("ft/s", "foot / second", 1), ("m/s", "meter / second", 2)),
    "dial": (("", "dimensionless", 0), ("", "dimensionless", 0)),
    "count": (("", "dimensionless", 0), ("", "dimensionless", 0)),
    "length": (("ft", "foot", 2), ("m", "meter", 2)),
    "minutes": (("min", "minute", 1), ("min", "minute", 1)),
    "hours": (("h", "hour", 1), ("h", "hour", 1)),
    "fluid_loss": (("cm³/30 min", "dimensionless", 0), ("cm³/30 min", "dimensionless", 0)),
    "gallons": (("gal", "gallon", 1), ("L", "liter", 0)),
    "area": (("in²", "inch ** 2", 1), ("cm²", "centimeter ** 2", 0)),
    "seconds": (("s", "second", 0), ("s", "second", 0)),
    "gel": (("lbf/100 ft²", "gel", 0), ("Pa", "pascal", 1)),
    "soil_strength": (("psf", "force_pound / foot ** 2", 0), ("kPa", "kilopascal", 1)),
    "unit_weight": (("pcf", "force_pound / foot ** 3", 1), ("kN/m³", "kilonewton / meter ** 3", 2)),
    "money": (("", "dimensionless", 0), ("", "dimensionless", 0)),
    "days": (("d", "day", 1), ("d", "day", 1)),
    "drilling_rate": (("ft/h", "foot / hour", 0), ("m/h", "meter / hour", 1)),
    "stroke_rate": (("spm", "dimensionless", 0), ("spm", "dimensionless", 0)),
    "stroke_volume": (("bbl/stroke", "oil_barrel", 4), ("L/stroke", "liter", 2), ("m³/stroke", "meter ** 3", 5)),
    "price": (("per ft", "1 / foot", 2), ("per m", "1 / meter", 2)),
}

_SPELLINGS: dict[str, str] = {
    "ft": "feet foot f ' ftrkb",
    "m": "metre metres meter meters mrkb",
    "in": 'inch inches "',
    "ppg": "ppge lb/gal lbs/gal lbm/gal",
    "SG": "s.g g/cc g/cm3 g/cm³ gm/cc kg/l",
    "psi": "psig psia lbf/in2",
    "per ft": "perft perfoot perfeet",
    "per m": "perm permetre permeter",
    "gal/min": "gpm",
    "bbl/min": "bpm",
    "bar": "bars",
    "bbl": "bbls",
    "lb/ft": "lbs/ft #/ft ppf",
    "°": "deg degrees degree dega",
    "°C": "degc c",
    "°F": "degf",
}


def _spelled(label: str) -> tuple[str, ...]:
    """How a unit may be written: as it is shown, with plain figures, without its degree sign, and in other words."""
    lower = label.lower()
    ways = [lower, lower.replace("³", "3"), lower.replace("°", ""), *_SPELLINGS.get(label, "").split()]
    return tuple(dict.fromkeys(way for way in ways if way))


# the unit in which a glossary name ends -> the quantity in whose units it can be shown
_QUANTITY_OF_UNIT: dict[str, Quantity] = {
    "ft": "depth",
    "in": "diameter",
    "ppg": "emw",
    "psi": "pressure",
    "bbl": "volume",
    "lbf": "force",
    "lb": "mass",
    "lb/ft": "linear_weight",
    "gal": "gallons",
    "in²": "area",
    "gal/sk": "water",
    "ft³/sk": "slurry_yield",
    "°": "angle",
    "°F": "temperature",
    "psi/ft": "gradient",
    "bbl/ft": "capacity",
    "ft·lbf": "torque",
    "gal/min": "flow",
    "ft/min": "trip_speed",
    "ft/h": "drilling_rate",
    "h": "hours",
    "min": "minutes",
    "d": "days",
    "ft/s": "pipe_speed",
    "%": "percent",
    "1/°F": "per_degree",
    "lbf/100 ft²": "gel",
    "psf": "soil_strength",
    "bbl/min": "pump_rate",
    "bbl/stroke": "stroke_volume",
}


def quantity_of(name: str) -> Quantity | None:
    """The quantity of a name by the unit that it ends in; None for a pure number or a unit of its own."""
    return _QUANTITY_OF_UNIT.get(unit_of(name))


def core_unit(quantity: Quantity) -> str:
    """The unit in which the core works with a quantity."""
    return _TABLE[quantity][0][0]


def quantity_of_unit(unit: str) -> Quantity | None:
    return _QUANTITY_OF_UNIT.get(unit)


@lru_cache(maxsize=1)
def table() -> dict[str, QuantityUnits]:
    """Display units of every quantity."""
    assert set(_TABLE) == set(get_args(Quantity))
    registry: pint.UnitRegistry[float] = pint.UnitRegistry()
    registry.define("gel = 0.01 * force_pound / foot ** 2")
    units = {}
    for name, choices in _TABLE.items():
        core = choices[0][1]
        options = []
        for label, words, decimals in choices:
            zero = float(registry.Quantity(0.0, core).to(words).magnitude)
            one = float(registry.Quantity(1.0, core).to(words).magnitude)
            options.append(
                DisplayUnit(unit=label, spellings=_spelled(label), factor=one - zero, offset=zero, decimals=decimals)
            )
        units[name] = QuantityUnits(options=tuple(options))
    gradients = [g.model_copy(update={"factor": PSI_PER_PPG_FT * g.factor}) for g in units["gradient"].options[:2]]
    # a mud weight may be given as the gradient of its column
    units["emw"] = QuantityUnits(options=(*units["emw"].options, *gradients))
    return units


@dataclass(frozen=True)
class UnitSet:
    """The units of a person: a system, and the quantities for which another unit was chosen."""

    system: System = "field"
    mixed: Mapping[str, str] = field(default_factory=dict)

    def of(self, quantity: str) -> DisplayUnit:
        known = table()[quantity]
        chosen = known.of(self.mixed[quantity]) if quantity in self.mixed else None
        return chosen or known.options[0 if self.system == "field" else 1]


FIELD = UnitSet()


def shown(value: float, quantity: Quantity, units: UnitSet = FIELD) -> str:
    """A value with its unit as a person reads it."""
    unit = units.of(quantity)
    if quantity == "size" and unit.unit == "in":
        return f"{fraction(value)} in"
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


def plain(words: Words, units: UnitSet = FIELD) -> str:
    """Words of a finding as one plain sentence in the units of a person."""
    return "".join(w if isinstance(w, str) else shown(w.value, w.quantity, units) for w in words)


def inches_of(text: str) -> float | None:
    """A number of inches with a fraction, "9 5/8" or "5/8"; None where it is none."""
    match = _FRACTION.match(text)
    if match is None or int(match.group(3)) == 0:
        return None
    return int(match.group(1) or 0) + int(match.group(2)) / int(match.group(3))
