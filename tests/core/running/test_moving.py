"""Speed against surge, gels, standoff between centralizers, scratchers, and sticking: by hand and against plain scans."""

import math
import random
from dataclasses import replace

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.running.centralizing import PATTERNS, types_for
from knollstack.core.running.speed import breaking, rock_of, speeds
from knollstack.core.running.standoff import Interval, place, spaced, standoffs
from tests.core.running.wells import cased, measured, row_of, run_in, told
from tests.helpers import CATALOGUE, applied, many, points

K = 12 / 231
TIGHT = {"ground__fracture": points((30, 11.2), (8000, 11.2))}
SLANT = [(0, 0, 0), (1000, 0, 0), (2500, 45, 0), (9000, 45, 0)]


def surge_psi(run, ft_min, shoe, depth):
    """Bingham friction past the closed pipe from the rotary down to a depth, no deeper than the shoe; 30 and 50 on the dial."""
    total, reached = 0.0, min(depth, shoe)
    for top, base, bore in run.outers:
        length = max(0.0, min(base, reached) - top)
        gap = bore - 9.625
        v = ft_min / 60 * (0.45 + 9.625**2 / (bore**2 - 9.625**2))
        laminar = 20 * v / (1000 * gap**2) + 10 / (200 * gap)
        turbulent = 10.0**0.75 * v**1.75 * 20**0.25 / (1396 * gap**1.25)
        total += length * max(laminar, turbulent)
    return total


@pytest.mark.parametrize("fracture", [10.75, 10.9, 11.2, 14.0])
def test_the_greatest_speed_is_that_of_a_plain_scan(fracture):
    """Whole ft/min, the most at which no foot of the open hole comes within 0.3 ppg of its fracture pressure."""
    document = cased(ground__fracture=points((30, fracture), (8000, fracture)))
    run = run_in(document)
    found = speeds(run)
    depths = np.arange(2000.0, 8001.0, 20.0)
    for k in range(0, len(found.shoe_md_ft), 6):
        shoe = float(found.shoe_md_ft[k])

        def stands(ft_min, shoe=shoe):
            return all(surge_psi(run, ft_min, shoe, z) <= K * z * (fracture - 0.3 - 10.0) + 1e-6 for z in depths)

        most = max((v for v in range(1, 91) if stands(v)), default=0)
        assert found.ft_min[k] == most, shoe


@pytest.mark.parametrize(("fracture", "severity"), [(14.0, None), (10.75, "note"), (10.3, "stop")])
def test_the_speed_is_told_where_rock_limits_it(fracture, severity):
    document = cased(ground__fracture=points((30, fracture), (8000, fracture)))
    found = [f for f in told(document) if "surge" in plain(f.message)]
    assert [f.severity for f in found] == ([severity] if severity else [])
    row = row_of(document)
    assert (row.hours is None) == (severity == "stop")


def test_the_time_of_the_run_by_hand():
    """8,000 ft at 90 ft/min, 200 connections and 40 fills of three minutes: 88.9 + 600 + 120 minutes."""
    row = row_of(cased())
    assert row.running_ft_min == 90
    assert row.hours == pytest.approx((8000 / 90 + 600 + 120) / 60, abs=1e-6)


@pytest.mark.parametrize(
    ("change", "place"), [({"reading_600": None}, "/strings/2/reading_600"), ({}, "/strings/2/mud_ppg")]
)
def test_a_speed_that_is_not_known_is_unknown(change, place):
    parts = {} if change else {"ground__fracture": points((30, 14), (5000, 14))}
    document = cased(string=change, **parts)
    assert [f.place for f in told(document, "unknown")] == [place]
    assert row_of(document).running_ft_min is None


def test_gels_by_hand_and_on_both_sides_of_the_margin():
    """25 lbf/100 ft² over 6,000 ft of 2.625 in gap and 1,970 ft inside the surface casing."""
    document = cased()
    bore = run_in(document).outers[-2][2]
    psi = 25 * 6000 / (300 * 2.625) + 25 * (2000 - 30) / (300 * (bore - 9.625))
    row = row_of(document)
    assert row.break_psi == pytest.approx(psi, rel=1e-6)
    reached = 10.0 + psi / (K * 8000)
    for fracture, severity in ((reached + 0.31, []), (reached + 0.29, ["caution"]), (reached - 0.01, ["stop"])):
        rock = points((30, 14), (7999, 14), (8000, fracture))
        found = told(cased(ground__fracture=rock))
        assert [f.severity for f in found if "Breaking circulation" in plain(f.message)] == severity


