"""The conductor in soft clay: capacity by hand and by a plain sum, set-up, what it carries, and what it no longer does."""

import math

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.document.sea import SoilPoint
from knollstack.core.sea.conductor import standing_of
from knollstack.core.sea.soil import soil_of
from tests.core.sea.wells import deep
from tests.helpers import applied, find, run

EVEN = [
    {"below_mudline_ft": 0.0, "strength_psf": 0.0, "submerged_pcf": 40.0},
    {"below_mudline_ft": 300.0, "strength_psf": 2400.0, "submerged_pcf": 40.0},
]


def conductor(document):
    return run(document).sea.conductor


def test_a_jetted_conductor_by_hand():
    """Strength of 8 psf and stress of 40 psf more each foot: ψ = 0.2, α = 0.5/√0.2 = 1.118, at most 1.

    So friction is the strength, 4 psf × 285 ft = 1,140 psf in the mean, on 285 ft of 30 in: 2.55 million lbf in the long run.
    From 45,000 lbf at once, 6 % of the rest after six hours: 195,349 lbf.
    """
    found = conductor(deep(sea__soil=EVEN))
    long_run = 1140 * math.pi * 2.5 * 285
    assert found.friction_psf == pytest.approx(1140, rel=1e-9)
    assert found.long_run_lbf == pytest.approx(long_run, rel=1e-9)
    assert found.rows[0].capacity_lbf == pytest.approx(45_000 + 0.06 * (long_run - 45_000), rel=1e-9)
    weight = 157.53 * 295 * (1 - 8.55 / 65.5)
    assert found.weight_lbf == pytest.approx(weight, rel=2e-3)
    assert found.rows[0].load_lbf == pytest.approx(found.weight_lbf + 14_000 + 11_000)
    held = conductor(deep(sea__soil=EVEN, sea__conductor__held_lbf=50_000.0)).rows[1].load_lbf
    assert held == pytest.approx(found.rows[1].load_lbf - 50_000)
    casing = 169.0 * 2465 * (1 - 8.55 / 65.5)
    assert found.rows[1].load_lbf == pytest.approx(found.rows[0].load_lbf + 13_000 + casing, rel=0.01)


@pytest.mark.parametrize("depth", [0.5, 40.0, 60.0, 111.3, 300.0])
def test_friction_is_that_of_a_sum_slice_by_slice(depth):
    points = [(0.0, 40.0, 26.0), (60.0, 420.0, 30.0), (160.0, 1350.0, 36.0), (320.0, 3000.0, 20.0)]
    soil = soil_of(tuple(SoilPoint(below_mudline_ft=z, strength_psf=s, submerged_pcf=u) for z, s, u in points))
    z, s, u = (np.array(column) for column in zip(*points, strict=True))
    count = max(int(depth * 12), 5_000)
    stress = total = 0.0
    for k in range(count):
        at = (k + 0.5) * depth / count
        gained = float(np.interp(at, z, u)) * depth / count
        strength, here = float(np.interp(at, z, s)), stress + gained / 2
        ratio = strength / here
        total += min(0.5 * ratio ** (-0.5 if ratio <= 1 else -0.25), 1.0) * strength / count
        stress += gained
    assert soil.mean_friction_psf(depth) == pytest.approx(total, rel=4e-3)
    assert soil.mean_friction_psf(320.5) is None


def test_strength_falls_to_nothing_over_the_first_point():
    below = soil_of((SoilPoint(below_mudline_ft=100.0, strength_psf=800.0, submerged_pcf=40.0),))
    assert list(below.strength_at(np.array([0.0, 50.0, 100.0]))) == [0.0, 400.0, 800.0]
    assert soil_of((SoilPoint(below_mudline_ft=0.0, strength_psf=800.0, submerged_pcf=40.0),)) is None


def test_soil_out_of_order_is_a_fault_at_its_place():
    rows = [EVEN[1], EVEN[0]]
    with pytest.raises(FaultyDesign) as caught:
        run(deep(sea__soil=rows))
    (fault,) = caught.value.faults
    assert (fault.path, fault.value) == ("/sea/soil/1/below_mudline_ft", "0")
    assert "below the point before it (300 ft)" in fault.expected


