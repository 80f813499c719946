"""Drills over the API: begun, played on, taken up again by another process, ended once, shared as a file; kill sheets."""

import csv
import io
import json

import pytest

from knollstack.server import playing
from tests.helpers import demo
from tests.server.test_api import DEMO, problem

DRILLS = f"/api/designs/{DEMO}/drills"
SCENE = {"kind": "drilling", "hole": "s3", "md_ft": 3500.0, "seed": 4}


def begin(client, **more):
    made = client.post(DRILLS, json={"document": demo(), "scene": {**SCENE, **more}})
    assert made.status_code == 201, made.get_json()
    return made.get_json()


def play(client, drill, to_s, *doings):
    told = client.post(f"/api/drills/{drill}/steps", json={"to_s": to_s, "doings": list(doings)})
    assert told.status_code == 200, told.get_json()
    return told.get_json()["state"]


def at(second, action, **more):
    return {"at_s": second, "action": action, **more}


def test_a_drill_is_played_kept_and_taken_up_again(client):
    made = begin(client)
    drill, panel = made["id"], made["state"]["panel"]
    assert (panel["clock_s"], panel["title"], panel["ended"]) == (0, "Kick while drilling", False)
    assert not any(word in json.dumps(panel) for word in ("bottom_psi", "pore", "fracture")), "nothing tells the answer"
    state = play(client, drill, 150, at(100, "pick up"), at(120, "pump", value=0.0))
    assert [(r["at_s"], r["refused"]) for r in state["panel"]["record"]] == [(100, ""), (120, "")]
    assert state["panel"]["spm"] == 0
    assert state["clock_s"] == 150
    assert [r["at_s"] for r in state["trend"]] == list(range(5, 151, 5))
    assert state["trend"][-1]["pit_change_bbl"] == state["panel"]["pit_change_bbl"]
    playing._held.clear()  # another process: it plays what was done again
    again = client.get(f"/api/drills/{drill}").get_json()["state"]
    assert again["trend"] == [r for r in state["trend"] if r["at_s"] <= again["clock_s"]], "its trends go on"
    assert client.get(f"/api/drills/{drill}").get_json()["state"]["trend"] == again["trend"]
    assert again["panel"] == play(client, drill, again["clock_s"])["panel"]
    later = play(client, drill, 150)
    assert play(client, drill, 152)["trend"] == []
    assert [r["at_s"] for r in play(client, drill, 161)["trend"]] == [155, 160], "what came since it was asked last"
    assert later["panel"] == state["panel"], "the same scene and doings give the same drill"


def test_what_comes_late_is_done_when_it_comes(client):
    drill = begin(client)["id"]
    play(client, drill, 90)
    state = play(client, drill, 100, at(40, "pick up"))
    assert state["done_s"] == [90]
    playing._held.clear()
    assert client.get(f"/api/drills/{drill}").get_json()["state"]["panel"]["record"][0]["at_s"] == 90


def test_a_refusal_says_why_and_changes_nothing(client):
    drill = begin(client)["id"]
    state = play(client, drill, 10, at(5, "stab valve"))
    assert state["panel"]["record"][0]["refused"] == "the top drive is made up: its own valve closes the string"
    assert state["panel"]["safety_valve"] == "off"


def test_a_drill_ends_once_and_its_score_is_kept_and_exported(client):
    drill = begin(client)["id"]
    play(client, drill, 60)
    ended = client.post(f"/api/drills/{drill}/end", json={"to_s": 61, "doings": [at(61, "end")]})
    debrief = ended.get_json()
    assert ended.status_code == 200
    assert 0 <= debrief["score"] <= 100
    assert debrief == client.get(f"/api/drills/{drill}/debrief").get_json()
    assert client.post(f"/api/drills/{drill}/end", json={"to_s": 900}).get_json() == debrief
    assert client.post(f"/api/drills/{drill}/steps", json={"to_s": 100}).status_code == 409
    (listed,) = client.get(DRILLS).get_json()["drills"]
    assert (listed["ended"], listed["score"], listed["title"]) == (True, debrief["score"], "Kick while drilling")
    rows = list(csv.reader(io.StringIO(client.get(f"{DRILLS}.csv").get_data(as_text=True))))
    assert rows[1][2:6] == ["Kick while drilling", "shut in", "standard", "4"]
    assert rows[1][8] == f"{debrief['score']:.1f}"
    assert client.delete(f"/api/drills/{drill}").status_code == 204
    assert client.get(DRILLS).get_json()["drills"] == []


