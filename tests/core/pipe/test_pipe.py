"""A whole pipe design worked by hand, every case, and the tapered optimum against brute force."""

import copy
import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from knollstack.core.base.remember import forget_all
from knollstack.core.base.units import plain
from knollstack.core.catalogue.ratings import von_mises
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.choose import best_sections
from knollstack.core.pipe.detail import envelope, loads_of, offers_of
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.judged import KINDS, judge_sections, stands
from knollstack.core.pipe.order import candidates
from knollstack.core.pipe.strength import rack, shares, weight_per_ft
from knollstack.core.pipe.taper import Leg, Search, _Label, bounds
from knollstack.core.program.section import Section
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, applied, demo, find, framed, many, points, policy, run, surface_psi, well

C = 12 / 231


def pipe(weight, grade, connection):
    return {"weight_ppf": weight, "grade": grade, "connection": connection}


def four_strings(**values):
    """Pore 9.0, fracture 14.0 ppg throughout; neat cement of 15.8 ppg to the ground, to 2,700 and to 6,700 ft."""
    neat = {"slurry_water_gal_sk": 4.97}
    strings = [
        {"role": "conductor", "run": "driven", "shoe_md_ft": 130.0, "od_in": 20.0},
        {
            "role": "surface",
            "shoe_md_ft": 3000.0,
            "bit_in": 17.5,
            "od_in": 13.375,
            "mud_ppg": 9.5,
            "pipe": pipe(68.0, "K55", "BTC"),
            "cement": neat,
        },
        {
            "role": "intermediate",
            "shoe_md_ft": 7000.0,
            "bit_in": 12.25,
            "od_in": 9.625,
            "mud_ppg": 10.0,
            "pipe": pipe(47.0, "N80", "BTC"),
            "cement": neat,
        },
        {
            "role": "production",
            "shoe_md_ft": 10_000.0,
            "bit_in": 8.5,
            "od_in": 7.0,
            "mud_ppg": 10.5,
            "pipe": pipe(29.0, "L80", "LTC"),
            "cement": neat,
        },
    ]
    return well(strings=strings, policy=policy(**values))


def offered(program, string):
    """Pipes that the string may be made of."""
    return candidates(program.well, CATALOGUE, string, exposed_of(program, string))


def by_case(document, index):
    """Of each case: inside and outside at top and shoe, axial force at top and shoe, least share of each kind."""
    program, string, frame = framed(document, index)
    judged = judge_sections(program.well.policy.pipe, frame, string.sections)
    table = {}
    for c, case in enumerate(frame.cases):
        pressures = [float(a[c, k]) for k in (0, -1) for a in (frame.inside_psi, frame.outside_psi)]
        axial = [float(judged.shares.axial_lbf[0, c, k]) for k in (0, -1)]
        table[case.name] = (pressures, axial)
    return table


def loads(document, index):
    return {load.kind: load for load in run(document).pipe.strings[index].loads}


def test_surface_string_by_hand():
    """13 3/8 in 68 lb/ft K55 BTC, 3,000 ft, mud 9.5: 0.494 psi/ft, 1,480.5 psi at the shoe; A_s 19.445, A_i 121.055 in².

    Gas to surface: pore at 7,000 ft feeds 3,272.7 − 700 = 2,572.7; the shoe breaks at 2,181.8 − 300 = 1,881.8: 1,881.8 psi.
    Burst, tested to that with mud: at the shoe 1,881.8 + 1,480.5 − 8.33·0.0519481·3,000 = 2,064.2; body 3,454.2: 1.673.
    Collapse empty: 1,480.5 psi; rating 1,948.6 (compression takes no credit): 1.316.
    Running: 68·3,000 − 1,480.5·19.445 = 175,211 and 100,000 of overpull: 275,211; body 1,069,486: 3.886.
    Set in 2,970 ft of slurry: 204,000 + 1,480.5·121.055 − 2,456.1·140.5 = 38,140. Tested before landing
    + 1,881.8·121.055 = 265,941; landed + 0.6·(1,881.8·121.055 + 0.9·140.5), where 0.9 psi is what base fluid takes off
    on the mean of the free 30 ft.
    Plug bump: slurry 2,970 ft of 15.8 over 30 ft of mud, less 80 ft of slurry in the shoe track, holds 949.3; + 500 =
    1,449.3 psi at the wellhead, the number of the cement job.
    Set, at the shoe: 1,480.5·121.055 − 2,456.1·140.5 = −165,854 lbf; evacuated + 0.6·(−1,480.5·121.055 + 975.6·140.5).
    """
    document = four_strings()
    found, cases = loads(document, 1), by_case(document, 1)
    assert cases["gas to surface"][0][:3] == pytest.approx([1881.8, 0.0, 2181.8], abs=0.1)
    assert (found["burst"].name, found["burst"].at_md_ft) == ("pressure test", 3000.0)
    assert found["burst"].load == pytest.approx(2064.2, abs=0.1)
    assert found["burst"].factor == pytest.approx(1.673, abs=0.001)
    assert (found["collapse"].name, found["collapse"].load) == ("evacuation", pytest.approx(1480.5, abs=0.1))
    assert found["collapse"].factor == pytest.approx(1.316, abs=0.001)
    assert cases["running"][1] == pytest.approx([275_211, 71_211], abs=5)
    assert (found["tension"].name, found["tension"].factor) == ("running", pytest.approx(3.886, abs=0.001))
    assert cases["pressure test"][1][0] == pytest.approx(38_140 + 1881.8 * 121.055, abs=40)
    landed = by_case(four_strings(pressure_test="after landing"), 1)["pressure test"][1][0]
    assert landed == pytest.approx(38_140 + 0.6 * (1881.8 * 121.055 + 0.912 * 140.5), abs=40)
    assert cases["plug bump"][0][0] == pytest.approx(1449.3, abs=0.3)
    assert run(document).cement.strings[1].bump_psi == pytest.approx(cases["plug bump"][0][0], rel=1e-9)
    at_shoe = 1480.5 * 121.055 - 2456.1 * 140.5 + 0.6 * (-1480.5 * 121.055 + 975.6 * 140.5)
    assert (found["compression"].name, found["compression"].load) == ("evacuation", pytest.approx(-at_shoe, abs=30))


