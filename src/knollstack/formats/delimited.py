"""Cells of a pasted block or a CSV file, whatever separates them, within bounds that no table of a well comes near."""

from __future__ import annotations

import csv
import io
import re

from knollstack.core.document.faults import Fault, FaultyDesign

MOST_ROWS, MOST_COLUMNS, MOST_CELLS, LONGEST_CELL, LONGEST_LINE = 100_000, 200, 2_000_000, 2_000, 20_000
LOOKED_AT = 200
"""Lines from which the separator is told."""
Cells = list[list[str]]


def _too_much(path: str, value: str, expected: str) -> FaultyDesign:
    return FaultyDesign([Fault(path=path, value=value, expected=expected)])


def delimiter_of(lines: list[str]) -> str | None:
    """Tab, semicolon or comma; None where blanks separate the columns."""
    text = "\n".join(lines)
    if "\t" in text:
        return "\t"
    if ";" in text:
        return ";"
    # numbers on both sides of blanks inside a cell: the commas are decimal signs
    spaced = " ".join(text.split(" "))
    if "," in text and not re.search(r"\d [-+]?\d+,\d", re.sub(r" {2,}", " ", spaced)):
        return ","
    return None


def cells_of(text: str) -> tuple[Cells, str | None]:
    """Cells of a text, and what separates them; raises FaultyDesign beyond the bounds."""
    lines = [line for line in text.lstrip("\ufeff").splitlines() if line.strip()]
    if len(lines) > MOST_ROWS:
        raise _too_much("", f"{len(lines):,} rows", f"at most {MOST_ROWS:,}")
    for i, line in enumerate(lines):
        if len(line) > LONGEST_LINE:
            raise _too_much(f"/rows/{i}", f"a line of {len(line):,} characters", f"at most {LONGEST_LINE:,}")
    delimiter = delimiter_of(lines[:LOOKED_AT])
    by_blanks = delimiter is None
    cells = [re.split(_blanks(lines), line.strip()) for line in lines] if by_blanks else _parted(lines, delimiter)
    cells = [[cell.strip() for cell in row] for row in cells]
    _check(cells)
    return cells, delimiter


def _blanks(lines: list[str]) -> str:
    """What parts cells where blanks do: two of them where some row has two, nothing where only a heading has any."""
    if any(re.search(r"\S\s{2,}\S", line.strip()) for line in lines):
        return r"\s{2,}"
    alone = len(lines) > 1 and not any(re.search(r"\s", line.strip()) for line in lines[1:])
    return r"\s{2,}" if alone else r"\s+"


def _parted(lines: list[str], delimiter: str | None) -> Cells:
    reader = csv.reader(io.StringIO("\n".join(lines)), delimiter=delimiter or ",")
    found: Cells = []
    try:
        for row in reader:
            found.append(row)
    except csv.Error as error:
        raise _too_much(f"/rows/{len(found)}", str(error), "a row of a table") from None
    return found


def _check(cells: Cells) -> None:
    count = 0
    for i, row in enumerate(cells):
        if len(row) > MOST_COLUMNS:
            raise _too_much(f"/rows/{i}", f"{len(row):,} columns", f"at most {MOST_COLUMNS}")
        longest = max((len(cell) for cell in row), default=0)
        if longest > LONGEST_CELL:
            raise _too_much(f"/rows/{i}", f"a cell of {longest:,} characters", f"at most {LONGEST_CELL:,}")
        count += len(row)
    if count > MOST_CELLS:
        raise _too_much("", f"{count:,} cells", f"at most {MOST_CELLS:,}")