def test_gels_given_for_the_string_and_where_they_are_worst():
    """Rock has least room at 2,000 ft, 176 psi, and gels take 13 of it; at 8,000 ft they take 202 of 208."""
    row = row_of(cased())
    assert row_of(cased({"gel_lb_100ft2": 50.0})).break_psi == pytest.approx(2 * row.break_psi, rel=1e-9)
    rock = points((30, 12), (2000, 12), (8000, 10.8))
    run = run_in(cased(ground__fracture=rock))
    assert rock_of(run).md_ft[np.argmin(rock_of(run).room_psi)] == 2000.0
    assert breaking(run).at_md_ft == 8000.0


def at_45(number, joints, kind="bow spring"):
    run = run_in(cased(stations=SLANT))
    kinds = types_for(9.625, CATALOGUE, ())
    return run, Interval("", 3000.0, 8000.0, kinds[kind], number, joints, None)


def test_standoff_by_hand_at_45():
    """One a joint: 40 ft of 39.950 lb/ft at 45°: 1,129.9 lbf on the wall. A 1,600 lbf bow gives 0.33·1.3125·1,129.9/1,600
    = 0.3059 in: 1.0066 in left. Sag of 480 in under that: 0.0598 in without tension. At the bow 76.7 %, midway 72.1 %; tension
    stiffens the span, so at the shoe it is that and farther up more.
    """
    run, interval = at_45(1, 1)
    found = standoffs(run, place(run, (interval,)))
    weight = 47 - K * 10 * math.pi / 4 * (9.625**2 - 8.681**2)
    side = weight * 40 * math.sin(math.pi / 4)
    inertia = math.pi / 64 * (9.625**4 - 8.681**4)
    sag = side * 480**3 / (384 * 30e6 * inertia)
    left = 1.3125 - 0.33 * 1.3125 * side / 1600
    straight = (found.low_md_ft < 7900) & (found.high_md_ft > 2600)
    assert found.side_lbf[straight] == pytest.approx(side, rel=1e-6)
    assert found.at_bow[straight] == pytest.approx(100 * left / 1.3125, rel=1e-6)
    assert np.all(found.midway[straight] >= 100 * (left - sag) / 1.3125 - 1e-6)
    near = int(np.argmax(np.where(straight, found.low_md_ft, 0)))
    assert found.midway[near] == pytest.approx(100 * (left - sag) / 1.3125, abs=0.35)


def test_the_span_that_the_shoe_ends_is_mirrored_there_and_counts():
    """Lowest at 1.8 + 20 ft: a span of 43.6 ft, longer than those above; where only it is short a closer pattern is taken."""
    run, interval = at_45(1, 1)
    found = standoffs(run, place(run, (interval,)))
    weight = 47 - K * 10 * math.pi / 4 * (9.625**2 - 8.681**2)
    assert found.side_lbf[0] == pytest.approx(weight * 43.6 * math.sin(math.pi / 4), rel=1e-6)
    assert found.midway[0] < 67 < found.midway[1:].min()  # which policy asks
    assert spaced(run, interval, None) == replace(interval, number=2, joints=1)
    higher = replace(interval, base_md_ft=7500.0)  # what the shoe ends is then not of this run
    assert spaced(run, higher, None) == higher
    less = run_in(cased(stations=SLANT, policy={"standoff_percent": float(found.midway[0])}))
    assert spaced(less, interval, None) == interval


@pytest.mark.parametrize("kind", ["bow spring", "rigid"])
def test_more_centralizers_are_never_less_standoff(kind):
    before = -1.0
    for number, joints in PATTERNS:
        run, interval = at_45(number, joints, kind)
        found = standoffs(run, place(run, (interval,)))
        least = float(found.midway[1:].min())
        assert least >= before - 1e-6, (number, joints)
        before = least


def test_the_proposal_is_the_widest_pattern_that_keeps_what_is_asked():
    for asked in (40.0, 60.0, 72.0):
        document = cased(stations=SLANT, policy={"standoff_percent": asked})
        row, run = row_of(document), run_in(document)
        (interval,) = row.intervals
        assert row.least_standoff_percent >= asked
        place_ = PATTERNS.index((interval.number, interval.joints))
        kind = types_for(9.625, CATALOGUE, ())["bow spring"]
        wider = Interval("", interval.top_md_ft, interval.base_md_ft, kind, *PATTERNS[place_ - 1], None)
        found = standoffs(run, place(run, (wider,)))
        assert place_ == 0 or np.any(found.midway < found.asked)


