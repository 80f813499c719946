"""Days from a date as dates: arithmetic of the calendar, without a clock."""

from __future__ import annotations

import math
from datetime import date, datetime, timedelta

A_DAY = "a date of the calendar, YYYY-MM-DD"
"""What is expected where a date is to be written."""
A_MOMENT = "a time of the rig's clock, YYYY-MM-DD HH:MM"


def is_date(text: str) -> bool:
    """A day that the calendar has, as YYYY-MM-DD."""
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True


def date_after(start: str, days: float | None) -> str:
    """The date so many days after another, as YYYY-MM-DD; empty without a start, and beyond the calendar."""
    if not start or days is None:
        return ""
    at = date.fromisoformat(start).toordinal() + math.floor(days + 1e-9)
    return date.fromordinal(at).isoformat() if 1 <= at <= date.max.toordinal() else ""


def is_moment(text: str) -> bool:
    """A time that calendar and clock have, as YYYY-MM-DD HH:MM."""
    try:
        datetime.strptime(text, "%Y-%m-%d %H:%M")
    except ValueError:
        return False
    return True


def days_between(start: str, end: str) -> float:
    """Days from one time of the rig's clock to another."""
    return (datetime.fromisoformat(end) - datetime.fromisoformat(start)).total_seconds() / 86_400.0


def moment_after(start: str, days: float) -> str:
    """The time of the rig's clock so many days after another, to the minute."""
    return (datetime.fromisoformat(start) + timedelta(days=days)).strftime("%Y-%m-%d %H:%M")
