"""Summaries of designs: what a list shows, kept with the revision and the state of the program that it was worked by."""

from __future__ import annotations

import sqlite3

from knollstack.store.database import writing


def summaries(connection: sqlite3.Connection, worked_by: str) -> dict[int, str]:
    """The summaries that still hold, by design: of the newest revision, worked by this program."""
    rows = connection.execute(
        """
        SELECT summary.design_id, summary.content FROM summary
        WHERE summary.worked_by = :worked_by
          AND summary.revision = (SELECT max(number) FROM revision WHERE design_id = summary.design_id)
        """,
        {"worked_by": worked_by},
    )
    return {row["design_id"]: row["content"] for row in rows}


def keep_summary(connection: sqlite3.Connection, design_id: int, revision: int, worked_by: str, content: str) -> None:
    """Keep a summary in place of the one before it; nothing where the design is gone meanwhile."""
    with writing(connection):
        connection.execute(
            """
            INSERT OR REPLACE INTO summary (design_id, revision, worked_by, content)
            SELECT :design_id, :revision, :worked_by, :content
            WHERE EXISTS (SELECT 1 FROM design WHERE id = :design_id)
            """,
            {"design_id": design_id, "revision": revision, "worked_by": worked_by, "content": content},
        )
