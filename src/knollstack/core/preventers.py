"""The preventer stack on each string: its class from the surface pressure, its elements by policy, its height.

Elements by class are common practice: the least that stands on a well of that class on land.
"""

from __future__ import annotations

from knollstack.core.findings import Amount, Assumption, Change, Finding, Remedy, Severity, Words
from knollstack.core.program import Planned, Program
from knollstack.core.results import ElementResult, PreventersResult, StackRow
from knollstack.core.well import pressure, size
from knollstack.core.wellhead import CLASSES_PSI

# top to bottom, by the class from which they are asked
ELEMENTS: tuple[tuple[float, tuple[str, ...]], ...] = (
    (2_000, ("annular", "blind rams", "drilling spool")),
    (3_000, ("annular", "pipe rams", "blind rams", "drilling spool")),
    (5_000, ("annular", "variable rams", "blind shear rams", "drilling spool", "pipe rams")),
)
DIVERTER = ("diverter",)


def _elements(program: Program, names: tuple[str, ...]) -> tuple[ElementResult, ...]:
    found = []
    for name in names:
        row = program.catalogue.element(name)
        found.append(
            ElementResult(element=name, title=row.title if row else name, height_in=row.height_in if row else None)
        )
    return tuple(found)


def _height(elements: tuple[ElementResult, ...]) -> float | None:
    heights = [e.height_in for e in elements]
    return None if any(h is None for h in heights) else float(sum(h for h in heights if h is not None))


def stack_class_psi(program: Program, surface_pressure_psi: float) -> float | None:
    """The lowest class over the surface pressure and policy's minimum."""
    needed = max(surface_pressure_psi, program.well.policy.stack_minimum_class_psi)
    return next((c for c in CLASSES_PSI if c >= needed), None)


def _find(program: Program, string: Planned, severity: Severity, place: str, message: Words,
          value: Amount | None = None, limit: Amount | None = None, remedies: tuple[Remedy, ...] = ()) -> None:  # fmt: skip
    program.findings.append(
        Finding(severity=severity, step="preventers", place=place, subject=("Stack on ", *string.words),
                message=message, value=value, limit=limit, remedies=remedies)
    )  # fmt: skip


def _carries(program: Program, string: Planned) -> bool:
    """A stack stands on this string while the next section is drilled (a liner's stack stands on the string above)."""
    return program.next(string) is not None and string.run != "liner"


def _row(program: Program, string: Planned, needed: float | None) -> StackRow:
    if not _carries(program, string):
        return StackRow(
            decided=False,
            pressure_psi=None,
            class_psi=None,
            bore_in=None,
            flange=None,
            elements=(),
            height_in=None,
        )
    place = next(
        (f"/preventers/{i}" for i, s in enumerate(program.design.preventers) if s.role_index == string.index),
        None,
    )
    decided = next((s for s in program.design.preventers if s.role_index == string.index), None)
    if decided is not None and place is not None:
        elements = _elements(program, decided.elements)
        class_psi: float | None = decided.class_psi
        _judge_class(program, string, place, decided.class_psi, needed)
    elif string.role == "conductor":
        elements, class_psi = _elements(program, DIVERTER), None
    else:
        class_psi = stack_class_psi(program, needed) if needed is not None else None
        names = max((row for row in ELEMENTS if row[0] <= (class_psi or 0)), default=(0, ()))[1]
        elements = _elements(program, names)
        if needed is None:
            _find(
                program,
                string,
                "unknown",
                f"/strings/{string.index}",
                ("The surface pressure is unknown, so no class follows.",),
            )
        elif class_psi is None:
            _find(
                program,
                string,
                "stop",
                f"/strings/{string.index}",
                ("No class stands ", pressure(needed), "."),
            )
    flange = None
    if string.od_in is not None and class_psi is not None:
        flange = program.catalogue.flange(string.od_in, class_psi)
    _judge_bore(program, string, flange.bore_in if flange else None)
    return StackRow(
        decided=decided is not None, pressure_psi=needed, class_psi=class_psi, bore_in=flange.bore_in if flange else None,
        flange=f"{flange.nominal} in {flange.type} {flange.ring}" if flange else None,
        elements=elements, height_in=_height(elements),
    )  # fmt: skip


def _judge_class(program: Program, string: Planned, place: str, class_psi: float, needed: float | None) -> None:
    if needed is None:
        _find(
            program,
            string,
            "unknown",
            place,
            ("The surface pressure is unknown; the class cannot be judged.",),
        )
    elif class_psi < needed:
        better = stack_class_psi(program, needed)
        remedies: tuple[Remedy, ...] = ()
        if better is not None:
            change = Change(path=f"{place}/class_psi", value=better)
            remedies = (Remedy(label=("Use class ", pressure(better)), changes=(change,)),)
        message: Words = (
            "Surface pressure reaches ",
            pressure(needed),
            "; the stack is rated ",
            pressure(class_psi),
            ".",
        )
        _find(program, string, "stop", place, message, pressure(needed), pressure(class_psi), remedies)


def _judge_bore(program: Program, string: Planned, bore_in: float | None) -> None:
    below = program.next(string)
    if bore_in is None or below is None or below.bit_in is None or below.bit_in <= bore_in:
        return
    message: Words = ("The ", size(below.bit_in), " bit does not pass the bore of ", size(bore_in), ".")
    _find(program, string, "stop", f"/strings/{below.index}/bit_in", message)


def _judge_room(program: Program, rows: list[StackRow]) -> None:
    """The tallest stack against the room under the rotary, which is given above the ground."""
    room = program.design.site.rotary_room_ft
    heights = [row.height_in for row in rows if row.height_in is not None and row.elements]
    if not heights:
        return
    tallest = max(heights)
    if room is None:
        message: Words = ("The room under the rotary is not given. The tallest stack is ",
                          Amount(value=tallest / 12, quantity="depth"), ".")  # fmt: skip
        program.findings.append(
            Finding(
                severity="unknown",
                step="preventers",
                place="/site/rotary_room_ft",
                subject=("Stack height",),
                message=message,
            )
        )
    elif tallest / 12 > room:
        message = ("The tallest stack is ", Amount(value=tallest / 12, quantity="depth"), "; the room under the rotary is ",
                   Amount(value=room, quantity="depth"), ".")  # fmt: skip
        program.findings.append(
            Finding(
                severity="stop",
                step="preventers",
                place="/site/rotary_room_ft",
                subject=("Stack height",),
                message=message,
            )
        )


def judge_preventers(program: Program, pressures: tuple[float | None, ...]) -> PreventersResult:
    """Stack of every string."""
    rows = [_row(program, s, pressures[s.index]) for s in program.strings]
    _judge_room(program, rows)
    if any(row.elements and not row.decided for row in rows):
        text = "Stack elements follow the least common for the class; element heights are planning values."
        program.assumptions.append(Assumption(step="preventers", place="/preventers", text=(text,)))
    return PreventersResult(strings=tuple(rows))
