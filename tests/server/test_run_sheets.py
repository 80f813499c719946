"""The run sheet over the API: issued once a revision, changes told as printed, and its papers read back."""

import csv
import io
import json

import pytest
from icalendar import Calendar
from openpyxl import load_workbook
from pypdf import PdfReader

from knollstack.core.base.units import UnitSet, plain
from tests.helpers import demo, put, run
from tests.server.test_accounts import save
from tests.server.test_api import DEMO, problem

ISSUES = f"/api/designs/{DEMO}/sheet-issues"
CHANGES = f"/api/designs/{DEMO}/sheet-changes"
PAPERS = ("run-sheet.pdf", "run-sheet.csv", "materials.csv", "materials.xlsx", "calendar.ics")


def detail(document):
    return run(document).detail()


def changed(*keys, value):
    document = demo()
    put(document, list(keys), value)
    return document


def issue(client, revision, note=""):
    return client.post(ISSUES, json={"revision": revision, "note": note})


def paper(client, name, units=""):
    answer = client.get(f"/api/designs/{DEMO}/{name}{units}")
    assert answer.status_code == 200, answer.text
    return answer.data


def rows(data):
    return list(csv.DictReader(io.StringIO(data.decode())))


def test_only_the_newest_revision_is_issued(client):
    assert client.get(ISSUES).get_json() == {"issues": []}
    first = issue(client, 1, "to the rig").get_json()["issues"]
    assert [(i["issue"], i["number"], i["note"]) for i in first] == [(1, 1, "to the rig")]
    save(client, 1, 7100.0)
    assert "Nothing was issued" in problem(issue(client, 1), 409)["detail"]
    assert client.get(ISSUES).get_json()["issues"] == first
    assert [(i["issue"], i["number"]) for i in issue(client, 2).get_json()["issues"]] == [(2, 2), (1, 1)]


@pytest.mark.parametrize(
    ("body", "path"),
    [({}, "/revision"), ({"revision": "1"}, "/revision"), ({"revision": 0}, "/revision"), ({"revision": 1, "note": 3}, "/note")],
)  # fmt: skip
def test_an_issue_that_says_nothing_usable_is_told_where(client, body, path):
    assert [fault["path"] for fault in problem(client.post(ISSUES, json=body), 422)["faults"]] == [path]
    assert client.get(ISSUES).get_json() == {"issues": []}


def test_changes_are_told_against_the_last_issue(client):
    document = changed("strings", "1", "mud_ppg", value=demo()["strings"][1]["mud_ppg"] + 0.2)
    ask = {"document": document}
    assert client.post(CHANGES, json=ask).get_json() == {"lines": []}, "nothing was issued"
    issue(client, 1)
    assert client.post(CHANGES, json={"document": demo()}).get_json() == {"lines": []}
    before, after = ({line.key: line for line in detail(d).lines} for d in (demo(), document))
    differs = {k for k in before.keys() & after.keys() if plain(before[k].text) != plain(after[k].text)}
    differs |= {k for k in before.keys() & after.keys() if plain(before[k].caution) != plain(after[k].caution)}
    told = client.post(CHANGES, json=ask).get_json()["lines"]
    assert {line["key"] for line in told} == differs | (before.keys() ^ after.keys())
    assert len(told) > 2
    assert all(line["before"] != line["after"] for line in told)


def test_the_sheet_is_that_of_the_core(client):
    answer = client.post("/api/run-sheets", json={"document": demo()})
    assert answer.get_json() == json.loads(detail(demo()).model_dump_json())


def test_papers_hold_every_step_and_item_in_a_persons_units(client):
    sheet = detail(demo())
    steps = rows(paper(client, "run-sheet.csv", "?units=metric"))
    assert [row["Key"] for row in steps] == [line.key for line in sheet.lines]
    words = [plain(line.text, UnitSet("metric")) for line in sheet.lines]
    assert [row["Step"].removeprefix("NOT DONE: ") for row in steps] == words
    assert any(" m " in text or "kg/m³" in text or "bar" in text for text in words)
    pages = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(paper(client, "run-sheet.pdf"))).pages)
    printed = "".join(pages.split())
    for line in sheet.lines:
        assert "".join(plain(line.text).split())[:30] in printed, line.key
    assert "Signature" in pages


def test_materials_read_back_alike_from_both_files(client):
    table = rows(paper(client, "materials.csv"))
    head, *cells = load_workbook(io.BytesIO(paper(client, "materials.xlsx"))).active.values
    book = [dict(zip(head, row, strict=True)) for row in cells]
    assert len(book) == len(table) == len(detail(demo()).materials)
    for row, line, item in zip(book, table, detail(demo()).materials, strict=True):
        assert row.keys() == line.keys()
        for name, cell in row.items():
            assert line[name] == ("" if cell is None else cell if isinstance(cell, str) else f"{float(cell):.10g}")
        assert row["Total"] == pytest.approx(item.quantity + item.spare, abs=0.05)
        assert (row["Weight (lb)"] is None) == (item.weight_lb is None)


def test_the_calendar_holds_each_open_order_and_each_test(client):
    sheet = detail(demo())
    events = list(Calendar.from_ical(paper(client, "calendar.ics")).walk("VEVENT"))
    told = {str(e["uid"]).removeprefix(f"{DEMO}-").removesuffix("@knollstack"): str(e["dtstart"].dt) for e in events}
    orders = {f"order-{m.key}": m.order_by for m in sheet.materials if m.order_by and not m.ordered}
    tests = {
        f"step-{s.key}": s.date
        for s in sheet.lines
        if s.kind in ("testing", "barriers") and not s.crossed and not s.done
    }
    assert len(orders) > 10
    assert len(tests) > 10
    assert told == orders | tests


def test_without_a_spud_date_there_is_no_calendar_and_all_else_counts_in_days(client):
    body = {"well_id": DEMO, "based_on": 1, "document": changed("runsheet", "spud", value="")}
    assert client.put(f"/api/designs/{DEMO}", json=body).status_code == 200
    problem(client.get(f"/api/designs/{DEMO}/calendar.ics"), 404)
    assert {row["Date"] for row in rows(paper(client, "run-sheet.csv"))} == {""}
    assert any(row["Order by"].startswith("day ") for row in rows(paper(client, "materials.csv")))


def test_an_empty_well_has_no_papers_and_an_unknown_design_nothing(client):
    made = client.post("/api/wells/empty").get_json()["design_id"]
    for name in PAPERS:
        problem(client.get(f"/api/designs/{made}/{name}"), 404)
        problem(client.get(f"/api/designs/999/{name}"), 404)
    problem(client.get("/api/designs/999/sheet-issues"), 404)
    problem(client.post("/api/designs/999/sheet-issues", json={"revision": 1}), 404)
    problem(client.post("/api/designs/999/sheet-changes", json={"document": demo()}), 404)


def test_words_of_a_person_are_no_formulas_of_a_spreadsheet(client):
    document = changed("runsheet", "steps", "0", "text", value="=HYPERLINK(1)")
    client.put(f"/api/designs/{DEMO}", json={"well_id": DEMO, "based_on": 1, "document": document})
    assert [row["Step"] for row in rows(paper(client, "run-sheet.csv")) if "HYPERLINK" in row["Step"]] == [
        "'=HYPERLINK(1)"
    ]
