"""What is said of a run sheet: order rules that the person's hand breaks, where it stops, what has lost its place."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, Remedy, Severity, Words, find, remedy
from knollstack.core.runsheet.keeping import DUE, Broken
from knollstack.core.runsheet.person import OWN
from knollstack.core.runsheet.rule import Held, Line
from knollstack.core.runsheet.sheet import SheetInForce, undoing

MOST_WORDS = 60


def sheet_findings(sheet: SheetInForce) -> Iterator[Finding]:
    numbers = {line.key: n for n, line in enumerate(sheet.lines, start=1)}
    for broken in sheet.broken:
        yield _broken(sheet, broken, numbers)
    yield from _held(sheet, numbers)
    yield from _lost(sheet)
    yield from _unknown(sheet)


def short_text(line: Line) -> str:
    """The beginning of a step, as it is quoted."""
    text = "".join(w if isinstance(w, str) else "" for w in line.text) if line.own else ""
    return f" “{text[:MOST_WORDS]}{'…' if len(text) > MOST_WORDS else ''}”" if text else ""


def _subject(sheet: SheetInForce, key: str, numbers: dict[str, int]) -> Words:
    line = next(x for x in sheet.lines if x.key == key)
    return (f"Step {numbers[key]}", *((": ", *line.text) if not line.own else (short_text(line),)))


def place_of(sheet: SheetInForce, key: str) -> str:
    """Where in the document a step is edited: its own row, or the row of its edit."""
    own = sheet.plan.own
    if key.startswith(OWN):
        return next(
            (f"/runsheet/steps/{k}" for k, s in enumerate(own.steps) if f"{OWN}{s.id}" == key), "/runsheet/steps"
        )
    return next((f"/runsheet/edits/{k}" for k, e in enumerate(own.edits) if e.step == key), "/runsheet/edits")


def _broken(sheet: SheetInForce, broken: Broken, numbers: dict[str, int]) -> Finding:
    undone = undoing(sheet, broken)
    remedies: tuple[Remedy, ...] = () if undone is None else (remedy(undone[1], undone[0]),)
    return find(
        "runsheet",
        "caution" if broken.rule is DUE else "stop",
        place_of(sheet, broken.key),
        _subject(sheet, broken.key, numbers),
        f"{broken.rule.name}: {broken.why}. {broken.rule.reason}.",
        remedies=remedies,
    )


def _held(sheet: SheetInForce, numbers: dict[str, int]) -> Iterator[Finding]:
    """The steps that may not be done, or of which that is not known: the first for each reason, with how many follow it."""
    reasons: dict[Held, list[Line]] = {}
    for line in sheet.lines:
        if line.held is not None and not line.crossed:
            reasons.setdefault(line.held, []).append(line)
    for held, lines in reasons.items():
        rest = len(lines) - 1
        more = f" {rest} more {'is' if rest == 1 else 'are'} held for this." if rest else ""
        subject = _subject(sheet, lines[0].key, numbers)
        severity: Severity = "unknown" if held.unknown else "stop"
        yield find("runsheet", severity, "/runsheet", subject, "The sheet stops here: ", *held.why, f".{more}")


def _lost(sheet: SheetInForce) -> Iterator[Finding]:
    """What the person wrote to a step that is in the sheet no more: it is kept, and told."""
    own, keys = sheet.plan.own, {line.key for line in sheet.lines}
    for k, step in enumerate(own.steps):
        line = next(x for x in sheet.lines if x.own == step.id)
        if line.unplaced:
            text = "The step that it followed is not in the sheet any more: it stands at the end of its section."
            yield find("runsheet", "note", f"/runsheet/steps/{k}", (f"Own step{short_text(line)}",), text)
    for k, edit in enumerate(own.edits):
        if edit.step not in keys:
            text = "The step that this was written to is not in the sheet now; it is kept for when it comes back."
            yield find("runsheet", "note", f"/runsheet/edits/{k}", (edit.note or "Edit of a step",), text)
        elif edit.after is not None and edit.after and edit.after not in keys:
            text = "The step that it was moved after is not in the sheet now: it stands where it stands by rule."
            yield find("runsheet", "note", f"/runsheet/edits/{k}", ("Moved step",), text)
    strings = {s.id for s in sheet.plan.equipped.strings}
    zones = {z.id for z in sheet.plan.well.ground.model.zones}
    for k, rate in enumerate(own.rates):
        if rate.string not in strings or (rate.zone is not None and rate.zone not in zones):
            text = "The section or the zone of this rate is not in the design: it changes nothing."
            yield find("runsheet", "note", f"/runsheet/rates/{k}", ("Drilling rate",), text)


def _unknown(sheet: SheetInForce) -> Iterator[Finding]:
    """Times that are not known: days are at least what is told."""
    keys = sheet.schedule.unknown
    if not keys:
        return
    line = next(x for x in sheet.lines if x.key == keys[0])
    rest = f" and of {len(keys) - 1} more" if len(keys) > 1 else ""
    yield find(
        "runsheet",
        "unknown",
        line.place,
        ("Days of the well",),
        "The time of “",
        *line.text,
        f"”{rest} is not known: the well takes at least what the schedule tells.",
    )
