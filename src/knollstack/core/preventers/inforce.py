"""A stack worked out: its elements, what crosses it, and what each element does on it. Judged and tried alike."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT
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
    most_psi: float | None = None
    """The greatest pressure that the stack ever sees: at sea it stands through all sections."""
    carrier: EquippedString | None = None
    """At sea the string whose housing carries the stack."""

    @property
    def under_sea(self) -> bool:
        return self.carrier is not None

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
    return Ground(equipped, string, head_under(pieces, string), needed, at, needed)


def sea_ground(
    equipped: Equipped, carrier: EquippedString, string: EquippedString, pressures: tuple[float | None, ...]
) -> Ground:
    """The one stack on the sea floor, as it stands while the hole below a string is drilled."""
    stacks = equipped.design.preventers
    at = next((i for i, s in enumerate(stacks) if s.string == carrier.id), None)
    seen = pressures[carrier.index :]
    known = [psi for psi in seen if psi is not None]
    most = max(known) if known and len(known) == len(seen) else None
    return Ground(equipped, string, None, pressures[string.index], at, most, carrier)


def lay(ground: Ground, stack: Stack | None) -> InForce:
    """A stack of the document, or with None the one that is proposed."""
    equipped, string = ground.equipped, ground.string
    policy, catalogue = equipped.well.policy.preventers, equipped.catalogue
    needed, conductor = ground.needed_psi, string.role == "conductor"
    well_psi = at_stack_psi(equipped, string, needed) if ground.under_sea else needed
    if stack is not None:
        class_psi: float | None = stack.class_psi
    else:
        class_psi = None if conductor or ground.most_psi is None else stack_class_psi(policy, ground.most_psi)
    bore, flange = _bore(ground, class_psi)
    tubulars = tubulars_of(equipped, string)
    crossing = crossing_all(equipped, ground) if ground.under_sea else tubulars
    why: dict[str, str] = {}
    if stack is not None:
        rows = stack.elements
    else:
        rows, why = proposed_rows(policy, catalogue, string, class_psi, bore, crossing, ground.under_sea)
    elements = cavities(catalogue, rows, Carried(class_psi, bore, ground.place, stack is not None), crossing, why)
    casing_ram, _ = (None, False) if ground.under_sea else casing_ram_of(policy, stack, elements)
    shear, cut = shear_rows(equipped, string, elements, tubulars, well_psi)
    coverage = coverage_of(elements, casing_ram, tubulars, cut)
    return InForce(ground, stack, rows, class_psi, bore, flange, elements, tubulars, casing_ram, shear, coverage)


def equipped_bore(ground: Ground) -> float:
    """Bore of the housing on the sea floor, which the stack has too."""
    return ground.equipped.design.sea.housing.bore_in


def crossing_all(equipped: Equipped, ground: Ground) -> tuple[Tubular, ...]:
    """What crosses the stack on the sea floor in any section: its rams are not changed while it stands there."""
    assert ground.carrier is not None
    found = [t for s in equipped.strings[ground.carrier.index :] for t in tubulars_of(equipped, s)]
    return tuple(dict.fromkeys(found))


def at_stack_psi(equipped: Equipped, string: EquippedString, needed: float | None) -> float | None:
    """Pressure in the stack on the sea floor when it shears: the well's, or no less than the mud in the riser."""
    muds = [s.mud_ppg for s in equipped.strings[string.index + 1 :] if s.mud_ppg is not None]
    if needed is None:
        return None
    return max(needed, PSI_PER_PPG_FT * max(muds, default=0.0) * equipped.well.ground_md_ft)


def _bore(ground: Ground, class_psi: float | None) -> tuple[float | None, str | None]:
    """Bore of the stack and its flange: that of the head under it, else the least over the casing."""
    catalogue, head, string = ground.equipped.catalogue, ground.head, ground.string
    if ground.under_sea:
        flange = None if class_psi is None else catalogue.flange(equipped_bore(ground), class_psi)
        return equipped_bore(ground), flange.words if flange is not None else None
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
        string=(found.ground.carrier or found.ground.string).id,
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
