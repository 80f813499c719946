"""Mud moving and at rest, gas columns, tests, paths and riserless holes: worked by hand, the arithmetic stated."""

import numpy as np
import pytest

from knollstack.core.base.formula import FormulaError
from knollstack.core.base.units import plain
from knollstack.core.depths.formulas import full_gas_shoe_pressure
from knollstack.core.depths.kick import kick_drawing
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.ground.estimates import Estimate, estimate_fracture
from knollstack.core.ground.formulas import gas_column_pore, riserless_pressure
from knollstack.core.ground.profiles import build_ground
from knollstack.core.mud.formulas import (
    annular_velocity,
    bingham,
    bingham_gradient,
    circulating_density,
    power_law,
    power_law_gradient,
    trip_velocity,
)
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import CATALOGUE, demo, find, points, policy, run, well


def test_annular_friction_by_hand():
    """8.5 in hole, 5 in pipe, 400 gal/min, readings 30 and 50, 10 ppg.

    v = 400/(2.448·(72.25 − 25)) = 400/115.668 = 3.4582 ft/s; PV = 20 cP, YP = 10 lbf/100 ft²; d = 3.5 in.
    Laminar: 20·3.4582/(1000·12.25) + 10/(200·3.5) = 0.005646 + 0.014286 = 0.019932 psi/ft.
    Turbulent: 10^0.75·3.4582^1.75·20^0.25/(1396·3.5^1.25) = 5.6234·8.7698·2.1147/(1396·4.7871) = 0.015605 psi/ft.
    """
    v = annular_velocity(400.0, 8.5, 5.0)
    assert v == pytest.approx(3.4582, abs=5e-5)
    assert bingham(30.0, 50.0) == {"plastic_cp": 20.0, "yield_lb_100ft2": 10.0}
    assert bingham_gradient(v, 20.0, 10.0, 10.0, 8.5, 5.0) == pytest.approx(0.019932, abs=1e-6)
    assert bingham_gradient(2 * v, 20.0, 10.0, 10.0, 8.5, 5.0) == pytest.approx(0.015605 * 2**1.75, rel=1e-4), (
        "turbulent"
    )
    # n = 3.322·log10(50/30) = 0.7370; K = 510·30/511^0.7370 = 154.4 eq. cP
    fitted = power_law(30.0, 50.0)
    assert fitted["flow_index"] == pytest.approx(0.7370, abs=5e-5)
    assert fitted["consistency_ecp"] == pytest.approx(154.4, abs=0.1)
    n, k = fitted["flow_index"], fitted["consistency_ecp"]
    by_hand = k * v**n * ((2 + 1 / n) / 0.0208) ** n / (144_000 * 3.5 ** (1 + n))
    assert power_law_gradient(v, n, k, 10.0, 8.5, 5.0) == pytest.approx(by_hand, rel=1e-12)
    # 10,000 ft of it: 199.3 psi over 0.0519481·10,000 adds 0.384 ppg
    assert circulating_density(10.0, 199.32, 10_000.0) == pytest.approx(10.3837, abs=1e-4)
    # 1.5 ft/s: 1.5·(0.45 + 25/47.25) = 1.4687 ft/s
    assert trip_velocity(1.5, 8.5, 5.0) == pytest.approx(1.46865, abs=1e-5)
    with pytest.raises(FormulaError, match="reading_600"):
        bingham(30.0, 20.0)
    with pytest.raises(FormulaError, match="outer_in"):
        annular_velocity(400.0, 5.0, 5.0)


def test_ecd_of_the_demo_is_the_sum_over_its_annulus():
    evaluation = run(demo())
    row, above = evaluation.mud.strings[3], evaluation.strings[2]
    readings = bingham(42.0, 68.0)
    total = 0.0
    for length, outer, inner in ((7000 - 30, above.id_in, 5.0), (5000, 8.5, 5.0), (600, 8.5, 6.5)):
        v = annular_velocity(420.0, outer, inner)
        total += length * bingham_gradient(v, readings["plastic_cp"], readings["yield_lb_100ft2"], 13.2, outer, inner)
    assert row.ecd_bottom_ppg == pytest.approx(13.2 + total / (12_600 * 12 / 231), rel=1e-9)
    assert row.swab_ppg < 13.2 < row.surge_ppg < row.ecd_bottom_ppg
    slow = demo()
    slow["policy"] = policy(trip_speed_ft_min=30.0)
    assert run(slow).mud.strings[3].surge_ppg < row.surge_ppg
    broken = demo()
    broken["strings"][3] |= {"reading_300": 400.0, "reading_600": 780.0, "flow_gpm": 900.0}
    assert any(
        plain(f.message).startswith("Circulating, the equivalent density is") for f in find(run(broken), "mud", "stop")
    )
    none = demo()
    none["strings"][3]["reading_600"] = None
    assert run(none).mud.strings[3].ecd_bottom_ppg is None


