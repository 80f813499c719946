"""What the log asks for where a step is signed: the kind of entry, and the string that it is about."""

from __future__ import annotations

import re
from typing import NamedTuple

from knollstack.core.document.log import EntryKind
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.rule import Act, Line


class Asked(NamedTuple):
    kind: EntryKind = "signed"
    string: str = ""


BY_ACT: dict[Act, EntryKind] = {
    "spud": "spud",
    "drill": "depth",
    "conductor": "shoe landed",
    "casing test": "test",
    "cup test": "test",
    "tested": "test",
    "joint tested": "test",
    "liner top": "test",
}
"""Kinds of entry by what a step does to the well; the casing test names the casing that is tested."""
BY_KEY: tuple[tuple[re.Pattern[str], EntryKind], ...] = (
    (re.compile(r"/function$"), "signed"),
    (re.compile(r"/leak-off$"), "leak-off test"),
    (re.compile(r"/mud$"), "mud"),
    (re.compile(r"/tally$"), "tally"),
    (re.compile(r"/land$"), "shoe landed"),
    (re.compile(r"/returns$"), "cement"),
    (re.compile(r"/(test|prove|bonnets)(/|$)"), "test"),
    (re.compile(r"/(gear|bha)$"), "equipment"),
)
ABOVE = re.compile(r"/leak-off$")
ABOUT_A_STRING: tuple[EntryKind, ...] = ("shoe landed", "leak-off test", "tally", "cement")


def asked(plan: Plan, line: Line) -> Asked:
    """A step whose actuals nobody asks for is signed alone."""
    tests = next((d.at for d in line.does if d.act == "casing test"), "")
    by_key: list[EntryKind] = [k for pattern, k in BY_KEY if pattern.search(line.key) and line.string is not None]
    by_act: list[EntryKind] = [BY_ACT[d.act] for d in line.does if d.act in BY_ACT]
    kind: EntryKind = next(iter([*by_key, *by_act]), "signed")
    if tests or line.string is None:
        return Asked(kind, tests)
    if kind not in ABOUT_A_STRING:
        return Asked(kind)
    at = line.string - 1 if ABOVE.search(line.key) else line.string
    return Asked(kind, plan.equipped.strings[max(0, at)].id)
