"""The stack of a rehearsal: each element with its place, its closing time, and what it does on each thing across it."""

from __future__ import annotations

from knollstack.core.base.findings import Words
from knollstack.core.drills.scenes import cover_of
from knollstack.core.drills.setup import Element, Tube, sized
from knollstack.core.ground.well import Well
from knollstack.core.preventers.results import StackRow, Verdict
from knollstack.core.preventers.tubulars import running_words
from knollstack.core.program.equipped import EquippedString

DIVERTER_S = 30.0
DIVERTER_MD_FT = 5.0


def elements_of(
    well: Well, stack: StackRow, below: EquippedString, stack_md: float, tubes: tuple[Tube, ...]
) -> tuple[Element, ...]:
    times = {row.element: row.seconds or row.allowed_seconds for row in stack.closing}
    found = []
    for k, e in enumerate(stack.elements):
        if e.kind not in ("annular", "ram", "diverter"):
            continue
        on = _closes_on(stack, k, below, tubes)
        middle = ((e.bottom_in or 0.0) + (e.top_in or 0.0)) / 24
        md = max(1.0, stack_md - middle)
        seconds = times.get(k, DIVERTER_S)
        title = _told(e.title, [o.title for o in stack.elements[k + 1 :]], [o.title for o in stack.elements[:k]])
        found.append(Element(k, e.id, title, e.kind, e.element, md, seconds, on, e.hang_off_lbf))
    if well.site.setting == "subsea":
        top = len(stack.elements)
        diverts: dict[str, Verdict] = dict.fromkeys(
            ("drill pipe", "tool joint", "collars", "nothing", "casing"), "diverts"
        )
        found.append(
            Element(
                top, "rig-diverter", "diverter at the rig", "diverter", "diverter", DIVERTER_MD_FT, DIVERTER_S, diverts
            )
        )
    return tuple(found)


def _told(title: str, above: list[str], under: list[str]) -> str:
    """What the crew calls it: elements of one kind told apart from the top."""
    over, below = title in above, title in under
    place = "middle " if over and below else "lower " if over else "upper " if below else ""
    return place + title.removesuffix(" preventer")


def _closes_on(stack: StackRow, index: int, below: EquippedString, tubes: tuple[Tube, ...]) -> dict[str, Verdict]:
    """What the coverage of the stack says of an element, by kind, and by kind and size of a tapered string."""
    running = running_words(below)
    asked: list[tuple[Words, str, float | None]] = [
        (below.hole_words, "nothing", None),
        (running, "casing", None),
        (running, "coupling", None),
    ]
    for tube in reversed(tubes):
        asked.append((below.hole_words, tube.kind, tube.od_in))
        asked.append((below.hole_words, "tool joint", tube.joint_in))
    found: dict[str, Verdict] = {}
    for when, kind, od_in in asked:
        row = cover_of(stack, when, kind, od_in)
        cell = row.cells[index] if row is not None else "unknown"
        found.setdefault(kind, cell)
        if od_in is not None:
            found[sized(kind, od_in)] = cell
    return found
