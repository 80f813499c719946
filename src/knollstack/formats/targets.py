"""The tables of a document that can be pasted, imported and exported: their columns, and how headers name them.

Title, quantity and options of a column are those of its field in the document; only what people write in headers
stands here.
"""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from knollstack.core.base.findings import Quantity
from knollstack.core.document.described import Described, fields
from knollstack.formats.headers import HEADERS, Target


class TargetColumn(BaseModel):
    """One column: `key` is the key in a row, or `list:entry` for a flag that stands in a list."""

    key: str
    title: str
    kind: Literal["number", "text", "choice", "flag"]
    quantity: Quantity | None = None
    options: tuple[str, ...] = ()
    required: bool = False
    low: float | None = None
    high: float | None = None
    whole: bool = False
    most: int = 200
    """Characters of a text."""
    names: tuple[str, ...] = ()


_PLACES: dict[Target, str] = {
    "stations": "/trajectory/stations",
    "zones": "/ground/zones",
    "pore": "/ground/pore",
    "fracture": "/ground/fracture",
    "stability": "/ground/stability",
    "overburden": "/ground/overburden",
    "leak_off_tests": "/ground/leak_off_tests",
    "temperature": "/ground/temperature",
    "strings": "/strings",
    "mud_steps": "/strings/*/mud_steps",
    "sections": "/strings/*/sections",
    "loads": "/strings/*/loads",
    "pipes": "/pipes",
    "stock": "/stock",
    "kick_minimums": "/policy/depths/kick_minimums",
    "drill_strings": "/policy/mud/drill_strings",
    "pairs": "/policy/sizes/pairs",
    "clearances": "/policy/sizes/clearances",
    "joints": "/strings/*/running/joints",
    "centralizer_runs": "/strings/*/running/centralizers",
    "centralizers": "/centralizers",
    "fluids": "/strings/*/cement/fluids",
    "pump_steps": "/strings/*/cement/steps",
    "strength": "/strings/*/cement/strength",
    "additives": "/strings/*/cement/additives",
    "caliper": "/strings/*/cement/caliper",
    "excesses": "/strings/*/cement/excesses",
    "balanced_plugs": "/balanced_plugs",
    "pieces": "/wellhead/pieces",
    "elements": "/preventers/*/elements",
    "least_elements": "/policy/preventers/least_elements",
    "soil": "/sea/soil",
    "riser_joints": "/sea/riser/joints",
    "weather": "/sea/weather",
    "work_limits": "/sea/limits",
    "disconnect": "/sea/disconnect",
    "slow_pumps": "/drills/slow",
    "drill_parts": "/drills/parts",
    "evaluation": "/completion/evaluation",
    "pressure_points": "/completion/pressure_points",
    "perforations": "/completion/perforations",
    "verified": "/completion/verified",
    "suspension_plugs": "/completion/suspension/plugs",
    "abandonment_plugs": "/completion/abandonment/plugs",
    "section_rates": "/runsheet/rates",
    "own_steps": "/runsheet/steps",
    "orders": "/runsheet/orders",
    "drilling_rates": "/policy/runsheet/rates",
    "casing_rates": "/policy/runsheet/joints",
    "time_spread": "/policy/runsheet/spread",
    "lead_times": "/policy/runsheet/leads",
    "set_up": "/policy/sea/set_up",
    "log": "/log",
    "leak_off_points": "/log/*/points",
}
"""Where each table stands in the document."""
_NEEDED = {("loads", "name"), ("loads", "inside_psi"), ("loads", "outside_psi"), ("stations", "inclination_deg")}
"""Columns that a whole table needs although a row in the document does not."""


def _column(target: Target, key: str, names: str) -> TargetColumn:
    name, _, entry = key.partition(":")
    field: Described = fields()[f"{_PLACES[target]}/*/{name}"]
    flag = bool(entry) or field.kind == "flag"
    kind: Literal["number", "text", "choice", "flag"] = "flag" if flag else field.kind  # type: ignore[assignment]
    needed = field.required and field.kind in ("number", "text") and key not in ("name", "number")
    return TargetColumn(
        key=key,
        title=entry.capitalize() if entry else field.title,
        kind=kind,
        quantity=field.quantity,
        options=() if flag else field.options,
        required=needed or (target, key) in _NEEDED,
        low=field.low,
        high=field.high,
        whole=field.whole,
        most=field.most or 200,
        names=tuple(n for n in names.split(";") if n),
    )


TARGETS: dict[Target, tuple[TargetColumn, ...]] = {
    target: tuple(_column(target, key, names) for key, names in headers.items()) for target, headers in HEADERS.items()
}
PROFILES: tuple[Target, ...] = ("pore", "fracture", "stability", "overburden")


def may_be_none(target: Target, key: str) -> bool:
    """An empty cell of it says that nothing is decided, and is no empty text."""
    field = fields().get(f"{_PLACES[target]}/*/{key}")
    return field is not None and field.optional


def place_of(target: Target) -> str:
    """Where a table stands in the document; `*` for each string in turn."""
    return _PLACES[target]
