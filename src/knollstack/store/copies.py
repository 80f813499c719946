"""The whole store copied to one file, and put back from one; nothing else is ever overwritten."""

from __future__ import annotations

import contextlib
import os
import sqlite3
from pathlib import Path

from knollstack.store.database import connect, migrate
from knollstack.store.opening import BACKUP, OURS, UnusableDatabaseError, check, mark_of

SIDES = ("", "-wal", "-shm")
"""A database and the files that belong to it while it is in use."""
UNKNOWN_LEFT = 1_000_000


def back_up(source: Path, target: Path) -> None:
    """Copy a database to one file, while it may be in use; raises UnusableDatabaseError. Replaces only an older backup."""
    if mark_of(source) is None:
        raise UnusableDatabaseError(f"{source}: no database; expected the data that `serve` keeps")
    if target.exists() and mark_of(target) != BACKUP:
        raise UnusableDatabaseError(f"{target}: exists and is no backup of Knollstack; give another name")
    if not target.parent.is_dir():
        raise UnusableDatabaseError(f"{target.parent}: no such folder; make it first")
    _copied(source, target, BACKUP)


def _copied(source: Path, target: Path, mark: int) -> None:
    """A whole copy beside the target takes its place at once, so that a stop in between leaves the old one."""
    made = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        with contextlib.closing(sqlite3.connect(source)) as origin, contextlib.closing(sqlite3.connect(made)) as copy:
            origin.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")
            copy.execute(f"PRAGMA application_id = {mark}")
            copy.commit()
        with made.open("rb") as file:
            os.fsync(file.fileno())
        made.replace(target)
    except (sqlite3.Error, OSError) as error:
        raise UnusableDatabaseError(f"{target}: cannot be written ({error}); nothing was changed") from error
    finally:
        for side in SIDES:
            Path(f"{made}{side}").unlink(missing_ok=True)


def put_back(backup: Path, target: Path, stamp: str) -> Path | None:
    """Put a backup in the place of a database, which is moved aside; returns where to, None where there was none.

    Raises UnusableDatabaseError, with nothing changed, where the backup cannot be used. Ids given since the backup are
    not given again.
    """
    if mark_of(backup) not in (BACKUP, OURS):
        raise UnusableDatabaseError(
            f"{backup}: no backup of Knollstack; expected a file written by `knollstack backup`"
        )
    staged = target.with_name(f".{target.name}.restored")
    staged.unlink(missing_ok=True)
    try:
        _copied(backup, staged, OURS)
        with contextlib.closing(connect(staged)) as connection:
            check(connection, backup)
            migrate(connection)
            _raise_ids(connection, _ids_of(target))
            connection.execute("PRAGMA journal_mode = DELETE")
        aside = _moved_aside(target, stamp)
        staged.replace(target)
    except (sqlite3.Error, OSError) as error:
        raise UnusableDatabaseError(f"{backup}: cannot be put back ({error}); the data is as it was") from error
    finally:
        for side in SIDES:
            Path(f"{staged}{side}").unlink(missing_ok=True)
    return aside


def _moved_aside(target: Path, stamp: str) -> Path | None:
    aside = target.with_name(f"{target.name}.before-{stamp}")
    moved = None
    for side in reversed(SIDES):
        part = Path(f"{target}{side}")
        if part.exists():
            part.rename(f"{aside}{side}")
            moved = aside
    return moved


def _ids_of(path: Path) -> dict[str, int] | None:
    """The last ids that a database gave; none for no database, None where they cannot be read."""
    if not path.exists():
        return {}
    try:
        with contextlib.closing(sqlite3.connect(path)) as held:
            return dict(held.execute("SELECT name, seq FROM sqlite_sequence").fetchall())
    except sqlite3.Error:
        return None


def _raise_ids(connection: sqlite3.Connection, given: dict[str, int] | None) -> None:
    """Begin behind what the database in use gave; far behind where that is not known."""
    for name in ("well", "design", "draft"):
        row = connection.execute("SELECT seq FROM sqlite_sequence WHERE name = :name", {"name": name}).fetchone()
        last = row["seq"] if row else 0
        then = last + UNKNOWN_LEFT if given is None else max(last, given.get(name, 0))
        connection.execute("DELETE FROM sqlite_sequence WHERE name = :name", {"name": name})
        connection.execute(
            "INSERT INTO sqlite_sequence (name, seq) VALUES (:name, :then)", {"name": name, "then": then}
        )