def test_weighting_up_and_thinning_balance():
    row = run(demo()).mud.strings[3]
    up = row.weight_up
    # 35·42·V·(13.2 − 9.2)/(35 − 13.2)
    assert up.solid_lb == pytest.approx(35 * 42 * up.volume_bbl * 4.0 / 21.8)
    mass = up.volume_bbl * 9.2 * 42 + up.solid_lb
    assert mass / ((up.volume_bbl + up.gain_bbl) * 42) == pytest.approx(13.2)
    thin = demo()
    thin["strings"][2]["mud_ppg"] = 14.0
    down = run(thin).mud.strings[3].weight_up
    mixed = (down.volume_bbl * 14.0 + down.base_bbl * 8.33) / (down.volume_bbl + down.base_bbl)
    assert mixed == pytest.approx(13.2)
    volumes = row.volumes
    assert volumes.total_bbl == pytest.approx(volumes.hole_bbl - volumes.string_displacement_bbl + volumes.pits_bbl)


def test_overbalance_zone_by_zone():
    zones = {z.name: z for z in run(demo()).mud.strings[3].zones}
    rook = zones["Rook sand"]
    # 8,600 ft: (13.2 − 8.8)·0.0519481·8,600 = 1,965.7 psi, of 2,000 in normal pore
    assert (round(rook.overbalance_psi, 1), rook.at_md_ft, rook.limit_psi) == (1965.7, 8600.0, 2000.0)
    assert zones["Sallow shale"].limit_psi is None, "no sticking where nothing flows"


def test_gas_column_pore():
    """Contact at 9,000 ft and 10 ppg: 4,675.3 psi. At 8,500 ft the gas has 4,675.3 − 50 = 4,625.3 psi: 10.475 ppg."""
    assert gas_column_pore(10.0, 9000.0, 8500.0, 0.1) == pytest.approx(10.4749, abs=1e-4)
    document = well(
        ground__pore=points((30, 9), (10_000, 9)),
        ground__zones=[
            {"name": "G", "top_tvd_ft": 8000.0, "base_tvd_ft": 9500.0, "fluid": "gas", "gas_contact_tvd_ft": 9000.0}
        ],
    )
    design = parse(document)
    pore = build_ground(design.ground).pore
    assert pore.one(8000.0) == pytest.approx(gas_column_pore(9.0, 9000.0, 8000.0, 0.1)), "the worse side of the step"
    assert pore.one(7999.9) == pytest.approx(9.0)
    assert pore.one(8555.0) == pytest.approx(gas_column_pore(9.0, 9000.0, 8555.0, 0.1), abs=1e-5)
    assert pore.one(9000.0) == pytest.approx(9.0)
    assert pore.one(9400.0) == pytest.approx(9.0)
    document["ground"]["zones"][0]["gas_contact_tvd_ft"] = 8000.0
    with pytest.raises(FaultyDesign, match="a contact below the zone's top"):
        parse(document)


def test_leak_off_replaces_and_integrity_only_raises():
    def fracture(emw, kind):
        tests = [{"tvd_ft": 5000.0, "emw_ppg": emw, "kind": kind}]
        return build_ground(parse(well(ground__leak_off_tests=tests)).ground).fracture.one(5000.0)

    assert fracture(13.2, "leak-off") == 13.2
    assert fracture(13.2, "integrity") == 14.0, "it only shows that the rock stands so much"
    assert fracture(14.6, "integrity") == 14.6


def test_estimated_fracture_is_exact_between_its_points_and_keeps_steps():
    document = well(
        ground__pore=points((30, 9), (5000, 9), (5000, 10), (10_000, 11)),
        ground__overburden=points((30, 16), (10_000, 19)),
    )
    rows = estimate_fracture(parse(document), Estimate("Eaton", 0.4, 0.7))
    assert [(p.tvd_ft, round(p.emw_ppg, 3)) for p in rows] == [
        (30.0, 13.667),
        (5000.0, 14.664),
        (5000.0, 14.997),
        (10_000.0, 16.333),
    ]
    # 5,000 ft: S = 16 + 3·4,970/9,970 = 17.4955; above the step 9 + 8.4955·0.4/0.6 = 14.664, below it 14.997
    with pytest.raises(FaultyDesign, match="fewer than two points"):
        estimate_fracture(parse(well()), Estimate("Eaton", 0.4, 0.7))


def test_full_gas_by_hand():
    """Pore 9 + 0.5 ppg at 10,000 ft: 4,935.1 psi; 4,000 ft of gas above it: 4,535.1 psi at 6,000 ft, 14.55 ppg."""
    assert full_gas_shoe_pressure(4935.065, 10_000.0, 6000.0, 0.1) == pytest.approx(4535.065)
    strings = [
        {"role": "conductor", "run": "driven", "shoe_md_ft": 200.0, "od_in": 20.0},
        {"role": "surface", "shoe_md_ft": 6000.0, "bit_in": 12.25, "od_in": 9.625, "mud_ppg": 9.4},
        {"role": "production", "shoe_md_ft": 10_000.0, "bit_in": 8.5, "od_in": 5.5, "mud_ppg": 9.4},
    ]
    evaluation = run(well(strings=strings, policy=policy(kick_criterion="full gas")))
    # the shoe stands 14·0.0519481·6,000 = 4,363.6 psi
    assert evaluation.depths.strings[1].kick.full_gas_margin_psi == pytest.approx(4363.636 - 4535.065, abs=0.01)
    said = [plain(f.message) for f in find(evaluation, "depths", "stop")]
    assert any("deficit at the shoe 171 psi" in s for s in said)


