"""What a person decides of the run sheet: the spud date, drilling rates, own steps, edits of steps by rule, and orders.

The sheet itself follows from the design; a step by rule is named by its key, which stays as long as what it is done on.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.fields import Day, Id, Name, Of, Part, listed, number, told
from knollstack.core.document.completion import SpentHours

StepKind = Literal[
    "preparation",
    "drilling",
    "tripping",
    "evaluation",
    "running casing",
    "cementing",
    "waiting on cement",
    "wellhead",
    "BOPs",
    "testing",
    "barriers",
    "riser",
    "completion",
    "plugs",
]
MaterialKind = Literal[
    "casing",
    "float equipment",
    "centralizers",
    "hangers and seals",
    "wellhead",
    "ring gaskets and studs",
    "BOP parts",
    "cement",
    "cement additives",
    "spacers and washes",
    "mud",
    "bits",
    "tubing",
    "completion",
    "plugs",
]
Key = Annotated[str, Field(max_length=120)]
LeadDays = Annotated[int, Field(strict=True, ge=0, le=1_500), Of("count")]
DrillingRate = Annotated[float, number(0.5, 1_000), Of("drilling_rate")]
BEFORE_SPUD = "site/"
"""What the keys of steps before the spud begin with."""


class OwnStep(Part):
    """A step that the person adds; it stands after another, and goes where that one goes."""

    id: Id = told("Id")
    text: Annotated[str, Field(min_length=1, max_length=400)] = told("Step", help="as the crew reads it")
    kind: StepKind = told("Kind", "drilling")
    after: Key = told("Follows", "", help="key of the step that it follows; empty is the beginning")
    hours: SpentHours | None = told("Rig time", None, help="empty takes none")
    caution: Name = told("Caution", "", help="as it is read to the crew")
    signs: Name = told("Signed by", "", help="who answers for it")
    hold: StrictBool = told("Hold-point", False, help="nothing goes on before it is signed")


class StepEdit(Part):
    """What the person changed of a step by rule: where it stands, whether it is done at all, its time, a note."""

    id: Id = told("Id")
    step: Annotated[str, Field(min_length=1, max_length=120)] = told("Step", help="key of the step in the sheet")
    after: Key | None = told("Moved after", None, help="key of the step that it follows now; empty stands by rule")
    crossed: StrictBool = told("Crossed out", False, help="it is not done; it stays to be seen")
    note: Name = told("Note", "", help="stands beside the step")
    hours: SpentHours | None = told("Rig time", None, help="empty follows policy's rates")
    done: StrictBool = told("Done", False, help="ticked off on the rig floor")
    done_by: Name = told("Signed", "", help="who signed that it is done")


class SectionRate(Part):
    """How fast a section is drilled, or a zone of it."""

    id: Id = told("Id")
    string: Id = told("Section", help="id of the string that is set in it")
    zone: Id | None = told("Zone", None, help="id of a zone; empty is the whole section")
    ft_hour: DrillingRate = told("Drilling rate", help="on bottom")


class Order(Part):
    """What is known of an item of the list of materials."""

    id: Id = told("Id")
    item: Annotated[str, Field(min_length=1, max_length=120)] = told("Item", help="key of the item in the list")
    lead_days: LeadDays | None = told("Lead time", None, help="days; empty follows policy")
    price: Annotated[float, number(0, 1_000_000_000), Of("money")] | None = told("Price each", None)
    ordered: Day = told("Ordered on", "", help="YYYY-MM-DD")


class RunSheet(Part):
    spud: Day = told("Spud date", "", help="YYYY-MM-DD; dates follow from it")
    rates: tuple[SectionRate, ...] = listed("Drilling rates", 200, help="empty follows policy, by size of the hole")
    steps: tuple[OwnStep, ...] = listed("Own steps", 300, help="each after the step that it follows")
    edits: tuple[StepEdit, ...] = listed("Edits of steps", 1_000, help="crossed out, moved, timed, noted, done")
    orders: tuple[Order, ...] = listed("Orders", 500, help="lead time, price and date of what is ordered")