def test_intermediate_string_by_hand():
    """9 5/8 in 47 lb/ft N80 BTC, 7,000 ft, mud 10.0: 3,636.4 psi at the shoe; A_s 13.572, A_i 59.187 in².

    Pore at 10,000 ft feeds 4,675.3 − 1,000 = 3,675.3; the shoe breaks at 5,090.9 − 700 = 4,390.9: 3,675.3 psi.
    Tested with mud: 3,675.3 + 3,636.4 − 3,029.1 = 4,282.6 at the shoe; body 6,865.5 (coupling 8,834, leak 9,161): 1.603.
    Lost returns below, 10.5 ppg against pore 9.0 at 10,000: level 10,000·(1 − 9/10.5) = 1,428.6 ft.
    Collapse worst in wet cement: 2,700 ft of mud and 4,300 ft of 15.8 outside, 4,937, less 0.9019·3,636.4: 1,657.4;
    rating 4,754: 2.868. Hung 329,000 − 3,636.4·13.572 = 279,646. Set: 329,000 + 3,636.4·59.187 − 4,937.1·72.76 = 185,004;
    tested before landing + 3,675.3·59.187 = 402,534, landed + 0.6·(3,675.3·59.187 + 117.1·72.76).
    """
    document = four_strings()
    found, cases = loads(document, 2), by_case(document, 2)
    assert found["burst"].load == pytest.approx(4282.6, abs=0.2)
    assert found["burst"].factor == pytest.approx(1.603, abs=0.001)
    assert cases["lost returns"][0][2] == pytest.approx(0.0519481 * 10.5 * (7000 - 1428.57), abs=0.5)
    assert (found["collapse"].name, found["collapse"].load) == ("cementing", pytest.approx(1657.4, abs=0.5))
    assert found["collapse"].factor == pytest.approx(2.868, abs=0.001)
    assert cases["stopped while running"][1][0] == pytest.approx(279_646 + 1780 * 1.5 * 13.572, abs=10)
    # 0.6·(3,675.3·Aᵢ − mean outside change·Aₒ); outside base fluid takes 1.67·0.0519481·1,350 psi off on the mean
    mean_outside = (8.33 - 10.0) * 0.0519481 * 1350
    assert found["tension"].load == pytest.approx(185_004 + 3675.3 * 59.187, abs=60)
    landed = by_case(four_strings(pressure_test="after landing"), 2)["pressure test"][1][0]
    assert landed == pytest.approx(185_004 + 0.6 * (3675.3 * 59.187 - mean_outside * 72.760), abs=60)


def test_production_string_by_hand():
    """7 in 29 lb/ft L80 LTC, 10,000 ft, mud 10.5: 5,454.5 psi at the shoe; A_s 8.4494, A_i 30.035 in².

    Tested: 3,675.3 + 5,454.5 − 4,327.3 = 4,802.6 at the shoe; body 8,160 (coupling 9,241, leak 14,281): 1.699.
    Evacuated: 5,454.5; rating 7,025.6 in compression: 1.288. Running 290,000 − 5,454.5·8.4494 = 243,912 + 100,000
    overpull = 343,912; joint 587,438: 1.708. Tubing leak: 3,675.3 on 8.6 ppg, 8,142.9 at the shoe.
    Set with 6,700 ft of mud and 3,300 ft of slurry outside, 6,367.1 at the shoe: 5,454.5·30.035 − 6,367.1·38.485 there.
    Triaxial, evacuated at the shoe: that + 0.6·(−5,454.5·30.035 + 912.6·38.485) = −158,430 (σ_z = −18,750), hoop at the
    inner wall −2·5,454.5·3.5²/(3.5² − 3.092²) = −49,733, radial 0: √((18,750² + 49,733² + 30,983²)/2) = 43,500; 1.839.
    """
    document = four_strings()
    found, cases = loads(document, 3), by_case(document, 3)
    assert found["burst"].load == pytest.approx(4802.6, abs=0.2)
    assert found["burst"].factor == pytest.approx(1.699, abs=0.001)
    assert (found["collapse"].load, found["collapse"].factor) == (
        pytest.approx(5454.5, abs=0.1),
        pytest.approx(1.288, abs=0.001),
    )
    assert (found["tension"].load, found["tension"].rating) == (
        pytest.approx(343_912, abs=5),
        pytest.approx(587_438, abs=5),
    )
    assert cases["tubing leak"][0] == pytest.approx([3675.3, 0.0, 8142.9, 4327.3], abs=0.2)
    assert found["triaxial"].factor == pytest.approx(1.839, abs=0.002)
    hoop = -2 * 5454.55 * 3.5**2 / (3.5**2 - 3.092**2)
    axial = -158_430 / 8.4494
    assert found["triaxial"].load == pytest.approx(np.sqrt((axial**2 + hoop**2 + (axial - hoop) ** 2) / 2), abs=50)


@pytest.mark.parametrize(
    ("policy", "psi"),
    [
        ({}, 3272.7 - 700),
        ({"surface_intensity_ppg": 0.5}, 3454.5 - 700),
        ({"burst_method": "gas over mud", "gas_share": 0.5}, 473.4),
        ({"burst_method": "gas over mud", "gas_share": 0.5, "surface_intensity_ppg": 0.5}, 473.4 + 0.5 * C * 3000),
        ({"burst_method": "kick volume"}, 1005.1),
    ],
)
def test_the_surface_pressure_follows_the_method_for_pipe_wellhead_and_preventers(policy, psi):
    """The hole of 9 5/8 in below 3,000 ft, drilled to 7,000 ft with 10.0 ppg: pore 9.0, fracture 20.0."""
    document = four_strings(**policy)
    document["ground"]["fracture"] = points((30, 20), (10_000, 20))
    assert surface_psi(document, 1) == pytest.approx(psi, abs=0.6)
    tested = by_case(document, 1)["pressure test"][0][0]
    assert tested == pytest.approx(surface_psi(document, 1), rel=1e-9)
    assert run(document).preventers.strings[1].pressure_psi == pytest.approx(surface_psi(document, 1), rel=1e-9)


