"""What its views alone ask of the log: what is still free, and the well as planned beside the well as drilled."""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.logbook.comparison import comparison_of
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.logbook.free import free_of
from knollstack.core.logbook.results import DrilledPoint, LogbookDetail, LogbookResult
from knollstack.core.program.equipped import Equipped
from knollstack.core.runsheet.results import CurveRow, LineRow


def logbook_detail(
    planned: Equipped,
    actual: Equipped,
    drilled: Drilled,
    log: LogbookResult,
    lines: tuple[LineRow, ...],
    planned_curve: tuple[CurveRow, ...],
    catalogue: Catalogue,
) -> LogbookDetail:
    return LogbookDetail(
        planned=planned_curve,
        days_behind=behind(log.curve, planned_curve),
        free=free_of(actual, drilled, catalogue),
        comparison=tuple(comparison_of(planned, actual, drilled, log, lines)),
    )


def behind(drilled: tuple[DrilledPoint, ...], planned: tuple[CurveRow, ...]) -> float | None:
    """Days behind the plan's mean at the depth reached; under 0 is ahead. None where either does not reach it."""
    deepest = max((p.md_ft for p in drilled), default=None)
    if deepest is None:
        return None
    reached = next(p.day for p in drilled if p.md_ft == deepest)
    for before, after in pairwise(planned):
        if before.md_ft < deepest <= after.md_ft:
            share = (deepest - before.md_ft) / (after.md_ft - before.md_ft)
            return reached - (before.day + share * (after.day - before.day))
    return None
