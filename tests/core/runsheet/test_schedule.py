"""Times of a sheet: one well's hours worked by hand, work beside the rig, the band, test dates, drilling rates."""

import math

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.runsheet_policy import RunSheetPolicy, SpreadRow
from knollstack.core.runsheet.rule import NEXT_BUT_ONE, Does, Line
from knollstack.core.runsheet.schedule import schedule_of
from tests.core.runsheet.by_hand import BESIDE, HOURS, SPREAD
from tests.core.runsheet.wells import demo_well, edits, keys, line_of, with_sheet
from tests.helpers import run


def test_the_hours_of_the_land_well_by_hand():
    """Every step that takes time, and no other; with 15 % lost, (a + 4m + b)/6 of each kind's spread, the days of the well."""
    judged = run(demo_well())
    lines = {line.key: line for line in judged.sheet().lines}
    told = {key: line.hours for key, line in lines.items() if line.hours}
    assert told.keys() == HOURS.keys()
    for key, hours in HOURS.items():
        assert told[key] == pytest.approx(hours, abs=0.001), key
    assert {key for key in HOURS if lines[key].beside} == BESIDE
    own = dict.fromkeys(SPREAD, 0.0)
    for key in HOURS.keys() - BESIDE:
        own[lines[key].kind] += 1.15 * HOURS[key] * (not key.startswith("site/"))
    mean = {kind: hours * (SPREAD[kind][0] + 4 + SPREAD[kind][1]) / 6 for kind, hours in own.items()}
    kinds = {row.kind: row for row in judged.runsheet.kinds}
    assert kinds.keys() == {kind for kind, hours in own.items() if hours}
    for kind, row in kinds.items():
        expected = (own[kind] * SPREAD[kind][0], own[kind], own[kind] * SPREAD[kind][1], mean[kind])
        assert (row.least_hours, row.likely_hours, row.most_hours, row.expected_hours) == pytest.approx(
            expected, abs=0.01
        )
    days = judged.runsheet.days
    assert (days.likely, days.expected) == pytest.approx((sum(own.values()) / 24, sum(mean.values()) / 24), abs=0.002)
    assert days.least < days.low < days.expected < days.high < days.most


def test_a_section_takes_the_time_of_its_own_steps():
    judged = run(demo_well())
    row = judged.runsheet.sections[1]
    spread = {r.kind: (r.least + 4 + r.most) / 6 for r in RunSheetPolicy().spread}
    mine = [x for x in judged.sheet().lines if x.string == 1 and not x.beside]
    assert row.ends - row.begins == pytest.approx(sum(x.hours * 1.15 * spread[x.kind] for x in mine) / 24)
    assert row.begins == 0.0


def line(key, hours, kind="wellhead", beside="", *does):
    return Line(key, kind, ("",), "", "runsheet", hours=hours, beside=beside, does=does)


PLAIN = RunSheetPolicy(npt_share=0.0, spread=())


def slots(*lines):
    return {s.line.key: s for s in schedule_of(list(lines), PLAIN).slots}


def test_what_is_done_beside_begins_when_the_step_before_it_ends_and_is_waited_for():
    held = slots(line("a", 10.0), line("b", 30.0, "wellhead", "d"), line("c", 12.0), line("d", 6.0))
    assert held["d"].begins == pytest.approx(40 / 24), "b takes from 10 to 40 h, longer than c"
    assert (held["b"].slack_hours, held["c"].slack_hours) == (pytest.approx(0.0), pytest.approx(18.0))
    held = slots(line("a", 10.0), line("b", 5.0, "wellhead", "d"), line("c", 12.0), line("d", 6.0))
    assert held["d"].begins == pytest.approx(22 / 24)
    assert (held["b"].slack_hours, held["c"].slack_hours) == (pytest.approx(7.0), pytest.approx(0.0))


def test_two_things_beside_for_the_same_step_follow_one_another():
    held = slots(line("cellar", 72.0, "wellhead", "rig"), line("conductor", 24.0, "wellhead", "rig"), line("rig", 96.0))
    assert [held[k].begins * 24 for k in ("cellar", "conductor", "rig")] == pytest.approx([0, 72, 96])
    assert all(s.critical for s in held.values())


