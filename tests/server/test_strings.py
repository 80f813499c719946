"""Sizes and pipe over HTTP: all loads, offers, chains, and the catalogue of a size."""

import pytest

from tests.helpers import demo


def test_loads_offers_and_chains(client):
    loads = client.post("/api/loads", json={"document": demo(), "string": 2}).get_json()
    nodes = len(loads["md_ft"])
    assert {len(case[key]) for case in loads["cases"] for key in ("inside_psi", "axial_lbf", "share")} == {nodes}
    assert {"running", "cementing", "gas to surface", "lost returns"} <= {case["name"] for case in loads["cases"]}
    offers = client.post("/api/pipe-offers", json={"document": demo(), "string": 2}).get_json()["offers"]
    assert offers[0]["sections"][0]["to_md_ft"] == 7000.0
    chains = client.post("/api/chains", json={"document": demo()}).get_json()
    assert chains["count"] >= len(chains["chains"]) > 10


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ({"document": demo(), "string": 0}, 404),
        ({"document": demo(), "string": 9}, 404),
        ({"document": demo(), "string": -1}, 422),
        ({"document": {}, "string": 1}, 422),
        ({"string": 1}, 422),
    ],
)
def test_what_cannot_be_answered_is_said(client, body, status):
    answer = client.post("/api/loads", json=body)
    assert answer.status_code == status
    assert answer.get_json()["detail"]


def test_catalogue_of_a_size_names_its_sources(client):
    rows = client.get("/api/catalogue/pipes?od_in=4.5").get_json()["pipes"]
    assert {row["kind"] for row in rows} == {"casing", "tubing"}
    assert all(row["source"] for row in rows)
    unknown = [row for row in rows if row["connection"] == "NUE"]
    assert unknown
    assert {row["joint_lbf"] for row in unknown} == {None}
    assert client.get("/api/catalogue/pipes?od_in=-1").status_code == 422
    view = client.get("/api/catalogue").get_json()
    assert {"STC", "LTC", "BTC", "BTC-SC", "PTC", "SFJ", "FJ"} == {c["connection"] for c in view["connections"]}


def test_a_cement_job_is_told_moment_by_moment(client):
    """At the last moment mud, spacer and slurry stand in the annulus by their volumes, and the pump's number is the headline."""
    document = demo()
    found = client.post("/api/cement-jobs", json={"document": document, "string": 2}).get_json()
    (stage,) = found["stages"]
    moments = {len(stage[key]) for key in ("minutes", "pumped_bbl", "in_bpm", "out_bpm", "pump_psi", "level_md_ft")}
    moments |= {len(stage[key]) for key in ("pipe_md_ft", "annulus_psi", "node_pipe_psi", "shoe_ppg", "weakest_ppg")}
    assert len(moments) == 1
    names = [fluid["name"] for fluid in stage["fluids"]]
    assert names == ["mud", "spacer", "tail", "displacement"]
    assert stage["annulus_md_ft"][-1][2] == pytest.approx(1700.0, abs=0.2), "the planned top of cement"
    row = client.post("/api/evaluations", json={"document": document}).get_json()["cement"]["strings"][2]["stages"][0]
    final, bumped, bled = stage["pump_psi"][stage["closing"] - 1 :]
    assert (final, bumped) == pytest.approx((row["final_pump_psi"], row["bumped_psi"]), abs=2.0)
    assert bled == 0.0
    assert any("free fall" in "".join(map(str, event["words"])) for event in stage["events"])
    document["strings"][2]["reading_300"] = None
    wanting = client.post("/api/cement-jobs", json={"document": document, "string": 2}).get_json()
    assert wanting["stages"] == []
    assert "rheometer" in wanting["missing"]
    assert client.post("/api/cement-jobs", json={"document": demo(), "string": 0}).status_code == 404
    assert client.get("/api/designs/2/strings/2/cement.pdf").data.startswith(b"%PDF")
    for path in ("2/strings/0", "2/strings/12", "99/strings/2", "1/strings/2"):
        assert client.get(f"/api/designs/{path}/cement.pdf").status_code == 404
