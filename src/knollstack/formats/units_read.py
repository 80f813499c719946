"""Units as people write them in headers and beside curves, and numbers with either decimal sign."""

from __future__ import annotations

import re
from collections.abc import Iterable

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import DisplayUnit, inches_of, table

_NUMBER = re.compile(r"^[-+−–]?(\d+(\.\d*)?|\.\d+)([eE][-+]?\d+)?$")
_PRICE_OF = re.compile(r"^.*(/|per)")
_IN_HEADERS: tuple[Quantity, ...] = (
    "depth",
    "emw",
    "pressure",
    "angle",
    "diameter",
    "linear_weight",
    "temperature",
    "volume",
    "force",
)
"""Quantities whose unit is understood behind a name without brackets: "Temperature, °C"."""
_THOUSANDS = re.compile(r"^[-+−–]?\d{1,3}(,\d{3})+$")


def unit_named(text: str, quantity: Quantity) -> DisplayUnit | None:
    """The unit of a quantity that a text names; None when it names none of them."""
    wanted = text.strip().lower().replace(" ", "").rstrip(".")
    if quantity == "price":  # whatever the currency, a price is of a length
        wanted = "per" + _PRICE_OF.sub("", wanted)
    return next((o for o in table()[quantity].options if wanted and wanted in o.spellings), None)


def split_header(header: str) -> tuple[str, str]:
    """Name and unit of a column: "TVD (m)" is TVD in m; "EMW ppg" is EMW in ppg; "SG" alone is a unit."""
    bare = header.strip()
    opening = max(bare.rfind("("), bare.rfind("["))
    if bare.endswith((")", "]")) and opening >= 0:
        unit = bare[opening + 1 : -1].strip()
        if ")" not in unit and "]" not in unit:
            return bare[:opening].strip(), unit
    name, _, last = header.strip().rpartition(" ")
    if any(unit_named(last.lstrip(","), quantity) for quantity in _IN_HEADERS):
        return name.rstrip(" ,;:"), last
    return header.strip(), ""


def uses_decimal_comma(texts: Iterable[str]) -> bool:
    """Whether commas in these cells are decimal signs: so when any cannot be a separator of thousands."""
    with_comma = [t.strip() for t in texts if "," in t and re.match(r"^\s*[-+−–]?[\d.,\s]+$", t)]
    return any(
        "." not in t.split(",")[-1] and not _THOUSANDS.match(t.replace(".", ""))
        for t in with_comma
        if t.count(",") == 1 and t.rfind(",") > t.rfind(".")
    )


_POINT = re.compile(r"^[-+−–]?\d*\.\d+$|^[-+−–]?\d{1,3}(,\d{3})+\.\d+$")
_COMMA = re.compile(r"^[-+−–]?\d*,\d+$|^[-+−–]?\d{1,3}(\.\d{3})+,\d+$")
_EITHER = re.compile(r"^[-+−–]?\d{1,3}[.,]\d{3}$")


def decimal_sign(text: str) -> str | None:
    """The decimal sign of a number: None where it has none, or where it may be one that parts thousands."""
    bare = text.strip().replace(" ", "").replace("\u00a0", "")
    if _EITHER.match(bare):
        return None
    return "." if _POINT.match(bare) else "," if _COMMA.match(bare) else None


def read_number(text: str, decimal_comma: bool = False) -> float | None:
    """A number as people write it, with thousands or fractions of an inch; None where it is none."""
    bare = text.strip().replace(" ", "").replace(" ", "")
    if decimal_comma:
        bare = bare.replace(".", "").replace(",", ".")
    elif "," in bare:
        if not _THOUSANDS.match(bare.split(".")[0]):
            return None
        bare = bare.replace(",", "")
    if _NUMBER.match(bare):
        return float(re.sub(r"^[−–]", "-", bare))
    return inches_of(text)


SNAP_IN = 0.02


def snapped_in(value_in: float) -> float:
    """Inches given in another unit, at the eighth that they are rounded from: 244.5 mm is 9 5/8, 311 mm 12 1/4."""
    eighth = round(value_in * 8) / 8
    return eighth if abs(value_in - eighth) <= SNAP_IN else value_in
