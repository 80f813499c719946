"""Loads of pipe whose wellhead stands on the sea floor: by hand, and on land where the equations coincide."""

import numpy as np
import pytest

from knollstack.core.pipe.detail import loads_of
from knollstack.core.pipe.heat import Heat, produced
from knollstack.core.pipe.surface import shut_in_surface_psi
from tests.core.sea.wells import deep
from tests.helpers import demo, framed, put, run

PPG = 12 / 231
MUDLINE, WATER = 4435.0, 4350.0
"""Rotary 85 ft over the sea."""


def case(document, index, name):
    """TVD of the nodes, and pressure inside and outside there."""
    _, _, frame = framed(document, index)
    k = next(k for k, found in enumerate(frame.cases) if found.name == name)
    return frame.tvd_ft, frame.inside_psi[k], frame.outside_psi[k]


def at(tvd, values, depth):
    return float(np.interp(depth, tvd, values))


@pytest.mark.parametrize(
    ("school", "ppg"), [("base fluid", 8.33), ("mud", 11.9), ("mix water", 8.33)], ids=["base", "mud", "mix water"]
)
def test_sea_water_stands_over_what_is_behind_the_casing(school, ppg):
    """The riser does not stay: the sea presses on the mudline, and from there down the fluid of the school."""
    document = deep(policy__pipe={"burst_backup": school, "base_fluid_ppg": 8.33, "mix_water_ppg": 9.0})
    tvd, _, outside = case(document, 3, "pressure test")
    assert at(tvd, outside, MUDLINE) == pytest.approx(PPG * 8.55 * WATER, abs=0.5)
    assert at(tvd, outside, 9000.0) == pytest.approx(PPG * (8.55 * WATER + ppg * (9000.0 - MUDLINE)), abs=0.5)
    if school == "mix water":  # under the top of cement at 10,400 ft
        column = 8.55 * WATER + 8.33 * (10_400.0 - MUDLINE) + 9.0 * 600.0
        assert at(tvd, outside, 11_000.0) == pytest.approx(PPG * column, abs=0.5)


def test_a_test_is_that_at_the_wellhead_and_is_read_at_the_rig():
    """5,000 psi on the sea floor with 11.9 ppg up to the rig is 2,258 psi on its gauge; under 2,742 psi it reads none."""
    document = deep(strings__3__test_psi=5000.0)
    tvd, inside, _ = case(document, 3, "pressure test")
    assert at(tvd, inside, MUDLINE) == pytest.approx(5000.0)
    assert at(tvd, inside, 10_000.0) == pytest.approx(5000.0 + PPG * 11.9 * (10_000.0 - MUDLINE), abs=0.5)
    row = run(document).pipe.strings[3]
    assert (row.test_psi, row.test_rig_psi) == (5000.0, pytest.approx(5000.0 - PPG * 11.9 * MUDLINE))
    for psi, read in ((2741.0, 0.0), (2745.0, 2745.0 - PPG * 11.9 * MUDLINE)):
        assert run(deep(strings__3__test_psi=psi)).pipe.strings[3].test_rig_psi == pytest.approx(read, abs=1e-6)


@pytest.mark.parametrize("share", [1.0, 0.5])
def test_by_policy_the_test_is_a_share_of_what_reaches_the_wellhead(share):
    document = deep(policy__pipe={"test_share": share, "burst_method": "gas to surface"})
    tvd, gas, _ = case(document, 3, "gas to surface")
    tested = run(document).pipe.strings[3].test_psi
    assert tested == pytest.approx(share * at(tvd, gas, MUDLINE), rel=1e-6)
    assert at(*case(document, 3, "pressure test")[:2], MUDLINE) == pytest.approx(tested)


def test_a_tubing_leak_acts_from_the_tree_down():
    """Gas of the reservoir up to the tree on the sea floor, on packer fluid that reaches up to it, and no further."""
    document = deep(policy__pipe={"packer_fluid_ppg": 9.0, "gas_psi_ft": 0.1})
    program, string, _ = framed(document, 4)
    tvd, inside, _ = case(document, 4, "tubing leak")
    top = at(tvd, inside, MUDLINE)
    assert top == pytest.approx(shut_in_surface_psi(program.well, string) + 0.1 * MUDLINE), "less gas above it"
    assert at(tvd, inside, 9000.0) == pytest.approx(top + PPG * 9.0 * (9000.0 - MUDLINE), abs=0.5)
    assert run(document).pipe.strings[4].test_psi == pytest.approx(top * program.well.policy.pipe.test_share)
    heavier = deep(policy__pipe={"packer_fluid_ppg": 12.0, "gas_psi_ft": 0.1})
    assert at(*case(heavier, 4, "tubing leak")[:2], MUDLINE) == pytest.approx(top), "the column adds nothing over it"


def test_packer_fluid_reaches_up_to_the_tree():
    document = deep(completion__packer_md_ft=12_000.0, policy__pipe={"packer_fluid_ppg": 9.0})
    tvd, above, _ = case(document, 4, "drawn down below the packer")
    assert at(tvd, above, 10_000.0) == pytest.approx(PPG * 9.0 * (10_000.0 - MUDLINE), abs=0.5)
    tvd, below, _ = case(document, 4, "evacuated above the packer")
    assert at(tvd, below, 12_600.0) == pytest.approx(PPG * 9.0 * (12_600.0 - MUDLINE), abs=0.5)


