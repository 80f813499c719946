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
    unknown = [row for row in rows if row["connection"] == "EUE"]
    assert unknown
    assert {row["joint_lbf"] for row in unknown} == {None}
    assert client.get("/api/catalogue/pipes?od_in=-1").status_code == 422
    view = client.get("/api/catalogue").get_json()
    assert {"STC", "LTC", "BTC", "BTC-SC", "PTC", "SFJ", "FJ"} == {c["connection"] for c in view["connections"]}
