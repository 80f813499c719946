"""Rows of a document from cells of text: what a person pastes or imports, with one fault a cell that cannot be read.

Nothing is taken unless every cell can be: a table with a fault gives no rows.
"""

from __future__ import annotations

import re
from typing import Any

from pydantic import BaseModel

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import DisplayUnit, UnitSet, table
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.formats.defused import undefused
from knollstack.formats.delimited import Cells, cells_of
from knollstack.formats.headers import Target
from knollstack.formats.targets import TARGETS, TargetColumn, may_be_none
from knollstack.formats.units_read import (
    decimal_sign,
    read_number,
    snapped_in,
    split_header,
    unit_named,
    uses_decimal_comma,
)

MOST_FAULTS = 50
_YES = {"yes", "y", "true", "1", "x", "✓"}
_WITH_UNIT = re.compile(r"^(.*[\d.,])\s*([^\d\s.,].*)$")
_NO = {"no", "n", "false", "0", "", "-"}


class Mapped(BaseModel):
    """A column of the target read from a column of the source, in a unit ('' for the person's own)."""

    key: str
    source: int
    unit: str = ""


class Sheet(BaseModel):
    """A source as cells of text, its first row apart where that is a header."""

    header: list[str]
    cells: Cells
    decimal_comma: bool


def read_sheet(text: str) -> Sheet:
    """A pasted block or a CSV file, its decimal sign told; a first row without a number is a header."""
    cells, delimiter = cells_of(text)
    cells = [[undefused(cell) for cell in row] for row in cells]
    comma = delimiter != "," and uses_decimal_comma(cell for row in cells for cell in row)
    has_header = (
        bool(cells) and not any(read_number(cell, comma) is not None for cell in cells[0]) and _is_header(cells)
    )
    sheet = Sheet(header=cells[0] if has_header else [], cells=cells[1:] if has_header else cells, decimal_comma=comma)
    if delimiter != ",":
        _check_signs(sheet)
    return sheet


def _check_signs(sheet: Sheet) -> None:
    """Decimal points beside decimal commas: raises FaultyDesign at the first row that disagrees with the rows before it."""
    first: tuple[str, str] | None = None
    for i, row in enumerate(sheet.cells):
        for cell in row:
            sign = decimal_sign(cell)
            if sign is None:
                continue
            if first is not None and sign != first[0]:
                value = f'"{cell}" beside "{first[1]}"'
                raise FaultyDesign(
                    [Fault(path=f"/rows/{i}", value=value, expected="one decimal sign in the whole table")]
                )
            first = first or (sign, cell)


def _is_header(cells: Cells) -> bool:
    """A first row of words is a header where numbers follow, or where it names columns."""
    named = {_plain(name) for columns in TARGETS.values() for c in columns for name in _names(c)}
    return any(_plain(split_header(cell)[0]) in named for cell in cells[0]) or (
        len(cells) > 1 and any(read_number(cell) is not None for cell in cells[1])
    )


def _names(column: TargetColumn) -> tuple[str, ...]:
    return (column.title.lower(), column.key.lower(), column.key.rsplit("_", 1)[0].lower(), *column.names)


def _plain(name: str) -> str:
    """A heading without its case, its punctuation and its runs of blanks."""
    return " ".join(re.sub(r"[.:,;_]+", " ", name).lower().split())


def guess(target: Target, header: list[str], first: str | None = None) -> list[Mapped]:
    """Which source column is which: by the header's names alone; without a header by position from `first` on."""
    columns = TARGETS[target]
    parts = [split_header(cell) for cell in header]
    names = [_plain(name) for name, _ in parts]
    found: list[Mapped] = []
    for column in columns:
        taken = {m.source for m in found}
        free = [i for i in range(len(parts)) if i not in taken]
        hit = next((i for rank in _names(column) for i in free if names[i] == _plain(rank)), None)
        if hit is None:  # a column headed by nothing but a unit of this quantity
            hit = next((i for i in free if parts[i][0] == "" and _is_unit_of(column, parts[i][1])), None)
        if hit is not None:
            found.append(Mapped(key=column.key, source=hit, unit=_known_unit(column, parts[hit][1])))
    if header:
        return found
    start = next((i for i, c in enumerate(columns) if c.key == first), 0)
    return [Mapped(key=c.key, source=i) for i, c in enumerate(columns[start:])]


