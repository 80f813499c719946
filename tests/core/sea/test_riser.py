"""The riser made up and pulled, what it costs in time, and the disconnect against drift."""

import itertools
import math

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.sea import RiserJoint
from knollstack.core.sea.makeup import counts_for, pups_for
from tests.core.sea.wells import DEEP, deep
from tests.helpers import applied, find, run

JOINTS = DEEP["sea"]["riser"]["joints"]


def sea(document):
    return run(document).sea


def said(document, start, severity=None):
    return [f for f in find(run(document), "sea", severity) if f.place.startswith(start)]


def test_the_riser_of_the_deep_well_by_hand():
    """Foot to telescopic joint, 75 ft joints in the order of the table, then the pups that come nearest."""
    found = sea(deep(sea__riser__stack_ft=50.0)).riser
    foot = 4435 - 10 - 50 - 10
    assert found.foot_md_ft == foot
    assert found.space_ft == pytest.approx(foot - 22 - 82)
    full = int((foot - 104) // 75)
    assert [row.count for row in found.joints[:3]] == [6, 36, full - 42]
    assert found.made_ft == pytest.approx(sum(row.count * row.length_ft for row in found.joints))
    assert abs(found.off_ft) <= 5.5, "no more than the stroke that policy leaves for spacing out"
    assert found.wet_lbf == pytest.approx(sum(row.wet_lbf for row in found.joints) + 40_000), "with the outer barrel"
    joints = sum(row.count for row in found.joints)
    assert found.tests == math.ceil(joints / 10)
    assert found.hours == pytest.approx(joints / 2.5 + found.tests * 0.75)


@pytest.mark.parametrize("rest", [0.0, 3.0, 12.4, 33.0, 61.7, 74.9, 90.0])
def test_pups_come_as_near_as_any_choice_of_them(rest):
    rows = tuple(
        RiserJoint(name="Pup", length_ft=x, aboard=n, wet_lbf=0.0) for x, n in ((40.0, 1), (20.0, 2), (6.5, 3))
    )
    best = min(
        abs(sum(n * row.length_ft for n, row in zip(counts, rows, strict=True)) - rest)
        for counts in itertools.product(*(range(row.aboard + 1) for row in rows))
    )
    chosen = pups_for(rest, rows)
    assert all(n <= row.aboard for n, row in zip(chosen, rows, strict=True))
    assert abs(sum(n * row.length_ft for n, row in zip(chosen, rows, strict=True)) - rest) == pytest.approx(
        best, abs=0.02
    )


def test_what_is_decided_of_the_riser_stands():
    rows = tuple(RiserJoint(**row) for row in (JOINTS[0] | {"run": 2}, *JOINTS[1:]))
    assert counts_for(rows, 1000.0)[0] == 2


def test_water_that_the_joints_do_not_reach_is_told_with_the_joints_that_are_wanting():
    few = [dict(JOINTS[0]), JOINTS[1] | {"aboard": 30}]
    (found,) = said(deep(sea__riser__joints=few), "/sea/riser/joints")
    reached, space = 36 * 75, sea(deep(sea__riser__joints=few)).riser.space_ft
    assert found.severity == "stop"
    wanting = math.ceil((space - reached) / 75)
    assert plain(found.message).endswith(f"{wanting} joints are wanting.")
    enough = [dict(JOINTS[0]), JOINTS[1] | {"aboard": 30 + wanting}, *JOINTS[3:]]
    assert said(deep(sea__riser__joints=enough), "/sea/riser/joints") == []


def test_pups_that_do_not_come_out_are_told_on_both_sides_of_the_stroke():
    space = sea(deep()).riser.space_ft
    rest = space % 75
    for off, told in ((5.4, False), (5.6, True)):
        pup = {"name": "Pup", "length_ft": round(rest + off, 2), "aboard": 1, "wet_lbf": 5_000.0}
        joints = [JOINTS[0] | {"aboard": 200}, pup]
        assert bool(said(deep(sea__riser__joints=joints), "/sea/riser/joints")) is told


def test_tension_by_hand():
    """Every term written out, two of twelve tensioners lost."""
    found = sea(deep()).riser
    row = found.tensions[-1]
    mud, height, water = row.mud_ppg, found.foot_md_ft, found.foot_md_ft - 85
    column = math.pi / 4 * 19.5**2 * 12 / 231 * (mud * height - 8.55 * water)
    ring = found.wet_lbf * 1.05 - found.lift_lbf * 0.96 + column
    assert row.least_failed_lbf == pytest.approx(ring * 12 / (0.95 * 10), rel=1e-6)
    assert row.least_lbf == pytest.approx(ring / 0.95, rel=1e-6)
    assert row.set_lbf == pytest.approx(row.least_failed_lbf + 50_000)
    left = row.set_lbf * 0.95 - (found.wet_lbf * 1.05 - found.lift_lbf * 0.96)
    assert row.package_lbf == pytest.approx(left, rel=1e-6)


def test_more_water_and_more_lost_never_ask_for_less_tension():
    before = 0.0
    for water in (2000.0, 3000.0, 4350.0, 4400.0):
        document = deep(site__water_depth_ft=water, trajectory={"stations": [{"md_ft": 0.0}, {"md_ft": 16_200.0}]})
        document["sea"]["riser"]["joints"] = [dict(JOINTS[0]) | {"aboard": 200}, *JOINTS[3:]]
        least = sea(document).riser.tensions[-1].least_failed_lbf
        assert least >= before
        before = least
    least = [sea(deep(sea__riser__failed=n)).riser.tensions[-1].least_failed_lbf for n in range(4)]
    assert least == sorted(least)


def test_tension_is_judged_on_both_sides_of_its_least_and_its_most():
    place = "/sea/riser/setting_lbf"
    least = max(row.least_failed_lbf for row in sea(deep()).riser.tensions)
    assert [f.severity for f in said(deep(sea__riser__setting_lbf=least - 5), place)] == ["stop"]
    assert said(deep(sea__riser__setting_lbf=least + 5), place) == []
    low = deep(sea__riser__setting_lbf=least - 5)
    for remedy in said(low, place)[0].remedies:
        assert said(applied(low, remedy.changes), place) == [], plain(remedy.label)
    most = 12 * 160_000.0
    for held, expected in ((0.9 * most - 5, []), (0.9 * most + 5, ["caution"]), (most + 5, ["stop"])):
        assert [f.severity for f in said(deep(sea__riser__setting_lbf=held), place)] == expected


def test_tensioners_that_are_all_lost_or_not_given_hold_nothing():
    assert [f.severity for f in said(deep(sea__riser__failed=12), "/sea/riser/failed")] == ["stop"]
    assert said(deep(sea__riser__failed=11), "/sea/riser/failed") == []
    assert [f.severity for f in said(deep(sea__riser__tensioners=None), "/sea/riser/tensioners")] == ["unknown"]


def test_the_package_is_lifted_clear_or_told():
    left = min(row.package_lbf for row in sea(deep(sea__riser__setting_lbf=1_000_000.0)).riser.tensions)
    for package, told in ((left - 5, False), (left + 5, True)):
        document = deep(sea__riser__setting_lbf=1_000_000.0, sea__riser__package_lbf=package)
        assert bool([f for f in find(run(document), "sea") if "lifted clear" in plain(f.message)]) is told


def test_drift_by_hand():
    """4,350 ft of riser at 6° is 457 ft; at 95 ft/min that is 289 s. Shearing and unlatching take 60 s after 30 s."""
    found = sea(deep())
    gale = found.disconnect.drift[1]
    limit = (found.riser.foot_md_ft - 22) * math.tan(math.radians(6))
    assert gale.limit_ft == pytest.approx(limit)
    assert gale.seconds == pytest.approx(60 * limit / 95)
    assert gale.red_ft == pytest.approx(limit - 95 * 90 / 60)
    assert gale.yellow_ft == pytest.approx(gale.red_ft - 95 * 180 / 60)
    assert gale.spare_seconds == pytest.approx(gale.seconds - 90 - 180)


def test_drift_is_judged_on_both_sides_of_both_circles():
    limit = sea(deep()).disconnect.drift[0].limit_ft
    for seconds, expected in ((90, ["stop"]), (270, ["caution"])):
        for more, told in ((-0.01, []), (0.01, expected)):
            weather = [{"name": "w", "drift_ft_min": 60 * limit / seconds * (1 + more)}]
            found = [f.severity for f in said(deep(sea__weather=weather), "/sea/weather")]
            assert found == (told or (["caution"] if seconds == 90 else []))
    assert [f.severity for f in said(deep(sea__weather=[]), "/sea/weather")] == ["unknown"]
    assert [f.severity for f in said(deep(sea__weather=[{"name": "w"}]), "/sea/weather")] == ["unknown", "unknown"]


def test_the_sequence_runs_step_after_step():
    steps = [
        {"name": "a", "seconds": 20.0, "when": "emergency"},
        {"name": "b", "seconds": 40.0, "when": "secure"},
        {"name": "c", "seconds": 5.0, "when": "emergency"},
    ]
    found = sea(deep(sea__disconnect=steps, policy__sea={"answer_seconds": 10.0})).disconnect
    assert [(s.name, s.begins_s, s.ends_s) for s in found.steps] == [("b", 0, 40), ("a", 10, 30), ("c", 30, 35)]
    assert (found.secure_s, found.emergency_s, found.usual) == (40.0, 25.0, False)


def test_shallow_water_has_no_room_for_a_riser():
    document = deep(site__water_depth_ft=60.0, sea__riser__stack_ft=50.0)
    document["ground"] = {"pore": [], "fracture": []}
    assert "/site/water_depth_ft" in [f.place for f in find(run(document), "sea", "stop")]
    assert sea(document).riser is None


@pytest.mark.parametrize(
    ("order", "cut"),
    [
        (("pipe rams", "casing shear rams", "blind rams", "annular"), "cut and sealed"),
        (("pipe rams", "blind rams", "casing shear rams", "annular"), "cut, not sealed"),
        (("pipe rams", "blind rams", "annular"), "not cut"),
    ],
)
def test_what_is_cut_seals_only_with_blind_rams_over_the_shears(order, cut):
    elements = [{"id": f"e{n}", "element": name} for n, name in enumerate(order)]
    stack = {"id": "b1", "string": "s2", "class_psi": 10_000.0, "elements": elements}
    document = deep(preventers=[stack])
    rows = [r for r in sea(document).disconnect.across if r.string == 3 and r.kind == "casing"]
    assert [row.cut for row in rows] == [cut]
    told = [plain(f.message) for f in find(run(document), "sea", "caution") if f.place == "/strings/3"]
    assert [text for text in told if "9 5/8 in casing" in text and "barrier must stand" in text] == (
        [text for text in told if "9 5/8 in casing" in text] if cut == "cut, not sealed" else []
    )
    assert bool([text for text in told if "9 5/8 in casing is cut by no ram" in text]) is (cut == "not cut")


@pytest.mark.parametrize(
    ("heave", "current", "waits", "unknown"),
    [
        (8.0, 1.7, (), ()),
        (8.1, 1.7, ("w",), ()),
        (8.0, 1.8, ("w",), ()),
        (None, 1.0, (), ("w",)),
        (None, 1.8, ("w",), ()),
        (8.0, None, (), ("w",)),
    ],
)
def test_work_waits_beyond_either_limit_and_is_unknown_only_within_the_other(heave, current, waits, unknown):
    weather = [{"name": "w", "drift_ft_min": 50.0, "heave_ft": heave, "current_ft_s": current}]
    limits = [{"work": "Run riser", "heave_ft": 8.0, "current_ft_s": 1.7}, {"work": "Free"}]
    rows = sea(deep(sea__weather=weather, sea__limits=limits)).waits
    assert [(row.waits, row.unknown) for row in rows] == [(waits, unknown), ((), ())]


def test_the_crew_acts_at_the_circles_or_at_once():
    gale, eddy = sea(deep()).disconnect.drift[1:3]
    assert (gale.red_s, gale.yellow_s) == pytest.approx((gale.seconds - 90, gale.seconds - 270))
    assert (eddy.red_s, eddy.yellow_s) == pytest.approx((eddy.seconds - 90, 0.0))


def test_the_schedule_of_the_riser_adds_up():
    """Soak, run with line tests, displace twice at 12 bbl/min, recover at 2.5 joints an hour; deeper water takes longer."""
    found = run(deep()).sea
    joints, fill = sum(row.count for row in found.riser.joints), found.riser.tensions[0].fill_bbl
    hours = [row.hours for row in found.schedule]
    displaced = fill / 12 / 60
    assert hours == [6.0, found.riser.hours, *[pytest.approx(displaced, rel=1e-3)] * 2, pytest.approx(joints / 2.5)]
    assert [row.total_hours for row in found.schedule] == pytest.approx(
        list(itertools.accumulate(row.hours for row in found.schedule))
    )
    drilled = run(deep(strings__0__run="cased")).sea
    assert [row.work for row in drilled.schedule] == [row.work for row in found.schedule][1:]
    assert run(deep(sea__conductor__soak_hours=None, policy__sea={"soak_hours": 9.0})).sea.schedule[0].hours == 9.0


def test_values_that_nobody_moved_are_told_as_assumed():
    def told(document):
        whole = run(document).judged("sea")[2]
        return [plain(a.text) for a in whole if a.step == "sea" and "usual values" in plain(a.text)]

    assert [text.split(":")[0] for text in told(deep())] == ["Conductor", "Housing", "Riser"]
    assert "outer barrel in water" in told(deep())[2]
    moved = deep(sea__riser__barrel_lbf=39_000.0, sea__riser__flex_ft=11.0)
    assert [text.split(":")[0] for text in told(moved)] == ["Conductor", "Housing"]
