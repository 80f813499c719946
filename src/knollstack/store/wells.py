"""Wells and their designs: made, copied, named and listed."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from knollstack.store.database import writing
from knollstack.store.log import LogRow, insert_log
from knollstack.store.revisions import Revision, insert, newest_revision

BASE_DESIGN = "Base design"


@dataclass(frozen=True)
class DesignRow:
    id: int
    well_id: int
    well_name: str
    name: str
    revision: int
    saved_at: str
    author: str


_DESIGNS = """
    SELECT design.id, design.well_id, well.name AS well_name, design.name,
           revision.number AS revision, revision.saved_at, revision.author
    FROM design
    JOIN well ON well.id = design.well_id
    JOIN revision ON revision.design_id = design.id
    WHERE revision.number = (SELECT max(number) FROM revision WHERE design_id = design.id)
      AND design.deleted_at IS NULL AND well.deleted_at IS NULL
"""


def list_designs(connection: sqlite3.Connection) -> list[DesignRow]:
    """Every design with its newest revision, the wells last saved first."""
    rows = connection.execute(_DESIGNS + " ORDER BY revision.saved_at DESC, design.id")
    return [DesignRow(**row) for row in rows]


def has_wells(connection: sqlite3.Connection) -> bool:
    """Whether the store holds any well, be it in the bin."""
    return connection.execute("SELECT 1 FROM well LIMIT 1").fetchone() is not None


def find_design(connection: sqlite3.Connection, design_id: int) -> DesignRow | None:
    row = connection.execute(_DESIGNS + " AND design.id = :id", {"id": design_id}).fetchone()
    return DesignRow(**row) if row else None


def create_well(
    connection: sqlite3.Connection, name: str, document: str, author: str, now: str, log: Sequence[LogRow] = ()
) -> int:
    """A new well with its base design at revision 1, and a log that came with it; returns the design's id."""
    with writing(connection):
        well = connection.execute(
            "INSERT INTO well (name, created_at) VALUES (:name, :now)", {"name": name, "now": now}
        ).lastrowid
        design = connection.execute(
            "INSERT INTO design (well_id, name, created_at) VALUES (:well, :name, :now)",
            {"well": well, "name": BASE_DESIGN, "now": now},
        ).lastrowid
        assert design is not None
        assert well is not None
        insert(connection, Revision(design, 1, None, author, now, "created", document))
        insert_log(connection, well, log)
    return design


class TakenNameError(Exception):
    """A well already has a design of this name. Nothing was written."""


def _check_name(connection: sqlite3.Connection, well_id: int, name: str, but: int | None = None) -> None:
    taken = connection.execute(
        "SELECT id FROM design WHERE well_id = :well AND name = :name AND deleted_at IS NULL",
        {"well": well_id, "name": name},
    ).fetchone()
    if taken is not None and taken["id"] != but:
        raise TakenNameError(name)


def copy_design(connection: sqlite3.Connection, design_id: int, name: str, author: str, now: str) -> int:
    """A new design of the same well, from another's newest revision; raises TakenNameError. Returns its id."""
    with writing(connection):
        newest = newest_revision(connection, design_id)
        row = find_design(connection, design_id)
        if newest is None or row is None:
            raise LookupError(f"no design {design_id}")
        _check_name(connection, row.well_id, name)
        copy = connection.execute(
            "INSERT INTO design (well_id, name, created_at) VALUES (:well, :name, :now)",
            {"well": row.well_id, "name": name, "now": now},
        ).lastrowid
        assert copy is not None
        note = f"copied from {row.name}, revision {newest.number}"
        insert(connection, Revision(copy, 1, None, author, now, note, newest.document))
    return copy


LONGEST_NAME = 200


def _copy_name(connection: sqlite3.Connection, name: str) -> str:
    """A name that no well has yet, made from another's and no longer than a name may be."""
    taken = {row["name"] for row in connection.execute("SELECT name FROM well")}
    endings = (", copy", *(f", copy {n}" for n in range(2, len(taken) + 3)))
    names = (name[: LONGEST_NAME - len(ending)] + ending for ending in endings)
    return next(made for made in names if made not in taken)


def copy_well(
    connection: sqlite3.Connection, well_id: int, renamed: Callable[[str, str], str], author: str, now: str
) -> int | None:
    """A new well with the newest revision of every design of another; returns its first design, None where there is none.

    `renamed` gives a document under another name.
    """
    with writing(connection):
        rows = connection.execute(_DESIGNS + " AND well.id = :id ORDER BY design.id", {"id": well_id}).fetchall()
        if not rows:
            return None
        name = _copy_name(connection, rows[0]["well_name"])
        new = {"name": name, "now": now}
        well = connection.execute("INSERT INTO well (name, created_at) VALUES (:name, :now)", new).lastrowid
        made: list[int] = []
        for row in rows:
            newest = newest_revision(connection, row["id"])
            assert newest is not None
            design = connection.execute(
                "INSERT INTO design (well_id, name, created_at) VALUES (:well, :name, :now)",
                {"well": well, "name": row["name"], "now": now},
            ).lastrowid
            assert design is not None
            note = f"copied from {row['well_name']}, revision {newest.number}"
            document = renamed(name, newest.document)
            insert(connection, Revision(design, 1, None, author, now, note, document))
            made.append(design)
    return made[0]


def rename_design(connection: sqlite3.Connection, design_id: int, name: str) -> bool:
    """Another name for a design; raises TakenNameError. False when there is no such design."""
    with writing(connection):
        row = find_design(connection, design_id)
        if row is None:
            return False
        _check_name(connection, row.well_id, name, but=design_id)
        connection.execute("UPDATE design SET name = :name WHERE id = :id", {"name": name, "id": design_id})
    return True
