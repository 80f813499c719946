"""Ids for rows that were written without one, as a person does who writes a file by hand."""

from __future__ import annotations

from typing import Any

PLACES = {
    "s": ("strings",),
    "z": ("ground", "zones"),
    "p": ("wellhead", "pieces"),
    "b": ("preventers",),
    "y": ("completion", "evaluation"),
    "m": ("completion", "pressure_points"),
    "f": ("completion", "perforations"),
    "v": ("completion", "verified"),
    "r": ("runsheet", "rates"),
    "x": ("runsheet", "steps"),
    "e": ("runsheet", "edits"),
    "o": ("runsheet", "orders"),
}
"""Where rows with ids stand, by the letter that their ids begin with."""


def _part(document: Any, keys: tuple[str, ...]) -> Any:
    for key in keys:
        document = document.get(key) if isinstance(document, dict) else None
    return document


def numbered(letter: str, rows: list[Any]) -> list[Any]:
    """Rows with an id each: the letter and the first number that is free."""
    taken = {str(row["id"]) for row in rows if isinstance(row, dict) and "id" in row}
    fresh = (f"{letter}{n}" for n in range(1, len(rows) + len(taken) + 1) if f"{letter}{n}" not in taken)
    return [{"id": next(fresh), **row} if isinstance(row, dict) and "id" not in row else row for row in rows]


def with_ids(document: dict[str, Any]) -> dict[str, Any]:
    """The document with an id on every row that can be referred to; what has one keeps it."""
    for letter, keys in PLACES.items():
        rows = _part(document, keys)
        if not isinstance(rows, list) or all(not isinstance(row, dict) or "id" in row for row in rows):
            continue
        if len(keys) == 1:
            document = {**document, keys[0]: numbered(letter, rows)}
        else:
            document = {**document, keys[0]: {**document[keys[0]], keys[1]: numbered(letter, rows)}}
    return _with_element_ids(document)


def _with_element_ids(document: dict[str, Any]) -> dict[str, Any]:
    """Elements of a stack carry ids too, unique within it."""
    stacks = document.get("preventers")
    if not isinstance(stacks, list):
        return document

    def named(stack: Any) -> Any:
        rows = stack.get("elements") if isinstance(stack, dict) else None
        return {**stack, "elements": numbered("e", rows)} if isinstance(rows, list) else stack

    return {**document, "preventers": [named(stack) for stack in stacks]}
