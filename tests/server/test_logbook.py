"""The log over the API: appended, refused with every fault, corrected, exported and brought back, and worked."""

import csv
import io
import json

import pytest

from tests.core.logbook.log import SPUD, SURFACE, entry
from tests.helpers import demo
from tests.server.test_accounts import save
from tests.server.test_api import DEMO, problem

LOG = f"/api/designs/{DEMO}/log"
POINTS = [{"volume_bbl": 0.5 * i, "pressure_psi": 100.0 * i} for i in range(6)]


def write(client, *entries, design=DEMO):
    return client.post(f"/api/designs/{design}/log", json={"entries": list(entries)})


def log(client, design=DEMO):
    return client.get(f"/api/designs/{design}/log").get_json()["entries"]


def test_entries_are_numbered_signed_and_read_back(client):
    made = client.post(LOG, json={"entries": [SPUD, SURFACE]}, headers={"Knollstack-Name": "Ann%20Berg"})
    assert made.status_code == 201
    told = made.get_json()["entries"]
    assert [(e["number"], e["kind"], e["author"]) for e in told] == [
        (1, "spud", "Ann Berg"),
        (2, "shoe landed", "Ann Berg"),
    ]
    assert all(e["logged_at"] for e in told)
    assert log(client) == told
    view = client.get(f"/api/designs/{DEMO}").get_json()
    assert view["log"] == told
    assert "log" not in view["document"] or view["document"]["log"] == []
    assert view["item"]["revision"] == 1, "no revision comes of it"
    assert write(client, {**SPUD, "author": "B. Pit"}).get_json()["entries"][0]["author"] == "B. Pit"


@pytest.mark.parametrize("text", ["s2", "13 3/8", "13 3/8 in", '13 3/8"'])
def test_a_string_is_named_as_people_name_it(client, text):
    assert write(client, {**SURFACE, "string": text}).get_json()["entries"][0]["string"] == "s2"


@pytest.mark.parametrize(
    ("row", "path", "expected"),
    [
        ({**SPUD, "at": "yesterday"}, "at", "a time of the rig's clock"),
        ({**SPUD, "at": "2027-02-29 10:00"}, "at", "a time of the rig's clock"),
        ({**SPUD, "at": "2027-03-08 24:00"}, "at", "a time of the rig's clock"),
        ({**SPUD, "md_ft": 100.0}, "md_ft", "nothing: it is no part"),
        ({**SURFACE, "md_ft": None}, "md_ft", "depth, of an entry"),
        ({**SURFACE, "string": "22 in"}, "string", "a string of the design: 20 in (s1)"),
        ({**SURFACE, "grade": "K55"}, "weight_ppf", "weight, grade and connection together"),
        ({**SURFACE, "md_ft": 50_000.0}, "md_ft", "at most 40000"),
        ({**SURFACE, "colour": "red"}, "colour", "no such key"),
        ({**SPUD, "corrects": 2}, "corrects", "the number of an entry before it"),
        ({**SPUD, "kind": "fire"}, "kind", "one of"),
        (entry("leak-off test", 9, string="s2", mud_ppg=9.0), "points", "at least 3 points"),
        (entry("leak-off test", 9, string="s2", mud_ppg=9.0, points=POINTS[:2]), "points", "at least 3 points"),
        (
            entry("leak-off test", 9, string="s2", mud_ppg=9.0, points=POINTS[::-1]),
            "points/1/volume_bbl",
            "more than at",
        ),
        (entry("leak-off test", 9, string="s2", mud_ppg=9.0, emw_ppg=8.9), "emw_ppg", "at least the mud weight"),
        (entry("withdrawn", 9), "corrects", "corrects, of an entry"),
        (entry("test", 9, pressure_psi=900.0), "passed", "held, of an entry"),
    ],
)
def test_a_fault_is_told_at_its_place_and_nothing_is_written(client, row, path, expected):
    faults = problem(write(client, SPUD, row), 422)["faults"]
    assert faults[0]["path"] == f"/entries/1/{path}"
    assert len(faults) == 1 or "points" in path
    assert faults[0]["expected"].startswith(expected), faults
    assert log(client) == []


def test_an_entry_is_corrected_once_and_a_correction_by_its_own(client):
    write(client, SURFACE)
    assert write(client, {**SURFACE, "md_ft": 1990.0, "corrects": 1}).status_code == 201
    faults = problem(write(client, {**SURFACE, "corrects": 1}), 422)["faults"]
    assert faults[0]["expected"] == "an entry that counts: 1 is corrected by 2 already"
    assert write(client, entry("withdrawn", 12, corrects=2)).status_code == 201
    twice = [entry("withdrawn", 12, corrects=4), entry("withdrawn", 12, corrects=4)]
    assert problem(write(client, SPUD, *twice), 422)["faults"][0]["path"] == "/entries/2/corrects"
    assert len(log(client)) == 3


def test_a_log_is_bounded(client):
    assert write(client, *[SPUD] * 4999).status_code == 201
    assert problem(write(client, SPUD, SPUD), 422)["faults"][0]["expected"] == "at most 5,000 in a log"
    assert write(client, SPUD).status_code == 201