@pytest.mark.parametrize("margin", [0.0, 0.5, 1.0])
def test_the_shoe_takes_gas_at_fracture_and_the_injection_margin(margin):
    """The shoe at 3,000 ft breaks at 2,181.8 psi; gas from it is 300 psi less at the surface."""
    document = four_strings(injection_margin_ppg=margin)
    assert surface_psi(document, 1) == pytest.approx(2181.8 + margin * C * 3000 - 300, abs=0.1)


def test_a_string_run_part_empty_carries_no_mud_where_none_stands():
    """500 ft of 10,000 empty in 10.5 ppg: 9,500 ft of mud stand inside, 5,181.8 psi at the shoe against 5,454.5 outside.

    At the top 290,000 + 30.035·5,181.8 − 38.485·5,454.5 = 235,718 lbf; 500 ft down 14,500 lbf less.
    """
    document = four_strings()
    program, string, frame = framed(document, 3)
    judged = judge_sections(program.well.policy.pipe, frame, string.sections)
    empty = next(i for i, c in enumerate(frame.cases) if c.name == "run part empty")
    at = int(np.argmin(np.abs(frame.md_ft - 500.0)))
    axial = judged.shares.axial_lbf[0, empty]
    assert axial[[0, at]] == pytest.approx([235_718, 235_718 - 14_500], abs=10)


def test_the_string_is_set_with_its_displacement_fluid_inside():
    """Displaced with 8.33 ppg: 4,327.3 psi inside at the shoe, 6,367.1 outside: 290,000 + 30.035·4,327.3 − 38.485·6,367.1
    = 174,938 lbf as set; the float and the cement job see it too.
    """
    document = four_strings()
    document["strings"][3]["cement"] = {"slurry_water_gal_sk": 4.97, "displacement_ppg": 8.33}
    cases = by_case(document, 3)
    assert cases["cementing"][0][2] == pytest.approx(4327.3, abs=0.1)
    assert cases["pressure test"][1][0] == pytest.approx(174_938 + 3675.3 * 30.035, abs=60)
    # the plug bumps over 6,367.1 − 4,327.3 psi, less what 80 ft of slurry in the shoe track weigh more, and 500 on top
    assert cases["plug bump"][0][0] == pytest.approx(6367.1 - 4327.3 - 80 * 7.493 * C + 500, abs=1.0)
    light, heavy = run(document).cement.strings[3], run(four_strings()).cement.strings[3]
    collar = 10_000 - 80
    differ = light.float_differential_psi - heavy.float_differential_psi
    assert differ == pytest.approx((10.5 - 8.33) * 0.0519481 * collar, abs=0.5)
    said = [plain(a.text) for a in run(four_strings()).assumptions]
    assert "7 in cement: displaced with the mud of the hole, 10.50 ppg." in said
    assert not any("7 in cement: displaced" in plain(a.text) for a in run(document).assumptions)


@pytest.mark.parametrize(("connection", "share"), [("PTC", 0.8), ("FJ", 0.5)])
def test_threads_take_compression_by_their_own_share(connection, share):
    document = four_strings(connections=["LTC", "BTC", connection])
    document["strings"][3]["pipe"] = pipe(29.0, "L80", connection)
    assert loads(document, 3)["compression"].rating == pytest.approx(share * 8.4494 * 80_000, rel=1e-4)


def test_a_round_thread_takes_no_more_in_compression_than_in_tension():
    document = four_strings()
    document["strings"][3]["pipe"] = pipe(29.0, "L80", "LTC")
    assert loads(document, 3)["compression"].rating == pytest.approx(587_438, abs=5)


def test_flowing_temperature_is_given_or_assumed_and_listed():
    """60 °F at surface, 200 °F at 10,000 ft: half of the rise is 130 °F at the wellhead, 70 °F over the ground's."""
    document = four_strings()
    document["site"] |= {"surface_temperature_f": 60.0, "bottom_temperature_f": 200.0}
    assumed = [plain(a.text) for a in run(document).assumptions if a.place == "/site/flowing_wellhead_f"]
    assert assumed == ["130 °F, half of the ground's rise, is assumed as the flowing wellhead temperature."]
    mild = by_case(document, 3)["tubing leak"][1]
    document["site"]["flowing_wellhead_f"] = 190.0
    assert not [a for a in run(document).assumptions if a.place == "/site/flowing_wellhead_f"]
    hot = by_case(document, 3)["tubing leak"][1]
    # 60 °F more at the ground, nothing at total depth; on the mean of the free length two thirds of it
    assert mild[0] - hot[0] == pytest.approx(207 * 8.4494 * 60 * (1 - 0.67 / 2), rel=0.03)
    assert mild[1] == pytest.approx(hot[1], abs=1e-6)
    bare = four_strings()
    told = [f for f in find(run(bare), "pipe", "unknown") if "The effect of temperature" in plain(f.message)]
    assert [f.place for f in told] == ["/site/bottom_temperature_f"]
    assert run(bare).pipe.strings[3].loads, "a pipe is judged by all that is known"


