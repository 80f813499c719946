"""Saves that come too late, wells that are gone, a full disk: nothing of a person's is lost."""

import random
import sqlite3

import pytest

from knollstack.demo import documents
from knollstack.store import database
from tests.helpers import demo
from tests.server.test_api import DEMO, problem


def body(based_on, shoe, well=DEMO):
    document = demo()
    document["strings"][2]["shoe_md_ft"] = shoe
    return {"well_id": well, "based_on": based_on, "document": document}


def save(client, *args, name="Ann", **kwargs):
    return client.put(f"/api/designs/{DEMO}", json=body(*args, **kwargs), headers={"Knollstack-Name": name})


@pytest.fixture
def clash(client):
    """Revision 2 by Ann with the shoe at 7,100 ft; Ben, on revision 1, came too late with 7,200 ft."""
    save(client, 1, 7100.0)
    return problem(save(client, 1, 7200.0, name="Ben"), 409)


def test_a_late_save_is_kept_and_the_newest_comes_back(client, clash):
    assert (clash["newest_revision"], clash["newest_author"]) == (2, "Ann")
    assert clash["newest_document"]["strings"][2]["shoe_md_ft"] == 7100.0
    (item,) = client.get(f"/api/designs/{DEMO}/drafts").get_json()["drafts"]
    assert (item["id"], item["based_on"], item["author"]) == (clash["draft_id"], 1, "Ben")
    view = client.get(f"/api/designs/{DEMO}/drafts/{item['id']}").get_json()
    assert view["document"]["strings"][2]["shoe_md_ft"] == 7200.0
    again = save(client, 2, 7200.0, name="Ben")
    assert again.get_json()["revision"] == 3
    problem(client.delete(f"/api/designs/{DEMO}/drafts/{item['id']}"), 404)
    problem(client.get(f"/api/designs/{DEMO}/drafts/{item['id']}"), 404)
    authors = [r["author"] for r in client.get(f"/api/designs/{DEMO}/revisions").get_json()["revisions"]]
    assert authors == ["Ben", "Ann", "demo"]


def test_edits_during_a_conflict_renew_the_draft(client, clash):
    ben = {"Knollstack-Name": "Ben"}
    url = f"/api/designs/{DEMO}/drafts/{clash['draft_id']}"
    kept = client.put(url, json=body(1, 7250.0), headers=ben).get_json()
    assert kept["draft_id"] == clash["draft_id"]
    assert client.get(url).get_json()["document"]["strings"][2]["shoe_md_ft"] == 7250.0
    client.delete(url)
    other = client.put(url, json=body(1, 7260.0), headers=ben).get_json()["draft_id"]
    (item,) = client.get(f"/api/designs/{DEMO}/drafts").get_json()["drafts"]
    assert (item["id"], item["based_on"]) == (other, 1)
    problem(client.put(url, json=body(1, 7250.0, well=99), headers=ben), 410)


def test_both_versions_are_merged_by_choice(client, clash):
    mine = body(1, 7200.0)["document"]
    mine["strings"][1]["mud_ppg"] = 8.9
    ask = {"based_on": 1, "theirs": 2, "document": mine}
    merged = client.post(f"/api/designs/{DEMO}/merges", json=ask).get_json()
    assert [(c["subject"], merged["left"], merged["from_mine"]) for c in merged["clashes"]] == [("9 5/8 in shoe", 1, 1)]
    assert (merged["document"]["strings"][2]["shoe_md_ft"], merged["document"]["strings"][1]["mud_ppg"]) == (
        7100.0,
        8.9,
    )
    ask["choices"] = {merged["clashes"][0]["place"]: "mine"}
    chosen = client.post(f"/api/designs/{DEMO}/merges", json=ask).get_json()
    assert (chosen["left"], chosen["document"]["strings"][2]["shoe_md_ft"]) == (0, 7200.0)
    problem(client.post(f"/api/designs/{DEMO}/merges", json=ask | {"theirs": 9}), 404)
    unknown = client.post(f"/api/designs/{DEMO}/merges", json=ask | {"based_on": 99, "choices": {}}).get_json()
    assert len(unknown["clashes"]) == 2, "without the base every difference is asked"


