"""The catalogue: sizes, grades, threads, bits, flanges and pieces as CSV files with a source column, one loader."""

from __future__ import annotations

import csv
from collections.abc import Callable, Iterator
from dataclasses import fields
from functools import lru_cache
from importlib.resources import files
from typing import Any, TypeVar

from knollstack.core.catalogue.product import Connection, Grade, Pipe, Thread
from knollstack.core.catalogue.rows import (
    AdditiveRow,
    Bit,
    Catalogue,
    Centralizer,
    DrillPipeRow,
    Element,
    Flange,
    FloatGear,
    LengthRange,
    Operator,
    Piece,
    RamRange,
    Reamer,
    RiserJointRow,
    Size,
)

Row = TypeVar("Row")
TEXT = {
    "grade",
    "connection",
    "source",
    "grades",
    "connections",
    "kind",
    "nominal",
    "ring",
    "type",
    "title",
    "element",
    "gear",
    "place",
    "fills",
    "per",
    "name",
    "use",
}


def _value(column: str, text: str) -> Any:
    if column in TEXT:
        return text
    if text == "":
        return None
    return int(text) if column in ("rank", "range", "aboard") else float(text)


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
    bare = dict.fromkeys(f.name for f in fields(Thread))
    known = {"connection": connection, "od_in": od_in, "from_weight_ppf": 0.0, "source": fits[0].source}
    return Thread(**(bare | known | {"coupling_od_in": fits[0].coupling_od_in}))  # type: ignore[arg-type]


def _coupling_od_in(threads: tuple[Thread, ...], joint: Connection, od_in: float) -> float:
    """OD over a connection of no API thread: its ratio to the body, else that of the buttress coupling."""
    if joint.od_ratio is not None:
        return joint.od_ratio * od_in
    return next(t.coupling_od_in for t in threads if t.connection == "BTC" and t.od_in == od_in)


def _pipes(threads: tuple[Thread, ...], grades: dict[str, Grade], joints: dict[str, Connection]) -> Iterator[Pipe]:
    """Every row with each of its grades and connections."""
    for row in read("pipes"):
        od, weight = row["od_in"], row["weight_ppf"]
        for connection in row["connections"].split():
            joint = joints[connection]
            threaded = any(t.connection == connection and t.od_in == od for t in threads)
            thread = _thread(threads, connection, od, weight) if threaded else None
            coupling = thread.coupling_od_in if thread is not None else _coupling_od_in(threads, joint, od)
            for grade in row["grades"].split():
                yield Pipe(
                    kind=row["kind"],
                    od_in=od,
                    weight_ppf=weight,
                    wall_in=row["wall_in"],
                    grade=grades[grade],
                    joint=joint,
                    coupling_od_in=coupling,
                    thread=thread,
                    special_drift_in=row["special_drift_in"],
                    source=row["source"],
                )


@lru_cache(maxsize=1)
def load() -> Catalogue:
    """The shipped catalogue, read once."""
    grades, threads, joints = _rows("grades", Grade), _rows("threads", Thread), _rows("connections", Connection)
    pipes = _pipes(threads, {g.grade: g for g in grades}, {c.connection: c for c in joints})
    return Catalogue(
        pipes=tuple(pipes),
        sizes=_rows("sizes", Size),
        bits=_rows("bits", Bit),
        flanges=_rows("flanges", Flange),
        pieces=_rows("pieces", Piece),
        elements=_rows("elements", Element),
        operators=_rows("operators", Operator),
        ram_ranges=_rows("ram_ranges", RamRange),
        drill_pipe=_rows("drill_pipe", DrillPipeRow),
        grades=grades,
        connections=joints,
        reamers=_rows("reamers", Reamer),
        ranges=_rows("ranges", LengthRange),
        float_gear=_rows("float_gear", FloatGear),
        centralizers=_rows("centralizers", Centralizer),
        additives=_rows("additives", AdditiveRow),
        riser_joints=_rows("riser_joints", RiserJointRow),
    )
