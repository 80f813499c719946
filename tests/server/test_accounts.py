"""Accounts: who gets in, what each role may do, and that a signature cannot be had otherwise than by signing."""

import contextlib
import io
import sqlite3

import pytest
from pypdf import PdfReader

from knollstack.server import accounts
from knollstack.server.app import create_app
from knollstack.server.passwords import fault_of, hashed, is_right
from knollstack.store import accounts as store
from knollstack.store.database import connect
from tests.helpers import demo
from tests.server.test_api import DEMO, problem

PEOPLE = {"Vera": "viewer", "Ann": "designer", "Ben": "designer", "Cleo": "approver"}
PASSWORD = "gravel under tallow"


@pytest.fixture(scope="module")
def password_hash():
    return hashed(PASSWORD)


@pytest.fixture
def team(app, password_hash):
    """The demo wells with four accounts."""
    with contextlib.closing(connect(app.config["DATABASE"])) as connection:
        for name, role in PEOPLE.items():
            store.add_account(connection, name, password_hash, role, "2026-01-01T00:00:00+00:00")
    return app


def enter(app, name, password=PASSWORD):
    client = app.test_client()
    assert client.post("/api/session", json={"name": name, "password": password}).status_code == 200
    return client


def save(client, based_on, shoe, **headers):
    document = demo()
    document["strings"][2]["shoe_md_ft"] = shoe
    body = {"well_id": DEMO, "based_on": based_on, "document": document}
    return client.put(f"/api/designs/{DEMO}", json=body, headers=headers)


def sign_off(client):
    return client.get(f"/api/designs/{DEMO}/sign-off").get_json()


def sign(client, kind, **other):
    stands = sign_off(client)
    body = {"revision": stands["revision"], "document_hash": stands["document_hash"], "kind": kind} | other
    return client.post(f"/api/designs/{DEMO}/sign-off", json=body)


def test_without_accounts_everyone_on_this_machine_is_in(client):
    assert client.get("/api/session").get_json() == {"accounts": False, "name": None, "role": None}
    assert client.get("/api/designs").status_code == 200
    problem(client.post("/api/session", json={"name": "Ann", "password": PASSWORD}), 401)


def test_nothing_is_told_before_one_signs_in(team):
    client = team.test_client()
    for rule in team.url_map.iter_rules():
        path = rule.rule.replace("<int:", "<").replace("<string:", "<")
        for name in ("design_id", "well_id", "other_id", "number", "draft_id", "row_id", "drill_id", "string"):
            path = path.replace(f"<{name}>", "2")
        path = path.replace("<target>", "pore").replace("<name>", "maasp").replace("<kind>", "well")
        if path.startswith("/api/") and path != "/api/session":
            for method in rule.methods - {"OPTIONS", "HEAD"}:
                problem(client.open(path, method=method, json={}), 401)
    assert client.get("/").status_code == 200, "the front end itself"
    assert client.get("/api/session").get_json()["accounts"] is True


def test_a_session_is_a_cookie_that_scripts_and_other_sites_do_not_get(team):
    client = team.test_client()
    answer = client.post("/api/session", json={"name": "  ann ", "password": PASSWORD})
    assert answer.get_json() == {"accounts": True, "name": "Ann", "role": "designer"}
    cookie = answer.headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie
    assert "Secure" not in cookie
    with contextlib.closing(sqlite3.connect(team.config["DATABASE"])) as held:
        (kept,) = held.execute("SELECT token_hash FROM session").fetchone()
    assert kept not in cookie, "the store holds no token"
    assert save(client, 1, 7100.0, **{"Knollstack-Name": "Cleo"}).status_code == 200
    assert client.get(f"/api/designs/{DEMO}").get_json()["item"]["author"] == "Ann", "the account, not what is claimed"
    assert client.delete("/api/session").status_code == 204
    problem(client.get("/api/designs"), 401)
    secure = team.test_client().post(
        "/api/session", json={"name": "Ann", "password": PASSWORD}, base_url="https://localhost"
    )
    assert "Secure" in secure.headers["Set-Cookie"]


