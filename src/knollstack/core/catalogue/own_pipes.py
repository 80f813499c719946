"""The catalogue as one design has it: with the person's own pipes, prices and stock."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Connection, Grade, Own, Pipe
from knollstack.core.catalogue.rows import Catalogue, Size
from knollstack.core.document.design import CustomPipe, Design, StockRow

PipeKey = tuple[float, float, str, str]
OWN_RANK = 3
"""Rank of a size that only the person's own pipes have: after every usual size."""


def _own_pipe(row: CustomPipe) -> Pipe:
    source = row.source or "given by the person"
    ultimate = row.yield_psi  # not given: yield, so that nothing is gained from it
    return Pipe(
        kind="casing",
        od_in=row.od_in,
        weight_ppf=row.weight_ppf,
        wall_in=row.wall_in,
        grade=Grade(row.grade, row.yield_psi, ultimate, 1.5, row.sour_from_f, source),
        joint=Connection(row.connection, row.connection, "custom", 1.2, None, None, None, None, source),
        coupling_od_in=row.coupling_od_in,
        thread=None,
        special_drift_in=None,
        source=source,
        given_drift_in=row.drift_in,
        own=Own(row.burst_psi, row.collapse_psi, row.body_lbf, row.joint_lbf, row.joint_psi),
    )


@remembered(16)
def _with_own(base: Catalogue, pipes: tuple[CustomPipe, ...], stock: tuple[StockRow, ...]) -> Catalogue:
    prices = {(r.od_in, r.weight_ppf, r.grade, r.connection): r for r in stock}
    own = [_own_pipe(row) for row in pipes]
    taken = {p.key for p in own}
    every = [*own, *(p for p in base.pipes if p.key not in taken)]
    priced = tuple(
        replace(p, price_per_ft=prices[p.key].price_per_ft, available_ft=prices[p.key].available_ft)
        if p.key in prices
        else p
        for p in every
    )
    known = {s.od_in for s in base.sizes}
    sizes = {p.od_in: Size(p.od_in, OWN_RANK, p.api_drift_in, p.source) for p in own if p.od_in not in known}
    return replace(base, pipes=priced, sizes=tuple(sorted((*base.sizes, *sizes.values()), key=lambda s: s.od_in)))


@remembered(32)
def with_less(catalogue: Catalogue, taken_ft: tuple[tuple[PipeKey, float], ...]) -> Catalogue:
    """The catalogue with lengths taken from stock; never less than nothing."""
    taken = dict(taken_ft)
    left = tuple(
        replace(p, available_ft=max(0.0, p.available_ft - taken[p.key]))
        if p.available_ft is not None and p.key in taken
        else p
        for p in catalogue.pipes
    )
    return replace(catalogue, pipes=left)


def with_own(catalogue: Catalogue, design: Design) -> Catalogue:
    """The catalogue with a design's own pipes before it, and its prices and stock put to the pipes they name."""
    if not design.pipes and not design.stock:
        return catalogue
    return _with_own(catalogue, design.pipes, design.stock)
