"""Revisions of a design: saved on one another, read back, told in words; what came too late is kept and merged."""

from __future__ import annotations

import json
import sqlite3
from contextlib import suppress

from flask import Response, make_response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from knollstack.core.document.compare import Difference, differences
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.document.merge import Merged, merge
from knollstack.core.reading.read import parse, parse_text
from knollstack.formats import wellfile
from knollstack.server import models
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.problems import Problem, Stale, deleted, not_found, respond
from knollstack.server.respond import json_of
from knollstack.server.summaries import program
from knollstack.store import drafts
from knollstack.store import revisions as store
from knollstack.store.database import writing
from knollstack.store.signatures import in_force, list_signatures
from knollstack.store.wells import find_design

PAGE = 40
blueprint = APIBlueprint("revisions", __name__, url_prefix="/api/designs/<int:design_id>")


@blueprint.put("", responses={200: models.Saved, 409: Stale, 410: Problem})
def save_design(path: models.DesignPath, body: models.SaveBody) -> Response:
    """Save the next revision; 409 with the newest one, and a draft kept, when the save is based on an older."""
    design = parse(body.document)
    if design.log:
        expected = "none: the log is written entry by entry, apart from the design"
        raise FaultyDesign([Fault(path="/log", value=f"{len(design.log)} entries", expected=expected)])
    text = wellfile.write(design)
    try:
        revision = store.save_revision(
            connection(), body.well_id, path.design_id, body.based_on, design.name, text, author(), now(), body.note
        )
    except store.DeletedError:
        return deleted(path.design_id)
    except store.StaleSaveError as stale:
        return respond(
            Stale(
                title="The design was changed elsewhere",
                status=409,
                detail=f"Revision {stale.newest.number} was saved after revision {stale.based_on}. Both are kept.",
                newest_revision=stale.newest.number,
                newest_document=json.loads(stale.newest.document),
                newest_author=stale.newest.author,
                draft_id=stale.draft_id,
            )
        )
    with suppress(sqlite3.Error):  # the revision is saved: its words can be made again
        before = store.get_revision(connection(), path.design_id, revision.number - 1)
        words = _words(before, text)
        store.keep_words(connection(), path.design_id, {revision.number: words.model_dump_json()}, program())
    return json_of(models.Saved(design_id=path.design_id, revision=revision.number, saved_at=revision.saved_at))


@blueprint.get("/revisions", responses={200: models.RevisionList})
def list_revisions(path: models.DesignPath, query: models.HistoryQuery) -> Response:
    """Revisions newest first, each with what changed from the one before it."""
    held = connection()
    there = find_design(held, path.design_id)
    heads = store.list_heads(held, path.design_id, query.before, PAGE + 1, program()) if there else []
    if not heads:
        return not_found(f"revision of design {path.design_id} before {query.before}")
    told = {head.number: RevisionWords.model_validate_json(head.words) for head in heads if head.words is not None}
    if any(head.number not in told for head in heads[:PAGE]):
        told |= _told(path.design_id, query.before, set(told))
    given = list_signatures(held, path.design_id)
    items = [
        models.RevisionItem(
            number=head.number,
            author=head.author,
            saved_at=head.saved_at,
            note=head.note,
            changes=told[head.number].changes,
            unreadable=told[head.number].unreadable,
            signatures=[f"{s.kind} by {s.name}" for s in in_force(given, head.number)],
        )
        for head in heads[:PAGE]
    ]
    return json_of(models.RevisionList(revisions=items, more=len(heads) > PAGE))


class RevisionWords(BaseModel):
    """What changed from the revision before; `unreadable` says why it cannot be told."""

    changes: list[Difference]
    unreadable: str = ""


def _told(design_id: int, before: int, known: set[int]) -> dict[int, RevisionWords]:
    """The words of a page of revisions that are not kept yet, worked and kept."""
    rows = store.list_revisions(connection(), design_id, before, PAGE + 1)
    older = {row.number: row for row in rows}
    found: dict[int, RevisionWords] = {}
    for row in rows[:PAGE]:
        if row.number not in known:
            found[row.number] = _words(older.get(row.number - 1), row.document)
    store.keep_words(connection(), design_id, {n: w.model_dump_json() for n, w in found.items()}, program())
    return found


