"""A table of a document as CSV, in the units of a person; what is written can be imported again as it was."""

from __future__ import annotations

import csv
import io
from typing import Any

from knollstack.core.base.units import UnitSet
from knollstack.core.document.design import Design
from knollstack.formats.defused import defused
from knollstack.formats.headers import Target
from knollstack.formats.targets import TARGETS, TargetColumn, place_of


def rows_of(design: Design, target: Target) -> list[dict[str, Any]]:
    """The rows of a table; of a table that every string has, those of all strings in turn."""
    found: list[Any] = [design.model_dump(mode="json")]
    for key in place_of(target).split("/")[1:]:
        found = [part for node in found for part in (node if key == "*" else [node[key]])]
    return [row for rows in found for row in rows]


def write_table(design: Design, target: Target, units: UnitSet) -> str:
    """A table with a header of titles and units."""
    columns = TARGETS[target]
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow([_title(column, units) for column in columns])
    writer.writerows([[_cell(column, row, units) for column in columns] for row in rows_of(design, target)])
    return text.getvalue()


def _title(column: TargetColumn, units: UnitSet) -> str:
    unit = units.of(column.quantity).unit if column.quantity else ""
    return f"{column.title} ({unit})" if unit else column.title


def _cell(column: TargetColumn, row: dict[str, Any], units: UnitSet) -> str:
    name, _, entry = column.key.partition(":")
    value = row[name]
    if entry:
        return "yes" if entry in value else "no"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if value is None:
        return ""
    if column.quantity is None:
        return defused(value) if isinstance(value, str) else str(value)
    unit = units.of(column.quantity)
    return f"{value * unit.factor + unit.offset:.10g}"
