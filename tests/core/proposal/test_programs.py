"""All programs with the fewest strings: against brute force, and what frees one where there is none."""

from itertools import combinations

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.rule import tried
from knollstack.core.document.changes import changed
from knollstack.core.document.design import GroundModel, Point, Site
from knollstack.core.document.policy import Policy
from knollstack.core.ground.profiles import build_ground
from knollstack.core.ground.well import Well, build_well
from knollstack.core.ground.window import build_window
from knollstack.core.path.trajectory import build_path
from knollstack.core.proposal.effort import Effort
from knollstack.core.proposal.programs import Sets, candidates, programs
from knollstack.core.proposal.relief import Reliefs, reliefs
from knollstack.core.proposal.schools import both_schools
from knollstack.core.proposal.search import Search, propose
from knollstack.core.reading.read import parse
from tests.core.depths.test_kick import least
from tests.helpers import CATALOGUE, demo, empty_demo, find, many, points, policy, run, well

HOLES = (8.5, 12.25, 17.5)
SPACING_FT = 50.0
MOST_SHOES = 2
POLICY, PATH = Policy(), build_path([(0.0, 0.0, 0.0), (10_000.0, 0.0, 0.0)])


def random_ground(seed):
    """A well of 2,400 ft with rising pressures, a band of banned rock, and limits that ask for two or three sections."""
    rng = np.random.default_rng(seed)
    z = np.array([30.0, *np.sort(rng.choice(np.arange(300, 2300, 50), 5, replace=False)), 2400.0])
    pore = np.maximum.accumulate(np.linspace(8.6, 10.5 + 4 * rng.random(), 7) + rng.uniform(-0.3, 0.6, 7))
    fracture = np.maximum(pore + rng.uniform(0.9, 2.5, 7), np.linspace(11.5, 15.5, 7))
    top = float(rng.choice(np.arange(800, 1700, 50)))
    zone = {
        "name": "Z",
        "top_tvd_ft": top,
        "base_tvd_ft": top + 300,
        "shoe_allowed": bool(rng.random() < 0.5),
        "case_before_deeper": bool(rng.random() < 0.3),
    }
    limits = {
        "open_hole_limit_ft": float(rng.choice([900, 1300, 3000])),
        "diverter_limit_ft": 1200.0,
        "kick_minimums": [{"from_hole_in": 1.0, "volume_bbl": float(rng.choice([5, 15, 40]))}],
    }
    return build_well(
        parse(
            well(
                trajectory={"stations": [{"md_ft": 0.0}, {"md_ft": 2400.0}]},
                policy=policy(**limits),
                ground={
                    "pore": points(*zip(z, pore.round(3), strict=True)),
                    "fracture": points(*zip(z, fracture.round(3), strict=True)),
                    "zones": [zone],
                },
            )
        )
    )


def brute_force(search, depths):
    """Every ordered set of candidate shoes, fewest first: the count of sections, and each shoe's ends."""
    total = search.well.path.total_md_ft
    if search.reaches_floor(total):
        return 1, []
    fit = depths[search.rules.where_a_shoe_may_stand(tried(search.well, depths, total))].tolist()

    def stands(top, bottom, level):
        ok = all(rule.keeps(top, bottom) for rule in search.rules.all)
        return ok and bottom - top >= 10 and search.kick_rule(level).keeps(top, bottom)

    known: dict = {}
    for count in range(1, MOST_SHOES + 1):
        found = []
        for shoes in combinations(fit, count):
            if not search.reaches_floor(shoes[0]):
                continue
            ends = [*shoes, total]
            pairs = [(ends[i], ends[i + 1], count - 1 - i) for i in range(count)]
            for pair in pairs:
                if pair not in known:
                    known[pair] = stands(*pair)
                if not known[pair]:
                    break
            else:
                found.append(shoes)
        if found:
            return count + 1, [(min(s[i] for s in found), max(s[i] for s in found)) for i in range(count)]
    return 0, []


