"""The list of materials as CSV and as a workbook, with the same columns, so that either is read back alike."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.runsheet.results import MaterialRow, SheetDetail
from knollstack.formats.defused import defused

WIDTHS = (20, 12, 46, 11, 9, 9, 8, 14, 10, 12, 12, 12, 12, 14, 30)


def columns(units: UnitSet) -> list[str]:
    mass = units.of("mass").unit
    return [
        "Kind",
        "String",
        "Item",
        "Quantity",
        "Spare",
        "Total",
        "Unit",
        f"Weight ({mass})",
        "Lead time (d)",
        "Needed on day",
        "Needed on",
        "Order by",
        "Ordered on",
        "Price each",
        "Cost",
        "Key",
    ]


Cell = str | float | None


def _cells(row: MaterialRow, units: UnitSet) -> list[Cell]:
    mass = units.of("mass")
    order = row.order_by or (f"day {row.order_day:.0f}" if row.order_day is not None else None)
    return [
        row.kind,
        defused(plain(row.section, units)) or None,
        defused(plain(row.what, units)),
        round(row.quantity, 1),
        round(row.spare, 1),
        round(row.quantity + row.spare, 1),
        row.unit,
        None if row.weight_lb is None else round(row.weight_lb * mass.factor, mass.decimals),
        row.lead_days,
        None if row.needed_day is None else round(row.needed_day, 1),
        row.needed_on or None,
        order,
        row.ordered or None,
        row.price,
        None if row.cost is None else round(row.cost, 2),
        defused(row.key),
    ]


def _text(cell: Cell) -> str:
    if cell is None:
        return ""
    return f"{cell:.10g}" if isinstance(cell, float) else cell


def rows_of(detail: SheetDetail, units: UnitSet) -> Iterator[list[Cell]]:
    return (_cells(row, units) for row in detail.materials)


def write_materials_csv(detail: SheetDetail, units: UnitSet) -> str:
    """One item a row."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns(units))
    writer.writerows([_text(cell) for cell in row] for row in rows_of(detail, units))
    return out.getvalue()


def write_materials_xlsx(name: str, detail: SheetDetail, units: UnitSet) -> bytes:
    """One item a row, its heading frozen; numbers as numbers."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = "Materials"
    book.properties.title = f"{name}: materials"
    sheet.append(columns(units))
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for row in rows_of(detail, units):
        sheet.append(row)
    for k, width in enumerate(WIDTHS, start=1):
        sheet.column_dimensions[get_column_letter(k)].width = width
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
