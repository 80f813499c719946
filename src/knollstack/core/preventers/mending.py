"""Stacks that would close on what this one does not: each made, laid out again, and kept where it does."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Remedy, Words, remedy, size
from knollstack.core.document.preventers import ElementKind, Stack, StackElement
from knollstack.core.preventers.coverage import only_annular
from knollstack.core.preventers.inforce import InForce, as_decided, change_to, lay
from knollstack.core.preventers.results import CoverRow
from knollstack.core.preventers.stacks import ON_PIPE

MOST = 2
Way = tuple[Stack, Words]


def holes(found: InForce) -> dict[Words, CoverRow]:
    """What none but the annular closes on, of what is long and smooth enough for a ram, and of nothing; each once."""
    told: dict[Words, CoverRow] = {}
    for row in found.coverage:
        if (
            row.kind in ("drill pipe", "heavy-weight pipe", "casing", "tubing", "nothing")
            and "diverts" not in row.cells
        ):
            kept = told.get(row.what)
            short = not row.backs or (only_annular(found.elements, row) and not _two_annulars(found, row))
            if short and (kept is None or (kept.backs and not row.backs)):
                told[row.what] = row
    return told


def _two_annulars(found: InForce, row: CoverRow) -> bool:
    """On the sea floor rams are not changed for casing: there two annulars back each other on it."""
    closing = sum(found.elements[i].kind == "annular" for i in row.backs)
    return found.ground.under_sea and row.kind == "casing" and closing >= 2


def remedies(found: InForce, row: CoverRow) -> tuple[Remedy, ...]:
    """The first ways that close the hole and open no other."""
    known, kept = set(holes(found)), []
    for stack, words in _ways(found, row):
        left = set(holes(lay(found.ground, stack)))
        if row.what not in left and left <= known:
            kept.append(remedy(change_to(found, stack), *words))
        if len(kept) == MOST:
            break
    return tuple(kept)


def _ways(found: InForce, row: CoverRow) -> Iterator[Way]:
    stack = as_decided(found)
    if row.kind == "nothing":
        yield _added(stack, "blind rams"), ("Add blind rams",)
        return
    if row.kind == "casing":
        for e in reversed(found.elements):
            if e.element in ON_PIPE:
                changed = stack.model_copy(update={"casing_ram": e.id})
                yield changed, ("Change the ", e.title, " to ", size(row.od_in), " for the casing run")
    yield from _blocks(found, stack, row)
    words: Words = ("Add ", size(row.od_in), " rams")
    yield _added(stack, "pipe rams", size_in=row.od_in), words


def _blocks(found: InForce, stack: Stack, row: CoverRow) -> Iterator[Way]:
    """Other blocks in the cavities that are there: a variable range that takes it in, or its own size."""
    for e in reversed(found.elements):
        if e.element == "variable rams" and e.bore_in is not None:
            for block in found.ground.equipped.catalogue.ram_ranges:
                if block.least_bore_in <= e.bore_in and block.from_in <= row.od_in <= block.to_in:
                    ends = {"from_in": block.from_in, "to_in": block.to_in}
                    words: Words = ("Fit variable rams ", size(block.from_in), " to ", size(block.to_in))
                    yield _with(stack, e.id, ends), words
        if e.element == "pipe rams":
            yield _with(stack, e.id, {"size_in": row.od_in}), ("Fit ", size(row.od_in), " blocks in the pipe rams")


def _with(stack: Stack, element: str, values: dict[str, float]) -> Stack:
    rows = tuple(e.model_copy(update=values) if e.id == element else e for e in stack.elements)
    return stack.model_copy(update={"elements": rows})


def fresh_element(stack: Stack) -> str:
    taken = {e.id for e in stack.elements}
    return next(f"e{n}" for n in range(1, len(taken) + 2) if f"e{n}" not in taken)


def _added(stack: Stack, element: ElementKind, size_in: float | None = None) -> Stack:
    """With one more element under the annular."""
    return added(stack, StackElement(id=fresh_element(stack), element=element, size_in=size_in))


def added(stack: Stack, row: StackElement) -> Stack:
    at = next((i for i, e in enumerate(stack.elements) if e.element == "annular"), len(stack.elements))
    if row.element == "annular":
        at = len(stack.elements)
    elif row.element in ("drilling spool", "spacer spool", "adapter"):
        at = 0
    return stack.model_copy(update={"elements": (*stack.elements[:at], row, *stack.elements[at:])})
