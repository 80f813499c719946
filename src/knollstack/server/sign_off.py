"""Sign-off: a revision checked and approved by named accounts, and what has changed since."""

from __future__ import annotations

import hashlib
import json
from typing import Annotated, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.compare import Difference, differences
from knollstack.core.reading.read import parse_text
from knollstack.server import models, tasks
from knollstack.server.accounts import account, in_force
from knollstack.server.ask import light
from knollstack.server.database import connection, now
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import json_of
from knollstack.store import revisions
from knollstack.store import signatures as store
from knollstack.store.wells import find_design

blueprint = APIBlueprint("sign_off", __name__, url_prefix="/api/designs/<int:design_id>/sign-off")


class SignatureItem(BaseModel):
    """A signature; `same_results` tells whether the design evaluates today as it did when it was signed."""

    number: int
    kind: store.SignatureKind
    name: str
    role: str
    signed_at: str
    document_hash: str
    note: str
    same_results: bool | None = None


class SignOff(BaseModel):
    """What is signed of the newest revision, what was approved last, and what changed since that."""

    revision: int
    document_hash: str
    state: Literal["approved", "checked", "not approved"]
    signatures: list[SignatureItem]
    last_approval: SignatureItem | None
    changes: list[Difference]
    may_check: bool
    may_approve: bool
    may_withdraw: bool
    why_not: str


class SignBody(BaseModel):
    """The revision and document that were looked at: another one meanwhile is not signed."""

    revision: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    document_hash: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    kind: store.SignatureKind
    note: Annotated[str, Field(max_length=2_000)] = ""


def results_hash(text: str) -> str:
    """SHA-256 of everything that a document evaluates to."""
    return hashlib.sha256(light(tasks.create_evaluation, json.loads(text)).encode()).hexdigest()


def sign_off_of(design_id: int, newest: revisions.Revision) -> SignOff:
    """Where the sign-off of a design stands."""
    given = store.list_signatures(connection(), design_id)
    held = store.in_force(given, newest.number)
    approvals = [s for s in given if s.kind == "approved" and s in store.in_force(given, s.number)]
    last = approvals[-1] if approvals else None
    kinds = {s.kind for s in held}
    state: Literal["approved", "checked", "not approved"] = (
        "approved" if "approved" in kinds else "checked" if "checked" in kinds else "not approved"
    )
    today = results_hash(newest.document) if held else ""
    changes = _changes_since(design_id, last, newest)
    check, approve, why = _may(design_id, newest, last, kinds)
    mine = account()
    return SignOff(
        revision=newest.number,
        document_hash=newest.hash,
        state=state,
        signatures=[_item(s, s.evaluation_hash == today) for s in held],
        last_approval=_item(last, None) if last else None,
        changes=changes,
        may_check=check,
        may_approve=approve,
        may_withdraw=bool(mine and kinds and (mine.role == "approver" or any(s.name == mine.name for s in held))),
        why_not=why,
    )


def _item(signature: store.Signature, same: bool | None) -> SignatureItem:
    kept = {k: v for k, v in signature.__dict__.items() if k != "evaluation_hash"}
    return SignatureItem(**kept, same_results=same)


def _changes_since(design_id: int, last: store.Signature | None, newest: revisions.Revision) -> list[Difference]:
    if last is None or last.number == newest.number:
        return []
    signed = revisions.get_revision(connection(), design_id, last.number)
    assert signed is not None
    return differences(parse_text(signed.document), parse_text(newest.document))


def _may(
    design_id: int, newest: revisions.Revision, last: store.Signature | None, kinds: set[store.SignatureKind]
) -> tuple[bool, bool, str]:
    """Whether the person may check and approve, and why not: nobody signs for own work."""
    mine = account()
    if not in_force() or mine is None:
        return False, False, "Sign-off needs accounts: whoever runs the server adds them with knollstack user add."
    if mine.role == "viewer":
        return False, False, "A viewer does not sign."
    authors = _authors(design_id, last.number if last else 0, newest.number)
    if mine.name in authors:
        return False, False, "You saved revisions since the last approval: another person checks and approves them."
    approve = mine.role == "approver" and "approved" not in kinds
    why = "" if mine.role == "approver" else "You may check; an approver approves."
    return "checked" not in kinds, approve, why


def _authors(design_id: int, after: int, upto: int) -> set[str]:
    """Who saved what is not approved yet."""
    return store.authors_since(connection(), design_id, after if after < upto else upto - 1, upto)


@blueprint.get("", responses={200: SignOff})
def tell_sign_off(path: models.DesignPath) -> Response:
    """What is checked and approved of the newest revision, and what changed since the last approval."""
    newest = _newest(path.design_id)
    if newest is None:
        return not_found(f"design {path.design_id}")
    return json_of(sign_off_of(path.design_id, newest))


def _newest(design_id: int) -> revisions.Revision | None:
    there = find_design(connection(), design_id)
    return revisions.newest_revision(connection(), design_id) if there else None


@blueprint.post("", responses={200: SignOff, 403: Problem, 409: Problem})
def sign(path: models.DesignPath, body: SignBody) -> Response:
    """Check, approve, or withdraw what was signed of the newest revision."""
    newest, mine = _newest(path.design_id), account()
    if newest is None:
        return not_found(f"design {path.design_id}")
    stands = sign_off_of(path.design_id, newest)
    may = {"checked": stands.may_check, "approved": stands.may_approve, "withdrawn": stands.may_withdraw}
    if mine is None or not may[body.kind]:
        why = stands.why_not or f"Revision {stands.revision} cannot be {body.kind} by you as it stands."
        return respond(Problem(title="Not signed", status=403, detail=why))
    signature = store.Signature(
        number=body.revision,
        kind=body.kind,
        name=mine.name,
        role=mine.role,
        signed_at=now(),
        document_hash=body.document_hash,
        evaluation_hash=results_hash(newest.document),
        note=body.note,
    )
    try:
        store.sign(connection(), path.design_id, mine, signature)
    except store.NotNewestError:
        detail = f"Revision {body.revision} is not the newest any more, or not the document you looked at."
        return respond(Problem(title="Not signed", status=409, detail=detail))
    return json_of(sign_off_of(path.design_id, newest))
