"""What the list shows of each design: kept while it holds, worked again when the design or the program is another."""

import json
import sqlite3

from knollstack.server import summaries
from knollstack.store.packing import hash_of, packed
from tests.helpers import demo, run

DEMO = 2


def listed(client):
    return {d["id"]: d for d in client.get("/api/designs").get_json()["designs"]}


def worked(client, *ids):
    answer = client.post("/api/summaries", json={"designs": list(ids)})
    assert answer.status_code == 200
    return {int(k): v for k, v in answer.get_json()["summaries"].items()}


def test_a_summary_is_that_of_the_evaluation_and_is_kept(client, monkeypatch):
    assert listed(client)[DEMO]["summary"] is None
    summary = worked(client, DEMO, DEMO, 999)[DEMO]
    assert set(worked(client, DEMO, 999)) == {DEMO}, "a design that is gone is left out"
    evaluation = run(demo())
    assert [p["state"] for p in summary["path"]] == [p.state for p in evaluation.path]
    counts = [sum(f.severity == s for f in evaluation.findings) for s in ("stop", "caution", "unknown")]
    assert [summary[k] for k in ("stops", "cautions", "unknowns")] == counts
    assert [s["shoe_md_ft"] for s in summary["strings"]] == [s.shoe_md_ft for s in evaluation.strings]
    assert listed(client)[DEMO]["summary"] == summary
    monkeypatch.setattr(summaries, "heavy", lambda *_: 1 / 0)
    assert worked(client, DEMO)[DEMO] == summary, "not worked again"


def test_a_save_or_another_program_makes_it_void(client, monkeypatch):
    worked(client, DEMO)
    document = demo()
    document["strings"][2]["mud_ppg"] = 8.5
    assert (
        client.put(f"/api/designs/{DEMO}", json={"well_id": DEMO, "based_on": 1, "document": document}).status_code
        == 200
    )
    assert listed(client)[DEMO]["summary"] is None
    assert worked(client, DEMO)[DEMO]["stops"] > 1
    monkeypatch.setattr(summaries, "program", lambda: "another")
    assert listed(client)[DEMO]["summary"] is None


def test_a_design_that_cannot_be_read_says_so_and_the_others_are_shown(app, client):
    with sqlite3.connect(app.config["DATABASE"]) as held:
        text = json.dumps(demo() | {"version": 99})
        row = (DEMO, 2, 1, "me", "2026-01-01T00:00:00+00:00", "", hash_of(text), None, packed(text))
        held.execute("INSERT INTO revision VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)", row)
    held.close()
    found = worked(client, 1, DEMO)
    assert "newer" in found[DEMO]["unreadable"] or "99" in found[DEMO]["unreadable"]
    assert found[1]["unreadable"] == ""


def test_more_at_once_than_a_batch_is_refused(client):
    assert client.post("/api/summaries", json={"designs": list(range(26))}).status_code == 422


def test_a_copy_of_a_well_has_every_design_under_a_name_of_its_own(client):
    client.post(f"/api/designs/{DEMO}/copies", json={"name": "Slim"})
    well = listed(client)[DEMO]["well_id"]
    made = [client.post(f"/api/wells/{well}/copies").get_json()["design_id"] for _ in range(2)]
    held = listed(client)
    name = demo()["name"]
    assert [held[d]["well_name"] for d in made] == [f"{name}, copy", f"{name}, copy 2"]
    assert [d["name"] for d in held.values() if d["well_id"] == held[made[0]]["well_id"]] == ["Base design", "Slim"]
    copied = client.get(f"/api/designs/{made[0]}").get_json()["document"]
    assert copied == client.get(f"/api/designs/{DEMO}").get_json()["document"] | {"name": f"{name}, copy"}
    assert client.post("/api/wells/999/copies").status_code == 404
