"""The whole sheet as its views read it: lines in time with dates, materials with theirs."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from knollstack.core.base.dates import date_after
from knollstack.core.base.findings import Words
from knollstack.core.program.equipped import Equipped
from knollstack.core.runsheet.asked import asked
from knollstack.core.runsheet.items import Needed
from knollstack.core.runsheet.materials import materials_of
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.results import LineRow, MaterialRow, SheetDetail
from knollstack.core.runsheet.rule import Line
from knollstack.core.runsheet.schedule import Slot
from knollstack.core.runsheet.sheet import SheetInForce, sheet_of


def sheet_detail(equipped: Equipped, results: Mapping[str, Any]) -> SheetDetail:
    """Of a judged program; empty without strings."""
    if not equipped.strings:
        return SheetDetail(lines=(), materials=(), weight_lb=0.0, weights_unknown=0, cost=0.0, prices_unknown=0)
    sheet = sheet_of(Plan.of(equipped, results))
    needed = materials_of(sheet.plan, sheet.lines, sheet.schedule)
    materials = tuple(_material(sheet.plan, n) for n in needed)
    return SheetDetail(
        lines=line_rows(sheet),
        materials=materials,
        weight_lb=sum(m.weight_lb or 0.0 for m in materials),
        weights_unknown=sum(m.weight_lb is None for m in materials),
        cost=sum(m.cost or 0.0 for m in materials),
        prices_unknown=sum(m.cost is None for m in materials),
    )


def line_rows(sheet: SheetInForce) -> tuple[LineRow, ...]:
    slots = {s.line.key: s for s in sheet.schedule.slots}
    broken: dict[str, list[str]] = {}
    for b in sheet.broken:
        broken.setdefault(b.key, []).append(f"{b.rule.name}: {b.why}. {b.rule.reason}.")
    sections = {at: section_words(sheet.plan, at) for at in {line.string for line in sheet.lines}}
    return tuple(
        _line(sheet.plan, n, line, slots.get(line.key), tuple(broken.get(line.key, ())), sections[line.string])
        for n, line in enumerate(sheet.lines, start=1)
    )


def section_words(plan: Plan, string: int | None) -> Words:
    """A hole with the string that is set in it."""
    if string is None:
        return ()
    own = plan.equipped.strings[string]
    if own.role == "conductor":
        return (*own.words, " conductor")
    return (*own.hole_words, ", ", *own.words) if own.drilled and own.bit_in is not None else own.words


def _line(plan: Plan, number: int, line: Line, slot: Slot | None, broken: tuple[str, ...], section: Words) -> LineRow:
    asks = asked(plan, line)
    return LineRow(
        key=line.key,
        number=number,
        kind=line.kind,
        text=line.text,
        why=line.why,
        caution=line.caution,
        signs=line.signs,
        hold=line.hold,
        hours=line.hours,
        given=line.given,
        string=line.string,
        section=section,
        step=line.step,
        place=line.place,
        working=line.working,
        beside=bool(line.beside),
        begins=slot.begins if slot is not None else None,
        ends=slot.ends if slot is not None else None,
        date=date_after(plan.own.spud, slot.begins) if slot is not None else "",
        slack_hours=slot.slack_hours if slot is not None else None,
        held=line.held.why if line.held is not None else (),
        broken=broken,
        crossed=line.crossed,
        moved=line.moved,
        note=line.note,
        done=line.done,
        done_by=line.done_by,
        own=line.own,
        unplaced=line.unplaced,
        md_ft=line.md_ft,
        asks=asks.kind,
        about=asks.string,
    )


def _material(plan: Plan, needed: Needed) -> MaterialRow:
    item, spud = needed.item, plan.own.spud
    return MaterialRow(
        key=item.key,
        kind=item.kind,
        string=item.string,
        section=plan.equipped.strings[item.string].words if item.string is not None else (),
        what=item.what,
        unit=item.unit,
        quantity=item.quantity,
        spare=item.spare,
        weight_lb=None if item.weight_lb is None else item.weight_lb * item.total,
        lead_days=needed.lead_days,
        lead_given=needed.lead_given,
        needed_day=needed.needed_day,
        needed_on=date_after(spud, needed.needed_day),
        order_day=needed.order_day,
        order_by=date_after(spud, needed.order_day),
        ordered=needed.ordered,
        price=needed.price,
        cost=None if needed.price is None else needed.price * item.total,
    )
