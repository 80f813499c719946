"""The log of a well: entries appended together or not at all, numbered in the order in which they were written."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from typing import NamedTuple

from knollstack.store.database import writing


class LogRow(NamedTuple):
    """An entry as it is kept: its number in the well's log, what it corrects, and its text."""

    number: int
    corrects: int | None
    content: str


def list_log(connection: sqlite3.Connection, well_id: int) -> list[LogRow]:
    """Every entry of a well in the order written."""
    rows = connection.execute(
        "SELECT number, corrects, content FROM log_entry WHERE well_id = :well ORDER BY number", {"well": well_id}
    )
    return [LogRow(row["number"], row["corrects"], row["content"]) for row in rows]


def append_log(
    connection: sqlite3.Connection, well_id: int, make: Callable[[list[LogRow]], Sequence[LogRow]]
) -> Sequence[LogRow]:
    """Append what `make` gives from the log as it stands, with the write lock held, so that it is checked against all of it."""
    with writing(connection):
        made = make(list_log(connection, well_id))
        insert_log(connection, well_id, made)
    return made


def insert_log(connection: sqlite3.Connection, well_id: int, rows: Sequence[LogRow]) -> None:
    """Inside a transaction."""
    connection.executemany(
        "INSERT INTO log_entry (well_id, number, corrects, content) VALUES (:well, :number, :corrects, :content)",
        [{"well": well_id, **row._asdict()} for row in rows],
    )
