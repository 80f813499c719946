"""Path, profiles and window: exact at points, steps and boundaries; unknown stays unknown."""

import json

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from knollstack.core.base.units import plain
from knollstack.core.document.design import GroundModel, LeakOffTest, Point, Zone, empty
from knollstack.core.document.policy import MudPolicy
from knollstack.core.ground.profiles import build_ground, build_profile
from knollstack.core.ground.window import build_window, planned_mud_ppg
from tests.helpers import demo, run


def pts(*pairs):
    return tuple(Point(tvd_ft=z, emw_ppg=e) for z, e in pairs)


def test_profile_steps_count_the_worse_side_and_end_in_unknown():
    points = pts((100, 9), (1000, 9), (1000, 12), (2000, 14))
    pore = build_profile(points, worse_is_high=True)
    fracture = build_profile(points, worse_is_high=False)
    assert (pore.one(1000), fracture.one(1000)) == (12, 9)
    assert (pore.one(999.999), pore.one(1500)) == (pytest.approx(9), 13)
    assert (pore.one(99), pore.one(2001)) == (None, None)
    assert np.isnan(build_profile(pts((5, 9)), True).at(5))


def test_leak_off_replaces_the_estimate_at_its_depth():
    model = GroundModel(fracture=pts((0, 12), (1000, 14)), leak_off_tests=(LeakOffTest(tvd_ft=500, emw_ppg=12.4),))
    fracture = build_ground(model).fracture
    assert (fracture.one(500), fracture.one(250)) == (12.4, pytest.approx(12.2))


def test_window_by_hand():
    """Sand 4,000 to 6,000 ft, normal pore: 2,000 psi at 6,000 ft is 6.417 ppg over 8.8, so 15.217 ppg sticks.

    Fracture less 0.3 at 3,000 ft is 12.7: it rules over [3,000, 7,000]. From 5,000 ft down fracture less margin is
    14.033 there, still under sticking at 6,000.
    """
    model = GroundModel(
        pore=pts((0, 8.8), (6000, 8.8), (7000, 10.8)),
        fracture=pts((0, 11), (6000, 15), (7000, 16)),
        zones=(Zone(id="z1", name="S", top_tvd_ft=4000, base_tvd_ft=6000, rock="sand", permeable=True),),
    )
    window = build_window(build_ground(model), MudPolicy(), 7000)
    lower, upper = window.bounds(3000, 7000)
    assert (lower.mud_ppg, lower.tvd_ft, lower.cause) == (pytest.approx(11.1), 7000, "pore pressure plus trip margin")
    assert (upper.mud_ppg, upper.tvd_ft, upper.cause) == (pytest.approx(12.7), 3000, "fracture less margin")
    tight = build_window(build_ground(model), MudPolicy(sticking_normal_psi=500), 7000).bounds(5000, 7000)[1]
    assert (tight.mud_ppg, tight.tvd_ft) == (pytest.approx(8.8 + 500 / (12 / 231 * 6000)), 6000)
    assert tight.cause == "differential sticking"
    assert window.bounds(3000, 7001) == (None, None)


DEPTHS = st.lists(st.integers(1, 99), min_size=2, max_size=6, unique=True).map(sorted)


@settings(max_examples=60)
@given(DEPTHS, DEPTHS, st.data())
def test_window_over_an_interval_is_that_of_a_fine_grid(pore_z, fracture_z, data):
    """The exact extremes are never inside what a 1 ft grid finds, and differ from it by no more than its step."""
    emw = st.floats(8, 12)
    pore = pts(*[(z * 100, data.draw(emw)) for z in [0, *pore_z, 100]])
    fracture = pts(*[(z * 100, 4 + data.draw(emw)) for z in [0, *fracture_z, 100]])
    sand = Zone(id="z1", name="S", top_tvd_ft=3000, base_tvd_ft=6500, rock="sand", permeable=True)
    window = build_window(build_ground(GroundModel(pore=pore, fracture=fracture, zones=(sand,))), MudPolicy(), 10_000)
    top = data.draw(st.integers(1, 9000))
    bottom = data.draw(st.integers(top + 1, 10_000))
    grid = np.arange(top, bottom + 1.0)
    low, high = window.over(np.array([float(top)]), float(bottom))
    assert low[0] == pytest.approx(window.lower_at(grid).max(), abs=0.05)
    assert low[0] >= window.lower_at(grid).max() - 1e-9
    assert high[0] <= window.upper_at(grid).min() + 1e-9
    assert high[0] == pytest.approx(window.upper_at(grid).min(), abs=0.05)
    bounds = window.bounds(top, bottom)
    assert (bounds[0].mud_ppg, bounds[1].mud_ppg) == (pytest.approx(low[0]), pytest.approx(high[0]))


@pytest.mark.parametrize(("lower", "upper", "planned"), [(9.01, 12, 9.1), (9.1, 12, 9.1), (13.24, 13.27, 13.24)])
def test_planned_mud_rounds_up_unless_that_is_too_much(lower, upper, planned):
    assert planned_mud_ppg(lower, upper) == planned


def test_a_new_well_lists_what_nobody_has_given():
    """Each is an assumption until it is typed; what was typed is none."""
    document = json.loads(empty("New well").model_dump_json())
    said = [plain(a.text) for a in run(document).assumptions if a.step == "ground"]
    assert said == [
        "Rig floor 30 ft above the ground.",
        "Cellar 6 ft deep.",
        "Flow line 20 ft above the ground.",
        "Total depth 10,000 ft, not given yet.",
    ]
    document["site"]["assumed"] = ["total_depth"]
    left = [a for a in run(document).assumptions if a.step == "ground"]
    assert [a.place for a in left] == ["/trajectory/stations/1/md_ft"]
    document["site"]["assumed"] = []
    assert not [a for a in run(document).assumptions if a.step == "ground"]


@pytest.mark.parametrize(("gap_ft", "known"), [(0.0, True), (0.006, True), (0.99, True), (1.01, False)])
def test_a_path_that_ends_a_hair_below_the_profiles_is_known(gap_ft, known):
    """A planned path ends where its arcs end, not at the round depth to which profiles were typed."""
    document = demo()
    document["trajectory"] = {"stations": [{"md_ft": 0.0}, {"md_ft": 12_600.0 + gap_ft}]}
    document["strings"][-1]["shoe_md_ft"] = 12_600.0 + gap_ft
    evaluation = run(document)
    unknown = [f for f in evaluation.findings if f.severity == "unknown"]
    assert (unknown == []) is known
    said = [a for a in evaluation.assumptions if "held to total depth" in str(a.text)]
    assert len(said) == (known and gap_ft > 0)
    if known:
        states = [p.state for p in run(demo()).path]
        assert [p.state for p in evaluation.path] == states