def row_intervals(run, kind, pattern, top=1900.0, base=8000.0):
    return (Interval("", top, base, types_for(run.string.od_in, CATALOGUE, ())[kind], *pattern, None),)


def test_a_run_that_is_short_is_told_and_mended():
    runs = [{"id": "c1", "type": "bow spring", "top_md_ft": 1900.0, "base_md_ft": 8000.0, "number": 1, "joints": 1}]
    document = cased({"centralizers": runs}, stations=SLANT)
    (found,) = [f for f in told(document, "caution") if "standoff is" in plain(f.message)]
    (mend,) = found.remedies
    assert not [f for f in told(applied(document, mend.changes), "caution") if "standoff is" in plain(f.message)]
    run = run_in(document)
    spans = standoffs(run, place(run, row_intervals(run, "bow spring", (1, 1))))
    short = float(np.sum((spans.low_md_ft - spans.high_md_ft)[spans.midway < spans.asked]))
    assert 0 < short < float(np.sum(spans.low_md_ft - spans.high_md_ft))
    assert plain(found.message).endswith(f" {short:,.0f} ft of hole are short.")
    value = row_of(document).least_standoff_percent
    for asked, short in ((value - 1e-6, False), (value + 1e-6, True)):
        again = cased({"centralizers": runs}, stations=SLANT, policy={"standoff_percent": asked})
        assert bool([f for f in told(again, "caution") if "standoff is" in plain(f.message)]) == short


def test_pipe_above_the_highest_centralizer_lies_on_the_wall():
    runs = [{"id": "c1", "type": "bow spring", "top_md_ft": 3000.0, "base_md_ft": 8000.0, "number": 4, "joints": 1}]
    document = cased({"centralizers": runs}, stations=SLANT)
    (found,) = [f for f in told(document, "caution") if "standoff is" in plain(f.message)]
    assert "Between 2,000 ft and 3,0" in plain(found.message)
    assert row_of(document).least_standoff_percent == 0


def bow_and_blades(blade_in):
    """One a joint: bows below 5,000 ft, rigid ones above."""
    run, below = at_45(1, 1)
    blades = replace(below.kind, type="blades", kind="rigid", blade_in=blade_in)
    pair = (replace(below, top_md_ft=5000.0), replace(below, base_md_ft=5000.0, kind=blades))
    return standoffs(run, place(run, pair))


def test_between_two_kinds_the_weaker_end_holds():
    """Blades of 12.0 in leave 1.1875 in of 1.3125: 90.5 %; the bow at the other end of the span that joins them leaves 76.7 %."""
    found = bow_and_blades(12.0)
    joining = int(np.flatnonzero((found.low_md_ft > 5000) & (found.high_md_ft < 5000))[0])
    assert found.at_bow[joining] == pytest.approx(76.7, abs=0.05)
    assert found.at_bow[joining + 1] == pytest.approx(100 * 1.1875 / 1.3125, rel=1e-9)


def test_blades_wider_than_the_hole_hold_no_more_than_its_middle():
    assert bow_and_blades(12.6).at_bow.max() == 100.0


def test_pup_joints_carry_no_centralizers():
    rows = measured(*[41.0] * 198)
    rows[20]["kind"] = "pup joint"
    run = run_in(cased({"joints": rows}, stations=SLANT))
    placed = place(run, row_intervals(run, "bow spring", (1, 1)))
    low, high = run.tally.bottom_ft[20], run.tally.top_ft[20]
    assert not np.any((placed.up_ft > low) & (placed.up_ft < high))
    assert np.any((placed.up_ft > high) & (placed.up_ft < high + 41))


def test_standoff_is_asked_behind_cement_alone():
    """Cemented to 5,000 ft under a shoe at 2,000 ft: the run begins a joint above the cement."""
    (interval,) = row_of(cased(stations=SLANT, string={"cement": {"top_md_ft": 5000.0}})).intervals
    assert interval.top_md_ft == pytest.approx(4960.0, abs=1.0)


def test_a_zone_may_ask_for_more():
    zone = {"name": "Pay", "top_tvd_ft": 5000.0, "base_tvd_ft": 5200.0, "rock": "sand", "standoff_percent": 90.0}
    row = row_of(cased(stations=SLANT, ground__zones=[zone]))
    assert len(row.intervals) == 3
    patterns = [PATTERNS.index((i.number, i.joints)) for i in row.intervals]
    assert patterns[1] > patterns[0]


