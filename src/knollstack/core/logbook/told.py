"""What the log tells of a plan: its entries by kind and by string, which strings stand, and how deep the hole is today."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from knollstack.core.base.dates import days_between
from knollstack.core.document.design import Design
from knollstack.core.document.log import EntryKind, LogEntry

ALONG_THE_HOLE: tuple[EntryKind, ...] = (
    "depth",
    "shoe landed",
    "leak-off test",
    "survey",
    "mud",
    "kick",
    "losses",
    "returns",
)
"""Kinds whose depth the hole has reached."""


@dataclass(frozen=True)
class Told:
    """Entries in force, in order of time, and what they say of the plan's strings by their index."""

    entries: tuple[LogEntry, ...] = ()
    index: dict[str, int] = field(default_factory=dict)
    """Of each string, by its id."""
    landed: dict[int, LogEntry] = field(default_factory=dict)
    cemented: dict[int, LogEntry] = field(default_factory=dict)
    strays: tuple[LogEntry, ...] = ()
    """About a string that the plan does not have."""
    today_md_ft: float | None = None
    begins: str | None = None
    """When the well was spudded, or first drilled."""
    drilling: int = 0
    """Index of the string whose hole is open, or is drilled next: the one below the deepest that stands."""

    @classmethod
    def of(cls, plan: Design, entries: tuple[LogEntry, ...]) -> Told:
        index = {s.id: i for i, s in enumerate(plan.strings)}
        depths = [e.md_ft for e in entries if e.kind in ALONG_THE_HOLE and e.md_ft is not None]
        spuds = [e.at for e in entries if e.kind == "spud"] or [e.at for e in entries if e.kind == "depth"]
        found = cls(
            entries,
            index,
            {index[e.string]: e for e in entries if e.kind == "shoe landed" and e.string in index},
            {index[e.string]: e for e in entries if e.kind == "cement" and e.string in index},
            tuple(e for e in entries if e.string and e.string not in index),
            max(depths, default=None),
            spuds[0] if spuds else None,
        )
        return found.at_work(plan)

    def at_work(self, plan: Design) -> Told:
        """With the string that is worked on: those above the deepest that stands do too, and what is driven and passed."""
        drilling = max(self.landed, default=-1) + 1
        while drilling < len(plan.strings) and self._passed(plan, drilling):
            drilling += 1
        return replace(self, drilling=drilling)

    def _passed(self, plan: Design, index: int) -> bool:
        string = plan.strings[index]
        below = self.today_md_ft is not None and self.today_md_ft > string.shoe_md_ft
        return below and string.run in ("driven", "jetted")

    def about(self, kind: EntryKind) -> Iterator[LogEntry]:
        return (e for e in self.entries if e.kind == kind)

    def of_string(self, kind: EntryKind) -> dict[int, LogEntry]:
        """The last entry of a kind about each string."""
        return {self.index[e.string]: e for e in self.about(kind) if e.string in self.index}

    def day(self, at: str) -> float | None:
        """Days from the spud to a time; None before there is a spud."""
        return None if self.begins is None else days_between(self.begins, at)
