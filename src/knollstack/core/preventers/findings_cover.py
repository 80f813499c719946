"""What a stack does not close on, what it lacks of policy's least, and what it cannot shear, hang or hold."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Change, Finding, Words, find, force, pressure, remedy, size
from knollstack.core.document.preventers import ClassElements, ElementKind, StackElement
from knollstack.core.preventers.findings import say
from knollstack.core.preventers.inforce import InForce, change_to
from knollstack.core.preventers.mending import added, fresh_element, holes, remedies
from knollstack.core.preventers.results import HangOffRow, StackRow
from knollstack.core.preventers.stacks import BLIND, ON_PIPE, least_of, least_on_sea_floor

PASSING = {"tool joint": "tool joints", "collars": "collars", "coupling": "couplings"}
UNITS_PSI = (3_000.0, 5_000.0)
"""Usual operating pressures of closing units."""


def cover_findings(found: InForce) -> Iterator[Finding]:
    """What none but the annular closes on, or nothing at all."""
    string = found.ground.string
    for row in holes(found).values():
        what: Words = ("Open hole",) if row.kind == "nothing" else row.what
        while_: Words = (" while ", *_while(row.when), ".")
        if not row.backs and "unknown" in row.cells:
            yield say(
                string, "unknown", found.ground.place, *what, ": whether anything closes on it is unknown", *while_
            )
            continue
        cut = any(row.cells[i] == "shears and seals" for i in row.backs)
        text = ": only the annular closes on it" + (" without cutting it" if cut else "")
        yield say(
            string,
            "caution" if row.backs else "stop",
            found.ground.place,
            *what,
            text if row.backs else ": nothing closes on it",
            *while_,
            remedies=remedies(found, row),
        )
    if found.elements and all(e.kind == "unknown" for e in found.elements):
        yield say(string, "unknown", found.ground.place, "What its elements close on is not known.")


def _while(when: Words) -> Words:
    """The time of a row in a sentence."""
    first = when[0]
    if isinstance(first, str) and (first.startswith("running") or first == "completion"):
        return ("completing the well",) if first == "completion" else when
    return ("drilling the ", *when)


def least_findings(found: InForce) -> Iterator[Finding]:
    """A decided stack against the least of policy for its class."""
    if found.stack is None or found.ground.string.role == "conductor":
        return
    policy = found.ground.equipped.well.policy.preventers
    pick = least_on_sea_floor if found.ground.under_sea else least_of
    least = pick(policy, found.class_psi)
    if least is None:
        return
    kinds, whole = [e.element for e in found.elements], found.stack
    missing = _missing(least, kinds)
    for name in missing:
        whole = added(whole, StackElement(id=fresh_element(whole), element=name))
    if missing:
        listed = " and ".join(missing)
        text = f" class policy asks for {listed}; this stack has none left for it."
        add = remedy(change_to(found, whole), f"Add {listed}")
        asked = pressure(found.class_psi or 0.0)
        yield say(found.ground.string, "caution", found.ground.place, "For ", asked, text, remedies=(add,))


def _missing(least: ClassElements, kinds: list[str]) -> list[ElementKind]:
    """What a stack lacks: a variable ram is a pipe ram, a blind shear ram a blind one."""

    def lacks(asked: int, *served: str) -> int:
        return max(0, asked - sum(kind in served for kind in kinds))

    variable = lacks(min(least.variable_rams, least.pipe_rams), "variable rams")
    fixed = max(0, lacks(least.pipe_rams, *ON_PIPE) - variable)
    found: list[ElementKind] = [least.blind] * lacks(least.blind_rams, *BLIND)
    found += ["variable rams"] * variable
    found += ["pipe rams"] * fixed
    found += ["casing shear rams"] * lacks(least.casing_shears, "casing shear rams")
    return found + ["annular"] * lacks(least.annulars, "annular")


def shear_findings(found: InForce) -> Iterator[Finding]:
    """Drill pipe that the blind shear rams do not cut; what is only told where casing or tubing is."""
    for row in found.shear:
        element = found.elements[row.element]
        if element.element != "blind shear rams" or row.shears is not False:
            continue
        pipe = any(t.kind == "drill pipe" and t.words == row.what for t in found.tubulars)
        if not pipe:
            continue
        if row.widest_in is not None:
            why: Words = (", which is wider than their blades cut, ", size(row.widest_in), ".")
            stronger = None
        else:
            stronger = next((p for p in UNITS_PSI if row.needed_psi is not None and row.needed_psi <= p), None)
            needed: Words = (", which takes ", pressure(row.needed_psi)) if row.needed_psi is not None else ()
            level = " over the pressure of the sea" if found.ground.under_sea else ""
            why = (*needed, f"{level}; the closing unit gives ", pressure(row.available_psi), ".")
        change = Change(path="/closing_unit/operating_psi", value=stronger)
        yield say(
            found.ground.string,
            "caution",
            element.place,
            "The blind shear rams do not cut ",
            *row.what,
            *why,
            remedies=(remedy(change, "Use a closing unit of ", pressure(stronger)),) if stronger else (),
            working=row.working if row.needed_psi is not None else None,
        )


def hang_findings(found: InForce, rows: tuple[HangOffRow, ...]) -> Iterator[Finding]:
    """A drill string that is too heavy for every ram that would hang it."""
    by_hole: dict[Words, list[HangOffRow]] = {}
    for row in rows:
        by_hole.setdefault(row.what, []).append(row)
    for hole, ways in by_hole.items():
        known = [(r.load_lbf, r.capacity_lbf, r) for r in ways if r.load_lbf is not None and r.capacity_lbf is not None]
        if not known or any(load <= capacity for load, capacity, _ in known):
            continue
        load, capacity, row = max(known, key=lambda way: way[1])
        yield say(
            found.ground.string,
            "caution",
            found.elements[row.element].place,
            "The string of the ",
            *hole,
            " weighs ",
            force(load),
            "; its rams hang ",
            force(capacity),
            ".",
            value=force(load),
            limit=force(capacity),
            working=row.working,
        )


def tubing_findings(found: InForce) -> Iterator[Finding]:
    """The tubing crosses the stack of the completion: without its size nothing is known to close on it."""
    when = {t.when for t in found.tubulars}
    if ("completion",) in when and not any(t.kind == "tubing" for t in found.tubulars):
        text = "The tubing's size is not decided: whether rams close on it is unknown."
        yield say(found.ground.string, "unknown", "/policy/sizes/tubing_od_in", text)


def annular_only_note(rows: tuple[StackRow, ...]) -> Iterator[Finding]:
    """Tool joints, collars and couplings: no ram closes on them, which the crew must know. Said once for the well."""
    kinds = {c.kind for row in rows for c in row.coverage if len(c.backs) == 1 and c.kind in PASSING}
    if kinds:
        listed = ", ".join(PASSING[kind] for kind in PASSING if kind in kinds)
        text = f"Only the annular closes on {listed}: space out before a ram is closed."
        yield find("preventers", "note", "/preventers", ("BOP stacks",), text)
