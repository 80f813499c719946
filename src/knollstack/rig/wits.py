"""WITS level 0: records of lines between `&&` and `!!`, each line a four-digit code and its value.

    &&
    01083650.2
    0110 3650.2
    !!

The first two digits of a code name the record, the last two the item. Reading goes on whatever comes: a line that is none is
counted and left out, a record that is broken off by the next is dropped, and no line or record grows without bound.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

BEGIN, END = "&&", "!!"
MOST_LINE = 256
MOST_ITEMS = 400
_ITEM = re.compile(r"^(\d{4})(.*)$")


@dataclass
class Counts:
    """What came: whole records, lines, lines that are none of the protocol, records broken off."""

    records: int = 0
    lines: int = 0
    bad_lines: int = 0
    broken: int = 0


@dataclass
class Decoder:
    """Bytes as they come, in pieces of any size; `feed` gives the records that they complete."""

    counts: Counts = field(default_factory=Counts)
    _rest: bytes = b""
    _items: dict[str, str] | None = None
    _skipping: bool = False
    """Within a line that is too long."""

    def feed(self, data: bytes) -> Iterator[dict[str, str]]:
        whole = (self._rest + data).replace(b"\r", b"\n")
        *lines, self._rest = whole.split(b"\n")
        if len(self._rest) > MOST_LINE:
            self._skipping, self._rest = True, b""
        for line in lines:
            if self._skipping:
                self._skipping = False
                self._bad()
                continue
            yield from self._line(line)

    def _line(self, raw: bytes) -> Iterator[dict[str, str]]:
        text = raw.decode("ascii", errors="replace").replace("\0", "").strip()
        if not text:
            return
        self.counts.lines += 1
        if text == BEGIN:
            if self._items is not None:
                self.counts.broken += 1
            self._items = {}
        elif text == END:
            if self._items is None:
                self._bad(counted=True)
                return
            items, self._items = self._items, None
            self.counts.records += 1
            yield items
        else:
            self._item(text)

    def _item(self, text: str) -> None:
        match = _ITEM.match(text) if len(text) <= MOST_LINE else None
        if match is None or self._items is None or len(self._items) >= MOST_ITEMS:
            self._bad(counted=True)
            return
        self._items[match.group(1)] = match.group(2).strip()

    def _bad(self, counted: bool = False) -> None:
        self.counts.lines += not counted
        self.counts.bad_lines += 1


def encoded(items: Mapping[str, str]) -> bytes:
    """One record as it goes over the line."""
    lines = [BEGIN, *(f"{code}{value}" for code, value in items.items()), END]
    return ("\r\n".join(lines) + "\r\n").encode("ascii")


def number(text: str) -> float | None:
    """The value of an item; None where it is no number, or one that stands for none (−999.25, −9999, −8888)."""
    try:
        value = float(text)
    except ValueError:
        return None
    return None if value in NOTHING or value != value or abs(value) > MOST_VALUE else value


NOTHING = frozenset({-999.25, -9999.0, -9999.25, -8888.0, -999.0, -7777.0})
MOST_VALUE = 1e9


def each(decoder: Decoder, pieces: Iterable[bytes]) -> Iterator[dict[str, str]]:
    """The records of all pieces."""
    for piece in pieces:
        yield from decoder.feed(piece)
