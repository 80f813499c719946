"""A stock list from CSV and XLSX, and a workbook that is none."""

import io

import pytest
from openpyxl import Workbook

from knollstack.core.base.units import FIELD
from knollstack.core.document.design import Trajectory
from knollstack.core.document.faults import FaultyDesign
from tests.formats.helpers import preview, take

ROWS = [
    ["OD (in)", "Weight (lb/ft)", "Grade", "Connection", "Price per ft", "In stock (m)"],
    [9.625, 47.0, "L80", "BTC", 61.5, 1500.0],
    ["7", 29, "P110", "LTC", 48, None],
]


def workbook(rows, sheets=("Notes", "Stock")):
    book = Workbook()
    book.active.title = sheets[0]
    for row in rows:
        (book.create_sheet(sheets[1]) if sheets[1] not in book.sheetnames else book[sheets[1]]).append(row)
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


def test_a_workbook_is_read_like_a_pasted_block():
    """The first sheet with content, headers with their units: 1,500 m in stock is 4,921.26 ft."""
    text = workbook(ROWS)
    shown = preview("stock.xlsx", text, "stock")
    assert (shown.kind, shown.count, shown.header[0]) == ("XLSX", 2, "OD (in)")
    taken = take("stock.xlsx", text, "stock", shown.mapping, Trajectory(), FIELD)
    assert taken.rows[0] == {
        "od_in": 9.625,
        "weight_ppf": 47.0,
        "grade": "L80",
        "connection": "BTC",
        "price_per_ft": 61.5,
        "available_ft": pytest.approx(4921.26, abs=0.01),
    }
    assert taken.rows[1]["available_ft"] is None
    csv = "\n".join(";".join("" if c is None else str(c) for c in row) for row in ROWS)
    again = preview("stock.csv", csv, "stock")
    assert take("stock.csv", csv, "stock", again.mapping, Trajectory(), FIELD).rows == taken.rows


@pytest.mark.parametrize(
    ("text", "value"), [(b"not a workbook", "no workbook"), (b"PK no zip", "no workbook"), (None, "an empty workbook")]
)
def test_what_is_no_workbook_is_refused(text, value):
    with pytest.raises(FaultyDesign, match=value):
        preview("stock.xlsx", text if text is not None else workbook([]), "stock")


def test_a_price_that_cannot_be_read_refuses_the_whole_at_its_cell():
    rows = [*ROWS[:2], ["7", 29, "P110", "LTC", "call", 100]]
    text = workbook(rows)
    shown = preview("stock.xlsx", text, "stock")
    with pytest.raises(FaultyDesign, match="call") as refused:
        take("stock.xlsx", text, "stock", shown.mapping, Trajectory(), FIELD)
    assert refused.value.faults[0].path.startswith("/rows/1/price_per_ft")
