"""Drafts: documents that came too late for a revision of their own, kept until they are merged or dropped by hand."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from knollstack.store.database import writing
from knollstack.store.packing import hash_of, packed, unpacked


@dataclass(frozen=True)
class Draft:
    id: int
    design_id: int
    based_on: int
    author: str
    saved_at: str
    document: str


def list_drafts(connection: sqlite3.Connection, design_id: int) -> list[Draft]:
    """The drafts of a design, newest first."""
    rows = connection.execute(
        "SELECT * FROM draft WHERE design_id = :id ORDER BY saved_at DESC, id DESC", {"id": design_id}
    )
    return [_draft(row) for row in rows]


def get_draft(connection: sqlite3.Connection, design_id: int, draft_id: int) -> Draft | None:
    row = connection.execute(
        "SELECT * FROM draft WHERE design_id = :design AND id = :id", {"design": design_id, "id": draft_id}
    ).fetchone()
    return _draft(row) if row else None


def _draft(row: sqlite3.Row) -> Draft:
    kept = {k: row[k] for k in ("id", "design_id", "based_on", "author", "saved_at")}
    return Draft(**kept, document=unpacked(row["content"], row["hash"]))


def renew_draft(
    connection: sqlite3.Connection, design_id: int, draft_id: int, document: str, author: str, now: str
) -> bool:
    """What its author edited since, in a draft's place; False when there is no such draft of that author.

    Whoever takes up a draft and changes nothing leaves it as it is.
    """
    held = get_draft(connection, design_id, draft_id)
    if held is not None and held.document == document:
        return True
    with writing(connection):
        return (
            connection.execute(
                """
                UPDATE draft SET saved_at = :now, hash = :hash, content = :content
                WHERE id = :id AND design_id = :design AND author = :author
                """,
                {
                    "author": author,
                    "id": draft_id,
                    "design": design_id,
                    "now": now,
                    "hash": hash_of(document),
                    "content": packed(document),
                },
            ).rowcount
            > 0
        )


def drop_draft(connection: sqlite3.Connection, design_id: int, draft_id: int) -> bool:
    """Drop a draft that was merged or is not wanted; False when there is no such draft."""
    with writing(connection):
        dropped = connection.execute(
            "DELETE FROM draft WHERE id = :id AND design_id = :design", {"id": draft_id, "design": design_id}
        )
        return dropped.rowcount > 0
