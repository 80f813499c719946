"""Materials and calendar on their way out: each row in a person's units, each open order and test on its day."""

import csv
import io
from datetime import date, timedelta

import pytest
from icalendar import Calendar
from openpyxl import load_workbook

from knollstack.core.base.units import UnitSet, plain
from knollstack.formats.calendar import MOST_SUMMARY, write_calendar
from knollstack.formats.materials import columns, write_materials_csv, write_materials_xlsx
from tests.core.runsheet.wells import demo_well, edits, with_sheet
from tests.helpers import run

SAVED = "2026-11-28T09:00:00+00:00"


def rows_of(document, units):
    text = write_materials_csv(run(document).detail(), units)
    return {row["Key"]: row for row in csv.DictReader(io.StringIO(text))}


def events_of(document, units=None, name="Harrow Fen 3"):
    text = write_calendar(name, 7, run(document).detail(), units or UnitSet(), SAVED)
    return {str(e["uid"]): e for e in Calendar.from_ical(text).walk("VEVENT")} if text else {}


@pytest.mark.parametrize("which", [1, 2, 3])
@pytest.mark.parametrize("system", ["field", "metric"])
def test_every_item_is_written_with_its_numbers(which, system):
    document, units = demo_well(which), UnitSet(system)
    detail, found = run(document).detail(), rows_of(document, units)
    assert list(found) == [item.key for item in detail.materials]
    mass = units.of("mass")
    for item in detail.materials:
        row = found[item.key]
        assert row["Item"] == plain(item.what, units)
        total = float(row["Quantity"]) + float(row["Spare"])
        assert float(row["Total"]) == pytest.approx(total, abs=0.11)
        weight = row[f"Weight ({mass.unit})"]
        assert (weight == "") == (item.weight_lb is None)
        if weight:
            half = 0.51 * 10.0**-mass.decimals
            assert float(weight) == pytest.approx(item.weight_lb * mass.factor, abs=half)
        if item.order_by and item.lead_days is not None:
            needed = date.fromisoformat(row["Needed on"])
            assert date.fromisoformat(row["Order by"]) == needed - timedelta(days=item.lead_days)


def test_the_workbook_has_the_columns_of_the_table_and_numbers_as_numbers():
    document, units = demo_well(), UnitSet()
    book = load_workbook(io.BytesIO(write_materials_xlsx("Harrow Fen 3", run(document).detail(), units)))
    head, *body = book.active.values
    assert list(head) == columns(units)
    at = list(head).index("Total")
    assert all(isinstance(row[at], int | float) for row in body)
    assert len(body) == len(rows_of(document, units))


def test_words_of_a_person_do_not_begin_a_formula():
    document = demo_well()
    document["pipes"] = [
        {"od_in": 7.0, "weight_ppf": 32.0, "wall_in": 0.453, "grade": "=CMD", "yield_psi": 110_000.0}
        | {"connection": "@LTC", "coupling_od_in": 7.656, "joint_lbf": 900_000.0, "joint_psi": 12_000.0}
    ]
    document["strings"][3]["pipe"] = {"weight_ppf": 32.0, "grade": "=CMD", "connection": "@LTC"}
    for row in rows_of(document, UnitSet()).values():
        assert not any(cell.startswith(("=", "@", "+", "\t")) for cell in row.values()), row


def test_what_is_ordered_done_or_crossed_out_is_not_in_the_calendar():
    whole = events_of(demo_well())
    keys = [k.removeprefix("7-").removesuffix("@knollstack") for k in whole]
    order = next(k.removeprefix("order-") for k in keys if k.startswith("order-"))
    tests = [k.removeprefix("step-") for k in keys if k.startswith("step-")]
    done, crossed = tests[0], next(k for k in tests if k.endswith("/cup"))
    hand = edits({"step": done, "done": True, "done_by": "A. Hand"}, {"step": crossed, "crossed": True})
    placed = [{"item": order, "ordered": "2026-12-01"}]
    left = events_of(with_sheet(edits=hand, orders=placed))
    gone = {f"7-order-{order}@knollstack", f"7-step-{done}@knollstack", f"7-step-{crossed}@knollstack"}
    assert whole.keys() - left.keys() == gone
    assert left.keys() <= whole.keys()


def test_an_event_says_what_when_and_who_signs():
    detail, found = run(demo_well()).detail(), events_of(demo_well())
    line = next(x for x in detail.lines if x.key == "s3/leak-off")
    event = found["7-step-s3/leak-off@knollstack"]
    assert str(event["summary"]).startswith("Harrow Fen 3: Leak-off test at the 13 3/8 in shoe")
    assert len(str(event["summary"])) <= MOST_SUMMARY
    assert event["dtstart"].dt == date.fromisoformat(line.date)
    assert f"Step {line.number}. Signed by {line.signs}." in str(event["description"])


def test_a_long_name_leaves_a_summary_that_can_be_read():
    found = events_of(demo_well(), name="A well of a name without end " * 20)
    assert found
    assert all(len(str(event["summary"])) <= MOST_SUMMARY for event in found.values())


def test_without_dates_there_is_no_calendar_and_orders_count_in_days():
    document = demo_well()
    document["runsheet"] = {"spud": ""}
    assert write_calendar("Harrow Fen 3", 7, run(document).detail(), UnitSet(), SAVED) is None
    found = rows_of(document, UnitSet())
    assert {row["Needed on"] for row in found.values()} == {""}
    assert any(row["Order by"].startswith("day ") for row in found.values())


def test_the_same_sheet_is_written_alike_to_the_byte():
    detail = run(demo_well()).detail()
    once, again = (write_calendar("Harrow Fen 3", 7, detail, UnitSet(), SAVED) for _ in range(2))
    assert once == again
