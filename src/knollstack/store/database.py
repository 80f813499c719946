"""Connections and migrations."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path

from knollstack.store.packing import hash_of, packed


def connect(path: str | Path) -> sqlite3.Connection:
    """A connection with foreign keys on, WAL, full durability of what was acknowledged, and rows by name."""
    connection = sqlite3.connect(path, isolation_level=None, timeout=10)
    connection.row_factory = sqlite3.Row
    connection.execute("PRAGMA foreign_keys = ON")
    connection.execute("PRAGMA journal_mode = WAL")
    connection.execute("PRAGMA synchronous = FULL")
    return connection


@contextmanager
def writing(connection: sqlite3.Connection) -> Iterator[None]:
    """One transaction that takes the write lock at once, so that a check and the write it guards are one."""
    connection.execute("BEGIN IMMEDIATE")
    try:
        yield
    except BaseException:
        connection.execute("ROLLBACK")
        raise
    connection.execute("COMMIT")


def migrations() -> list[str]:
    """Names of all migrations, in their order."""
    return sorted(f.name for f in files(__package__).joinpath("migrations").iterdir() if f.name.endswith(".sql"))


def migrate(connection: sqlite3.Connection) -> None:
    """Apply the migrations that this file has not seen, each in a transaction with its own record."""
    scripts = migrations()
    connection.create_function("packed", 1, packed, deterministic=True)
    connection.create_function("hash_of", 1, hash_of, deterministic=True)
    with writing(connection):
        connection.execute("CREATE TABLE IF NOT EXISTS migration (name TEXT PRIMARY KEY) STRICT")
    for name in scripts:
        with writing(connection):
            seen = connection.execute("SELECT 1 FROM migration WHERE name = :name", {"name": name}).fetchone()
            if seen:
                continue
            for statement in _statements(files(__package__).joinpath("migrations", name).read_text(encoding="utf-8")):
                connection.execute(statement)
            connection.execute("INSERT INTO migration (name) VALUES (:name)", {"name": name})


def _statements(script: str) -> list[str]:
    """Statements of a script; sqlite3 itself says where one is complete (a trigger holds semicolons)."""
    found, pending = [], ""
    for line in script.splitlines(keepends=True):
        pending += line
        if sqlite3.complete_statement(pending):
            found.append(pending)
            pending = ""
    return found
