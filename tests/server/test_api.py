"""The API: what is kept, what is refused, and that every answer has one shape."""

import base64
import json
import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from knollstack.core.document.design import Design
from knollstack.demo import documents
from tests.helpers import DATA, demo, put, run

DEMO = 2


def problem(response, status):
    assert response.status_code == status
    assert response.content_type == "application/problem+json"
    body = response.get_json()
    assert {"type", "title", "status", "detail", "faults"} <= set(body)
    assert body["status"] == status
    assert "Traceback" not in response.text
    return body


def test_designs_and_documents(client):
    designs = client.get("/api/designs").get_json()["designs"]
    assert sorted(d["well_name"] for d in designs) == sorted(json.loads(text)["name"] for text in documents())
    view = client.get(f"/api/designs/{DEMO}").get_json()
    assert view["document"] == Design.model_validate(demo()).model_dump(mode="json")
    assert view["item"]["revision"] == 1


def test_evaluation_is_that_of_the_core(client):
    answer = client.post("/api/evaluations", json={"document": demo()})
    assert answer.status_code == 200
    assert answer.get_json() == json.loads(run(demo()).model_dump_json())
    assert client.get("/api/designs").get_json()["designs"][1]["revision"] == 1, "evaluating saves nothing"


def test_export_and_import_give_the_same_evaluation(client):
    exported = client.get(f"/api/designs/{DEMO}/file")
    assert exported.headers["Content-Disposition"] == 'attachment; filename="Harrow Fen 3.well.json"'
    made = client.post("/api/wells/file", data=exported.data, content_type="application/octet-stream")
    assert made.status_code == 201
    document = client.get(f"/api/designs/{made.get_json()['design_id']}").get_json()["document"]
    assert run(document) == run(demo())


def test_new_wells(client):
    made = client.post("/api/wells/empty").get_json()
    view = client.get(f"/api/designs/{made['design_id']}").get_json()
    assert (view["document"]["strings"], view["document"]["ground"]["pore"]) == ([], [])


@pytest.mark.parametrize(
    "path",
    [
        "/api/designs/99",
        "/api/designs/99/file",
        "/api/designs/99/sheet",
        "/api/nothing",
        "/api/designs/99/revisions",
        "/api/designs/2/revisions/9",
    ],
)
def test_what_is_not_there(client, path):
    problem(client.get(path), 404)


@pytest.mark.parametrize("url", ["/api/evaluations", "/api/wells", "/api/workings"])
@pytest.mark.parametrize(
    ("path", "value"), [("site__rig_floor_ft", "x"), ("strings__3__shoe_md_ft", 99_999.0), ("format", "other")]
)
def test_a_faulty_document_is_refused_whole(client, url, path, value):
    document = demo()
    put(document, path.split("__"), value)
    body = problem(client.post(url, json={"document": document, "key": "depths/2/maasp"}), 422)
    assert [f["path"] for f in body["faults"]] == ["/" + path.replace("__", "/")]
    assert len(client.get("/api/designs").get_json()["designs"]) == len(documents())


@pytest.mark.parametrize(
    ("body", "value"),
    [
        (b"{", "not JSON at line 1, column 2"),
        (b"", "not JSON at line 1, column 1"),
        (b"[]", "[]"),
        (b"{}", "nothing"),
        (b'{"document": 3}', "3"),
        (b'{"document": NaN}', "NaN"),
        (b"[" * 100_000, "JSON nested too deep"),
    ],
)
def test_bodies_that_are_no_request(client, body, value):
    answer = problem(client.post("/api/evaluations", data=body, content_type="application/json"), 422)
    assert [f["value"] for f in answer["faults"]] == [value]


def test_truncated_other_and_huge_files(client):
    text = json.dumps(demo()).encode()
    for data, words in [(text[:500], "not JSON"), (b"\x00\x01\xff", "not UTF-8"), (b'{"las": 2}', "null")]:
        body = problem(client.post("/api/wells/file", data=data), 422)
        assert len(body["faults"]) == 1
        assert words in body["faults"][0]["value"]
    huge = problem(client.post("/api/wells/file", data=b" " * 50_000_000), 413)
    assert "8 MB" in huge["detail"]
    assert len(client.get("/api/designs").get_json()["designs"]) == len(documents())