def test_a_long_drill_is_played_again_in_parts(client, monkeypatch):
    drill = begin(client)["id"]
    play(client, drill, 300)
    playing._held.clear()
    monkeypatch.setattr(playing, "STEP_S", 120)
    first = client.get(f"/api/drills/{drill}").get_json()["state"]
    assert (first["clock_s"], first["behind"]) == (120, True)
    assert client.post(f"/api/drills/{drill}/end", json={"to_s": 300}).status_code == 409
    assert play(client, drill, 300)["clock_s"] == 300


def test_a_scene_s_file_is_played_anywhere_alike(client):
    drill = begin(client)["id"]
    told = play(client, drill, 120)
    file = client.get(f"/api/drills/{drill}/scene.json").get_data()
    made = client.post("/api/designs/3/drills/file", data=file)
    assert made.status_code == 201
    assert play(client, made.get_json()["id"], 120)["panel"] == told["panel"]


@pytest.mark.parametrize(
    ("file", "path", "value"),
    [
        (b"\xff\x00", "", "no JSON"),
        (b"[]", "/format", "no object"),
        (b'{"format": "knollstack.well"}', "/format", '"knollstack.well"'),
        (b'{"format": "knollstack.scene", "version": 2}', "/version", "2"),
        (b'{"format": "knollstack.scene", "version": 1, "scene": {"kind": "fire"}}', "/scene/kind", '"fire"'),
    ],
)
def test_a_bad_scene_file_is_told_at_its_place(client, file, path, value):
    refused = client.post(f"{DRILLS}/file", data=file)
    fault = problem(refused, 422)["faults"][0]
    assert (fault["path"], fault["value"]) == (path, value)
    assert client.get(DRILLS).get_json()["drills"] == [], "nothing is begun"


def test_a_scene_that_cannot_be_played_says_why(client):
    refused = client.post(DRILLS, json={"document": demo(), "scene": {**SCENE, "kind": "drift-off"}})
    fault = problem(refused, 422)["faults"][0]
    assert (fault["value"], fault["expected"]) == ("drift-off", "another scene: of a floating rig alone")
    outside = client.post(DRILLS, json={"document": demo(), "scene": {**SCENE, "md_ft": 9_000.0}})
    assert "the depth is not in this hole" in problem(outside, 422)["faults"][0]["expected"]


READ = {"hole": "s4", "sidpp_psi": 260.0, "sicp_psi": 450.0, "gain_bbl": 8.0}


def test_a_kill_sheet_is_worked_and_printed_on_one_page(client):
    body = {"document": demo(), **READ}
    sheet = client.post("/api/kill-sheets", json=body).get_json()
    assert sheet["kill_ppg"] == pytest.approx(13.2 + 260 / (12 / 231 * 12_600), abs=1e-6)
    assert sheet["icp_psi"] == pytest.approx(sheet["slow_psi"] + 260)
    query = "&".join(f"{k}={v}" for k, v in READ.items())
    pdf = client.get(f"/api/designs/{DEMO}/kill-sheet.pdf?{query}&units=metric")
    assert pdf.content_type == "application/pdf"
    assert pdf.get_data().count(b"/Type /Page\n") == 1 or pdf.get_data().count(b"/Type /Page ") == 1
    assert problem(client.post("/api/kill-sheets", json={**body, "md_ft": 100.0}), 422)["faults"][0]["path"] == "/md_ft"
    assert client.post("/api/kill-sheets", json={**body, "hole": "s9"}).status_code == 404
