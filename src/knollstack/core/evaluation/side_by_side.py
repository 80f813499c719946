"""Two evaluations side by side: the results of each section, and the findings that each has alone."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from pydantic import BaseModel

from knollstack.core.base.findings import Amount, Finding, Quantity, Step, Words
from knollstack.core.cement.results import StageRow
from knollstack.core.evaluation.results import Evaluation

UNKNOWN: Words = ("unknown",)
NONE: Words = ("–",)


class ResultRow(BaseModel):
    """One result of a section in either design; `differs` as shown, not by what is lost in rounding."""

    step: Step
    section: str
    label: str
    a: Words
    b: Words
    differs: bool


class SideBySide(BaseModel):
    results: list[ResultRow]
    findings_a: list[Finding]
    findings_b: list[Finding]


Cell = Callable[[Evaluation, int], Words]


def _amount(value: float | None, quantity: Quantity) -> Words:
    return UNKNOWN if value is None else (Amount(value=value, quantity=quantity),)


def _kick(e: Evaluation, i: int, key: str, quantity: Quantity) -> Words:
    kick = e.depths.strings[i].kick
    return NONE if kick is None else _amount(getattr(kick, key), quantity)


def _pipe(e: Evaluation, i: int) -> Words:
    sections = e.pipe.strings[i].sections
    if not sections:
        return UNKNOWN
    words: Words = ()
    for j, part in enumerate(sections):
        weight = Amount(value=part.weight_ppf, quantity="linear_weight")
        words = (*words, *((", then ",) if j else ()), weight, f" {part.grade} {part.connection}")
    return words


def _factor(kind: str) -> Cell:
    def cell(e: Evaluation, i: int) -> Words:
        factors = [load.factor for load in e.pipe.strings[i].loads if load.kind == kind]
        return _amount(min(factors), "factor") if factors else NONE

    return cell


def _cement(key: str, quantity: Quantity) -> Cell:
    def cell(e: Evaluation, i: int) -> Words:
        row = e.cement.strings[i]
        return _amount(getattr(row, key), quantity) if row.applies else NONE

    return cell


def _job(of: Callable[[StageRow], float | None], quantity: Quantity, *, together: bool = False) -> Cell:
    """Of the cement job's stages: of both together, or of the one where it is most."""

    def cell(e: Evaluation, i: int) -> Words:
        row = e.cement.strings[i]
        if not row.applies:
            return NONE
        found = [of(stage) for stage in row.stages]
        known = [value for value in found if value is not None]
        if not known or len(known) < len(found):
            return UNKNOWN
        return _amount(sum(known) if together else max(known), quantity)

    return cell


def _running(key: str, quantity: Quantity) -> Cell:
    def cell(e: Evaluation, i: int) -> Words:
        row = e.running.strings[i]
        return _amount(getattr(row, key), quantity) if row.applies else NONE

    return cell


def _stack(e: Evaluation, i: int) -> Words:
    row = e.preventers.strings[i]
    if not row.elements:
        return NONE
    rating = f" {row.class_psi:,.0f} psi class" if row.class_psi is not None else ""
    return (", ".join(x.title for x in reversed(row.elements)) + rating,)


def _cut(e: Evaluation, i: int) -> Words:
    """Where the string is cut, over the cellar floor or the deck."""
    found = next((row.final_in for row in e.wellhead.cuts if row.string == i), None)
    return NONE if found is None else (Amount(value=found, quantity="height"),)


def _bottles(e: Evaluation, i: int) -> Words:
    row = e.preventers.strings[i].accumulators
    return _amount(row.bottles_needed if row is not None else None, "count") if row is not None else NONE


def _steel(e: Evaluation, i: int) -> Words:
    sections = e.pipe.strings[i].sections
    weight = sum(p.weight_ppf * (p.bottom_md_ft - p.top_md_ft) for p in sections)
    return _amount(weight if sections else None, "force")


_CELLS: tuple[tuple[Step, str, Cell], ...] = (
    ("depths", "shoe", lambda e, i: _amount(e.strings[i].shoe_md_ft, "depth")),
    ("sizes", "hole", lambda e, i: _amount(e.strings[i].bit_in, "size") if e.strings[i].run != "driven" else NONE),
    ("sizes", "casing", lambda e, i: _amount(e.strings[i].od_in, "size")),
    ("mud", "mud", lambda e, i: _amount(e.strings[i].mud_ppg, "emw") if e.strings[i].run != "driven" else NONE),
    ("depths", "kick tolerance at the shoe", lambda e, i: _kick(e, i, "tolerance_bbl", "volume")),
    ("depths", "MAASP", lambda e, i: _kick(e, i, "maasp_psi", "pressure")),
    ("pipe", "pipe", _pipe),
    ("pipe", "least burst factor", _factor("burst")),
    ("pipe", "least collapse factor", _factor("collapse")),
    ("pipe", "least tension factor", _factor("tension")),
    ("pipe", "weight of steel in air", _steel),
    ("running", "joints", _running("joints", "count")),
    ("running", "hook load picked up", _running("hook_up_lbf", "force")),
    ("running", "least collapse factor while run", _running("collapse_factor", "factor")),
    ("running", "centralizers", _running("centralizers", "count")),
    ("cement", "top of cement", _cement("top_md_ft", "depth")),
    ("cement", "slurry", _cement("slurry_bbl", "volume")),
    ("cement", "sacks", _cement("sacks", "sacks")),
    ("cement", "cement job", _job(lambda stage: stage.minutes, "minutes", together=True)),
    ("cement", "greatest pump pressure, cementing", _job(lambda stage: stage.greatest_pump_psi, "pressure")),
    ("cement", "annulus nearest to fracture, cementing", _job(lambda stage: stage.greatest_emw_ppg, "emw")),
    ("wellhead", "final cut", _cut),
    ("preventers", "stack", _stack),
    ("preventers", "accumulator bottles needed", _bottles),
)