VALUES = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=5), inner, max_size=3),
    max_leaves=6,
)
PLACES = [
    "site",
    "site__rig_floor_ft",
    "ground__pore",
    "ground__zones__0",
    "trajectory__stations",
    "strings__1",
    "name",
    "strings__2__shoe_md_ft",
    "strings__1__pipe",
    "policy__depths__kick_minimums",
    "strings__3__od_in",
    "wellhead__pieces",
    "preventers",
    "policy__pipe__factors__burst",
    "ground__pore__1__emw_ppg",
    "strings__2__cement__top_md_ft",
]


@settings(max_examples=250, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.sampled_from(PLACES), VALUES)
def test_nonsense_anywhere_is_answered_plainly(client, place, value):
    document = demo()
    put(document, place.split("__"), value)
    text = json.dumps({"document": document})
    answer = client.post("/api/evaluations", data=text, content_type="application/json")
    assert answer.status_code in (200, 422), answer.text[:300]
    if answer.status_code == 422:
        assert answer.get_json()["faults"]


def test_working(client):
    answer = client.post("/api/workings", json={"document": demo(), "key": "depths/2/kick_tolerance"}).get_json()
    assert [s["formula"] for s in answer["calls"]][-1] == "lesser_kick_volume"
    outputs = answer["calls"][-1]["outputs"]
    value = pytest.approx(27.47, abs=0.01)
    assert outputs == [{"name": "lesser_kick_volume", "unit": "bbl", "quantity": "volume", "value": value}]
    problem(client.post("/api/workings", json={"document": demo(), "key": "depths/9/none"}), 404)


def test_reference_data(client):
    names = {f["name"] for f in client.get("/api/formulas").get_json()["formulas"]}
    cases = json.loads((DATA / "formulas.json").read_text())["cases"]
    assert {case["formula"] for case in cases} <= names
    units = client.get("/api/units").get_json()["quantities"]
    assert units["depth"]["options"][1]["factor"] == pytest.approx(0.3048)
    assert len(client.get("/api/catalogue").get_json()["pipes"]) > 500
    assert client.get("/api/schema").get_json()["title"] == "Design"


def test_a_formula_can_be_tried(client):
    trial = client.post(
        "/api/formulas/weight_up", json={"inputs": {"old_mud_ppg": 10, "new_mud_ppg": 11, "volume_bbl": 100}}
    )
    outputs = [(o["name"], o["unit"], round(o["value"], 3)) for o in trial.get_json()["outputs"]]
    assert outputs == [("mass_lb", "lb", 6125.0), ("volume_gain_bbl", "bbl", 4.167)]
    for inputs, path in [
        ({"old_mud_ppg": 11, "new_mud_ppg": 10, "volume_bbl": 1}, "/inputs/new_mud_ppg"),
        ({"old_mud_ppg": 11, "new_mud_ppg": 12}, "/inputs/volume_bbl"),
        ({"old_mud_ppg": [1, 2], "new_mud_ppg": [3, 4, 5], "volume_bbl": 1}, "/inputs"),
        ({"old_mud_ppg": "x", "new_mud_ppg": 12, "volume_bbl": 1}, "/inputs/old_mud_ppg/float"),
    ]:
        body = problem(client.post("/api/formulas/weight_up", json={"inputs": inputs}), 422)
        assert body["faults"][0]["path"] == path
    problem(client.post("/api/formulas/nothing", json={"inputs": {}}), 404)


def test_strangers_are_refused(client):
    problem(client.get("/api/designs", headers={"Host": "evil.example"}), 421)
    problem(client.post("/api/wells/empty", headers={"Origin": "http://evil.example"}), 403)
    assert client.post("/api/wells/empty", headers={"Origin": "http://localhost"}).status_code == 201


def test_page_and_headers(client):
    for path in ("/", "/designs/2/depths"):
        page = client.get(path)
        assert b"Knollstack" in page.data
        assert "script-src 'self';" in page.headers["Content-Security-Policy"]
        assert page.headers["X-Content-Type-Options"] == "nosniff"
    assert client.get("/api/designs").headers["Cache-Control"] == "no-store"
    assert client.get("/../pyproject.toml").data == client.get("/").data


