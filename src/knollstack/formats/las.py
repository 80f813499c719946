"""LAS files of version 1.2, 2 and 3 by lasio: curves as a sheet of text cells, null values empty, depths rising."""

from __future__ import annotations

import csv
import io
import math
import re
from typing import Any

import lasio
import numpy as np

from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.formats.cells import Sheet

MOST_HEADER_LINES, LONGEST_HEADER_LINE, MOST_CURVES, LONGEST_LINE = 4_000, 2_000, 500, 20_000
MOST_LINES = 400_000
_NULLS = {"", "null", "nan", "nil", "none", "err", "error", "na", "n/a", "inf", "-inf", "absent", "missing"}
_BY_COMMAS = re.compile(r"^[ \t]{0,20}DLM[ \t]{0,20}\.[ \t]{0,60}(COMMA)", re.MULTILINE | re.IGNORECASE)
_DASHES = re.compile(r"^[-.*#]+$|^-?1\.#\w+$")


def is_las(name: str, text: str) -> bool:
    return name.lower().endswith(".las") or text.lstrip()[:200].upper().startswith("~V")


def read_las(text: str) -> tuple[Sheet, list[str]]:
    """The curves of a LAS file, and in words what was done with them; raises FaultyDesign where it is none."""
    _check(text)
    try:
        las, curves = _curves(text)
        if _BY_COMMAS.search(text) and not _is_parted(curves):
            las, curves = _curves(_by_tabs(text))
    except Exception as error:  # lasio raises whatever the line at hand leads to
        raise _refused(_said(error)) from None
    count = len(curves[0][1]) if curves else 0
    if count < 1 or any(data.ndim != 1 or len(data) != count for _, data in curves):
        raise _refused("no curve with data")
    if len(curves) < 2:
        raise _refused(f"one column alone, {curves[0][0]}")
    columns = [_column(data, _null(las)) for _, data in curves]
    if sum(any(_is_number(cell) for cell in column) for column in columns) < 2:
        raise _refused("no index and curve of numbers")
    cells = [list(row) for row in zip(*columns, strict=True)]
    notes = [f"{count:,} samples of {len(curves) - 1} curves, null value {_null(las) or 'not given'}"]
    index = [float(cell) for cell in columns[0] if _is_number(cell)]
    if len(index) > 1 and index[-1] < index[0]:
        cells.reverse()
        notes.append("the index runs upward and was reversed")
    return Sheet(header=[title for title, _ in curves], cells=cells, decimal_comma=False), notes


def _check(text: str) -> None:
    """Bounds of a header, before anything is made of it."""
    lines = text.splitlines()
    if len(lines) > MOST_LINES:
        raise _refused(f"{len(lines):,} lines; at most {MOST_LINES:,}")
    data = next((i for i, line in enumerate(lines) if line.lstrip().upper().startswith("~A")), len(lines))
    curves, in_curves = 0, False
    for i, line in enumerate(lines):
        longest = LONGEST_HEADER_LINE if i < data else LONGEST_LINE
        if len(line) > longest:
            raise _refused(f"line {i + 1} has {len(line):,} characters; at most {longest:,}")
        if i < data and line.startswith("~"):
            in_curves = line.upper().startswith("~C")
        elif i < data and in_curves and line.strip() and not line.startswith("#"):
            curves += 1
    if curves > MOST_CURVES:
        raise _refused(f"{curves:,} curves; at most {MOST_CURVES:,}")
    if min(data, len(lines)) > MOST_HEADER_LINES and data < len(lines):
        raise _refused(f"{data:,} lines of header; at most {MOST_HEADER_LINES:,}")


def _curves(text: str) -> tuple[Any, list[tuple[str, Any]]]:
    """The file, and its curves by their titles."""
    las: Any = lasio.read(io.StringIO(text), engine="normal", ignore_header_errors=True)
    return las, [(f"{c.mnemonic} ({c.unit})" if c.unit else str(c.mnemonic), np.asarray(c.data)) for c in las.curves]


def _is_parted(curves: list[tuple[str, Any]]) -> bool:
    """Whether some curve beside the index holds anything: else all stood in one column."""
    return any(cell for _, data in curves[1:] for cell in _column(data, ""))


def _by_tabs(text: str) -> str:
    """Data that commas part, parted by tabs, which leave no doubt about decimal signs."""
    mark = _BY_COMMAS.search(text)
    if mark is None:
        return text
    lines, in_data = (text[: mark.start(1)] + "TAB" + text[mark.end(1) :]).splitlines(), False
    for i, line in enumerate(lines):
        if line.startswith("~"):
            in_data = line[1:2].upper() == "A"
        elif in_data and "," in line:
            lines[i] = "\t".join(cell.strip() for cell in next(csv.reader([line])))
    return "\n".join(lines)


def _column(data: Any, null: str) -> list[str]:
    """A curve as cells: numbers, texts, and nothing for what stands for no value."""
    if np.issubdtype(data.dtype, np.number):
        return ["" if not math.isfinite(value) else repr(float(value)) for value in data.tolist()]
    return [_value(str(value).strip().strip('"'), null) for value in data.tolist()]


def _value(text: str, null: str) -> str:
    bare = text.strip("()").lower()
    if bare in _NULLS or _DASHES.match(text):
        return ""
    if not _is_number(text):
        return text
    same = _is_number(null) and float(text) == float(null)
    return "" if same else repr(float(text))


def _is_number(text: str) -> bool:
    try:
        return math.isfinite(float(text))
    except ValueError:
        return False


def _null(las: Any) -> str:
    item = las.well.get("NULL") if hasattr(las.well, "get") else None
    return str(item.value) if item is not None and item.value != "" else ""


def _said(error: Exception) -> str:
    """The first line of what went wrong, without the reader's quotes."""
    text = str(error).strip().strip("'\"")
    return text.splitlines()[0] if text else type(error).__name__


def _refused(why: str) -> FaultyDesign:
    return FaultyDesign([Fault(path="", value=why[:200], expected="a LAS file with an index and at least one curve")])
