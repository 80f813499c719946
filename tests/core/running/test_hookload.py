"""Hook load, drag, lock-up, and what rig and pipe have left: by hand, and against a plain march."""

import itertools
import math
import random

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.evaluation.evaluate import workings
from knollstack.core.reading.read import parse
from knollstack.core.running.centralizing import types_for
from knollstack.core.running.hookload import hook_loads
from knollstack.core.running.standoff import Placed
from tests.core.running.wells import cased, row_of, run_in, told
from tests.helpers import CATALOGUE, RIG, applied, many

K = 12 / 231
BUILD = [(0, 0, 0), (1000, 0, 0), *[(1000 + 100 * k, 3.0 * k, 30 + 0.5 * k) for k in range(1, 21)], (9000, 60, 40)]
NO_DRAG = {"friction_cased": 0.0, "friction_open": 0.0}
NO_BOWS = [{"id": "c1", "type": "rigid", "top_md_ft": 7000.0, "base_md_ft": 8000.0}]


def loads_of(document):
    return hook_loads(run_in(document), Placed(np.zeros(0), (), ()))


def test_hook_load_by_hand_at_three_depths():
    """9 5/8 in 47 lb/ft, bore 8.681 in, in 10 ppg: steel 13.572 in², 47 − 0.519481·13.572 = 39.950 lb/ft buoyed.

    At 2,000, 5,000 and 8,000 ft full of mud: 79,899, 199,748 and 319,597 lbf; the block's 40,000 on top of it at the end.
    Empty, 72.760 in² displace 37.797 lb/ft: 9.203 lb/ft, 18,406, 46,015 and 73,624 lbf.
    """
    document = cased(policy=NO_DRAG)
    loads = loads_of(document)
    for depth, full, empty in ((2000, 79_899, 18_406), (5000, 199_748, 46_015), (8000, 319_597, 73_624)):
        for fluid, expected in (("flooded", full), ("floated", empty)):
            for motion in ("in", "up", "still"):
                found = np.interp(depth, loads.shoe_md_ft, loads.of(fluid, motion))
                assert found == pytest.approx(expected, rel=2e-4), (depth, fluid, motion)
    row = row_of(document | {"strings": cased({"centralizers": NO_BOWS}, policy=NO_DRAG)["strings"]})
    assert row.hook_up_lbf == pytest.approx(359_597, abs=60)
    assert row.vertical_hook_lbf == pytest.approx(359_597, abs=60)
    assert row.stretch_in == pytest.approx(12 * 8000**2 * K * (65.5 - 14) / 60e6, rel=1e-6)


def plain_march(document, shoe, empty_to, friction):
    """Foot by foot from the shoe up: weight along the hole, side load from weight and tension in the dogleg."""
    run = run_in(document)
    leg, path, mud, tension = run.legs[0], run.well.path, K * run.mud_ppg, 0.0
    step = 5.0
    nodes = [*np.arange(shoe, 0.0, -step).tolist(), 0.0]
    directions = zip(*(np.radians(v).tolist() for v in path.direction_at(np.array(nodes))), strict=True)
    for (low, (i2, a2)), (high, (i1, a1)) in itertools.pairwise(zip(nodes, directions, strict=True)):
        inside = 0.0 if low <= empty_to else mud * math.pi / 4 * leg.id_in**2
        weight = (leg.weight_ppf + inside - mud * math.pi / 4 * leg.od_in**2) * (low - high)
        cosine = math.cos(i1) * math.cos(i2) + math.sin(i1) * math.sin(i2) * math.cos(a2 - a1)
        turn = math.acos(min(1.0, cosine))
        mean = (i1 + i2) / 2
        side = math.hypot(tension * turn - weight * math.sin(mean), 0.0) if turn > 1e-9 else weight * math.sin(mean)
        mu = friction * (0.25 if low <= run.string.previous_shoe_md_ft + 1e-9 else 0.35)
        tension += weight * math.cos(mean) + mu * side
    return tension


STRAIGHT_BUILD = [(m, i, 30) for m, i, _ in BUILD]


