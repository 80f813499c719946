"""Barriers with the riser off: what stands in each section after an emergency disconnect, and when a storm is left to pass.

The column of mud is one where it holds without the riser, rams that seal the bore are one, the storm plug is one. A barrier
is counted as verified: rams by their test, the plug by its own, the column by its weight.
"""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, find
from knollstack.core.mud.plan import riser
from knollstack.core.preventers.results import PreventersResult, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.disconnect import SEALING, stack_over
from knollstack.core.sea.results import AcrossRow, BarrierRow
from knollstack.core.sea.riser import through_riser

LEAST_IN_EMERGENCY = 1
"""With nothing left the well flows into the sea. Two are planned for; what an emergency leaves is told beside it."""
COLUMN, PLUG = "mud column", "storm plug"


def barrier_rows(equipped: Equipped, stacks: PreventersResult, across: tuple[AcrossRow, ...]) -> tuple[BarrierRow, ...]:
    """Both moments of every section that is drilled through the riser."""
    rows: list[BarrierRow] = []
    for string in through_riser(equipped):
        stack = stack_over(equipped, stacks, string)
        if stack is None:
            continue
        drilling = [row for row in across if row.string == string.index and row.kind == "drill pipe"]
        rows.append(_emergency(equipped, string, drilling))
        rows.append(_leaving(equipped, string, stack))
    return tuple(rows)


def _column(equipped: Equipped, string: EquippedString) -> tuple[list[str], list[str]]:
    """The mud column among what stands, or among what is not known."""
    margin = riser(equipped.well, string)
    if margin is None:
        return [], [COLUMN]
    return ([COLUMN] if margin.held else []), []


def _emergency(equipped: Equipped, string: EquippedString, drilling: list[AcrossRow]) -> BarrierRow:
    """Drill pipe is across: rams count that cut it and seal, or over which others do."""
    stands, unknown = _column(equipped, string)
    if drilling and drilling[0].cut == "cut and sealed":
        stands.append(drilling[0].by)
    elif not drilling or drilling[0].cut == "unknown":
        unknown.append("shear rams")
    return BarrierRow(
        string=string.index,
        section=string.words,
        moment="emergency disconnect",
        stands=tuple(stands),
        unknown=tuple(unknown),
        needed=LEAST_IN_EMERGENCY,
    )


def _leaving(equipped: Equipped, string: EquippedString, stack: StackRow) -> BarrierRow:
    """The string is out or hung off below the plug: any ram that seals the open bore counts, as one, and the plug."""
    stands, unknown = _column(equipped, string)
    sealing = [element.title for element in stack.elements if element.element in SEALING]
    return BarrierRow(
        string=string.index,
        section=string.words,
        moment="leaving before a storm",
        stands=(*stands, *sealing[-1:], PLUG),
        unknown=tuple(unknown),
        needed=equipped.well.policy.sea.barriers,
    )


def barrier_findings(rows: tuple[BarrierRow, ...]) -> Iterator[Finding]:
    """Fewer than are asked; where the rest hangs on what is not known, that is told."""
    for row in rows:
        standing, known = len(row.stands), ", ".join(row.stands) or "none"
        if standing >= row.needed:
            continue
        place, subject = f"/strings/{row.string}/mud_ppg", (*row.section, f" hole, {row.moment}")
        if standing + len(row.unknown) >= row.needed:
            text = f"Barriers without the riser are unknown: whether {' and '.join(row.unknown)} hold is not known."
            yield find("sea", "unknown", place, subject, text)
            continue
        count = f"{standing} of {row.needed} barriers" if standing else "No barrier"
        text = f"{count} would stand without the riser: {known}."
        yield find("sea", "caution" if standing else "stop", place, subject, text)
