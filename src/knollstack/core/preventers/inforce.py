"""A stack worked out: its elements, what crosses it, and what each element does on it. Judged and tried alike."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.findings import Change
from knollstack.core.document.preventers import Stack, StackElement
from knollstack.core.preventers.coverage import coverage_of
from knollstack.core.preventers.moments import head_under
from knollstack.core.preventers.results import CoverRow, ShearRow
from knollstack.core.preventers.shearing import shear_rows
from knollstack.core.preventers.stacks import Carried, Cavity, casing_ram_of, cavities, proposed_rows, stack_class_psi
from knollstack.core.preventers.tubulars import Tubular, tubulars_of
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.pieces import HeadPiece


@dataclass(frozen=True)
class Ground:
    """What a stack stands on and stands against: its string, the head under it, the greatest surface pressure."""

    equipped: Equipped
    string: EquippedString
    head: HeadPiece | None
    needed_psi: float | None
    at: int | None
    """Place of the decided stack in the document."""

    @property
    def place(self) -> str:
        return f"/preventers/{self.at}" if self.at is not None else self.string.path


@dataclass(frozen=True)
class InForce:
    ground: Ground
    stack: Stack | None
    rows: tuple[StackElement, ...]
    class_psi: float | None
    bore_in: float | None
    flange: str | None
    elements: tuple[Cavity, ...]
    tubulars: tuple[Tubular, ...]
    casing_ram: Cavity | None
    shear: tuple[ShearRow, ...]
    coverage: tuple[CoverRow, ...]


def ground_of(
    equipped: Equipped, pieces: tuple[HeadPiece, ...], string: EquippedString, needed: float | None
) -> Ground:
    stacks = equipped.design.preventers
    at = next((i for i, s in enumerate(stacks) if s.string == string.id), None)
    return Ground(equipped, string, head_under(pieces, string), needed, at)


def lay(ground: Ground, stack: Stack | None) -> InForce:
    """A stack of the document, or with None the one that is proposed."""
    equipped, string = ground.equipped, ground.string
    policy, catalogue = equipped.well.policy.preventers, equipped.catalogue
    needed, conductor = ground.needed_psi, string.role == "conductor"
    if stack is not None:
        class_psi: float | None = stack.class_psi
    else:
        class_psi = None if conductor or needed is None else stack_class_psi(policy, needed)
    bore, flange = _bore(ground, class_psi)
    tubulars = tubulars_of(equipped, string)
    why: dict[str, str] = {}
    if stack is not None:
        rows = stack.elements
    else:
        rows, why = proposed_rows(policy, catalogue, string, class_psi, bore, tubulars)
    elements = cavities(catalogue, rows, Carried(class_psi, bore, ground.place, stack is not None), tubulars, why)
    casing_ram, _ = casing_ram_of(policy, stack, elements)
    shear, cut = shear_rows(equipped, string, elements, tubulars, needed)
    coverage = coverage_of(elements, casing_ram, tubulars, cut)
    return InForce(ground, stack, rows, class_psi, bore, flange, elements, tubulars, casing_ram, shear, coverage)


def _bore(ground: Ground, class_psi: float | None) -> tuple[float | None, str | None]:
    """Bore of the stack and its flange: that of the head under it, else the least over the casing."""
    catalogue, head, string = ground.equipped.catalogue, ground.head, ground.string
    if string.role == "conductor":
        return (string.pipe.id_in if string.pipe is not None else string.od_in), None
    if string.od_in is None or class_psi is None:
        return None, None
    least = head.bore_in if head is not None else string.od_in
    flange = catalogue.flange(least, class_psi)
    return (flange.bore_in, flange.words) if flange is not None else (None, None)


def as_decided(found: InForce) -> Stack:
    """The stack as a decision of the document; a proposed one with an id that is free."""
    if found.stack is not None:
        return found.stack
    taken = {s.id for s in found.ground.equipped.design.preventers}
    free = next(f"b{n}" for n in range(1, len(taken) + 2) if f"b{n}" not in taken)
    return Stack(
        id=free,
        string=found.ground.string.id,
        class_psi=found.class_psi or 0.0,
        elements=found.rows,
        casing_ram=found.casing_ram.id if found.casing_ram is not None else None,
    )


def change_to(found: InForce, stack: Stack) -> Change:
    """The edit that puts a stack in place of this one; a proposed one is decided with it."""
    value = stack.model_dump(mode="json")
    if found.ground.at is not None:
        return Change(path=found.ground.place, value=value)
    others = [s.model_dump(mode="json") for s in found.ground.equipped.design.preventers]
    return Change(path="/preventers", value=[*others, value])
