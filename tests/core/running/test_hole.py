"""Centralizers that cannot be, scratchers, and what sticks while the string is still."""

import pytest

from knollstack.core.base.units import plain
from tests.core.running.wells import cased, row_of, told
from tests.helpers import points

OWN = {"name": "Slim", "kind": "bow spring", "od_in": 9.625}
K = 12 / 231


@pytest.mark.parametrize(
    ("row", "own", "severity", "words"),
    [
        ({"type": "bow spring"}, [], None, "centralizer"),
        ({"type": "Slim"}, [], "caution", "No centralizer"),
        ({"type": "Slim"}, [OWN], "unknown", "restoring force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0}], None, "restoring force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0}], "unknown", "running force"),
        ({"type": "Slim"}, [OWN | {"restoring_lbf": 2000.0, "running_lbf": 300.0}], None, "running force"),
        ({"type": "Slim"}, [OWN | {"od_in": 7.0, "restoring_lbf": 2000.0}], "caution", "No centralizer"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid"}], "unknown", "blade OD"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid", "blade_in": 12.25}], None, "blades"),
        ({"type": "Slim"}, [OWN | {"kind": "rigid", "blade_in": 12.26}], "stop", "blades"),
        ({"base_md_ft": 2000.0}, [], "caution", "ends above"),
    ],
)
def test_centralizers_that_cannot_be_are_told(row, own, severity, words):
    given = {"id": "c1", "type": "bow spring", "top_md_ft": 2000.0, "base_md_ft": 8000.0, **row}
    found = [f for f in told(cased({"centralizers": [given]}, centralizers=own)) if words in plain(f.message)]
    assert sorted({f.severity for f in found}) == ([severity] if severity else [])


def test_a_rigid_centralizer_passes_the_casing_above():
    """Drift of 13 3/8 in 54.5 lb/ft is 12.459 in: blades of that pass, and are too wide for the 12 1/4 in hole alone."""
    given = {"id": "c1", "type": "Slim", "top_md_ft": 2000.0, "base_md_ft": 8000.0}
    for blade, words in ((12.4, ["hole"]), (12.6, ["drift of the casing above", "hole"])):
        own = [OWN | {"kind": "rigid", "blade_in": blade}]
        found = [plain(f.message) for f in told(cased({"centralizers": [given]}, centralizers=own), "stop")]
        assert [
            w for w in ("drift of the casing above", "hole") if any(f"the {w} is" in text for text in found)
        ] == words


SITE = cased()["site"]
SANDS = [
    {"name": "Upper", "top_tvd_ft": 3000.0, "base_tvd_ft": 3100.0, "rock": "sand", "permeable": True},
    {"name": "Tight", "top_tvd_ft": 4000.0, "base_tvd_ft": 5000.0, "rock": "shale", "permeable": False},
    {"name": "Lower", "top_tvd_ft": 6000.0, "base_tvd_ft": 6400.0, "rock": "sand", "permeable": True},
]


def test_scratchers_by_hand():
    """50 ft of cover around 100 and 400 ft: 200 and 500 ft. Reciprocated by 20 ft: 11 and 26; rotated every 5 ft: 41 and 101."""
    document = cased({"scratchers": True}, ground__zones=SANDS)
    assert row_of(document).scratchers == 37
    assert row_of(cased({"scratchers": True, "moved": "rotated"}, ground__zones=SANDS)).scratchers == 142
    still = cased({"scratchers": True, "moved": "held still"}, ground__zones=SANDS)
    assert row_of(still).scratchers == 0
    assert [f.place for f in told(still, "caution")] == ["/strings/2/running/moved"]
    assert row_of(cased(ground__zones=SANDS)).scratchers is None


def sand(name, top, base):
    return {"name": name, "top_tvd_ft": top, "base_tvd_ft": base, "rock": "sand", "permeable": True}