def test_schools_of_burst_and_backup():
    """Gas over mud of 10.0 ppg, half of 3,000 ft: at 1,500 ft the shoe allows 2,181.8 − 0.51948·1,500 = 1,402.6, but pore
    feeds most from right below it, 1,402.6 − 0.51948·1,500 = 623.4; less 150 of gas the surface sees 473.4.

    Kick of 100 bbl at 7,000 ft (9.5 ppg, 3,454.5 psi), top at surface: A = 3,454.5 − 3,636.4 = −181.8,
    c = (12.25² − 5²)/1029.42 = 0.12149: p = −90.9 + √(90.9² + 0.41948·100·3,454.5/0.12149) = 1,005.1.
    """
    over_mud = by_case(four_strings(burst_method="gas over mud"), 1)["gas over mud"][0]
    assert over_mud[0] == pytest.approx(473.4, abs=0.1)
    assert over_mud[2] == pytest.approx(1402.6, abs=0.1)
    kick = by_case(four_strings(burst_method="kick volume"), 1)["kick circulated out"][0]
    assert kick[0] == pytest.approx(1005.1, abs=1.0)
    for mud_ppg, comes_up in ((7.75, True), (7.65, False)):  # an influx of 0.4 psi/ft is 7.7 ppg
        light = four_strings(burst_method="kick volume")
        light["policy"]["depths"] = {"influx_psi_ft": 0.4}
        light["strings"][2]["mud_ppg"] = mud_ppg
        assert ("kick circulated out" in by_case(light, 1)) is comes_up
        assert any("no lighter than that mud" in plain(f.message) for f in find(run(light), "pipe")) is not comes_up
    outside = {
        school: by_case(four_strings(burst_backup=school), 2)["gas to surface"][0][3]
        for school in ("base fluid", "mud", "pore", "mix water")
    }
    assert outside == pytest.approx(
        {"base fluid": 3029.1, "mud": 3636.4, "pore": 9 * 12 / 231 * 7000, "mix water": 3029.1}, abs=0.2
    )
    real = by_case(four_strings(gas_model="real gas"), 1)
    assert "gas to surface" not in real, "without temperature a real gas column is unknown"
    assert any(
        "burst load is unknown" in plain(f.message) for f in find(run(four_strings(gas_model="real gas")), "pipe")
    )
    hot = four_strings(gas_model="real gas")
    hot["site"].update(surface_temperature_f=60.0, bottom_temperature_f=200.0)
    # mean of 60 °F and that of 3,000 ft, 101.7 °F: 540.5 °R; 2,181.8·exp(−0.01875·0.65·3,000/540.5)
    assert by_case(hot, 1)["gas to surface"][0][0] == pytest.approx(
        2181.8 * np.exp(-0.01875 * 0.65 * 3000 / 540.4), abs=3
    )


def test_packer_stimulation_custom_and_salt():
    document = four_strings()
    last = document["strings"][3]
    document["completion"] = {"packer_md_ft": 9000.0, "treating_psi": 5000.0}
    last["loads"] = [
        {"name": "injection", "kind": "burst", "inside_psi": 6000.0, "inside_ppg": 8.6, "outside_ppg": 8.33}
    ]
    warm = by_case(document, 3)["stimulation"][1]
    assert any("The effect of temperature" in plain(f.message) for f in find(run(document), "pipe", "unknown"))
    document["site"] |= {"surface_temperature_f": 60.0, "bottom_temperature_f": 200.0}
    cases = by_case(document, 3)
    assert cases["evacuated above the packer"][0][2] == pytest.approx(8.6 * 12 / 231 * 10_000)
    assert cases["drawn down below the packer"][0][2] == 0.0
    assert cases["stimulation"][0][0] == 5000.0
    # fluid of 60 °F: no change at the wellhead, half of 140 °F at the shoe; 35 °F on the mean of the free 6,670 ft
    free = (6700.0 / 10_000) * 70 / 2
    assert cases["stimulation"][1][0] - warm[0] == pytest.approx(207 * 8.4494 * free, rel=0.03)
    assert cases["stimulation"][1][1] - warm[1] == pytest.approx(207 * 8.4494 * 70, rel=1e-5)
    assert cases["injection"][0] == pytest.approx([6000.0, 0.0, 6000 + 4467.5, 4327.3], abs=0.2)
    assert loads(document, 3)["burst"].name == "injection"
    document["ground"]["zones"] = [{"name": "Salt", "top_tvd_ft": 8000.0, "base_tvd_ft": 8400.0, "rock": "salt"}]
    assert any("salt" in plain(f.message) for f in find(run(document), "pipe", "unknown")), "no overburden: unknown"
    for known, told in (((30, 8399), True), ((30, 8401), False), ((8001, 10_000), True), ((7999, 10_000), False)):
        document["ground"]["overburden"] = points(*((z, 19) for z in known))
        assert any("load of salt at" in plain(f.message) for f in find(run(document), "pipe", "unknown")) == told
    document["ground"]["overburden"] = points((30, 19), (10_000, 19))
    salted = loads(document, 3)["collapse"]
    assert 8000.0 <= salted.at_md_ft <= 8400.0
    assert salted.load < 19 * 12 / 231 * 8400 * 1.001


def test_wear_heat_and_doglegs_take_their_share():
    """Wear of 10 % takes 10 % of the body's burst; 0.0003 per °F over 70 °F takes 3.9 % at 200 °F; 3°/100 ft bends."""
    plain_burst = loads(four_strings(), 3)["burst"]
    worn = four_strings()
    worn["strings"][3]["wear_percent"] = 10.0
    assert loads(worn, 3)["burst"].rating == pytest.approx(0.9 * plain_burst.rating)
    for kind in ("collapse", "triaxial"):
        assert loads(worn, 3)[kind].factor < loads(four_strings(), 3)[kind].factor
    # the body of 47 lb/ft N80 left by 10 % of wear, π·(D − t)·t·80,000, under the 1,086,000 of its joint
    worn["strings"][2]["wear_percent"] = 10.0
    wall = 0.9 * 0.472
    assert loads(worn, 2)["tension"].rating == pytest.approx(np.pi * (9.625 - wall) * wall * 80_000, rel=1e-6)
    assert loads(worn, 2)["compression"].rating == pytest.approx(np.pi * (9.625 - wall) * wall * 80_000, rel=1e-6)
    hot = four_strings(derate_per_f=0.0003)
    assert any("temperature" in plain(f.message) for f in find(run(hot), "pipe", "unknown"))
    hot["site"].update(surface_temperature_f=60.0, bottom_temperature_f=200.0)
    assert loads(hot, 3)["burst"].rating == pytest.approx(plain_burst.rating * (1 - 0.0003 * 130), rel=1e-6)
    bent = four_strings()
    bent["trajectory"]["stations"] = [
        {"md_ft": 0.0},
        {"md_ft": 1000.0},
        {"md_ft": 1500.0, "inclination_deg": 15.0},
        {"md_ft": 10_000.0, "inclination_deg": 15.0},
    ]
    program, string, frame = framed(bent, 2)
    judged = judge_sections(program.well.policy.pipe, frame, string.sections)
    at = int(np.argmin(np.abs(frame.md_ft - 1250.0)))
    assert judged.shares.bending_lbf[0, 0, at] == pytest.approx(218 * 9.625 * 3 * 13.572, rel=1e-3)
    assert judged.shares.bending_lbf[0, 0, 0] == pytest.approx(0.0, abs=1e-6)


