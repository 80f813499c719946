"""What its views alone ask of the log: what is still free, and the well as planned beside the well as drilled."""

from __future__ import annotations

from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.logbook.comparison import comparison_of
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.logbook.free import free_of
from knollstack.core.logbook.results import LogbookDetail, LogbookResult
from knollstack.core.program.equipped import Equipped
from knollstack.core.runsheet.results import LineRow


def logbook_detail(
    planned: Equipped,
    actual: Equipped,
    drilled: Drilled,
    log: LogbookResult,
    lines: tuple[LineRow, ...],
    catalogue: Catalogue,
) -> LogbookDetail:
    return LogbookDetail(
        free=free_of(actual, drilled, catalogue), comparison=tuple(comparison_of(planned, actual, drilled, log, lines))
    )
