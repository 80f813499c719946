"""Setting depths: a program by hand, every rule, brute force, and random ground."""

import copy
import functools
import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from knollstack.core.base.units import plain
from knollstack.core.depths.rule import tried
from knollstack.core.ground.well import build_well
from knollstack.core.proposal import search as searching
from knollstack.core.proposal.effort import Effort
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.proposal.search import Search, propose
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, empty_demo, find, many, points, policy, run, surface_psi, well

HOLES = (8.5, 12.25, 17.5, 24.0, 28.0)


def shoes(document):
    return [s.md_ft for s in propose(build_well(parse(document)), HOLES).shoes]


def no_kick(document):
    given = document.get("policy", {})
    document["policy"] = {**given, "depths": {"kick_minimums": [], **given.get("depths", {})}}
    return document


def test_window_sets_the_shoe_by_hand():
    """Pore 9.0 to 6,000 ft, then 9.0 to 13.0 at 10,000: lower at total depth 13.3 ppg.

    Fracture 11.0 at 30 ft to 15.0 at 10,000: less 0.3 it allows 13.3 from 11.3 + 2.6 = 13.6 EMW on, at
    30 + (13.6 − 11.0)/4.0·9,970 = 6,510.5 ft: shoe at 6,511. There the mud is 9.0 + 511/1,000 + 0.3 = 9.811:
    from 10.111 EMW, which the ground has at the conductor shoe: 9.0·20/(11.036 − 9.0) = 88.4 ft below ground, 119 ft.
    """
    document = no_kick(
        well(
            ground__pore=points((30, 9), (6000, 9), (10_000, 13)),
            ground__fracture=points((30, 11), (10_000, 15)),
            policy=policy(open_hole_limit_ft=9000.0, diverter_limit_ft=9000.0),
        )
    )
    assert shoes(document) == [119.0, 6511.0, 10_000.0]
    reason = propose(build_well(parse(document)), HOLES).shoes[1]
    assert reason.rule == "mud window"
    assert "at 10,000 ft asks 13.30 ppg and fracture less margin at 6,510 ft allows 13.30 ppg" in plain(reason.reason)


def zone(name, top, base, **flags):
    return {"name": name, "top_tvd_ft": float(top), "base_tvd_ft": float(base), **flags}


@pytest.mark.parametrize(
    ("zones", "limits", "expected", "rule"),
    [
        ([zone("W", 100, 1500, fluid="fresh water")], {"diverter_limit_ft": 2000.0}, 1600.0, "fresh water"),
        ([zone("C", 4000, 5000, case_before_deeper=True)], {"diverter_limit_ft": 6000.0}, 5050.0, "case before deeper"),
        ([], {"open_hole_limit_ft": 6000.0, "diverter_limit_ft": 6000.0}, 4000.0, "open-hole length"),
        (
            [zone("N", 3900, 4500, shoe_allowed=False)],
            {"open_hole_limit_ft": 6000.0, "diverter_limit_ft": 6000.0},
            4550.0,
            "no shoe",
        ),
    ],
)
def test_each_rule_sets_the_shoe(zones, limits, expected, rule):
    document = no_kick(well(ground__zones=zones, policy=policy(**{"open_hole_limit_ft": 9900.0, **limits})))
    proposal = propose(build_well(parse(document)), HOLES)
    assert [s.md_ft for s in proposal.shoes] == [110.0, expected, 10_000.0]
    assert proposal.shoes[1].rule == rule


@pytest.mark.parametrize(
    ("zones", "surface"),
    [
        ([zone("W", 300, 1200, fluid="fresh water")], (1300.0, 4030.0)),
        ([zone("G", 3000, 3900, fluid="gas")], (110.0, 3000.0)),
        ([zone("O", 500, 600, fluid="oil")], (110.0, 500.0)),
        ([zone("W", 300, 1200, fluid="fresh water"), zone("G", 2000, 2500, fluid="gas")], (1300.0, 2000.0)),
        ([zone("S", 300, 1200, fluid="salt water")], None),
        ([zone("W", 40, 60, fluid="fresh water")], (160.0, 4030.0)),
        ([zone("W", 3950, 4000, fluid="fresh water")], None),
    ],
)
@pytest.mark.parametrize("method", ["bottom up", "top down"])
def test_fresh_water_and_hydrocarbons_are_not_drilled_on_the_diverter_alone(zones, surface, method):
    """3,930 ft that one string would do: the surface shoe stands below the water with its cover, above the gas."""
    document = no_kick(
        well(
            trajectory={"stations": [{"md_ft": 0.0}, {"md_ft": 3930.0}]},
            ground__zones=zones,
            ground__fracture=points((30, 14), (4030, 14)),
            policy=policy(method=method),
        )
    )
    evaluation = run(document)
    shoes = [s.shoe_md_ft for s in evaluation.strings]
    if surface is None:
        assert len(shoes) == 2, "one string below the conductor does"
    else:
        assert surface[0] <= shoes[1] <= surface[1]
        assert len(shoes) == 3
    assert not find(evaluation, "depths", "stop"), "what is proposed is judged good by the same rules"


