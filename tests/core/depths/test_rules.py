"""Each rule of setting depths against a plain statement of it, and each finding on both sides of its limit."""

import copy
import random

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.depths.kick import kick_drawing
from knollstack.core.depths.remedies import deeper_shoe, mud_fits, other_mud
from knollstack.core.depths.rule import tried
from knollstack.core.depths.rules import depth_rules, kick_rule
from knollstack.core.ground.well import build_well
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from tests.core.depths.test_kick import least
from tests.core.evaluation.test_judging import STRINGS, strings
from tests.helpers import CATALOGUE, applied, find, points, policy, run, well
from tests.random_wells import random_well

C = 12 / 231
ZONES = [
    {"id": "w", "name": "Well sand", "top_tvd_ft": 200.0, "base_tvd_ft": 700.0, "fluid": "fresh water"},
    {"id": "n", "name": "Soft marl", "top_tvd_ft": 3000.0, "base_tvd_ft": 3400.0, "shoe_allowed": False},
    {"id": "c", "name": "Bad shale", "top_tvd_ft": 5000.0, "base_tvd_ft": 5300.0, "case_before_deeper": True},
]


def built(document):
    return build_well(parse(document))


@pytest.mark.parametrize(
    ("rule", "top", "bottom", "holds"),
    [
        ("fresh_water", 800.0, 3000.0, True),
        ("fresh_water", 799.9, 3000.0, False),
        ("no_shoe", 3000.0, 5000.0, True),
        ("no_shoe", 3000.1, 5000.0, False),
        ("no_shoe", 3200.0, 5000.0, False),
        ("no_shoe", 3449.9, 5000.0, False),
        ("no_shoe", 3450.0, 5000.0, True),
        ("case_off", 4000.0, 5600.0, True),
        ("case_off", 4000.0, 5600.1, False),
        ("case_off", 5349.9, 9000.0, False),
        ("case_off", 5350.0, 9000.0, True),
        ("open_hole", 2000.0, 10_000.0, True),
        ("open_hole", 1999.9, 10_000.0, False),
        ("diverter", 150.0, 4030.0, True),
        ("diverter", 150.0, 4030.1, False),
    ],
)
def test_each_rule_on_both_sides_of_its_limit(rule, top, bottom, holds):
    """Cover 100 ft under fresh water, 50 ft under a zone, 300 ft of reach, 8,000 ft of hole, 4,000 ft on the diverter."""
    made = built(well(ground__zones=ZONES))
    assert getattr(depth_rules(made), rule).keeps(top, bottom) is holds


def test_a_shoe_stands_only_where_both_rules_of_its_place_let_it():
    made = built(well(ground__zones=ZONES))
    tops = np.array([700.0, 800.0, 2999.0, 3100.0, 3450.0])
    allowed = depth_rules(made).where_a_shoe_may_stand(tried(made, tops, 9000.0))
    assert allowed.dtype == bool
    assert allowed.tolist() == [False, True, True, False, True]
    marks = depth_rules(made).marks_tvd_ft()
    assert sorted(marks) == [800.0, 3450.0, 5350.0, 5600.0]


def test_words_of_a_rule_name_what_it_asks():
    made = built(well(ground__zones=ZONES))
    rules = depth_rules(made)
    assert plain(rules.case_off.why(4000.0, 6000.0, "Deeper")) == "Bad shale must be cased before drilling deeper."
    above = plain(rules.case_off.why(4000.0, 6000.0, "Shallower"))
    assert above == "Bad shale must be cased, with 50 ft of cover, before drilling deeper."
    assert plain(rules.no_shoe.why(3100.0, 6000.0, "Deeper")) == "No shoe may be set in the rock just below."
    assert plain(rules.no_shoe.why(3100.0, 6000.0, "Shallower")) == "No shoe may be set in the rock just above."
    kick = kick_rule(made, 8.5)
    assert plain(kick.why(1.0, 2.0, "Deeper")) == "Kick tolerance drilling deeper would be under 25.0 bbl."
    assert "under 25.0 bbl any shallower" in plain(kick.why(1.0, 2.0, "Shallower"))
    unknown = built(well(ground__pore=points((30, 9))))
    assert plain(depth_rules(unknown).one_mud.why(1000.0, 2000.0, "Deeper")) == "The mud window is not known above."