def test_the_length_of_the_assembly_gives_the_space_out():
    """292.7 ft from the running tool to the bit; the conductor stands 285 ft in the soil and 7 ft out of it."""
    assert conductor(deep()).bit_out_in == pytest.approx(12 * 0.7)
    assert conductor(deep(sea__conductor__bit_out_in=5.0)).bit_out_in == 5.0, "what is typed is nearer to it"


def said(document, severity=None):
    return [f for f in find(run(document), "sea", severity) if f.place.startswith(("/sea/conductor", "/sea/soil"))]


def test_jetted_short_it_no_longer_carries_the_second_string():
    assert said(deep()) == []
    short = deep(strings__0__shoe_md_ft=4720.0 - 30.0, sea__conductor__bit_out_in=8.0)
    (found,) = said(short)
    assert found.severity == "caution"
    assert "the soil bears" in plain(found.message)
    for remedy in found.remedies:
        assert said(applied(short, remedy.changes)) == [], plain(remedy.label)
    assert [plain(r.label).split()[0] for r in found.remedies] == ["Land", "Hold", "Set"]
    (found,) = said(deep(strings__0__shoe_md_ft=4720.0 - 80.0, sea__conductor__bit_out_in=8.0))
    assert (found.severity, plain(found.message)[:9]) == ("stop", "It sinks:")


def test_the_factor_of_policy_is_held_on_both_sides():
    row = conductor(deep()).rows[1]
    for factor, told in ((row.factor - 1e-6, False), (row.factor + 1e-3, True)):
        assert bool(said(deep(policy__sea={"conductor_factor": factor}))) is told


def test_it_grows_with_time_and_never_falls():
    found = conductor(deep())
    assert all(b >= a for a, b in zip(found.capacity_lbf, found.capacity_lbf[1:], strict=False))
    heavy = conductor(deep(sea__conductor__last_bit_weight_lbf=4_000_000.0))
    assert set(heavy.capacity_lbf) == {4_000_000.0}, "what bore it at once bears it still"


def test_every_load_up_to_the_long_run_is_borne_after_some_hours():
    program = run(deep()).program
    standing = standing_of(program, program.strings[0])
    for needed in np.linspace(45_000.0, standing.long_run_lbf, 60):
        assert standing.capacity_lbf(standing.hours_for(needed)) == pytest.approx(needed)
    assert standing.hours_for(20_000.0) == 0.0
    assert standing.hours_for(standing.long_run_lbf + 1) is None


def test_hours_until_it_stands_are_those_at_which_it_does():
    hours = conductor(deep(sea__conductor__last_bit_weight_lbf=20_000.0)).soak_needed_hours
    document = deep(sea__conductor__last_bit_weight_lbf=20_000.0, sea__conductor__soak_hours=hours)
    assert conductor(document).rows[0].factor == pytest.approx(1.2)


@pytest.mark.parametrize(
    ("values", "place"),
    [
        ({"sea__soil": []}, "/sea/soil"),
        ({"strings__0__shoe_md_ft": 4435.0 + 321.0}, "/sea/soil"),
        ({"sea__conductor__last_bit_weight_lbf": None}, "/sea/conductor/last_bit_weight_lbf"),
        ({"sea__conductor__assembly_ft": None}, "/sea/conductor/bit_out_in"),
    ],
)
def test_what_is_not_given_is_unknown(values, place):
    assert [f.place for f in said(deep(**values), "unknown")] == [place]


@pytest.mark.parametrize(("key", "within", "beyond"), [("bit_out_in", 12.0, 12.1), ("inclination_deg", 1.0, 1.1)])
def test_how_it_stands_is_held_to_policy(key, within, beyond):
    assert said(deep(**{f"sea__conductor__{key}": within})) == []
    assert [f.severity for f in said(deep(**{f"sea__conductor__{key}": beyond}))] == ["caution"]


def test_hammered_it_bears_a_share_at_once_and_cemented_all():
    driven = conductor(deep(strings__0__run="driven"))
    assert driven.immediate_lbf == pytest.approx(0.35 * driven.long_run_lbf)
    cemented = conductor(deep(strings__0__run="cased", strings__0__bit_in=36.0))
    assert cemented.rows[0].capacity_lbf == cemented.long_run_lbf
    blows = deep(strings__0__run="driven", sea__conductor__blows_ft=299)
    assert said(blows) == []
    assert [f.severity for f in said(deep(strings__0__run="driven", sea__conductor__blows_ft=300))] == ["note"]