def test_a_save_never_reaches_another_well(client):
    made = client.post("/api/wells/empty").get_json()
    well = client.get(f"/api/designs/{made['design_id']}").get_json()["item"]["well_id"]
    client.delete(f"/api/wells/{well}")
    gone = problem(client.put(f"/api/designs/{made['design_id']}", json=body(1, 7100.0, well=well)), 410)
    assert gone["title"] == "The design was deleted"
    client.delete(f"/api/bin/well/{well}")
    new = client.post("/api/wells/empty").get_json()
    assert new["design_id"] > made["design_id"]
    problem(client.put(f"/api/designs/{made['design_id']}", json=body(1, 7100.0, well=well)), 410)
    problem(client.put(f"/api/designs/{new['design_id']}", json=body(1, 7100.0, well=well)), 410)
    assert client.get(f"/api/designs/{new['design_id']}").get_json()["document"]["strings"] == []


def test_the_bin_gives_back(client):
    ann = {"Knollstack-Name": "Ann%20Ø"}
    assert client.delete(f"/api/wells/{DEMO}", headers=ann).status_code == 204
    problem(client.delete(f"/api/wells/{DEMO}"), 404)
    problem(client.get(f"/api/designs/{DEMO}"), 404)
    problem(client.get(f"/api/designs/{DEMO}/revisions"), 404)
    (item,) = client.get("/api/bin").get_json()["items"]
    assert (item["kind"], item["id"], item["deleted_by"], item["designs"]) == ("well", DEMO, "Ann Ø", 1)
    assert client.post(f"/api/bin/well/{DEMO}/back").status_code == 204
    problem(client.post(f"/api/bin/well/{DEMO}/back"), 404)
    assert client.get(f"/api/designs/{DEMO}").status_code == 200
    copy_id = client.post(f"/api/designs/{DEMO}/copies", json={"name": "Deep"}).get_json()["design_id"]
    client.delete(f"/api/designs/{copy_id}")
    problem(client.delete(f"/api/designs/{DEMO}"), 409)
    problem(client.delete(f"/api/bin/design/{DEMO}"), 404)
    assert client.delete("/api/bin").status_code == 204
    assert client.get("/api/bin").get_json()["items"] == []
    problem(client.post(f"/api/bin/design/{copy_id}/back"), 404)
    assert len(client.get("/api/designs").get_json()["designs"]) == len(documents())


def test_a_full_disk_is_told_and_nothing_is_half_saved(app, client, monkeypatch):
    connect = database.connect

    def full(path):
        connection = connect(path)
        connection.execute("VACUUM")
        connection.execute(f"PRAGMA max_page_count = {connection.execute('PRAGMA page_count').fetchone()[0]}")
        return connection

    big = body(1, 7100.0)
    big["document"]["note"] = "".join(random.Random(1).choices([chr(c) for c in range(33, 900)], k=19_000))
    monkeypatch.setattr("knollstack.server.database.connect", full)
    answer = problem(client.put(f"/api/designs/{DEMO}", json=big), 507)
    assert "disk of the server is full" in answer["detail"]
    monkeypatch.undo()
    assert client.get(f"/api/designs/{DEMO}").get_json()["item"]["revision"] == 1
    assert client.put(f"/api/designs/{DEMO}", json=big).status_code == 200


def test_a_damaged_revision_is_told(app, client):
    save(client, 1, 7100.0)
    with sqlite3.connect(app.config["DATABASE"]) as held:
        held.execute("DROP TRIGGER revision_never_changes")
        held.execute("UPDATE revision SET content = zeroblob(40) WHERE number = 2")
    held.close()
    problem(client.get(f"/api/designs/{DEMO}"), 503)
    assert client.get(f"/api/designs/{DEMO}/revisions/1").status_code == 200


def test_the_name_of_a_person_is_kept_short_and_printable(client):
    for given, kept in [
        ("", "unnamed"),
        ("%0A%20", "unnamed"),
        ("B%C3%A9a", "Béa"),
        ("x" * 300, "x" * 100),
        ("%ff", "\ufffd"),
    ]:
        answer = client.post("/api/wells/empty", headers={"Knollstack-Name": given}).get_json()
        assert client.get(f"/api/designs/{answer['design_id']}").get_json()["item"]["author"] == kept


def test_history_of_a_long_well_reads_what_was_saved(client):
    shoes = [7010.0 + 10 * i for i in range(60)]
    for i, shoe in enumerate(shoes):
        assert save(client, i + 1, shoe).status_code == 200
    page = client.get(f"/api/designs/{DEMO}/revisions").get_json()
    assert page["more"]
    assert [r["number"] for r in page["revisions"]] == list(range(61, 21, -1))
    older = client.get(f"/api/designs/{DEMO}/revisions/12").get_json()
    assert older["strings"][2]["shoe_md_ft"] == shoes[10]
