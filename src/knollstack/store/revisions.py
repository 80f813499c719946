"""Revisions of a design: written once, packed against the last whole one, read back whole or not at all."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from knollstack.store.database import writing
from knollstack.store.packing import hash_of, packed, unpacked

WHOLE_EVERY = 50
"""A revision is kept whole at least so often: no other needs more than one before it to be read."""


@dataclass(frozen=True)
class Revision:
    design_id: int
    number: int
    parent: int | None
    author: str
    saved_at: str
    note: str
    document: str

    @property
    def hash(self) -> str:
        return hash_of(self.document)


@dataclass(frozen=True)
class Head:
    """A revision without its document, with the words of what changed where these were kept."""

    number: int
    author: str
    saved_at: str
    note: str
    words: str | None


class StaleSaveError(Exception):
    """A save based on a revision that is no longer the newest: kept as a draft beside it."""

    def __init__(self, based_on: int, newest: Revision, draft_id: int) -> None:
        self.based_on, self.newest, self.draft_id = based_on, newest, draft_id
        super().__init__(f"based on revision {based_on}, but revision {newest.number} is the newest")


class DeletedError(Exception):
    """A save for a design that is in the bin, is gone for good, or is of another well. Nothing was written."""


_COLUMNS = "design_id, number, parent, author, saved_at, note, hash, base, content"


def insert(connection: sqlite3.Connection, revision: Revision) -> None:
    """Write a revision, inside a transaction: small where the last whole one makes it so."""
    base = _base_for(connection, revision.design_id, revision.number)
    content = packed(revision.document)
    if base is not None:
        against = packed(revision.document, _text(connection, base, {}))
        base, content = (base, against) if 2 * len(against) < len(content) else (None, content)
    connection.execute(
        f"""
        INSERT INTO revision ({_COLUMNS})
        VALUES (:design_id, :number, :parent, :author, :saved_at, :note, :hash, :base, :content)
        """,
        {
            **revision.__dict__,
            "hash": revision.hash,
            "base": base["number"] if base is not None else None,
            "content": content,
        },
    )


def _base_for(connection: sqlite3.Connection, design_id: int, number: int) -> sqlite3.Row | None:
    row: sqlite3.Row | None = connection.execute(
        f"""
        SELECT {_COLUMNS} FROM revision WHERE design_id = :id AND base IS NULL AND number > :after
        ORDER BY number DESC LIMIT 1
        """,
        {"id": design_id, "after": number - WHOLE_EVERY},
    ).fetchone()
    return row


def _text(connection: sqlite3.Connection, row: sqlite3.Row, whole: dict[int, str]) -> str:
    """A row's document; `whole` keeps the texts of whole revisions between the rows of one reading."""
    base = None
    if row["base"] is not None:
        if row["base"] not in whole:
            key = {"id": row["design_id"], "number": row["base"]}
            query = f"SELECT {_COLUMNS} FROM revision WHERE design_id = :id AND number = :number"
            whole[row["base"]] = _text(connection, connection.execute(query, key).fetchone(), whole)
        base = whole[row["base"]]
    return unpacked(row["content"], row["hash"], base)


def _read(connection: sqlite3.Connection, rows: Iterable[sqlite3.Row]) -> list[Revision]:
    whole: dict[int, str] = {}
    kept = ("design_id", "number", "parent", "author", "saved_at", "note")
    return [Revision(**{k: row[k] for k in kept}, document=_text(connection, row, whole)) for row in rows]


def newest_revision(connection: sqlite3.Connection, design_id: int) -> Revision | None:
    return next(iter(list_revisions(connection, design_id, 2**62, 1)), None)


def get_revision(connection: sqlite3.Connection, design_id: int, number: int) -> Revision | None:
    return next((r for r in list_revisions(connection, design_id, number + 1, 1) if r.number == number), None)


def list_revisions(connection: sqlite3.Connection, design_id: int, before: int, count: int) -> list[Revision]:
    """Revisions with numbers under `before`, newest first."""
    rows = connection.execute(
        f"""
        SELECT {_COLUMNS} FROM revision WHERE design_id = :id AND number < :before ORDER BY number DESC LIMIT :count
        """,
        {"id": design_id, "before": before, "count": count},
    ).fetchall()
    return _read(connection, rows)