def test_hydrocarbons_right_below_the_conductor_leave_no_program_and_say_so():
    document = well(ground__zones=[zone("Shallow sand", 90, 600, fluid="gas")])
    evaluation = run(document)
    assert evaluation.strings == ()
    assert "Shallow sand, marked gas, may not be drilled on the diverter." in plain(evaluation.depths.failure)


def test_kick_tolerance_sets_the_shoe():
    """Uniform ground: with policy's volumes the shoe stands deeper, and a foot shallower misses them."""
    document = well(ground__fracture=points((30, 11.5), (10_000, 11.5)), policy=policy(diverter_limit_ft=8000.0))
    proposal = propose(build_well(parse(document)), HOLES)
    shoe = proposal.shoes[-2]
    assert shoe.rule == "kick tolerance"
    search = Search(build_well(parse(document)), 110.0, HOLES, Effort(1e9))
    ok = search.kick_rule(0).holds(tried(search.well, np.array([shoe.md_ft - 1, shoe.md_ft]), 10_000.0))
    assert ok.tolist() == [False, True]
    assert shoes(no_kick(copy.deepcopy(document)))[-2] < shoe.md_ft


def brute_force_count(document):
    """Fewest strings over every ordered set of candidate shoes at 50 ft, by the rules restated."""
    design = parse(document)
    ground, margins, total = build_well(design).ground, design.policy.mud, 3000.0
    candidates = [float(z) for z in range(150, 3000, 50)]

    @functools.cache
    def stands(top, bottom):
        grid = np.unique(
            np.concatenate([np.arange(top, bottom, 2.0), [bottom], ground.pore.tvd_ft, ground.fracture.tvd_ft])
        )
        grid = grid[(grid >= top) & (grid <= bottom)]
        low = np.max(ground.pore.at(grid)) + margins.trip_margin_ppg
        high = np.min(ground.fracture.at(grid)) - margins.fracture_margin_ppg
        return low <= high + 1e-9

    for count in range(4):
        for chosen in itertools.combinations(candidates, count):
            path = [110.0, *chosen, total]
            if all(stands(a, b) for a, b in itertools.pairwise(path)):
                return count + 2
    return None


@settings(max_examples=12, deadline=None)
@given(st.lists(st.floats(8.6, 12.5), min_size=4, max_size=4), st.lists(st.floats(0.8, 3.0), min_size=4, max_size=4))
def test_number_of_strings_is_that_of_brute_force(pore, gap):
    """On a coarser set of shoes brute force never needs fewer strings than the search, and rarely one more."""
    z = (30.0, 1000.0, 2000.0, 3000.0)
    pore_points = list(zip(z, np.maximum.accumulate(pore).tolist(), strict=True))
    fracture = [(d, p + g) for (d, p), g in zip(pore_points, gap, strict=True)]
    document = no_kick(well(ground__pore=points(*pore_points), ground__fracture=points(*fracture)))
    document["trajectory"]["stations"][1]["md_ft"] = 3000.0
    document["policy"]["depths"] |= {"conductor_minimum_ft": 80.0, "conductor_mud_ppg": 0.5}
    found = shoes(document)
    wanted = brute_force_count(document)
    if wanted is None:
        assert not found or len(found) >= 5, "a finer shoe may save the string that the coarse set lacks"
    else:
        assert found
        assert len(found) <= wanted


@settings(max_examples=many(25), deadline=None)
@given(
    st.lists(
        st.tuples(st.integers(1, 199), st.floats(8, 17), st.floats(0, 6)),
        min_size=2,
        max_size=12,
        unique_by=lambda t: t[0],
    ),
    st.lists(
        st.tuples(st.integers(0, 190), st.booleans(), st.booleans(), st.sampled_from(["none", "fresh water"])),
        max_size=5,
    ),
)
def test_random_ground_never_fails(rows, flags):
    rows = sorted(rows)
    z = [30.0, *(r[0] * 50.0 for r in rows if r[0] > 1), 10_000.0]
    emw = [rows[0][1:], *(r[1:] for r in rows if r[0] > 1), rows[-1][1:]]
    zones, base = [], 0.0
    for top, case, allowed, fluid in sorted(flags):
        if top * 50.0 >= base:
            base = top * 50.0 + 400.0
            zones.append(zone("Z", top * 50.0, base, case_before_deeper=case, shoe_allowed=allowed, fluid=fluid))
    document = well(
        ground__zones=zones,
        ground__pore=points(*[(d, p) for d, (p, _) in zip(z, emw, strict=True)]),
        ground__fracture=points(*[(d, p + g) for d, (p, g) in zip(z, emw, strict=True)]),
    )
    evaluation = run(document)
    text = evaluation.model_dump_json()
    assert "NaN" not in text
    assert "Infinity" not in text
    assert bool(evaluation.strings) != bool(evaluation.depths.failure)
    if evaluation.strings:
        assert not find(evaluation, "depths", "stop"), "what is proposed is judged good by the same rules"
        assert not find(evaluation, "mud", "stop")


