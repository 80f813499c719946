"""What the log tells of the run sheet's steps and of the barriers: steps signed, elements verified."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.document.completion import Verification
from knollstack.core.document.design import Design
from knollstack.core.document.runsheet import StepEdit
from knollstack.core.logbook.facts import Fact
from knollstack.core.logbook.told import Told


def signed_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Steps that an entry signs are done, by its author."""
    rows = [e.model_dump(mode="json") for e in design.runsheet.edits]
    by: list[int] = []
    for entry in told.entries:
        if not entry.step:
            continue
        row = next((r for r in rows if r["step"] == entry.step), None)
        if row is None:
            row = StepEdit(id=f"log-{entry.number}", step=entry.step).model_dump(mode="json")
            rows.append(row)
        row["done"], row["done_by"] = True, entry.author
        by.append(entry.number)
    if by:
        yield Fact("/runsheet/edits", rows, tuple(by))


def verified_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Barrier elements that were tested: the last test of each says whether it holds."""
    rows = [v.model_dump(mode="json") for v in design.completion.verified]
    by: list[int] = []
    for entry in told.about("test"):
        if not entry.element:
            continue
        made = Verification(
            id=f"log-{entry.number}",
            element=entry.element,
            result="holds" if entry.passed else "leaks",
            psi=entry.pressure_psi,
            date=entry.at[:10],
            note=entry.text[:200],
        )
        rows = [r for r in rows if r["element"] != entry.element] + [made.model_dump(mode="json")]
        by.append(entry.number)
    if by:
        yield Fact("/completion/verified", rows, tuple(by))
