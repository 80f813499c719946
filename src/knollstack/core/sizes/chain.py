"""Chains of hole and casing sizes: which bit passes which casing, and which casing clears which hole.

A step "hole h, casing c inside casing p" stands if the bit h passes the drift of p and c fits h by policy's chart and
clearances. Sizes, weights and bits come from the catalogue, never from formulas.
"""

from __future__ import annotations

from collections.abc import Sequence

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.policy import SizesPolicy
from knollstack.core.sizes.clearance import ALLOWED, charted, fitness

OFF_USUAL_BIT, OFF_CHART, TIGHT, RANK, SLACK = 4.0, 5.0, 7.0, 5.0, 1.0

Link = tuple[float | None, float]
"""Hole size (None for a driven pipe) and casing OD of one string."""


_Best = dict[float, tuple[float, tuple[Link, ...]]]


@remembered(128)
def _holes(catalogue: Catalogue, policy: SizesPolicy, od_in: float) -> list[tuple[float, float]]:
    """Bits whose hole the casing fits, with their costs: common pairs of the chart cost least."""
    coupling, found = catalogue.largest_coupling_in.get(od_in, od_in), []
    for bit in (b.bit_in for b in catalogue.bits):
        fit = fitness(policy, od_in, bit, coupling)
        if fit in ALLOWED[policy.clearance]:
            usual = 0.0 if charted(policy, od_in, bit) == "common" else OFF_CHART
            found.append((bit, SLACK * (bit - coupling) + (usual if fit == "common" else TIGHT)))
    return found


@remembered(512)
def _outers(catalogue: Catalogue, inner_od_in: float, bit_in: float) -> list[tuple[float, float]]:
    """Casings through which a bit passes, with their costs."""
    found = []
    for size in catalogue.sizes:
        drift = catalogue.largest_drift_in.get(size.od_in)
        if size.od_in > inner_od_in and drift is not None and drift >= bit_in:
            found.append((size.od_in, RANK * size.rank + (0 if size.usual_bit_in == bit_in else OFF_USUAL_BIT)))
    return found


def _step_out(catalogue: Catalogue, policy: SizesPolicy, inner: _Best, bit: float | None, outer: float | None) -> _Best:
    """Cheapest way to each casing size one string further out."""
    best: _Best = {}
    for od, (cost, links) in inner.items():
        holes = [(bit, 0.0)] if bit is not None else _holes(catalogue, policy, od)
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
    policy: SizesPolicy,
    production_od_in: float,
    fixed: tuple[tuple[float | None, float | None], ...],
    driven: bool,
) -> tuple[Link, ...] | None:
    best: _Best = {fixed[-1][1] or production_od_in: (0.0, ())}
    for i in range(len(fixed) - 1, 0, -1):
        best = _step_out(catalogue, policy, best, fixed[i][0], fixed[i - 1][1])
    chains = []
    for od, (cost, links) in best.items():
        if driven:
            chains.append((cost, ((None, od), *links)))
            continue
        holes = [(fixed[0][0], 0.0)] if fixed[0][0] is not None else _holes(catalogue, policy, od)
        chains.extend((cost + own, ((hole, od), *links)) for hole, own in holes)
    return min(chains, key=lambda c: c[0])[1] if chains else None


def find_chain(
    catalogue: Catalogue,
    policy: SizesPolicy,
    production_od_in: float,
    fixed: Sequence[tuple[float | None, float | None]],
    driven: bool,
) -> tuple[Link, ...] | None:
    """The usual chain through `fixed` (bit, OD) of each string, conductor first; None when none fits.

    Least cost by dynamic programming from the inside out: common sizes, usual bits, common clearances, then
    the smallest holes.
    """
    return _best_chain(catalogue, policy, production_od_in, tuple(fixed), driven)


@remembered(256)
def spare_between(catalogue: Catalogue, policy: SizesPolicy, outer_od_in: float, next_bit_in: float) -> Link | None:
    """The most usual casing that passes the one above and lets the next bit through: a contingency that costs no size.

    None where a contingency string would take a size.
    """
    outer_drift = catalogue.largest_drift_in.get(outer_od_in, 0.0)
    found = []
    for od, fit in _outers(catalogue, 0.0, next_bit_in):
        holes = [(cost, bit) for bit, cost in _holes(catalogue, policy, od) if bit <= outer_drift]
        if od < outer_od_in and holes:
            cost, bit = min(holes)
            found.append((cost + fit, bit, od))
    return min(found)[1:] if found else None