@pytest.mark.parametrize(("age", "lasts"), [({"hours": 11}, True), ({"hours": 13}, False)])
def test_a_session_ends_when_it_is_long_unused(team, age, lasts):
    from datetime import UTC, datetime, timedelta

    client = enter(team, "Ann")
    with contextlib.closing(connect(team.config["DATABASE"])) as held:
        then = (datetime.now(UTC) - timedelta(**age)).isoformat(timespec="seconds")
        held.execute("UPDATE session SET seen_at = :then", {"then": then})
    assert client.get("/api/designs").status_code == (200 if lasts else 401)


def test_wrong_tries_are_few(team, monkeypatch):
    client = team.test_client()
    monkeypatch.setattr(accounts, "is_right", lambda password, hash: hash is not None and password == PASSWORD)
    for name in ("Ann", "nobody"):
        for _ in range(accounts.MOST_BOTH):
            problem(client.post("/api/session", json={"name": name, "password": "wrong"}), 401)
        limited = client.post("/api/session", json={"name": name.upper(), "password": PASSWORD})
        problem(limited, 429)
        assert int(limited.headers["Retry-After"]) == 900
    assert enter(team, "Ben"), "another name is not held back"
    with contextlib.closing(connect(team.config["DATABASE"])) as held:
        held.execute("UPDATE failed_sign_in SET at = '2026-01-01T00:00:00+00:00'")
    assert enter(team, "Ann"), "after a while one may try again"


def test_a_viewer_computes_and_saves_nothing(team):
    vera, ann = enter(team, "Vera"), enter(team, "Ann")
    before = vera.get(f"/api/designs/{DEMO}").get_json()
    assert vera.post("/api/evaluations", json={"document": demo()}).status_code == 200
    writing = [
        rule
        for rule in team.url_map.iter_rules()
        if rule.rule.startswith("/api/")
        and rule.endpoint.rpartition(".")[2] not in accounts.COMPUTES | accounts.REHEARSES
    ]
    for rule in writing:
        for method in rule.methods - {"OPTIONS", "HEAD", "GET"}:
            path = rule.rule.replace("<int:design_id>", "2").replace("<int:well_id>", "2")
            path = path.replace("<int:draft_id>", "1").replace("<string:kind>", "well").replace("<int:row_id>", "2")
            path = path.replace("<int:drill_id>", "2")
            if "/session" not in path:
                problem(vera.open(path, method=method, json={}), 403)
    assert vera.get(f"/api/designs/{DEMO}").get_json() == before
    assert save(ann, 1, 7100.0).status_code == 200


def test_what_computes_changes_nothing(app, client):
    """Every operation that a viewer may call leaves wells, designs, revisions, drafts and the bin as they are."""

    def state():
        with contextlib.closing(sqlite3.connect(app.config["DATABASE"])) as held:
            return [
                held.execute(f"SELECT * FROM {t}").fetchall()
                for t in ("well", "design", "revision", "draft", "signature", "sheet_issue")
            ]

    before, called = state(), set()
    bodies = {
        "document": demo(),
        "before": demo(),
        "after": demo(),
        "key": "depths/2/maasp",
        "string": 1,
        "designs": [1],
    }
    bodies |= {
        "based_on": 1,
        "theirs": 1,
        "method": "Eaton",
        "text": "1\t2",
        "first": "tvd_ft",
        "name": "p.csv",
        "inputs": {},
    }
    for rule in app.url_map.iter_rules():
        operation = rule.endpoint.rpartition(".")[2]
        if operation in accounts.COMPUTES:
            path = (
                rule.rule.replace("<int:design_id>", "2")
                .replace("<string:target>", "pore")
                .replace("<string:name>", "maasp")
            )
            client.post(path, json=bodies)
            called.add(operation)
    assert called == accounts.COMPUTES
    assert state() == before
    # rooms whose operations only compute: a viewer may call all of them
    rooms = ("evaluations.", "strings.", "drawings.")
    asked = [
        rule.endpoint for rule in app.url_map.iter_rules() if rule.endpoint.startswith(rooms) and "POST" in rule.methods
    ]
    assert {endpoint.partition(".")[2] for endpoint in asked} <= accounts.COMPUTES


