"""What the strings of a well take from a limited stock."""

from __future__ import annotations

from collections.abc import Iterable

from knollstack.core.catalogue.own_pipes import PipeKey
from knollstack.core.program.section import Section


def taken_ft(sections: Iterable[Section]) -> dict[PipeKey, float]:
    """Length [ft] of each pipe of limited length in some sections."""
    taken: dict[PipeKey, float] = {}
    for section in sections:
        if section.pipe.available_ft is not None:
            taken[section.pipe.key] = taken.get(section.pipe.key, 0.0) + section.length_ft
    return taken