def test_a_liner_leaves_the_casing_above_to_drilling_and_production():
    document = four_strings()
    document["strings"][3].update(run="liner", hanger_md_ft=6600.0)
    assert "tubing leak" in by_case(document, 2), "the casing above is produced through"
    assert "tubing leak" in by_case(document, 3)
    assert surface_psi(document, 2) == pytest.approx(3675.3, abs=0.1)
    document["strings"][3]["tie_back"] = True
    assert "tubing leak" not in by_case(document, 2), "tied back, it covers the casing above"
    assert framed(document, 3)[2].md_ft[0] == 0.0
    assert run(document).pipe.strings[3].sections[0].top_md_ft == 0.0
    document["strings"][2]["tie_back"] = True
    with pytest.raises(FaultyDesign, match="a liner"):
        parse(document)


def test_what_hangs_in_the_surface_casing():
    """Landed 279,646 + 243,912 lbf and 60,000 on top; the 20 in conductor's 26.9 in² share with 19.445 in²."""
    row = run(four_strings(stack_weight_lbf=60_000.0)).pipe.strings[1]
    area = np.pi / 4 * (20**2 - 19.124**2)
    assert row.hung_lbf == pytest.approx((279_646 + 243_912 + 60_000) * 19.445 / (19.445 + area), abs=30)
    alone = run(four_strings(stack_weight_lbf=800_000.0, stands_on="casing alone"))
    stop = [f for f in find(alone, "pipe", "stop") if "Hung strings, wellhead" in plain(f.message)]
    assert stop[0].value is None
    assert stop[0].remedies, "a stronger pipe is offered"
    mended = run(
        applied(four_strings(stack_weight_lbf=800_000.0, stands_on="casing alone"), stop[0].remedies[0].changes)
    )
    assert not [f for f in find(mended, "pipe", "stop") if "Hung strings, wellhead" in plain(f.message)]


def test_a_short_factor_names_the_nearest_pipe_and_that_mends_it():
    document = four_strings()
    document["strings"][3]["pipe"] = pipe(26.0, "L80", "LTC")
    thin = [f for f in find(run(document), "pipe", "note") if "factor is" in plain(f.message)]
    assert plain(thin[0].message).startswith("Running: tension factor is 1.60"), "510,772 over 318,823: within 5 %"
    assert not [
        f for f in find(run(applied(document, thin[0].remedies[0].changes)), "pipe") if "factor is" in plain(f.message)
    ]
    document["strings"][3]["pipe"] = pipe(23.0, "J55", "LTC")
    stops = find(run(document), "pipe", "stop")
    assert {plain(f.message).split(":")[1].split()[0] for f in stops} >= {"burst", "collapse", "tension"}
    assert "policy asks 1.6" in plain(next(f for f in stops if "tension" in plain(f.message)).message)
    mended = applied(document, stops[0].remedies[0].changes)
    assert not find(run(mended), "pipe", "stop")


def test_own_pipes_prices_and_stock():
    document = four_strings(choose_from="stock list")
    own = {
        "od_in": 7.0,
        "weight_ppf": 30.0,
        "wall_in": 0.42,
        "grade": "XS",
        "yield_psi": 90_000.0,
        "connection": "OWN",
        "coupling_od_in": 7.5,
        "joint_lbf": 700_000.0,
        "joint_psi": 9000.0,
        "burst_psi": 8800.0,
    }
    document["pipes"] = [own]
    document["strings"][3]["pipe"] = pipe(30.0, "XS", "OWN")
    row = run(document).pipe.strings[3]
    assert (row.sections[0].joint_lbf, row.sections[0].burst_psi) == (700_000.0, 8800.0)
    del document["strings"][3]["pipe"]
    assert any("No pipe of this size" in plain(f.message) for f in find(run(document), "pipe", "stop")), (
        "nothing in stock"
    )
    document["stock"] = [
        {"od_in": 7.0, **pipe(30.0, "XS", "OWN"), "price_per_ft": 50.0, "available_ft": 9_000.0},
        {"od_in": 7.0, **pipe(32.0, "L80", "BTC"), "price_per_ft": 60.0},
    ]
    chosen = run(document).pipe.strings[3].sections[0]
    assert (chosen.weight_ppf, chosen.priced, chosen.cost) == (32.0, True, 600_000.0)
    document["stock"][0]["available_ft"] = 10_000.0
    assert run(document).pipe.strings[3].sections[0].weight_ppf == 30.0
    document["pipes"][0]["wall_in"] = 3.6
    with pytest.raises(FaultyDesign, match="under half"):
        parse(document)


