"""Sizes, mud, cement, wellhead and preventers by hand, and findings whose remedies mend."""

import copy
import math

import pytest

from knollstack.core.base.units import plain
from tests.helpers import applied, demo, empty_demo, find, points, run, surface_psi, well

STRINGS = [
    {"role": "conductor", "run": "driven", "shoe_md_ft": 130.0, "od_in": 20.0},
    {"role": "surface", "shoe_md_ft": 2000.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5},
    {
        "role": "intermediate",
        "shoe_md_ft": 6000.0,
        "bit_in": 12.25,
        "od_in": 9.625,
        "mud_ppg": 9.5,
        "pipe": {"weight_ppf": 47.0, "grade": "L80", "connection": "BTC"},
        "cement": {"top_md_ft": 1700.0, "slurry_water_gal_sk": 4.97, "bentonite_percent": 0.0, "excess": 0.25},
    },
    {"role": "production", "shoe_md_ft": 10_000.0, "bit_in": 8.5, "od_in": 5.5, "mud_ppg": 9.5},
]


def strings(**parts):
    document = well(ground__fracture=points((30, 16), (10_000, 16)), strings=copy.deepcopy(STRINGS))
    for path, value in parts.items():
        node = document
        *keys, last = path.split("__")
        for key in keys:
            node = node[int(key)] if isinstance(node, list) else node.setdefault(key, {})
        node[int(last) if isinstance(node, list) else last] = value
    return document


def test_sizes_by_hand():
    """9 5/8 in 47 lb/ft: ID 8.681, drift 8.525: an 8 1/2 in bit has 0.025 to spare; 12.25 − 10.625 clears 1.625."""
    evaluation = run(strings())
    inner, outer = evaluation.sizes.strings[3], evaluation.sizes.strings[2]
    assert inner.outer_drift_in == pytest.approx(8.525, abs=5e-4)
    assert inner.bit_margin_in == pytest.approx(0.025, abs=5e-4)
    assert (outer.clearance_in, outer.common_in, outer.tight_in) == (1.625, 1.3, 0.9)
    assert not find(evaluation, "sizes")


def test_cement_by_hand():
    """9 5/8 in in 12 1/4 in hole, shoe 6,000, surface shoe 2,000, top 1,700, excess 25 %, track 80 ft, rathole 10 ft.

    Surface casing is 54.5 lb/ft, ID 12.615: (12.615² − 9.625²)/1,029.42·300 = 19.38 bbl.
    Open hole 0.0557811·4,000·1.25 = 278.91; shoe track 8.681²/1,029.42·80 = 5.86; rathole 12.25²/1,029.42·10 = 1.46.
    In all 305.60 bbl; at 1.14393 ft³/sk 1,500 sacks; displacement 0.0732061·5,920 = 433.38 bbl.
    Column at the shoe: (9.5·1,700 + 15.823·4,300)/6,000 = 14.03 ppg.
    Float: 0.0519481·(9.5·1,700 + 15.823·4,300 − 9.5·5,920 − 15.823·80) = 1,386 psi.
    """
    evaluation = run(strings())
    row = evaluation.cement.strings[2]
    assert evaluation.pipe.strings[1].sections[0].id_in == pytest.approx(12.615)
    assert row.cased_annulus_bbl == pytest.approx(300 * (12.615**2 - 9.625**2) / 1029.42, rel=1e-4)
    assert row.open_annulus_bbl == pytest.approx(278.91, abs=0.02)
    assert (row.shoe_track_bbl, row.rathole_bbl) == (pytest.approx(5.86, abs=0.01), pytest.approx(1.46, abs=0.01))
    assert row.slurry_bbl == pytest.approx(305.60, abs=0.05)
    assert row.sacks == pytest.approx(1500, abs=1)
    assert row.displacement_bbl == pytest.approx(433.38, abs=0.05)
    assert row.greatest_emw_ppg == pytest.approx(14.03, abs=0.01)
    assert row.float_differential_psi == pytest.approx(1386, abs=1)


