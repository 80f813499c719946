"""XLSX workbooks by openpyxl: the first sheet that holds anything, as text that reads like a pasted block.

What is in the archive is bounded before it is read; a workbook that cannot be read is refused with the sheet and the cell.
"""

from __future__ import annotations

import io
import math
import zipfile
from datetime import date, datetime
from typing import Any
from xml.etree.ElementTree import ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import iterparse
from openpyxl import load_workbook

from knollstack.core.document.faults import Fault, FaultyDesign

MOST_ROWS, MOST_COLUMNS = 20_000, 60
MOST_PARTS = 500
MOST_BYTES = {"xl/sharedStrings.xml": 12_000_000, "xl/styles.xml": 3_000_000, "": 40_000_000}
"""Of a part unpacked, by its name; of all parts together."""
_CELL = "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}c"
_VALUE = "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}v"


def is_xlsx(name: str, data: bytes) -> bool:
    """A workbook by its name, or by the bytes that every archive begins with."""
    return name.lower().endswith((".xlsx", ".xlsm")) or data.startswith(b"PK\x03\x04")


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.12g}"
    if isinstance(value, (datetime, date)):
        return value.isoformat()
    return " ".join(str(value).split())


def _faulty(value: str, expected: str) -> FaultyDesign:
    return FaultyDesign([Fault(path="", value=value, expected=expected)])


def read_xlsx(data: bytes) -> str:
    """Rows of the first sheet with content, cells between tabs; raises FaultyDesign."""
    try:
        _check_size(data)
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
    except FaultyDesign:
        raise
    except Exception as error:  # a damaged workbook leads anywhere
        raise _faulty("a file that is no workbook", "an XLSX workbook") from error
    for sheet in book.worksheets:
        try:
            lines = _lines(sheet)
        except Exception as error:
            at = _bad_cell(data, sheet)
            raise _faulty(f'sheet "{sheet.title}", {at}: damaged', "a workbook that opens whole") from error
        if lines:
            return "\n".join(lines)
    raise _faulty("an empty workbook", "a sheet with at least one row")


def _check_size(data: bytes) -> None:
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        parts = archive.infolist()
    if len(parts) > MOST_PARTS:
        raise _faulty(f"a workbook of {len(parts):,} parts", f"at most {MOST_PARTS:,}")
    for part in parts:
        most = MOST_BYTES.get(part.filename, MOST_BYTES[""])
        if part.file_size > most:
            value = f"{part.filename} of {part.file_size / 1e6:.0f} MB unpacked"
            raise _faulty(value, f"at most {most / 1e6:.0f} MB")
    whole = sum(part.file_size for part in parts)
    if whole > MOST_BYTES[""]:
        raise _faulty(f"a workbook of {whole / 1e6:.0f} MB unpacked", f"at most {MOST_BYTES[''] / 1e6:.0f} MB")


def _lines(sheet: Any) -> list[str]:
    rows = (
        [_cell(value) for value in row]
        for row in sheet.iter_rows(max_row=MOST_ROWS, max_col=MOST_COLUMNS, values_only=True)
    )
    return ["\t".join(row).rstrip("\t") for row in rows if any(row)]


def _bad_cell(data: bytes, sheet: Any) -> str:
    """The first cell whose value is not what its kind says, or where the sheet breaks off."""
    last, path = "", str(getattr(sheet, "_worksheet_path", ""))
    strings = len(getattr(sheet, "_shared_strings", ()))
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive, archive.open(path.lstrip("/")) as source:
            for _, element in iterparse(source):
                if element.tag == _CELL:
                    last = element.get("r") or last
                    if not _is_whole(element, strings):
                        return f"cell {last}"
                    element.clear()
    except (ParseError, DefusedXmlException, KeyError, OSError, zipfile.BadZipFile, EOFError, ValueError):
        pass
    return f"after cell {last}" if last else "before its first cell"


def _is_whole(cell: Any, strings: int) -> bool:
    kind, held = cell.get("t", "n"), cell.find(_VALUE)
    text = held.text if held is not None else None
    if text is None:
        return True
    try:
        if kind == "s":
            return 0 <= int(text) < strings
        return kind not in ("n", "d") or kind == "d" or math.isfinite(float(text))
    except ValueError:
        return False
