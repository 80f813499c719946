"""Sessions: signing in and out, and what each role may do. Only where accounts are in force."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Annotated

from flask import Flask, Response, current_app, g, make_response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.faults import Fault
from knollstack.server.database import connection, now
from knollstack.server.passwords import LONGEST, fault_of, hashed, is_right
from knollstack.server.problems import Problem, faulty, respond
from knollstack.server.respond import json_of
from knollstack.store import accounts as store

COOKIE = "knollstack_session"
LASTS, IDLE, NOTED_EVERY = timedelta(days=7), timedelta(hours=12), timedelta(minutes=5)
WINDOW = timedelta(minutes=15)
MOST_BOTH, MOST_ADDRESS, MOST_NAME = 5, 20, 50
COMPUTES = frozenset(
    {
        "create_evaluation",
        "create_programs",
        "try_remedies",
        "tell_differences",
        "create_working",
        "merge_documents",
        "create_loads",
        "create_tally",
        "create_run",
        "create_cement_job",
        "create_offers",
        "create_run_sheet",
        "create_kill_sheet",
        "create_logbook",
        "tell_fact_tables",
        "tell_departures",
        "tell_sheet_changes",
        "create_chains",
        "draw_ground",
        "draw_kick",
        "plan_path",
        "estimate",
        "move_to_water",
        "read_paste",
        "preview_import",
        "take_import",
        "work_summaries",
        "try_formula",
    }
)
"""Operations that change nothing though they take a body: open to every role."""
REHEARSES = frozenset({"begin_drill", "begin_from_file", "play_drill", "end_drill"})
"""A crew rehearses without changing a design: these write drills of its own alone."""
OPEN = frozenset({"session.tell_session", "session.sign_in", "session.sign_out", "page"})
"""What is answered to anyone: the front end itself, and the way in."""
blueprint = APIBlueprint("session", __name__, url_prefix="/api/session")


class SessionView(BaseModel):
    """Whether accounts are in force, and who is signed in."""

    accounts: bool
    name: str | None = None
    role: store.Role | None = None


class SignInBody(BaseModel):
    name: Annotated[str, Field(min_length=1, max_length=100)]
    password: Annotated[str, Field(min_length=1, max_length=LONGEST)]


class PasswordBody(BaseModel):
    old: Annotated[str, Field(min_length=1, max_length=LONGEST)]
    new: Annotated[str, Field(min_length=1, max_length=LONGEST)]


def in_force() -> bool:
    """Whether one has to sign in: beyond loopback always, on it as soon as there is an account; never with --open."""
    if current_app.config["OPEN"]:
        return False
    return bool(current_app.config["BEYOND"] or store.list_accounts(connection()))


def account() -> store.Account | None:
    """The account that is signed in."""
    if "account" not in g:
        g.account = _account()
    found: store.Account | None = g.account
    return found


def _ago(span: timedelta) -> str:
    return (datetime.now(UTC) - span).isoformat(timespec="seconds")


def _account() -> store.Account | None:
    token = request.cookies.get(COOKIE)
    if not token or not in_force():
        return None
    found = store.account_of_session(connection(), token, _ago(LASTS), _ago(IDLE))
    if found is not None:
        store.touch_session(connection(), token, now(), _ago(NOTED_EVERY))
    return found


def admit(app: Flask) -> None:
    """Let nobody in without a session where accounts are in force, and nobody do more than the role allows."""

    def check() -> Response | None:
        if request.endpoint is None or request.endpoint in OPEN or not in_force():
            return None
        found = account()
        if found is None:
            return respond(Problem(title="Not signed in", status=401, detail="Sign in first. Nothing was changed."))
        operation = request.endpoint.rpartition(".")[2]
        free = COMPUTES | REHEARSES
        changes = request.method not in ("GET", "HEAD", "OPTIONS") and operation not in free
        if changes and found.role == "viewer" and operation != "change_password":
            detail = "A viewer looks at wells and tries things out, and saves nothing. Nothing was changed."
            return respond(Problem(title="Not allowed", status=403, detail=detail))
        return None

    app.before_request(check)


def _view() -> SessionView:
    found = account()
    if found is None:
        return SessionView(accounts=in_force())
    return SessionView(accounts=True, name=found.name, role=found.role)


@blueprint.get("", responses={200: SessionView})
def tell_session() -> Response:
    """Who is signed in."""
    return json_of(_view())


@blueprint.post("", responses={200: SessionView, 401: Problem, 429: Problem})
def sign_in(body: SignInBody) -> Response:
    """Begin a session; after a few wrong tries one has to wait."""
    held, address = connection(), request.remote_addr or ""
    name = " ".join(body.name.split())
    both, of_address, of_name = store.failures(held, name, address, _ago(WINDOW))
    if both >= MOST_BOTH or of_address >= MOST_ADDRESS or of_name >= MOST_NAME:
        response = respond(
            Problem(title="Too many tries", status=429, detail="Wait a quarter of an hour, then try again.")
        )
        response.headers["Retry-After"] = str(int(WINDOW.total_seconds()))
        return response
    found = store.find_account(held, name) if in_force() else None
    if not is_right(body.password, found[1] if found else None) or found is None:
        store.note_failure(held, name, address, now())
        return respond(Problem(title="Not signed in", status=401, detail="Name and password do not go together."))
    store.forget_failures(held, name, address)
    store.end_old_sessions(held, _ago(LASTS), _ago(IDLE))
    g.account = found[0]
    response = json_of(_view())
    response.set_cookie(
        COOKIE,
        store.begin_session(held, found[0].id, now()),
        max_age=int(LASTS.total_seconds()),
        httponly=True,
        samesite="Strict",
        secure=request.is_secure,
        path="/",
    )
    return response


@blueprint.delete("", responses={204: None})
def sign_out() -> Response:
    """End the session."""
    store.end_session(connection(), request.cookies.get(COOKIE, ""))
    response = make_response("", 204)
    response.delete_cookie(COOKIE, path="/", httponly=True, samesite="Strict", secure=request.is_secure)
    return response


@blueprint.put("/password", responses={204: None, 401: Problem})
def change_password(body: PasswordBody) -> Response:
    """Another password for the account that is signed in; its sessions end, this one too."""
    mine = account()
    found = store.find_account(connection(), mine.name) if mine else None
    if mine is None or found is None or not is_right(body.old, found[1]):
        return respond(Problem(title="Not changed", status=401, detail="The old password is another one."))
    expected = fault_of(body.new, mine.name)
    if expected is not None:
        return faulty([Fault(path="/new", value=f"{len(body.new)} characters", expected=expected)])
    store.set_password(connection(), mine.id, hashed(body.new))
    return make_response("", 204)
