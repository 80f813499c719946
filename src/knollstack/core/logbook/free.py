"""What can still be done: where the next shoe may stand, the kick tolerance now, the sizes that still pass.

A depth is free where no stop of setting depths, and nothing unknown, is about this hole or the next, and each of them has a mud
that holds and does not break its rock: the functions that judge a plan are asked at each depth, the edges found to a foot.
"""

from __future__ import annotations

import math
from collections.abc import Callable

from knollstack.core.base.findings import Words
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.depths.judge import judge as judge_depths
from knollstack.core.logbook.drilled import Drilled, landed_at
from knollstack.core.logbook.results import ChainSize, FreeResult, Span
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.laid import Laid
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.sizes.chain import spare_between
from knollstack.core.sizes.nests import WAYS, all_chains

MOST_LOOKS = 80
LEAST_STEP_FT = 25.0
EDGE_FT = 1.0
NEW_HOLE_FT = 1.0
"""A shoe stands no shallower than this under the one above."""

Why = Callable[[float], Words]


def free_of(equipped: Equipped, drilled: Drilled, catalogue: Catalogue) -> FreeResult | None:
    """Of the string that is worked on; None where all stand, or none is planned."""
    at = drilled.told.drilling
    if not drilled.log or at >= len(equipped.strings) or not drilled.design.strings:
        return None
    string = equipped.strings[at]
    shoes, looked, why_not = _shoes(equipped, drilled, at, catalogue) if string.drilled else ((), None, ())
    kick = judge_depths(equipped.laid)[0].strings[at - 1].kick if at else None
    return FreeResult(
        string=at,
        words=(*string.words, " shoe"),
        shoes=shoes,
        looked=looked,
        why_not=why_not,
        kick_bbl=None if kick is None else kick.tolerance_bbl,
        kick_limited=None if kick is None else kick.limited,
        kick_needed_bbl=None if kick is None else kick.required_bbl,
        remaining=tuple(_size(s.bit_in, s.od_in) for s in equipped.strings[at:] if s.od_in is not None),
        chains=_chains(equipped.laid, at),
        spare=_spare(equipped.laid, at),
    )


def _size(hole_in: float | None, od_in: float | None) -> ChainSize:
    return ChainSize(hole_in=hole_in, od_in=od_in or 0.0)


def _shoes(
    equipped: Equipped, drilled: Drilled, at: int, catalogue: Catalogue
) -> tuple[tuple[Span, ...], Span | None, Words]:
    """Spans of depth in which the shoe is free, what was looked at, and why it is not free below the last of them."""
    strings, total = drilled.design.strings, equipped.well.path.total_md_ft
    above = strings[at - 1].shoe_md_ft if at else equipped.well.ground_md_ft
    top = max(drilled.today_md_ft or 0.0, above + NEW_HOLE_FT)
    base = strings[at + 1].shoe_md_ft - NEW_HOLE_FT if at + 1 < len(strings) else total
    if top > base:
        return (), None, ()
    seen: dict[float, Words] = {}

    def why(md_ft: float) -> Words:
        if md_ft not in seen:
            seen[md_ft] = _why_not(laid_out(landed_at(drilled.design, at, md_ft), catalogue), at)
        return seen[md_ft]

    spans = _spans(_depths(top, base, strings[at].shoe_md_ft), why)
    below = spans[-1].base_md_ft + EDGE_FT if spans else top
    return spans, Span(top_md_ft=top, base_md_ft=base), why(below) if below <= base else ()


def _depths(top: float, base: float, planned: float) -> list[float]:
    step = max(LEAST_STEP_FT, math.ceil((base - top) / MOST_LOOKS))
    between = {top + k * step for k in range(int((base - top) / step) + 1)}
    return sorted({top, base, *between, *([planned] if top <= planned <= base else [])})


def _spans(depths: list[float], why: Why) -> tuple[Span, ...]:
    """Runs of depths without a reason against them, their edges sought between two depths that differ."""
    spans: list[Span] = []
    begun: float | None = None
    before: float | None = None
    for md in depths:
        free = not why(md)
        if free and begun is None:
            begun = md if before is None else _edge(md, before, why)
        elif not free and begun is not None and before is not None:
            spans.append(Span(top_md_ft=begun, base_md_ft=_edge(before, md, why)))
            begun = None
        before = md
    if begun is not None and before is not None:
        spans.append(Span(top_md_ft=begun, base_md_ft=before))
    return tuple(spans)


def _edge(free: float, not_free: float, why: Why) -> float:
    """The last free depth on the way from one that is free to one that is not, to a foot."""
    while abs(free - not_free) > EDGE_FT:
        middle = round((free + not_free) / 2)
        if middle in (free, not_free):
            break
        free, not_free = (free, middle) if why(middle) else (middle, not_free)
    return free


def _why_not(laid: Laid, at: int) -> Words:
    """The first stop or unknown of setting depths about this hole or the next; or that no mud is known to hold one of them."""
    for string in laid.strings[at : at + 2]:
        if not string.drilled:
            continue
        tvd = laid.well.path.tvd
        lower, upper = laid.well.window.bounds(tvd(string.previous_shoe_md_ft), tvd(string.shoe_md_ft))
        if lower is None or upper is None:
            return (*string.hole_words, ": pore or fracture pressure is not known all the way: it is not judged.")
        if lower.mud_ppg > upper.mud_ppg:
            return (*string.hole_words, ": no mud weight holds all of it without breaking it down.")
    places = tuple(f"/strings/{i}" for i in (at - 1, at, at + 1))
    for finding in judge_depths(laid)[1]:
        if finding.severity in ("stop", "unknown") and any(
            finding.place.split("/", 3)[:3] == p.split("/") for p in places
        ):
            return (*finding.subject, ": ", *finding.message)
    return ()


def _chains(laid: Laid, at: int) -> int:
    """How many chains of sizes go on from what stands."""
    policy, strings = laid.well.policy.sizes, laid.strings
    production = strings[-1].od_in or policy.production_od_in
    ways = WAYS if policy.clearance == "tight" else tuple(w for w in WAYS if w != "tight")
    found = all_chains(laid.catalogue, policy, production, len(strings), not strings[0].drilled, ways)
    stands = tuple(s.od_in for s in strings[:at])
    return sum(chain.sizes_in[:at] == stands for chain in found)


def _spare(laid: Laid, at: int) -> ChainSize | None:
    """A contingency string that can be set above this one and takes no size."""
    outer, bit = (
        laid.strings[at - 1].od_in if at else None,
        laid.strings[at].own.opened_from_in or laid.strings[at].bit_in,
    )
    if outer is None or bit is None:
        return None
    link = spare_between(laid.catalogue, laid.well.policy.sizes, outer, bit)
    return None if link is None or link[1] is None else _size(link[0], link[1])