OWN = {"name": "Slim", "kind": "bow spring", "od_in": 9.625}


@pytest.mark.parametrize(
    ("row", "own", "severity", "words"),
    [
        ({"type": "bow spring"}, [], None, "centralizer"),
        ({"type": "Slim"}, [], "caution", "No centralizer"),
        ({"type": "Slim"}, [OWN], "unknown", "restoring force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0}], None, "restoring force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0}], "unknown", "running force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0, "running_lbf": 300.0}], None, "running force"),
        ({"type": "Slim"}, [OWN | {"od_in": 7.0, "restoring_lbf": 2000.0}], "caution", "No centralizer"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid"}], "unknown", "blade OD"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid", "blade_in": 12.25}], None, "blades"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid", "blade_in": 12.26}], "stop", "blades"),
        ({"base_md_ft": 2000.0}, [], "caution", "ends above"),
    ],
)
def test_centralizers_that_cannot_be_are_told(row, own, severity, words):
    given = {"id": "c1", "type": "bow spring", "top_md_ft": 2000.0, "base_md_ft": 8000.0, **row}
    found = [f for f in told(cased({"centralizers": [given]}, centralizers=own)) if words in plain(f.message)]
    assert sorted({f.severity for f in found}) == ([severity] if severity else [])


def test_a_rigid_centralizer_passes_the_casing_above():
    """Drift of 13 3/8 in 54.5 lb/ft is 12.459 in: blades of that pass, and are too wide for the 12 1/4 in hole alone."""
    given = {"id": "c1", "type": "Slim", "top_md_ft": 2000.0, "base_md_ft": 8000.0}
    for blade, words in ((12.4, ["hole"]), (12.6, ["drift of the casing above", "hole"])):
        own = [OWN | {"kind": "rigid", "blade_in": blade}]
        found = [plain(f.message) for f in told(cased({"centralizers": [given]}, centralizers=own), "stop")]
        assert [
            w for w in ("drift of the casing above", "hole") if any(f"the {w} is" in text for text in found)
        ] == words


SITE = cased()["site"]
SANDS = [
    {"name": "Upper", "top_tvd_ft": 3000.0, "base_tvd_ft": 3100.0, "rock": "sand", "permeable": True},
    {"name": "Tight", "top_tvd_ft": 4000.0, "base_tvd_ft": 5000.0, "rock": "shale", "permeable": False},
    {"name": "Lower", "top_tvd_ft": 6000.0, "base_tvd_ft": 6400.0, "rock": "sand", "permeable": True},
]


def test_scratchers_by_hand():
    """50 ft of cover around 100 and 400 ft: 200 and 500 ft. Reciprocated by 20 ft: 11 and 26; rotated every 5 ft: 41 and 101."""
    document = cased({"scratchers": True}, ground__zones=SANDS)
    assert row_of(document).scratchers == 37
    assert row_of(cased({"scratchers": True, "moved": "rotated"}, ground__zones=SANDS)).scratchers == 142
    still = cased({"scratchers": True, "moved": "held still"}, ground__zones=SANDS)
    assert row_of(still).scratchers == 0
    assert [f.place for f in told(still, "caution")] == ["/strings/2/running/moved"]
    assert row_of(cased(ground__zones=SANDS)).scratchers is None


def sand(name, top, base):
    return {"name": name, "top_tvd_ft": top, "base_tvd_ft": base, "rock": "sand", "permeable": True}


@pytest.mark.parametrize(
    ("zones", "count"),
    [
        ([(3000, 3100), (3160, 3260)], 19),  # 50 ft of cover each: one stretch of 360 ft
        ([(3000, 3100), (3210, 3310)], 22),  # two of 200 ft
        ([(2020, 2100)], 9),  # from the shoe above, 2,000 ft, to 2,150 ft
        ([(7900, 7990)], 9),  # from 7,850 ft to the shoe
    ],
)
def test_stretches_to_be_scratched_meet_and_end_at_the_shoes(zones, count):
    sands = [sand(f"Z{k}", *ends) for k, ends in enumerate(zones)]
    assert row_of(cased({"scratchers": True}, ground__zones=sands)).scratchers == count


