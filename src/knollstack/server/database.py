"""One connection a request."""

import sqlite3
from datetime import UTC, datetime

from flask import current_app, g

from knollstack.store.database import connect


def connection() -> sqlite3.Connection:
    if "connection" not in g:
        g.connection = connect(current_app.config["DATABASE"])
    held: sqlite3.Connection = g.connection
    return held


def close(_error: BaseException | None = None) -> None:
    held = g.pop("connection", None)
    if held is not None:
        held.close()


def now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