@pytest.mark.parametrize("seed", range(many(4)))
def test_fewest_strings_and_freedom_are_those_of_brute_force(seed):
    ground = random_ground(seed)
    floor, _ = conductor_md_ft(ground)
    search = Search(ground, floor, HOLES, Effort(1e9))
    depths = candidates(search, SPACING_FT)
    sets = Sets(search, depths)
    count, ends = brute_force(search, depths)
    assert (sets.sections if sets.sections <= MOST_SHOES + 1 else 0) == count
    if count:
        assert [(float(depths[m][0]), float(depths[m][-1])) for m in sets.down] == ends
        bottom_up = propose(ground, HOLES)
        assert len(bottom_up.shoes) - 1 == count, "bottom up has as few"
        found = programs(ground, HOLES)
        assert len(found.top_down) == len(bottom_up.shoes), "top down too"


def test_both_schools_of_the_demo_ground_are_judged_good():
    schools = both_schools(parse(empty_demo()), CATALOGUE)
    assert [s.md_ft for s in schools.bottom_up] == [110.0, 1970.0, 6840.0, 12_600.0]
    assert [s.md_ft for s in schools.top_down] == [110.0, 3350.0, 8900.0, 12_600.0]
    assert [s.rule for s in schools.top_down[1:3]] == ["no shoe", "kick tolerance"]
    for free, low, high in zip(schools.freedom, schools.bottom_up[1:], schools.top_down[1:], strict=False):
        assert free.shallow_md_ft <= low.md_ft < high.md_ft <= free.deep_md_ft
    document = empty_demo() | {"policy": policy(method="top down")}
    evaluation = run(document)
    assert [s.shoe_md_ft for s in evaluation.strings] == [110.0, 3350.0, 8900.0, 12_600.0]
    assert not find(evaluation, "depths", "stop")


def test_a_deeper_than_free_shoe_is_found_at_fault():
    document = demo()
    document["strings"][2]["shoe_md_ft"] = 9000.0  # 100 ft below its freedom
    assert find(run(document), "depths", "stop") or find(run(document), "mud", "stop")


def test_what_frees_a_program_was_tried():
    design = parse(empty_demo() | {"policy": policy(open_hole_limit_ft=1000.0)})
    offered = reliefs(design, CATALOGUE, Effort(1e9)).remedies
    assert plain(offered[0].label) == "Change the limit of open hole from 1,000 ft to 2,150 ft"
    for remedy in offered:
        assert run(changed(design, remedy.changes).model_dump(mode="json")).strings
    short = remedy_with(offered[0], 2100.0)
    assert not run(changed(design, short).model_dump(mode="json")).strings, "less is not enough"
    assert reliefs(parse(empty_demo()), CATALOGUE, Effort(1e9)) == Reliefs()


def remedy_with(remedy, value):
    return tuple(c.model_copy(update={"value": value}) for c in remedy.changes)


def test_random_grounds_raise_nothing_and_stay_finite():
    """Window, weak points and kick tolerance of random grounds, steps and gaps included; NaN only where unknown."""
    rng = np.random.default_rng(11)
    for _ in range(many(1_200)):
        count = int(rng.integers(2, 9))
        z = np.sort(rng.integers(0, 200, count) * 50.0)
        pore = rng.uniform(7, 18, count).round(2)
        model = GroundModel(
            pore=tuple(Point(tvd_ft=float(d), emw_ppg=float(e)) for d, e in _steps(z, pore)),
            fracture=tuple(
                Point(tvd_ft=float(d), emw_ppg=float(e)) for d, e in _steps(z, pore + rng.uniform(0, 6, count))
            ),
        )
        built = build_ground(model)
        ground = Well(Site(), POLICY, PATH, built, build_window(built, POLICY.mud, 10_000.0))
        tops, mud = np.sort(rng.uniform(50, 9_000, 3)), float(rng.uniform(8, 18))
        low, high = ground.window.over(tops, 9_500.0)
        unknown = (z[0] > tops[0]) | (z[-1] < 9_500.0)
        found = least(ground, 8.5, float(tops[0]), mud, 9_500.0)
        assert (found is None) == unknown
        assert found is None or found.volume_bbl >= 0
        assert unknown or (np.all(np.isfinite(low)) and np.all(np.isfinite(high)))


def _steps(z, emw):
    """Points in order, at most two at one depth."""
    rows = list(zip(z, emw, strict=True))
    return [row for i, row in enumerate(rows) if i < 2 or rows[i - 2][0] != row[0]]