def _words(before: store.Revision | None, text: str) -> RevisionWords:
    design, unreadable = _read(text)
    old = _read(before.document)[0] if before is not None else None
    changes = differences(old, design) if old is not None and design is not None else []
    return RevisionWords(changes=changes, unreadable=unreadable)


def _read(text: str) -> tuple[Design | None, str]:
    """A revision's document; where it cannot be read, why not: the others are still shown."""
    try:
        return parse_text(text), ""
    except FaultyDesign as error:
        return None, error.faults[0].message


@blueprint.get("/revisions/<int:number>", responses={200: Design})
def get_revision(path: models.RevisionPath) -> Response:
    """The document of one revision."""
    there = find_design(connection(), path.design_id)
    revision = store.get_revision(connection(), path.design_id, path.number) if there else None
    if revision is None:
        return not_found(f"revision {path.number} of design {path.design_id}")
    return json_of(parse_text(revision.document))


@blueprint.post("/merges", responses={200: Merged})
def merge_documents(path: models.DesignPath, body: models.MergeBody) -> Response:
    """A document and a revision in one: place by place, by choice where both changed the same. Nothing is saved."""
    mine = parse(body.document)
    there = find_design(connection(), path.design_id)
    theirs = store.get_revision(connection(), path.design_id, body.theirs) if there else None
    if theirs is None:
        return not_found(f"revision {body.theirs} of design {path.design_id}")
    base = store.get_revision(connection(), path.design_id, body.based_on)
    known = _read(base.document)[0] if base is not None else None
    return json_of(merge(known, parse_text(theirs.document), mine, body.choices))


def _item(draft: drafts.Draft) -> models.DraftItem:
    return models.DraftItem(id=draft.id, based_on=draft.based_on, author=draft.author, saved_at=draft.saved_at)


@blueprint.get("/drafts", responses={200: models.DraftList})
def list_drafts(path: models.DesignPath) -> Response:
    """The drafts kept beside a design's revisions, newest first."""
    if find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    return json_of(models.DraftList(drafts=[_item(d) for d in drafts.list_drafts(connection(), path.design_id)]))


@blueprint.get("/drafts/<int:draft_id>", responses={200: models.DraftView})
def get_draft(path: models.DraftPath) -> Response:
    """One draft with its document."""
    draft = drafts.get_draft(connection(), path.design_id, path.draft_id)
    if draft is None:
        return not_found(f"draft {path.draft_id} of design {path.design_id}")
    return json_of(models.DraftView(item=_item(draft), document=parse_text(draft.document)))


@blueprint.put("/drafts/<int:draft_id>", responses={200: models.KeptDraft, 410: Problem})
def renew_draft(path: models.DraftPath, body: models.DraftBody) -> Response:
    """What was edited since in a draft's place; where that was dropped meanwhile, in one of its own."""
    text = wellfile.write(parse(body.document))
    held, moment = connection(), now()
    try:
        store.check_there(held, body.well_id, path.design_id)
    except store.DeletedError:
        return deleted(path.design_id)
    if drafts.renew_draft(held, path.design_id, path.draft_id, text, author(), moment):
        return json_of(models.KeptDraft(draft_id=path.draft_id))
    with writing(held):
        kept = store.keep_draft(held, path.design_id, body.based_on, text, author(), moment)
    return json_of(models.KeptDraft(draft_id=kept))


@blueprint.delete("/drafts/<int:draft_id>", responses={204: None})
def drop_draft(path: models.DraftPath) -> Response:
    """Drop a draft that was merged or is not wanted."""
    if not drafts.drop_draft(connection(), path.design_id, path.draft_id):
        return not_found(f"draft {path.draft_id} of design {path.design_id}")
    return make_response("", 204)
