"""Version 3 to 4: elements of a stack are rows of their own, bottom to top, each of a kind that is known or another."""

from __future__ import annotations

from typing import Any, get_args

from knollstack.core.document.preventers import ElementKind

_KNOWN = frozenset(get_args(ElementKind)) - {"other"}


def to_version_4(document: dict[str, Any]) -> dict[str, Any]:
    """A list of names, top to bottom, becomes rows with an id and a kind each; a name of no kind is kept as it is."""
    found = {**document, "version": 4}
    stacks = found.get("preventers")
    if isinstance(stacks, list):
        found["preventers"] = [_stack(row) for row in stacks]
    return found


def _stack(row: Any) -> Any:
    if not isinstance(row, dict) or not isinstance(row.get("elements"), list):
        return row
    return {**row, "elements": [_element(n, name) for n, name in enumerate(reversed(row["elements"]), start=1)]}


def _element(number: int, name: Any) -> dict[str, Any]:
    kind = {"element": name} if name in _KNOWN else {"element": "other", "name": name}
    return {"id": f"e{number}", **kind}
