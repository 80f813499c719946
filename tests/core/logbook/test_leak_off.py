"""The break of a leak-off test on curves made by hand, each with the reading at which it was made to break."""

import pytest

from knollstack.core.document.log import PumpedPoint
from knollstack.core.logbook.leak_off import break_of
from tests.core.logbook.log import SURFACE, drilled, entry, facts
from tests.helpers import demo

CLEAN = [(0.5 * i, 100.0 * i) for i in range(9)] + [(4.5, 860.0), (5.0, 900.0), (5.5, 925.0)]
"""100 psi each half barrel to 800 psi; then bent."""
TO_THE_END = [(0.25 * i, 75.0 * i) for i in range(11)]
"""An integrity test: the line goes on to 750 psi, where the pump was stopped."""
WITH_AIR = [(0.0, 0.0), (0.5, 12.0), (1.0, 45.0), (1.5, 110.0)] + [(2.0 + 0.5 * i, 200.0 + 90.0 * i) for i in range(7)] + [
    (5.5, 790.0), (6.0, 818.0), (6.5, 836.0)
]  # fmt: skip
"""Air in the lines first; 90 psi each half barrel from 200 to 740 psi; then bent."""
READ = (3.0, 84.0, 157.0, 243.0, 317.0, 404.0, 478.0, 563.0, 638.0, 676.0, 706.0, 731.0)
NOISY = [(0.5 * i, psi) for i, psi in enumerate(READ)]
"""80 psi each half barrel, read within 4 psi, to 638 psi."""
BROKEN_DOWN = [(0.5 * i, 120.0 * i) for i in range(8)] + [(4.0, 930.0), (4.5, 700.0), (5.0, 650.0)]
"""In a line to 840 psi, a last rise off it, then the rock breaks down."""
CURVES = {
    "clean": (CLEAN, "leak-off", 800.0, 4.0),
    "to the end": (TO_THE_END, "integrity", 750.0, 2.5),
    "with air": (WITH_AIR, "leak-off", 740.0, 5.0),
    "noisy": (NOISY, "leak-off", 638.0, 4.0),
    "broken down": (BROKEN_DOWN, "leak-off", 840.0, 3.5),
}


def pumped(pairs):
    return [PumpedPoint(volume_bbl=v, pressure_psi=p) for v, p in pairs]


@pytest.mark.parametrize("name", CURVES)
def test_the_break_is_where_the_curve_was_made_to_break(name):
    pairs, kind, psi, bbl = CURVES[name]
    found = break_of(pumped(pairs))
    assert (found.kind, found.pressure_psi, found.volume_bbl) == (kind, psi, bbl)


@pytest.mark.parametrize("scale", [0.2, 1.0, 4.0])
@pytest.mark.parametrize("at", [3, 5, 9, 12])
@pytest.mark.parametrize("bent", [0.2, 0.5, 0.8])
def test_a_made_curve_breaks_at_its_reading_wherever_that_stands(scale, at, bent):
    """Slopes of a fifth to four fifths after the break, which may be anywhere but at the first readings."""
    pressures = [100.0 * min(i, at) + bent * 100.0 * max(0, i - at) for i in range(at + 5)]
    found = break_of(pumped([(0.25 * i, scale * p) for i, p in enumerate(pressures)]))
    assert (found.kind, found.pressure_psi) == ("leak-off", pytest.approx(scale * 100.0 * at))


def test_a_break_at_the_last_reading_but_one_is_a_break():
    found = break_of(pumped([(0.5 * i, 100.0 * i) for i in range(8)] + [(4.0, 720.0)]))
    assert (found.kind, found.pressure_psi) == ("leak-off", 700.0)


def test_one_reading_beside_the_line_is_no_break():
    pairs = [list(p) for p in CLEAN]
    pairs[4][1] -= 60.0
    assert break_of(pumped(pairs)).pressure_psi == 800.0


@pytest.mark.parametrize("pairs", [[], [(0, 0), (1, 100)], [(0, 500), (1, 300), (2, 100)], [(0, 5), (1, 5), (2, 5)]])
def test_too_few_points_or_none_that_rise_show_nothing(pairs):
    assert break_of(pumped(pairs)) is None


def lot(**values):
    return entry("leak-off test", 13, string="s2", mud_ppg=9.0, **values)


def points(pairs):
    return [{"volume_bbl": v, "pressure_psi": p} for v, p in pairs]


@pytest.mark.parametrize(
    ("values", "kind", "emw"),
    [
        ({"points": points(CLEAN)}, "leak-off", 9.0 + 800 / (12 / 231 * 2000)),
        ({"points": points(TO_THE_END)}, "integrity", 9.0 + 750 / (12 / 231 * 2000)),
        ({"points": points(CLEAN), "leak_off_psi": 700.0}, "leak-off", 9.0 + 700 / (12 / 231 * 2000)),
        ({"points": points(TO_THE_END), "test": "leak-off"}, "leak-off", 9.0 + 750 / (12 / 231 * 2000)),
        ({"leak_off_psi": 600.0}, "leak-off", 9.0 + 600 / (12 / 231 * 2000)),
        ({"emw_ppg": 13.1}, "integrity", 13.1),
        ({"emw_ppg": 13.1, "test": "leak-off"}, "leak-off", 13.1),
        ({"leak_off_psi": 600.0, "md_ft": 2500.0}, "leak-off", 9.0 + 600 / (12 / 231 * 2500)),
    ],
)
def test_the_strength_goes_into_the_ground_with_its_source(values, kind, emw):
    """At the shoe of the plan, 2,000 ft, unless the test gives a depth of its own; mud 9.0 ppg."""
    made = drilled(lot(**values))
    (row,) = facts(made)["/ground/leak_off_tests"]
    assert row["kind"] == kind
    assert row["emw_ppg"] == pytest.approx(emw)
    assert row["tvd_ft"] == values.get("md_ft", 2000.0)
    assert "log entry 1, 2027-03-13 06:00" in row["source"]


def test_a_test_stands_in_place_of_one_typed_at_its_depth_and_beside_others():
    """13 3/8 in landed at 1,985 ft; within a foot it is the same place."""
    document = demo()
    document["ground"]["leak_off_tests"] = [{"tvd_ft": d, "emw_ppg": 12.0} for d in (1985.4, 1986.2, 6000.0)]
    made = facts(drilled(SURFACE, lot(emw_ppg=13.1), document=document))["/ground/leak_off_tests"]
    assert [(r["tvd_ft"], r["emw_ppg"]) for r in made] == [(1985.0, 13.1), (1986.2, 12.0), (6000.0, 12.0)]