def test_no_program_says_where_and_why():
    """Pore over fracture less margins at one depth: no mud drills it, whatever the shoes."""
    document = well(
        ground__pore=points((30, 9), (5000, 9), (5200, 13.6), (10_000, 13.6)),
        ground__fracture=points((30, 14), (10_000, 14)),
    )
    evaluation = run(document)
    assert evaluation.strings == ()
    stop = find(evaluation, "depths", "stop")[0]
    assert "mud window rule it out" in plain(stop.message)
    assert {p.state for p in evaluation.path if p.step != "ground" and p.step != "depths"} == {"blank"}


DEEP_CONDUCTOR = [{"md_ft": 0.0}, {"md_ft": 100.0}]


@pytest.mark.parametrize(
    ("change", "severity", "place", "words"),
    [
        (
            {"ground__pore": [], "ground__fracture": []},
            "unknown",
            "/ground/pore",
            "Enter pore pressure and fracture gradient against depth on Ground",
        ),
        ({"ground__fracture": []}, "unknown", "/ground/fracture", "Enter fracture gradient against depth on Ground"),
        (
            {"ground__pore": points((30, 9), (9000, 9))},
            "unknown",
            "/ground/pore/1/tvd_ft",
            "No pore pressure below 9,000 ft: enter it down to 10,000 ft TVD",
        ),
        (
            {"ground__fracture": points((900, 14), (10_000, 14))},
            "unknown",
            "/ground/fracture/0/tvd_ft",
            "No fracture gradient above 900 ft: enter it from the conductor shoe",
        ),
        ({"trajectory__stations": DEEP_CONDUCTOR}, "stop", "/trajectory/stations", "is above the conductor shoe"),
    ],
)
def test_where_no_program_can_be_sought_it_says_what_to_enter_and_where(change, severity, place, words):
    evaluation = run(well(**change))
    assert evaluation.strings == ()
    found = next(f for f in find(evaluation, "depths", severity) if f.place == place)
    assert words in plain(found.message)
    assert words in plain(evaluation.depths.failure)
    assert evaluation.depths.failure_place == place
    assert {p.state for p in evaluation.path} <= {"blank", "incomplete", "stop"}


def deviated():
    stations = [(0, 0), (3000, 0), (5000, 60), (12_000, 60)]
    return well(trajectory__stations=[{"md_ft": float(m), "inclination_deg": float(i)} for m, i in stations])


def test_deviated_well_is_judged_along_hole():
    """A 60° hold from 4,000 ft: open hole is measured along hole, pressures by TVD."""
    evaluation = run(deviated())
    last = evaluation.strings[-1]
    assert last.shoe_md_ft == 12_000
    assert last.shoe_md_ft == evaluation.basis.total_md_ft
    assert last.shoe_md_ft - last.previous_shoe_md_ft <= 8000
    assert surface_psi(deviated(), -1) == pytest.approx((9 * 12 / 231 - 0.1) * evaluation.basis.total_tvd_ft)


def test_the_proposal_of_the_demo_ground():
    """Regression value: the bottom-up program of the demo ground."""
    program = laid_out(parse(empty_demo()), CATALOGUE)
    assert [(s.role, s.shoe_md_ft, s.bit_in, s.od_in) for s in program.strings] == [
        ("conductor", 110.0, None, 20.0),
        ("surface", 1970.0, 17.5, 13.375),
        ("intermediate", 6840.0, 12.25, 9.625),
        ("production", 12_600.0, 8.5, 5.5),
    ]


@pytest.mark.parametrize("step_ft", [4.0, 7.0, 25.0])
def test_shoes_do_not_depend_on_the_grid(step_ft, monkeypatch):
    """Candidates stand elsewhere, the shoes stay: each is refined to a whole foot."""
    designs = [parse(document) for document in (empty_demo(), deviated(), no_kick(empty_demo()))]
    expected = [[s.md_ft for s in propose.function(build_well(d), HOLES).shoes] for d in designs]
    monkeypatch.setattr(searching, "STEP_FT", step_ft)
    for design, wanted in zip(designs, expected, strict=True):
        assert [s.md_ft for s in propose.function(build_well(design), HOLES).shoes] == wanted