@pytest.mark.parametrize("seed", range(12))
def test_one_mud_and_full_gas_hold_where_a_scan_says_so(seed):
    """Window open over the whole hole; and all of its rock over gas from any kick below."""
    document = random_well(100 + seed)
    document["policy"] = policy(kick_criterion="full gas", kick_intensity_ppg=0.3)
    made = built(document)
    chance, total = random.Random(seed), made.path.total_md_ft
    bottom = chance.uniform(0.5, 1.0) * total
    tops = np.array(sorted(chance.uniform(0.05, 0.95) * bottom for _ in range(12)))
    at = tried(made, tops, bottom)
    one_mud, full_gas = depth_rules(made).one_mud.holds(at), kick_rule(made, 8.5).holds(at)
    depths = np.unique(np.concatenate([np.arange(50.0, at.bottom_tvd_ft, 1.0), made.window.depths_ft]))
    for top, mud_ok, gas_ok in zip(at.tops_tvd_ft, one_mud, full_gas, strict=True):
        inside = np.concatenate([[top], depths[(depths > top) & (depths < at.bottom_tvd_ft)], [at.bottom_tvd_ft]])
        room = np.min(made.window.upper_at(inside)) - np.max(made.window.lower_at(inside))
        if abs(room) > 0.01:
            assert mud_ok == (room > 0), (top, room)
        # gas from every kick up to every depth above it, the shoe's own rock and the weakest below it alike
        kick = C * (made.ground.pore.at(inside) + 0.3) * inside - 0.1 * inside
        rock = C * made.ground.fracture.at(inside) * inside - 0.1 * inside
        margin = np.min(rock - np.maximum.accumulate(kick[::-1])[::-1])
        if abs(margin) > 5.0:
            assert gas_ok == (margin > 0), (top, margin)


def test_the_first_casing_must_cover_fresh_water_and_the_remedy_does():
    zones = [ZONES[0] | {"base_tvd_ft": 1900.0}]
    for shoe, told in ((1999.0, True), (2000.0, False)):
        document = strings(ground__zones=zones, strings__1__shoe_md_ft=shoe)
        found = [f for f in find(run(document), "depths", "stop") if "Fresh water" in plain(f.message)]
        assert bool(found) == told
        for finding in found:
            assert (finding.value.value, finding.limit.value) == (shoe, 2000.0)
            assert plain(finding.remedies[0].label) == "Move the shoe to 2,000 ft"
            after = run(applied(document, finding.remedies[0].changes))
            assert not [f for f in find(after, "depths", "stop") if "Fresh water" in plain(f.message)]


@pytest.mark.parametrize(("conductor", "told"), [(299.0, True), (300.0, False)])
def test_fresh_water_asks_for_a_surface_shoe_where_the_conductor_does_not_cover_it(conductor, told):
    """A conductor and the production casing alone, water down to 200 ft with 100 ft of cover."""
    zones = [ZONES[0] | {"top_tvd_ft": 100.0, "base_tvd_ft": 200.0}]
    parts = [STRINGS[0] | {"shoe_md_ft": conductor}, copy.deepcopy(STRINGS[3])]
    document = well(ground__fracture=points((30, 16), (10_000, 16)), ground__zones=zones, strings=parts)
    said = [plain(f.message) for f in find(run(document), "depths", "stop")]
    wanted = (
        "Fresh water down to 200 ft is left open while drilling to 10,000 ft. A surface shoe belongs at 300 ft TVD or"
    )
    assert any(s.startswith(wanted) for s in said) == told


@pytest.mark.parametrize(
    ("shoe", "words"), [(5999.9, None), (6100.0, "in"), (6230.0, "too close below"), (6250.0, None)]
)
def test_a_shoe_in_or_close_below_a_barred_zone_is_told(shoe, words):
    zones = [ZONES[1] | {"top_tvd_ft": 6000.0, "base_tvd_ft": 6200.0}]
    document = strings(ground__zones=zones, strings__2__shoe_md_ft=shoe)
    found = [
        plain(f.message) for f in find(run(document), "depths", "stop") if "no shoe is allowed" in plain(f.message)
    ]
    assert found == ([f"The shoe is set {words} Soft marl, where no shoe is allowed."] if words else [])


