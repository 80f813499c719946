"""Standoff of the string in its hole: by hand at 45 degrees, by pattern, by what is asked."""

import math
from dataclasses import replace

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.running.centralizing import PATTERNS, Interval, types_for
from knollstack.core.running.spacing import placing, spaced
from knollstack.core.running.standoff import place, standoffs
from tests.core.running.wells import cased, measured, row_of, run_in, told
from tests.helpers import CATALOGUE, applied

K = 12 / 231
SLANT = [(0, 0, 0), (1000, 0, 0), (2500, 45, 0), (9000, 45, 0)]


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
    assert spaced(run, interval, None).interval == replace(interval, number=2, joints=1)
    higher = replace(interval, base_md_ft=7500.0)  # what the shoe ends is then not of this run
    assert spaced(run, higher, None).interval == higher
    less = run_in(cased(stations=SLANT, policy={"standoff_percent": float(found.midway[0])}))
    assert spaced(less, interval, None).interval == interval


@pytest.mark.parametrize("zones", [(), ((5000.0, 5400.0, 80.0),)], ids=["one run", "three runs"])
def test_what_was_found_while_the_pattern_was_sought_is_that_of_the_whole(zones):
    """The runs that are proposed, span by span: sought alone where there is one, else worked anew with all of them."""
    rows = [
        {"name": "Z", "top_tvd_ft": top, "base_tvd_ft": base, "standoff_percent": asked} for top, base, asked in zones
    ]
    run = run_in(cased(stations=SLANT, string={"cement": {"top_md_ft": 2500.0}}, ground__zones=rows))
    made = placing(run, CATALOGUE, ())
    plain_ = standoffs(run, made.placed)
    assert len(made.intervals) == 1 + 2 * len(zones)
    for name in ("low_md_ft", "high_md_ft", "at_bow", "midway", "asked", "side_lbf", "tension_lbf"):
        assert getattr(made.between, name) == pytest.approx(getattr(plain_, name), abs=1e-9), name


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
