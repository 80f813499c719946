"""Everything that crosses a stack while it stands: what is drilled with, what is run, wireline, and nothing."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from knollstack.core.base.findings import Words, size
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.drills import DrillPart
from knollstack.core.document.policy import DrillString
from knollstack.core.pipe.exposure import exposure_of
from knollstack.core.program.equipped import Equipped, EquippedString

Kind = Literal[
    "drill pipe", "heavy-weight pipe", "tool joint", "collars", "casing", "coupling", "tubing", "wireline", "nothing"
]
GRADES_PSI = {"E": 75_000.0, "X": 95_000.0, "G": 105_000.0, "S": 135_000.0}
"""Yield of drill pipe (API 5DP)."""
WIRELINE_IN = 0.46
UPSET_SHARE = 1.3
"""OD of a tool joint over its pipe's, of a pipe that the catalogue does not hold."""


@dataclass(frozen=True)
class Tubular:
    """One thing across the stack; a body that can be sheared has a bore and a yield strength."""

    when: Words
    kind: Kind
    words: Words
    od_in: float
    id_in: float | None = None
    yield_psi: float | None = None
    run: int | None = None
    """Index of the string that is run."""

    @property
    def upset(self) -> bool:
        """Short or shouldered: no ram closes on it as a rule."""
        return self.kind in ("tool joint", "coupling")


def tool_joint_in(catalogue: Catalogue, row: DrillString) -> float:
    usual = catalogue.drill_pipe_of(row.pipe_od_in)
    if row.tool_joint_in is not None:
        return row.tool_joint_in
    return usual.tool_joint_in if usual is not None else UPSET_SHARE * row.pipe_od_in


def drill_pipe_id_in(catalogue: Catalogue, row: DrillString) -> float | None:
    usual = catalogue.drill_pipe_of(row.pipe_od_in)
    return row.pipe_id_in if row.pipe_id_in is not None else usual.id_in if usual is not None else None


def _drill_string(equipped: Equipped, when: Words, row: DrillString, *, collars: bool = True) -> Iterator[Tubular]:
    od, grade = row.pipe_od_in, equipped.well.policy.preventers.drill_pipe_grade
    joint = tool_joint_in(equipped.catalogue, row)
    body = drill_pipe_id_in(equipped.catalogue, row)
    yield Tubular(when, "drill pipe", (size(od), " drill pipe"), od, body, GRADES_PSI[grade])
    yield Tubular(when, "tool joint", (size(joint), " tool joint"), joint)
    if row.heavy_od_in is not None:
        yield Tubular(when, "heavy-weight pipe", (size(row.heavy_od_in), " heavy-weight pipe"), row.heavy_od_in)
    if collars:
        words = (size(row.collar_od_in), " collars")
        yield Tubular(when, "collars", words, row.collar_od_in)


def _drilled_with(equipped: Equipped, when: Words, below: EquippedString) -> Iterator[Tubular]:
    """The string as run where that is given, from the rig floor down; else policy's for the hole."""
    parts = [p for p in equipped.design.drills.parts if p.hole == below.id]
    if not parts and below.bit_in is not None:
        yield from _drill_string(equipped, when, equipped.well.drill_string(below.bit_in))
    grade = GRADES_PSI[equipped.well.policy.preventers.drill_pipe_grade]
    for part in reversed(parts):
        body = (part.id_in, grade) if part.kind == "drill pipe" else ()
        yield Tubular(when, part.kind, (size(part.od_in), f" {part.kind}"), part.od_in, *body)
        joint = joint_of(equipped.catalogue, part)
        if joint > part.od_in:
            yield Tubular(when, "tool joint", (size(joint), " tool joint"), joint)


def joint_of(catalogue: Catalogue, part: DrillPart) -> float:
    """OD of the joints of a part as run: as given, else usual; collars have none wider than themselves."""
    if part.joint_in is not None:
        return part.joint_in
    if part.kind == "collars":
        return part.od_in
    usual = catalogue.drill_pipe_of(part.od_in)
    return usual.tool_joint_in if usual is not None else UPSET_SHARE * part.od_in


def _casing(when: Words, string: EquippedString) -> Iterator[Tubular]:
    seen: set[float] = set()
    kind = " liner" if string.run == "liner" else " casing"
    if string.od_in is not None and not string.sections:
        yield Tubular(when, "casing", (size(string.od_in), kind), string.od_in, run=string.index)
        return
    strongest = {s.pipe.od_in: s.pipe for s in sorted(string.sections, key=lambda s: s.pipe.body_lbf)}
    for section in string.sections:
        od = section.pipe.od_in
        if od in seen:
            continue
        seen.add(od)
        pipe = strongest[od]
        yield Tubular(when, "casing", (size(od), kind), od, pipe.id_in, pipe.grade.yield_psi, string.index)
        wide = max(s.pipe.coupling_od_in for s in string.sections if s.pipe.od_in == od)
        if wide > od:
            yield Tubular(when, "coupling", (size(wide), " coupling"), wide, run=string.index)


def running_words(string: EquippedString) -> Words:
    """When a string itself is what crosses the stack."""
    return ("running ", *string.words, " liner" if string.run == "liner" else " casing")


def tubulars_of(equipped: Equipped, string: EquippedString) -> tuple[Tubular, ...]:
    """What crosses the stack on a string, in the order of the work; the same thing at one time once."""
    exposed = exposure_of(equipped.laid, string)
    found: list[Tubular] = []
    for laid in exposed.through:
        below = equipped.strings[laid.index]
        drilling: Words = below.hole_words
        found += _drilled_with(equipped, drilling, below)
        found.append(Tubular(drilling, "wireline", ("wireline",), WIRELINE_IN))
        found.append(Tubular(drilling, "nothing", ("nothing: open hole",), 0.0))
        running = running_words(below)
        found += _casing(running, below)
        if below.run == "liner" and below.bit_in is not None:
            found += _drill_string(equipped, running, equipped.well.drill_string(below.bit_in), collars=False)
    last_stack = all(below.run == "liner" for below in equipped.strings[string.index + 1 :])
    if last_stack and string.role != "conductor":  # a liner, tied back or not, has no stack of its own
        found += _completion(equipped, string)
    return tuple(dict.fromkeys(found))


def _completion(equipped: Equipped, string: EquippedString) -> Iterator[Tubular]:
    """Clean-out and tubing in the production casing."""
    when: Words = ("completion",)
    last = equipped.strings[-1]
    pipe = last.pipe or string.pipe
    if pipe is not None:
        yield from _drill_string(equipped, when, equipped.well.drill_string(pipe.drift_in), collars=False)
    tubing = equipped.well.policy.sizes.tubing_od_in
    if tubing is not None:
        yield Tubular(when, "tubing", (size(tubing), " tubing"), tubing)
        pipes = [p for p in equipped.catalogue.tubing if p.od_in == tubing]
        if pipes:
            wide = max(p.coupling_od_in for p in pipes)
            yield Tubular(when, "coupling", (size(wide), " coupling"), wide)
    yield Tubular(when, "wireline", ("wireline",), WIRELINE_IN)
    yield Tubular(when, "nothing", ("nothing: cased hole",), 0.0)
