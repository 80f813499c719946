"""LAS 2.0 files by lasio: curves as a sheet of text cells, null values empty, depths rising."""

from __future__ import annotations

import io
from typing import Any

import lasio
import numpy as np

from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.formats.cells import Sheet


def is_las(name: str, text: str) -> bool:
    return name.lower().endswith(".las") or text.lstrip().upper().startswith("~V")


def read_las(text: str) -> tuple[Sheet, list[str]]:
    """The curves of a LAS file, and in words what was done with them; raises FaultyDesign where it is none."""
    try:
        las: Any = lasio.read(io.StringIO(text), engine="normal")
        data = np.asarray(las.data, dtype=float)
    except Exception as error:  # lasio raises whatever the line at hand leads to
        raise _refused(str(error).splitlines()[0] if str(error) else type(error).__name__) from None
    if data.ndim != 2 or data.shape[0] < 1 or data.shape[1] < 2:
        raise _refused("no curve with data")
    notes = [f"{data.shape[0]:,} samples of {data.shape[1] - 1} curves, null value {_null(las)}"]
    if np.nansum(np.diff(data[:, 0])) < 0:
        data = data[::-1]
        notes.append("the index runs upward and was reversed")
    header = [f"{curve.mnemonic} ({curve.unit})" if curve.unit else str(curve.mnemonic) for curve in las.curves]
    cells = [["" if np.isnan(value) else repr(float(value)) for value in row] for row in data]
    return Sheet(header=header, cells=cells, decimal_comma=False), notes


def _null(las: Any) -> str:
    item = las.well.get("NULL") if hasattr(las.well, "get") else None
    return str(item.value) if item is not None and item.value != "" else "not given"


def _refused(why: str) -> FaultyDesign:
    return FaultyDesign(
        [Fault(path="", value=why[:200], expected="a LAS 2.0 file with an index and at least one curve")]
    )
