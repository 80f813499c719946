"""Days from a date as dates: arithmetic of the calendar, without a clock."""

from __future__ import annotations

import math
from datetime import date

A_DAY = "a date of the calendar, YYYY-MM-DD"
"""What is expected where a date is to be written."""


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