def list_heads(connection: sqlite3.Connection, design_id: int, before: int, count: int, worked_by: str) -> list[Head]:
    """Revisions with numbers under `before`, newest first, without their documents."""
    rows = connection.execute(
        """
        SELECT revision.number, author, saved_at, note, revision_words.content AS words
        FROM revision LEFT JOIN revision_words
          ON revision_words.design_id = revision.design_id AND revision_words.number = revision.number
         AND revision_words.worked_by = :worked_by
        WHERE revision.design_id = :id AND revision.number < :before ORDER BY revision.number DESC LIMIT :count
        """,
        {"id": design_id, "before": before, "count": count, "worked_by": worked_by},
    )
    return [Head(**row) for row in rows]


def keep_words(connection: sqlite3.Connection, design_id: int, words: Mapping[int, str], worked_by: str) -> None:
    """Keep what changed in revisions in words, in place of what was kept before; nothing where they are gone meanwhile."""
    with writing(connection):
        connection.executemany(
            """
            INSERT OR REPLACE INTO revision_words (design_id, number, worked_by, content)
            SELECT :id, :number, :worked_by, :content
            WHERE EXISTS (SELECT 1 FROM revision WHERE design_id = :id AND number = :number)
            """,
            [{"id": design_id, "number": n, "worked_by": worked_by, "content": c} for n, c in words.items()],
        )


def save_revision(
    connection: sqlite3.Connection,
    well_id: int,
    design_id: int,
    based_on: int,
    name: str,
    document: str,
    author: str,
    now: str,
    note: str = "",
) -> Revision:
    """Save the next revision of a design of a well.

    A save on a revision that is no longer the newest keeps the document as a draft and raises StaleSaveError; one for a
    design that is not there any more raises DeletedError. The well takes the name in the document. Saving the newest
    document again writes nothing.
    """
    stale = None
    with writing(connection):
        check_there(connection, well_id, design_id)
        newest = newest_revision(connection, design_id)
        assert newest is not None
        if newest.document == document:
            return newest
        if newest.number != based_on:
            stale = StaleSaveError(based_on, newest, keep_draft(connection, design_id, based_on, document, author, now))
        else:
            revision = Revision(design_id, based_on + 1, based_on, author, now, note, document)
            insert(connection, revision)
            connection.execute("UPDATE well SET name = :name WHERE id = :id", {"name": name, "id": well_id})
            # a draft that has become a revision is none any more
            connection.execute(
                "DELETE FROM draft WHERE design_id = :id AND hash = :hash", {"id": design_id, "hash": revision.hash}
            )
    if stale is not None:
        raise stale
    return revision


def check_there(connection: sqlite3.Connection, well_id: int, design_id: int) -> None:
    """Raises DeletedError unless the design is one of the well's and neither of them is in the bin."""
    there = connection.execute(
        """
        SELECT 1 FROM design JOIN well ON well.id = design.well_id
        WHERE design.id = :design AND well.id = :well AND design.deleted_at IS NULL AND well.deleted_at IS NULL
        """,
        {"design": design_id, "well": well_id},
    ).fetchone()
    if there is None:
        raise DeletedError(f"design {design_id} of well {well_id}")


def keep_draft(
    connection: sqlite3.Connection, design_id: int, based_on: int, document: str, author: str, now: str
) -> int:
    """Keep a document beside the revisions of its design, inside a transaction; the same one again is that draft."""
    hash = hash_of(document)
    values = {"design": design_id, "based_on": based_on, "author": author, "now": now, "hash": hash}
    known = connection.execute(
        "SELECT id FROM draft WHERE design_id = :design AND hash = :hash AND author = :author", values
    ).fetchone()
    if known is not None:
        return int(known["id"])
    draft = connection.execute(
        """
        INSERT INTO draft (design_id, based_on, author, saved_at, hash, content)
        VALUES (:design, :based_on, :author, :now, :hash, :content)
        """,
        {**values, "content": packed(document)},
    ).lastrowid
    assert draft is not None
    return draft
