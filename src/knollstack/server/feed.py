"""A rig's feed over HTTP: where it comes from, what it brings as it comes (server-sent events), and the simulated rig."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from threading import BoundedSemaphore
from typing import Annotated, Any, Literal

from flask import Response, current_app, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.base.dates import A_MOMENT
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.document.log import PumpedPoint
from knollstack.core.logbook.channels import Channel
from knollstack.core.logbook.live import MOST_SPANS, Limits, LiveSpan
from knollstack.rig.channels import seconds_of
from knollstack.rig.connection import Source
from knollstack.rig.spans import Span
from knollstack.rig.testing import points_of
from knollstack.server import models, tasks
from knollstack.server.ask import heavy
from knollstack.server.database import connection
from knollstack.server.feeds import RECENT, Feed, Feeds, span_of, thin
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import json_of
from knollstack.store.feed import SpanRow, add_spans, clear_spans, get_feed, list_spans, set_feed
from knollstack.store.wells import DesignRow, find_design

blueprint = APIBlueprint("feed", __name__, url_prefix="/api")
MOST_LISTENERS = 12
LISTEN_S, BEAT_S, ALIVE_S = 240.0, 0.5, 10.0
"""A listener comes again after a while; what is new is sent no oftener than a beat; silence is broken now and then."""
_listeners = BoundedSemaphore(MOST_LISTENERS)
Host = Annotated[str, Field(min_length=1, max_length=200, pattern=r"^[A-Za-z0-9.:_-]+$")]
Code = Annotated[str, Field(pattern=r"^[0-9]{4}$")]


class FeedSource(BaseModel):
    """Where a feed is read from. `codes` names further WITS codes by their channel."""

    host: Host
    port: Annotated[int, Field(strict=True, ge=1, le=65_535)]
    protocol: Literal["WITS level 0", "CSV"] = "WITS level 0"
    units: Literal["field", "metric"] = "field"
    codes: Annotated[dict[Code, Channel], Field(max_length=60)] = {}
    limits: Limits = Limits()

    def as_source(self) -> Source:
        return Source(self.host, self.port, self.protocol, self.units == "metric", tuple(self.codes.items()))


class FeedBody(BaseModel):
    source: FeedSource
    on: bool = True


class FeedCounts(BaseModel):
    records: int
    lines: int
    bad_lines: int
    broken: int


class FeedView(BaseModel):
    """Where the feed comes from and how it stands; none is set where there is no source."""

    source: FeedSource | None = None
    on: bool = False
    state: Literal["connecting", "connected", "lost", "stopped"] = "stopped"
    why: str = ""
    simulated: bool = False
    counts: FeedCounts = FeedCounts(records=0, lines=0, bad_lines=0, broken=0)


class SpanList(BaseModel):
    spans: list[LiveSpan]


class SpansQuery(BaseModel):
    since: Annotated[int, Field(ge=0, le=10**11)] = 0
    most: Annotated[int, Field(ge=1, le=MOST_SPANS)] = MOST_SPANS


class FileTaken(BaseModel):
    readings: int
    spans: int
    bad_lines: int
    channels: tuple[Channel, ...]


class PointsQuery(BaseModel):
    begins: Annotated[str, Field(max_length=20, description="YYYY-MM-DD HH:MM")]
    ends: Annotated[str, Field(max_length=20, description="YYYY-MM-DD HH:MM")]


class TestPoints(BaseModel):
    points: tuple[PumpedPoint, ...]


class FeedFile(BaseModel):
    """A file of readings, thinned."""

    readings: int
    bad_lines: int
    channels: tuple[Channel, ...]
    rows: list[SpanRow]


def feeds_here() -> Feeds:
    found: Feeds = current_app.extensions["feeds"]
    return found


def row_of_path(path: models.DesignPath) -> DesignRow | None:
    return find_design(connection(), path.design_id)


def _kept(well_id: int) -> tuple[FeedSource | None, bool]:
    text = get_feed(connection(), well_id)
    if text is None:
        return None, False
    kept = FeedBody.model_validate_json(text)
    return kept.source, kept.on


def feed_view(well_id: int) -> FeedView:
    source, on = _kept(well_id)
    feed = feeds_here().of(well_id)
    if feed is None:
        return FeedView(source=source, on=False)
    counts = FeedCounts(**feed.counts.__dict__)
    held = feed.source
    if feed.playing is not None:
        source = FeedSource(host=held.host, port=held.port, limits=source.limits if source else Limits())
    return FeedView(
        source=source, on=on or feed.playing is not None, state=feed.state, why=feed.why, simulated=feed.playing is not None,
        counts=counts,
    )  # fmt: skip


@blueprint.get("/designs/<int:design_id>/feed", responses={200: FeedView})
def get_feed_view(path: models.DesignPath) -> Response:
    """The feed of a design's well."""
    row = row_of_path(path)
    return not_found(f"design {path.design_id}") if row is None else json_of(feed_view(row.well_id))


