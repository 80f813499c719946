"""The well as drilled: the plan with the facts of the log put in, from the top down to today's depth.

A fact is a value at a place of the document, and the entries that it comes from. Facts are put in one rule after another
(`rules.py`); one that leaves no design that can be read is not in force, and says what stands against it.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel, ValidationError

from knollstack.core.document.changes import put
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault, schema_faults
from knollstack.core.document.log import LogEntry, in_force
from knollstack.core.logbook.facts import Fact, cut_off
from knollstack.core.logbook.rules import RULES
from knollstack.core.logbook.told import Told
from knollstack.core.reading.checks import cross_faults


@dataclass(frozen=True)
class Unfit:
    """A fact that is not in force, and the fault that it would make."""

    fact: Fact
    path: str
    value: str
    expected: str


@dataclass(frozen=True)
class Drilled:
    """A plan, the same design as drilled, and what makes the difference. Neither holds the log any more."""

    plan: Design
    design: Design
    log: tuple[LogEntry, ...] = ()
    """What is in force of it, in order of time."""
    facts: tuple[Fact, ...] = ()
    unfit: tuple[Unfit, ...] = ()
    told: Told = field(default_factory=Told)

    @property
    def today_md_ft(self) -> float | None:
        return self.told.today_md_ft

    def is_fact(self, path: str) -> bool:
        """A place that stands in a fact, or holds one."""
        return any(path == f.path or path.startswith(f"{f.path}/") for f in self.facts)


def as_drilled(design: Design) -> Drilled:
    """A design with the facts of its log in it."""
    plan = design.model_copy(update={"log": ()}) if design.log else design
    entries = in_force(design.log)
    if not entries:
        return Drilled(plan, plan)
    told, made, facts, unfit = Told.of(plan, entries), plan, list[Fact](), list[Unfit]()
    for rule in RULES:
        made, taken, left = _taken(made, list(rule(told, made)))
        facts += taken
        unfit += left
    return Drilled(plan, made, entries, tuple(facts), tuple(unfit), told)


def _taken(design: Design, facts: list[Fact]) -> tuple[Design, list[Fact], list[Unfit]]:
    """A design with the facts of one rule: all of them, else one by one without those that leave none."""
    if not facts:
        return design, [], []
    whole = _given(design, facts)
    if isinstance(whole, Design):
        return whole, facts, []
    taken, unfit = list[Fact](), list[Unfit]()
    for fact in facts:
        made = _given(design, [fact])
        if isinstance(made, Design):
            design = made
            taken.append(fact)
        else:
            unfit.append(Unfit(fact, made.path, made.value, made.expected))
    return design, taken, unfit


def _given(design: Design, facts: list[Fact]) -> Design | Fault:
    """A design with facts in their places, or the first fault that it then has."""
    for fact in facts:
        try:
            design = _put(design, fact)
        except ValidationError as error:
            fault = schema_faults(error)[0]
            return fault.model_copy(update={"path": fact.path + fault.path[fault.path.find("/", 1) :]})
    return next(iter(cross_faults(design)), design)


def landed_at(design: Design, index: int, md_ft: float) -> Design:
    """A design whose string stands at a depth, with what it has below that cut off."""
    path = f"/strings/{index}"
    for fact in (*cut_off(path, design.strings[index], md_ft, ()), Fact(f"{path}/shoe_md_ft", md_ft, ())):
        design = _put(design, fact)
    return design


def _put(design: Design, fact: Fact) -> Design:
    """A fact in its place: only the part that holds it is made anew."""
    head, *rest = fact.path.split("/")[1:]
    whole = getattr(design, head)
    if head == "strings":
        at = int(rest[0])
        row = _with(whole[at], rest[1:], fact.value)
        return design.model_copy(update={head: (*whole[:at], row, *whole[at + 1 :])})
    return design.model_copy(update={head: _with(whole, rest, fact.value)})


def _with(part: BaseModel, keys: list[str], value: Any) -> BaseModel:
    document = part.model_dump(mode="json")
    put(document, "/" + "/".join(keys), value)
    return type(part).model_validate(document)
