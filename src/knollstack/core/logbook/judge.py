"""The log: what happened, in force, and what it shows."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from knollstack.core.base.findings import Assumption, Finding
from knollstack.core.document.changes import value_at
from knollstack.core.ground.profiles import Ground
from knollstack.core.ground.well import build_well
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.logbook.findings import log_assumptions, log_findings
from knollstack.core.logbook.results import DrilledPoint, FactRow, LogbookResult, Scalar, TestRow
from knollstack.core.logbook.tests_of import Tested, tested
from knollstack.core.path.trajectory import path_of
from knollstack.core.program.equipped import Equipped


def judge(equipped: Equipped, drilled: Drilled) -> tuple[LogbookResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Of a program with the facts in it."""
    if not drilled.log:
        return LogbookResult(), (), ()
    tests = tests_of(drilled)
    planned = build_well(drilled.plan).ground
    result = _result(drilled, tests, planned)
    if not equipped.design.strings:
        return result, (), ()
    return (
        result,
        tuple(log_findings(equipped, drilled, tests, planned)),
        tuple(log_assumptions(equipped, drilled, tests)),
    )


def tests_of(drilled: Drilled) -> tuple[Tested, ...]:
    """Every leak-off and integrity test in force, worked."""
    told = drilled.told
    rows = (e for e in told.about("leak-off test") if e.string in told.index)
    return tuple(tested(drilled.design, entry, told.index[entry.string]) for entry in rows)


def _result(drilled: Drilled, tests: tuple[Tested, ...], planned: Ground) -> LogbookResult:
    told, design = drilled.told, drilled.design
    last, today = drilled.log[-1].at, drilled.today_md_ft
    day = told.day(last)
    return LogbookResult(
        entries=len(drilled.log),
        begins=told.begins or "",
        last_at=last,
        day=day,
        today_md_ft=today,
        today_tvd_ft=None if today is None else path_of(design.trajectory).tvd(today),
        drilling=told.drilling if told.drilling < len(design.strings) else None,
        landed=tuple(sorted(told.landed)),
        facts=tuple(_fact_rows(drilled)),
        tests=tuple(_test_row(test, planned) for test in tests),
        curve=tuple(_curve(drilled)),
    )


def _fact_rows(drilled: Drilled) -> Iterator[FactRow]:
    for fact in drilled.facts:
        plan = value_at(drilled.plan, fact.path)
        yield FactRow(path=fact.path, value=_scalar(fact.value), plan=_scalar(plan), entries=fact.entries)


def _scalar(value: Any) -> Scalar:
    return value if isinstance(value, (str, float, bool)) else float(value) if isinstance(value, int) else None


def _test_row(test: Tested, planned: Ground) -> TestRow:
    found = test.found
    return TestRow(
        entry=test.entry.number,
        string=test.index,
        kind=test.kind,
        md_ft=test.md_ft,
        tvd_ft=test.tvd_ft,
        mud_ppg=test.entry.mud_ppg,
        pressure_psi=test.pressure_psi,
        given=test.entry.leak_off_psi is not None,
        found_psi=found.pressure_psi if found else None,
        found_bbl=found.volume_bbl if found else None,
        slope_psi_bbl=found.line.slope_psi_bbl if found else None,
        offset_psi=found.line.offset_psi if found else None,
        emw_ppg=test.emw_ppg,
        planned_ppg=planned.fracture.one(test.tvd_ft),
        working=test.working,
    )


def _curve(drilled: Drilled) -> Iterator[DrilledPoint]:
    """The hole's depth by day: it never gets shallower."""
    deepest = 0.0
    for entry in drilled.log:
        day = drilled.told.day(entry.at)
        if day is None or day < 0 or entry.kind not in ("depth", "shoe landed", "mud", "kick", "losses"):
            continue
        deepest = max(deepest, entry.md_ft or 0.0)
        yield DrilledPoint(day=day, md_ft=deepest)