@pytest.mark.parametrize(
    "stations", [[*BUILD[:2], (8000, 0, 0)], STRAIGHT_BUILD, [(0, 0, 0), (500, 0, 0), (1500, 45, 90), (8000, 45, 90)]]
)
@pytest.mark.parametrize(("motion", "friction"), [("in", -1.0), ("up", 1.0), ("still", 0.0)])
def test_drag_is_that_of_a_plain_march(stations, motion, friction):
    """In one plane, where the side load is simply tension times turn less the weight across the hole."""
    document = cased({"fill": "floated in"}, stations=stations)
    loads = loads_of(document)
    for k in (len(loads.shoe_md_ft) // 2, -1):
        shoe = float(loads.shoe_md_ft[k])
        for fluid, empty in (("flooded", 0.0), ("floated", shoe + 1)):
            expected = plain_march(document, shoe, empty, friction)
            assert loads.of(fluid, motion)[k] == pytest.approx(expected, rel=0.012, abs=800), (shoe, fluid)


@pytest.mark.parametrize("seed", range(many(4)))
def test_without_friction_the_hook_holds_the_buoyed_weight(seed):
    """Whatever the path and the sections: weight in mud times the depth it hangs over; and drag only takes and adds."""
    chance = random.Random(seed)
    stations, md, inc, azi = [(0, 0, 0)], 0.0, 0.0, chance.uniform(0, 360)
    while md < 8000:
        md += chance.choice([300.0, 600.0, 900.0])
        inc, azi = min(max(inc + chance.uniform(-4, 12), 0.0), 75.0), (azi + chance.uniform(-15, 15)) % 360
        stations.append((md, inc, azi))
    free, dragged = (cased(stations=stations, policy=p, shoe=8000.0) for p in (NO_DRAG, {}))
    run, loads, held = run_in(free), loads_of(free), loads_of(dragged)
    leg = run.legs[0]
    steel = math.pi / 4 * (leg.od_in**2 - leg.id_in**2)
    weight = (leg.weight_ppf - K * 10.0 * steel) * run.well.path.tvd_at(loads.shoe_md_ft)
    for motion in ("in", "up", "still"):
        assert loads.of("flooded", motion) == pytest.approx(weight, rel=1e-9)
    assert np.all(held.of("flooded", "in") <= weight + 1e-6)
    assert np.all(held.of("flooded", "up") >= weight - 1e-6)


def test_the_working_is_the_march_itself():
    """Span by span to the tension at the rotary, and with block and centralizers the number that is shown."""
    document = cased({"centralizers": NO_BOWS}, stations=BUILD)
    records = workings(parse(document), CATALOGUE)
    loads = loads_of(document)
    for motion in ("in", "up"):
        calls = [c for c in records[f"running/2/hook_{motion}"] if c.formula.name == "soft_string_tension"]
        assert calls[-1].result == pytest.approx(float(loads.of("planned", motion)[-1]), rel=1e-9)
        assert len(calls) > 20
        row = row_of(document)
        last = records[f"running/2/hook_{motion}"][-1]
        assert last.formula.name == "hook_load"
        assert last.result == pytest.approx({"in": row.hook_down_lbf, "up": row.hook_up_lbf}[motion], rel=1e-9)


@pytest.mark.parametrize(("limit", "found"), [(0.001, "stop"), (1e5, None), (1e5 - 1, "caution"), (0.0, "caution")])
def test_the_rig_is_asked_on_both_sides_of_its_limits(limit, found):
    """Its limit itself, and the 100,000 lbf of overpull that policy asks."""
    hook = row_of(cased(policy=NO_DRAG)).hook_up_lbf
    given = hook - limit if limit == 0.001 else hook + limit
    document = cased(policy=NO_DRAG, site={**cased()["site"], "hook_load_limit_lbf": given})
    told_ = [f for f in told(document) if "overpull" in plain(f.message) or "rig's limit" in plain(f.message)]
    assert [f.severity for f in told_] == ([found] if found else [])
    assert ["rig's limit" in plain(f.message) for f in told_] == ([found == "stop"] if found else [])
    left = row_of(document).overpull_left_lbf
    assert left == pytest.approx(given - hook, abs=1e-6)


def test_the_pipe_limits_the_overpull_too():
    """43.5 lb/ft K55 STC: joint strength over 1.6 less the hook load."""
    document = cased(policy=NO_DRAG, string={"pipe": {"weight_ppf": 36.0, "grade": "J55", "connection": "STC"}})
    row, run = row_of(document), run_in(document)
    pipe = run.legs[0].pipe
    up = float(loads_of(document).of("planned", "up")[-1]) + row.running_force_lbf
    assert row.overpull_left_lbf == pytest.approx(min(pipe.joint_lbf, pipe.body_lbf) / 1.6 - up, abs=1.0)
    assert [f.severity for f in told(document) if "of overpull" in plain(f.message)] == [
        "stop" if row.overpull_left_lbf < 0 else "caution"
    ]


def test_the_weaker_section_below_carries_less_of_the_hook_load():
    """40 lb/ft N80 STC below 4,000 ft of 47 lb/ft BTC: the pull it sees is less by the buoyed weight of the pipe above it."""
    parts = [{"weight_ppf": 47.0, "grade": "P110", "connection": "BTC", "to_md_ft": 4000.0}]
    parts.append({"weight_ppf": 40.0, "grade": "K55", "connection": "STC", "to_md_ft": None})
    document = cased({"centralizers": NO_BOWS}, policy=NO_DRAG, string={"pipe": None, "sections": parts})
    run, row = run_in(document), row_of(document)
    low, high = run.legs
    above = (high.weight_ppf - K * 10.0 * math.pi / 4 * (high.od_in**2 - high.id_in**2)) * (8000 - low.high_ft)
    up = row.hook_up_lbf - RIG["block_lbf"]
    steel = math.pi / 4 * (low.od_in**2 - low.id_in**2)
    assert up == pytest.approx(above + (low.weight_ppf - K * 10.0 * steel) * low.high_ft, rel=1e-9)
    assert row.overpull_left_lbf == pytest.approx(low.pipe.joint_lbf / 1.6 - (up - above), rel=1e-6)


def test_centralizers_hold_back_down_and_up_once_they_are_in_the_hole():
    """Each holds the string on its way down, and again when it is picked up."""
    document = cased()
    run, up = run_in(document), np.array([500.0, 3000.0])
    kind = types_for(9.625, CATALOGUE, ())["bow spring"]
    bare, held = loads_of(document), hook_loads(run, Placed(up, (kind, kind), (2,)))
    for shoe, count in ((400.0, 0), (2000.0, 1), (7000.0, 2)):
        k = int(np.argmin(np.abs(bare.shoe_md_ft - shoe)))
        for motion, sign in (("in", -1), ("up", 1), ("still", 0)):
            more = held.of("flooded", motion)[k] - bare.of("flooded", motion)[k]
            assert more == pytest.approx(sign * count * kind.running_lbf, abs=1e-6)


FLAT = [(0, 0, 0), (1000, 0, 0), (3000, 80, 0), (9000, 80, 0)]


def test_a_string_that_goes_down_no_more_is_told_with_its_depth():
    """In 10 ppg empty pipe weighs 9 lb/ft: along 80° drag takes all that the vertical part gives."""
    document = cased({"fill": "floated in", "centralizers": NO_BOWS}, stations=FLAT, policy={"friction_open": 0.6})
    loads = loads_of(document)
    weight = loads.of("floated", "in")
    row = row_of(document)
    below = loads.shoe_md_ft[np.flatnonzero(weight <= 0)[0]]
    above = loads.shoe_md_ft[np.flatnonzero(weight <= 0)[0] - 1]
    assert above < row.lock_up_md_ft <= below
    (found,) = [f for f in told(document, "stop") if "goes down no more" in plain(f.message)]
    assert f"{row.lock_up_md_ft:,.0f} ft" in plain(found.message)
    free = cased({"fill": "floated in", "centralizers": NO_BOWS}, stations=FLAT, policy=NO_DRAG)
    assert row_of(free).lock_up_md_ft is None


@pytest.mark.parametrize(("hang_lbf", "held"), [(100.0, False), (-100.0, True)])
def test_it_goes_down_no_more_just_where_nothing_is_left(hang_lbf, held):
    """The friction at which the hook still holds this much at the end of the run, found by halving."""

    def document(friction):
        return cased({"fill": "floated in"}, stations=FLAT, policy={"friction_open": friction})

    low, high = 0.0, 0.6
    for _ in range(30):
        middle = (low + high) / 2
        over = loads_of(document(middle)).of("floated", "in")[-1] > hang_lbf
        low, high = (middle, high) if over else (low, middle)
    assert (loads_of(document(low)).lock_up_md_ft is not None) == held


@pytest.mark.parametrize("key", list(RIG))
def test_a_rig_of_which_something_is_not_given_is_unknown(key):
    document = cased(site={**cased()["site"], key: None})
    (found,) = told(document, "unknown")
    assert found.place == f"/site/{key}"
    if key in ("hook_load_limit_lbf", "block_lbf"):
        assert row_of(document).overpull_left_lbf is None


def test_pipe_whose_joint_strength_is_not_held_leaves_the_overpull_unknown():
    own = {"od_in": 9.625, "weight_ppf": 47.0, "wall_in": 0.472, "grade": "N80", "yield_psi": 80_000.0}
    own |= {"connection": "OWN", "coupling_od_in": 10.625}
    for more, known in (({}, False), ({"joint_lbf": 900_000.0}, True)):
        document = cased(string={"pipe": {"weight_ppf": 47.0, "grade": "N80", "connection": "OWN"}}, pipes=[own | more])
        assert (row_of(document).overpull_left_lbf is not None) == known
        assert bool([f for f in told(document, "unknown") if "joint strength" in plain(f.message)]) != known


@pytest.mark.parametrize(
    ("key", "share", "found"),
    [("elevator_lbf", 1.001, []), ("elevator_lbf", 0.999, ["stop"]), ("spider_lbf", 0.999, ["stop"])],
)
def test_tools_are_asked_what_they_hold(key, share, found):
    hook = row_of(cased(policy=NO_DRAG)).hook_up_lbf - RIG["block_lbf"]
    document = cased(policy=NO_DRAG, site={**cased()["site"], key: hook * share})
    assert [f.severity for f in told(document, "stop") if "rated" in plain(f.message)] == found


def test_make_up_torque_by_connection():
    """Round thread: 1 % of the joint strength, three quarters to five quarters of it; buttress to its triangle; others asked."""
    assert row_of(cased()).torque[0].by == "mark"
    round_ = cased(string={"pipe": {"weight_ppf": 47.0, "grade": "N80", "connection": "LTC"}})
    torque, joint = row_of(round_).torque[0], run_in(round_).legs[0].pipe.joint_lbf
    assert (torque.least_ft_lbf, torque.best_ft_lbf, torque.most_ft_lbf) == pytest.approx(
        (0.0075 * joint, 0.01 * joint, 0.0125 * joint)
    )
    for rating, short in ((0.0125 * joint + 1, False), (0.0125 * joint - 1, True)):
        weak = {**round_, "site": {**round_["site"], "tong_ft_lbf": rating}}
        assert bool([f for f in told(weak, "caution") if "tongs give" in plain(f.message)]) == short
    premium = cased(string={"pipe": {"weight_ppf": 47.0, "grade": "N80", "connection": "PTC"}})
    assert [f.place for f in told(premium, "unknown")] == ["/strings/2/running/torque_ft_lbf"]
    given = applied(premium, ())
    given["strings"][2]["running"]["torque_ft_lbf"] = 14_000.0
    assert not told(given, "unknown")
    assert row_of(given).torque[0].most_ft_lbf == pytest.approx(17_500)
