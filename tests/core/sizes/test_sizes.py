"""Chains of sizes against a plain enumeration, each way a casing can go, and under-reamed holes judged."""

import itertools

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.policy import Policy
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from knollstack.core.sizes.clearance import fitness
from knollstack.core.sizes.nests import WAYS, all_chains, chains_of
from tests.helpers import CATALOGUE, applied, demo, find, policy, run, well

LIMITS = ((5.0, 0.9, 0.5), (8.625, 0.8, 0.6), (13.375, 1.3, 0.9), (99.0, 2.0, 1.4))
COMMON = {
    *((4.5, 6.125), (5.5, 7.875), (5.5, 8.5), (6.625, 8.5), (7.0, 8.5), (7.0, 8.75), (7.625, 9.875), (8.625, 11.0)),
    *((9.625, 12.25), (10.75, 13.5), (10.75, 14.75), (13.375, 17.5), (16.0, 20.0), (18.625, 24.0), (20.0, 26.0)),
    (30.0, 36.0),
}
LESS_COMMON = {(5.5, 6.75), (7.625, 9.5), (8.625, 10.625), (13.375, 16.0)}
POLICY = Policy().sizes


def plain_fit(od, hole, coupling):
    """The chart, and beyond it the clearance over the coupling."""
    _, common, tight = next(row for row in LIMITS if od < row[0])
    gap = hole - coupling
    if gap > 0 and (od, hole) in COMMON:
        return "common"
    if gap > 0 and (od, hole) in LESS_COMMON:
        return "tight"
    return "common" if gap >= common - 1e-9 else "tight" if gap >= tight - 1e-9 else None


def passes(outer, inner, ways):
    """The rules restated: some standard hole lets the casing in, by one of the ways."""
    _, _, tight = next(row for row in LIMITS if inner < row[0])
    drift = max(max(p.api_drift_in, p.special_drift_in or 0) for p in CATALOGUE.by_od[outer])
    held = {p.connection: p.coupling_od_in for p in CATALOGUE.by_od[inner]}
    regular = max(od for name, od in held.items() if name in ("STC", "LTC", "BTC", "welded"))
    for bit in (b.bit_in for b in CATALOGUE.bits):
        small = bit <= drift + 1e-9
        fit = plain_fit(inner, bit, regular)
        if small and (fit in ways or (fit == "common" and "tight" in ways)):
            return True
        if small and "special clearance" in ways and bit - held.get("BTC-SC", 99) >= tight - 1e-9:
            return True
        if small and "flush" in ways and "FJ" in held and bit - inner >= tight - 1e-9:
            return True
    if "under-reamed" not in ways:
        return False
    holes = (b.bit_in for b in CATALOGUE.bits if plain_fit(inner, b.bit_in, regular) == "common" and b.bit_in > drift)
    hole = min(holes, default=None)
    reamers = [r for r in CATALOGUE.reamers if r.body_in <= drift and hole is not None and r.opens_to_in >= hole]
    return bool(reamers) and any(b.bit_in <= drift for b in CATALOGUE.bits)


@pytest.mark.parametrize("ways", [WAYS, ("common",), ("common", "tight"), ("common", "tight", "under-reamed")])
@pytest.mark.parametrize("count", [2, 3, 4, 5])
def test_every_chain_is_found(ways, count):
    sizes = [s.od_in for s in CATALOGUE.sizes]
    fits = {(a, b) for a in sizes for b in sizes if b < a and passes(a, b, ways)}
    wanted = {
        (*outer, 7.0)
        for outer in itertools.combinations(sorted((s for s in sizes if s > 7.0), reverse=True), count - 1)
        if all(pair in fits for pair in itertools.pairwise((*outer, 7.0)))
    }
    found = all_chains(CATALOGUE, POLICY, 7.0, count, True, ways)
    assert {c.sizes_in for c in found} == wanted
    assert len(found) == len(wanted), "each once"
    assert [c.cost for c in found] == sorted(c.cost for c in found)


def test_chain_in_force_its_neighbours_and_what_a_step_gives():
    """12 1/4 in over 5,000 ft: 5,000·12.25²/1029.42 = 728.9 bbl; around 9 5/8 in 278.9; 10 3/4 in fits it tighter."""
    chains = chains_of(laid_out(parse(demo()), CATALOGUE))
    current = next(c for c in chains.chains if c.current)
    assert [s.od_in for s in current.links] == [20.0, 13.375, 9.625, 7.0]
    step = current.links[2]
    assert (step.hole_in, step.way, step.clearance_in) == (12.25, "common", 1.625)
    assert step.hole_bbl == pytest.approx(728.9, abs=0.1)
    assert step.annulus_bbl == pytest.approx(278.9, abs=0.1)
    assert current.links[3].way == "common", "7 in in 8 1/2 in is a common pair"
    own = demo()
    own["strings"][3]["bit_in"] = 8.375
    mine = next(c for c in chains_of(laid_out(parse(own), CATALOGUE)).chains if c.current)
    assert (mine.links[3].hole_in, mine.links[3].way) == (8.375, "tight"), "the chain in force shows its own holes"
    neighbours = {tuple(s.od_in for s in c.links) for c in chains.chains if c.neighbour}
    assert (20.0, 13.375, 10.75, 7.0) in neighbours
    assert all(sum(a != b for a, b in zip(n, (20.0, 13.375, 9.625, 7.0), strict=True)) == 1 for n in neighbours)
    assert chains_of(laid_out(parse(well()), CATALOGUE)).count > 0, "a proposal has chains too"


