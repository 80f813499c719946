"""Issues of a design's run sheet: which revision the rig has in hand, by whom and when. Written once."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from knollstack.store.database import writing


@dataclass(frozen=True)
class SheetIssue:
    issue: int
    number: int
    """Of the revision."""
    author: str
    issued_at: str
    note: str


class NotNewestError(Exception):
    """The revision to issue is not the design's newest. Nothing was written."""


def list_issues(connection: sqlite3.Connection, design_id: int) -> list[SheetIssue]:
    """Every issue of a design's sheet, the newest first."""
    rows = connection.execute(
        "SELECT issue, number, author, issued_at, note FROM sheet_issue WHERE design_id = :id ORDER BY issue DESC",
        {"id": design_id},
    )
    return [SheetIssue(**row) for row in rows]


def last_issue(connection: sqlite3.Connection, design_id: int) -> SheetIssue | None:
    row = connection.execute(
        """
        SELECT issue, number, author, issued_at, note FROM sheet_issue
        WHERE design_id = :id ORDER BY issue DESC LIMIT 1
        """,
        {"id": design_id},
    ).fetchone()
    return SheetIssue(**row) if row is not None else None


def issue_sheet(
    connection: sqlite3.Connection, design_id: int, number: int, author: str, issued_at: str, note: str
) -> SheetIssue:
    """Issue the newest revision's sheet; raises NotNewestError where another was saved meanwhile."""
    with writing(connection):
        newest = connection.execute(
            "SELECT max(number) AS number FROM revision WHERE design_id = :id", {"id": design_id}
        ).fetchone()
        if newest["number"] != number:
            raise NotNewestError(design_id)
        last = connection.execute(
            "SELECT coalesce(max(issue), 0) AS issue FROM sheet_issue WHERE design_id = :id", {"id": design_id}
        ).fetchone()
        made = SheetIssue(last["issue"] + 1, number, author, issued_at, note)
        connection.execute(
            """
            INSERT INTO sheet_issue (design_id, issue, number, author, issued_at, note)
            VALUES (:design, :issue, :number, :author, :issued_at, :note)
            """,
            {**made.__dict__, "design": design_id},
        )
    return made
