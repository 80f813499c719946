"""The land demo's sheet, edited."""

import copy
import json
from functools import cache

from knollstack.demo import documents
from tests.helpers import Run, run


@cache
def _texts() -> list[str]:
    return documents()


def demo_well(which: int = 1):
    """A demo well whose sheet nobody has touched."""
    document = json.loads(_texts()[which])
    document["runsheet"] = {"spud": document.get("runsheet", {}).get("spud", "")}
    return document


def with_sheet(document=None, **parts) -> dict:
    """A document with parts of its run sheet."""
    held = copy.deepcopy(document if document is not None else demo_well())
    held["runsheet"] = held.get("runsheet", {}) | parts
    return held


def edits(*rows) -> list[dict]:
    return [{"id": f"e{k}", **row} for k, row in enumerate(rows, start=1)]


def keys(judged: Run) -> list[str]:
    return [line.key for line in judged.sheet().lines]


def broken(document) -> list[tuple[str, str, str]]:
    return [(b.key, b.rule.name, b.why) for b in run(document).sheet().broken]


def line_of(judged: Run, key: str):
    return next(line for line in judged.sheet().lines if line.key == key)
