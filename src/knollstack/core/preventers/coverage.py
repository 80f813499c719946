"""What each element does on each thing across it: seals, hangs, shears, or nothing; and what backs it up."""

from __future__ import annotations

from knollstack.core.preventers.results import CoverRow, Verdict
from knollstack.core.preventers.stacks import Cavity, changed_to
from knollstack.core.preventers.tubulars import Tubular

FIT_IN = 0.035
"""How far a pipe's size may be from that of a ram block."""
HAIR_IN = 1e-9
SMOOTH = ("drill pipe", "heavy-weight pipe", "casing", "tubing", "collars")
SEALING: tuple[Verdict, ...] = ("seals", "seals and hangs", "shears and seals")


def verdict(cavity: Cavity, what: Tubular, shears: bool | None) -> Verdict:
    """What an element does on one thing; `shears` says whether its blades cut it, None where that is unknown."""
    if cavity.kind == "unknown":
        return "unknown"
    if cavity.kind == "diverter":
        return "diverts"
    if cavity.kind == "annular":
        return _annular(cavity, what)
    if cavity.element in ("blind shear rams", "casing shear rams"):
        return _shear(cavity, what, shears)
    if cavity.element == "blind rams":
        return "seals" if what.kind == "nothing" else "no seal"
    return _on_pipe(cavity, what)


def _annular(cavity: Cavity, what: Tubular) -> Verdict:
    if cavity.bore_in is None:
        return "unknown"
    return "seals" if what.od_in <= cavity.bore_in else "no seal"


def _shear(cavity: Cavity, what: Tubular, shears: bool | None) -> Verdict:
    seals = cavity.element == "blind shear rams"
    if what.kind == "nothing":
        return "seals" if seals else "no seal"
    if what.kind == "wireline":
        return "shears and seals" if seals else "shears"
    if what.upset or what.kind in ("collars", "heavy-weight pipe"):
        return "cannot shear"
    if shears is None:
        return "unknown"
    if not shears:
        return "cannot shear"
    return "shears and seals" if seals else "shears"


def _on_pipe(cavity: Cavity, what: Tubular) -> Verdict:
    """Pipe, casing and variable rams: on smooth pipe that fits; they hang drill pipe by its tool joint."""
    if what.kind not in SMOOTH:
        return "no seal"
    if cavity.element == "variable rams":
        if cavity.from_in is None or cavity.to_in is None:
            return "unknown"
        fits = cavity.from_in - FIT_IN - HAIR_IN <= what.od_in <= cavity.to_in + FIT_IN + HAIR_IN
    elif cavity.size_in is None:
        return "unknown"
    else:
        fits = abs(what.od_in - cavity.size_in) <= FIT_IN + HAIR_IN
    if not fits:
        return "no seal"
    return "seals and hangs" if what.kind in ("drill pipe", "heavy-weight pipe", "tubing") else "seals"


def in_place(elements: tuple[Cavity, ...], casing_ram: Cavity | None, what: Tubular) -> tuple[Cavity, ...]:
    """The elements as they are while this is across: with casing rams in their cavity while casing is run."""
    if casing_ram is None or what.kind not in ("casing", "coupling") or what.run is None:
        return elements
    return tuple(changed_to(e, what.od_in) if e.index == casing_ram.index else e for e in elements)


Shears = dict[tuple[int, Tubular], bool | None]


def coverage_of(
    elements: tuple[Cavity, ...], casing_ram: Cavity | None, tubulars: tuple[Tubular, ...], shears: Shears
) -> tuple[CoverRow, ...]:
    """A row for each thing across. Drill pipe in a liner run finds the casing rams of the run before changed back."""
    rows = []
    for what in tubulars:
        now = in_place(elements, casing_ram, what)
        cells = tuple(
            verdict(e, what, shears.get((e.index, what))) if e.closes or e.kind == "unknown" else "no seal" for e in now
        )
        changed = casing_ram.index if casing_ram is not None and now is not elements else None
        rows.append(
            CoverRow(
                when=what.when,
                what=what.words,
                kind=what.kind,
                od_in=what.od_in,
                cells=cells,
                changed=changed,
                backs=_backs(now, cells),
            )
        )
    return tuple(rows)


def _backs(elements: tuple[Cavity, ...], cells: tuple[Verdict, ...]) -> tuple[int, ...]:
    """Those that seal, in the order in which they are closed: annulars, then rams from the top; shears last."""

    def order(e: Cavity) -> tuple[int, int]:
        last = 2 if cells[e.index] == "shears and seals" else 0 if e.kind == "annular" else 1
        return last, -e.index

    return tuple(e.index for e in sorted((e for e in elements if cells[e.index] in SEALING), key=order))


def only_annular(elements: tuple[Cavity, ...], row: CoverRow) -> bool:
    """Nothing but annulars seals without cutting it."""
    return bool(row.backs) and all(
        elements[i].kind == "annular" or row.cells[i] == "shears and seals" for i in row.backs
    )
