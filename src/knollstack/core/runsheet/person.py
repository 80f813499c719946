"""What the person did with the sheet: steps crossed out, moved, noted, done; steps of their own, each after the one it follows.

All of it is kept by the key of the step. Where that step is in the sheet no more, what followed it stands at the end of its
section, or of the sheet, and says so.
"""

from __future__ import annotations

from collections.abc import Sequence

from knollstack.core.document.runsheet import OwnStep, RunSheet, StepEdit
from knollstack.core.runsheet.rule import Line

OWN = "own/"


def in_force(by_rule: Sequence[Line], own: RunSheet) -> list[Line]:
    """The sheet as it stands after the person's hand."""
    edits = {e.step: e for e in own.edits}
    lines = [_edited(line, edits.get(line.key)) for line in by_rule]
    lines = _moved(lines, own.edits)
    return _with_own(lines, own.steps, edits)


def _edited(line: Line, edit: StepEdit | None) -> Line:
    if edit is None:
        return line
    return line._replace(crossed=edit.crossed, note=edit.note, done=edit.done, done_by=edit.done_by)


def _moved(lines: list[Line], edits: Sequence[StepEdit]) -> list[Line]:
    """Each moved step after the one that it was put behind, in the order in which they were moved."""
    for edit in edits:
        if edit.after is None:
            continue
        at = next((k for k, line in enumerate(lines) if line.key == edit.step), None)
        if at is None:
            continue
        line = lines.pop(at)
        place = _after(lines, edit.after)
        if place is None:
            lines.insert(at, line)
        else:
            lines.insert(place, line._replace(moved=True))
    return lines


def _after(lines: list[Line], key: str) -> int | None:
    """Where a step stands that follows another; 0 is the beginning; None where that one is not in the sheet."""
    if key == "":
        return 0
    return next((k + 1 for k, line in enumerate(lines) if line.key == key), None)


def _with_own(lines: list[Line], steps: Sequence[OwnStep], edits: dict[str, StepEdit]) -> list[Line]:
    """Own steps put in; one that follows another own step waits until that one stands."""
    waiting = list(steps)
    while waiting:
        placed = [s for s in waiting if _after(lines, s.after) is not None]
        for step in reversed(placed):  # of two behind one step the first stands first
            lines.insert(_after(lines, step.after) or 0, _own_line(lines, step, edits))
        if not placed:
            break
        waiting = [s for s in waiting if s not in placed]
    for step in waiting:
        lines.insert(_fallback(lines, step.after), _own_line(lines, step, edits)._replace(unplaced=True))
    return lines


def _fallback(lines: list[Line], key: str) -> int:
    """The end of the section that the lost step belonged to, or of the sheet."""
    head = key.split("/")[0]
    found = [k for k, line in enumerate(lines) if line.key.split("/")[0] == head]
    return found[-1] + 1 if found else len(lines)


def _own_line(lines: list[Line], step: OwnStep, edits: dict[str, StepEdit]) -> Line:
    key = f"{OWN}{step.id}"
    before = next((line for line in lines if line.key == step.after), None)
    line = Line(
        key=key,
        kind=step.kind,
        text=(step.text,),
        why="",
        step="runsheet",
        signs=step.signs,
        string=before.string if before is not None else None,
        hours=step.hours or 0.0,
        caution=(step.caution,) if step.caution else (),
        hold=step.hold,
        place="/runsheet/steps",
        given=step.hours is not None,
        own=step.id,
    )
    return _edited(line, edits.get(key))
