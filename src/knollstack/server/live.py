"""The simulated rig of a well, and what of a rig live departs from the plan."""

from __future__ import annotations

from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.logbook.live import MOST_SPANS, Departure, Limits, LiveSpan, PlannedNow, departures
from knollstack.core.logbook.watches import WATCHES
from knollstack.core.reading.read import parse_text
from knollstack.rig.connection import Source
from knollstack.rig.simulated.playing import FASTEST, Playing
from knollstack.rig.simulated.rig import SimulatedRig
from knollstack.rig.simulated.timeline import Timeline
from knollstack.rig.simulated.troubles import MOST_TROUBLES, Trouble, parse_trouble
from knollstack.server import models, tasks
from knollstack.server.ask import heavy
from knollstack.server.database import connection
from knollstack.server.feed import FeedView, feed_view, feeds_here, row_of_path
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import json_of
from knollstack.store.feed import clear_spans
from knollstack.store.revisions import newest_revision

blueprint = APIBlueprint("live", __name__, url_prefix="/api")


class RigBody(BaseModel):
    """A simulated rig: how fast, from which depth, with which noise and troubles."""

    speed: Annotated[float, Field(ge=0.1, le=FASTEST)] = 60.0
    from_md_ft: Annotated[float, Field(ge=0, le=40_000)] = 0.0
    seed: Annotated[int, Field(strict=True, ge=0, le=2**31)] = 1
    troubles: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=MOST_TROUBLES)] = []


class DepartureBody(BaseModel):
    planned: PlannedNow
    spans: Annotated[list[LiveSpan], Field(max_length=MOST_SPANS)]
    limits: Limits = Limits()


class Departures(BaseModel):
    departures: tuple[Departure, ...]


@blueprint.post("/designs/<int:design_id>/simulated-rig", responses={200: FeedView, 409: Problem})
def start_rig(path: models.DesignPath, body: RigBody) -> Response:
    """A simulated rig that plays the newest revision; what the feed brought before is forgotten."""
    row = row_of_path(path)
    revision = newest_revision(connection(), path.design_id) if row is not None else None
    if row is None or revision is None:
        return not_found(f"design {path.design_id}")
    troubles = _troubles(body.troubles)
    if not feeds_here().live:
        return respond(Problem(title="No feed", status=503, detail="This server reads no feed."))
    timeline = Timeline.model_validate_json(heavy(tasks.tell_timeline, parse_text(revision.document)))
    if not timeline.phases:
        return respond(Problem(title="Nothing to drill", status=409, detail="The design has no string to drill for."))
    playing = Playing(SimulatedRig(timeline, troubles, body.seed, body.from_md_ft), body.speed)
    clear_spans(connection(), row.well_id)
    feeds_here().start(row.well_id, Source("127.0.0.1", playing.port), playing)
    return json_of(feed_view(row.well_id))


def _troubles(texts: list[str]) -> tuple[Trouble, ...]:
    faults: list[Fault] = []
    found: list[Trouble] = []
    for i, text in enumerate(texts):
        try:
            found.append(parse_trouble(text))
        except ValueError as error:
            value, _, expected = str(error).partition(": expected ")
            faults.append(Fault(path=f"/troubles/{i}", value=value, expected=expected))
    if faults:
        raise FaultyDesign(faults)
    return tuple(found)


@blueprint.delete("/designs/<int:design_id>/simulated-rig", responses={200: FeedView})
def stop_rig(path: models.DesignPath) -> Response:
    """Stop the simulated rig."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    feed = feeds_here().of(row.well_id)
    if feed is not None and feed.playing is not None:
        feeds_here().stop(row.well_id)
    return json_of(feed_view(row.well_id))


@blueprint.post("/departures", responses={200: Departures})
def tell_departures(body: DepartureBody) -> Response:
    """What of a rig live departs from the plan, in words."""
    return json_of(Departures(departures=departures(body.spans, body.planned, body.limits, WATCHES)))