_SUMS: tuple[tuple[Step, str, Cell], ...] = (
    ("pipe", "weight of steel in air", _steel),
    ("cement", "sacks", _cement("sacks", "sacks")),
)


def _sections(e: Evaluation) -> dict[tuple[str, int], int]:
    """Index of each string by its role and its count within the role, from the top."""
    found: dict[tuple[str, int], int] = {}
    for i, s in enumerate(e.strings):
        count = sum(1 for role, _ in found if role == s.role)
        found[(s.role, count)] = i
    return found


def _shown(words: Words) -> tuple[str, ...]:
    return tuple(w if isinstance(w, str) else f"{w.value:.6g}" for w in words)


def _row(step: Step, section: str, label: str, a: Words, b: Words) -> ResultRow:
    return ResultRow(step=step, section=section, label=label, a=a, b=b, differs=_shown(a) != _shown(b))


def _whole(e: Evaluation, cell: Cell) -> Words:
    """Sum over the strings; unknown when one is."""
    parts = [cell(e, i) for i in range(len(e.strings))]
    amounts = [w for words in parts for w in words if isinstance(w, Amount)]
    if not amounts or UNKNOWN in parts:
        return UNKNOWN
    return (Amount(value=sum(w.value for w in amounts), quantity=amounts[0].quantity),)


def _riser(key: str, quantity: Quantity) -> Callable[[Evaluation], Words]:
    return lambda e: NONE if e.sea.riser is None else _amount(getattr(e.sea.riser, key), quantity)


def _tension(e: Evaluation) -> Words:
    """The most that any section asks with tensioners lost."""
    if e.sea.riser is None:
        return NONE
    known = [row.least_failed_lbf for row in e.sea.riser.tensions if row.least_failed_lbf is not None]
    return _amount(max(known, default=None), "force")


def _carried(e: Evaluation) -> Words:
    """The least factor of the conductor in the soil."""
    if e.sea.conductor is None:
        return NONE
    known = [row.factor for row in e.sea.conductor.rows if row.factor is not None]
    return _amount(min(known, default=None), "factor")


_AT_SEA: tuple[tuple[str, Callable[[Evaluation], Words]], ...] = (
    ("conductor in the soil, least factor", _carried),
    ("riser made up", _riser("made_ft", "length")),
    ("riser tension, tensioners lost", _tension),
    ("time to run the riser", _riser("hours", "hours")),
)


def _days(e: Evaluation) -> Words:
    """By the mean; unknown where the time of any step is."""
    days = e.runsheet.days
    return _amount(days.expected if days is not None and not e.runsheet.unknown else None, "days")


def _rows(a: Evaluation, b: Evaluation) -> Iterable[ResultRow]:
    yield _row("depths", "whole well", "strings", (str(len(a.strings)),), (str(len(b.strings)),))
    for step, label, cell in _SUMS:
        yield _row(step, "whole well", label, _whole(a, cell), _whole(b, cell))
    days = _days(a), _days(b)
    yield _row("runsheet", "whole well", "days from the spud", *days)
    for label, told in _AT_SEA:
        if (a.sea.applies or b.sea.applies) and (told(a) != NONE or told(b) != NONE):
            yield _row("sea", "whole well", label, told(a), told(b))
    in_a, in_b = _sections(a), _sections(b)
    order = ("conductor", "surface", "intermediate", "production")
    for role, count in sorted(in_a.keys() | in_b.keys(), key=lambda key: (order.index(key[0]), key[1])):
        section = role if count == 0 else f"{role} {count + 1}"
        for step, label, cell in _CELLS:
            i, k = in_a.get((role, count)), in_b.get((role, count))
            yield _row(
                step, section, label, cell(a, i) if i is not None else NONE, cell(b, k) if k is not None else NONE
            )


def side_by_side(a: Evaluation, b: Evaluation) -> SideBySide:
    """Results section by section, and the findings that one design has and the other has not at that place."""

    def alone(mine: Evaluation, other: Evaluation) -> list[Finding]:
        theirs = {(f.severity, f.step, f.place) for f in other.findings}
        return [f for f in mine.findings if (f.severity, f.step, f.place) not in theirs]

    return SideBySide(results=list(_rows(a, b)), findings_a=alone(a, b), findings_b=alone(b, a))
