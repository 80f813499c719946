"""What is wrong with what is known of the hole: a caliper with gaps, of another hole, or that leaves some of it out."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from itertools import pairwise

from knollstack.core.base.findings import Finding, Words, depth, diameter, find
from knollstack.core.program.laid import LaidString

_find = partial(find, "cement")
GAP_FT = 100.0
LEAST_SHARE, MOST_SHARE = 0.9, 2.5
"""Of the bit: a hole of less or more is most likely another one, or in other units."""


def hole_findings(string: LaidString) -> Iterator[Finding]:
    own, top, base = string.own.cement, string.previous_shoe_md_ft, string.shoe_md_ft
    for k, row in enumerate(own.excesses):
        if row.top_md_ft >= base or row.base_md_ft <= top:
            text: Words = (
                "The interval from ",
                depth(row.top_md_ft),
                " to ",
                depth(row.base_md_ft),
                " is not in the open hole.",
            )
            yield _find("caution", f"{string.path}/cement/excesses/{k}", (*string.words, " excess"), *text)
    if len(own.caliper) > 1:
        yield from _caliper_findings(string, top, base)


def _caliper_findings(string: LaidString, top: float, base: float) -> Iterator[Finding]:
    place, bit, subject = f"{string.path}/cement/caliper", string.bit_in, (*string.words, " caliper")
    inside = [p for p in string.own.cement.caliper if top - GAP_FT <= p.md_ft <= base + GAP_FT]
    if len(inside) < 2:
        text: Words = ("It has no readings in the open hole, ", depth(top), " to ", depth(base), ".")
        yield _find("caution", place, subject, *text)
        return
    mean = sum(p.diameter_in for p in inside) / len(inside)
    if bit is not None and not LEAST_SHARE * bit <= mean <= MOST_SHARE * bit:
        text = ("Its mean of ", diameter(mean), " is not that of a ", diameter(bit), " hole: is it of another hole?")
        yield _find("caution", place, subject, *text, value=diameter(mean), limit=diameter(bit))
    for above, below in pairwise(inside):
        if below.md_ft - above.md_ft > GAP_FT and above.md_ft < base and below.md_ft > top:
            text = (
                "It has a gap from ",
                depth(above.md_ft),
                " to ",
                depth(below.md_ft),
                ": a straight line is taken there.",
            )
            yield _find("caution", place, subject, *text)
    if inside[0].md_ft > top + GAP_FT or inside[-1].md_ft < base - GAP_FT:
        text = (
            "It is read from ",
            depth(inside[0].md_ft),
            " to ",
            depth(inside[-1].md_ft),
            "; the rest has the bit's excess.",
        )
        yield _find("note", place, subject, *text)
