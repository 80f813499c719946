"""Chains of hole and casing sizes: which bit passes which casing, and which casing clears which hole.

A step "hole h, casing c inside casing p" stands if the bit h passes the drift of p and the diametral clearance
h − coupling OD(c) meets policy. Sizes, weights and bits come from the catalogue, never from formulas.
"""

from __future__ import annotations

from collections.abc import Sequence

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue

# casing OD below which the clearance applies, common and tight clearance, in
CLEARANCES_IN = ((7.0, 1.5, 0.8), (9.625, 1.5, 0.9), (13.375, 1.6, 1.0), (float("inf"), 2.0, 1.5))
OFF_USUAL_BIT, TIGHT, RANK, SLACK = 4.0, 6.0, 5.0, 1.0

Link = tuple[float | None, float]
"""Hole size (None for a driven pipe) and casing OD of one string."""


def clearance_limits_in(od_in: float) -> tuple[float, float]:
    """Least common and tight diametral clearance [in] over the coupling for a casing size."""
    row = next(row for row in CLEARANCES_IN if od_in < row[0])
    return row[1], row[2]


_Best = dict[float, tuple[float, tuple[Link, ...]]]


def _holes(catalogue: Catalogue, clearance: str, od_in: float) -> list[tuple[float, float]]:
    """Bits that the casing clears, with their costs."""
    coupling = catalogue.largest_coupling_in.get(od_in, od_in)
    common, tight = clearance_limits_in(od_in)
    least = tight if clearance == "tight" else common
    fits = [b.bit_in for b in catalogue.bits if b.bit_in - coupling >= least]
    return [(bit, SLACK * (bit - coupling) + (0 if bit - coupling >= common else TIGHT)) for bit in fits]


def _outers(catalogue: Catalogue, inner_od_in: float, bit_in: float) -> list[tuple[float, float]]:
    """Casings through which a bit passes, with their costs."""
    found = []
    for size in catalogue.sizes:
        drift = catalogue.largest_drift_in.get(size.od_in)
        if size.od_in > inner_od_in and drift is not None and drift >= bit_in:
            found.append((size.od_in, RANK * size.rank + (0 if size.usual_bit_in == bit_in else OFF_USUAL_BIT)))
    return found


def _step_out(catalogue: Catalogue, clearance: str, inner: _Best, bit: float | None, outer: float | None) -> _Best:
    """Cheapest way to each casing size one string further out."""
    best: _Best = {}
    for od, (cost, links) in inner.items():
        holes = [(bit, 0.0)] if bit is not None else _holes(catalogue, clearance, od)
        for hole, own in holes:
            outers = [(outer, 0.0)] if outer is not None else _outers(catalogue, od, hole)
            for size, fit in outers:
                total = cost + own + fit
                if size not in best or total < best[size][0]:
                    best[size] = (total, ((hole, od), *links))
    return best


@remembered(256)
def _best_chain(
    catalogue: Catalogue,
    clearance: str,
    production_od_in: float,
    fixed: tuple[tuple[float | None, float | None], ...],
    driven: bool,
) -> tuple[Link, ...] | None:
    best: _Best = {fixed[-1][1] or production_od_in: (0.0, ())}
    for i in range(len(fixed) - 1, 0, -1):
        best = _step_out(catalogue, clearance, best, fixed[i][0], fixed[i - 1][1])
    chains = []
    for od, (cost, links) in best.items():
        if driven:
            chains.append((cost, ((None, od), *links)))
            continue
        holes = [(fixed[0][0], 0.0)] if fixed[0][0] is not None else _holes(catalogue, clearance, od)
        chains.extend((cost + own, ((hole, od), *links)) for hole, own in holes)
    return min(chains, key=lambda c: c[0])[1] if chains else None


def find_chain(
    catalogue: Catalogue,
    clearance: str,
    production_od_in: float,
    fixed: Sequence[tuple[float | None, float | None]],
    driven: bool,
) -> tuple[Link, ...] | None:
    """The usual chain through `fixed` (bit, OD) of each string, conductor first; None when none fits.

    Least cost by dynamic programming from the inside out: common sizes, usual bits, common clearances, then
    the smallest holes.
    """
    return _best_chain(catalogue, clearance, production_od_in, tuple(fixed), driven)


@remembered(256)
def spare_between(catalogue: Catalogue, clearance: str, outer_od_in: float, next_bit_in: float) -> Link | None:
    """The most usual casing that passes the one above and lets the next bit through: a contingency that costs no size.

    None where a contingency string would take a size.
    """
    outer_drift = catalogue.largest_drift_in.get(outer_od_in, 0.0)
    found = []
    for od, fit in _outers(catalogue, 0.0, next_bit_in):
        holes = [(cost, bit) for bit, cost in _holes(catalogue, clearance, od) if bit <= outer_drift]
        if od < outer_od_in and holes:
            cost, bit = min(holes)
            found.append((cost + fit, bit, od))
    return min(found)[1:] if found else None