def brute_force(policy, frame, pipes, most, least_ft):
    """Least cost over every pipe in every run of sections with breaks at nodes: the cheapest that stands as a whole."""
    md, tried = frame.md_ft, []
    for count in range(1, most + 1):
        for breaks in itertools.combinations(range(1, len(md) - 1), count - 1):
            edges = [0, *breaks, len(md) - 1]
            if any(md[b] - md[a] < least_ft - 1e-6 for a, b in itertools.pairwise(edges)):
                continue
            for chosen in itertools.product(pipes, repeat=count):
                taken = {p.key: 0.0 for p in chosen}
                for (a, b), p in zip(itertools.pairwise(edges), chosen, strict=True):
                    taken[p.key] += md[b] - md[a]
                enough = all(p.available_ft is None or taken[p.key] <= p.available_ft + 1e-6 for p in chosen)
                if enough and all(a is not b for a, b in itertools.pairwise(chosen)):
                    spans = list(zip(itertools.pairwise(edges), chosen, strict=True))
                    tried.append((sum((md[b] - md[a]) * p.cost_per_ft for (a, b), p in spans), len(tried), spans))
    for cost, _, spans in sorted(tried):
        if stands(policy, frame, tuple(Section(float(md[a]), float(md[b]), p) for (a, b), p in spans)):
            return cost
    return np.inf


@pytest.mark.parametrize(
    ("index", "names"),
    [
        (3, [(23.0, "L80"), (26.0, "P110"), (29.0, "N80"), (32.0, "P110")]),
        (2, [(36.0, "K55"), (40.0, "N80"), (43.5, "L80"), (47.0, "P110")]),
    ],
)
@pytest.mark.parametrize("most", [1, 2, 3])
def test_tapered_optimum_is_that_of_brute_force(index, names, most, monkeypatch):
    """Every combination on a coarse string; the search finds the same least cost."""
    monkeypatch.setattr("knollstack.core.pipe.frame.POINTS", 7)
    forget_all()
    document = four_strings(least_section_ft=1500.0)
    document["strings"][3]["mud_ppg"] = 13.0
    for string in document["strings"]:
        string.pop("pipe", None)
    program, string, frame = framed(document, index)
    wanted = [p for p in offered(program, string) if (p.weight_ppf, p.grade.grade) in names and p.connection != "STC"]
    monkeypatch.setattr("knollstack.core.pipe.choose.candidates", lambda *_, **__: wanted)
    found = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, most).sections
    cost = sum((s.bottom_md_ft - s.top_md_ft) * s.pipe.cost_per_ft for s in found) if found else np.inf
    assert cost == pytest.approx(brute_force(program.well.policy.pipe, frame, wanted, most, 1500.0), rel=1e-9)


@pytest.mark.parametrize("have", [1500.0, 3500.0, 5100.0])
@pytest.mark.parametrize("index", [2, 3])
def test_tapered_optimum_with_a_limited_stock_is_that_of_brute_force(index, have, monkeypatch):
    """The cheapest pipe is short: no two of its sections together are longer than the stock."""
    monkeypatch.setattr("knollstack.core.pipe.frame.POINTS", 7)
    forget_all()
    document = four_strings(least_section_ft=1000.0)
    for string in document["strings"]:
        string.pop("pipe", None)
    program, string, frame = framed(document, index)
    wanted = [p for p in offered(program, string) if p.connection == "LTC"][:3]
    wanted[0] = replace(wanted[0], available_ft=have, price_per_ft=1.0)
    wanted[1] = replace(wanted[1], available_ft=have + 500, price_per_ft=2.0)
    monkeypatch.setattr("knollstack.core.pipe.choose.candidates", lambda *_, **__: wanted)
    found = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, 3).sections
    cost = sum(s.length_ft * s.pipe.cost_per_ft for s in found) if found else np.inf
    assert cost == pytest.approx(brute_force(program.well.policy.pipe, frame, wanted, 3, 1000.0), rel=1e-9)


def test_a_tapered_string_says_why_its_sections_end_and_keeps_its_shape():
    document = demo()
    document["policy"] = policy(most_sections=2)
    document["strings"][3].pop("pipe", None)
    first, second = run(document).pipe.strings[3].sections
    assert first.bottom_md_ft == second.top_md_ft
    assert plain(second.ends_because).startswith("Above it a pipe that costs less withstands its loads.")
    document["strings"][3]["sections"] = [
        pipe(first.weight_ppf, first.grade, first.connection) | {"to_md_ft": 9000.0},
        pipe(second.weight_ppf, second.grade, second.connection),
    ]
    decided = run(document)
    assert [s.bottom_md_ft for s in decided.pipe.strings[3].sections] == [9000.0, 12_600.0]
    stop = find(decided, "pipe", "stop")
    assert stop, "the weaker pipe drawn 800 ft deeper falls short"
    mended = applied(document, stop[0].remedies[0].changes)
    assert not find(run(mended), "pipe", "stop")
    broken = copy.deepcopy(document)
    broken["strings"][3]["sections"][0]["to_md_ft"] = None
    with pytest.raises(FaultyDesign, match="only the last section"):
        parse(broken)
    # volumes follow the bores of both sections
    volumes = decided.cement.strings[3]
    track = decided.running.strings[3].track_ft
    bores = [(9000.0, 7 - 2 * first.wall_in), (12_600 - track - 9000.0, 7 - 2 * second.wall_in)]
    assert volumes.displacement_bbl == pytest.approx(sum(length * d**2 / 1029.42 for length, d in bores), rel=1e-4)


def test_free_pipe_buckles_when_it_is_hot():
    """7 in 29 lb/ft, 6,670 ft free, heated by 150 °F at the wellhead: −α·E·A_s·75 °F on the mean buckles its foot."""
    document = four_strings()
    document["site"] |= {"surface_temperature_f": 60.0, "bottom_temperature_f": 200.0, "flowing_wellhead_f": 360.0}
    row = run(document).pipe.strings[3]
    assert plain(row.buckles).startswith("In tubing leak the uncemented pipe buckles from ")
    _, string, frame = framed(document, 3)
    judged = judge_sections(program_of(parse(document), CATALOGUE).well.policy.pipe, frame, string.sections)
    leak = next(i for i, c in enumerate(frame.cases) if c.name == "tubing leak")
    free = frame.md_ft < string.cement_top_md_ft
    push = float(np.max(-judged.effective_lbf()[0, leak][free]))
    inertia = np.pi / 64 * (7.0**4 - 6.184**4)
    stress = 7.0 * 0.75 * push / (4 * inertia)
    assert f"bending adds up to {stress:,.0f} psi" in plain(row.buckles)
    assert row.buckled_factor < 80_000 / (push / 8.4494), "bent and pushed"
    neutral = loads_of(program_of(parse(document), CATALOGUE), 3).neutral_md_ft
    # hung in its mud the real force is nothing where the pipe below weighs what the mud presses on its end
    assert 29 * (10_000 - neutral) == pytest.approx(5454.5 * 8.4494, rel=0.002)