def test_every_operation_is_published(app, client):
    spec = client.get("/api/openapi.json").get_json()
    rules = {r.rule for r in app.url_map.iter_rules() if r.rule.startswith("/api/") and "openapi" not in r.rule}
    as_path = {
        re.sub("{(name|target|kind)", r"<string:\1", p).replace("{", "<int:").replace("}", ">") for p in spec["paths"]
    }
    assert rules == as_path
    for path in spec["paths"].values():
        for operation in path.values():
            assert operation["operationId"]
            assert "422" in operation["responses"]


def test_history_in_words_alternatives_and_comparison(client):
    moved = demo()
    moved["strings"][2]["shoe_md_ft"] = 7400.0
    body = {"well_id": DEMO, "based_on": 1, "document": moved, "note": "restored"}
    assert client.put("/api/designs/2", json=body).status_code == 200
    newest, first = client.get("/api/designs/2/revisions").get_json()["revisions"]
    assert (newest["number"], newest["note"], first["changes"]) == (2, "restored", [])
    assert [c["subject"] for c in newest["changes"]] == ["9 5/8 in shoe"]
    assert client.get("/api/designs/2/revisions?before=2").get_json()["revisions"] == [first]
    copy = client.post("/api/designs/2/copies", json={"name": " Shallow "}).get_json()["design_id"]
    problem(client.post("/api/designs/2/copies", json={"name": "Shallow"}), 409)
    problem(client.post("/api/designs/2/copies", json={"name": "  "}), 422)
    problem(client.put(f"/api/designs/{copy}/name", json={"name": "Base design"}), 409)
    assert client.put(f"/api/designs/{copy}/name", json={"name": "Deep"}).status_code == 204
    moved["strings"][2]["shoe_md_ft"] = 7000.0
    client.put(f"/api/designs/{copy}", json={"well_id": DEMO, "based_on": 1, "document": moved})
    pair = client.get(f"/api/designs/2/comparison/{copy}").get_json()
    assert [d["place"] for d in pair["decisions"]] == ["/strings/2/shoe_md_ft"]
    assert pair["b"]["name"] == "Deep"
    assert client.delete(f"/api/designs/{copy}").status_code == 204
    problem(client.delete("/api/designs/2"), 409)
    problem(client.get(f"/api/designs/2/comparison/{copy}"), 404)


def test_tables_in_and_out(client):
    pasted = client.post(
        "/api/tables/pore/paste", json={"text": "TVD (m)\tSG\n1500\t1,2", "first": "tvd_ft"}
    ).get_json()
    assert pasted["keys"] == ["tvd_ft", "emw_ppg"]
    foreign = client.post("/api/tables/pore/paste", json={"text": "a\tb\n1\t2", "first": "tvd_ft"}).get_json()
    assert foreign == {"rows": [], "keys": [], "unclear": ["a", "b"]}, "nothing is filled in by itself"
    answer = problem(client.post("/api/tables/pore/paste", json={"text": "1\tx", "first": "tvd_ft"}), 422)
    assert [f["path"] for f in answer["faults"]] == ["/rows/0/emw_ppg"]
    text = client.get("/api/designs/2/tables/pore?mixed=depth:m").get_data(as_text=True)
    assert text.splitlines()[:2] == ["TVD (m),EMW (ppg)", "9.144,8.4"]
    data = base64.b64encode(text.encode()).decode()
    shown = client.post("/api/tables/pore/preview", json={"name": "p.csv", "data": data}).get_json()
    body = {"name": "p.csv", "data": data, "mapping": shown["mapping"], "trajectory": demo()["trajectory"]}
    rows = client.post("/api/tables/pore/import", json=body).get_json()["rows"]
    assert [round(r["tvd_ft"], 6) for r in rows] == [p["tvd_ft"] for p in demo()["ground"]["pore"]]
    problem(client.post("/api/tables/ghost/paste", json={"text": "1", "first": "tvd_ft"}), 422)
    problem(
        client.post("/api/tables/pore/preview", json={"name": "x.las", "data": base64.b64encode(b"~V").decode()}), 422
    )
