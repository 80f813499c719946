"""Version 4 to 5: nothing that was there changes; what a well at sea adds may stand beside it."""

from __future__ import annotations

from typing import Any


def to_version_5(document: dict[str, Any]) -> dict[str, Any]:
    return {**document, "version": 5}