def unclear(target: Target, sheet: Sheet, mapping: list[Mapped]) -> list[str]:
    """What of a block is left over by a mapping, by heading or by place: nothing of it may be filled in by itself.

    A column without a heading and without a value is none.
    """
    width = max((len(row) for row in [sheet.header, *sheet.cells]), default=0)
    taken = {m.source for m in mapping}
    left = []
    for i in range(width):
        heading = sheet.header[i] if i < len(sheet.header) else ""
        filled = any(i < len(row) and row[i] for row in sheet.cells)
        if i not in taken and (heading or filled):
            left.append(heading or f"column {i + 1}")
    return left


def _known_unit(column: TargetColumn, text: str) -> str:
    """The label of a unit named in a header, or the text as it stands where it is none of the quantity's."""
    if column.quantity is None or not text or not units_offered(column.quantity):
        return ""
    for quantity in _quantities(column.quantity):
        unit = unit_named(text, quantity)
        if unit is not None:
            return unit.unit
    return text


def _is_unit_of(column: TargetColumn, text: str) -> bool:
    return column.quantity is not None and any(unit_named(text, q) for q in _quantities(column.quantity))


def _quantities(quantity: Quantity) -> tuple[Quantity, ...]:
    """A mud weight may also come as the pressure of its column, with the depth beside it."""
    return ("emw", "pressure") if quantity == "emw" else (quantity,)


def units_offered(quantity: Quantity) -> list[str]:
    """Labels of every unit in which a column of a quantity may come."""
    labels = [o.unit for q in _quantities(quantity) for o in table()[q].options if o.unit]
    return list(dict.fromkeys(labels))


