"""Loads and ratings at a depth, worked by hand: wear, backup, green cement, tied-back liners, stock."""

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.pipe.choose import best_sections, cheapest_single
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.judged import judge_sections
from knollstack.core.pipe.strength import may_stand
from tests.core.evaluation.test_judging import strings
from tests.helpers import find, framed, points, run

C = 12 / 231


def burst(document, index=2):
    return next(load for load in run(document).pipe.strings[index].loads if load.kind == "burst")


def outside(document, case, depth, index=2):
    _, _, frame = framed(document, index)
    k = next(i for i, c in enumerate(frame.cases) if c.name == case)
    return float(np.interp(depth, frame.md_ft, frame.outside_psi[k]))


@pytest.mark.parametrize("wear", [0.0, 10.0, 25.0])
def test_wear_takes_its_share_of_the_burst_rating_and_of_the_wall_in_collapse(wear):
    """9 5/8 in 47 lb/ft L80: 0.875·2·80,000·0.472/9.625 = 6,865 psi new."""
    document = strings(strings__2__wear_percent=wear)
    assert burst(document).rating == pytest.approx(6865.45 * (1 - wear / 100), abs=0.1)
    program, string, frame = framed(document, 2)
    judged = judge_sections(program.well.policy.pipe, frame, string.sections)
    for load in run(document).pipe.strings[2].loads:  # the sweep that judges agrees with the working that is shown
        assert judged.worst(load.kind).share == pytest.approx(load.factor / load.required, rel=1e-9), load.kind
    collapse = next(x for x in run(document).pipe.strings[2].loads if x.kind == "collapse")
    assert (collapse.rating < 4754.0) == (wear > 0)


def test_a_worn_pipe_is_dropped_from_the_candidates_before_it_is_tried():
    """47 lb/ft L80 worn by 41.5 % keeps 4,016 psi: more than the load of 4,040 psi less its backup only below that."""
    program, string, frame = framed(strings(strings__2__wear_percent=0.0), 2)
    needed = float(np.max(frame.inside_psi - frame.outside_psi)) * program.well.policy.pipe.factors.burst
    pipe = string.sections[0].pipe
    share = 1 - needed / pipe.burst_psi
    for wear, stands in ((100 * share - 0.5, 1), (100 * share + 0.5, 0)):
        worn_well, _, worn = framed(strings(strings__2__wear_percent=wear), 2)
        assert len(may_stand(worn_well.well.policy.pipe, worn, (pipe,))) == stands


@pytest.mark.parametrize(
    ("backup", "psi"),
    [
        ("base fluid", C * 8.6 * 6000),
        ("mix water", C * (8.6 * 1700 + 8.0 * 4300)),
        ("mud", C * 9.5 * 6000),
        ("pore", C * 9.0 * 6000),
    ],
)
def test_backup_outside_follows_policy(backup, psi):
    policy = {"burst_backup": backup, "base_fluid_ppg": 8.6, "mix_water_ppg": 8.0}
    document = strings(policy__pipe=policy)
    assert outside(document, "pressure test", 6000.0) == pytest.approx(psi, rel=1e-9)
    if backup == "mix water":
        assert outside(document, "pressure test", 1700.0) == pytest.approx(C * 8.6 * 1700, rel=1e-9)


@pytest.mark.parametrize("backup", ["base fluid", "mix water", "mud"])
@pytest.mark.parametrize(("pore", "counts"), [(7.0, True), (8.32, True), (8.34, False)])
def test_rock_depleted_below_the_base_fluid_gives_no_more_than_its_pore_pressure(backup, pore, counts):
    """From 3,000 ft down the rock is depleted, behind the cement of the 9 5/8 in, which is in open hole from 2,000 ft."""
    policy = {"burst_backup": backup}
    rock = points((30, 9), (2999, 9), (3000, pore), (10_000, pore))
    document = strings(policy__pipe=policy, ground__pore=rock)
    usual = outside(strings(policy__pipe=policy), "pressure test", 6000.0)
    assert outside(document, "pressure test", 6000.0) == pytest.approx(min(usual, C * pore * 6000) if counts else usual)
    assert outside(document, "pressure test", 1900.0) == outside(strings(policy__pipe=policy), "pressure test", 1900.0)


def test_a_test_in_green_cement_has_the_slurry_outside():
    """Slurry 15.823 ppg from 1,700 ft; without the policy the backup is that of set cement."""
    document = strings(policy__pipe__pressure_test="in green cement")
    psi = C * (9.5 * 1700 + 15.823013805 * 4300)
    assert outside(document, "green-cement test", 6000.0) == pytest.approx(psi, rel=1e-9)
    _, _, frame = framed(strings(), 2)
    assert "green-cement test" not in {c.name for c in frame.cases}


def liner(**more):
    own = {"strings__3__run": "liner", "strings__3__hanger_md_ft": 5700.0}
    pipe = {"weight_ppf": 17.0, "grade": "L80", "connection": "LTC"}
    return strings(**own, strings__3__pipe=pipe, **{f"strings__3__{k}": v for k, v in more.items()})