def test_beside_the_next_step_and_wanted_by_the_one_after():
    held = slots(line("a", 1.0), line("b", 5.0, "wellhead", NEXT_BUT_ONE), line("wait", 9.0), line("count", 1.0))
    assert (held["b"].begins * 24, held["b"].slack_hours) == (pytest.approx(1.0), pytest.approx(4.0))
    held = slots(line("a", 1.0), line("b", 12.0, "wellhead", NEXT_BUT_ONE), line("wait", 9.0), line("count", 1.0))
    assert held["count"].begins * 24 == pytest.approx(13.0)


def test_days_count_from_the_spud():
    held = slots(line("rig", 48.0), line("spud", 0.0, "drilling", "", Does("spud")), line("drill", 24.0))
    assert (held["rig"].begins, held["spud"].begins, held["drill"].ends) == (-2.0, 0.0, 1.0)


def test_the_band_adds_within_a_kind_and_squares_between_kinds():
    """Two kinds of 100 h, each 60 to 180 h: σ = 20 h each. Both of one kind: 40 h; of two: √(20² + 20²)."""
    spread = tuple(SpreadRow(kind=k, least=0.6, most=1.8) for k in ("drilling", "tripping"))
    policy = RunSheetPolicy(npt_share=0.0, spread=spread)

    def half_band(*kinds):
        spud = line("s", 0.0, "drilling", "", Does("spud"))
        end = schedule_of([spud, *(line(str(k), 100.0, kind) for k, kind in enumerate(kinds))], policy).end
        return (end.high - end.mean) * 24

    assert half_band("drilling", "drilling") == pytest.approx(1.2816 * 40)
    assert half_band("drilling", "tripping") == pytest.approx(1.2816 * math.hypot(20, 20))


def test_halving_a_rate_doubles_the_time_on_bottom():
    """5,600 ft of 8 1/2 in hole less the new hole: 5,525 ft drilled and a core of 60 ft at 30 ft/h, then at 15 ft/h."""
    usual, slow = run(demo_well()), run(with_sheet(rates=[{"id": "r", "string": "s4", "ft_hour": 15.0}]))

    def drilling(judged):
        return sum(x.hours for x in judged.sheet().lines if x.key.startswith("s4/drill/"))

    on_bottom = (12_600 - 7_015 - 60) / 30
    assert drilling(slow) - drilling(usual) == pytest.approx(on_bottom)
    assert slow.runsheet.days.expected > usual.runsheet.days.expected + on_bottom * 1.15 / 24
    assert slow.runsheet.sections[3].rate_given


@pytest.mark.parametrize(("over", "rate", "joints"), [(0.0, 33.0, 6.0), (0.001, 20.0, 3.0)])
def test_a_row_of_policy_holds_from_its_own_size_up(over, rate, joints):
    """The 12 1/4 in hole and its 9 5/8 in casing, of 173 joints, on the limit of a row and just under it."""
    document = demo_well()
    small, large = {"from_hole_in": 1.0, "ft_hour": 20.0, "bit_hours": 60.0}, {"from_hole_in": 12.25 + over}
    few, many_ = {"from_od_in": 1.0, "joints_hour": 3.0}, {"from_od_in": 9.625 + over, "joints_hour": 6.0}
    document["policy"]["runsheet"] = {
        "rates": [large | {"ft_hour": 33.0, "bit_hours": 60.0}, small],
        "joints": [many_, few],
    }
    judged = run(document)
    assert judged.runsheet.sections[2].rate_ft_hour == rate
    assert line_of(judged, "s3/pipe/1").hours == pytest.approx(173 / joints)


def test_a_zone_has_its_own_rate_where_it_lies_in_the_hole():
    """Pike limestone from 3,350 to 4,170 ft, 820 ft: at 20 in place of 45 ft/h."""
    usual, zoned = run(demo_well()), run(with_sheet(rates=[{"id": "r", "string": "s3", "zone": "z4", "ft_hour": 20.0}]))

    def drilling(judged):
        return sum(x.hours for x in judged.sheet().lines if x.key.startswith("s3/drill/"))

    zone = next(z for z in usual.program.well.ground.model.zones if z.id == "z4")
    thick = zone.base_tvd_ft - zone.top_tvd_ft
    assert drilling(zoned) - drilling(usual) == pytest.approx(thick / 20 - thick / 45, rel=1e-6)
    elsewhere = run(with_sheet(rates=[{"id": "r", "string": "s4", "zone": "z4", "ft_hour": 20.0}]))
    assert drilling(elsewhere) == pytest.approx(drilling(usual))


