"""The feeds of the wells that are served: a connection each, what it read last, and what came since, kept in the store."""

from __future__ import annotations

import contextlib
import json
import sqlite3
import threading
import time
from collections import deque
from dataclasses import dataclass, field

from knollstack.core.logbook.channels import Channel
from knollstack.rig.channels import Reading
from knollstack.rig.connection import Connection, Source, State
from knollstack.rig.simulated.playing import Playing
from knollstack.rig.spans import Span, Thinner, thinned
from knollstack.rig.wits import Counts
from knollstack.store.database import connect
from knollstack.store.feed import SpanRow, add_spans, list_spans

RECENT = 1_500
WRITE_S = 1.0
"""Spans are written together, so often."""


def row_of(span: Span) -> SpanRow:
    return SpanRow(span.begins_s, span.span_s, json.dumps(span.as_lists(), separators=(",", ":")))


def span_of(row: SpanRow) -> Span:
    return Span.of_lists(row.begins_s, row.span_s, json.loads(row.content))


def thin(rows: list[SpanRow], keep: int) -> list[SpanRow]:
    return [row_of(span) for span in thinned([span_of(row) for row in rows], keep)]


@dataclass
class Feed:
    """One well's feed, written by its own thread and read by those who listen."""

    well_id: int
    database: str
    source: Source
    state: State = "stopped"
    why: str = ""
    since: float = 0.0
    connection: Connection | None = None
    playing: Playing | None = None
    latest: dict[Channel, float] = field(default_factory=dict)
    at_s: int = 0
    spans: deque[tuple[int, Span]] = field(default_factory=lambda: deque(maxlen=RECENT))
    """With the number of each, by which a listener says what it has."""
    number: int = 0
    turn: threading.Condition = field(default_factory=threading.Condition)
    _thinner: Thinner = field(default_factory=Thinner)
    _unwritten: list[Span] = field(default_factory=list)
    _written: float = 0.0

    def start(self) -> None:
        self.connection = Connection(self.source, self.take, self.tell)
        self.connection.start()

    def stop(self) -> None:
        if self.connection is not None:
            self.connection.stop()
        if self.playing is not None:
            self.playing.stop()
        self.tell("stopped", "")

    def tell(self, state: State, why: str) -> None:
        with self.turn:
            self.state, self.why, self.since = state, why, time.time()
            self.turn.notify_all()
        if state in ("lost", "stopped"):
            self._end_span()

    def take(self, readings: list[Reading]) -> None:
        made = [span for reading in readings for span in self._thinner.add(reading)]
        with self.turn:
            for reading in readings:
                self.latest |= reading.values
            self.at_s = readings[-1].at_s
            self._note(made)
            self.turn.notify_all()
        if time.monotonic() - self._written > WRITE_S:
            self._write()

    def _note(self, made: list[Span]) -> None:
        for span in made:
            self.number += 1
            self.spans.append((self.number, span))
        self._unwritten += made

    def _end_span(self) -> None:
        with self.turn:
            self._note(list(self._thinner.end()))
        self._write()

    def _write(self) -> None:
        """What cannot be written now (the disk is full, say) is written with what comes next, as far as it is kept."""
        self._written = time.monotonic()
        rows, self._unwritten = self._unwritten[-RECENT:], []
        if not rows:
            return
        try:
            with contextlib.closing(connect(self.database)) as held:
                add_spans(held, self.well_id, [row_of(span) for span in rows], thin)
        except sqlite3.Error:
            self._unwritten = [*rows, *self._unwritten]
            return
        with self.turn:
            self.turn.notify_all()

    @property
    def counts(self) -> Counts:
        return self.connection.decoder.counts if self.connection is not None else Counts()

    def remember(self) -> None:
        """What the store has of before, so that who listens sees it."""
        with contextlib.closing(connect(self.database)) as held:
            rows = list_spans(held, self.well_id, RECENT)
        self._note([span_of(row) for row in rows])
        self._unwritten = []


class Feeds:
    """All of them; they run only where a server was told to (`live`)."""

    def __init__(self, database: str) -> None:
        self.database, self.live = database, False
        self._feeds: dict[int, Feed] = {}
        self._lock = threading.Lock()

    def of(self, well_id: int) -> Feed | None:
        return self._feeds.get(well_id)

    def start(self, well_id: int, source: Source, playing: Playing | None = None) -> Feed:
        """In place of the one before."""
        self.stop(well_id)
        feed = Feed(well_id, self.database, source, playing=playing)
        feed.remember()
        with self._lock:
            self._feeds[well_id] = feed
        if self.live:
            if playing is not None:
                playing.start()
            feed.start()
        return feed

    def stop(self, well_id: int) -> None:
        with self._lock:
            feed = self._feeds.pop(well_id, None)
        if feed is not None:
            feed.stop()

    def stop_all(self) -> None:
        for well_id in list(self._feeds):
            self.stop(well_id)