def test_a_tied_back_liner_hangs_from_the_wellhead_and_covers_the_casing():
    names = {}
    for tied in (False, True):
        _, string, frame = framed(liner(tie_back=tied), 3)
        assert string.hung_md_ft == frame.md_ft[0] == (0.0 if tied else 5700.0)
        assert string.sections[0].top_md_ft == string.hung_md_ft
        _, _, outer = framed(liner(tie_back=tied), 2)
        names[tied] = {c.name for c in outer.cases}
    assert names[False] - names[True] == {"evacuation", "tubing leak", "liner hung inside"}
    assert names[True] < names[False]


def test_a_tied_back_liner_is_carried_by_the_casing_that_carries_the_wellhead():
    """10,000 ft of 17 lb/ft in 9.5 ppg mud, steel 4.962 in²: 170,000 − 4,935·4.962 = 145,510 lbf more; the 13 3/8 in
    casing (15.51 in²) bears it with the conductor (20 in, 0.438 in wall, 26.92 in²)."""
    apart, tied = (run(liner(tie_back=t)).pipe.strings[1].hung_lbf for t in (False, True))
    assert tied - apart == pytest.approx(145_510 * 15.51 / (15.51 + 26.92), rel=1e-3)


def stocked(available_ft):
    rows = [
        {
            "od_in": 9.625,
            "weight_ppf": 47.0,
            "grade": "L80",
            "connection": "BTC",
            "price_per_ft": 40.0,
            "available_ft": available_ft,
        },
        {
            "od_in": 9.625,
            "weight_ppf": 53.5,
            "grade": "L80",
            "connection": "BTC",
            "price_per_ft": 60.0,
            "available_ft": None,
        },
    ]
    return strings(stock=rows, strings__2__pipe=None, policy__pipe={"choose_from": "stock list"})


@pytest.mark.parametrize(("available", "weight"), [(6000.0, 47.0), (5999.0, 53.5)])
def test_what_the_stock_does_not_reach_is_not_chosen_for_the_whole_string(available, weight):
    program, string, frame = framed(stocked(available), 2)
    exposed = exposed_of(program, string)
    sections = cheapest_single(program.well, program.catalogue, string, exposed, frame)
    assert [s.pipe.weight_ppf for s in sections] == [weight]


@pytest.mark.parametrize("available", [2000.0, 3500.0])
def test_a_taper_takes_no_more_than_the_stock_holds(available):
    program, string, frame = framed(stocked(available), 2)
    exposed = exposed_of(program, string)
    sections = best_sections(program.well, program.catalogue, string, exposed, frame, 2).sections
    lengths = {s.pipe.weight_ppf: s.bottom_md_ft - s.top_md_ft for s in sections}
    assert 0 < lengths[47.0] <= available
    assert sum(lengths.values()) == pytest.approx(6000.0)
    assert lengths[47.0] > available - 6000 / 40, "the cheaper pipe is used up to the next node"


def two_liners(available_ft, decided):
    """9 5/8 in casing and, cased off below it by under-reaming, a 9 5/8 in liner: both from one stock of 47 lb/ft."""
    document = stocked(available_ft)
    document["strings"].insert(3, {**document["strings"][2], "id": "lnr", "run": "liner", "hanger_md_ft": 5800.0})
    document["strings"][3] |= {"shoe_md_ft": 7800.0, "pipe": decided, "opened_from_in": 8.25}
    document["strings"][4] |= {"bit_in": 7.875, "od_in": 5.5}
    return document


@pytest.mark.parametrize(("available", "weight"), [(8000.0, 47.0), (7999.0, 53.5)])
def test_the_stock_holds_for_the_whole_well(available, weight):
    """A liner of 2,000 ft decided in 47 lb/ft leaves 6,000 ft for the casing, or not."""
    have = {"weight_ppf": 47.0, "grade": "L80", "connection": "BTC"}
    evaluation = run(two_liners(available, have))
    assert [s.weight_ppf for s in evaluation.pipe.strings[2].sections] == [weight]
    both = two_liners(available, have)
    both["strings"][2]["pipe"] = have
    said = [plain(f.message) for f in find(run(both), "pipe", "stop") if "in stock" in plain(f.message)]
    told = f"47 lb/ft L80 BTC: 8,000 ft are used in the well, {available:,.0f} ft are in stock."
    assert said == ([told] if available < 8000 else [])


@pytest.mark.parametrize(("available", "weights"), [(8000.0, [47.0, 47.0]), (6500.0, [53.5, 47.0])])
def test_what_is_chosen_further_in_takes_from_the_stock_first(available, weights):
    evaluation = run(two_liners(available, None))
    assert [evaluation.pipe.strings[i].sections[0].weight_ppf for i in (2, 3)] == weights
    assert not [f for f in find(evaluation, "pipe", "stop") if "in stock" in plain(f.message)]
