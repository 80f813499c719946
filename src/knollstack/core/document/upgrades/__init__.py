"""Older versions of the format brought up to the one read here, a version at a time.

Each upgrade is a pure function of a decoded document. How to write the next one stands in CONTRIBUTING.md.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from knollstack.core.document.design import VERSION
from knollstack.core.document.upgrades.ids import with_ids
from knollstack.core.document.upgrades.version_1 import to_version_2
from knollstack.core.document.upgrades.version_2 import to_version_3
from knollstack.core.document.upgrades.version_3 import to_version_4
from knollstack.core.document.upgrades.version_4 import to_version_5
from knollstack.core.document.upgrades.version_5 import to_version_6
from knollstack.core.document.upgrades.version_6 import to_version_7
from knollstack.core.document.upgrades.version_7 import to_version_8
from knollstack.core.document.upgrades.version_8 import to_version_9

UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: to_version_2,
    2: to_version_3,
    3: to_version_4,
    4: to_version_5,
    5: to_version_6,
    6: to_version_7,
    7: to_version_8,
    8: to_version_9,
}
"""From a version to the next."""


def upgraded(document: dict[str, Any]) -> dict[str, Any]:
    """A document of any known version in the form of today's, with ids where a row has none; not checked."""
    version = document.get("version")
    while isinstance(version, int) and version in UPGRADES:
        document = UPGRADES[version](document)
        version = document["version"]
    return with_ids(document) if version == VERSION else document
