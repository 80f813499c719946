"""Plugs that are left in a well: what asks for one, their lengths and volumes by hand, and when one counts as a barrier."""

import pytest

from knollstack.core.base.units import plain
from tests.core.completion.wells import GAS, counted, gas_well, said, state
from tests.core.sea.wells import deep
from tests.helpers import applied, find, points, run

PPG = 12 / 231
ABANDON = {"decision": "plug and abandon"}


def left(document, way="abandonment"):
    return getattr(run(document).completion, way)


def spans(row):
    return [(p.name, p.inside, p.base, p.top_md_ft, p.bottom_md_ft) for p in row.plugs]


def abandoned(plugs=(), **own):
    return gas_well(completion=ABANDON | {"abandonment": {"plugs": list(plugs), **own}})


def plug(number, top, bottom, **own):
    return {"id": f"k{number}", "top_md_ft": top, "bottom_md_ft": bottom, "base": "viscous pill"} | own


ZONE, SHOE = plug(1, 8900.0, 9600.0, name="Pay"), plug(2, 5900.0, 6100.0, name="Shoe")
SURFACE = plug(3, 50.0, 200.0, name="Top", inside="casing", base="mechanical plug", spacer_bbl=0.0)


def test_a_dry_hole_has_three_plugs_by_policy():
    """100 ft over and under the pay and the 9 5/8 in shoe; 150 ft from 20 ft under the ground, which is at 30 ft."""
    row = left(gas_well(completion=ABANDON))
    assert spans(row) == [
        ("Pay", "open hole", "viscous pill", 8900.0, 9600.0),
        ("Shoe plug", "open hole", "viscous pill", 5900.0, 6100.0),
        ("Surface plug", "casing", "mechanical plug", 50.0, 200.0),
    ]
    assert all(need.covered for need in row.needs)
    assert (row.production_run, row.cut_md_ft, row.mud_ppg) == (False, 36.0, 9.5)
    assert [p.model_dump()["id"] for p in row.proposal] == ["k1", "k2", "k3"]
    longer = gas_well(
        completion=ABANDON, policy__completion={"above_ft": 200.0, "below_ft": 150.0, "surface_ft": 300.0}
    )
    assert [s[3:] for s in spans(left(longer))] == [(8800.0, 9650.0), (5800.0, 6150.0), (50.0, 350.0)]


def test_volumes_by_hand():
    """The shoe plug: 100 ft of 8.535 in casing and 100 ft of 8 1/2 in hole with policy's excess, by interval."""
    document = gas_well(completion=ABANDON)
    row = left(document).plugs[1].volumes
    excess = run(document).cement.strings[3].excess
    by_hand = 100 * 8.535**2 / 1029.42 + 100 * 8.5**2 / 1029.42 * (1 + excess)
    assert row.slurry_bbl == pytest.approx(by_hand, rel=1e-4)
    assert row.displacement_bbl > 0
    assert row.mud_ppg == 9.5
    assert left(abandoned(mud_ppg=10.0)).plugs[1].volumes.mud_ppg == 10.0


@pytest.mark.parametrize(
    ("fluid", "pore", "asked"),
    [
        *(("gas", 9.0, True), ("oil", 9.0, True), ("fresh water", 9.0, True)),
        *(("salt water", 9.0, False), ("salt water", 9.01, True), ("none", 9.5, False)),
    ],
)
def test_which_zones_are_isolated(fluid, pore, asked):
    document = gas_well(completion=ABANDON, ground__pore=points((30, pore), (10_000, pore)))
    document["ground"]["zones"] = [GAS | {"fluid": fluid}]
    assert ("Pay" in [s[0] for s in spans(left(document))]) is asked


def test_salt_water_whose_pressure_is_not_known_is_unknown():
    document = gas_well(completion=ABANDON, ground__pore=[])
    document["ground"]["zones"] = [GAS | {"fluid": "salt water"}]
    assert any(s == "unknown" and "Whether it needs a plug is unknown" in text for s, text in said(document))


