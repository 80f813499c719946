"""The catalogue: sizes, grades, threads, bits, flanges and pieces as CSV files with a source column, one loader."""

from __future__ import annotations

import csv
from collections.abc import Callable
from functools import lru_cache
from importlib.resources import files
from typing import Any, TypeVar

from knollstack.core.catalogue import Bit, Catalogue, Element, Flange, Grade, Piece, Pipe, Size, Thread

Row = TypeVar("Row")
TEXT = {
    "grade", "connection", "source", "grades", "connections", "kind", "nominal", "ring", "type", "title",
    "element", "seals",
}  # fmt: skip


def _value(column: str, text: str) -> Any:
    if column in TEXT:
        return text
    if text == "":
        return None
    return int(text) if column == "rank" else float(text)


def read(name: str) -> list[dict[str, Any]]:
    """Rows of one catalogue file, numbers as floats, empty cells as None."""
    text = files(__package__).joinpath(f"{name}.csv").read_text(encoding="utf-8")
    return [{column: _value(column, cell) for column, cell in row.items()} for row in csv.DictReader(text.splitlines())]


def _rows(name: str, make: Callable[..., Row]) -> tuple[Row, ...]:
    return tuple(make(**row) for row in read(name))


def _thread(threads: tuple[Thread, ...], connection: str, od_in: float, weight_ppf: float) -> Thread:
    """The thread of a row; one without lengths where the row is lighter than the lengths apply to."""
    fits = [t for t in threads if t.connection == connection and t.od_in == od_in]
    for thread in fits:
        if weight_ppf >= thread.from_weight_ppf:
            return thread
    bare = fits[0]
    return Thread(connection, od_in, 0.0, bare.coupling_od_in, None, None, None, None, None, None, None, bare.source)


@lru_cache(maxsize=1)
def load() -> Catalogue:
    """The shipped catalogue, read once."""
    grades = _rows("grades", Grade)
    threads = _rows("threads", Thread)
    by_grade = {grade.grade: grade for grade in grades}
    cost = {row["connection"]: row["cost_factor"] for row in read("connections")}
    pipes = []
    for row in read("pipes"):
        for grade in row["grades"].split():
            for connection in row["connections"].split():
                thread = _thread(threads, connection, row["od_in"], row["weight_ppf"])
                pipes.append(
                    Pipe(
                        od_in=row["od_in"],
                        weight_ppf=row["weight_ppf"],
                        wall_in=row["wall_in"],
                        grade=by_grade[grade],
                        connection=connection,
                        coupling_od_in=thread.coupling_od_in,
                        thread=thread,
                        cost_factor=cost[connection],
                        source=row["source"],
                    )
                )
    return Catalogue(
        pipes=tuple(pipes),
        sizes=_rows("sizes", Size),
        bits=_rows("bits", Bit),
        flanges=_rows("flanges", Flange),
        pieces=_rows("pieces", Piece),
        elements=_rows("elements", Element),
        grades=grades,
    )