def test_a_liner_hangs_its_weight_on_the_casing_above():
    """7 in 29 lb/ft from 6,600 to 10,000 ft in 10.5: 29·3,400 + 0.5454·30.035·3,400 = 154,303 below; at its top
    + 3,600.0·30.035 − 5,454.5·38.485 = 52,511 lbf, carried by the 9 5/8 in above 6,600 ft and not below.
    """
    document = four_strings()
    document["strings"][3].update(run="liner", hanger_md_ft=6600.0)
    _, _, frame = framed(document, 2)
    case = next(i for i, c in enumerate(frame.cases) if c.name == "liner hung inside")
    gradient = 10.5 * 12 / 231
    landed = 29 * 3400 + gradient * 30.035 * 3400 + gradient * 6600 * 30.035 - gradient * 10_000 * 38.485
    above, below = frame.added_lbf[case, 0], frame.added_lbf[case, -1]
    assert (above, below) == (pytest.approx(landed, abs=60), 0.0)


def test_strings_at_sea_hang_from_the_sea_floor():
    document = four_strings()
    document["site"].update(setting="subsea", water_depth_ft=70.0)
    evaluation = run(document)
    assert [s.top_md_ft for s in evaluation.strings] == [100.0] * 4
    # 68·2,900 in air, the mud inside lifted off by what presses on the shoe, with 100,000 of overpull
    # this hole is drilled before the riser is on: 70 ft of sea water over 2,900 ft of mud
    shoe = 12 / 231 * (8.55 * 70 + 9.5 * 2900)
    at_sea = 68 * 2900 + shoe * (121.055 - 140.5) + 100_000
    assert by_case(document, 1)["running"][1][0] == pytest.approx(at_sea, abs=60)
    assert "lost returns" in by_case(document, 1), "no dry evacuation under the sea"


def test_sour_service_is_judged_where_the_section_begins():
    """N80 is sour from 175 °F: 60 °F at the top, 200 °F at 10,000 ft, so from 8,221 ft down; P110 the same."""
    document = four_strings(most_sections=2, connections=["LTC", "BTC"])
    document["site"].update(h2s_ppm=200.0, surface_temperature_f=60.0, bottom_temperature_f=200.0)
    document["strings"][3].pop("pipe")
    document["strings"][3]["sections"] = [pipe(29.0, "L80", "LTC") | {"to_md_ft": 9000.0}, pipe(29.0, "N80", "LTC")]
    evaluation = run(document)
    assert [s.suits_service for s in evaluation.pipe.strings[3].sections] == [True, True]
    document["strings"][3]["sections"][0]["to_md_ft"] = 8000.0
    evaluation = run(document)
    assert [s.suits_service for s in evaluation.pipe.strings[3].sections] == [True, False]
    assert any("not for sour service at 172" in plain(f.message) for f in find(evaluation, "pipe", "stop"))
    del document["strings"][3]["sections"]
    for section in run(document).pipe.strings[3].sections:
        assert section.suits_service


def test_where_no_pipe_stands_the_nearest_is_shown_with_what_it_lacks():
    document = four_strings(connections=["STC"])
    document["strings"][3].pop("pipe")
    document["strings"][3]["mud_ppg"] = 13.5
    evaluation = run(document)
    stops = [plain(f.message) for f in find(evaluation, "pipe", "stop") if f.place.startswith("/strings/3")]
    assert "comes nearest and is shown" in stops[0]
    assert len(stops) > 1, "its short factors are said"
    remedy = next(f for f in find(evaluation, "pipe", "stop") if "comes nearest" in plain(f.message)).remedies[0]
    assert not [
        f for f in find(run(applied(document, remedy.changes)), "pipe", "stop") if f.place.startswith("/strings/3")
    ]


@pytest.mark.parametrize("share", [-0.9, -0.4, 0.0, 0.5, 0.95])
@pytest.mark.parametrize("factor", [1.0, 1.25])
def test_the_ellipse_is_where_the_combined_stress_reaches_the_allowed(share, factor):
    section = Section(0.0, 1000.0, CATALOGUE.by_key[(7.0, 29.0, "L80", "LTC")])
    outline = envelope(PipePolicy(), section, factor)
    psi = share * max(outline.differential_psi)
    for edge in (outline.least_lbf, outline.greatest_lbf):
        nearest = int(np.argmin(np.abs(np.array(outline.differential_psi) - psi)))
        at = outline.differential_psi[nearest]
        stress = von_mises(7.0, 0.408, max(at, 0.0), max(-at, 0.0), edge[nearest])
        assert stress == pytest.approx(80_000 / factor, rel=1e-4)


def test_all_loads_and_offers_of_a_string_agree_with_its_evaluation():
    program = program_of(parse(demo()), CATALOGUE)
    row = run(demo()).pipe.strings[3]
    found = loads_of(program, 3)
    for load in row.loads:
        shares = [f.share for c in found.cases for f in c.factors if f.kind == load.kind]
        assert min(shares) == pytest.approx(load.factor / load.required, rel=1e-6), load.kind
    for case in found.cases:
        assert min(case.share) == pytest.approx(min(f.share for f in case.factors), abs=1e-3)
    assert loads_of(program, 0) is None
    # governing words: the kind, the case and the depth to which each is nearest to its limit
    least = min(row.loads, key=lambda load: load.factor / load.required)
    assert f"{least.kind} in {least.name} to " in plain(found.governs).lower()
    assert plain(found.governs).endswith("to 12,600 ft.")
    offers = offers_of(program, 3).offers
    assert [len(o.sections) for o in offers] == [1, 2, 3]
    assert offers[0].cost > offers[1].cost > offers[2].cost
    assert offers[0].cost == pytest.approx(sum(s.cost for s in row.sections))


