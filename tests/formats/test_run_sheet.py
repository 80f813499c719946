"""The run sheet on paper: what was crossed out, held, broken and is not known is read on the page as in the table."""

import csv
import io

from pypdf import PdfReader

from knollstack.core.base.units import UnitSet, plain
from knollstack.formats.run_sheet import COLUMNS, write_run_sheet, write_run_sheet_csv
from tests.core.runsheet.wells import demo_well, edits, with_sheet
from tests.helpers import run


def written(document, units=None):
    """The table by key, and the pages' text without its line breaks."""
    judged, units = run(document), units or UnitSet()
    detail = judged.detail()
    stops = sum(f.severity == "stop" and f.step != "runsheet" for f in judged.whole.findings)
    pdf = write_run_sheet(document["name"], detail, judged.runsheet, stops, units, "Revision 7", "saved today")
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages).split())
    table = csv.DictReader(io.StringIO(write_run_sheet_csv(detail, units)))
    assert tuple(table.fieldnames) == COLUMNS
    return {row["Key"]: row for row in table}, text, detail


def test_what_a_hand_did_is_told_on_paper():
    hand = edits(
        {"step": "s3/wiper", "crossed": True},
        {"step": "s3/bushing-out", "crossed": True, "note": "the bowl is new"},
        {"step": "s2/pipe/1", "hours": 7.25},
        {"step": "site/cellar", "done": True, "done_by": "A. Hand"},
    )
    table, text, _ = written(with_sheet(edits=hand))
    assert table["s3/wiper"]["Step"].startswith("NOT DONE: ")
    assert "NOT DONE: " in text
    assert table["s3/bushing-out"]["Note"] == "the bowl is new"
    assert "Note: the bowl is new" in text
    assert table["s2/pipe/1"]["Rig time (h)"] == "7.25"
    assert table["site/cellar"]["Done"] == "done (A. Hand)"
    assert "done A. Hand" in text
    broken = [row for row in table.values() if row["Order rules"]]
    assert broken
    assert "BREAKS: " in text


def test_what_holds_a_step_stands_with_it_and_at_the_head():
    document = demo_well()
    document["policy"]["preventers"] = {"low_test_psi": 3501.0}
    table, text, detail = written(document)
    held = [row for row in table.values() if row["Stopped by"]]
    assert {row["Key"] for row in held} == {line.key for line in detail.lines if line.held}
    assert table["s3/test/e5"]["Stopped by"] == "its low-pressure test is over its high one"
    assert "STOP: its low-pressure test is over its high one." in text
    assert f"{len(held)} steps that may not be done" in text
    assert "stops in the design" in text


def test_stops_of_the_design_stand_at_the_head_and_nothing_where_there_are_none():
    """The land demo's casing is crushed by its fill-up, and its cement breaks the rock; the deep demo has no stop."""
    head = "Not fit to work by yet: 2 stops in the design, 1 step that may not be done."
    assert head in written(demo_well(1))[1]
    assert "Not fit to work by yet" not in written(demo_well(3))[1]


def test_a_time_that_is_not_known_is_no_zero():
    document = demo_well()
    document["ground"]["pore"] = []
    document["policy"]["completion"] = {}
    table, text, detail = written(document)
    unknown = {row["Key"] for row in table.values() if row["Rig time (h)"] == "unknown"}
    assert unknown == {line.key for line in detail.lines if line.hours is None}
    assert unknown
    assert "at least" in text


def test_both_are_in_the_persons_units():
    table, text, detail = written(demo_well(), UnitSet("metric"))
    line = next(x for x in detail.lines if x.key == "s3/leak-off")
    assert plain(line.text, UnitSet("metric")) == table["s3/leak-off"]["Step"]
    assert "expect 1.589 SG" in table["s3/leak-off"]["Step"]
    assert " ft" not in table["s4/drill/3"]["Step"]
    assert "1.589 SG" in text
    assert " ft" not in table["end/tubing"]["Step"]
