"""The tally: how it is made, how it lands, and what is wrong with one that was measured."""

import random

import numpy as np
import pytest

from knollstack.core.base.units import plain
from tests.core.running.wells import cased, measured, row_of, run, run_in, told
from tests.helpers import CATALOGUE, applied, many

ADDS = 41.0 - 4.8125 / 12
"""What a measured joint of 41 ft adds, made up to the triangle of 9 5/8 in buttress."""


def test_a_made_tally_by_hand():
    """200 joints of 40.0 ft, shoe 1.8 and collar 1.6 ft: 8,003.4 ft for 8,000 and 3 ft of stick-up; track 1.8 + 80 + 1.6."""
    row = row_of(cased())
    assert (row.made, row.joints, row.pups, row.spares) == (True, 200, 0, 6)
    assert row.total_ft == pytest.approx(8003.4, abs=1e-6)
    assert row.top_md_ft == pytest.approx(-3.4, abs=1e-6)
    assert row.over_ft == pytest.approx(0.4, abs=1e-6)
    assert (row.shoe_md_ft, row.collar_joint) == (8000.0, 3)
    assert row.track_ft == pytest.approx(83.4, abs=1e-6)
    assert row.collar_md_ft == pytest.approx(7916.6, abs=1e-6)
    assert not [f for f in told(cased()) if f.severity != "note"]


@pytest.mark.parametrize(("stick_up", "joints"), [(3.0, 200), (3.4, 200), (3.41, 201)])
def test_the_stick_up_asks_for_one_joint_more(stick_up, joints):
    assert row_of(cased(policy={"stick_up_ft": stick_up})).joints == joints


def test_the_spread_is_the_same_every_time_and_within_its_bounds():
    document = cased(policy={"joint_spread_ft": 1.5})
    first, again = run_in(document).tally, run_in(cased(policy={"joint_spread_ft": 1.5})).tally
    assert first.length_ft.tolist() == again.length_ft.tolist()
    mean = 40.0 + 4.8125 / 12
    assert first.length_ft.min() >= mean - 1.5
    assert first.length_ft.max() <= mean + 1.5
    assert first.length_ft.mean() == pytest.approx(mean, abs=0.02)


@pytest.mark.parametrize(("range_", "mean"), [(1, 20.5), (2, 29.5), (3, 41.0)])
def test_without_a_mean_the_middle_of_the_range_is_taken(range_, mean):
    row = row_of(cased(policy={"joint_mean_ft": None}, policy__pipe={"length_range": range_}))
    assert row.mean_joint_ft == pytest.approx(mean)


@pytest.mark.parametrize("seed", range(many(4)))
def test_the_joints_sum_to_the_string(seed):
    """Plain addition: shoe, joints less make-up loss, collar under its joint; every joint's top is the next one's bottom."""
    chance = random.Random(seed)
    rows = measured(*[chance.uniform(38, 44) for _ in range(200)])
    for row in rows:
        row["left_out"] = chance.random() < 0.1
    joint = chance.randint(2, 5)
    document = cased({"joints": rows, "collar_joint": joint})
    tally, at = run_in(document).tally, 1.8
    kept = [row["length_ft"] - 4.8125 / 12 for row in rows if not row["left_out"]]
    for k, adds in enumerate(kept):
        at += 1.6 if k == joint - 1 else 0.0
        assert tally.bottom_ft[k] == pytest.approx(at, abs=1e-9)
        at += adds
    assert tally.total_ft == pytest.approx(at, abs=1e-9)
    assert tally.track_ft == pytest.approx(1.8 + sum(kept[: joint - 1]) + 1.6, abs=1e-9)
    result = row_of(document)
    assert (result.joints, result.left_out) == (len(kept), 200 - len(kept))
    assert run(document).strings[2].collar_md_ft == pytest.approx(8000 - tally.track_ft)


def landed(count, **more):
    """A mandrel that lands at 30 ft, over joints of 41 ft."""
    return cased({"hanger": "mandrel", "joints": measured(*[41.0] * count), **more})


