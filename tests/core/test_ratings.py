"""Properties of the ratings, and the loads of a string worked by hand."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.core.pipe.ratings import pipe_collapse, pipe_internal_yield, von_mises
from tests.helpers import CATALOGUE, find, run, well

OD = st.floats(4.5, 20)
RATIO = st.floats(8, 55)
YIELD = st.sampled_from([40_000, 55_000, 80_000, 95_000, 110_000, 125_000])


@given(OD, RATIO, YIELD, st.floats(0, 0.9))
def test_tension_never_raises_collapse(od, ratio, yield_psi, share):
    wall = od / ratio
    assert pipe_collapse(od, wall, yield_psi, share * yield_psi) <= pipe_collapse(od, wall, yield_psi) * (1 + 1e-9)
    assert pipe_collapse(od, wall, yield_psi, -share * yield_psi) == pipe_collapse(od, wall, yield_psi)


@given(OD, RATIO, YIELD, st.floats(1.001, 1.2))
def test_more_wall_never_lowers_a_rating(od, ratio, yield_psi, more):
    thin, thick = od / ratio, od / ratio * more
    assert pipe_internal_yield(od, thick, yield_psi) > pipe_internal_yield(od, thin, yield_psi)
    # the regimes meet within a fraction of a percent: that much is the equations' own
    assert pipe_collapse(od, thick, yield_psi) >= pipe_collapse(od, thin, yield_psi) * 0.998


@given(st.floats(10_000, 900_000))
def test_triaxial_is_uniaxial_in_pure_tension(force):
    area = np.pi / 4 * (9.625**2 - (9.625 - 2 * 0.472) ** 2)
    assert von_mises(9.625, 0.472, 0.0, 0.0, force) == pytest.approx(force / area, rel=1e-9)


def three_strings():
    """Conductor 130 ft, 13 3/8 surface at 3,000 ft in 9.5 ppg, 7 in production at 10,000 ft in 10.0 ppg."""
    return well(
        strings=[
            {"role": "conductor", "run": "driven", "shoe_md_ft": 130.0, "od_in": 20.0},
            {"role": "surface", "shoe_md_ft": 3000.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5,
             "pipe": {"weight_ppf": 68.0, "grade": "K55", "connection": "BTC"}},
            {"role": "production", "shoe_md_ft": 10000.0, "bit_in": 12.25, "od_in": 7.0, "mud_ppg": 10.0,
             "pipe": {"weight_ppf": 29.0, "grade": "L80", "connection": "LTC"}},
        ]
    )  # fmt: skip


def test_surface_string_by_hand():
    """Surface casing 13 3/8 in 68 lb/ft K55 BTC, hand arithmetic with 0.0519481 psi/(ppg·ft).

    Surface pressure: pore 9.0 at 10,000 ft = 4,675.3 − 0.1·10,000 = 3,675.3 psi;
    shoe breaks at 14.0·3,000 = 2,181.8 − 300 = 1,881.8 psi: the lesser, 1,881.8.
    Burst at surface: 1,881.8 − 0 = 1,881.8; rating 3,450 (0.875·2·55,000·0.480/13.375 = 3,454.2): 1.836.
    Collapse, empty in 9.5 ppg at 3,000 ft: 1,480.5; rating at the shoe 1,949 (compression takes no credit): 1.316.
    Tension: area 19.445 in²; 68·3,000 − 1,480.5·19.445 = 175,211, plus 100,000 overpull = 275,211;
    body 1,069,494 is under the joint 1,300,000: 3.886.
    """
    evaluation = run(three_strings())
    loads = {load.kind: load for load in evaluation.pipe.strings[1].loads}
    assert evaluation.wellhead.surface_pressure_psi[1] == pytest.approx(1881.8, abs=0.1)
    assert loads["burst"].load == pytest.approx(1881.8, abs=0.1)
    assert loads["burst"].factor == pytest.approx(1.836, abs=0.001)
    assert (loads["burst"].at_md_ft, loads["collapse"].at_md_ft) == (0.0, 3000.0)
    assert loads["collapse"].load == pytest.approx(1480.5, abs=0.1)
    assert loads["collapse"].factor == pytest.approx(1.316, abs=0.001)
    assert loads["tension"].load == pytest.approx(275_211, abs=50)
    assert loads["tension"].factor == pytest.approx(3.886, abs=0.001)


def test_production_string_by_hand():
    """Production casing 7 in 29 lb/ft L80 LTC at 10,000 ft in 10.0 ppg.

    Tubing leak: shut in 4,675.3 − 1,000 = 3,675.3 psi on 8.6 ppg packer fluid; outside base fluid 8.33 ppg.
    At 10,000 ft: 3,675.3 + 0.27·0.0519481·10,000 = 3,815.6 psi; rating 8,160: 2.139.
    Evacuation at 10,000 ft in 10 ppg: 5,194.8 psi; rating 7,030 (7,025.6): 1.352.
    Running: 290,000 − 5,194.8·8.4494 = 246,107 + 100,000 = 346,107; joint 587,000: 1.697.
    """
    loads = {load.kind: load for load in run(three_strings()).pipe.strings[2].loads}
    assert loads["burst"].name == "tubing leak"
    assert loads["burst"].load == pytest.approx(3815.6, abs=0.5)
    assert loads["burst"].factor == pytest.approx(2.139, abs=0.001)
    assert loads["collapse"].load == pytest.approx(5194.8, abs=0.1)
    assert loads["collapse"].factor == pytest.approx(1.352, abs=0.001)
    assert loads["tension"].load == pytest.approx(346_107, abs=20)
    assert loads["tension"].factor == pytest.approx(1.697, abs=0.002)


def test_lost_returns_level_by_hand():
    """Below 9 5/8 in at 6,000 ft a loss zone at 9,000 to 9,200 ft (pore 9.0) takes 12.0 ppg mud.

    The level falls to 9,200·(1 − 9/12) = 2,300 ft: there the outside holds 10·0.0519481·2,300 = 1,194.8 psi.
    """
    document = well(
        ground__zones=[{"name": "Vug", "top_tvd_ft": 9000.0, "base_tvd_ft": 9200.0, "hazards": ["losses"]}],
        strings=[
            {"role": "conductor", "run": "driven", "shoe_md_ft": 130.0, "od_in": 20.0},
            {"role": "surface", "shoe_md_ft": 2000.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5},
            {"role": "intermediate", "shoe_md_ft": 6000.0, "bit_in": 12.25, "od_in": 9.625, "mud_ppg": 10.0},
            {"role": "production", "shoe_md_ft": 10000.0, "bit_in": 8.5, "od_in": 5.5, "mud_ppg": 12.0},
        ],
    )
    load = next(x for x in run(document).pipe.strings[2].loads if x.kind == "collapse")
    assert load.name == "lost returns"
    at_level = int(np.argmin(np.abs(np.array(load.curve_md_ft) - 2300.0)))
    assert load.curve_md_ft[at_level] == pytest.approx(2300.0, abs=1e-6)
    assert load.curve_load_psi[at_level] == pytest.approx(1194.8, abs=0.1)


def test_cheapest_pipe_is_the_cheapest_that_stands():
    """Against brute force: every cheaper pipe that drifts the next bit fails when it is decided instead."""
    document = three_strings()
    for string in document["strings"]:
        string.pop("pipe", None)
    evaluation = run(document)
    for i in (1, 2):
        row = evaluation.pipe.strings[i]
        next_bit = evaluation.strings[i + 1].bit_in if i == 1 else 0
        chosen = next(
            p for p in CATALOGUE.by_od[evaluation.strings[i].od_in]
            if (p.weight_ppf, p.grade.grade, p.connection) == (row.weight_ppf, row.grade, row.connection)
        )  # fmt: skip
        assert not find(evaluation, "pipe", "stop")
        cheaper = [
            p for p in CATALOGUE.by_od[chosen.od_in] if p.cost_per_ft < chosen.cost_per_ft and p.drift_in >= next_bit
        ]
        assert cheaper
        for pipe in cheaper:
            trial = three_strings()
            trial["strings"][i]["pipe"] = {
                "weight_ppf": pipe.weight_ppf, "grade": pipe.grade.grade, "connection": pipe.connection,
            }  # fmt: skip
            trial["strings"][3 - i].pop("pipe", None)
            judged = find(run(trial), "pipe")
            assert any(f.place.startswith(f"/strings/{i}/") for f in judged), (pipe.weight_ppf, pipe.grade.grade)


def test_sour_service_by_temperature():
    """Gas with 100 ppm H2S at 4,675 psi: 0.47 psi partial, over 0.05: only grades sour at the coldest are proposed."""
    sour = run(well(site__h2s_ppm=100.0, site__surface_temperature_f=60.0))
    grades = {row.grade for row in sour.pipe.strings[1:]}
    assert grades <= {"H40", "J55", "K55", "M65", "L80", "C90", "T95"}
    decided = three_strings()
    decided["site"].update(h2s_ppm=100.0, surface_temperature_f=60.0)
    decided["strings"][2]["pipe"] = {"weight_ppf": 29.0, "grade": "P110", "connection": "LTC"}
    assert any("sour service" in "".join(map(str, f.message)) for f in find(run(decided), "pipe", "stop"))
    unknown = well()
    del unknown["site"]["h2s_ppm"]
    assert [f.place for f in find(run(unknown), "pipe", "unknown")] == ["/site/h2s_ppm"]
