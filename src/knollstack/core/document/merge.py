"""Two documents that grew from one, made one again: place by place, and by choice where both changed the same.

Rows with ids are the same row whatever stands before them; rows without ids are followed by their place while their
number is the same on all sides, else the list is one place.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from pydantic import BaseModel

from knollstack.core.base.findings import Words
from knollstack.core.document.compare import amount_words, is_one_decision, name_of_row, place_words
from knollstack.core.document.design import Design

Side = Literal["theirs", "mine"]


class Clash(BaseModel):
    """A place that both sides changed, each in its own way; `place` names rows by their ids: /strings/=s2/shoe_md_ft."""

    place: str
    subject: str
    before: Words
    theirs: Words
    mine: Words


class Merged(BaseModel):
    """The document made of both, not yet read; `left` are the clashes for which no side was chosen: theirs stands there."""

    document: dict[str, Any]
    from_theirs: int
    from_mine: int
    clashes: list[Clash]
    left: int


def plain(place: str) -> str:
    """A place as the fields are described by: the mark of an id stands for any row."""
    return re.sub(r"/=[^/]+", "/0", place)


class _Nothing:
    """Stands where a row or a value is not there."""


NOTHING = _Nothing()
_SETS = ("assumed", "hazards")
"""Lists in which order says nothing: each entry is a place of its own."""


@dataclass
class _Merge:
    choices: Mapping[str, Side]
    from_theirs: int = 0
    from_mine: int = 0
    left: int = 0
    clashes: list[Clash] = field(default_factory=list)

    def value(self, place: str, subject: str, base: Any, theirs: Any, mine: Any) -> Any:
        key = place.rsplit("/", 1)[-1]
        if theirs == mine:
            return theirs
        if not is_one_decision(place) and isinstance(theirs, dict) and isinstance(mine, dict):
            return self._dict(place, subject, base if isinstance(base, dict) else {}, theirs, mine)
        if isinstance(theirs, list) and isinstance(mine, list):
            merged = self._list(place, key, base if isinstance(base, list) else NOTHING, theirs, mine)
            if merged is not None:
                return merged
        if base == theirs:
            self.from_mine += 1
            return mine
        if base == mine:
            self.from_theirs += 1
            return theirs
        return self._clash(place, subject, base, theirs, mine)

    def _clash(self, place: str, subject: str, base: Any, theirs: Any, mine: Any) -> Any:
        words = [_words(place, value) for value in (base, theirs, mine)]
        self.clashes.append(Clash(place=place, subject=subject, before=words[0], theirs=words[1], mine=words[2]))
        choice = self.choices.get(place)
        self.left += choice is None
        return mine if choice == "mine" else theirs

    def _dict(self, place: str, subject: str, base: Any, theirs: Any, mine: Any) -> dict[str, Any]:
        names = [*theirs, *(n for n in mine if n not in theirs)]
        return {
            name: self.value(
                f"{place}/{name}",
                place_words(subject, plain(f"{place}/{name}")),
                base.get(name, NOTHING),
                theirs.get(name),
                mine.get(name),
            )
            for name in names
        }

    def _list(self, place: str, key: str, base: Any, theirs: list[Any], mine: list[Any]) -> list[Any] | None:
        known = base if base is not NOTHING else []
        if key in _SETS:
            return self._set(known, theirs, mine)
        if all(isinstance(row, dict) and "id" in row for row in (*known, *theirs, *mine)):
            return self._rows(place, key, known, theirs, mine)
        if base is not NOTHING and len(base) == len(theirs) == len(mine):
            return [
                self.value(f"{place}/{i}", name_of_row(key, theirs[i], i), base[i], theirs[i], mine[i])
                for i in range(len(theirs))
            ]
        return None

    def _set(self, base: list[Any], theirs: list[Any], mine: list[Any]) -> list[Any]:
        self.from_theirs += theirs != base
        self.from_mine += mine != base
        entries = [*base, *(v for v in theirs if v not in base)]
        entries += [v for v in mine if v not in entries]
        return [v for v in entries if (v in theirs and v in mine) or (v not in base)]

    def _rows(self, place: str, key: str, base: list[Any], theirs: list[Any], mine: list[Any]) -> list[Any]:
        of = [{row["id"]: row for row in side} for side in (base, theirs, mine)]
        merged = []
        for i, name in enumerate(_order([r["id"] for r in theirs], [r["id"] for r in mine])):
            b, t, m = (side.get(name, NOTHING) for side in of)
            at = next(row for row in (t, m) if row is not NOTHING)
            row = self.value(f"{place}/={name}", name_of_row(key, at, i), b, t, m)
            if row is not NOTHING:
                merged.append(row)
        return merged


def _order(theirs: list[str], mine: list[str]) -> list[str]:
    """Their order, each row of mine alone behind the one that it follows in mine."""
    order = list(theirs)
    for i, name in enumerate(mine):
        if name not in order:
            order.insert(order.index(mine[i - 1]) + 1 if i else 0, name)
    return order


def _words(place: str, value: Any) -> Words:
    if isinstance(value, _Nothing):
        return ("not there",)
    if isinstance(value, dict) and "id" in value:
        return ("there",)
    return amount_words(plain(place), value)


def merge(base: Design | None, theirs: Design, mine: Design, choices: Mapping[str, Side]) -> Merged:
    """Both documents in one; without a base every difference is a clash."""
    sides = [side.model_dump(mode="json") if side is not None else NOTHING for side in (base, theirs, mine)]
    work = _Merge(choices)
    document = work.value("", "", *sides)
    return Merged(
        document=document, from_theirs=work.from_theirs, from_mine=work.from_mine, clashes=work.clashes, left=work.left
    )