@blueprint.put("/designs/<int:design_id>/feed", responses={200: FeedView})
def put_feed(path: models.DesignPath, body: FeedBody) -> Response:
    """Where the feed is read from, and whether it is: it is connected, and comes again by itself where it is lost."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    set_feed(connection(), row.well_id, body.model_dump_json())
    if body.on:
        feeds_here().start(row.well_id, body.source.as_source())
    else:
        feeds_here().stop(row.well_id)
    return json_of(feed_view(row.well_id))


@blueprint.delete("/designs/<int:design_id>/feed/spans", responses={204: None})
def clear_feed(path: models.DesignPath) -> Response:
    """Forget what the feed brought."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    clear_spans(connection(), row.well_id)
    return Response(status=204)


@blueprint.get("/designs/<int:design_id>/feed/spans", responses={200: SpanList})
def list_feed_spans(path: models.DesignPath, query: SpansQuery) -> Response:
    """What the feed brought, thinned: the newest spans of the rig's clock."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    rows = list_spans(connection(), row.well_id, query.most, query.since)
    spans = [LiveSpan(begins_s=r.begins_s, span_s=r.span_s, values=json.loads(r.content)) for r in rows]
    return json_of(SpanList(spans=spans))


@blueprint.get("/designs/<int:design_id>/feed/points", responses={200: TestPoints})
def read_test_points(path: models.DesignPath, query: PointsQuery) -> Response:
    """A leak-off test as the feed brought it, between two times of the rig's clock."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    begins, ends = seconds_of(query.begins), seconds_of(query.ends)
    if begins is None or ends is None:
        bad = query.begins if begins is None else query.ends
        raise FaultyDesign([Fault(path="/begins" if begins is None else "/ends", value=bad, expected=A_MOMENT)])
    spans = [span_of(r) for r in list_spans(connection(), row.well_id, MOST_SPANS, begins) if r.begins_s <= ends]
    found = points_of(spans)
    return json_of(TestPoints(points=tuple(PumpedPoint(volume_bbl=v, pressure_psi=max(0.0, p)) for v, p in found)))


@blueprint.post("/designs/<int:design_id>/feed/file", responses={200: FileTaken})
def take_feed_file(path: models.DesignPath) -> Response:
    """A feed as a CSV file: its readings are thinned and kept beside those that came live."""
    row = row_of_path(path)
    if row is None:
        return not_found(f"design {path.design_id}")
    file = FeedFile.model_validate_json(heavy(tasks.read_feed_file, request.get_data()))
    kept = add_spans(connection(), row.well_id, file.rows, thin)
    taken = FileTaken(readings=file.readings, spans=kept, bad_lines=file.bad_lines, channels=file.channels)
    return json_of(taken)


@blueprint.get("/designs/<int:design_id>/feed/events", responses={404: Problem, 503: Problem})
def listen(path: models.DesignPath) -> Response:
    """What the feed brings, as server-sent events: its state, its gauges, and spans as they end."""
    row = row_of_path(path)
    feed = feeds_here().of(row.well_id) if row is not None else None
    if feed is None:
        return not_found(f"feed of design {path.design_id}")
    if not _listeners.acquire(blocking=False):
        detail = f"{MOST_LISTENERS} pages listen already; close one, or wait."
        response = respond(Problem(title="Too many listeners", status=503, detail=detail))
        response.headers["Retry-After"] = "5"
        return response
    known = request.headers.get("Last-Event-ID", "")
    since = int(known) if known.isdecimal() else -1
    feeds, well_id = feeds_here(), feed.well_id
    response = Response(_events(feeds, well_id, feed, since), mimetype="text/event-stream")
    response.headers["X-Accel-Buffering"] = "no"
    response.call_on_close(_listeners.release)
    return response


def _events(feeds: Feeds, well_id: int, feed: Feed, since: int) -> Iterator[str]:
    begun = alive = time.monotonic()
    seen, told = max(0, since), ""
    if since > feed.number:
        seen = 0  # another run of the server counts anew
    while time.monotonic() - begun < LISTEN_S:
        with feed.turn:
            spans = [(n, s) for n, s in feed.spans if n > seen][-RECENT:]
            now = _event_of(feed, spans)
        text = json.dumps(now, separators=(",", ":"))
        if spans or text != told:
            seen, told = feed.number if spans else seen, text
            yield f"id: {seen}\ndata: {text}\n\n"
            alive = time.monotonic()
        elif time.monotonic() - alive > ALIVE_S:
            yield ": still here\n\n"
            alive = time.monotonic()
        if not feeds.live or feeds.of(well_id) is not feed:
            return
        time.sleep(BEAT_S)


def _event_of(feed: Feed, spans: list[tuple[int, Span]]) -> dict[str, Any]:
    return {
        "state": feed.state,
        "why": feed.why,
        "at_s": feed.at_s,
        "latest": feed.latest,
        "counts": feed.counts.__dict__,
        "spans": [{"begins_s": s.begins_s, "span_s": s.span_s, "values": s.as_lists()} for _, s in spans],
    }
