"""What is wrong with a stack: its class and bores, no room, what it lacks, and what stands on no string."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple

from knollstack.core.base.findings import Change, Finding, Severity, Words, depth, find, pressure, remedy, size
from knollstack.core.document.preventers import Stack
from knollstack.core.ground.well import Well
from knollstack.core.preventers.results import StackRow
from knollstack.core.preventers.stacks import Cavity
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.pieces import HeadPiece


def say(string: LaidString, severity: Severity, place: str, *message: Any, **more: Any) -> Finding:
    return find("preventers", severity, place, ("Stack on ", *string.words), *message, **more)


def class_findings(
    string: LaidString, place: str, class_psi: float, needed: float | None, better: float | None, top: str
) -> Iterator[Finding]:
    """A decided stack's class against the surface pressure."""
    if needed is None:
        yield say(string, "unknown", place, f"{top} is unknown; the class cannot be judged.")
    elif class_psi < needed:
        change = Change(path=f"{place}/class_psi", value=better)
        yield say(
            string,
            "stop",
            place,
            f"{top} reaches ",
            pressure(needed),
            "; the stack is rated ",
            pressure(class_psi),
            ".",
            value=pressure(needed),
            limit=pressure(class_psi),
            remedies=(remedy(change, "Use class ", pressure(better)),) if better is not None else (),
        )


def no_class_findings(string: LaidString, class_psi: float | None, needed: float | None, top: str) -> Iterator[Finding]:
    """No class follows for a stack that is not decided."""
    if needed is None:
        yield say(string, "unknown", string.path, f"{top} is unknown, so no class follows.")
    elif class_psi is None:
        yield say(string, "stop", string.path, "No pressure class covers ", pressure(needed), ".")


def element_findings(
    string: LaidString, elements: tuple[Cavity, ...], stack_psi: float | None, needed: float | None
) -> Iterator[Finding]:
    """An element of a lower class than its stack, where that is under the pressure."""
    for e in elements:
        if not e.closes or e.class_psi is None or needed is None or e.class_psi == stack_psi:
            continue
        if e.class_psi < needed:
            back = Change(path=f"{e.place}/class_psi", value=None)
            fit = (
                (remedy(back, "Make it of the stack's class, ", pressure(stack_psi)),)
                if stack_psi and stack_psi >= needed
                else ()
            )
            text = f"{e.title.capitalize()} of "
            yield say(
                string,
                "stop",
                f"{e.place}/class_psi",
                text,
                pressure(e.class_psi),
                " see ",
                pressure(needed),
                ".",
                value=pressure(needed),
                limit=pressure(e.class_psi),
                remedies=fit,
            )


def bore_findings(
    string: LaidString, below: LaidString | None, bore_in: float | None, elements: tuple[Cavity, ...]
) -> Iterator[Finding]:
    """The next bit through the stack, and through each element with a bore of its own."""
    if below is None or below.bit_in is None:
        return
    narrow = [(e.bore_in, f"{e.place}/bore_in", e.title) for e in elements if e.bore_in is not None]
    least = min(narrow, default=(bore_in, f"{below.path}/bit_in", ""))
    bore, place, title = least
    if bore is None or below.bit_in <= bore:
        return
    at = f"{below.path}/bit_in" if bore == bore_in else place
    of = "" if bore == bore_in else f" of the {title}"
    bit = size(below.bit_in)
    yield say(string, "stop", at, "The ", bit, f" bit does not pass the bore{of} of ", size(bore), ".")


def full_bore_findings(
    string: LaidString, place: str, bore_in: float | None, head: HeadPiece | None, elements: tuple[Cavity, ...]
) -> Iterator[Finding]:
    """Test plug, wear bushing and mandrel hanger land in the head's bowl: they pass the stack, or cannot be set."""
    known = [e.bore_in for e in elements if e.bore_in is not None]
    least = min([*known, *([bore_in] if bore_in is not None else [])], default=None)
    if head is None or least is None or least >= head.bore_in:
        return
    yield say(
        string,
        "stop",
        place,
        "Test plug, wear bushing and hanger of the ",
        size(head.bore_in),
        f" {head.name} do not pass a bore of ",
        size(least),
        ".",
        value=size(least),
        limit=size(head.bore_in),
    )


class Reach(NamedTuple):
    """How high heads and stack reach over the ground or the deck, and how high while the stack is lifted."""

    string: LaidString
    reach_ft: float
    lifted_ft: float


def room_findings(well: Well, reaches: list[Reach]) -> Iterator[Finding]:
    """What reaches highest against the room under the rotary, which is given above the ground or the deck."""
    room, place = well.site.rotary_room_ft, "/site/rotary_room_ft"
    if not reaches:
        return
    tallest, lifted = max(reaches, key=lambda r: r.reach_ft), max(reaches, key=lambda r: r.lifted_ft)
    if room is None:
        text = "The room under the rotary is not given. The highest stack reaches "
        yield find(
            "preventers", "unknown", place, ("Stack height",), text, depth(tallest.reach_ft), " above the ground."
        )
    elif tallest.reach_ft > room:
        yield _no_room("stop", tallest.string, "heads and stack reach ", tallest.reach_ft, room)
    elif lifted.lifted_ft > room:
        yield _no_room("caution", lifted.string, "the stack lifted to set slips reaches ", lifted.lifted_ft, room)


def _no_room(severity: Severity, string: LaidString, what: str, reach_ft: float, room_ft: float) -> Finding:
    return find(
        "preventers",
        severity,
        "/site/rotary_room_ft",
        ("Stack height",),
        "On ",
        *string.words,
        f" {what}",
        depth(reach_ft),
        " above the ground; the room under the rotary is ",
        depth(room_ft),
        ".",
        value=depth(reach_ft),
        limit=depth(room_ft),
    )


def line_findings(string: LaidString, place: str, row: StackRow, decided: bool) -> Iterator[Finding]:
    """Choke and kill line below a ram, so that a kick is circulated out with that ram closed."""
    rams = [i for i, e in enumerate(row.elements) if e.kind == "ram"]
    if not rams:
        return
    for key, at in (("choke", row.choke), ("kill", row.kill)):
        if at is None:
            yield say(string, "caution", f"{place}/{key}", f"No element has an outlet for the {key} line.")
        elif not any(i >= at for i in rams):
            lowest = row.elements[rams[0]]
            let = remedy(Change(path=f"{place}/{key}", value=lowest.id), f"Stand it at the {lowest.title}")
            text = f"The {key} line stands above every ram: nothing is circulated through it with a ram closed."
            yield say(string, "caution", f"{place}/{key}", text, remedies=(let,) if decided and lowest.outlets else ())


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


def reference_findings(string: LaidString, place: str, stack: Stack) -> Iterator[Finding]:
    """A line or casing rams at an element that is no longer in the stack."""
    known = {e.id for e in stack.elements}
    for key, what in (("choke", "The choke line"), ("kill", "The kill line"), ("casing_ram", "Casing rams")):
        named = getattr(stack, key)
        if named is not None and named not in known:
            let = remedy(Change(path=f"{place}/{key}", value=None), "Let it go")
            verb = "stand" if key == "casing_ram" else "stands"
            text = f"{what} {verb} at an element that is no longer in the stack."
            yield say(string, "caution", f"{place}/{key}", text, remedies=(let,))