def test_tubing_must_pass_the_production_casing():
    """4 1/2 in tubing has couplings of 5.200 in: through 7 in 29 lb/ft (drift 6.059), not through 5 1/2 in."""

    def said(document, severity):
        return [
            plain(f.message) for f in find(run(document), "sizes", severity) if f.place == "/policy/sizes/tubing_od_in"
        ]

    document = four_strings(tubing_od_in=4.5)
    assert not said(document, "stop")
    document["strings"][3].update(od_in=5.5, pipe=pipe(20.0, "L80", "LTC"))
    assert "do not pass the production casing" in said(document, "stop")[0]
    document["policy"]["sizes"]["tubing_od_in"] = 3.0
    assert "unknown" in said(document, "unknown")[0]


@settings(max_examples=many(3), deadline=None)
@given(
    mud=st.floats(10.0, 13.5),
    burst=st.floats(1.0, 1.3),
    tension=st.floats(1.3, 1.9),
    wear=st.sampled_from([0.0, 8.0]),
    least=st.sampled_from(["cost", "weight"]),
    bend=st.sampled_from([0.0, 25.0]),
)
def test_more_sections_never_cost_more_and_every_string_found_stands(mud, burst, tension, wear, least, bend):
    """Whatever the policy: the found string stands by the judge, keeps its shape, and each section more may only gain."""
    document = four_strings(factors={"burst": burst, "tension": tension}, least=least)
    document["trajectory"]["stations"] = [
        {"md_ft": 0.0},
        {"md_ft": 3000.0},
        {"md_ft": 4000.0, "inclination_deg": bend},
        {"md_ft": 10_000.0, "inclination_deg": bend},
    ]
    document["strings"][3].pop("pipe")
    document["strings"][3].update(mud_ppg=mud, wear_percent=wear)
    program, string, frame = framed(document, 3)
    policy, before = program.well.policy.pipe, np.inf
    for most in (1, 2, 3):
        found = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, most).sections
        if not found:
            assert before == np.inf, "a string of fewer sections is one of more"
            continue
        price = [s.pipe.weight_ppf if least == "weight" else s.pipe.cost_per_ft for s in found]
        cost = sum((s.bottom_md_ft - s.top_md_ft) * p for s, p in zip(found, price, strict=True))
        assert cost <= before + 1e-6
        before = cost
        assert stands(policy, frame, found)
        assert len(found) <= most
        assert (found[0].top_md_ft, found[-1].bottom_md_ft) == (0.0, 10_000.0)
        assert all(a.bottom_md_ft == b.top_md_ft for a, b in itertools.pairwise(found))
        assert all(s.bottom_md_ft - s.top_md_ft >= policy.least_section_ft - 1e-6 for s in found)


@settings(max_examples=15, deadline=None)
@given(st.data())
def test_bounds_of_the_optimum_agree_with_the_judge(data):
    """A pipe stands at a node exactly where the weight below lies between its bounds there."""
    document = four_strings()
    document["strings"][3]["mud_ppg"] = data.draw(st.floats(9.6, 13.8))
    index = data.draw(st.sampled_from([1, 2, 3]))
    program, string, frame = framed(document, index)
    policy, pipes = program.well.policy.pipe, offered(program, string)
    chosen = data.draw(st.lists(st.sampled_from(pipes), min_size=3, max_size=6, unique_by=lambda p: p.key))
    found = bounds(policy, frame, chosen)
    side = rack(chosen, 0.0)
    spread = data.draw(st.floats(0.2, 3.0))
    below = weight_per_ft(frame, side) * frame.below_tvd_ft * spread
    judged = shares(policy, frame, side, below)
    parts = [np.broadcast_to(getattr(judged, kind), judged.axial_lbf.shape) for kind in KINDS]
    by_judge = np.min([np.nan_to_num(np.min(p, axis=1), nan=-1.0) for p in parts], axis=0)
    by_bounds = (below[:, 0] >= found.least_lbf) & (below[:, 0] <= found.greatest_lbf)
    clear = np.abs(by_judge - 1) > 1e-6  # at the very limit either may round its own way
    assert np.array_equal(by_bounds[clear], (by_judge >= 1)[clear])


def test_a_label_with_fewer_sections_is_kept_beside_a_cheaper_one_with_more():
    """Only what costs no more, weighs no more and has no more sections makes another needless."""
    program, string, frame = framed(demo(), 3)
    pipes = candidates(program.well, program.catalogue, string, exposed_of(program, string))
    search = Search(program.well.policy.pipe, frame, pipes, 3, 1000.0)
    one = _Label(100.0, 50.0, 5, 1, None, None)
    cheaper = _Label(90.0, 50.0, 5, 2, None, None)
    lighter = _Label(100.0, 40.0, 5, 1, None, None)
    assert search._undominated([one, cheaper], -1.0) == [cheaper, one]
    assert search._undominated([one, lighter], -1.0) == [lighter]
    assert search._undominated([lighter, cheaper], -1.0) == [cheaper, lighter]
    heavier = _Label(90.0, 60.0, 5, 1, None, None)
    assert search._undominated([lighter, heavier], -1.0) == [heavier, lighter], "less weight below may be what stands"
    limited = Leg(0, 5, 9)
    search.stock = np.where(np.arange(len(pipes)) == 0, 4000.0, np.inf)
    first = _Label(90.0, 40.0, 5, 1, limited, None)
    second = _Label(100.0, 50.0, 5, 1, Leg(1, 5, 9), None)
    assert search._undominated([first, second], -1.0) == [first, second], "a limited pipe cannot be drawn out"
    search.stock[:] = np.inf
    assert search._undominated([first, second], -1.0) == [first]
