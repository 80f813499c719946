"""What is said of decision, barriers, evaluation and records."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Severity, Words, depth, emw, find, remedy
from knollstack.core.completion.results import AlternativeRow, ElementRow, PointRow, StateRow, SurveyRow
from knollstack.core.program.equipped import Equipped

_find = partial(find, "completion")
LEARNT_PPG = 0.05
"""A logged pressure nearer to the profile than this changes nothing."""


def decision_findings(equipped: Equipped, rows: tuple[AlternativeRow, ...]) -> Iterator[Finding]:
    if equipped.design.completion.decision is not None:
        return
    labels = {"complete": "Complete the well", "suspend": "Suspend it", "plug and abandon": "Plug and abandon it"}
    mends = tuple(
        remedy(Change(path="/completion/decision", value=row.decision), labels[row.decision])
        for row in rows
        if row.allowed == "allowed"
    )
    text = "Whether the well is completed, suspended or abandoned is not decided: how it is left is unknown."
    yield _find("unknown", "/completion/decision", ("Decision at total depth",), text, remedies=mends)


def short_of(state: StateRow) -> list[ElementRow]:
    """Elements that keep it from its count, each once."""
    found = {e.key: e for envelope in state.envelopes for e in envelope.elements if e.stands != "stands"}
    return list(found.values())


def state_findings(states: tuple[StateRow, ...]) -> Iterator[Finding]:
    """States with too few barriers; those with one cause are told together, a removal before all."""
    groups: dict[tuple[str, tuple[str, ...]], list[StateRow]] = {}
    for state in states:
        if state.allowed != "allowed":
            keys = tuple(sorted(e.key for e in short_of(state)))
            groups.setdefault((state.allowed, keys), []).append(state)
    for (allowed, _), found in groups.items():
        first = next((s for s in found if s.removal), found[0])
        yield _of_state(first, len(found) - 1, "stop" if allowed == "forbidden" else "unknown")


def _of_state(state: StateRow, others: int, severity: Severity) -> Finding:
    short = short_of(state)
    why: Words = ()
    for e in short:
        said: Words = e.why or ("not there",)
        why = (*why, "; " if why else "", *e.title, ": ", *said)
    if not why:
        why = ("no second envelope is there",)
    count = f"{state.count} of {state.needed} barriers"
    done: Words = (*state.removal, " is not allowed: ") if state.removal and severity == "stop" else ()
    lead: Words = (*done, count, ". ") if severity == "stop" else ("Known to stand: ", count, ". ")
    more: Words = (f". The same holds of {others} other state{'s' if others > 1 else ''}.",) if others else (".",)
    place = short[0].place if short else "/completion/decision"
    return _find(severity, place, state.title, *lead, *why, *more)


def survey_findings(equipped: Equipped, rows: tuple[SurveyRow, ...]) -> Iterator[Finding]:
    """Evaluation that no section holds, or that reaches above its section, into what is cased by then."""
    for k, (row, own) in enumerate(zip(rows, equipped.design.completion.evaluation, strict=True)):
        place, subject = f"/completion/evaluation/{k}/to_md_ft", (own.name or own.kind,)
        if row.string is None:
            yield _find("caution", place, subject, "No open hole of the program holds it.")
            continue
        shoe = equipped.strings[row.string].previous_shoe_md_ft
        if own.kind not in ("leak-off test", "well test") and own.from_md_ft < shoe - 0.5:
            text: Words = (
                "It begins at ",
                depth(own.from_md_ft),
                ", above the shoe at ",
                depth(shoe),
                ": there it is cased by then.",
            )
            change = remedy(Change(path=f"/completion/evaluation/{k}/from_md_ft", value=shoe), "Begin at ", depth(shoe))
            yield _find("note", f"/completion/evaluation/{k}/from_md_ft", subject, *text, remedies=(change,))


def point_findings(equipped: Equipped, rows: tuple[PointRow, ...]) -> Iterator[Finding]:
    """A logged pressure that the mud of its hole does not hold, or that the profile does not have."""
    for k, (row, own) in enumerate(zip(rows, equipped.design.completion.pressure_points, strict=True)):
        place, subject = f"/completion/pressure_points/{k}/psi", (own.source or "Logged pressure",)
        measured: Words = ("Measured ", emw(row.emw_ppg), " at ", depth(row.tvd_ft), " TVD; ")
        holes = (s for s in equipped.strings if s.drilled and s.previous_shoe_md_ft < own.md_ft <= s.shoe_md_ft)
        hole = next(holes, None)
        if hole is not None and hole.mud_ppg is not None and row.emw_ppg > hole.mud_ppg + 1e-9:
            text: Words = (*measured, "the ", *hole.hole_words, " is drilled with ", emw(hole.mud_ppg), ".")
            value, limit = emw(row.emw_ppg), emw(hole.mud_ppg)
            yield _find("stop", place, subject, *text, value=value, limit=limit, working=row.working)
            continue
        far = row.profile_ppg is None or abs(row.emw_ppg - row.profile_ppg) >= LEARNT_PPG
        if far and not row.in_profile:
            has: Words = ("no pore pressure",) if row.profile_ppg is None else (emw(row.profile_ppg),)
            yield _find("note", place, subject, *measured, "the profile has ", *has, " there.", working=row.working)


def record_findings(equipped: Equipped, states: tuple[StateRow, ...]) -> Iterator[Finding]:
    """Records of an element that no state has."""
    known = {e.key for s in states for envelope in s.envelopes for e in envelope.elements}
    rows = equipped.design.completion.verified
    for k, row in enumerate(rows):
        if row.element not in known:
            left = [r.model_dump(mode="json") for r in rows if r.id != row.id]
            mend = remedy(Change(path="/completion/verified", value=left), "Remove the record")
            text = "No barrier of the design is called so any more: the record counts for nothing."
            yield _find("caution", f"/completion/verified/{k}/element", (row.element,), text, remedies=(mend,))
