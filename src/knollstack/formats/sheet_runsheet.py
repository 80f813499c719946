"""What the program sheet prints of the schedule: section by section, and the end of the well."""

from __future__ import annotations

from knollstack.core.runsheet.results import RunsheetResult
from knollstack.formats.sheet_sea import Say, Show, Table

SHARE = [1.8, 1, 1, 1, 1, 1.6, 0.8]


def schedule_table(found: RunsheetResult, show: Show, say: Say) -> Table:
    """Days count from the spud; without days a heading alone."""
    days = found.days
    rows = [["Schedule, from the spud", "Drilling rate", "Begins, day", "Drilled", "Ends", "P10 to P90", "Steps"]]
    if days is None:
        return rows, SHARE
    for row in found.sections:
        rate = "-" if row.bottom_md_ft is None else show(row.rate_ft_hour, "drilling_rate")
        drilled = "-" if row.drilled_day is None else show(row.drilled_day, "days")
        band = f"{show(row.low, 'days')} to {show(row.high, 'days')}"
        rows.append(
            [say(row.name), rate, show(row.begins, "days"), drilled, show(row.ends, "days"), band, str(row.steps)]
        )
    least = "at least " if found.unknown else ""
    ends = f"{least}{show(days.expected, 'days')}{f', {found.ends_on}' if found.ends_on else ''}"
    band = f"{show(days.low, 'days')} to {show(days.high, 'days')}"
    rows.append(["end of the well", "-", "-", "-", ends, band, str(found.steps)])
    return rows, SHARE
