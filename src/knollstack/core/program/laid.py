"""The strings in force as they are laid out: where each stands, its hole and casing size, its mud and its cement.

The document's strings with every open decision filled by a proposal; with none in the document the proposal is the
program. Every value that the tool filled in is listed as an assumption. What a string is made of comes next, in
`equipped.py`. Both are made in the room `proposal`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, fields
from operator import attrgetter
from typing import Any, Generic, TypeVar

from knollstack.core.base.findings import Assumption, Change, Finding, Words, size
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Design
from knollstack.core.document.strings import Role, Run, String
from knollstack.core.ground.well import Well


@dataclass(frozen=True)
class Shoe:
    """A proposed shoe, and why it stands no shallower or no deeper."""

    md_ft: float
    rule: str
    reason: Words


@dataclass(frozen=True)
class Proposal:
    """Shoes from conductor to total depth; no shoes and a failure where no program exists.

    `place` is what mends the failure; `missing` tells that data is wanting, so that none could be sought, `cut` that the
    search went no further; `effort` is the work that it took.
    """

    shoes: tuple[Shoe, ...]
    failure: Words
    place: str = "/strings"
    missing: bool = False
    cut: bool = False
    effort: float = 0.0


@dataclass(frozen=True)
class Slurry:
    """The recipe in force and its density: water, bentonite, and other additives by the names of their fields."""

    bentonite_percent: float
    water_gal_sk: float
    density_ppg: float
    additives: tuple[tuple[str, float], ...] = ()

    @property
    def mix(self) -> dict[str, float]:
        return {"water_gal_sk": self.water_gal_sk, "bentonite_percent": self.bentonite_percent, **dict(self.additives)}


_READERS: dict[type, attrgetter[tuple[Any, ...]]] = {}
"""What reads the values by which strings of a kind are compared."""


@dataclass(frozen=True)
class LaidString:
    """One string of the program, with the values in force; None is not known."""

    index: int
    id: str
    proposed: bool
    role: Role
    run: Run
    wellhead_md_ft: float
    top_md_ft: float
    shoe_md_ft: float
    previous_shoe_md_ft: float
    bit_in: float | None
    od_in: float | None
    mud_ppg: float | None
    planned_mud_ppg: float | None
    own: String
    cement_top_md_ft: float | None = None
    slurry: Slurry | None = None
    lead: Slurry | None = None
    tail_top_md_ft: float | None = None
    displacement_ppg: float | None = None
    collar_md_ft: float | None = None
    """Where the plug lands: the top of the collar, by the string's tally."""

    def __hash__(self) -> int:
        """Worked once: strings are keys of many caches."""
        held = self.__dict__.get("_hash")
        if held is None:
            kind = type(self)
            if kind not in _READERS:
                _READERS[kind] = attrgetter(*(f.name for f in fields(self) if f.compare))
            held = hash(_READERS[kind](self))
            object.__setattr__(self, "_hash", held)
        return int(held)

    @property
    def path(self) -> str:
        return f"/strings/{self.index}"

    @property
    def drilled(self) -> bool:
        """There is an open hole that this string's bit drilled."""
        return self.run in ("cased", "liner")

    @property
    def hung_md_ft(self) -> float:
        """Where the string hangs in the end: a liner that is tied back hangs from the wellhead."""
        return self.wellhead_md_ft if self.own.tie_back else self.top_md_ft

    @property
    def words(self) -> Words:
        return (size(self.od_in),) if self.od_in is not None else (self.role,)

    @property
    def hole_words(self) -> Words:
        return (size(self.bit_in), " hole") if self.bit_in is not None else (*self.words, " hole")

    @property
    def shoe_words(self) -> Words:
        return (*self.words, " shoe")

    def change(self, key: str, value: Any) -> Change:
        """An edit of this string; on a proposed one the proposal is adopted with it, when it is offered."""
        return Change(path=f"{self.path}/{key}", value=value)

    def adopted(self) -> String:
        """A proposed string as a decision of the document."""
        return String(
            id=self.id, role=self.role, run=self.run, shoe_md_ft=self.shoe_md_ft, bit_in=self.bit_in, od_in=self.od_in
        )


S = TypeVar("S", bound=LaidString)


class InOrder(Generic[S]):
    """Strings in order of depth, conductor first."""

    strings: tuple[S, ...]

    def next(self, string: LaidString) -> S | None:
        return self.strings[string.index + 1] if string.index + 1 < len(self.strings) else None

    def previous(self, string: LaidString) -> S | None:
        return self.strings[string.index - 1] if string.index else None


@dataclass(frozen=True, eq=False)
class Laid(InOrder[LaidString]):
    """A design laid out: its well, its catalogue with own pipes, the strings in force, and what was said on the way."""

    design: Design
    catalogue: Catalogue
    well: Well
    strings: tuple[LaidString, ...]
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]
    seek: Callable[[], Proposal] = field(compare=False)
    """The search for a program, made where its shoes are asked for: with strings decided only the step of depths does."""

    @property
    def proposal(self) -> Proposal:
        return self.seek()


def role_list(count: int) -> list[Role]:
    """Roles of a program of `count` strings, conductor first."""
    if count == 0:
        return []
    middle: list[Role] = ["surface"] if count > 2 else []
    middle += ["intermediate"] * (count - 3)
    return ["conductor", *middle, "production"]
