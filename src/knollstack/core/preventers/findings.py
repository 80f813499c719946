"""What is wrong with the preventers: a class under the pressure, a bore too small, no room, no string to stand on."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Change, Finding, Severity, Words, depth, find, pressure, remedy, size
from knollstack.core.document.design import Stack
from knollstack.core.ground.well import Well
from knollstack.core.preventers.results import StackRow
from knollstack.core.program.laid import LaidString


def _find(string: LaidString, severity: Severity, place: str, *message: object, **more: object) -> Finding:
    return find("preventers", severity, place, ("Stack on ", *string.words), *message, **more)  # type: ignore[arg-type]


def setting_findings(well: Well) -> Iterator[Finding]:
    """What the setting leaves unworked: the step is not good on it."""
    if well.site.setting == "subsea":
        text = "Preventers are worked as on land: riser, hydrostatic head and the lower stack are not in them."
        yield find("preventers", "unknown", "/site/setting", ("Setting",), text)


def class_findings(
    string: LaidString, place: str, class_psi: float, needed: float | None, better: float | None
) -> Iterator[Finding]:
    """A decided stack's class against the surface pressure."""
    if needed is None:
        yield _find(string, "unknown", place, "The surface pressure is unknown; the class cannot be judged.")
    elif class_psi < needed:
        change = Change(path=f"{place}/class_psi", value=better)
        yield _find(
            string,
            "stop",
            place,
            "Surface pressure reaches ",
            pressure(needed),
            "; the stack is rated ",
            pressure(class_psi),
            ".",
            value=pressure(needed),
            limit=pressure(class_psi),
            remedies=(remedy(change, "Use class ", pressure(better)),) if better is not None else (),
        )


def no_class_findings(string: LaidString, class_psi: float | None, needed: float | None) -> Iterator[Finding]:
    """No class follows for a stack that is not decided."""
    if needed is None:
        yield _find(string, "unknown", string.path, "The surface pressure is unknown, so no class follows.")
    elif class_psi is None:
        yield _find(string, "stop", string.path, "No pressure class covers ", pressure(needed), ".")


def bore_findings(string: LaidString, below: LaidString | None, bore_in: float | None) -> Iterator[Finding]:
    if bore_in is None or below is None or below.bit_in is None or below.bit_in <= bore_in:
        return
    bit = size(below.bit_in)
    yield _find(
        string, "stop", f"{below.path}/bit_in", "The ", bit, " bit does not pass the bore of ", size(bore_in), "."
    )


def room_findings(well: Well, rows: list[StackRow]) -> Iterator[Finding]:
    """The tallest stack against the room under the rotary, which is given above the ground."""
    room, place, subject = well.site.rotary_room_ft, "/site/rotary_room_ft", ("Stack height",)
    heights = [row.height_in for row in rows if row.height_in is not None and row.elements]
    if not heights:
        return
    tallest = max(heights) / 12
    if room is None:
        text = "The room under the rotary is not given. The tallest stack is "
        yield find("preventers", "unknown", place, subject, text, depth(tallest), ".")
    elif tallest > room:
        yield find(
            "preventers",
            "stop",
            place,
            subject,
            "The tallest stack is ",
            depth(tallest),
            "; the room under the rotary is ",
            depth(room),
            ".",
        )


def unused_findings(stacks: tuple[Stack, ...], used: set[str], known: set[str]) -> Iterator[Finding]:
    """Stacks that stand on no string, or on one that carries another or none: told, since they change nothing."""
    for i, stack in enumerate(stacks):
        if stack.id in used:
            continue
        kept = [s.model_dump(mode="json") for s in stacks if s.id != stack.id]
        words: Words = ("The string that it is installed on is no longer in the design.",)
        if stack.string in known:
            words = ("Its string carries no stack, or another one; this one is not used.",)
        yield find(
            "preventers",
            "caution",
            f"/preventers/{i}",
            (f"Stack {i + 1}, ", pressure(stack.class_psi)),
            *words,
            remedies=(remedy(Change(path="/preventers", value=kept), "Remove it"),),
        )
