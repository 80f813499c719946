"""What two sheets differ in, step by step, and what two lists of materials do."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence

from knollstack.core.base.findings import Words
from knollstack.core.base.units import plain
from knollstack.core.runsheet.results import LineChange, LineRow, MaterialChange, MaterialRow


def told(line: LineRow) -> Words:
    """All that a step says to the crew."""
    words: Words = line.text
    if line.caution:
        words = (*words, ". ", *line.caution)
    return (*words, " (crossed out)") if line.crossed else words


def line_changes(before: Sequence[LineRow], after: Sequence[LineRow]) -> tuple[LineChange, ...]:
    """As printed: a number that reads the same has not changed. Steps that are gone come last."""
    old, new = {line.key: line for line in before}, {line.key: line for line in after}
    stayed = _in_place(
        [line.key for line in before if line.key in new], [line.key for line in after if line.key in old]
    )
    found: list[LineChange] = []
    for line in after:
        was = old.get(line.key)
        if was is None:
            found.append(LineChange(key=line.key, what="new", number=line.number, before=(), after=told(line)))
        elif plain(told(was)) != plain(told(line)):
            found.append(
                LineChange(key=line.key, what="changed", number=line.number, before=told(was), after=told(line))
            )
        elif line.key not in stayed:
            found.append(LineChange(key=line.key, what="moved", number=line.number, before=told(was), after=told(line)))
    for line in before:
        if line.key not in new:
            found.append(LineChange(key=line.key, what="gone", number=None, before=told(line), after=()))
    return tuple(found)


def _in_place(before: list[str], after: list[str]) -> set[str]:
    """The most steps that stand in the same order in both: the longest rising run of places."""
    place = {key: k for k, key in enumerate(before)}
    tails: list[int] = []
    at: list[tuple[int, str]] = []
    length: list[int] = []
    for key in after:
        k = bisect_left(tails, place[key])
        tails[k : k + 1] = [place[key]]
        at.append((place[key], key))
        length.append(k + 1)
    kept, wanted, below = set[str](), max(length, default=0), len(before)
    for (spot, key), run in zip(reversed(at), reversed(length), strict=True):
        if run == wanted and spot < below:
            kept.add(key)
            wanted, below = wanted - 1, spot
    return kept


def material_changes(before: Sequence[MaterialRow], after: Sequence[MaterialRow]) -> tuple[MaterialChange, ...]:
    """What is ordered more, less, or instead; by what it is and not by which string it is for."""
    old, new = _totals(before), _totals(after)
    found = []
    for key in dict.fromkeys((*new, *old)):
        a, b = old.get(key), new.get(key)
        quantities = (a[1] if a is not None else None, b[1] if b is not None else None)
        if a is not None and b is not None and f"{a[1]:.1f}" == f"{b[1]:.1f}":
            continue
        what = (b or a or ((), 0.0))[0]
        found.append(
            MaterialChange(key="/".join(key), what=what, unit=key[2], before=quantities[0], after=quantities[1])
        )
    return tuple(found)


def _totals(rows: Sequence[MaterialRow]) -> dict[tuple[str, str, str], tuple[Words, float]]:
    found: dict[tuple[str, str, str], tuple[Words, float]] = {}
    for row in rows:
        key = (row.kind, plain(row.what), row.unit)
        held = found.get(key, (row.what, 0.0))
        found[key] = (row.what, held[1] + row.quantity + row.spare)
    return found
