"""Float equipment, filling, and how near the pipe comes to being crushed."""

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.catalogue.ratings import pipe_collapse
from knollstack.core.running.fill import FLOATED_STEP, crush, crushes, levels, planned
from tests.core.running.wells import PIPE, cased, row_of, run, run_in, told
from tests.helpers import applied

K = 12 / 231
THIN = {"weight_ppf": 36.0, "grade": "J55", "connection": "BTC"}
"""9 5/8 in, wall 0.352 in: collapse 2,020 psi."""


WEAK_TOP = {"pipe": None, "sections": [THIN | {"to_md_ft": 5000.0}, PIPE | {"to_md_ft": None}]}


def crushed_at(run, level_md, shoe_md, at_md):
    """Plain arithmetic in a straight hole: mud outside, mud under the level inside, tension of what hangs below."""
    mud = K * run.mud_ppg
    inside, weight = mud * max(at_md - level_md, 0.0), 0.0
    for leg in run.legs:
        outside, bore = np.pi / 4 * leg.od_in**2, np.pi / 4 * leg.id_in**2
        top, base = max(shoe_md - leg.high_ft, at_md), shoe_md - leg.low_ft
        weight += leg.weight_ppf * (base - top) + mud * bore * max(base - max(top, level_md), 0.0)
        if at_md >= shoe_md - leg.high_ft:
            break
    axial = weight + inside * bore - mud * shoe_md * outside
    stress = max(axial / (outside - bore), 0.0)
    rating = float(pipe_collapse(leg.od_in, leg.pipe.wall_in, leg.pipe.grade.yield_psi, stress))
    return rating / (mud * at_md - (1 - 2 * leg.pipe.wall_in / leg.od_in) * inside)


@pytest.mark.parametrize("fill", ["every joint", "every few joints", "floated in"])
def test_the_plan_and_floating_in_are_each_as_if_worked_alone(fill):
    run = run_in(cased({"fill": fill}))
    floated = levels(run, "floated in", 1)
    alone = floated if fill == "floated in" else floated.every(FLOATED_STEP)
    for found, level in zip(crushes(run), (planned(run), alone), strict=True):
        expected = crush(run, level)
        assert found.level.joint.tolist() == level.joint.tolist()
        for name in ("float_psi", "factor", "load_psi", "rating_psi", "at_md_ft", "axial_lbf"):
            assert getattr(found, name) == pytest.approx(getattr(expected, name)), name


