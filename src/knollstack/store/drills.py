"""Rehearsals of a design: begun, played on, ended once; their scores by person."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from knollstack.store.database import writing


@dataclass(frozen=True)
class DrillRow:
    """A drill without its debrief; `scene`, `document` and `doings` are JSON."""

    id: int
    design_id: int
    person: str
    begun_at: str
    scene: str
    document: str
    doings: str
    clock_s: int
    ended_at: str | None
    score: float | None


@dataclass(frozen=True)
class ScoreRow:
    """One drill in a list."""

    id: int
    person: str
    begun_at: str
    scene: str
    clock_s: int
    ended_at: str | None
    score: float | None


class EndedError(Exception):
    """The drill has ended: nothing more can be done in it."""


_COLUMNS = "id, design_id, person, begun_at, scene, document, doings, clock_s, ended_at, score"


def begin_drill(
    connection: sqlite3.Connection, design_id: int, person: str, begun_at: str, scene: str, document: str
) -> int:
    with writing(connection):
        cursor = connection.execute(
            """
            INSERT INTO drill (design_id, person, begun_at, scene, document)
            VALUES (:design, :person, :at, :scene, :document)
            """,
            {"design": design_id, "person": person, "at": begun_at, "scene": scene, "document": document},
        )
    return int(cursor.lastrowid or 0)


def find_drill(connection: sqlite3.Connection, drill_id: int) -> DrillRow | None:
    """A drill whose design is not in the bin."""
    row = connection.execute(
        f"""
        SELECT {", ".join(f"drill.{name}" for name in _COLUMNS.split(", "))} FROM drill
        JOIN design ON design.id = drill.design_id JOIN well ON well.id = design.well_id
        WHERE drill.id = :id AND design.deleted_at IS NULL AND well.deleted_at IS NULL
        """,
        {"id": drill_id},
    ).fetchone()
    return DrillRow(**row) if row is not None else None


def keep_doings(connection: sqlite3.Connection, drill_id: int, doings: str, clock_s: int) -> None:
    """What was done so far, and how late it is; raises EndedError once the drill has ended."""
    with writing(connection):
        changed = connection.execute(
            "UPDATE drill SET doings = :doings, clock_s = :clock WHERE id = :id AND ended_at IS NULL",
            {"doings": doings, "clock": clock_s, "id": drill_id},
        )
    if changed.rowcount != 1:
        raise EndedError(drill_id)


def end_drill(
    connection: sqlite3.Connection, drill_id: int, clock_s: int, ended_at: str, score: float, debrief: str
) -> None:
    with writing(connection):
        changed = connection.execute(
            """
            UPDATE drill SET clock_s = :clock, ended_at = :at, score = :score, debrief = :debrief
            WHERE id = :id AND ended_at IS NULL
            """,
            {"clock": clock_s, "at": ended_at, "score": score, "debrief": debrief, "id": drill_id},
        )
    if changed.rowcount != 1:
        raise EndedError(drill_id)


def get_debrief(connection: sqlite3.Connection, drill_id: int) -> str | None:
    row = connection.execute("SELECT debrief FROM drill WHERE id = :id", {"id": drill_id}).fetchone()
    return None if row is None or row["debrief"] is None else str(row["debrief"])


def list_drills(connection: sqlite3.Connection, design_id: int) -> list[ScoreRow]:
    """Every drill of a design, the newest first."""
    rows = connection.execute(
        """
        SELECT id, person, begun_at, scene, clock_s, ended_at, score FROM drill
        WHERE design_id = :design ORDER BY id DESC
        """,
        {"design": design_id},
    )
    return [ScoreRow(**row) for row in rows]


def delete_drill(connection: sqlite3.Connection, drill_id: int) -> bool:
    with writing(connection):
        return connection.execute("DELETE FROM drill WHERE id = :id", {"id": drill_id}).rowcount == 1
