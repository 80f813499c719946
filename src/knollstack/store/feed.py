"""What a rig's feed is read from, and the thinned spans that it brought; never more of them than are kept."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Sequence
from typing import NamedTuple

from knollstack.store.database import writing

MOST_SPANS = 20_000


class SpanRow(NamedTuple):
    """A span of the rig's clock; `content` is JSON: each channel as least, last and most."""

    begins_s: int
    span_s: int
    content: str


def get_feed(connection: sqlite3.Connection, well_id: int) -> str | None:
    row = connection.execute("SELECT content FROM feed WHERE well_id = :well", {"well": well_id}).fetchone()
    return None if row is None else str(row["content"])


def list_feeds(connection: sqlite3.Connection) -> dict[int, str]:
    """Of every well that is not in the bin."""
    rows = connection.execute(
        "SELECT well_id, feed.content FROM feed JOIN well ON well.id = well_id WHERE well.deleted_at IS NULL"
    )
    return {row["well_id"]: row["content"] for row in rows}


def set_feed(connection: sqlite3.Connection, well_id: int, content: str) -> None:
    with writing(connection):
        connection.execute(
            """
            INSERT INTO feed (well_id, content) VALUES (:well, :content)
            ON CONFLICT (well_id) DO UPDATE SET content = :content
            """,
            {"well": well_id, "content": content},
        )


def clear_spans(connection: sqlite3.Connection, well_id: int) -> None:
    with writing(connection):
        connection.execute("DELETE FROM feed_span WHERE well_id = :well", {"well": well_id})


def add_spans(
    connection: sqlite3.Connection,
    well_id: int,
    rows: Sequence[SpanRow],
    thin: Callable[[list[SpanRow], int], list[SpanRow]],
    most: int = MOST_SPANS,
) -> int:
    """Add spans, one that comes again in place of the old; beyond the most all are thinned. Returns how many are kept.

    A well that is gone meanwhile gets none.
    """
    with writing(connection):
        there = connection.execute("SELECT 1 FROM well WHERE id = :well", {"well": well_id}).fetchone()
        if there is None:
            return 0
        connection.executemany(
            "INSERT OR REPLACE INTO feed_span (well_id, begins_s, span_s, content) VALUES (:well, :begins, :span, :content)",
            [{"well": well_id, "begins": r.begins_s, "span": r.span_s, "content": r.content} for r in rows],
        )
        count = _count(connection, well_id)
        if count > most:
            kept = thin(list_spans(connection, well_id, count), most * 3 // 4)
            connection.execute("DELETE FROM feed_span WHERE well_id = :well", {"well": well_id})
            connection.executemany(
                "INSERT INTO feed_span (well_id, begins_s, span_s, content) VALUES (:well, :begins, :span, :content)",
                [{"well": well_id, "begins": r.begins_s, "span": r.span_s, "content": r.content} for r in kept],
            )
            return len(kept)
    return count


def _count(connection: sqlite3.Connection, well_id: int) -> int:
    row = connection.execute("SELECT count(*) AS n FROM feed_span WHERE well_id = :well", {"well": well_id}).fetchone()
    return int(row["n"])


def list_spans(connection: sqlite3.Connection, well_id: int, most: int, since_s: int = 0) -> list[SpanRow]:
    """The newest spans from a second on, in their order."""
    rows = connection.execute(
        """
        SELECT begins_s, span_s, content FROM feed_span
        WHERE well_id = :well AND begins_s >= :since ORDER BY begins_s DESC LIMIT :most
        """,
        {"well": well_id, "since": since_s, "most": most},
    ).fetchall()
    return [SpanRow(row["begins_s"], row["span_s"], row["content"]) for row in reversed(rows)]


def values_of(row: SpanRow) -> dict[str, list[float]]:
    found: dict[str, list[float]] = json.loads(row.content)
    return found