@pytest.mark.parametrize(("od", "hole"), [*sorted(COMMON), *sorted(LESS_COMMON)])
def test_the_chart_says_how_usual_a_pair_is(od, hole):
    coupling = CATALOGUE.largest_coupling_in[od]
    wanted = "common" if (od, hole) in COMMON else "less common"
    assert fitness(POLICY, od, hole, coupling) == (wanted if hole > coupling else "none")
    assert fitness(POLICY, od, hole, hole + 0.001) == "none", "what does not pass is no pair"


@pytest.mark.parametrize(
    ("od", "common", "tight"),
    [(4.5, 0.9, 0.5), (5.0, 0.8, 0.6), (7.625, 0.8, 0.6), (8.625, 1.3, 0.9), (11.75, 1.3, 0.9), (13.375, 2.0, 1.4)],
)
def test_beyond_the_chart_clearance_decides(od, common, tight):
    found = [fitness(POLICY, od, 40.0, 40.0 - gap) for gap in (common, common - 0.001, tight, tight - 0.001)]
    assert found == ["common", "less common", "less common", "none"]


@pytest.mark.parametrize(
    ("use", "clearance", "severity"),
    [
        ("common", "tight", None),
        ("less common", "tight", "note"),
        ("less common", "common", "caution"),
        ("special", "tight", "caution"),
        (None, "tight", "note"),
        (None, "common", "stop"),
    ],
)
def test_a_pair_is_told_by_its_use(use, clearance, severity):
    """7 in couplings of 7.656 in in 8 1/2 in hole: 0.844 in, tight where the chart is empty and 0.9 in is common."""
    document = demo()
    rows = [] if use is None else [{"od_in": 7.0, "hole_in": 8.5, "use": use}]
    limits = [{"from_od_in": 1.0, "common_in": 0.9, "tight_in": 0.6}]
    document["policy"] = {"sizes": {"pairs": rows, "clearances": limits, "clearance": clearance}}
    found = [f for f in find(run(document), "sizes") if f.place == "/strings/3/od_in"]
    assert [f.severity for f in found] == ([] if severity is None else [severity])
    if use in ("less common", "special"):
        assert f"the pair is {use}." in plain(found[0].message)
    if severity == "stop":
        assert not find(run(applied(document, found[0].remedies[0].changes)), "sizes", "stop")


def test_proposals_prefer_common_pairs():
    """Of 8 1/2 in and 8 3/4 in for 7 in both are common; with neither in the chart a common clearance is taken."""
    document = well(policy={"sizes": {"production_od_in": 7.0}})
    assert run(document).strings[-1].bit_in == 8.5
    only = [{"od_in": 7.0, "hole_in": 8.75, "use": "common"}]
    document["policy"]["sizes"]["pairs"] = only
    assert run(document).strings[-1].bit_in == 8.75


def test_an_under_reamed_hole_is_judged_by_its_pilot_and_its_reamer():
    """12 1/4 in pilot below 13 3/8 in (drift 12.459), opened to 14 3/4 in by a body of 11.75 in: the 10 3/4 clears."""
    document = demo()
    document["strings"][2].update(bit_in=14.75, od_in=11.75)
    assert "does not pass" in plain(find(run(document), "sizes", "stop")[0].message)
    document["strings"][2]["opened_from_in"] = 12.25
    row = run(document).sizes.strings[2]
    assert (row.reamer_body_in, row.opened_from_in) == (11.75, 12.25)
    assert not [f for f in find(run(document), "sizes", "stop") if f.place.startswith("/strings/2")]
    document["strings"][2]["bit_in"] = 16.0
    assert "No under-reamer" in plain(find(run(document), "sizes", "stop")[0].message)


def test_special_drift_and_spare_size_follow_policy():
    """9 5/8 in 53.5 lb/ft drifts 8.379 in, 8.500 in when so ordered; a spare is asked for and 13 3/8 · 9 5/8 leaves none."""
    document = demo()
    document["strings"][2]["pipe"] = {"weight_ppf": 53.5, "grade": "L80", "connection": "BTC"}
    evaluation = run(document)
    assert evaluation.sizes.strings[3].outer_drift_in == 8.5
    assert evaluation.pipe.strings[2].sections[0].special_drift
    document["policy"] = policy(special_drift=False, keep_spare=True)
    evaluation = run(document)
    assert evaluation.sizes.strings[3].outer_drift_in == pytest.approx(8.379, abs=0.001)
    stop = next(f for f in find(evaluation, "sizes", "stop") if "does not pass" in plain(f.message))
    assert run(applied(document, stop.remedies[0].changes)).strings[3].bit_in == 8.375
    assert any("size free" in plain(f.message) for f in find(evaluation, "sizes", "caution"))
