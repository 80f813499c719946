"""The bin: wells and designs that were deleted, put back or, by hand, gone for good with their revisions."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Literal

from knollstack.store.database import writing

Kind = Literal["well", "design"]


@dataclass(frozen=True)
class Binned:
    kind: Kind
    id: int
    well_name: str
    design_name: str
    designs: int
    deleted_at: str
    deleted_by: str


class LastDesignError(Exception):
    """A well keeps at least one design. Nothing was written."""


def list_bin(connection: sqlite3.Connection) -> list[Binned]:
    """What is in the bin, last deleted first; a design whose well is there too goes with it."""
    rows = connection.execute(
        """
        SELECT 'well' AS kind, well.id, well.name AS well_name, '' AS design_name,
               (SELECT count(*) FROM design WHERE well_id = well.id AND design.deleted_at IS NULL) AS designs,
               well.deleted_at, well.deleted_by
        FROM well WHERE well.deleted_at IS NOT NULL
        UNION ALL
        SELECT 'design', design.id, well.name, design.name, 1, design.deleted_at, design.deleted_by
        FROM design JOIN well ON well.id = design.well_id
        WHERE design.deleted_at IS NOT NULL AND well.deleted_at IS NULL
        ORDER BY deleted_at DESC, id DESC
        """
    )
    return [Binned(**row) for row in rows]


def delete_well(connection: sqlite3.Connection, well_id: int, by: str, now: str) -> bool:
    """Put a well into the bin with its designs; False when there is none."""
    with writing(connection):
        return _mark(connection, "well", well_id, by, now)


def delete_design(connection: sqlite3.Connection, design_id: int, by: str, now: str) -> bool:
    """Put a design into the bin; raises LastDesignError. False when there is no such design."""
    with writing(connection):
        row = connection.execute(
            """
            SELECT design.name, (SELECT count(*) FROM design AS other
                                 WHERE other.well_id = design.well_id AND other.deleted_at IS NULL) AS count
            FROM design JOIN well ON well.id = design.well_id
            WHERE design.id = :id AND design.deleted_at IS NULL AND well.deleted_at IS NULL
            """,
            {"id": design_id},
        ).fetchone()
        if row is None:
            return False
        if row["count"] == 1:
            raise LastDesignError(row["name"])
        return _mark(connection, "design", design_id, by, now)


def _mark(connection: sqlite3.Connection, table: Kind, row_id: int, by: str, now: str) -> bool:
    marked = connection.execute(
        f"UPDATE {table} SET deleted_at = :now, deleted_by = :by WHERE id = :id AND deleted_at IS NULL",
        {"id": row_id, "now": now, "by": by},
    )
    return marked.rowcount > 0


def put_back(connection: sqlite3.Connection, kind: Kind, row_id: int) -> bool:
    """Take a well or design out of the bin; a design whose name was taken meanwhile gets another. False when not there."""
    with writing(connection):
        if kind == "design":
            row = connection.execute(
                """
                SELECT design.well_id, design.name FROM design JOIN well ON well.id = design.well_id
                WHERE design.id = :id AND design.deleted_at IS NOT NULL AND well.deleted_at IS NULL
                """,
                {"id": row_id},
            ).fetchone()
            if row is None:
                return False
            name = _free_name(connection, row["well_id"], row["name"])
            connection.execute("UPDATE design SET name = :name WHERE id = :id", {"name": name, "id": row_id})
        back = connection.execute(
            f"UPDATE {kind} SET deleted_at = NULL, deleted_by = NULL WHERE id = :id AND deleted_at IS NOT NULL",
            {"id": row_id},
        )
        return back.rowcount > 0


def _free_name(connection: sqlite3.Connection, well_id: int, name: str) -> str:
    query = "SELECT name FROM design WHERE well_id = :well AND deleted_at IS NULL"
    taken = {row["name"] for row in connection.execute(query, {"well": well_id})}
    endings = ("", ", put back", *(f", put back {n}" for n in range(2, len(taken) + 3)))
    return next(name[: 200 - len(e)] + e for e in endings if name[: 200 - len(e)] + e not in taken)


def empty_bin(connection: sqlite3.Connection, kind: Kind | None = None, row_id: int | None = None) -> int:
    """Delete for good what is in the bin, or one thing of it; returns how many wells and designs went."""
    with writing(connection):
        rows = [b for b in list_bin(connection) if kind is None or (b.kind, b.id) == (kind, row_id)]
        for row in rows:
            column = "well_id" if row.kind == "well" else "id"
            doomed = f"SELECT id FROM design WHERE {column} = :id"
            connection.execute(f"DELETE FROM revision WHERE design_id IN ({doomed})", {"id": row.id})
            connection.execute(f"DELETE FROM design WHERE {column} = :id", {"id": row.id})
            if row.kind == "well":
                connection.execute("DELETE FROM log_entry WHERE well_id = :id", {"id": row.id})
                connection.execute("DELETE FROM well WHERE id = :id", {"id": row.id})
        return len(rows)
