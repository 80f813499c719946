"""Version 4 to 5: what a well at sea adds may stand beside it; bottles that nobody placed stand where the stack does."""

from __future__ import annotations

from typing import Any


def to_version_5(document: dict[str, Any]) -> dict[str, Any]:
    """On land that is the surface, as it was."""
    found, unit = {**document, "version": 5}, document.get("closing_unit")
    if isinstance(unit, dict) and unit.get("place") == "surface":
        found["closing_unit"] = {**unit, "place": "as the stack"}
    return found