def test_greatest_intensity_is_that_at_which_the_asked_volume_just_stands():
    kick = run(demo()).depths.strings[2].kick
    laid = laid_out(parse(demo()), CATALOGUE)
    greatest = kick_drawing(laid.well, laid.strings[2], laid.strings[3]).greatest_intensity_ppg
    for intensity, ok in ((greatest, True), (greatest + 0.01, False)):
        document = demo()
        document["policy"] = policy(kick_intensity_ppg=round(intensity, 2))
        found = run(document).depths.strings[2].kick
        assert (found.tolerance_bbl >= found.required_bbl) is ok
    lossy = demo()
    lossy["site"]["choke_line_psi"] = 100.0
    assert run(lossy).depths.strings[2].kick.tolerance_bbl < kick.tolerance_bbl


def test_riserless_and_riser_margin_of_the_deep_water_demo():
    """4,350 ft of sea, 285 ft of 9 ppg mud: 0.0519481·(8.55·4,350 + 9·285) = 2,065.3 psi at 4,720 ft."""
    assert riserless_pressure(9.0, 4720.0, 85.0, 4350.0) == pytest.approx(2065.325, abs=0.001)
    document = parse(documents_by_name()["Merrow Deep 1"]).model_dump(mode="json")
    evaluation = run(document)
    rows = evaluation.mud.strings
    assert rows[1].riserless
    # 2,180 ft and 24.2 sweeps of 50 bbl: 25
    assert rows[1].sweep_bbl == 25 * 50.0
    last = rows[-1].riser
    # 15,300 ft: (12.5·15,300 − 8.55·4,350)/(15,300 − 85 − 4,350) = 14.179 ppg
    assert last.needed_ppg == pytest.approx((12.5 * 15_300 - 8.55 * 4350) / 10_865)
    messages = [plain(f.message) for f in find(evaluation, "mud", "caution")]
    assert sum("The riser margin cannot be held" in m for m in messages) == 2
    document["strings"][1]["mud_ppg"] = 22.0
    assert "With returns to the sea floor" in plain(find(run(document), "mud", "stop")[0].message)


def documents_by_name():
    import json

    return {json.loads(text)["name"]: json.loads(text) for text in documents()}


def test_every_demo_well_evaluates_and_only_the_empty_one_has_no_program():
    for name, document in documents_by_name().items():
        evaluation = run(document)
        assert evaluation.strings, name
        assert evaluation.depths.proposal, name
        assert np.isfinite([s.shoe_md_ft for s in evaluation.strings]).all()


def test_a_section_drilled_in_steps_is_judged_step_by_step():
    """In the demo's 8.5 in hole 10.0 ppg holds down to 9,000 ft (pore 9.714 + 0.3 = 10.014 asks more), not below."""
    document = demo()
    document["strings"][3]["mud_steps"] = [
        {"to_md_ft": 8900.0, "mud_ppg": 10.0},
        {"to_md_ft": 10_800.0, "mud_ppg": 12.8},
    ]
    row = run(document).mud.strings[3]
    assert [(s.from_md_ft, s.to_md_ft, s.mud_ppg) for s in row.steps] == [
        (7000.0, 8900.0, 10.0),
        (8900.0, 10_800.0, 12.8),
        (10_800.0, 12_600.0, 13.2),
    ]
    assert not find(run(document), "mud", "stop")
    document["strings"][3]["mud_steps"][0]["to_md_ft"] = 9000.0
    stop = find(run(document), "mud", "stop")
    assert plain(stop[0].message).startswith("Down to 9,000 ft with 10.00 ppg: the window is 10.01 ppg to ")
    document["strings"][3]["mud_steps"][0]["to_md_ft"] = 6000.0
    with pytest.raises(FaultyDesign, match="a depth between 7000 and 12600 ft"):
        parse(document)


def test_a_spare_size_lets_the_next_bit_through():
    """Between 20 and 9 5/8 in: 13 3/8 or 11 3/4 in passes a 20 in casing and lets 10 5/8 in through."""
    strings = [
        {"role": "conductor", "run": "driven", "shoe_md_ft": 200.0, "od_in": 30.0},
        {"role": "surface", "shoe_md_ft": 2500.0, "bit_in": 26.0, "od_in": 20.0},
        {"role": "production", "shoe_md_ft": 10_000.0, "bit_in": 12.25, "od_in": 9.625},
    ]
    spare = run(well(strings=strings)).sizes.strings[2].spare
    assert (spare.bit_in, spare.od_in) == (17.5, 13.375)
    assert run(demo()).sizes.strings[2].spare is None, "9 5/8 in follows 13 3/8 in: nothing lies between"
