"""New entries made part of a log: numbered, their strings known by id, checked against what stands before."""

from __future__ import annotations

from collections.abc import Sequence

from knollstack.core.base.units import fraction, inches_of
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.document.log import MOST_ENTRIES, LogEntry, NewEntry
from knollstack.core.reading.checks_log import correction_faults, entry_faults

PLACE = "/entries"


def written(
    log: Sequence[LogEntry], new: Sequence[NewEntry], design: Design, author: str, moment: str
) -> list[LogEntry]:
    """New entries as they follow those of a log; raises FaultyDesign with every fault, and then none is written."""
    last = log[-1].number if log else 0
    if len(log) + len(new) > MOST_ENTRIES:
        value = f"{len(log) + len(new):,} entries"
        raise FaultyDesign([Fault(path=PLACE, value=value, expected=f"at most {MOST_ENTRIES:,} in a log")])
    known = {e.number for e in log}
    corrected = {e.corrects: e.number for e in log if e.corrects is not None}
    made: list[LogEntry] = []
    faults: list[Fault] = []
    for i, entry in enumerate(new):
        place, number = f"{PLACE}/{i}", last + 1 + i
        string = string_id(design, entry.string)
        if string is None:
            names = ", ".join(s.id if s.od_in is None else f"{fraction(s.od_in)} in ({s.id})" for s in design.strings)
            expected = f"a string of the design: {names}" if names else "nothing: the design has no string yet"
            faults.append(Fault(path=f"{place}/string", value=entry.string, expected=expected))
        held = {key: getattr(entry, key) for key in NewEntry.model_fields}
        held |= {"string": string or "", "author": entry.author or author, "number": number, "logged_at": moment}
        row = LogEntry(**held)
        faults += entry_faults(place, row if string is not None else row.model_copy(update={"string": entry.string}))
        faults += correction_faults(place, row, known, corrected)
        known.add(number)
        made.append(row)
    if faults:
        raise FaultyDesign(faults)
    return made


def string_id(design: Design, text: str) -> str | None:
    """A string by its id, its name or its size as people write it; None where that is none of the design's, or of two."""
    if text == "" or any(s.id == text for s in design.strings):
        return text
    named = [s.id for s in design.strings if s.name and s.name.casefold() == text.strip().casefold()]
    if len(named) == 1:
        return named[0]
    size = inches_of(text.casefold().removesuffix("in").removesuffix('"').strip())
    sized = [s.id for s in design.strings if size is not None and s.od_in == size]
    return sized[0] if len(sized) == 1 else None