def test_a_mandrel_lands_and_the_tally_says_where_the_shoe_stands():
    """196 joints and 3.4 ft of equipment below 30 ft; a pup joint brings the shoe back to within three feet."""
    document = landed(196)
    shoe = 30 + 3.4 + 196 * ADDS
    row = row_of(document)
    assert row.shoe_md_ft == pytest.approx(shoe, abs=1e-6)
    assert row.shoe_off_ft == pytest.approx(shoe - 8000, abs=1e-6)
    (found,) = told(document, "caution")
    assert plain(found.message) == f"The hanger lands and the shoe stands {8000 - shoe:.2f} ft above its planned depth."
    assert [plain(r.label) for r in found.remedies] == [
        "Add a pup joint of 10.00 ft",
        f"Plan the shoe at {shoe:,.2f} ft",
    ]
    for remedy in found.remedies:
        assert not told(applied(document, remedy.changes), "caution")


@pytest.mark.parametrize(("off", "found"), [(2.99, None), (3.01, "caution"), (9.99, "caution"), (10.01, "stop")])
def test_a_shoe_may_land_a_little_off_and_no_deeper_than_the_hole(off, found):
    """Policy allows 3 ft either way; 10 ft of rathole are below the planned shoe."""
    exact = [41.0] * 196 + [8000 + off - (30 + 3.4 + 196 * ADDS) + 4.8125 / 12]
    document = cased({"hanger": "mandrel", "joints": measured(*exact)})
    assert row_of(document).shoe_off_ft == pytest.approx(off, abs=1e-6)
    assert [
        f.severity for f in told(document) if f.severity in ("stop", "caution") and "shoe stands" in plain(f.message)
    ] == ([found] if found else [])


def test_a_made_tally_on_a_mandrel_is_spaced_out_with_pup_joints():
    """The shortest, 2 ft, adds 1.6 ft: less than that is left, whatever the depth."""
    for more in range(0, 40, 3):
        row = row_of(cased({"hanger": "mandrel"}, string={"shoe_md_ft": 7950.0 + more}))
        assert -(2.0 - 4.8125 / 12) < row.shoe_off_ft <= 0
        assert row.pups <= 5


def test_short_and_long_tallies_in_slips():
    """196 joints end 40.0 ft below the rotary: a stop. 197 stand 0.6 ft up: a caution. 199 are one joint too many."""
    for count, severity, words in (
        (196, "stop", "short"),
        (197, "caution", "short"),
        (199, "caution", "one joint too many"),
    ):
        document = cased({"joints": measured(*[41.0] * count)})
        (found,) = [f for f in told(document) if f.place.endswith("/joints")]
        assert (found.severity, words in plain(found.message)) == (severity, True), count
    mended = applied(document, found.remedies[0].changes)
    assert row_of(mended).left_out == 1
    assert not [f for f in told(mended) if f.place.endswith("/joints")]
    assert not [f for f in told(cased({"joints": measured(*[41.0] * 198)})) if f.place.endswith("/joints")]


@pytest.mark.parametrize(("length", "odd"), [(33.99, True), (34.0, False), (48.0, False), (48.01, True)])
def test_a_joint_outside_of_its_range_is_told_at_its_row(length, odd):
    rows = measured(*[41.0] * 198)
    rows[7]["length_ft"] = length
    found = [f for f in told(cased({"joints": rows}), "caution") if "/joints/" in f.place]
    assert [f.place for f in found] == (["/strings/2/running/joints/7/length_ft"] if odd else [])
    rows[7]["kind"] = "pup joint"
    assert not [f for f in told(cased({"joints": rows}), "caution") if "/joints/" in f.place]


def test_many_odd_joints_are_told_one_by_one_and_then_counted():
    found = [
        f
        for f in told(cased({"joints": measured(*[50.0] * 7, *[41.0] * 190)}), "caution")
        if "outside" in plain(f.message)
    ]
    assert plain(found[-1].message) == "2 more joints of the tally are outside range 3."


def sectioned(*sections):
    parts = [
        {**{"weight_ppf": w, "grade": "N80", "connection": "BTC"}, "to_md_ft": to}
        for w, to in ((43.5, 4000.0), (47.0, None))
    ]
    rows = [{"length_ft": 41.0, "section": s} for s in sections]
    return cased({"joints": rows}, string={"pipe": None, "sections": parts})