@pytest.mark.parametrize(("intermediate", "told"), [(5349.0, True), (5350.0, False), (5600.0, False), (5601.0, True)])
def test_a_zone_to_be_cased_off_has_a_shoe_in_its_band(intermediate, told):
    """Between 5,350 and 5,600 ft; a shoe deeper than that was drilled through the zone from the one above."""
    document = strings(ground__zones=[ZONES[2]], strings__2__shoe_md_ft=intermediate)
    found = [f for f in find(run(document), "depths", "stop") if "left open" in plain(f.message)]
    assert bool(found) == told
    if intermediate < 5350:
        assert found[0].place == "/strings/2/shoe_md_ft"
        assert plain(found[0].remedies[0].label) == "Move the shoe above to 5,350 ft"
    if intermediate > 5600:
        assert found[0].place == "/strings/1/shoe_md_ft"
        assert found[0].remedies == (), "the surface casing is not moved so deep"


@pytest.mark.parametrize(("shoe", "length", "told"), [(2000.0, 8000.0, False), (1990.0, 8010.0, True)])
def test_a_long_open_hole_is_a_caution_with_its_length(shoe, length, told):
    parts = [STRINGS[0], STRINGS[1] | {"shoe_md_ft": shoe}, copy.deepcopy(STRINGS[3])]
    document = well(ground__fracture=points((30, 16), (10_000, 16)), strings=copy.deepcopy(parts))
    found = [f for f in find(run(document), "depths", "caution") if "Open hole" in plain(f.message)]
    assert [(f.value.value, f.limit.value) for f in found] == ([(length, 8000.0)] if told else [])


def test_the_last_shoe_above_total_depth_is_told_with_the_distance():
    found = [f for f in find(run(strings(strings__3__shoe_md_ft=9750.0)), "depths", "caution") if f.remedies]
    assert [plain(f.message) for f in found] == ["The last shoe is 250 ft above total depth."]
    assert plain(found[0].remedies[0].label) == "Set it at total depth, 10,000 ft"
    assert not [f for f in find(run(strings()), "depths", "caution") if "above total depth" in plain(f.message)]


@pytest.mark.parametrize(
    ("setting", "run_as", "told"),
    [("land", "jetted", True), ("land", "driven", False), ("platform", "jetted", True), ("subsea", "jetted", False)],
)
def test_jetting_a_conductor_is_for_a_soft_sea_floor(setting, run_as, told):
    document = strings(strings__0__run=run_as, site__setting=setting)
    if setting != "land":
        document["site"]["water_depth_ft"] = 50.0
    said = [plain(f.message) for f in find(run(document), "depths", "caution")]
    assert any("Jetting a conductor in" in s for s in said) == told


def laid(document):
    found = laid_out(parse(document), CATALOGUE)
    return found.well, found.strings


def test_the_nearest_deeper_shoe_gives_the_volume_and_ten_feet_less_does_not():
    """From 4,003 ft in weak rock: the offered shoe is the first of the tens that tolerates what policy asks."""
    weak = points((30, 12.0), (10_000, 12.0))
    document = strings(ground__fracture=weak, strings__2__shoe_md_ft=4003.0)
    document["policy"] = policy(kick_minimums=[{"from_hole_in": 1.0, "volume_bbl": 60.0}])
    made, found = laid(document)
    offered = deeper_shoe(made, found[2], found[3], 60.0)
    to = offered.changes[0].value
    assert to % 10 == 0
    volumes = [least(made, 8.5, shoe, 9.5, 10_000.0).volume_bbl for shoe in (to - 10.0, to)]
    assert volumes[0] < 60.0 <= volumes[1]
    assert plain(offered.label) == f"Move the shoe {to - 4003:,.0f} ft deeper, to {to:,.0f} ft"
    unlimited = deeper_shoe(made, found[2], found[3], 1e9).changes[0].value
    volumes = [least(made, 8.5, shoe, 9.5, 10_000.0).volume_bbl for shoe in (unlimited - 10.0, unlimited)]
    assert np.isfinite(volumes).tolist() == [True, False], "any volume stands only where the rock limits nothing"
    heavy = laid(
        document | {"strings": [*document["strings"][:2], document["strings"][2] | {"mud_ppg": 8.0}, STRINGS[3]]}
    )
    assert deeper_shoe(heavy[0], heavy[1][2], heavy[1][3], 60.0) is None, "its own section could not be drilled so deep"