def test_the_log_travels_in_the_well_file_and_a_design_is_saved_without_it(client):
    write(client, SPUD, SURFACE, {**SURFACE, "md_ft": 1990.0, "corrects": 2})
    file = client.get(f"/api/designs/{DEMO}/file").get_json()
    assert [e["number"] for e in file["log"]] == [1, 2, 3]
    made = client.post("/api/wells", json={"document": file}).get_json()["design_id"]
    assert log(client, made) == file["log"]
    assert client.get(f"/api/designs/{made}").get_json()["document"] == file | {"log": []}
    body = {"well_id": 2, "based_on": 1, "document": file}
    assert problem(client.put(f"/api/designs/{DEMO}", json=body), 422)["faults"][0]["path"] == "/log"
    assert save(client, 1, 7100.0).status_code == 200
    assert len(log(client)) == 3


def test_an_exported_log_is_imported_as_it_was(client):
    rows = [
        SPUD,
        {**SURFACE, "text": "=1+1, said twice"},
        entry("test", 12, string="s2", pressure_psi=900.0, passed=False),
    ]
    write(client, *rows)
    table = client.get(f"/api/designs/{DEMO}/log.csv").data.decode()
    assert next(csv.DictReader(io.StringIO(table)))["Entry"] == "spud"
    pasted = client.post("/api/tables/log/paste", json={"text": table, "first": "at"}).get_json()
    assert pasted["unclear"] == []
    other = client.post("/api/wells", json={"document": demo()}).get_json()["design_id"]
    assert write(client, *pasted["rows"], design=other).status_code == 201
    drop = {"logged_at"}
    assert [{k: v for k, v in e.items() if k not in drop} for e in log(client, other)] == [
        {k: v for k, v in e.items() if k not in drop} for e in log(client)
    ]
    assert json.loads(client.get(f"/api/designs/{DEMO}/log.json").data) == log(client)


def test_times_of_a_pasted_log_stand_to_the_minute(client):
    text = "Time\tEntry\tDepth\n2027-03-08T06:00:30Z\tdepth\t100\n"
    pasted = client.post("/api/tables/log/paste", json={"text": text, "first": "at"}).get_json()
    assert [(r["at"], r["kind"], r["md_ft"]) for r in pasted["rows"]] == [("2027-03-08 06:00", "depth", 100.0)]


def test_a_document_with_its_log_is_worked_as_drilled_everywhere(client):
    document = demo() | {"log": [{"number": 1, **SURFACE}, {"number": 2, **entry("depth", 20, md_ft=6000.0)}]}
    assert client.post("/api/evaluations", json={"document": document}).get_json()["strings"][1]["shoe_md_ft"] == 1985.0
    job = client.post("/api/cement-jobs", json={"document": document, "string": 1}).get_json()
    assert job["stages"][0]["end_md_ft"] == pytest.approx(1985.0)
    sheet = client.post("/api/run-sheets", json={"document": document}).get_json()
    assert any(line["about"] == "s2" for line in sheet["lines"])
    book = client.post("/api/logbooks", json={"document": document}).get_json()
    assert book["detail"]["free"]["string"] == 2
    assert {r["step"] for r in book["side_by_side"]["results"] if r["differs"]} >= {"depths"}
    empty = client.post("/api/logbooks", json={"document": demo()}).get_json()
    assert (empty["detail"]["free"], empty["detail"]["comparison"]) == (None, [])


def test_lists_that_are_as_logged_are_told_with_their_rows(client):
    points = [{"volume_bbl": 0.5 * i, "pressure_psi": 60.0 * min(i, 7)} for i in range(10)]
    tested = entry("leak-off test", 13, string="s2", mud_ppg=9.0, points=points)
    document = demo() | {"log": [{"number": 1, **SURFACE}, {"number": 2, **tested}]}
    told = client.post("/api/fact-tables", json={"document": document}).get_json()["tables"]
    rows = {t["path"]: t["rows"] for t in told}["/ground/leak_off_tests"]
    assert [(round(r["tvd_ft"]), round(r["emw_ppg"], 2)) for r in rows] == [(1985, 13.07)]
    assert client.post("/api/fact-tables", json={"document": demo()}).get_json() == {"tables": []}
    assert problem(client.post("/api/fact-tables", json={"document": demo() | {"strings": 3}}), 422)


def test_with_accounts_nobody_writes_in_another_name(client, tmp_path):
    from knollstack.server.passwords import hashed
    from knollstack.store.accounts import add_account
    from knollstack.store.database import connect

    held = connect(tmp_path / "k.sqlite")
    add_account(held, "Cleo Marsh", hashed("a long password"), "designer", "2026-01-01T00:00:00+00:00")
    held.close()
    assert write(client, SPUD).status_code == 401
    client.post("/api/session", json={"name": "Cleo Marsh", "password": "a long password"})
    assert write(client, {**SPUD, "author": "B. Pit"}).get_json()["entries"][0]["author"] == "Cleo Marsh"
