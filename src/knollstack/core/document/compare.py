"""What differs between two documents, in words: for the history of a design and for two designs side by side."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from typing import Any

from pydantic import BaseModel

from knollstack.core.base.findings import Amount, Quantity, Words
from knollstack.core.base.units import fraction, quantity_of
from knollstack.core.document.design import Design

_UNIT_ENDING = re.compile(r"_(ft|in|ppg|psi_ft|psi|ppf|lbf|bbl|deg|f|ppm|percent|gal_sk)$")
_WORDS = {
    "shoe_md_ft": "shoe",
    "hanger_md_ft": "liner top",
    "od_in": "casing",
    "bit_in": "hole",
    "mud_ppg": "mud",
    "top_md_ft": "top of cement",
    "md_ft": "MD",
    "tvd_ft": "TVD",
    "emw_ppg": "EMW",
    "h2s_ppm": "H2S",
    "co2_percent": "CO2",
    "case_before_deeper": "case before deeper",
    "shoe_allowed": "shoe may stand",
}
_SIZES = {"od_in", "bit_in", "production_od_in", "from_hole_in", "pipe_od_in", "collar_od_in", "bore_in"}
_PROFILES = {"pore", "fracture", "stability", "overburden"}


class Difference(BaseModel):
    """One decision or datum that differs: its place, what it is of, and its value on either side."""

    place: str
    subject: str
    before: Words
    after: Words


def field_words(key: str) -> str:
    """A key of the document in words."""
    return _WORDS.get(key, _UNIT_ENDING.sub("", key).replace("_", " "))


def amount_words(key: str, value: Any) -> Words:
    """A value of the document as words with its quantity."""
    if value is None or value == "":
        return ("not decided",)
    if isinstance(value, bool):
        return ("yes" if value else "no",)
    if isinstance(value, (int, float)):
        if key.endswith("_percent"):
            return (f"{value:g} %",)
        quantity: Quantity | None = "size" if key in _SIZES else quantity_of(key)
        return (Amount(value=float(value), quantity=quantity),) if quantity else (f"{value:g}",)
    if key == "pipe":
        weight = Amount(value=value["weight_ppf"], quantity="linear_weight")
        return (weight, f" {value['grade']} {value['connection']}")
    if isinstance(value, (list, dict)):
        return (_summary(value),)
    return (str(value),)


def _summary(value: Any) -> str:
    if isinstance(value, dict):
        return " ".join(f"{v:g}" if isinstance(v, float) else str(v) for v in value.values() if v is not None)
    if all(isinstance(v, str) for v in value):
        return ", ".join(value) or "none"
    return f"{len(value)} rows" if len(value) != 1 else "1 row"


def differences(before: Design, after: Design) -> list[Difference]:
    """Everything that differs between two documents, in the order of the work."""
    a, b = before.model_dump(mode="json"), after.model_dump(mode="json")
    return [d for key in a for d in _walk(f"/{key}", field_words(key), key, a[key], b[key])]


def _walk(place: str, subject: str, key: str, a: Any, b: Any) -> Iterator[Difference]:
    if a == b:
        return
    if isinstance(a, dict) and isinstance(b, dict) and key != "pipe":
        for name in a:
            yield from _walk(f"{place}/{name}", _of(subject, key, name), name, a[name], b[name])
    elif isinstance(a, list) and isinstance(b, list) and key in _NAMED:
        yield from _rows(place, key, a, b)
    elif key in _PROFILES:
        yield from _points(place, key, a, b)
    else:
        yield Difference(place=place, subject=subject, before=amount_words(key, a), after=amount_words(key, b))


def _of(subject: str, key: str, name: str) -> str:
    """Subject of a part: its own words, after those of the row or part it belongs to where they say more."""
    own = field_words(name)
    if key in ("site", "ground", "trajectory"):
        return own
    return f"{subject.removesuffix(' cement')} {own}" if name == "top_md_ft" else f"{subject} {own}"


def _string_name(row: dict[str, Any], _: int) -> str:
    size = f"{fraction(row['od_in'])} in" if row["od_in"] is not None else row["role"]
    return row["name"] or size


_NAMED: dict[str, Callable[[dict[str, Any], int], str]] = {
    "strings": _string_name,
    "zones": lambda row, _: str(row["name"]),
    "pieces": lambda row, _: str(row["name"]),
    "preventers": lambda row, _: f"stack on string {row['role_index'] + 1}",
    "stations": lambda _, i: f"station {i + 1}",
    "leak_off_tests": lambda _, i: f"leak-off test {i + 1}",
    "kick_minimums": lambda row, _: f"kick minimum from {fraction(row['from_hole_in'])} in hole",
    "drill_strings": lambda row, _: f"drill string from {fraction(row['from_hole_in'])} in hole",
}


def _rows(place: str, key: str, a: list[dict[str, Any]], b: list[dict[str, Any]]) -> Iterator[Difference]:
    """Rows matched by name where the number of rows changed, by position where it did not."""
    name = _NAMED[key]
    if len(a) == len(b):
        for i, (old, new) in enumerate(zip(a, b, strict=True)):
            for part in old:
                subject = f"{name(old, i)} {field_words(part)}"
                yield from _walk(f"{place}/{i}/{part}", subject, part, old[part], new[part])
        return
    old_rows = {name(row, i): row for i, row in enumerate(a)}
    new_rows = {name(row, i): (i, row) for i, row in enumerate(b)}
    for label in old_rows:
        if label not in new_rows:
            yield Difference(place=place, subject=label, before=("there",), after=("removed",))
    for label, (i, row) in new_rows.items():
        if label not in old_rows:
            yield Difference(place=f"{place}/{i}", subject=label, before=("none",), after=("added",))
            continue
        for part in row:
            subject = f"{label} {field_words(part)}"
            yield from _walk(f"{place}/{i}/{part}", subject, part, old_rows[label][part], row[part])


def _points(place: str, key: str, a: list[dict[str, Any]], b: list[dict[str, Any]]) -> Iterator[Difference]:
    """A profile: one point that moved is told by its numbers, more by their count."""
    changed = [i for i, (old, new) in enumerate(zip(a, b, strict=False)) if old != new]
    if len(a) == len(b) and len(changed) == 1:
        i = changed[0]
        yield Difference(place=f"{place}/{i}", subject=f"{key} point {i + 1}", before=_point(a[i]), after=_point(b[i]))
    elif len(a) == len(b):
        count = (f"{len(changed)} of {len(b)} points moved",)
        yield Difference(place=place, subject=f"{key} profile", before=(f"{len(a)} points",), after=count)
    else:
        yield Difference(
            place=place, subject=f"{key} profile", before=(f"{len(a)} points",), after=(f"{len(b)} points",)
        )


def _point(row: dict[str, Any]) -> Words:
    emw, depth = Amount(value=row["emw_ppg"], quantity="emw"), Amount(value=row["tvd_ft"], quantity="depth")
    return (emw, " at ", depth)