def test_other_mud_is_the_nearest_tenth_that_gives_the_volume_inside_the_window():
    weak = points((30, 12.0), (10_000, 12.0))
    document = strings(ground__fracture=weak, strings__2__shoe_md_ft=5000.0)
    made, found = laid(document)

    def volume(mud):
        return least(made, 8.5, 5000.0, mud, 10_000.0).volume_bbl

    more = volume(9.6) > volume(9.5)
    wanted = (volume(9.7) + volume(9.6)) / 2 if more else (volume(9.3) + volume(9.4)) / 2
    offered = other_mud(made, found[2], found[3], wanted)
    assert offered.changes[0].value == pytest.approx(9.7 if more else 9.3)
    assert other_mud(made, found[2], found[3], 1e9) is None
    # pore 9.0 plus 0.3 and fracture 12.0 less 0.3
    fits = [mud_fits(made, 5000.0, 10_000.0, mud) for mud in (9.29, 9.3, 10.0, 11.7, 11.71)]
    assert fits == [False, True, True, True, False]


def test_the_kick_curve_shows_only_what_the_rock_limits():
    made, found = laid(strings(ground__fracture=points((30, 12.0), (10_000, 12.0))))
    drawn = kick_drawing(made, found[2], found[3])
    assert drawn.curve_md_ft[-1] == 10_000.0
    assert list(drawn.curve_md_ft) == sorted(drawn.curve_md_ft)
    assert drawn.curve_md_ft[0] > 6000.0
    for md, bbl in zip(drawn.curve_md_ft[::7], drawn.curve_bbl[::7], strict=True):
        one = least(made, 8.5, 6000.0, 9.5, md).volume_bbl
        assert bbl >= one - 1e-6, "the least of the section to there is no more than a kick from its end"
    assert kick_drawing(made, found[0], found[1]).curve_md_ft == (), "nothing is shut in on a conductor"
    assert kick_drawing(made, found[3], None).curve_md_ft == ()


WEAK_BED = [(30, 14), (7000, 14), (8000, 11), (8500, 14), (10_000, 14)]


@pytest.mark.parametrize(("fracture", "at_shoe"), [([(30, 14), (10_000, 14)], True), (WEAK_BED, False)])
def test_the_weak_point_is_the_shoe_or_named(fracture, at_shoe):
    kick = run(strings(ground__fracture=points(*fracture))).depths.strings[2].kick
    assert kick.weak_is_shoe is at_shoe
    assert kick.weak_md_ft == (6000.0 if at_shoe else 8000.0)


@pytest.mark.parametrize(("limit", "told"), [(1970.0, False), (1969.0, True)])
def test_a_decided_hole_on_the_diverter_keeps_its_limit(limit, told):
    """The surface hole ends at 2,000 ft, 1,970 ft below the ground; the intermediate one has preventers."""
    document = strings(policy__depths__diverter_limit_ft=limit)
    found = [f for f in find(run(document), "depths", "stop") if "on the diverter" in plain(f.message)]
    assert [(f.place, f.value.value, f.limit.value) for f in found] == (
        [("/strings/1/shoe_md_ft", 2000.0, limit + 30.0)] if told else []
    )
    for finding in found:
        after = run(applied(document, finding.remedies[0].changes))
        assert not [f for f in find(after, "depths", "stop") if "on the diverter" in plain(f.message)]


@pytest.mark.parametrize(
    ("fluid", "top", "base", "told"),
    [
        ("gas", 1900.0, 2500.0, True),
        ("oil", 100.0, 200.0, True),
        ("gas", 2000.0, 2500.0, False),
        ("gas", 30.0, 130.0, False),
        ("salt water", 1900.0, 2500.0, False),
    ],
)
def test_marked_hydrocarbons_are_not_drilled_on_the_diverter(fluid, top, base, told):
    zone = {"id": "h", "name": "Show sand", "top_tvd_ft": top, "base_tvd_ft": base, "fluid": fluid}
    found = [plain(f.message) for f in find(run(strings(ground__zones=[zone])), "depths", "stop")]
    assert any(s.startswith(f"Show sand, marked {fluid}, is drilled on the diverter") for s in found) == told


@pytest.mark.parametrize(("weakest", "holds"), [(9.6, True), (9.59, False)])
def test_one_mud_holds_until_the_window_is_shut(weakest, holds):
    """Pore 9.0 asks 9.3; a bed at 7,000 ft that breaks at 9.6 allows just that."""
    bed = points((30, 16), (6900, 16), (7000, weakest), (7100, 16), (10_000, 16))
    rule = depth_rules(built(well(ground__fracture=bed))).one_mud
    assert rule.keeps(6000.0, 8000.0) is holds
    assert rule.keeps(7200.0, 8000.0)