class _Reader:
    def __init__(self, target: Target, mapping: list[Mapped], decimal_comma: bool, units: UnitSet) -> None:
        columns = {c.key: c for c in TARGETS[target]}
        self.nullable = {key for key in columns if may_be_none(target, key)}
        self.columns = [(columns[m.key], m) for m in mapping if m.key in columns]
        self.comma, self.units = decimal_comma, units
        self.faults: list[Fault] = []
        self.as_pressure: dict[str, DisplayUnit] = {}
        self.unit_of = {c.key: self._unit(c, m) for c, m in self.columns if c.quantity}

    def _unit(self, column: TargetColumn, mapped: Mapped) -> DisplayUnit:
        quantity = column.quantity
        assert quantity is not None
        if not mapped.unit:
            return self.units.of(quantity)
        for candidate in _quantities(quantity):
            unit = unit_named(mapped.unit, candidate)
            if unit is not None:
                if candidate != quantity:
                    self.as_pressure[column.key] = unit
                return unit
        expected = "one of " + ", ".join(units_offered(quantity))
        self.faults.append(Fault(path=f"/columns/{column.key}", value=f'unit "{mapped.unit}"', expected=expected))
        return self.units.of(quantity)

    def row(self, index: int, cells: list[str]) -> dict[str, Any]:
        row: dict[str, Any] = {}
        for column, mapped in self.columns:
            text = cells[mapped.source] if mapped.source < len(cells) else ""
            value = self._value(column, text, f"/rows/{index}/{column.key}")
            name, _, entry = column.key.partition(":")
            if entry:
                row.setdefault(name, [])
                row[name] += [entry] if value else []
            elif value is not _ABSENT:
                row[name] = value
        for key in self.as_pressure:
            depth = row.get("tvd_ft")
            if isinstance(row.get(key), float) and isinstance(depth, float):
                if depth <= 0:
                    self._fault(f"/rows/{index}/tvd_ft", f"{depth:g}", "a depth below 0, to turn a pressure into EMW")
                else:
                    row[key] = row[key] / (PSI_PER_PPG_FT * depth)
        return row

    def _fault(self, path: str, value: str, expected: str) -> None:
        self.faults.append(Fault(path=path, value=value, expected=expected))

    def _value(self, column: TargetColumn, text: str, path: str) -> Any:
        if column.kind == "text":
            return None if text == "" and column.key in self.nullable else text[: column.most]
        if column.kind == "flag":
            if text == "" and column.key in self.nullable:
                return None
            if text.lower() in _YES | _NO:
                return text.lower() in _YES
            self._fault(path, _quoted(text), "yes or no")
            return _ABSENT
        if column.kind == "choice":
            if text == "":
                return _ABSENT
            hit = next((o for o in column.options if o.lower() == text.lower()), None)
            if hit is None:
                self._fault(path, _quoted(text), "one of " + ", ".join(column.options))
            return hit if hit is not None else _ABSENT
        if text == "" and not column.required:
            return None
        number, unit = read_number(text, self.comma), self.unit_of[column.key]
        if number is None:
            number, unit = self._with_unit(column, text, unit)
        if number is None:
            self._fault(path, _quoted(text), f"a number in {unit.unit}" if unit.unit else "a number")
            return _ABSENT
        value = float(f"{(number - unit.offset) / unit.factor:.12g}")
        if column.key not in self.as_pressure and (expected := self._beyond(column, value, unit)):
            self._fault(path, _quoted(text), expected)
            return _ABSENT
        if column.whole:
            return int(value)
        return snapped_in(value) if column.quantity == "size" and unit.unit != "in" else value

    def _beyond(self, column: TargetColumn, value: float, unit: DisplayUnit) -> str:
        """What was expected of a number outside of its bounds; nothing within them."""
        if column.whole and value != int(value):
            return "a whole number"
        for bound, words, out in (
            (column.low, "at least", column.low is not None and value < column.low),
            (column.high, "at most", column.high is not None and value > column.high),
        ):
            if out and bound is not None:
                return f"{words} {bound * unit.factor + unit.offset:.6g} {unit.unit}".rstrip()
        return ""

    def _with_unit(self, column: TargetColumn, text: str, usual: DisplayUnit) -> tuple[float | None, DisplayUnit]:
        """A number with its own unit behind it, "0 m" or "5 %"."""
        match = _WITH_UNIT.match(text.strip())
        unit = unit_named(match.group(2), column.quantity) if match and column.quantity else None
        return (read_number(match.group(1), self.comma), unit) if match and unit else (None, usual)


_ABSENT = object()


def _quoted(text: str) -> str:
    if text == "":
        return "nothing"
    return f'"{text}"' if len(text) <= 40 else f'"{text[:37]}…"'


def read_rows(
    target: Target, sheet: Sheet, mapping: list[Mapped], units: UnitSet, whole: bool = True
) -> list[dict[str, Any]]:
    """Rows of the document in core units; raises FaultyDesign with a fault a cell that cannot be read.

    `whole` rows need every required column; others are laid over rows that have them.
    """
    mapped = {m.key for m in mapping}
    missing = [c for c in TARGETS[target] if whole and c.required and c.key not in mapped]
    reader = _Reader(target, mapping, sheet.decimal_comma, units)
    reader.faults += [
        Fault(path=f"/columns/{c.key}", value="no column", expected=f"a column for {c.title}") for c in missing
    ]
    rows = [reader.row(i, cells) for i, cells in enumerate(sheet.cells)]
    if reader.faults:
        left = len(reader.faults) - MOST_FAULTS
        more = [Fault(path="/rows", value=f"{left} more faults", expected="none")] if left > 0 else []
        raise FaultyDesign(reader.faults[:MOST_FAULTS] + more)
    return rows
