"""A rule of the run sheet gives one step, or one for each thing that it is about; a line is a step of this very well."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any, Literal, NamedTuple

from knollstack.core.base.findings import Step, Words
from knollstack.core.base.working import headline
from knollstack.core.document.runsheet import StepKind
from knollstack.core.runsheet.plan import At

Act = Literal[
    "spud",
    "drill",
    "drill out",
    "run",
    "conductor",
    "cemented",
    "set",
    "count",
    "off",
    "on",
    "diverter",
    "tested",
    "joint broken",
    "joint tested",
    "bushing in",
    "bushing out",
    "plug in",
    "valve open",
    "plug test",
    "plug out",
    "hanger",
    "hang",
    "rams changed",
    "rams back",
    "covered",
    "casing test",
    "cup test",
    "liner top",
    "tree on",
]


class Does(NamedTuple):
    """What a step does to the well, and where: what the order rules follow."""

    act: Act
    at: str = ""


class Held(NamedTuple):
    """Why a step may not be done as the design stands; `unknown` where that is not known for certain."""

    why: Words
    unknown: bool = False


END = "end"
"""The section of what is done once the last hole is cased: it belongs to no string."""
NEXT_BUT_ONE = "~"
"""Done beside the next step, and needed by the one after that."""
Test = Callable[[At], bool]


def always(_: At) -> bool:
    return True


def no_time(_: At) -> float | None:
    return 0.0


def nowhere(_: At) -> str:
    return ""


def no_working(_: At) -> str | None:
    return None


@dataclass(frozen=True)
class Rule:
    """A step with the well's own numbers; `each` names what there is one line of."""

    key: str
    kind: StepKind
    text: Callable[[At], Words]
    why: str
    step: Step
    signs: str = "driller"
    when: Test = always
    each: Callable[[At], Iterable[tuple[str, Any]]] | None = None
    hours: Callable[[At], float | None] = no_time
    caution: Callable[[At], Words] | str = ""
    hold: bool = False
    does: Callable[[At], tuple[Does, ...]] = lambda at: ()
    place: Callable[[At], str] = nowhere
    working: Callable[[At], str | None] = no_working
    beside: str = ""
    """Key of the step that waits for it, where it is done beside the rig's own work; by rule within the same section."""
    held: Callable[[At], Held | None] = lambda at: None


class Line(NamedTuple):
    """A step of the sheet. `hours` is what it takes by plan, without lost time; None is not known.

    A tuple, since hundreds are made in an answer.
    """

    key: str
    kind: StepKind
    text: Words
    why: str
    step: Step
    signs: str = ""
    string: int | None = None
    hours: float | None = 0.0
    caution: Words = ()
    hold: bool = False
    does: tuple[Does, ...] = ()
    place: str = ""
    working: str | None = None
    beside: str = ""
    held: Held | None = None
    md_ft: float | None = None
    """How deep the hole is once it is done, where it makes it deeper."""
    given: bool = False
    """Its time is the person's."""
    own: str = ""
    """Id of the person's step."""
    crossed: bool = False
    moved: bool = False
    note: str = ""
    done: bool = False
    done_by: str = ""
    unplaced: bool = False
    """The step that it followed is in the sheet no more."""


def lines(rules: Iterable[Rule], at: At, section: str | None = None) -> Iterator[Line]:
    """The lines of rules in a section, in their order; keys begin with the string's id, or with another word."""
    head = at.string.id if section is None else section
    for rule in rules:
        if rule.each is None:
            if rule.when(at):
                yield line_of(rule, at, f"{head}/{rule.key}", head)
            continue
        for suffix, item in rule.each(at) if rule.when(at) else ():
            yield line_of(rule, at.about(item), f"{head}/{rule.key}{'/' if suffix else ''}{suffix}", head)


def line_of(rule: Rule, at: At, key: str, head: str) -> Line:
    given = at.plan.given_hours.get(key)
    with headline(f"runsheet/{key}"):
        planned = rule.hours(at)
    return Line(
        key=key,
        kind=rule.kind,
        text=rule.text(at),
        why=rule.why,
        step=rule.step,
        signs=rule.signs,
        string=None if head == END else at.string.index,
        hours=planned if given is None else given,
        caution=(rule.caution,) if isinstance(rule.caution, str) and rule.caution else _caution(rule, at),
        hold=rule.hold,
        does=rule.does(at),
        place=rule.place(at),
        working=rule.working(at),
        beside=rule.beside if rule.beside in ("", NEXT_BUT_ONE) else f"{head}/{rule.beside}",
        held=rule.held(at),
        given=given is not None,
    )


def _caution(rule: Rule, at: At) -> Words:
    return () if isinstance(rule.caution, str) else rule.caution(at)