def test_a_treatment_acts_from_the_wellhead_down():
    document = deep(completion__treating_psi=6000.0, policy__pipe={"packer_fluid_ppg": 9.0})
    tvd, inside, _ = case(document, 4, "stimulation")
    assert at(tvd, inside, MUDLINE) == pytest.approx(6000.0)
    assert at(tvd, inside, 10_000.0) == pytest.approx(6000.0 + PPG * 9.0 * (10_000.0 - MUDLINE), abs=0.5)


def test_a_test_on_green_cement_is_put_on_at_the_rig():
    """What the casing is tested to at the wellhead, less the column of what displaced the cement."""
    document = deep(strings__3__test_psi=5000.0, policy__pipe={"pressure_test": "in green cement"})
    found = run(document)
    fluid = found.program.strings[3].displacement_ppg
    assert found.cement.strings[3].stages[-1].test_psi == pytest.approx(5000.0 - PPG * fluid * MUDLINE)


def test_gas_over_mud_stands_on_a_share_of_the_casing_and_not_of_the_sea():
    document = deep(policy__pipe={"burst_method": "gas over mud", "gas_share": 0.5, "gas_psi_ft": 0.1})
    tvd, inside, _ = case(document, 2, "gas over mud")
    turn = MUDLINE + 0.5 * (10_700.0 - MUDLINE)
    assert at(tvd, inside, turn) - at(tvd, inside, turn - 1000.0) == pytest.approx(100.0, abs=0.5)
    mud = PPG * 11.9 * 1000.0
    assert at(tvd, inside, turn + 1000.0) - at(tvd, inside, turn) == pytest.approx(mud, abs=0.5)


def test_what_was_run_without_a_riser_stands_in_the_sea():
    """The 20 in: sea water over its mud outside while it is drilled through."""
    document = deep(strings__1__mud_ppg=10.0)
    tvd, _, outside = case(document, 1, "lost returns")
    assert at(tvd, outside, 6000.0) == pytest.approx(PPG * (8.55 * WATER + 10.0 * (6000.0 - MUDLINE)), abs=0.5)
    tvd, _, outside = case(document, 2, "lost returns")
    assert at(tvd, outside, 6000.0) == pytest.approx(PPG * 10.2 * 6000.0, abs=0.5), "with the riser on, up to the rig"


def test_without_water_the_numbers_are_those_of_land():
    """The rotary at the ground, no water: strings after the riser see what they see on land."""
    land, sea = demo(), demo()
    for document in (land, sea):
        put(document, ["site", "rig_floor_ft"], 0.0)
    sea["site"] |= {"setting": "subsea", "water_depth_ft": 0.0, "surface_temperature_f": None}
    land["site"] |= {"surface_temperature_f": None}
    for index in (2, 3):
        names = [c.name for c in framed(land, index)[2].cases]
        assert {"pressure test", "run part empty"} <= set(names)
        for name in names:
            if name in [c.name for c in framed(sea, index)[2].cases]:
                for there, here in zip(case(sea, index, name), case(land, index, name), strict=True):
                    assert there == pytest.approx(here, abs=1e-6), name


def test_the_chart_of_cases_draws_what_heat_builds_up():
    found = run(deep(site__flowing_wellhead_f=160.0))
    cases = {c.name: c for c in loads_of(found.program, 3).cases}
    row = next(row for row in found.sea.annuli if row.string == 3)
    case, md = cases["annular pressure build-up"], loads_of(found.program, 3).md_ft
    outside = np.interp(9000.0, md, case.outside_psi)
    assert outside == pytest.approx(row.pressure_psi + PPG * 11.9 * 9000.0, abs=1.0)
    inside = next(c for c in loads_of(found.program, 4).cases if c.name.startswith("annular")).inside_psi
    fluid = found.program.well.policy.pipe.packer_fluid_ppg
    assert np.interp(9000.0, loads_of(found.program, 4).md_ft, inside) == pytest.approx(PPG * fluid * 9000.0, abs=1.0)
    kinds = [next(c.kind for c in loads_of(found.program, i).cases if c.name.startswith("annular")) for i in (1, 4)]
    assert kinds == ["burst", "collapse"], "the sea is outside the 20 in, the annulus inside the tie-back is bled off"


def test_heat_falls_from_string_to_string_in_that_case():
    """By policy 0.8 of what the producing string is heated by."""
    document = deep(site__flowing_wellhead_f=160.0)
    _, _, frame = framed(document, 3)
    k = next(k for k, found in enumerate(frame.cases) if found.name == "annular pressure build-up")
    program, string, _ = framed(document, 3)
    whole = produced(program.well, string, program.strings[-1])
    assert frame.cases[k].heat == Heat(pytest.approx(0.8 * whole.top_f), pytest.approx(0.8 * whole.bottom_f))
