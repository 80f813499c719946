"""Version 5 to 6: packer and treatment stand with the completion, once for the well."""

from __future__ import annotations

from typing import Any

_MOVED = {"packer_md_ft": "packer_md_ft", "stimulation_psi": "treating_psi", "stimulation_fluid_f": "treating_fluid_f"}


def to_version_6(document: dict[str, Any]) -> dict[str, Any]:
    """Of what stood on several strings that of the deepest counts: the well is produced through it."""
    found = {**document, "version": 6}
    strings, completion = document.get("strings"), dict(document.get("completion") or {})
    if isinstance(strings, list):
        found["strings"] = [_without(row) for row in strings]
        for old, new in _MOVED.items():
            given = [row[old] for row in strings if isinstance(row, dict) and row.get(old) is not None]
            if given:
                completion[new] = given[-1]
    if completion:
        found["completion"] = completion
    return found


def _without(row: Any) -> Any:
    return {k: v for k, v in row.items() if k not in _MOVED} if isinstance(row, dict) else row
