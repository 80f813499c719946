"""A feed as CSV: a line of headers, then a line a reading; over a connection as over a file.

Headers name channels by what people call them, with a unit in parentheses where it is not the field's. A line that cannot be
read is counted and left out.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime

from knollstack.core.base.units import table
from knollstack.core.logbook.channels import Channel
from knollstack.rig.channels import ROWS, TIMES, Reading
from knollstack.rig.wits import Counts, number

MOST_LINE, MOST_SECONDS = 4_096, 10**11
_HEADER = re.compile(r"^(.*?)\s*(?:[(\[,]\s*([^)\]]*)[)\]]?)?$")


@dataclass(frozen=True)
class Column:
    channel: Channel
    factor: float
    offset: float


@dataclass
class RowDecoder:
    """Bytes as they come; `feed` gives the readings of the lines that they complete."""

    now_s: int = 0
    counts: Counts = field(default_factory=Counts)
    _rest: bytes = b""
    _columns: dict[int, Column] | None = None
    _time: int | None = None

    def feed(self, data: bytes) -> Iterator[Reading]:
        *lines, self._rest = (self._rest + data).replace(b"\r\n", b"\n").split(b"\n")
        self._rest = b"" if len(self._rest) > MOST_LINE else self._rest
        for raw in lines:
            text = raw.decode("utf-8", errors="replace").replace("\0", "").strip("\ufeff \t\r")
            if not text:
                continue
            self.counts.lines += 1
            reading = self._line(text) if len(text) <= MOST_LINE else None
            if reading is not None:
                self.counts.records += 1
                yield reading

    @property
    def known(self) -> tuple[Channel, ...]:
        """Channels that the headers name."""
        return tuple(c.channel for c in (self._columns or {}).values())

    def _line(self, text: str) -> Reading | None:
        cells = next(csv.reader([text], delimiter=_separator(text)), [])
        if self._columns is None or _is_header(cells):
            self._columns, self._time = _columns(cells)
            self.counts.bad_lines += not self._columns
            return None
        values: dict[Channel, float] = {}
        for i, column in self._columns.items():
            value = number(cells[i]) if i < len(cells) and cells[i].strip() else None
            if value is not None:
                values[column.channel] = (value - column.offset) / column.factor
        at = _seconds(cells[self._time]) if self._time is not None and self._time < len(cells) else self.now_s
        if not values or at is None:
            self.counts.bad_lines += 1
            return None
        return Reading(at, values)


def _separator(text: str) -> str:
    return max((",", ";", "\t"), key=text.count)


def _is_header(cells: list[str]) -> bool:
    return bool(cells) and sum(_channel(c) is not None or _named(c)[0] in TIMES for c in cells) * 2 > len(cells)


def _named(cell: str) -> tuple[str, str]:
    match = _HEADER.match(cell.strip().lower().replace("_", " "))
    return (match.group(1).strip(), (match.group(2) or "").strip()) if match else ("", "")


def _channel(cell: str) -> Column | None:
    name, unit = _named(cell)
    for channel, row in ROWS.items():
        if name in (*row.headers, row.title.lower(), channel.replace("_", " ")):
            options = table()[row.quantity].options
            found = next((o for o in options if unit and unit in (o.unit.lower(), *map(str.lower, o.spellings))), None)
            if channel == "hook_lbf" and unit in ("klbf", "klb", "kips"):
                return Column(channel, 1 / 1_000, 0.0)
            if unit and found is None:
                return None
            return Column(channel, found.factor if found else 1.0, found.offset if found else 0.0)
    return None


def _columns(cells: list[str]) -> tuple[dict[int, Column], int | None]:
    found = {i: column for i, cell in enumerate(cells) if (column := _channel(cell)) is not None}
    time = next((i for i, cell in enumerate(cells) if _named(cell)[0] in TIMES), None)
    return found, time


def _seconds(text: str) -> int | None:
    """A time of the rig's clock, or a number of seconds since 1970."""
    if text.strip().isdecimal():
        return int(text) if int(text) < MOST_SECONDS else None
    try:
        at = datetime.fromisoformat(text.strip().removesuffix("Z"))
    except ValueError:
        return None
    return int(at.replace(tzinfo=UTC).timestamp()) if at.tzinfo is None else int(at.timestamp())