def test_overbalance_and_maasp_by_hand():
    """Mud 9.5 over pore 9.0 at 10,000 ft: 259.7 psi. MAASP (16 − 9.5)·0.0519481·6,000 = 2,026.0 psi."""
    evaluation = run(strings())
    assert evaluation.mud.strings[3].overbalance_psi == pytest.approx(259.7, abs=0.1)
    assert evaluation.depths.strings[2].kick.maasp_psi == pytest.approx(2026.0, abs=0.1)


def test_wellhead_and_stacks_by_hand():
    """Pore 9.0 at 10,000 ft less gas: 3,675 psi on 9 5/8 in: 5,000 class. On 13 3/8 in the formation
    feeds 2,205 from 6,000 ft, but the shoe breaks at 16.0·0.0519481·2,000 − 200 = 1,462: 2,000 class.

    Cellar 10 ft: 120 − (22 + 24 + 24 + 0.19 + 0.16) + 4.5 = 54.15 in; conductor 54.15 − 4.5 − 2 = 47.65 in.
    """
    document = strings(site__cellar_depth_ft=10.0)
    evaluation = run(document)
    assert surface_psi(document, 1) == pytest.approx(1462.3, abs=0.1)
    assert [p.top_psi for p in evaluation.wellhead.pieces] == [2000.0, 5000.0, 5000.0]
    assert [p.bore_in for p in evaluation.wellhead.pieces] == [13.625, 11.0, 7.0625]
    assert [p.bottom_psi for p in evaluation.wellhead.pieces] == [None, 2000.0, 5000.0]
    assert evaluation.wellhead.surface_cut_in == pytest.approx(54.15)
    assert evaluation.wellhead.conductor_cut_in == pytest.approx(47.65)
    stacks = evaluation.preventers.strings
    assert [s.class_psi for s in stacks] == [None, 2000.0, 5000.0, 5000.0]
    assert [e.element for e in stacks[2].elements] == [
        "pipe rams",
        "drilling spool",
        "blind shear rams",
        "variable rams",
        "annular",
    ]
    assert stacks[2].height_in == 50 + 30 + 36 + 30 + 30


def test_kick_remedy_on_a_proposal_adopts_it():
    document = empty_demo()
    document["policy"] = {"depths": {"kick_minimums": [{"from_hole_in": 1.0, "volume_bbl": 25.0}]}}
    base = run(document)
    assert not find(base, "depths")
    assert all(s.proposed for s in base.strings)


def test_demo_carries_its_findings_and_nothing_unknown():
    evaluation = run(demo())
    found = [(f.severity, f.step) for f in evaluation.findings if f.severity != "note"]
    assert found == [
        ("stop", "running"),
        ("stop", "cement"),
        ("stop", "runsheet"),
        ("caution", "mud"),
        ("caution", "cement"),
    ]
    assert {p.step: p.state for p in evaluation.path} == {
        "ground": "good",
        "depths": "good",
        "sizes": "good",
        "mud": "caution",
        "pipe": "good",
        "running": "stop",
        "cement": "stop",
        "wellhead": "good",
        "preventers": "good",
        "completion": "good",
        "drills": "good",
        "runsheet": "stop",
        "logbook": "blank",
    }


MISSING = [
    ("ground__pore", [], {"ground", "depths", "mud", "pipe", "wellhead", "preventers"}),
    ("ground__fracture", [], {"ground", "depths", "mud", "cement", "pipe", "wellhead", "preventers"}),
    ("ground__pore", points((30, 9), (7000, 9)), {"ground", "depths", "mud", "pipe", "wellhead"}),
    ("ground__zones", [], {"ground"}),
    ("site__h2s_ppm", None, {"pipe"}),
    ("site__rotary_room_ft", None, {"preventers"}),
    ("site__setting", "subsea", {"cement", "preventers", "sea"}),
    ("site__setting", "platform", {"wellhead"}),
    ("strings__3__od_in", 6.123, {"sizes", "cement"}),
    ("strings__2__pipe", {"weight_ppf": 99.0, "grade": "L80", "connection": "BTC"}, {"pipe", "cement"}),
]


@pytest.mark.parametrize(("path", "value", "steps"), MISSING, ids=[f"{p}={str(v)[:20]}" for p, v, _ in MISSING])
def test_missing_data_is_never_good_news(path, value, steps):
    states = {p.step: p.state for p in run(strings(**{path: value})).path}
    assert {step for step in steps if states[step] not in ("incomplete", "stop")} == set()


