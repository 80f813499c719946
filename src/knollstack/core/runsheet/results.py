"""What follows for the run sheet: its days in the evaluation; its lines, times and materials where a view asks for them."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Step, Words
from knollstack.core.document.log import EntryKind
from knollstack.core.document.runsheet import MaterialKind, StepKind


class DaysRow(Result):
    """Days from the spud to the end: sums of least, likely and most; the mean with its tenth and ninetieth percentile."""

    least: float
    likely: float
    most: float
    expected: float
    low: float
    high: float


class KindRow(Result):
    """Hours of one kind of work after the spud, lost time included."""

    kind: StepKind
    least_hours: float
    likely_hours: float
    most_hours: float
    expected_hours: float
    working: str


class SectionRow(Result):
    """A string's section of the sheet in days from the spud, and how its hole is drilled; without one the end of the well."""

    string: int | None
    name: Words
    begins: float
    ends: float
    low: float
    high: float
    steps: int
    rate_ft_hour: float | None = None
    rate_given: bool = False
    top_md_ft: float | None = None
    bottom_md_ft: float | None = None
    on_bottom_hours: float | None = None
    """At the section's own rate: what a change of it changes."""
    drilled_day: float | None = None
    """When the hole is down."""
    day_factor: float = 1.0 / 24
    """Days of the schedule to an hour of drilling: lost time and spread."""


class CurveRow(Result):
    """The hole's depth at a day, with the band of the day."""

    day: float
    low: float
    high: float
    md_ft: float


class RunsheetResult(Result):
    steps: int = 0
    held: int = 0
    broken: int = 0
    unknown: int = 0
    """Steps whose time is not known: the days are at least what is told."""
    days: DaysRow | None = None
    ends_on: str = ""
    """The day on which the well ends, by the mean; empty without a spud date."""
    first_order: str = ""
    first_order_day: float | None = None
    kinds: tuple[KindRow, ...] = ()
    sections: tuple[SectionRow, ...] = ()
    curve: tuple[CurveRow, ...] = ()


class LineRow(Result):
    """A step of the sheet with its place in time; days count from the spud."""

    key: str
    number: int
    kind: StepKind
    text: Words
    why: str
    caution: Words
    signs: str
    hold: bool
    hours: float | None
    """As planned, without lost time."""
    given: bool
    string: int | None
    section: Words
    step: Step
    place: str
    working: str | None
    beside: bool
    """Done beside the rig's own steps."""
    begins: float | None
    ends: float | None
    date: str
    slack_hours: float | None
    held: Words
    broken: tuple[str, ...]
    """Order rules that it breaks where it stands."""
    crossed: bool
    moved: bool
    note: str
    done: bool
    done_by: str
    own: str
    unplaced: bool
    md_ft: float | None
    asks: EntryKind
    """What the log asks for when it is signed."""
    about: str
    """Id of the string that this is about."""


class MaterialRow(Result):
    key: str
    kind: MaterialKind
    string: int | None
    section: Words
    what: Words
    unit: str
    quantity: float
    spare: float
    weight_lb: float | None
    """Of all with spares."""
    lead_days: float | None
    lead_given: bool
    needed_day: float | None
    needed_on: str
    order_day: float | None
    order_by: str
    ordered: str
    price: float | None
    cost: float | None


class SheetDetail(Result):
    """The whole sheet with its materials."""

    lines: tuple[LineRow, ...]
    materials: tuple[MaterialRow, ...]
    weight_lb: float
    weights_unknown: int
    cost: float
    prices_unknown: int


class LineChange(Result):
    """What became of a step since another sheet."""

    key: str
    what: Literal["changed", "new", "gone", "moved"]
    number: int | None
    before: Words
    after: Words


class MaterialChange(Result):
    key: str
    what: Words
    unit: str
    before: float | None
    after: float | None
