"""Checks of what a person decides of the run sheet: real dates, steps that stand after the spud, one edit a step."""

from __future__ import annotations

from collections.abc import Iterable

from knollstack.core.base.dates import A_DAY, is_date
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault
from knollstack.core.document.runsheet import BEFORE_SPUD, RunSheet

READY = ("preparation", "BOPs", "testing", "barriers", "wellhead")
"""Kinds of work that may stand before the spud."""
OWN = "own/"
AHEAD = ("/tally", "/riser-inspect")
"""Steps by rule that are done beside the rig, and may be before the spud."""


def _date_faults(path: str, text: str) -> Iterable[Fault]:
    if text and not is_date(text):
        yield Fault(path=path, value=text, expected=A_DAY)


def _roots(sheet: RunSheet) -> dict[str, str | None]:
    """The step by rule that each own step follows in the end; None where it follows itself."""
    after = {s.id: s.after for s in sheet.steps}
    found: dict[str, str | None] = {}
    for name in after:
        seen, at = {name}, after[name]
        while at.startswith(OWN) and at[len(OWN) :] in after and at[len(OWN) :] not in seen:
            seen.add(at[len(OWN) :])
            at = after[at[len(OWN) :]]
        found[name] = None if at.startswith(OWN) and at[len(OWN) :] in seen else at
    return found


def _before_spud(after: str) -> bool:
    return after == "" or after.startswith(BEFORE_SPUD)


def runsheet_faults(design: Design) -> Iterable[Fault]:
    sheet, place = design.runsheet, "/runsheet"
    yield from _date_faults(f"{place}/spud", sheet.spud)
    for i, order in enumerate(sheet.orders):
        yield from _date_faults(f"{place}/orders/{i}/ordered", order.ordered)
    roots = _roots(sheet)
    for i, step in enumerate(sheet.steps):
        root = roots[step.id]
        if root is None:
            yield Fault(
                path=f"{place}/steps/{i}/after", value=step.after, expected="a step that does not follow this one"
            )
        elif _before_spud(root) and step.kind not in READY:
            expected = f"a place after the spud: {step.kind} is not done before it"
            yield Fault(path=f"{place}/steps/{i}/after", value=step.after or "the beginning", expected=expected)
    for i, edit in enumerate(sheet.edits):
        ready = edit.step.startswith((BEFORE_SPUD, OWN)) or edit.step.endswith(AHEAD)
        if edit.after is not None and not ready and _before_spud(edit.after):
            expected = "a place after the spud: this step is not done before it"
            yield Fault(path=f"{place}/edits/{i}/after", value=edit.after or "the beginning", expected=expected)
    for name, key in (("edits", "step"), ("orders", "item")):
        yield from _twice(f"{place}/{name}", key, [getattr(row, key) for row in getattr(sheet, name)])


def _twice(path: str, key: str, names: list[str]) -> Iterable[Fault]:
    for i, name in enumerate(names):
        if name in names[:i]:
            yield Fault(path=f"{path}/{i}/{key}", value=name, expected="one row for each")
