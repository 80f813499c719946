"""What the list of wells shows of each design: worked when it is first asked for, then kept until something changes."""

from __future__ import annotations

import hashlib
import sqlite3
from functools import lru_cache
from pathlib import Path

from flask import Response
from flask_openapi3 import APIBlueprint

import knollstack
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.summary import Summary
from knollstack.core.reading.read import decode
from knollstack.server import models, tasks
from knollstack.server.ask import heavy
from knollstack.server.database import connection
from knollstack.server.respond import json_of
from knollstack.store import summaries as store
from knollstack.store.revisions import newest_revision
from knollstack.store.wells import find_design

blueprint = APIBlueprint("summaries", __name__, url_prefix="/api")


@lru_cache(maxsize=1)
def program() -> str:
    """A mark of everything that judges: another one, and what was worked before no longer holds."""
    root = Path(knollstack.__file__).parent
    files = sorted(p for part in ("core", "catalogue") for p in (root / part).rglob("*") if p.suffix in (".py", ".csv"))
    mark = hashlib.sha256()
    for file in files:
        mark.update(file.relative_to(root).as_posix().encode())
        mark.update(file.read_bytes())
    return mark.hexdigest()


def known(held: sqlite3.Connection) -> dict[int, Summary]:
    return {k: Summary.model_validate_json(text) for k, text in store.summaries(held, program()).items()}


@blueprint.post("/summaries", responses={200: models.Summaries})
def work_summaries(body: models.DesignIds) -> Response:
    """Summaries of some designs; those that do not hold any more are worked again. A design that is gone is left out."""
    held, found = connection(), {}
    kept = known(held)
    for design_id in dict.fromkeys(body.designs):
        summary = kept.get(design_id) or _worked(held, design_id)
        if summary is not None:
            found[design_id] = summary
    return json_of(models.Summaries(summaries=found))


def _worked(held: sqlite3.Connection, design_id: int) -> Summary | None:
    revision = newest_revision(held, design_id) if find_design(held, design_id) else None
    if revision is None:
        return None
    try:
        summary = Summary.model_validate_json(heavy(tasks.tell_summary, decode(revision.document)))
    except FaultyDesign as error:
        summary = Summary(unreadable=error.faults[0].message)
    store.keep_summary(held, design_id, revision.number, program(), summary.model_dump_json())
    return summary
