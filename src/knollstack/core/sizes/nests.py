"""Every chain of sizes from the production casing out: what passes what, in which way, what each step gains and loses.

A step puts one casing in a hole below another. The ways, the plainest first: a bit that passes and a hole with common
clearance; the same with tight clearance; couplings of special clearance; a hole opened by an under-reamer; flush
joints, measured at the body. Each step of a chain goes the plainest way that there is.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from knollstack.core.base.formulas import annular_capacity, circle_capacity
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.policy import SizesPolicy
from knollstack.core.program.laid import Laid, LaidString
from knollstack.core.sizes.chain import spare_between
from knollstack.core.sizes.clearance import ALLOWED, Fitness, charted, fitness
from knollstack.core.sizes.results import ChainLink, ChainResult, ChainsResult, SpareSize, Way

WAYS: tuple[Way, ...] = ("common", "tight", "special clearance", "under-reamed", "flush")
WAY_COST = {"common": 0.0, "tight": 7.0, "special clearance": 9.0, "under-reamed": 14.0, "flush": 16.0}
RANK_COST, UNUSUAL_BIT_COST, OFF_CHART_COST, SLACK_COST = 5.0, 4.0, 5.0, 1.0


@dataclass(frozen=True)
class Fit:
    """One way to put a casing in a hole below another."""

    way: Way
    hole_in: float
    opened_from_in: float | None
    joint_od_in: float
    connection: str | None
    cost: float


@remembered(64)
def _joints(catalogue: Catalogue, od_in: float) -> dict[str, tuple[float, str | None]]:
    """OD over the joint of a size for each kind of joint that it has."""
    held = catalogue.couplings_in.get(od_in, {})
    regular = max(
        (od for name, od in held.items() if name in ("STC", "LTC", "BTC")), default=max(held.values(), default=od_in)
    )
    found: dict[str, tuple[float, str | None]] = {"regular": (regular, None)}
    if "BTC-SC" in held:
        found["special clearance"] = (held["BTC-SC"], "BTC-SC")
    if "FJ" in held:
        found["flush"] = (held["FJ"], "FJ")
    return found


@remembered(64)
def _drift_in(catalogue: Catalogue, od_in: float, special: bool) -> float:
    """The most that any weight of a size lets through."""
    pipes = catalogue.by_od.get(od_in, ())
    return max((p.drift_in if special else p.api_drift_in for p in pipes), default=0.0)


@remembered(256)
def _holes_of(
    catalogue: Catalogue,
    policy: SizesPolicy,
    od_in: float,
    joint_od_in: float,
    enough: tuple[Fitness, ...],
    usual: bool,
) -> tuple[float, ...]:
    """The bits whose hole a casing with a joint fits well enough."""
    bits = (b.bit_in for b in catalogue.bits)
    return tuple(b for b in bits if fitness(policy, od_in, b, joint_od_in, usual=usual) in enough)


def _fits(catalogue: Catalogue, policy: SizesPolicy, outer_od_in: float | None, od_in: float) -> Iterator[Fit]:
    """The ways to put a casing below another, or into the first hole; the smallest hole of each."""
    drift = float("inf") if outer_od_in is None else _drift_in(catalogue, outer_od_in, policy.special_drift)
    usual = catalogue.size_by_od[outer_od_in].usual_bit_in if outer_od_in in catalogue.size_by_od else None
    passing = [b.bit_in for b in catalogue.bits if b.bit_in <= drift + 1e-9]
    joints = _joints(catalogue, od_in)

    def smallest(joint_od_in: float, enough: tuple[Fitness, ...], regular: bool) -> float | None:
        # the usual bit of the casing above where the casing fits its hole, else the smallest that does
        fits = [b for b in _holes_of(catalogue, policy, od_in, joint_od_in, enough, regular) if b <= drift + 1e-9]
        return usual if usual in fits else min(fits, default=None)

    for way, joint, enough in (
        ("common", "regular", ALLOWED["common"]),
        ("tight", "regular", ALLOWED["tight"]),
        ("special clearance", "special clearance", ALLOWED["tight"]),
        ("flush", "flush", ALLOWED["tight"]),
    ):
        if joint in joints:
            over, connection = joints[joint]
            hole = smallest(over, enough, joint == "regular")
            if hole is not None:
                cost = WAY_COST[way] + (0.0 if usual is None or hole == usual else UNUSUAL_BIT_COST)
                cost += SLACK_COST * (hole - over)
                cost += OFF_CHART_COST if way == "common" and charted(policy, od_in, hole) != "common" else 0.0
                yield Fit(way, hole, None, over, connection, cost)  # type: ignore[arg-type]
    over = joints["regular"][0]
    wide = _holes_of(catalogue, policy, od_in, over, ("common",), True)
    opened = min((b for b in wide if b > drift), default=None)
    if opened is not None and passing and catalogue.reamer(drift, opened) is not None:
        yield Fit("under-reamed", opened, max(passing), over, None, WAY_COST["under-reamed"])


@dataclass(frozen=True)
class Chain:
    sizes_in: tuple[float, ...]
    fits: tuple[Fit | None, ...]
    cost: float


@remembered(32)
def _pairs(catalogue: Catalogue, policy: SizesPolicy) -> dict[tuple[float, float], tuple[Fit, ...]]:
    """Every casing inside every other, with the ways that there are, the plainest first."""
    sizes = [s.od_in for s in catalogue.sizes]
    pairs = {}
    for outer in sizes:
        for inner in sizes:
            if inner < outer:
                found = sorted(_fits(catalogue, policy, outer, inner), key=lambda f: f.cost)
                if found:
                    pairs[(outer, inner)] = tuple(found)
    return pairs


@remembered(32)
def all_chains(
    catalogue: Catalogue, policy: SizesPolicy, production_od_in: float, count: int, driven: bool, ways: tuple[Way, ...]
) -> tuple[Chain, ...]:
    """Every chain of a number of strings, the plainest first; only by the ways that are allowed."""
    pairs = _pairs(catalogue, policy)
    best: dict[tuple[float, float], Fit | None] = {}
    price: dict[tuple[float, float], float] = {}
    for pair, fits in pairs.items():
        allowed = [f for f in fits if f.way in ways]
        if allowed:
            best[pair], price[pair] = allowed[0], allowed[0].cost
    outers: dict[float, list[float]] = {}
    for outer, inner in best:
        outers.setdefault(inner, []).append(outer)
    grown: list[tuple[tuple[float, ...], tuple[Fit | None, ...], float]] = [((production_od_in,), (), 0.0)]
    for _ in range(count - 1):
        grown = [
            (
                (outer, *sizes),
                (best[(outer, sizes[0])], *fits),
                cost + price[(outer, sizes[0])] + RANK_COST * catalogue.size_by_od[outer].rank,
            )
            for sizes, fits, cost in grown
            for outer in outers.get(sizes[0], ())
        ]
    chains = []
    for sizes, chosen, cost in grown:
        first: Fit | None = None
        if not driven:
            found = sorted(_fits(catalogue, policy, None, sizes[0]), key=lambda f: f.cost)
            if not found:
                continue
            first = found[0]
        chains.append(Chain(sizes, (first, *chosen), cost))
    return tuple(sorted(chains, key=lambda c: (c.cost, c.sizes_in)))


def _link(laid: Laid, string: LaidString, fit: Fit | None, od_in: float, outer_od_in: float | None) -> ChainLink:
    """A link with what it costs over the string's own length."""
    length = string.shoe_md_ft - string.previous_shoe_md_ft
    catalogue, policy = laid.catalogue, laid.well.policy.sizes
    spare = None
    if fit is not None and outer_od_in is not None and string.index > 1:
        bit = fit.opened_from_in or fit.hole_in
        link = spare_between(catalogue, policy, outer_od_in, bit)
        spare = None if link is None or link[0] is None else SpareSize(bit_in=link[0], od_in=link[1])
    if fit is None:
        return ChainLink(od_in=od_in)
    gap = annular_capacity(fit.hole_in, min(od_in, fit.hole_in))
    return ChainLink(
        od_in=od_in,
        hole_in=fit.hole_in,
        opened_from_in=fit.opened_from_in,
        way=fit.way,
        connection=fit.connection,
        clearance_in=fit.hole_in - fit.joint_od_in,
        gap_in=(fit.hole_in - od_in) / 2,
        hole_bbl=circle_capacity(fit.hole_in) * length,
        annulus_bbl=gap * length,
        displaced_bbl=circle_capacity(od_in) * length,
        spare=spare,
    )


