"""What follows from the log: today, the facts in force, the tests worked, what was drilled when.

Asked for apart: what is still free, and the well as planned beside the well as drilled.
"""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words
from knollstack.core.runsheet.results import CurveRow

Scalar = float | str | bool | None


class FactRow(Result):
    """A value in force at a place of the document. `value` is a number or a word; None where it is a table."""

    path: str
    value: Scalar
    plan: Scalar
    entries: tuple[int, ...]


class TestRow(Result):
    """A leak-off or integrity test: what its points show, what is in force, and what the plan counts on there."""

    entry: int
    string: int
    kind: Literal["leak-off", "integrity"]
    md_ft: float
    tvd_ft: float
    mud_ppg: float | None
    pressure_psi: float | None
    given: bool
    """The pressure was given by hand."""
    found_psi: float | None
    found_bbl: float | None
    slope_psi_bbl: float | None
    offset_psi: float | None
    emw_ppg: float | None
    planned_ppg: float | None
    working: str


class DrilledPoint(Result):
    """How deep the hole was on a day from the spud."""

    day: float
    md_ft: float


class LogbookResult(Result):
    entries: int = 0
    begins: str = ""
    last_at: str = ""
    day: float | None = None
    today_md_ft: float | None = None
    today_tvd_ft: float | None = None
    drilling: int | None = None
    """The string whose hole is open, or is drilled next; None where all stand."""
    landed: tuple[int, ...] = ()
    facts: tuple[FactRow, ...] = ()
    tests: tuple[TestRow, ...] = ()
    curve: tuple[DrilledPoint, ...] = ()


class Span(Result):
    top_md_ft: float
    base_md_ft: float


class ChainSize(Result):
    hole_in: float | None
    od_in: float


class FreeResult(Result):
    """What can still be done: where the next shoe may stand, the kick tolerance now, and sizes that still pass."""

    string: int
    words: Words
    shoes: tuple[Span, ...]
    """Depths of its shoe, from today's down, that bring no stop to depths and mud."""
    looked: Span | None
    why_not: Words
    """Why the shoe may stand no deeper, by the first stop below the last depth that is free."""
    kick_bbl: float | None
    kick_limited: bool | None
    kick_needed_bbl: float | None
    remaining: tuple[ChainSize, ...]
    chains: int
    """Chains of sizes that begin with what stands."""
    spare: ChainSize | None


class PlannedActual(Result):
    """One line of the end-of-well comparison; None is not known, or has not happened."""

    section: Words
    what: str
    planned: Words
    actual: Words
    difference: Words


class LogbookDetail(Result):
    """`planned` is the plan's own schedule, `days_behind` the days at today's depth beside its mean; under 0 is ahead."""

    planned: tuple[CurveRow, ...]
    days_behind: float | None
    free: FreeResult | None
    comparison: tuple[PlannedActual, ...]