@pytest.mark.parametrize("string", [{}, WEAK_TOP])
@pytest.mark.parametrize(
    "running", [{"fill_joints": 7}, {"fill": "every joint"}, {"fill": "floated in"}, {"fill_joints": 60}]
)
def test_the_least_factor_is_that_of_a_plain_scan(running, string):
    """Every joint run and every 25 ft of the pipe in the hole, before each fill; with weaker pipe on top too."""
    run = run_in(cased(running, string=string))
    found, level = crush(run, planned(run)), planned(run)
    for k in range(0, len(level.shoe_md_ft), max(1, len(level.shoe_md_ft) // 12)):
        shoe, empty = float(level.shoe_md_ft[k]), float(level.empty_md_ft[k])
        ends = [shoe - leg.high_ft - 1e-9 for leg in run.legs if shoe > leg.high_ft]
        places = [*np.arange(25.0, shoe, 25.0), empty, shoe, *ends]
        least = min(crushed_at(run, empty, shoe, at) for at in places)
        assert found.factor[k] == pytest.approx(least, rel=2e-3)
        assert found.factor[k] <= least + 1e-9
        assert found.float_psi[k] == pytest.approx(K * 10.0 * empty, rel=1e-9)


def test_levels_by_hand():
    """Filled every 5 joints of 40 ft: the first time 203.4 ft are empty (shoe and collar with them), then 200 ft."""
    level = levels(run_in(cased({"fill_joints": 5})), "every few joints", 5)
    assert level.joint[:3].tolist() == [5, 10, 15]
    assert level.empty_md_ft[:3] == pytest.approx([203.4, 200.0, 200.0], abs=1e-6)
    assert level.shoe_md_ft[-1] == 8000.0
    assert len(level.joint) == 40


def test_a_fuller_string_is_never_nearer_to_collapse():
    run, before = run_in(cased()), 0.0
    for joints in (200, 120, 60, 30, 12, 5, 2, 1):
        least = float(crush(run, levels(run, "every few joints", joints)).factor.min())
        assert least >= before - 1e-12
        before = least


def test_a_fill_by_hand():
    """8.681 in bore: 0.0732061 bbl/ft; five joints of 40 ft take 14.64 bbl."""
    row = row_of(cased({"fill_joints": 5}))
    assert (row.fills, row.fill_joints) == (40, 5)
    assert row.fill_bbl == pytest.approx(14.64, abs=0.005)


def test_a_string_floated_in_is_crushed_at_the_joint_that_is_told():
    """36 lb/ft J55 stands 2,020 psi: empty in 10 ppg from 3,888 ft on, which is in joint 98 of 40 ft each."""
    document = cased({"fill": "floated in"}, string={"pipe": THIN})
    (found,) = [f for f in told(document, "stop") if "crushed" in plain(f.message)]
    rating = float(pipe_collapse(9.625, 0.352, 55_000.0))
    first = next(k for k in range(1, 201) if 40 * k + 1.8 + (1.6 if k > 2 else 0) > rating / (K * 10.0))
    assert plain(found.message).startswith(f"The pipe is crushed at joint {first}: ")
    row = row_of(document)
    assert (row.crushed_joint, row.collapse_joint, row.collapse_factor < 1) == (first, 200, True)
    assert row.longest_empty_tvd_ft == pytest.approx(rating / (1.125 * K * 10.0), rel=1e-6)
    labels = [plain(r.label) for r in found.remedies]
    assert labels == ["Fill every 5 joints", "Use auto-fill shoe and collar"]
    for remedy in found.remedies:
        assert not [f for f in told(applied(document, remedy.changes), "stop") if "crushed" in plain(f.message)]


def test_the_design_factor_is_asked_on_both_sides_of_its_limit():
    row = row_of(cased({"fill": "floated in"}))
    factor = row.collapse_factor
    assert factor > 1
    for asked, short in ((factor - 1e-6, False), (factor + 1e-6, True)):
        found = told(cased({"fill": "floated in"}, policy__pipe={"factors": {"collapse": asked}}), "stop")
        assert bool([f for f in found if "near collapse" in plain(f.message)]) == short


OWN = {"od_in": 9.625, "weight_ppf": 36.0, "wall_in": 0.352, "grade": "J55", "yield_psi": 55_000.0, "connection": "OWN"}
OWN |= {"coupling_od_in": 10.625, "collapse_psi": 2500.0, "joint_lbf": 600_000.0}


def test_a_collapse_rating_of_the_persons_own_falls_with_tension_as_that_of_the_standard_does():
    rated = float(pipe_collapse(9.625, 0.352, 55_000.0))
    mine = {"sections": [THIN | {"connection": "OWN", "to_md_ft": 5000.0}, PIPE | {"to_md_ft": None}], "pipe": None}
    usual, own = (
        run_in(cased({"fill_joints": 60}, string=s, pipes=[OWN], policy={"make_up_loss_in": 4.8125}))
        for s in (WEAK_TOP, mine)
    )
    before, after = (crush(run, planned(run)) for run in (usual, own))
    on_top = (before.leg == 1) & (after.leg == 1)
    assert np.any(before.axial_lbf[on_top] > 50_000)
    assert after.factor[on_top] == pytest.approx(before.factor[on_top] * 2500 / rated, rel=1e-9)


@pytest.mark.parametrize(("track", "collar"), [(20.1, None), (20.3, 2)])
def test_a_collar_follows_from_half_a_joint_of_shoe_track(track, collar):
    """Joints measure 40.4 ft."""
    assert row_of(cased(policy__cement={"shoe_track_ft": track})).collar_joint == collar


@pytest.mark.parametrize(
    ("running", "severity", "words"),
    [
        ({"shoe": "guide shoe", "collar": "none"}, "stop", "nothing back"),
        ({"shoe": "guide shoe", "collar": "landing collar"}, "stop", "nothing back"),
        ({"shoe": "guide shoe"}, None, "nothing back"),
        ({"collar": "none"}, "caution", "Without a collar"),
        ({"fill": "auto-fill", "shoe": "float shoe"}, "stop", "let no mud in"),
        ({"fill": "auto-fill"}, None, "let no mud in"),
        (
            {"fill": "floated in", "shoe": "auto-fill float shoe", "collar": "auto-fill float collar"},
            "stop",
            "cannot be floated",
        ),
        ({"fill": "floated in", "shoe": "guide shoe", "collar": "landing collar"}, "stop", "cannot be floated"),
        ({"fill": "floated in"}, None, "cannot be floated"),
        ({"collar_joint": 3}, None, "long shoe track"),
        ({"collar_joint": 4}, "note", "long shoe track"),
        ({"shoe": "stab-in float shoe"}, "caution", "stab-in"),
        (
            {"shoe": "auto-fill float shoe", "collar": "auto-fill float collar", "fill": "auto-fill"},
            "note",
            "converted",
        ),
    ],
)
def test_float_equipment_needs_and_forbids(running, severity, words):
    found = [f for f in told(cased(running)) if words in plain(f.message)]
    assert [f.severity for f in found] == ([severity] if severity else [])
    for f in found:
        for remedy in f.remedies:
            assert not [g for g in told(applied(cased(running), remedy.changes)) if words in plain(g.message)]


def test_a_collar_above_the_last_joint_is_a_stop():
    rows = [{"length_ft": 41.0}] * 4
    found = [f for f in told(cased({"joints": rows, "collar_joint": 5}), "stop") if f.place.endswith("collar_joint")]
    assert [plain(f.message) for f in found] == ["The collar is to stand in joint 5; the tally has 4."]


@pytest.mark.parametrize("share", [0.5, 0.9, 1.0])
def test_differential_fill_holds_its_level(share):
    """Inside stands a share of the height outside: the rest of it presses at the float."""
    gear = {"shoe": "differential-fill float shoe", "collar": "differential-fill float collar", "fill": "floated in"}
    run = run_in(cased(gear, policy={"differential_share": share}))
    level = planned(run)
    assert level.empty_md_ft == pytest.approx((1 - share) * level.shoe_md_ft, abs=1e-6)


def test_the_collar_and_its_track_are_those_of_the_cement_job():
    two, four = (row_of(cased({"collar_joint": joint})) for joint in (2, 4))
    assert four.track_ft - two.track_ft == pytest.approx(80.0, abs=1e-6)
    jobs = [run(cased({"collar_joint": joint})).cement.strings[2] for joint in (2, 4)]
    bbl_ft = 8.681**2 / 1029.42
    assert jobs[1].shoe_track_bbl - jobs[0].shoe_track_bbl == pytest.approx(80 * bbl_ft, rel=1e-4)
    assert jobs[0].displacement_bbl - jobs[1].displacement_bbl == pytest.approx(80 * bbl_ft, rel=1e-4)