def _own_fit(laid: Laid, string: LaidString, fit: Fit | None) -> Fit | None:
    """The way in which a string in force stands in its own hole, where that is not the plainest one."""
    hole, od, opened = string.bit_in, string.od_in, string.own.opened_from_in
    if fit is None or hole is None or od is None or (hole, opened) == (fit.hole_in, fit.opened_from_in):
        return fit
    joint = laid.catalogue.largest_coupling_in.get(od, od)
    way: Way = "under-reamed" if opened else "common"
    if not opened and fitness(laid.well.policy.sizes, od, hole, joint) != "common":
        way = "tight"
    return Fit(way, hole, opened, joint, string.own.connection, fit.cost)


def chains_of(laid: Laid, most: int = 300) -> ChainsResult:
    """Every chain for the strings in force, the one in use marked, with its neighbours: one size apart."""
    strings, policy = laid.strings, laid.well.policy.sizes
    if not strings:
        return ChainsResult(count=0, chains=())
    production = strings[-1].od_in or policy.production_od_in
    ways = WAYS if policy.clearance == "tight" else tuple(w for w in WAYS if w != "tight")
    found = all_chains(laid.catalogue, policy, production, len(strings), not strings[0].drilled, ways)
    now = tuple(s.od_in for s in strings)
    rows = []
    for chain in found[:most]:
        apart = sum(a != b for a, b in zip(chain.sizes_in, now, strict=True))
        fits = (
            chain.fits if apart else tuple(_own_fit(laid, s, fit) for s, fit in zip(strings, chain.fits, strict=True))
        )
        links = [
            _link(laid, s, fit, od, chain.sizes_in[i - 1] if i else None)
            for i, (s, fit, od) in enumerate(zip(strings, fits, chain.sizes_in, strict=True))
        ]
        rows.append(ChainResult(links=tuple(links), cost=chain.cost, current=apart == 0, neighbour=apart == 1))
    return ChainsResult(count=len(found), chains=tuple(rows))
