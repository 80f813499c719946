"""Every field of the document in words: title, quantity, unit, options, bounds, help; read from the models alone.

What the schema publishes, and what policy bench, table columns, import targets, comparison and help read.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import lru_cache
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Le, MaxLen, MinLen
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from knollstack.core.base.dictionary import meaning_of
from knollstack.core.base.fields import Of
from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import core_unit
from knollstack.core.document.design import Design

Kind = Literal["number", "text", "choice", "flag", "list", "part"]


class Described(BaseModel):
    """One field; `meaning` is of the term in its title.

    `optional` may be empty; `required` has no default; bounds and `offered` are in the core's unit.
    """

    title: str
    kind: Kind
    help: str = ""
    meaning: str = ""
    group: str = ""
    quantity: Quantity | None = None
    unit: str = ""
    options: tuple[str, ...] = ()
    offered: tuple[float, ...] = ()
    low: float | None = None
    high: float | None = None
    least: int | None = None
    most: int | None = None
    optional: bool = False
    required: bool = False
    whole: bool = False

    @property
    def words(self) -> str:
        """The title as it stands within a sentence."""
        return self.title[:1].lower() + self.title[1:] if self.title[1:2].islower() else self.title


def _parts(annotation: Any) -> tuple[Any, bool, list[Any]]:
    """The bare type of an annotation, whether it may be empty, and what is annotated."""
    optional = False
    marks: list[Any] = []
    while True:
        origin, args = get_origin(annotation), get_args(annotation)
        if origin is Annotated:
            annotation, marks = args[0], [*marks, *args[1:]]
        elif origin in (Union, UnionType) and NoneType in args:
            annotation, optional = next(a for a in args if a is not NoneType), True
        else:
            return annotation, optional, marks


def _flat(marks: list[Any]) -> Iterator[Any]:
    for mark in marks:
        if isinstance(mark, FieldInfo):
            yield from mark.metadata
        else:
            yield mark


def _kind(bare: Any) -> tuple[Kind, tuple[str, ...], bool]:
    if get_origin(bare) is Literal:
        options = get_args(bare)
        return "choice", tuple(str(o) for o in options), isinstance(options[0], int)
    if get_origin(bare) is tuple:
        row = _parts(get_args(bare)[0])[0]
        return "list", tuple(str(o) for o in get_args(row)) if get_origin(row) is Literal else (), False
    if isinstance(bare, type) and issubclass(bare, BaseModel):
        return "part", (), False
    return {float: "number", int: "number", bool: "flag", str: "text"}[bare], (), bare is int  # type: ignore[return-value]


def _described(name: str, field: FieldInfo) -> Described:
    bare, optional, inner = _parts(field.annotation)
    marks = list(_flat([*field.metadata, *inner]))
    kind, options, whole = _kind(bare)
    quantity = next((m.quantity for m in marks if isinstance(m, Of)), None)
    extra = field.json_schema_extra if isinstance(field.json_schema_extra, dict) else {}
    title = field.title or name.replace("_", " ").capitalize()
    return Described(
        title=title,
        meaning=meaning_of(title),
        kind=kind,
        help=field.description or "",
        group=str(extra.get("group", "")),
        offered=tuple(extra.get("offered", ())),  # type: ignore[arg-type]
        quantity=quantity,
        unit=core_unit(quantity) if quantity else "",
        options=options,
        low=next((float(m.ge) for m in marks if isinstance(m, Ge)), None),  # type: ignore[arg-type]
        high=next((float(m.le) for m in marks if isinstance(m, Le)), None),  # type: ignore[arg-type]
        least=next((m.min_length for m in marks if isinstance(m, MinLen)), None),
        most=next((m.max_length for m in marks if isinstance(m, MaxLen)), None),
        optional=optional,
        required=field.is_required(),
        whole=whole,
    )


def _walk(model: type[BaseModel], path: str) -> Iterator[tuple[str, Described]]:
    for name, field in model.model_fields.items():
        place = f"{path}/{name}"
        yield place, _described(name, field)
        bare = _parts(field.annotation)[0]
        if get_origin(bare) is tuple:
            row = _parts(get_args(bare)[0])[0]
            if isinstance(row, type) and issubclass(row, BaseModel):
                yield from _walk(row, f"{place}/*")
        elif isinstance(bare, type) and issubclass(bare, BaseModel):
            yield from _walk(bare, place)


@lru_cache(maxsize=1)
def fields() -> dict[str, Described]:
    """Every field by its JSON pointer, `*` standing for any row of a list."""
    return dict(_walk(Design, ""))


def described(place: str) -> Described | None:
    """The field at a place of a document: "/strings/2/mud_ppg"; None where there is none."""
    return fields().get(re.sub(r"/\d+(?=/|$)", "/*", place))
