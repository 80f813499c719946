"""A database looked at before it is used: what cannot be used is told in one line, with what to do."""

from __future__ import annotations

import contextlib
import sqlite3
from pathlib import Path

from knollstack.store.database import connect, migrate, migrations

OURS = int.from_bytes(b"Knol", "big")
BACKUP = int.from_bytes(b"KnoB", "big")
"""Marks in the header of the file (application_id): a live database, and a copy made by backup."""


class UnusableDatabaseError(Exception):
    """The file cannot be used; the message says which, why, and what to do."""


_RESTORE = "put a backup back with: knollstack restore FILE"


def mark_of(path: Path) -> int | None:
    """The mark in a file's header; None where there is no SQLite database."""
    try:
        with path.open("rb") as file:
            header = file.read(100)
    except OSError:
        return None
    is_sqlite = len(header) == 100 and header.startswith(b"SQLite format 3\0")
    return int.from_bytes(header[68:72], "big") if is_sqlite else None


def prepare(path: Path) -> None:
    """Check a database and bring it up to date; raises UnusableDatabaseError and changes nothing where it cannot be used."""
    is_new = not path.exists() or path.stat().st_size == 0
    try:
        if not is_new:
            with contextlib.closing(sqlite3.connect(path, timeout=10)) as connection:
                check(connection, path)
        with contextlib.closing(connect(path)) as connection:
            migrate(connection)
            connection.execute(f"PRAGMA application_id = {OURS}")  # also shows that it can be written
    except (sqlite3.Error, OSError) as error:
        raise UnusableDatabaseError(f"{path}: {_why(error)}") from error


def check(connection: sqlite3.Connection, path: Path) -> None:
    """Raises UnusableDatabaseError for the database of another program, a newer one, or a damaged one."""
    tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    mark = connection.execute("PRAGMA application_id").fetchone()[0]
    if mark not in (0, OURS, BACKUP) or (tables and "migration" not in tables):
        raise UnusableDatabaseError(f"{path}: the database of another program; give another folder with --data")
    found = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
    if found != "ok":
        raise UnusableDatabaseError(f"{path}: the database is damaged ({' '.join(found.split())}); {_RESTORE}")
    if tables:
        seen = {name for (name,) in connection.execute("SELECT name FROM migration")}
        newer = sorted(seen - set(migrations()))
        if newer:
            raise UnusableDatabaseError(
                f"{path}: written by a newer Knollstack ({newer[0]}); update this one to open it"
            )


def _why(error: sqlite3.Error | OSError) -> str:
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    words = {
        sqlite3.SQLITE_NOTADB: f"no database, or a damaged one; move it away, or {_RESTORE}",
        sqlite3.SQLITE_CORRUPT: f"the database is damaged ({error}); {_RESTORE}",
        sqlite3.SQLITE_READONLY: "the database is read-only; make the file and its folder writable for this user",
        sqlite3.SQLITE_CANTOPEN: "the database cannot be opened; make the file and its folder writable for this user",
        sqlite3.SQLITE_FULL: "the disk is full; make room and start again",
        sqlite3.SQLITE_BUSY: "another program holds the database; stop it and start again",
    }
    return words.get(code, f"{error}; {_RESTORE}")