def test_sections_count_from_the_top_and_stand_in_order():
    good = sectioned(*[2] * 99, *[1] * 99)
    assert not [f for f in told(good) if "section" in plain(f.message)]
    assert [leg.pipe.weight_ppf for leg in run_in(good).legs] == [47.0, 43.5]
    swapped = sectioned(*[2] * 50, 1, *[2] * 48, *[1] * 99)
    (found,) = [f for f in told(swapped) if "out of order" in plain(f.message)]
    assert found.place == "/strings/2/running/joints/51/section"
    (found,) = [f for f in told(sectioned(3, *[2] * 98, *[1] * 99)) if "the string has 2" in plain(f.message)]
    assert found.place == "/strings/2/running/joints/0/section"


@pytest.mark.parametrize(("lower", "off"), [(98, False), (99, False), (97, True), (100, True)])
def test_a_section_that_ends_more_than_a_joint_away_is_told(lower, off):
    """98 joints of 40.6 ft and 3.4 ft of equipment end at 4,018 ft, 99 at 3,977: within a joint of 4,000. 97 and 100 are not."""
    found = [f for f in told(sectioned(*[2] * lower, *[1] * (198 - lower))) if "section 1 ends" in plain(f.message)]
    assert bool(found) == off


def test_pipe_that_does_not_pass_its_hole_has_no_run():
    """9 5/8 in pipe in a hole of 9.625 in; a hair wider and it runs."""
    assert run_in(cased(string={"bit_in": 9.625})) is None
    assert row_of(cased(string={"bit_in": 9.625})).joints is None
    assert run_in(cased(string={"bit_in": 9.65})) is not None


def test_a_liner_hangs_by_its_tally_and_a_short_one_is_told():
    string = {"run": "liner", "hanger_md_ft": 1600.0}
    row = row_of(cased(string=string))
    assert row.hung == "liner hanger"
    assert row.top_md_ft == pytest.approx(8000 - row.total_ft)
    assert row.over_ft >= 0
    count = 157  # 157·40.599 + 3.4 + 12 of hanger = 6,389.4 of 6,400 ft
    short = cased({"joints": measured(*[41.0] * count)}, string=string)
    (found,) = [f for f in told(short) if f.place.endswith("/joints")]
    assert "short of the liner top" in plain(found.message)


@pytest.mark.parametrize(("short", "told_"), [(2.9, False), (3.1, True)])
def test_a_liner_may_end_a_little_short_of_its_top(short, told_):
    """3.4 ft of float equipment, 12 ft of hanger, and joints to that much less than 6,400 ft: policy allows 3 ft."""
    rest = 6400 - short - 15.4 - 156 * ADDS + 4.8125 / 12
    document = cased({"joints": measured(*[41.0] * 156, rest)}, string={"run": "liner", "hanger_md_ft": 1600.0})
    assert row_of(document).over_ft == pytest.approx(-short, abs=1e-6)
    assert bool([f for f in told(document) if "short of the liner top" in plain(f.message)]) == told_


def test_a_stage_collar_stands_at_the_joint_nearest_to_its_depth_and_over_the_float_collar():
    row = row_of(cased(string={"cement": {"stage_collar_md_ft": 5000.0}}))
    assert abs(row.stages_md_ft[0] - 5000) <= 21.6
    tally, plain_ = (run_in(cased(string=s)).tally for s in ({"cement": {"stage_collar_md_ft": 5000.0}}, {}))
    equipment = tally.total_ft - float(np.sum(tally.effective_ft))
    assert equipment == pytest.approx(3.4 + CATALOGUE.gear["stage collar"].length_ft, abs=1e-6)
    assert plain_.total_ft - float(np.sum(plain_.effective_ft)) == pytest.approx(3.4, abs=1e-6)
    low = row_of(cased(string={"cement": {"stage_collar_md_ft": 7990.0}}))
    assert low.stages_md_ft[0] < low.collar_md_ft
    assert low.track_ft == pytest.approx(83.4, abs=1e-6)
