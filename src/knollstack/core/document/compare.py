"""What differs between two documents, in words: for the history of a design and for two designs side by side."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from typing import Any

from pydantic import BaseModel

from knollstack.core.base.findings import Amount, Words
from knollstack.core.base.units import fraction
from knollstack.core.document.described import described
from knollstack.core.document.design import Design

_PIPE = re.compile(r"^/strings/[^/]+/pipe$")
LONGEST_TEXT = 50
_PROFILES = {"pore", "fracture", "stability", "overburden"}


class Difference(BaseModel):
    """One decision or datum that differs: its place, what it is of, and its value on either side."""

    place: str
    subject: str
    before: Words
    after: Words


def field_words(place: str) -> str:
    """A place of the document in words: the title of its field, else its last key."""
    field = described(place)
    return field.words if field else place.rsplit("/", 1)[-1].replace("_", " ")


def is_one_decision(place: str) -> bool:
    """A pipe that is chosen is one decision, whatever parts it has."""
    return bool(_PIPE.match(place))


def amount_words(place: str, value: Any) -> Words:
    """A value of the document as words with its quantity."""
    if value is None or value == "":
        return ("not decided",)
    if isinstance(value, bool):
        return ("yes" if value else "no",)
    if isinstance(value, (int, float)):
        field = described(place)
        return (Amount(value=float(value), quantity=field.quantity),) if field and field.quantity else (f"{value:g}",)
    if is_one_decision(place):
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
    # a step of the sheet keeps its key when its string gets another name: that is no difference of the sheet
    strings, zones = _strings_of(a) | _strings_of(b), _zones_of(a) | _zones_of(b)
    for document in (a, b):
        _sheet_spoken(document["runsheet"], strings, zones)
        _speak(document)
    return [d for key in a for d in _walk(f"/{key}", field_words(f"/{key}"), a[key], b[key])]


def _strings_of(document: dict[str, Any]) -> dict[str, str]:
    return {s["id"]: _string_name(s, i) for i, s in enumerate(document["strings"])}


def _zones_of(document: dict[str, Any]) -> dict[str, str]:
    return {z["id"]: z["name"] for z in document["ground"]["zones"]}


def _speak(document: dict[str, Any]) -> None:
    """What refers to a row by its id refers to it by its name."""
    strings = _strings_of(document)
    for row in (*document["wellhead"]["pieces"], *document["preventers"], *document["sea"]["annuli"]):
        row["string"] = strings.get(row["string"], row["string"])
    for stack in document["preventers"]:
        names = {e["id"]: e["name"] or e["element"] for e in stack["elements"]}
        for key in ("choke", "kill", "casing_ram"):
            stack[key] = names.get(stack[key], stack[key])


def _sheet_spoken(sheet: dict[str, Any], strings: dict[str, str], zones: dict[str, str]) -> None:
    """Steps and items by the string that they are of; rates by string and zone."""

    def spoken(key: str) -> str:
        head, _, rest = key.partition("/")
        return f"{strings.get(head, head)} {rest.replace('/', ' ').replace('-', ' ')}".strip()

    for rate in sheet["rates"]:
        rate["string"], rate["zone"] = (
            strings.get(rate["string"], rate["string"]),
            zones.get(rate["zone"], rate["zone"]),
        )
    for rows, keys in (("steps", ("after",)), ("edits", ("step", "after")), ("orders", ("item",))):
        for row in sheet[rows]:
            for key in keys:
                row[key] = spoken(row[key]) if row[key] else row[key]


def _walk(place: str, subject: str, a: Any, b: Any) -> Iterator[Difference]:
    key = place.rsplit("/", 1)[-1]
    if a == b or key == "id":
        return
    if isinstance(a, dict) and isinstance(b, dict) and not is_one_decision(place):
        for name in a:
            yield from _walk(f"{place}/{name}", place_words(subject, f"{place}/{name}"), a[name], b[name])
    elif isinstance(a, list) and isinstance(b, list) and _name_at(place) is not None:
        yield from _rows(place, a, b)
    elif place.endswith("/running/joints") and isinstance(a, list):
        yield from _joints(place, subject, a, b)
    elif key in _PROFILES:
        yield from _points(place, key, a, b)
    else:
        yield Difference(place=place, subject=subject, before=amount_words(place, a), after=amount_words(place, b))


_PLAIN = re.compile(r"^/(site|ground|trajectory)/[^/]+$|^/policy/[^/]+(/[^/]+)?$")
"""Places whose own title says enough without that of the part they stand in."""


def place_words(subject: str, place: str) -> str:
    """A place within a part that has a name: "13 3/8 in shoe"."""
    own = field_words(place)
    if not subject or _PLAIN.match(place):
        return own
    return f"{subject.removesuffix(' cement')} {own}" if place.endswith("/cement/top_md_ft") else f"{subject} {own}"


def _string_name(row: dict[str, Any], _: int) -> str:
    size = f"{fraction(row['od_in'])} in" if row["od_in"] is not None else row["role"]
    return row["name"] or size


_NAMED: dict[str, Callable[[dict[str, Any], int], str]] = {
    "strings": _string_name,
    "zones": lambda row, _: str(row["name"]),
    "pieces": lambda row, i: str(row["name"] or row["kind"] or f"piece {i + 1}"),
    "preventers": lambda _, i: f"stack {i + 1}",
    "stations": lambda _, i: f"station {i + 1}",
    "leak_off_tests": lambda _, i: f"leak-off test {i + 1}",
    "kick_minimums": lambda row, _: f"kick minimum from {fraction(row['from_hole_in'])} in hole",
    "pairs": lambda row, _: f"{fraction(row['od_in'])} in casing in {fraction(row['hole_in'])} in hole",
    "clearances": lambda row, _: f"clearance from {fraction(row['from_od_in'])} in casing",
    "elements": lambda row, i: str(row["name"] or row["element"]),
    "least_elements": lambda row, _: f"minimum elements from {row['from_class_psi']:,.0f} psi",
    "balanced_plugs": lambda row, i: str(row.get("name") or f"plug {i + 1}"),
    "centralizers": lambda row, i: str(row.get("name") or f"{row.get('type')} {i + 1}"),
    "soil": lambda row, _: f"soil {row['below_mudline_ft']:g} ft below the mudline",
    "weather": lambda row, i: str(row["name"] or f"weather {i + 1}"),
    "limits": lambda row, i: str(row["work"] or f"limit {i + 1}"),
    "disconnect": lambda row, i: str(row["name"] or f"step {i + 1}"),
    "annuli": lambda row, _: f"annulus around {row['string']}",
    "drill_strings": lambda row, _: f"drill string from {fraction(row['from_hole_in'])} in hole",
    "/runsheet/rates": lambda row, _: f"drilling rate, {row['string']}{', ' + row['zone'] if row['zone'] else ''}",
    "/runsheet/steps": lambda row, _: f"own step “{row['text'][:LONGEST_TEXT]}”",
    "/runsheet/edits": lambda row, _: f"step {row['step']}",
    "/runsheet/orders": lambda row, _: f"order of {row['item']}",
    "/policy/runsheet/rates": lambda row, _: f"policy from {fraction(row['from_hole_in'])} in hole",
    "/policy/runsheet/joints": lambda row, _: f"policy from {fraction(row['from_od_in'])} in casing",
    "/policy/runsheet/spread": lambda row, _: f"spread of {row['kind']}",
    "/policy/runsheet/leads": lambda row, _: f"policy for {row['kind']}",
}


def _name_at(place: str) -> Callable[[dict[str, Any], int], str] | None:
    """What names the rows of a list: by its whole place, else by its key."""
    return _NAMED.get(place) or _NAMED.get(place.rsplit("/", 1)[-1])


def name_of_row(key: str, row: dict[str, Any], index: int) -> str:
    """What a row of a list is called: by what it holds where that is a name, else by its place."""
    named = _NAMED.get(key)
    return named(row, index) if named else f"{key.replace('_', ' ')} {index + 1}"


def _rows(place: str, a: list[dict[str, Any]], b: list[dict[str, Any]]) -> Iterator[Difference]:
    """Rows that are matched are walked; the others were added or removed."""
    name = _name_at(place)
    assert name is not None
    pairs = _matched(name, a, b)
    kept, taken = {i for i, _ in pairs}, {k for _, k in pairs}
    for i, row in enumerate(a):
        if i not in kept:
            yield Difference(place=place, subject=name(row, i), before=("there",), after=("removed",))
    for k, row in enumerate(b):
        if k not in taken:
            yield Difference(place=f"{place}/{k}", subject=name(row, k), before=("none",), after=("added",))
    for i, k in pairs:
        for part in a[i]:
            at = f"{place}/{k}/{part}"
            yield from _walk(at, f"{name(a[i], i)} {field_words(at)}", a[i][part], b[k][part])


def _matched(
    name: Callable[[dict[str, Any], int], str], a: list[dict[str, Any]], b: list[dict[str, Any]]
) -> list[tuple[int, int]]:
    """Indices of the rows that are the same row: by id, or by name where ids were given by position and names say more.

    Rows without ids go by position where their number is the same, else by name.
    """
    by_name = _pairs([name(row, i) for i, row in enumerate(a)], [name(row, i) for i, row in enumerate(b)])
    if not any("id" in row for row in (*a, *b)):
        return [(i, i) for i in range(len(a))] if len(a) == len(b) else by_name
    by_id = _pairs([str(row["id"]) for row in a], [str(row["id"]) for row in b])
    agree = sum(name(a[i], i) == name(b[k], k) for i, k in by_id)
    return by_name if len(a) != len(b) and len(by_name) > agree else by_id


def _pairs(a: list[str], b: list[str]) -> list[tuple[int, int]]:
    places = {label: k for k, label in enumerate(b)}
    return [(i, places[label]) for i, label in enumerate(a) if label in places]


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


def _joints(place: str, subject: str, a: list[dict[str, Any]], b: list[dict[str, Any]]) -> Iterator[Difference]:
    """A tally: one joint that changed is told by what changed in it, more by their count."""
    changed = [i for i, (old, new) in enumerate(zip(a, b, strict=False)) if old != new]
    if len(a) == len(b) and len(changed) == 1:
        i = changed[0]
        for key in b[i]:
            at = f"{place}/{i}/{key}"
            yield from _walk(at, f"{subject} joint {i + 1} {field_words(at)}", a[i][key], b[i][key])
        return
    after = f"{len(changed)} of {len(b)} joints changed" if len(a) == len(b) else f"{len(b)} joints"
    before = f"{len(a)} joints" if a else "made from the length range"
    yield Difference(
        place=place, subject=subject, before=(before,), after=(after if b else "made from the length range",)
    )


def _point(row: dict[str, Any]) -> Words:
    emw, depth = Amount(value=row["emw_ppg"], quantity="emw"), Amount(value=row["tvd_ft"], quantity="depth")
    return (emw, " at ", depth)