def test_sticking_counts_what_stands_in_open_hole():
    """A sand of 1,500 to 3,000 ft under a shoe at 2,000 ft: 1,000 ft, 1 ppg over at 3,000 ft."""
    (zone,) = row_of(cased(ground__zones=[sand("Z", 1500.0, 3000.0)])).sticking
    assert zone.force_lbf == pytest.approx(0.2 * K * 3000 * 12 * 1000 * 2, rel=1e-9)


def test_the_greatest_overbalance_may_lie_between_the_ends_of_a_zone():
    """Pore pressure from 8.1875 ppg by 0.3125 ppg per 1,000 ft: (11.2 − p)·z is greatest at 4,820 ft, 1.50625 ppg over."""
    pore = points(*((z, 8.1875 + 0.0003125 * z) for z in (30.0, 8000.0)))
    document = cased(ground__zones=[sand("Z", 3000.0, 7000.0)], ground__pore=pore, string={"mud_ppg": 11.2})
    (zone,) = row_of(document).sticking
    assert zone.overbalance_psi == pytest.approx(K * 4820 * 1.50625, rel=1e-9)


def test_the_overpull_is_asked_on_both_sides_of_what_sticks_and_centralizers_over_the_whole_zone():
    far = [{"id": "c1", "type": "bow spring", "top_md_ft": 7000.0, "base_md_ft": 8000.0}]
    zones = [sand("Z", 3000.0, 3100.0)]
    row = row_of(cased({"centralizers": far}, ground__zones=zones))
    for more, told_ in ((1.0, []), (-1.0, ["caution"])):
        limit = row.hook_up_lbf + row.sticking[0].force_lbf + more
        document = cased({"centralizers": far}, ground__zones=zones, site=SITE | {"hook_load_limit_lbf": limit})
        assert [f.severity for f in told(document) if "sticks" in plain(f.message)] == told_
    for top, whole in ((2900.0, True), (3060.0, False)):
        near = [far[0] | {"top_md_ft": top}]
        assert row_of(cased({"centralizers": near}, ground__zones=zones)).sticking[0].centralized == whole


def test_sticking_by_hand_and_against_the_overpull():
    """10 ppg over pore 9.0 at 6,400 ft: 332.5 psi; 0.2·332.5·12·400·2 = 638,338 lbf. The rig leaves less than that."""
    far = [{"id": "c1", "type": "bow spring", "top_md_ft": 7000.0, "base_md_ft": 8000.0}]
    site = {**cased()["site"], "hook_load_limit_lbf": 600_000.0}
    document = cased({"centralizers": far}, ground__zones=SANDS, site=site)
    upper, lower = row_of(document).sticking
    assert lower.overbalance_psi == pytest.approx(K * 6400, rel=1e-9)
    assert lower.force_lbf == pytest.approx(0.2 * K * 6400 * 12 * 400 * 2, rel=1e-9)
    assert (upper.zone, lower.centralized) == ("Upper", False)
    left = row_of(document).overpull_left_lbf
    stuck = [plain(f.message).split(",")[0] for f in told(document, "caution") if "sticks" in plain(f.message)]
    assert stuck == [f"Held still across {z.zone}" for z in (upper, lower) if z.force_lbf > left]
    assert stuck == ["Held still across Lower"]
    near = [{"id": "c1", "type": "bow spring", "top_md_ft": 2900.0, "base_md_ft": 8000.0}]
    assert not [
        f for f in told(cased({"centralizers": near}, ground__zones=SANDS, site=site)) if "sticks" in plain(f.message)
    ]


def test_sticking_without_pore_pressure_is_unknown():
    document = cased(ground__zones=SANDS, ground__pore=points((30, 9), (5000, 9)))
    assert "/ground/zones/2/name" in [f.place for f in told(document, "unknown")]


@pytest.mark.parametrize("seed", range(many(5)))
def test_rock_of_a_made_up_hole_is_that_of_a_scan(seed):
    """Friction that each depth bears: fracture less margin less mud, the lower side of a step."""
    chance = random.Random(seed)
    tops = [30.0, *sorted(chance.uniform(2100, 7900) for _ in range(4)), 8000.0]
    rock = points(*[(z, chance.uniform(11, 15)) for z in tops])
    run = run_in(cased(ground__fracture=rock))
    found = rock_of(run)
    z = np.array([p["tvd_ft"] for p in rock])
    f = np.interp(found.md_ft, z, [p["emw_ppg"] for p in rock])
    assert found.room_psi == pytest.approx(K * found.md_ft * (f - 0.3 - 10.0), abs=1e-6)
