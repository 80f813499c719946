"""XLSX workbooks by openpyxl: the first sheet that holds anything, as text that reads like a pasted block."""

from __future__ import annotations

import base64
import binascii
import io
import zipfile
from datetime import date, datetime

from openpyxl import load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from knollstack.core.document.faults import Fault, FaultyDesign

MOST_ROWS, MOST_COLUMNS, MOST_BYTES = 20_000, 60, 60_000_000


def is_xlsx(name: str) -> bool:
    return name.lower().endswith((".xlsx", ".xlsm"))


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


def read_xlsx(encoded: str) -> str:
    """Rows of the first sheet with content, cells between tabs, from a workbook in base64; raises FaultyDesign."""
    try:
        data = base64.b64decode(encoded, validate=True)
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            unpacked = sum(item.file_size for item in archive.infolist())
        if unpacked > MOST_BYTES:
            raise _faulty(f"a workbook of {unpacked / 1e6:.0f} MB unpacked", f"at most {MOST_BYTES / 1e6:.0f} MB")
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        for sheet in book.worksheets:
            rows = [
                [_cell(value) for value in row]
                for row in sheet.iter_rows(max_row=MOST_ROWS, max_col=MOST_COLUMNS, values_only=True)
            ]
            lines = ["\t".join(row).rstrip("\t") for row in rows if any(row)]
            if lines:
                return "\n".join(lines)
    except (binascii.Error, zipfile.BadZipFile, InvalidFileException, KeyError, ValueError, OSError) as error:
        if isinstance(error, FaultyDesign):
            raise
        raise _faulty("a file that is no workbook", "an XLSX workbook") from error
    raise _faulty("an empty workbook", "a sheet with at least one row")
