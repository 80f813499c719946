"""The well as planned beside the well as drilled, line by line, with its days."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Quantity, Words
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.logbook.results import LogbookResult, PlannedActual
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.runsheet.results import LineRow

NOT_YET: Words = ("not yet",)
UNKNOWN: Words = ("not known",)
NOT_LOGGED: Words = ("not logged",)
SIDES: dict[Quantity, tuple[str, str]] = {
    "depth": ("deeper", "shallower"),
    "days": ("later", "earlier"),
    "emw": ("heavier", "lighter"),
}
STRENGTH = ("higher", "lower")


def comparison_of(
    planned: Equipped, actual: Equipped, drilled: Drilled, log: LogbookResult, lines: tuple[LineRow, ...]
) -> Iterator[PlannedActual]:
    """Every string and the whole well; `lines` are the planned sheet's."""
    if not drilled.log:
        return
    for before, after in zip(planned.strings, actual.strings, strict=False):
        yield from _string(before, after, drilled, log, lines)
    whole: Words = ("Well",)
    ends = max((line.ends for line in lines if line.ends is not None), default=None)
    deep, days = (log.today_md_ft, log.day) if log.drilling is None else (None, None)
    yield _row(whole, "total depth", planned.well.path.total_md_ft, deep, "depth", NOT_YET)
    yield _row(whole, "days from the spud", ends, days, "days", NOT_YET)


def _string(
    before: EquippedString, after: EquippedString, drilled: Drilled, log: LogbookResult, lines: tuple[LineRow, ...]
) -> Iterator[PlannedActual]:
    told, section = drilled.told, before.words
    stands = before.index < told.drilling
    landed, job = told.landed.get(before.index), told.cemented.get(before.index)

    def of(value: float | None, there: bool) -> float | None:
        return value if there else None

    missing = NOT_LOGGED if stands else NOT_YET
    yield _row(section, "shoe", before.shoe_md_ft, landed.md_ft if landed else None, "depth", missing)
    if before.drilled:
        yield _row(section, "hole size", before.bit_in, of(after.bit_in, landed is not None), "size", missing)
    yield _row(section, "casing size", before.od_in, of(after.od_in, landed is not None), "size", missing)
    if before.drilled:
        mud = _heaviest(after) if drilled.is_fact(f"{after.path}/mud_steps") else None
        yield _row(section, "heaviest mud", _heaviest(before), mud, "emw", missing)
    tests = [t for t in log.tests if t.string == before.index and t.emw_ppg is not None]
    if tests:
        last = tests[-1]
        yield _row(
            section, f"strength at the shoe, {last.kind}", last.planned_ppg, last.emw_ppg, "emw", missing, STRENGTH
        )
    if before.drilled:
        top = after.cement_top_md_ft if job is not None and job.top_md_ft is not None else None
        yield _row(section, "top of cement", before.cement_top_md_ft, top, "depth", NOT_LOGGED if job else missing)
    day = _planned_day(before, lines)
    if day is None or day > 0:  # what is set before the spud has no day
        yield _row(section, "day landed", day, _day(drilled, before.index), "days", missing)


def _heaviest(string: EquippedString) -> float | None:
    weights = [s.mud_ppg for s in string.own.mud_steps] + ([string.mud_ppg] if string.mud_ppg is not None else [])
    return max(weights, default=None)


def _planned_day(string: EquippedString, lines: tuple[LineRow, ...]) -> float | None:
    """When the step ends that lands the string."""
    lands = [line.ends for line in lines if line.asks == "shoe landed" and line.about == string.id]
    known = [day for day in lands if day is not None]
    return known[-1] if known else None


def _day(drilled: Drilled, index: int) -> float | None:
    entry = drilled.told.landed.get(index)
    return None if entry is None else drilled.told.day(entry.at)


def _row(
    section: Words,
    what: str,
    planned: float | None,
    actual: float | None,
    quantity: Quantity,
    missing: Words,
    sides: tuple[str, str] | None = None,
) -> PlannedActual:
    difference: Words = ()
    if planned is not None and actual is not None:
        difference = _difference(actual - planned, quantity, sides or SIDES.get(quantity, ("larger", "smaller")))
    return PlannedActual(
        section=section,
        what=what,
        planned=UNKNOWN if planned is None else (Amount(value=planned, quantity=quantity),),
        actual=missing if actual is None else (Amount(value=actual, quantity=quantity),),
        difference=difference,
    )


def _difference(by: float, quantity: Quantity, sides: tuple[str, str]) -> Words:
    if abs(by) < 1e-9:
        return ("as planned",)
    return (Amount(value=abs(by), quantity=quantity), f" {sides[0] if by > 0 else sides[1]}")