def test_a_password_is_changed_and_every_session_ends(team):
    client, other = enter(team, "Ann"), enter(team, "Ann")
    problem(client.put("/api/session/password", json={"old": "wrong", "new": "another good one"}), 401)
    answer = problem(client.put("/api/session/password", json={"old": PASSWORD, "new": "short"}), 422)
    assert answer["faults"][0]["path"] == "/new"
    assert "short" not in str(answer)
    assert client.put("/api/session/password", json={"old": PASSWORD, "new": "another good one"}).status_code == 204
    problem(other.get("/api/designs"), 401)
    assert enter(team, "Ann", "another good one")


@pytest.mark.parametrize(
    ("password", "taken"),
    [
        ("elevenchars", False),
        ("twelve chars", True),
        ("my name is Ann", False),
        ("aaaaaaaaaaaabbb", False),
        ("x y" * 90, False),
    ],
)
def test_passwords_that_are_taken(password, taken):
    assert (fault_of(password, "Ann") is None) is taken
    assert not is_right(password, None)
    assert not is_right(password, "no hash")


def test_a_revision_is_checked_and_approved_by_others_than_its_author(team):
    ann, ben, cleo, vera = (enter(team, name) for name in ("Ann", "Ben", "Cleo", "Vera"))
    save(ann, 1, 7100.0)
    assert sign_off(ann)["state"] == "not approved"
    for client, kind in [(ann, "checked"), (ann, "approved"), (vera, "checked"), (ben, "approved"), (ben, "withdrawn")]:
        problem(sign(client, kind), 403)
    assert sign(ben, "checked").get_json()["state"] == "checked"
    problem(sign(ben, "checked"), 403)
    stands = sign(cleo, "approved", note="with the liner option kept").get_json()
    assert stands["state"] == "approved"
    assert [(s["kind"], s["name"], s["number"], s["same_results"]) for s in stands["signatures"]] == [
        ("checked", "Ben", 2, True),
        ("approved", "Cleo", 2, True),
    ]
    save(ben, 2, 7200.0)
    after = sign_off(cleo)
    assert (after["state"], after["signatures"], after["last_approval"]["number"]) == ("not approved", [], 2)
    assert [c["subject"] for c in after["changes"]] == ["9 5/8 in shoe"]
    assert not sign_off(ben)["may_check"]
    assert sign_off(ann)["may_check"], "what ann did was approved before"
    save(ann, 3, 7100.0)
    assert sign_off(cleo)["state"] == "not approved", "the same document again is another revision"
    assert sign_off(cleo)["changes"] == []


def sheet_text(client):
    pdf = client.get(f"/api/designs/{DEMO}/sheet").data
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages).split())


def test_the_sheet_prints_the_sign_off(team):
    ann, ben, cleo = (enter(team, name) for name in ("Ann", "Ben", "Cleo"))
    save(ann, 1, 7100.0)
    assert "Not approved." in sheet_text(ann)
    sign(ben, "checked")
    sign(cleo, "approved", note="with <care>")
    signed = sheet_text(ann)
    assert "approved by Cleo" in signed
    assert "Checked by Ben (designer)" in signed
    assert "with <care>" in signed
    assert sign_off(ann)["document_hash"] in signed.replace(" ", "")
    assert "Not approved" not in signed
    save(ben, 2, 7200.0)
    changed = sheet_text(ann)
    assert "Not approved. Revision 2 was approved by Cleo" in changed
    assert "9 5/8 in shoe 7,100 ft → 7,200 ft" in changed


def test_results_that_are_others_today_are_told(team, monkeypatch):
    ann, cleo = enter(team, "Ann"), enter(team, "Cleo")
    save(ann, 1, 7100.0)
    sign(cleo, "approved")
    monkeypatch.setattr("knollstack.server.sign_off.results_hash", lambda text: "1" * 64)
    assert [s["same_results"] for s in sign_off(ann)["signatures"]] == [False]
    assert "evaluates it otherwise today" in sheet_text(ann)


