"""How fast a string may be lowered, and what breaks the gels after it."""

import random

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.running.speed import breaking, rock_of, speeds
from tests.core.running.wells import cased, row_of, run_in, told
from tests.helpers import many, points

K = 12 / 231


def surge_psi(run, ft_min, shoe, depth):
    """Bingham friction past the closed pipe from the rotary down to depths, no deeper than the shoe; 30 and 50 on the dial."""
    total, reached = np.zeros(len(depth)), np.minimum(depth, shoe)
    for top, base, bore in run.outers:
        length = np.maximum(0.0, np.minimum(base, reached) - top)
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
            return np.all(surge_psi(run, ft_min, shoe, depths) <= K * depths * (fracture - 0.3 - 10.0) + 1e-6)

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


@pytest.mark.parametrize("seed", range(many(3)))
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