def test_near_plugs_are_one_and_long_ones_are_parts():
    document = gas_well(completion=ABANDON)
    document["ground"]["zones"] = [GAS | {"top_tvd_ft": 8000.0, "base_tvd_ft": 9500.0}]
    assert [s[3:] for s in spans(left(document))][:2] == [(8750.0, 9600.0), (7900.0, 8750.0)], "1,700 ft in two"
    near = [GAS, GAS | {"id": "z2", "name": "Low", "top_tvd_ft": 9650.0, "base_tvd_ft": 9700.0}]
    document["ground"]["zones"] = near
    assert spans(left(document))[0] == ("Low and Pay", "open hole", "viscous pill", 8900.0, 9800.0)


def test_the_shallowest_zone_that_flows_asks_for_the_plugs():
    """Gas at 9,000 and 7,000 ft: over both stand the plug at 6,900 ft and that of the shoe."""
    document = gas_well(completion=ABANDON)
    high = GAS | {"id": "z2", "name": "High", "top_tvd_ft": 7000.0, "base_tvd_ft": 7100.0}
    document["ground"]["zones"] = [high, GAS]
    assert [s[0] for s in spans(left(document))] == ["Pay", "High", "Shoe plug", "Surface plug"]
    keys = [v.elements[0].key for v in state(document, "plugged").envelopes]
    assert keys == ["abandonment k2", "abandonment k3"]
    apart = {"plugs": [ZONE, SHOE, SURFACE]}
    assert counted(document | {"completion": ABANDON | {"abandonment": apart}}, "plugged")[0] == 1


def test_a_second_plug_where_the_shoe_does_not_hold():
    """Gas of 12.9 ppg under a shoe whose rock stands 14: it breaks there, so a second plug stands right over the first."""
    heavy = {"ground__pore": points((30, 9), (8900, 9), (9000, 12.9), (10_000, 12.9))}
    document = gas_well(completion=ABANDON, ground__fracture=points((30, 14), (10_000, 14)), **heavy)
    reached = PPG * 12.9 * 9000 - 0.1 * (9000 - 6100)
    assert reached > PPG * 14 * 6100
    assert [s[0] for s in spans(left(document))] == ["Pay", "Second plug", "Shoe plug", "Surface plug"]
    assert left(document).plugs[2].counts == "fails"
    # what comes from 9,000 ft is held from 16.2 ppg on at the foot of the shoe plug
    held = reached / (PPG * 6100)
    for ppg, names in ((held + 0.01, 3), (held - 0.01, 4)):
        rock = points((30, ppg), (10_000, ppg))
        assert len(spans(left(gas_well(completion=ABANDON, ground__fracture=rock, **heavy)))) == names


@pytest.mark.parametrize(("top", "count"), [(5900.0, 2), (5900.4, 2), (5901.0, 1), (5950.0, 1)])
def test_a_shoe_plug_counts_with_its_length_over_the_shoe(top, count):
    """What the hand drags: 100 ft over the shoe at 6,000 ft; below that the BOPs may not come off."""
    document = abandoned([ZONE, SHOE | {"top_md_ft": top}, SURFACE])
    assert counted(document, "plugged")[:2] == (count, 2)
    texts = [text for severity, text in said(document) if severity == "stop" and "not allowed" in text]
    assert bool(texts) is (count == 1)
    if texts:
        assert texts[0].startswith("Nipple down the BOPs on 9 5/8 in is not allowed: 1 of 2 barriers. Shoe, ")
        assert "The same holds of 1 other state." in texts[0]


@pytest.mark.parametrize(("top", "count"), [(8900.0, 2), (8910.0, 1)])
def test_the_plug_over_the_pay_stands_so_far_over_it(top, count):
    assert counted(abandoned([ZONE | {"top_md_ft": top}, SHOE, SURFACE]), "plugged")[0] == count