@pytest.mark.parametrize(
    ("zones", "count"),
    [
        ([(3000, 3100), (3160, 3260)], 19),  # 50 ft of cover each: one stretch of 360 ft
        ([(3000, 3100), (3210, 3310)], 22),  # two of 200 ft
        ([(2020, 2100)], 9),  # from the shoe above, 2,000 ft, to 2,150 ft
        ([(7900, 7990)], 9),  # from 7,850 ft to the shoe
    ],
)
def test_stretches_to_be_scratched_meet_and_end_at_the_shoes(zones, count):
    sands = [sand(f"Z{k}", *ends) for k, ends in enumerate(zones)]
    assert row_of(cased({"scratchers": True}, ground__zones=sands)).scratchers == count


def test_sticking_counts_what_stands_in_open_hole():
    """A sand of 1,500 to 3,000 ft under a shoe at 2,000 ft: 1,000 ft, 1 ppg over at 3,000 ft."""
    (zone,) = row_of(cased(ground__zones=[sand("Z", 1500.0, 3000.0)])).sticking
    assert zone.force_lbf == pytest.approx(0.2 * K * 3000 * 12 * 1000 * 2, rel=1e-9)


def test_the_greatest_overbalance_may_lie_between_the_ends_of_a_zone():
    """Pore pressure from 8.1875 ppg by 0.3125 ppg per 1,000 ft: (11.2 − p)·z is greatest at 4,820 ft, 1.50625 ppg over."""
    pore = points(*((z, 8.1875 + 0.0003125 * z) for z in (30.0, 8000.0)))
    document = cased(ground__zones=[sand("Z", 3000.0, 7000.0)], ground__pore=pore, string={"mud_ppg": 11.2})
    (zone,) = row_of(document).sticking
    assert zone.overbalance_psi == pytest.approx(K * 4820 * 1.50625, rel=1e-9)


def test_the_overpull_is_asked_on_both_sides_of_what_sticks_and_centralizers_over_the_whole_zone():
    far = [{"id": "c1", "type": "bow spring", "top_md_ft": 7000.0, "base_md_ft": 8000.0}]
    zones = [sand("Z", 3000.0, 3100.0)]
    row = row_of(cased({"centralizers": far}, ground__zones=zones))
    for more, told_ in ((1.0, []), (-1.0, ["caution"])):
        limit = row.hook_up_lbf + row.sticking[0].force_lbf + more
        document = cased({"centralizers": far}, ground__zones=zones, site=SITE | {"hook_load_limit_lbf": limit})
        assert [f.severity for f in told(document) if "sticks" in plain(f.message)] == told_
    for top, whole in ((2900.0, True), (3060.0, False)):
        near = [far[0] | {"top_md_ft": top}]
        assert row_of(cased({"centralizers": near}, ground__zones=zones)).sticking[0].centralized == whole


def test_sticking_by_hand_and_against_the_overpull():
    """10 ppg over pore 9.0 at 6,400 ft: 332.5 psi; 0.2·332.5·12·400·2 = 638,338 lbf. The rig leaves less than that."""
    far = [{"id": "c1", "type": "bow spring", "top_md_ft": 7000.0, "base_md_ft": 8000.0}]
    site = {**cased()["site"], "hook_load_limit_lbf": 600_000.0}
    document = cased({"centralizers": far}, ground__zones=SANDS, site=site)
    upper, lower = row_of(document).sticking
    assert lower.overbalance_psi == pytest.approx(K * 6400, rel=1e-9)
    assert lower.force_lbf == pytest.approx(0.2 * K * 6400 * 12 * 400 * 2, rel=1e-9)
    assert (upper.zone, lower.centralized) == ("Upper", False)
    left = row_of(document).overpull_left_lbf
    stuck = [plain(f.message).split(",")[0] for f in told(document, "caution") if "sticks" in plain(f.message)]
    assert stuck == [f"Held still across {z.zone}" for z in (upper, lower) if z.force_lbf > left]
    assert stuck == ["Held still across Lower"]
    near = [{"id": "c1", "type": "bow spring", "top_md_ft": 2900.0, "base_md_ft": 8000.0}]
    assert not [
        f for f in told(cased({"centralizers": near}, ground__zones=SANDS, site=site)) if "sticks" in plain(f.message)
    ]


def test_sticking_without_pore_pressure_is_unknown():
    document = cased(ground__zones=SANDS, ground__pore=points((30, 9), (5000, 9)))
    assert "/ground/zones/2/name" in [f.place for f in told(document, "unknown")]
