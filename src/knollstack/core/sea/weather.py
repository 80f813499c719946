"""Work against its weather limits: in which weather it is not begun."""

from __future__ import annotations

from knollstack.core.document.sea import Weather, WorkLimit
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.results import WaitRow

LIMITED = ("heave_ft", "current_ft_s")


def wait_rows(equipped: Equipped) -> tuple[WaitRow, ...]:
    sea = equipped.design.sea
    return tuple(_row(limit, sea.weather) for limit in sea.limits)


def _row(limit: WorkLimit, weather: tuple[Weather, ...]) -> WaitRow:
    """Over one limit it waits whatever the other; within all that are given a weather that is not known is unknown."""
    waits, unknown = [], []
    for n, row in enumerate(weather, start=1):
        pairs = [(getattr(row, key), getattr(limit, key)) for key in LIMITED if getattr(limit, key) is not None]
        name = row.name or f"weather {n}"
        if any(value is not None and value > most for value, most in pairs):
            waits.append(name)
        elif any(value is None for value, _ in pairs):
            unknown.append(name)
    return WaitRow(work=limit.work, waits=tuple(waits), unknown=tuple(unknown))