def test_a_well_without_conductor_is_judged_from_its_first_string():
    document = strings()
    del document["strings"][0]
    document["ground"]["zones"] = [{"name": "W", "top_tvd_ft": 200.0, "base_tvd_ft": 2500.0, "fluid": "fresh water"}]
    evaluation = run(document)
    assert evaluation.mud.strings[0].lower.mud_ppg == pytest.approx(9.3)
    assert "Fresh water down to 2,500 ft" in plain(find(evaluation, "depths", "stop")[0].message)
    assert len(evaluation.wellhead.pieces) == 3


def test_a_string_that_spends_itself_in_tension_has_no_collapse():
    """26,000 ft of H40 hangs at more than 0.9 of its yield: collapse is unknown there, and tension fails."""
    document = strings(trajectory__stations=[{"md_ft": 0.0}, {"md_ft": 26_000.0}])
    document["ground"] = {"pore": points((30, 9), (26_000, 9)), "fracture": points((30, 16), (26_000, 16)), "zones": []}
    pipe = {"weight_ppf": 20.0, "grade": "H40", "connection": "STC"}
    document["strings"][3].update(shoe_md_ft=26_000.0, od_in=7.0, bit_in=8.5, pipe=pipe)
    evaluation = run(document)
    assert "collapse" not in {load.kind for load in evaluation.pipe.strings[3].loads}
    texts = [plain(f.message) for f in find(evaluation, "pipe") if f.place.startswith("/strings/3")]
    assert any(t.startswith("Collapse is unknown") for t in texts)
    assert any(": tension factor is 0." in t for t in texts)


def test_a_liner_hung_below_the_shoe_above_is_stopped():
    document = strings(strings__3__run="liner", strings__3__hanger_md_ft=6100.0)
    assert "not inside the string above" in plain(find(run(document), "pipe", "stop")[0].message)


def test_subsea_and_liner_documents_are_evaluated_and_say_what_is_not_given():
    document = strings(site__setting="subsea", strings__3__run="liner", strings__3__hanger_md_ft=5700.0)
    document["site"]["water_depth_ft"] = 60.0
    evaluation = run(document)
    unknown = {f.place for f in evaluation.findings if f.severity == "unknown"}
    assert {"/sea/soil", "/sea/riser/moon_pool_ft"} <= unknown
    assert not [f for f in evaluation.findings if "as on land" in plain(f.message)]
    assert [s.top_md_ft for s in evaluation.strings[:3]] == [90.0] * 3, "hung at the sea floor"
    assert evaluation.strings[3].top_md_ft == 5700.0
    assert evaluation.cement.strings[3].top_md_ft == 5700.0
    assert math.isfinite(evaluation.cement.strings[3].displacement_bbl)


def test_a_conductor_is_judged_by_its_own_rule():
    document = demo()
    document["strings"][0] |= {"shoe_md_ft": 90.0, "run": "jetted"}
    found = [f for f in find(run(document), "depths") if f.place == "/strings/0/shoe_md_ft"]
    assert [f.severity for f in found] == ["stop", "caution"]
    assert plain(found[0].message) == "The conductor is set at 90 ft. Policy asks at least 80 ft below the ground."
    mended = applied(document, found[0].remedies[0].changes)
    assert [f.severity for f in find(run(mended), "depths") if f.place == "/strings/0/shoe_md_ft"] == ["caution"]


def test_what_follows_from_each_zone_is_said():
    notes = [(n.index, plain(n.text)) for n in run(demo()).depths.zone_notes]
    assert notes == [
        (1, "Fresh water: the first shoe below the conductor is set at 1,280 ft TVD or deeper."),
        (1, "Permeable: overbalance up to 2,000 psi, lest the pipe sticks."),
        (3, "No shoe between 3,350 ft and 4,170 ft TVD."),
        (3, "Losses: casing below is judged for the mud level that this zone leaves."),
        (5, "No shoe between 8,240 ft and 8,650 ft TVD."),
        (5, "Permeable: overbalance up to 2,000 psi, lest the pipe sticks."),
        (7, "Permeable: overbalance up to 3,000 psi, lest the pipe sticks."),
    ]
