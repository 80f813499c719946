"""Version 7 to 8: the log, and where a leak-off test comes from; nothing that was there changes."""

from __future__ import annotations

from typing import Any


def to_version_8(document: dict[str, Any]) -> dict[str, Any]:
    """The log begins empty."""
    return {**document, "version": 8}
