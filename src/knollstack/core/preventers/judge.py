"""The preventers step: the stack on each string, its class from the surface pressure, its elements, its height.

Elements by class are common practice: the least that stands on a well of that class on land.
"""

from __future__ import annotations

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Stack
from knollstack.core.document.policy import PreventersPolicy
from knollstack.core.preventers.findings import (
    bore_findings,
    class_findings,
    no_class_findings,
    room_findings,
    setting_findings,
    unused_findings,
)
from knollstack.core.preventers.results import ElementResult, PreventersResult, StackRow
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.classes import lowest_class_psi
from knollstack.core.wellhead.judge import surface_pressures

# top to bottom, by the class from which they are asked
ELEMENTS: tuple[tuple[float, tuple[str, ...]], ...] = (
    (2_000, ("annular", "blind rams", "drilling spool")),
    (3_000, ("annular", "pipe rams", "blind rams", "drilling spool")),
    (5_000, ("annular", "variable rams", "blind shear rams", "drilling spool", "pipe rams")),
)
DIVERTER = ("diverter",)
NO_STACK = StackRow(
    decided=False, pressure_psi=None, class_psi=None, bore_in=None, flange=None, elements=(), height_in=None
)


def judge(equipped: Equipped) -> tuple[PreventersResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Stack of every string."""
    rows: list[StackRow] = []
    used: set[str] = set()
    findings = list(setting_findings(equipped.well))
    stacks = equipped.design.preventers
    for string, needed in zip(equipped.laid.strings, surface_pressures(equipped), strict=True):
        below = equipped.laid.next(string)
        if below is None or string.run == "liner":  # a liner's stack stands on the string above
            rows.append(NO_STACK)
            continue
        place = next((i for i, s in enumerate(stacks) if s.string == string.id), None)
        row, found = _row(equipped, string, needed, place)
        if place is not None:
            used.add(stacks[place].id)
        rows.append(row)
        findings += [*found, *bore_findings(string, below, row.bore_in)]
    findings += room_findings(equipped.well, rows)
    findings += unused_findings(stacks, used, {s.id for s in equipped.strings})
    assumptions: tuple[Assumption, ...] = ()
    if any(row.elements and not row.decided for row in rows):
        text = "Stack elements follow the least common for the class; element heights are planning values."
        assumptions = (assume("preventers", "/preventers", text),)
    return PreventersResult(strings=tuple(rows)), tuple(findings), assumptions


def _elements(catalogue: Catalogue, names: tuple[str, ...]) -> tuple[ElementResult, ...]:
    found = []
    for name in names:
        row = catalogue.element(name)
        found.append(
            ElementResult(element=name, title=row.title if row else name, height_in=row.height_in if row else None)
        )
    return tuple(found)


def _height(elements: tuple[ElementResult, ...]) -> float | None:
    heights = [e.height_in for e in elements]
    return None if any(h is None for h in heights) else float(sum(h for h in heights if h is not None))


def stack_class_psi(policy: PreventersPolicy, surface_pressure_psi: float) -> float | None:
    """The lowest class over the surface pressure and policy's minimum."""
    return lowest_class_psi(max(surface_pressure_psi, policy.minimum_class_psi))


def _class_and_elements(
    policy: PreventersPolicy, string: LaidString, needed: float | None, decided: Stack | None
) -> tuple[float | None, tuple[str, ...]]:
    """Class and names of the elements in force."""
    if decided is not None:
        return decided.class_psi, decided.elements
    if string.role == "conductor":
        return None, DIVERTER
    class_psi = stack_class_psi(policy, needed) if needed is not None else None
    return class_psi, max((row for row in ELEMENTS if row[0] <= (class_psi or 0)), default=(0, ()))[1]


def _row(
    equipped: Equipped, string: LaidString, needed: float | None, place: int | None
) -> tuple[StackRow, tuple[Finding, ...]]:
    policy, catalogue = equipped.well.policy.preventers, equipped.catalogue
    decided = equipped.design.preventers[place] if place is not None else None
    class_psi, names = _class_and_elements(policy, string, needed, decided)
    elements = _elements(catalogue, names)
    found: tuple[Finding, ...] = ()
    if decided is not None:
        better = stack_class_psi(policy, needed) if needed is not None else None
        found = tuple(class_findings(string, f"/preventers/{place}", decided.class_psi, needed, better))
    elif string.role != "conductor":
        found = tuple(no_class_findings(string, class_psi, needed))
    flange = None
    if string.od_in is not None and class_psi is not None:
        flange = catalogue.flange(string.od_in, class_psi)
    return StackRow(
        decided=decided is not None,
        pressure_psi=needed,
        class_psi=class_psi,
        bore_in=flange.bore_in if flange else None,
        flange=f"{flange.nominal} in {flange.type} {flange.ring}" if flange else None,
        elements=elements,
        height_in=_height(elements),
    ), found