def test_a_bit_is_changed_when_its_life_is_spent_and_not_for_the_last_feet():
    """12 1/4 in hole: 50 h at 45 ft/h are 2,250 ft; the last 485 ft take a third bit, the last 5 h of a bit's life would not."""
    judged = run(demo_well())
    trips = [plain(x.text) for x in judged.sheet().lines if x.key.startswith("s3/trip/")]
    assert [t.split(" for ")[0] for t in trips] == ["Pull out at 4,265 ft", "Pull out at 6,515 ft"]
    document = demo_well()
    rates = [{"from_hole_in": 1.0, "ft_hour": 45.0, "bit_hours": 104.5}]  # 110.8 h are to be drilled: 6.0 % over
    document["policy"]["runsheet"] = {"rates": rates}
    assert not [k for k in keys(run(document)) if k.startswith("s3/trip/")]
    document["policy"]["runsheet"] = {"rates": [rates[0] | {"bit_hours": 95.0}]}
    assert [k for k in keys(run(document)) if k.startswith("s3/trip/")]


def test_bops_are_tested_in_the_hole_before_their_days_are_over():
    judged = run(demo_well())
    assert "s4/due1/test" in keys(judged)
    assert not [k for k in keys(judged) if k.startswith("s3/due")]
    weekly = demo_well()
    weekly["policy"]["preventers"] = {"test_days": 7}
    found = keys(run(weekly))
    assert {"s3/due1/test", "s4/due1/test", "s4/due2/test"} <= set(found)
    assert run(weekly).sheet().broken == ()


def test_drilling_stops_in_time_to_pull_out_and_test_on_the_last_day():
    """A bit that lasts: 7 days lie between two tests of the BOPs, lost time included, but for the longer trip kept."""
    document = demo_well()
    document["policy"]["preventers"] = {"test_days": 7}
    document["policy"]["runsheet"] = {"rates": [{"from_hole_in": 1.0, "ft_hour": 20.0, "bit_hours": 1000.0}]}
    sheet = run(document).sheet()
    found = [line.key for line in sheet.lines]
    kept = (2000 * 3.5 + 5000 * 5) / 94.5 / 60
    for first, last in (("s2/function", "s3/due1"), ("s3/due1/test", "s3/due2")):
        between = sheet.lines[found.index(first) + 1 : found.index(f"{last}/test")]
        out = next(line.hours for line in between if line.key == f"{last}/out")
        hours = sum(line.hours for line in between if not line.beside)
        assert hours == pytest.approx(168 / 1.15 - (kept - out), abs=0.01)
    assert sheet.broken == ()
    assert "s4/due2/test" in found[: found.index("s4/core/y5")], "it would run out in the core"


def test_a_core_makes_the_hole_deeper():
    core = line_of(run(demo_well()), "s4/core/y5")
    assert core.md_ft == 11_820


def test_unknown_times_are_told_and_the_days_are_at_least():
    document = demo_well(3)
    document["policy"]["runsheet"] = {"rates": []}
    judged = run(document)
    assert line_of(judged, "s3/drill/0").hours is None
    assert judged.runsheet.unknown >= 3
    assert {p.step: p.state for p in judged.path}["runsheet"] == "incomplete"


def test_dates_follow_from_the_spud_date():
    document = with_sheet(spud="2027-03-08")
    judged = run(document)
    rows = {x.key: x for x in judged.detail().lines}
    assert rows["s2/spud"].date == "2027-03-08"
    assert rows["site/rig"].begins < 0
    assert rows["site/rig"].date == "2027-03-02", "5.6 days before"
    assert judged.runsheet.ends_on == "2027-04-24", "47.0 days later"
    assert run(with_sheet(spud="")).runsheet.ends_on == ""


def test_a_time_of_ones_own_stands_in_place_of_policys():
    rows = edits({"step": "s2/nipple-up", "hours": 30.0})
    usual, given = run(demo_well()).runsheet.days.expected, run(with_sheet(edits=rows)).runsheet.days.expected
    assert given - usual == pytest.approx(18.0 * 1.15 * (0.85 + 4 + 1.5) / 6 / 24)
