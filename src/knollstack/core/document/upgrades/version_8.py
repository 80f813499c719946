"""Version 8 to 9: pumps and the drill string as run, and the policy of drills; nothing that was there changes."""

from __future__ import annotations

from typing import Any


def to_version_9(document: dict[str, Any]) -> dict[str, Any]:
    """Nothing is known of pumps, and policy is the usual."""
    return {**document, "version": 9}
