"""A document read, or refused whole with every fault at its place: older versions are brought up to date first."""

from __future__ import annotations

import json
import re
from collections.abc import Iterable
from typing import Any

from pydantic import ValidationError

from knollstack.core.document.design import FORMAT, VERSION, Design
from knollstack.core.document.faults import Fault, FaultyDesign, schema_faults, shown
from knollstack.core.document.upgrades import UPGRADES, upgraded
from knollstack.core.reading.checks import cross_faults
from knollstack.core.reading.parts import shared

_MAY_BE_HALF = re.compile(r"\\u[dD][89a-fA-F]|[\ud800-\udfff]")


def _version_fault(version: Any) -> Fault:
    expected = f"{VERSION}, the version written here, or one of {', '.join(map(str, UPGRADES))}"
    whole = isinstance(version, int) and not isinstance(version, bool)
    if whole and version > VERSION:
        expected = f"{VERSION} or older: the file was written by a newer Knollstack; update this one to open it"
    return Fault(path="/version", value=shown(version), expected=expected)


def parse(document: Any) -> Design:
    """A design from a decoded JSON document of any known version; raises FaultyDesign with every fault found."""
    if not isinstance(document, dict):
        raise FaultyDesign([Fault(path="", value=shown(document), expected="a well file: one JSON object")])
    if document.get("format") != FORMAT:
        raise FaultyDesign(
            [Fault(path="/format", value=shown(document.get("format")), expected=f'"{FORMAT}", a well file')]
        )
    version = document.get("version")
    if isinstance(version, bool) or version not in (VERSION, *UPGRADES):
        raise FaultyDesign([_version_fault(version)])
    try:
        design = Design.model_validate(shared(upgraded(document)))
    except ValidationError as error:
        raise FaultyDesign(schema_faults(error)) from error
    faults = cross_faults(design)
    if faults:
        raise FaultyDesign(faults)
    return design


def decode(text: str | bytes) -> Any:
    """The JSON value of a text; raises FaultyDesign with the one fault that makes it no JSON."""
    try:
        value = json.loads(text)
    except UnicodeDecodeError as error:
        raise FaultyDesign([Fault(path="", value="bytes that are not UTF-8 text", expected="a JSON file")]) from error
    except RecursionError as error:
        raise FaultyDesign([Fault(path="", value="JSON nested too deep", expected="a well file")]) from error
    except ValueError as error:
        where = f"line {getattr(error, 'lineno', 1)}, column {getattr(error, 'colno', 1)}"
        raise FaultyDesign([Fault(path="", value=f"not JSON at {where}", expected="a complete JSON file")]) from error
    if _MAY_BE_HALF.search(text if isinstance(text, str) else text.decode("latin-1")):
        place = half_character(value)
        if place is not None:
            raise FaultyDesign([Fault(path=place, value="half of a character", expected="text of whole characters")])
    return value


def half_character(value: Any, path: str = "") -> str | None:
    """The place of a text that holds half of a character alone (a surrogate), which no file can keep."""
    if isinstance(value, str):
        return path if any("\ud800" <= c <= "\udfff" for c in value) else None
    if isinstance(value, dict):
        if any(half_character(key) is not None for key in value):
            return path
        return _first(half_character(part, f"{path}/{key}") for key, part in value.items())
    if isinstance(value, list):
        return _first(half_character(part, f"{path}/{i}") for i, part in enumerate(value))
    return None


def _first(places: Iterable[str | None]) -> str | None:
    return next((place for place in places if place is not None), None)


def parse_text(text: str | bytes) -> Design:
    """A design from the text of a well file."""
    return parse(decode(text))
