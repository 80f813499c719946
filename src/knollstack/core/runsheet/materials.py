"""The list of materials: what the sheet asks for, string by string, and what two lists differ in."""

from __future__ import annotations

from collections.abc import Sequence

from knollstack.core.runsheet.items import Item, Needed, dated
from knollstack.core.runsheet.items_string import of_hole, of_sea_holes, of_string
from knollstack.core.runsheet.items_top import of_bops, of_end, of_wellhead
from knollstack.core.runsheet.plan import At, Plan
from knollstack.core.runsheet.rule import Line
from knollstack.core.runsheet.schedule import Schedule


def items_of(plan: Plan, lines: Sequence[Line]) -> list[Item]:
    """From the first string to the last thing left in the well."""
    found: list[Item] = []
    for string in plan.equipped.strings:
        at = At(plan, string)
        if string.drilled:
            found += of_hole(at, lines)
        if string in plan.standing:
            found += of_string(at)
    found += of_sea_holes(plan)
    found += of_wellhead(plan)
    found += of_bops(plan)
    found += of_end(plan)
    return found


def materials_of(plan: Plan, lines: Sequence[Line], schedule: Schedule) -> tuple[Needed, ...]:
    return dated(plan, schedule, items_of(plan, lines))