def test_a_signature_is_withdrawn(team):
    ann, cleo = enter(team, "Ann"), enter(team, "Cleo")
    save(ann, 1, 7100.0)
    sign(cleo, "approved")
    problem(sign(ann, "withdrawn"), 403)
    assert sign(cleo, "withdrawn").get_json()["state"] == "not approved"
    assert sign_off(cleo)["last_approval"] is None
    assert sign(cleo, "approved").get_json()["state"] == "approved"


def test_only_what_was_looked_at_is_signed(team):
    ann, cleo = enter(team, "Ann"), enter(team, "Cleo")
    seen = sign_off(cleo)
    save(ann, 1, 7100.0)
    for other in (
        {"revision": seen["revision"], "document_hash": seen["document_hash"]},
        {"document_hash": "0" * 64},
        {"revision": 9},
    ):
        problem(sign(cleo, "approved", **other), 409)
    assert sign_off(cleo)["state"] == "not approved"
    problem(sign(cleo, "approved", document_hash="x"), 422)


def test_a_signature_is_not_had_otherwise(team):
    """Not by a copy, not by a file, not by a claimed name, not by writing over it."""
    ann, cleo = enter(team, "Ann"), enter(team, "Cleo")
    save(ann, 1, 7100.0)
    sign(cleo, "approved")
    copied = ann.post(f"/api/designs/{DEMO}/copies", json={"name": "Copy"}).get_json()["design_id"]
    file = ann.get(f"/api/designs/{DEMO}/file").data
    brought = ann.post("/api/wells/file", data=file, content_type="application/octet-stream").get_json()["design_id"]
    for design in (copied, brought):
        assert ann.get(f"/api/designs/{design}/sign-off").get_json()["state"] == "not approved"
    with contextlib.closing(connect(team.config["DATABASE"])) as held:
        for statement in (
            "UPDATE signature SET number = 1",
            "DELETE FROM signature",
            "REPLACE INTO signature SELECT id, design_id, number, kind, account_id, 'x', role, signed_at, document_hash,"
            " evaluation_hash, note FROM signature",
            "INSERT INTO signature (design_id, number, kind, account_id, name, role, signed_at, document_hash, evaluation_hash,"
            f" note) SELECT 1, 1, kind, account_id, name, role, signed_at, '{'0' * 64}', evaluation_hash, note FROM signature",
        ):
            with pytest.raises(sqlite3.IntegrityError):
                held.execute(statement)
    assert sign_off(cleo)["state"] == "approved"


def test_open_to_all_asks_nobody_and_signs_nothing(team, tmp_path):
    client = create_app(team.config["DATABASE"], beyond=True, open_to_all=True).test_client()
    assert client.get("/api/designs").status_code == 200
    stands = sign_off(client)
    assert not stands["may_approve"]
    problem(sign(client, "approved"), 403)


def test_beyond_loopback_nobody_is_let_in_even_when_the_last_account_goes(app):
    client = create_app(app.config["DATABASE"], beyond=True).test_client()
    problem(client.get("/api/designs"), 401)


def test_a_viewer_rehearses_and_nobody_plays_on_another_s_drill(team):
    vera, ann = enter(team, "Vera"), enter(team, "Ann")
    scene = {"kind": "drilling", "hole": "s3", "md_ft": 3500.0}
    made = vera.post(f"/api/designs/{DEMO}/drills", json={"document": demo(), "scene": scene})
    assert made.status_code == 201
    drill = f"/api/drills/{made.get_json()['id']}"
    problem(ann.post(f"{drill}/steps", json={"to_s": 30}), 403)
    problem(ann.post(f"{drill}/end", json={"to_s": 30}), 403)
    assert vera.post(f"{drill}/steps", json={"to_s": 30}).get_json()["state"]["clock_s"] == 30
    assert vera.post(f"{drill}/end", json={"to_s": 30}).status_code == 200
    assert ann.get(f"{drill}/debrief").status_code == 200
    problem(vera.delete(drill), 403)
