"""Orders and tests as an iCalendar file: a day for what is ordered, a day for what is tested and signed."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, date, datetime
from textwrap import shorten

from icalendar import Calendar, Event

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.runsheet.results import LineRow, MaterialRow, SheetDetail

TESTS = ("testing", "barriers")
MOST_SUMMARY = 120


def write_calendar(name: str, design_id: int, detail: SheetDetail, units: UnitSet, saved_at: str) -> str | None:
    """Every dated order that is not placed, and every test; None without dates."""
    book = Calendar()
    book.add("prodid", "-//Knollstack//Run sheet//EN")
    book.add("version", "2.0")
    book.add("x-wr-calname", f"{name}: orders and tests")
    stamp = datetime.fromisoformat(saved_at).astimezone(UTC)
    events = [*_orders(detail, units), *_tests(detail, units)]
    for key, day, summary, text in events:
        event = Event()
        event.add("uid", f"{design_id}-{key}@knollstack")
        event.add("dtstamp", stamp)
        event.add("dtstart", date.fromisoformat(day))
        event.add("summary", shorten(f"{name}: {summary}", MOST_SUMMARY, placeholder=" …"))
        event.add("description", text)
        event.add("transp", "TRANSPARENT")
        book.add_component(event)
    return book.to_ical().decode() if events else None


Dated = tuple[str, str, str, str]


def _orders(detail: SheetDetail, units: UnitSet) -> Iterator[Dated]:
    for row in detail.materials:
        if row.order_by and not row.ordered:
            yield f"order-{row.key}", row.order_by, f"order {plain(row.what, units)}", _told(row)


def _told(row: MaterialRow) -> str:
    lead = f", lead time {row.lead_days:.0f} days" if row.lead_days is not None else ""
    return f"{row.quantity + row.spare:,.0f} {row.unit}, wanted on {row.needed_on}{lead}"


def _tests(detail: SheetDetail, units: UnitSet) -> Iterator[Dated]:
    for line in detail.lines:
        if line.date and line.kind in TESTS and not line.crossed and not line.done:
            yield f"step-{line.key}", line.date, plain(line.text, units), _signed(line, units)


def _signed(line: LineRow, units: UnitSet) -> str:
    caution = f" {plain(line.caution, units)}" if line.caution else ""
    return f"Step {line.number}. Signed by {line.signs}.{caution}"
