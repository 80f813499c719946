"""Balanced plugs: one by hand, the rock on both sides of its limit, what is wanting and what is at fault."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, find, points, run

OWN = {"id": "b1", "name": "Kick-off", "bottom_md_ft": 8000.0, "top_md_ft": 7500.0, "spacer_bbl": 10.0, "excess": 0.2}


def planned(ground=None, **values):
    document = strings(**({"ground__fracture": ground} if ground else {}))
    document["balanced_plugs"] = [OWN | values]
    return document


def said(document, severity=None):
    return [f for f in find(run(document), "cement", severity) if f.place.startswith("/balanced_plugs")]


def test_a_plug_in_open_hole_by_hand():
    """500 ft of 8 1/2 in hole with 20 % more: 0.0701843·1.2·500 = 42.11 bbl in a hole of 9.311 in.

    5 in drill pipe of 4.276 in bore: 0.0599346 bbl/ft around it and 0.0177619 in it, so 541.9 ft with the pipe in it. Behind
    go 10·0.0177619/0.0599346 = 2.96 bbl of spacer, and 0.0177619·(8,000 − 541.9) − 2.96 = 129.50 bbl of mud.
    Neat slurry of 1.14393 ft³/sk: 206.7 sacks, 24.46 bbl of water.
    """
    row = run(planned()).cement.plugs[0]
    assert row.slurry_bbl == pytest.approx(42.11, abs=0.01)
    assert row.hole_in == pytest.approx(8.5 * 1.2**0.5, abs=1e-3)
    assert row.top_with_pipe_md_ft == pytest.approx(8000 - 541.98, abs=0.3)
    assert row.spacer_behind_bbl == pytest.approx(2.963, abs=0.002)
    assert row.displacement_bbl == pytest.approx(129.50, abs=0.02)
    assert row.sacks == pytest.approx(206.7, abs=0.1)
    assert row.water_bbl == pytest.approx(206.7 * 4.97 / 42, abs=0.02)
    assert row.mud_ppg == 9.5


def test_in_casing_and_across_its_shoe_it_fills_what_is_there():
    """9 5/8 in of 8.681 in bore to 6,000 ft: 0.0732061 bbl/ft; 200 ft of it and 300 ft of 8 1/2 in hole without excess."""
    across = run(planned(bottom_md_ft=6300.0, top_md_ft=5800.0, excess=0.0)).cement.plugs[0]
    assert across.slurry_bbl == pytest.approx(200 * 8.681**2 / 1029.42 + 300 * 8.5**2 / 1029.42, rel=1e-4)
    document = planned(inside="casing", bottom_md_ft=5900.0, top_md_ft=5400.0, pipe_od_in=2.375, pipe_id_in=1.995)
    inside = run(document).cement.plugs[0]
    bore = run(document).pipe.strings[3].sections[0].id_in
    assert inside.slurry_bbl == pytest.approx(500 * bore**2 / 1029.42, rel=1e-4), "the innermost casing, 5 1/2 in"
    assert inside.reached_ppg is None, "no rock is open to it"


def column(z, mud=9.5, spacer=9.5):
    """With the pipe in it: 541.98 ft of 15.823 ppg over 8,000 ft, 10 bbl of spacer over it, mud over and under both."""
    top = 8000 - 541.98
    over = top - 10 / 0.0663774
    more = (15.823 - mud) * min(max(z - top, 0), 541.98) + (spacer - mud) * min(max(z - over, 0), top - over)
    return mud + more / z


@pytest.mark.parametrize(("spare", "stop"), [(0.003, False), (-0.003, True)])
def test_the_rock_bears_it_with_the_pipe_in_it_or_not(spare, stop):
    reached = column(8000.0)
    document = planned(points((30, reached + spare), (10_000, reached + spare)))
    row = run(document).cement.plugs[0]
    assert row.reached_ppg == pytest.approx(reached, abs=1e-3)
    assert row.weakest_md_ft == pytest.approx(8000.0, abs=1e-6)
    found = said(document, "stop")
    assert bool(found) == stop
    if stop:
        assert plain(found[0].remedies[0].label) == "Set the top of the plug at 7,510 ft"
        assert said(applied(document, found[0].remedies[0].changes), "stop") == []


@pytest.mark.parametrize(
    ("values", "place", "words"),
    [
        ({"pipe_od_in": 12.0, "pipe_id_in": 11.0}, "pipe_od_in", "the pipe does not go into the hole"),
        ({"inside": "casing"}, "pipe_od_in", "the pipe does not go into the hole"),  # 5 in pipe in 5 1/2 in casing
        ({"bottom_md_ft": 120.0, "top_md_ft": 20.0}, "bottom_md_ft", "no hole of the program holds it"),
    ],
)
def test_what_is_wanting_for_a_plug_is_told_at_its_place(values, place, words):
    document = planned(**values)
    assert run(document).cement.plugs == (None,)
    (found,) = said(document)
    assert (found.severity, found.place) == ("unknown", f"/balanced_plugs/0/{place}")
    assert words in plain(found.message)


def test_rock_that_is_not_known_leaves_a_plug_unknown():
    document = planned(points((30, 14), (7000, 14)))
    assert run(document).cement.plugs[0].reached_ppg is None
    assert "unknown" in {
        f.severity for f in find(run(document), "cement") if "Whether the rock stands it" in plain(f.message)
    }


def test_a_plug_that_leaves_no_room_for_its_displacement_stops():
    assert "reach over the top of the pipe" in plain(
        said(planned(bottom_md_ft=9000.0, top_md_ft=100.0), "stop")[0].message
    )
    assert said(planned(), "stop") == []


@pytest.mark.parametrize(("bottom", "falls"), [(9979.0, True), (9981.0, False)])
def test_a_plug_off_bottom_on_lighter_mud_falls(bottom, falls):
    document = planned(bottom_md_ft=bottom, top_md_ft=9500.0)
    assert bool(said(document, "note")) == falls
    document["balanced_plugs"][0]["hole_to_md_ft"] = bottom
    assert said(document, "note") == [], "the hole was no deeper then"
    assert said(document | {"balanced_plugs": [document["balanced_plugs"][0] | {"mud_ppg": 15.9}]}, "note") == []


@pytest.mark.parametrize(
    ("values", "place"),
    [
        ({"bottom_md_ft": 10_001.0}, "bottom_md_ft"),
        ({"top_md_ft": 7999.5}, "top_md_ft"),
        ({"top_md_ft": 8200.0}, "top_md_ft"),
    ],
)
def test_a_plug_that_cannot_be_is_refused_at_its_place(values, place):
    with pytest.raises(FaultyDesign) as refused:
        parse(planned(**values))
    assert [f.path for f in refused.value.faults] == [f"/balanced_plugs/0/{place}"]


def test_a_caliper_is_what_the_plug_fills():
    """10 in all along, and 10 % of policy over it: 0.0971421·1.1·500 = 53.43 bbl."""
    document = planned(excess=None)
    document["strings"][3]["cement"] = {"caliper": [{"md_ft": z, "diameter_in": 10.0} for z in (7000.0, 8500.0)]}
    assert run(document).cement.plugs[0].slurry_bbl == pytest.approx(53.43, abs=0.01)