def test_what_is_not_filled_is_told_with_the_proposed_plugs():
    document = abandoned([ZONE | {"bottom_md_ft": 9590.0}, SHOE, SURFACE])
    (finding,) = [f for f in find(run(document), "completion", "stop") if plain(f.subject) == "Pay"]
    assert plain(finding.message) == "Cement is asked from 8,900 ft to 9,600 ft; the plugs do not fill it."
    assert said(applied(document, finding.remedies[0].changes), "stop") == []
    assert find(run(abandoned([ZONE, SHOE, SURFACE])), "completion", "stop") == []


@pytest.mark.parametrize(
    ("bottom", "length", "filled"), [(6000.0, 50.0, True), (5899.0, 50.0, False), (6000.0, 49.0, False)]
)
def test_a_mechanical_plug_over_the_shoe_carries_its_cement(bottom, length, filled):
    own = plug(2, bottom - length, bottom, inside="casing", base="mechanical plug")
    row = left(abandoned([ZONE, own, SURFACE]))
    assert row.needs[1].covered is filled
    assert (row.plugs[1].counts == "stands") is (length >= 50)


def test_a_plug_that_nobody_verifies_or_that_stands_in_bare_casing_is_none():
    bare = left(abandoned([ZONE, SHOE | {"verify": "none"}, SURFACE])).plugs
    assert (bare[1].counts, plain(bare[1].why)) == ("fails", "it is not verified")
    assert (bare[2].counts, plain(bare[2].why)) == ("fails", "no cement stands behind the casing there")
    # the 9 5/8 in is cemented from 1,500 ft down
    deeper = SURFACE | {"top_md_ft": 1400.0, "bottom_md_ft": 1500.0}
    assert left(abandoned([ZONE, SHOE, deeper])).plugs[2].counts == "stands"
    assert left(abandoned([ZONE, SHOE, deeper | {"bottom_md_ft": 1499.0}])).plugs[2].counts == "fails"


def test_a_suspended_well_is_shut_by_its_casing_and_a_shallow_plug():
    """300 ft under the ground on a mechanical plug; perforated, another over the perforations."""
    own = {"decision": "suspend"}
    assert spans(left(gas_well(completion=own), "suspension")) == [
        ("Shallow plug", "casing", "mechanical plug", 280.0, 330.0)
    ]
    assert counted(gas_well(completion=own), "suspended")[:3] == (2, 2, "allowed")
    shots = [{"id": "f1", "top_md_ft": 9100.0, "bottom_md_ft": 9200.0}]
    shot = gas_well(completion=own | {"perforations": shots, "suspension": {"perforated": True}})
    assert spans(left(shot, "suspension"))[0] == ("Perforations", "casing", "viscous pill", 9000.0, 9300.0)
    assert counted(shot, "suspended")[:3] == (2, 2, "allowed")
    uncemented = gas_well(completion=own, strings__3__cement={"top_md_ft": 8950.0})
    assert counted(uncemented, "suspended")[:3] == (1, 2, "forbidden")


def test_a_hole_with_nothing_that_flows_asks_one_barrier_and_an_unknown_one_two():
    dry = gas_well(completion=ABANDON, ground__zones=[GAS | {"fluid": "none"}])
    assert counted(dry, "plugged")[:3] == (1, 1, "allowed")
    assert counted(gas_well(completion=ABANDON, ground__zones=[]), "plugged")[1] == 2


def test_liner_tops_and_what_the_sea_changes():
    """At sea the casing is cut 15 ft under the mudline at 4,435 ft; a liner that is run has a plug over its top."""
    row = left(deep(completion=ABANDON))
    assert (row.cut_md_ft, row.plugs[-1].top_md_ft) == (4450.0, 4455.0)
    run_too = deep(completion=ABANDON | {"abandonment": {"production": "run"}}, strings__4__tie_back=False)
    needs = {plain(n.what): (n.top_md_ft, n.bottom_md_ft) for n in left(run_too).needs}
    assert needs["6 5/8 in liner top"] == (12_600.0, 12_800.0)
    assert "Bryony sand" not in needs


def test_annuli_that_stay_open_are_told():
    assert [text for s, text in said(gas_well(completion=ABANDON), "note")] == [
        "Its annulus is open from 36 ft to 1,500 ft: perforate and circulate cement, or cut and pull it."
    ]
