"""The run sheet: the well as the rig will live it, in steps, days and materials."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, get_args

from knollstack.core.base.dates import date_after
from knollstack.core.base.findings import Assumption, Finding, Words, assume
from knollstack.core.base.working import headline
from knollstack.core.document.runsheet import StepKind
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.runsheet.findings import sheet_findings
from knollstack.core.runsheet.formulas import deviation_hours, expected_hours
from knollstack.core.runsheet.items import Needed
from knollstack.core.runsheet.materials import materials_of
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.results import CurveRow, DaysRow, KindRow, RunsheetResult, SectionRow
from knollstack.core.runsheet.schedule import HOURS_A_DAY, Band, Schedule, Slot
from knollstack.core.runsheet.sheet import SheetInForce, sheet_of
from knollstack.core.runsheet.times import on_bottom_hours, section_rate


def judge(
    equipped: Equipped, results: Mapping[str, Any]
) -> tuple[RunsheetResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """From the results of all steps before it."""
    if not equipped.strings:
        return RunsheetResult(), (), ()
    plan = Plan.of(equipped, results)
    sheet = sheet_of(plan)
    needed = materials_of(plan, sheet.lines, sheet.schedule)
    result = _result(plan, sheet, needed)
    return result, tuple(sheet_findings(sheet)), tuple(_assumptions(plan))


def _result(plan: Plan, sheet: SheetInForce, needed: tuple[Needed, ...]) -> RunsheetResult:
    schedule, spud = sheet.schedule, plan.own.spud
    first = min((n.order_day for n in needed if n.order_day is not None and not n.ordered), default=None)
    return RunsheetResult(
        steps=sum(not line.crossed for line in sheet.lines),
        held=sum(line.held is not None and not line.crossed for line in sheet.lines),
        broken=len(sheet.broken),
        unknown=len(schedule.unknown),
        days=_days(schedule),
        ends_on=date_after(spud, schedule.end.mean),
        first_order=date_after(spud, first),
        first_order_day=first,
        kinds=tuple(_kinds(schedule)),
        sections=tuple(_sections(plan, sheet)),
        curve=tuple(_curve(plan, schedule)),
    )


def _days(schedule: Schedule) -> DaysRow:
    end = schedule.end
    return DaysRow(
        least=schedule.least_days,
        likely=schedule.likely_days,
        most=schedule.most_days,
        expected=end.mean,
        low=end.low,
        high=end.high,
    )


def _kinds(schedule: Schedule) -> Iterator[KindRow]:
    """With the working of each mean: its sums, and what they give."""
    for kind in get_args(StepKind):
        slots = [s for s in schedule.own if s.line.kind == kind and s.likely_hours > 0]
        if not slots:
            continue
        key = f"runsheet/kind/{kind}"
        least, likely, most = (sum(getattr(s, f"{w}_hours") for s in slots) for w in ("least", "likely", "most"))
        with headline(key):
            mean = float(expected_hours(least, likely, most))
            deviation_hours(least, most)
        yield KindRow(
            kind=kind, least_hours=least, likely_hours=likely, most_hours=most, expected_hours=mean, working=key
        )


def _sections(plan: Plan, sheet: SheetInForce) -> Iterator[SectionRow]:
    schedule = sheet.schedule
    strings: list[EquippedString | None] = [*plan.equipped.strings, None]
    for string in strings:
        at = None if string is None else string.index
        rows = zip(schedule.slots, schedule.bands, strict=True)
        inside = [(s, b) for s, b in rows if s.line.string == at and not s.line.beside and not s.line.unplaced]
        if inside:
            yield _section(plan, string, inside)


Inside = list[tuple[Slot, Band]]
ENDS = {"complete": "completion", "suspend": "suspension", "plug and abandon": "abandonment"}


def _name(plan: Plan, string: EquippedString | None) -> Words:
    if string is None:
        return (ENDS.get(plan.completion.decision or "", "decision at total depth"),)
    return (*string.words, " conductor") if string.role == "conductor" else string.words


def _section(plan: Plan, string: EquippedString | None, inside: Inside) -> SectionRow:
    drilled = [s for s, _ in inside if s.line.md_ft is not None]
    row = SectionRow(
        string=None if string is None else string.index,
        name=_name(plan, string),
        begins=inside[0][0].begins,
        ends=inside[-1][0].ends,
        low=inside[-1][1].low,
        high=inside[-1][1].high,
        steps=len(inside),
    )
    if string is None or not drilled or not string.drilled:
        return row
    top = max(string.previous_shoe_md_ft, plan.well.ground_md_ft)
    rate, given = section_rate(plan, string)
    factor = [s.expected_hours / s.line.hours for s in drilled if s.line.hours]
    drilling = {
        "name": string.hole_words,
        "rate_ft_hour": rate,
        "rate_given": given,
        "top_md_ft": top,
        "bottom_md_ft": string.shoe_md_ft,
        "on_bottom_hours": None if rate is None else on_bottom_hours([(top, string.shoe_md_ft, rate)]),
        "drilled_day": drilled[-1].ends,
        "day_factor": (factor[0] if factor else 1.0) / HOURS_A_DAY,
    }
    return row.model_copy(update=drilling)


def _curve(plan: Plan, schedule: Schedule) -> Iterator[CurveRow]:
    """Depth of the hole against days: where it grows, and where it stands."""
    first = plan.equipped.strings[0]
    before_spud = first.role == "conductor" and not plan.subsea
    md = first.shoe_md_ft if before_spud else plan.well.ground_md_ft
    rows = [
        (s, b) for s, b in zip(schedule.slots, schedule.bands, strict=True) if s.begins >= -1e-9 and not s.line.beside
    ]
    yield CurveRow(day=0.0, low=0.0, high=0.0, md_ft=md)
    low = high = 0.0
    for slot, band in rows:
        if slot.line.md_ft is not None:
            yield CurveRow(day=slot.begins, low=low, high=high, md_ft=md)
            md = slot.line.md_ft
            yield CurveRow(day=slot.ends, low=band.low, high=band.high, md_ft=md)
        low, high = band.low, band.high
    if rows:
        yield CurveRow(day=rows[-1][0].ends, low=low, high=high, md_ft=md)


def _assumptions(plan: Plan) -> Iterator[Assumption]:
    own = plan.own
    text = "Rates and times of the schedule are planning values of policy"
    given = sum(r.zone is None for r in own.rates)
    yield assume(
        "runsheet", "/policy/runsheet/rates", f"{text}{', but for the rates that are given' if given else ''}."
    )
    if not own.spud:
        yield assume("runsheet", "/runsheet/spud", "No spud date is given: days count from the spud.")
