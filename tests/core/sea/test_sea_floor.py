"""Wellhead, stack and casing runs on the sea floor: their level, one stack for all sections, seats, what passes, landing."""

import math

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.evaluation.evaluate import workings
from knollstack.core.pipe.surface import worst_kick
from knollstack.core.preventers.nitrogen import density_lb_ft3
from knollstack.core.reading.read import parse
from knollstack.core.running.detail import tracks_of
from tests.core.sea.wells import deep
from tests.helpers import CATALOGUE, applied, demo, find, run

BAR = 12 / 231


def test_nothing_is_worked_as_on_land():
    found = [plain(f.message) for f in run(deep()).findings]
    assert not [text for text in found if "as on land" in text or "not worked" in text]


def test_the_pressure_at_the_wellhead_is_the_surface_pressure_and_the_gas_between():
    """Gas from the 20 in shoe: fracture there, less 0.1 psi/ft up to the sea floor and not up to the rig."""
    document = deep()
    evaluation = run(document)
    fracture = 10.8 + (6900 - 6000) / 1600 * 1.1
    limit = BAR * fracture * 6900
    pore = BAR * (8.5 + (10_700 - 7950) / 2850 * 1.4) * 10_700
    gas = evaluation.program.well.policy.pipe.gas_psi_ft
    expected = min(limit - gas * (6900 - 4435), pore - gas * (10_700 - 4435))
    assert evaluation.preventers.strings[1].pressure_psi == pytest.approx(expected, rel=1e-6)
    assert evaluation.wellhead.sea.needed_psi == evaluation.preventers.strings[1].pressure_psi


def test_the_rig_is_told_what_gas_brings_up_to_it():
    """What the stack sees less 4,435 ft of gas; nothing is told of it on land, or of a string that is not drilled through."""
    found = run(deep(policy__pipe={"gas_psi_ft": 0.1, "burst_method": "gas to surface"})).preventers.strings
    for row in found[1:4]:
        assert row.rig_psi == pytest.approx(row.pressure_psi - 0.1 * 4435.0)
    assert found[4].rig_psi is None
    assert {row.rig_psi for row in run(demo()).preventers.strings} == {None}


def test_gas_over_mud_and_a_kick_are_told_at_the_wellhead_too():
    """Gas down to 70 % of the casing below the sea floor, then mud; and a kick at the sea floor on its way out."""
    mud = run(deep(policy__pipe={"burst_method": "gas over mud", "gas_share": 0.7})).preventers.strings[1].pressure_psi
    turn = 4435 + 0.7 * (6900 - 4435)
    fracture = 10.8 + (6900 - 6000) / 1600 * 1.1
    at_turn = BAR * (fracture * 6900 - 10.2 * (6900 - turn))
    z = np.linspace(6900, 10_700, 20_000)
    feeds = np.interp(z, [4435, 7600, 7950, 10_800], [8.38, 8.44, 8.5, 9.9])
    from_rock = float(np.max(BAR * (feeds * z - 10.2 * (z - turn))))
    assert mud == pytest.approx(min(at_turn, from_rock) - 0.1 * (turn - 4435), rel=2e-4)
    program = run(deep(policy__pipe={"burst_method": "kick volume"}))
    kick = worst_kick(program.program.well, program.program.laid.strings[2])
    assert program.preventers.strings[1].pressure_psi == pytest.approx(max(0.0, kick.top_psi(4435.0)))
    assert kick.top_psi(4435.0) != pytest.approx(kick.top_psi(0.0))


def test_without_water_the_level_makes_no_difference():
    """In 0 ft of water the sea floor is the ground: only the air gap is left between the two levels."""
    wet, dry = deep(site__water_depth_ft=0.0, site__rig_floor_ft=0.0), deep(site__water_depth_ft=0.0)
    dry["site"] |= {"setting": "platform", "rig_floor_ft": 0.0}
    a, b = run(wet).preventers.strings, run(dry).preventers.strings
    assert [row.pressure_psi for row in a[1:4]] == [row.pressure_psi for row in b[1:4]]
    closes = [(c.od_in, c.kind) for c in a[2].coverage]
    assert closes == [(c.od_in, c.kind) for c in b[2].coverage]
    for row in a[2].shear:
        element = a[2].elements[row.element]
        on_land = row.force_lbf / element.area_in2 + a[2].pressure_psi / element.closing_ratio
        assert row.needed_psi == pytest.approx(on_land)


def test_one_stack_stands_through_all_sections():
    rows = run(deep()).preventers.strings
    assert rows[0].elements == ()
    assert {tuple(e.element for e in row.elements) for row in rows[1:4]} == {
        (
            "connector",
            "pipe rams",
            "variable rams",
            "variable rams",
            "casing shear rams",
            "blind shear rams",
            "annular",
            "connector",
            "annular",
        )
    }
    assert {row.class_psi for row in rows[1:4]} == {10_000.0}, "the class of the greatest pressure that it ever sees"
    assert {row.bore_in for row in rows[1:4]} == {18.75}
    stack = {
        "id": "b1",
        "string": "s2",
        "class_psi": 15_000.0,
        "elements": [{"id": "e1", "element": "pipe rams"}, {"id": "e2", "element": "annular"}],
    }
    decided = run(deep(preventers=[stack]))
    assert [row.decided for row in decided.preventers.strings] == [False, True, True, True, False]
    lacks = [f for f in find(decided, "preventers", "caution") if "policy asks for" in plain(f.message)]
    assert "casing shear rams" in plain(lacks[0].message)
    mended = run(applied(deep(preventers=[stack]), lacks[0].remedies[0].changes))
    assert not [f for f in find(mended, "preventers", "caution") if "policy asks for" in plain(f.message)]


@pytest.mark.parametrize(("annulars", "told"), [(2, False), (1, True)])
def test_two_annulars_back_each_other_on_casing(annulars, told):
    """No ram is changed for casing on the sea floor."""
    kinds = ["pipe rams", "blind shear rams", *["annular"] * annulars]
    elements = [{"id": f"e{n}", "element": kind} for n, kind in enumerate(kinds)]
    stack = {"id": "b1", "string": "s2", "class_psi": 10_000.0, "elements": elements}
    evaluation = run(deep(preventers=[stack]))
    said = [plain(f.message) for f in find(evaluation, "preventers", "caution")]
    assert bool([text for text in said if text.startswith("13 3/8 in casing: only the annular")]) is told
    assert {row.casing_ram for row in run(deep()).preventers.strings} == {None}


def test_a_stack_on_another_string_is_not_used_on_the_sea_floor():
    stack = {"id": "b1", "string": "s3", "class_psi": 10_000.0, "elements": [{"id": "e1", "element": "annular"}]}
    found = [plain(f.message) for f in find(run(deep(preventers=[stack])), "preventers", "caution")]
    assert "Its string carries no stack, or another one; this one is not used." in found


def test_shear_on_the_sea_floor_by_hand():
    """5 in grade S under the well's 6,796 psi, and 1,932 psi of sea on the other side of the rod."""
    row = next(s for s in run(deep()).preventers.strings[2].shear if plain(s.what).startswith("5 in"))
    program = run(deep()).program
    element = run(deep()).preventers.strings[2].elements[row.element]
    sea = BAR * 8.55 * 4350
    well = max(run(deep()).preventers.strings[2].pressure_psi, BAR * 12.9 * 4435)
    expected = row.force_lbf / element.area_in2 + (well - sea) / element.closing_ratio
    assert row.needed_psi == pytest.approx(expected)
    assert program.well.site.setting == "subsea"


def test_bottles_stand_where_the_stack_does():
    def bottles(**values):
        return run(deep(closing_unit={"operating_psi": 5000.0, **values})).preventers.strings[1].accumulators

    assert bottles() == bottles(place="sea floor")
    assert bottles().bottles_needed > bottles(place="surface").bottles_needed
    allowed = {r.allowed_seconds for r in run(deep()).preventers.strings[1].closing}
    assert allowed == {45.0, 60.0}


def test_bottles_on_the_sea_floor_by_hand():
    """Gas is under the sea's weight as well: real nitrogen charged on deck and cold below, or an ideal gas by policy.

    Beyond 11,900 psi no table of nitrogen is held, and it is worked as an ideal gas.
    """
    sea = 12 / 231 * 8.55 * 4350

    def usable(operating, gas="nitrogen"):
        unit = {"operating_psi": operating, "precharge_psi": 1500.0, "precharge_f": 70.0, "working_f": 40.0}
        unit |= {"gas_volume_gal": 10.0, "place": "sea floor"}
        row = run(deep(closing_unit=unit, policy__preventers={"gas": gas})).preventers.strings[1].accumulators
        return row.usable_gal, row.minimum_psi

    def real(minimum, operating):
        charged = density_lb_ft3(1500.0 + sea, 70.0)
        return 10 * charged * (1 / density_lb_ft3(minimum + sea, 40.0) - 1 / density_lb_ft3(operating + sea, 40.0))

    def ideal(minimum, operating):
        least, most = minimum + sea + 14.7, operating + sea + 14.7
        return 10 * (1500.0 + sea + 14.7) * (1 / least - 1 / most)

    found, minimum = usable(5000.0)
    assert found == pytest.approx(real(minimum, 5000.0))
    assert usable(5000.0, "ideal gas")[0] == pytest.approx(ideal(minimum, 5000.0))
    assert abs(real(minimum, 5000.0) / ideal(minimum, 5000.0) - 1) > 0.05
    edge = 11_900.0 - sea
    assert usable(edge - 1)[0] == pytest.approx(real(minimum, edge - 1))
    assert usable(edge + 1)[0] == pytest.approx(ideal(minimum, edge + 1))


def test_the_stack_must_stand_in_the_moon_pool():
    height = run(deep()).preventers.strings[1].height_in / 12
    for room, expected in ((height + 0.01, []), (height - 0.01, ["stop"]), (None, ["unknown"])):
        found = find(run(deep(sea__riser__moon_pool_ft=room)), "preventers")
        assert [f.severity for f in found if f.place == "/sea/riser/moon_pool_ft"] == expected


def head(document):
    return run(document).wellhead.sea


def said(document, place):
    return [f for f in find(run(document), "wellhead") if f.place == place]


def test_hangers_stack_from_the_lowest_seat_up():
    """Three seats of 22 in under 24 in of the housing, whose top stands 120 in over the mudline."""
    rows = head(deep()).seats
    assert [(row.string, row.seat_in, row.top_in) for row in rows] == [(2, 30, 52), (3, 52, 74), (4, 74, 96)]
    few = deep(sea__housing__seats=2)
    (found,) = said(few, "/sea/housing/seats")
    assert found.severity == "stop"
    assert said(applied(few, found.remedies[0].changes), "/sea/housing/seats") == []
    assert head(few).seats[2].seat_in is None


def test_the_load_shoulder_is_judged_on_both_sides():
    total = sum(row.load_lbf for row in head(deep()).seats)
    for rating, expected in ((total + 1, []), (total - 1, ["stop"])):
        assert [f.severity for f in said(deep(sea__housing__seat_lbf=rating), "/sea/housing/seat_lbf")] == expected


def test_the_class_of_the_housing_is_judged_at_its_level():
    place = "/sea/housing/class_psi"
    most = max(row.needed_psi for row in head(deep()).seats)
    assert head(deep()).class_psi == 10_000
    assert said(deep(sea__housing__class_psi=most), place) == []
    low = deep(sea__housing__class_psi=5000.0)
    (found,) = said(low, place)
    assert plain(found.message).startswith("Pressure at the wellhead on the sea floor reaches")
    assert said(applied(low, found.remedies[0].changes), place) == []


@pytest.mark.parametrize(
    ("key", "value", "place", "told"),
    [
        ("sea__housing__protector_in", 17.5, "/sea/housing/protector_in", False),
        ("sea__housing__protector_in", 17.4, "/sea/housing/protector_in", True),
        ("sea__housing__bore_in", 14.375, "/sea/housing/bore_in", False),
        ("sea__housing__bore_in", 13.625, "/sea/housing/bore_in", True),
    ],
)
def test_what_passes_the_housing(key, value, place, told):
    assert bool(said(deep(**{key: value}), place)) is told


def test_a_lost_seal_leaves_the_cement_or_nothing():
    assert {row.left for row in head(deep()).seats} == {"cement over the shoe"}
    opened = head(deep(strings__2__cement__top_md_ft=6901.0))
    assert opened.seats[0].left == "nothing: open to the rock"
    assert [f.severity for f in said(deep(strings__2__cement__top_md_ft=6901.0), "/strings/2/od_in")] == ["note"]


def test_a_seal_is_tested_over_what_it_sees_within_the_class():
    for row in head(deep()).seats:
        assert row.test_psi == min(10_000, 50 * math.ceil((row.needed_psi + 500) / 50))


def landing(document):
    return {row.string: row for row in run(document).sea.landing}


def test_the_first_casing_is_run_through_open_water():
    """20 in of 169 lb/ft over 2,465 ft and 5 in drill pipe above it, both in sea water, with the drag of its bows: by hand."""
    quiet = deep(policy__running={"friction_cased": 0.0, "friction_open": 0.0})
    row, bows = landing(quiet)[1], run(quiet).running.strings[1].running_force_lbf
    assert row.through == "open water"
    pipe = 3.4 * math.pi / 4 * (5**2 - 4.276**2)
    weight = (169.0 * 2465 + pipe * 4435) * (1 - 8.55 / 65.5) + 90_000
    assert row.hook_lbf == pytest.approx(weight + bows + 13_000, rel=2e-3), "with the high-pressure housing in water"
    heavy = deep(policy__running={"friction_cased": 0.0, "friction_open": 0.0}, strings__1__mud_ppg=10.0)
    assert landing(heavy)[1].hook_lbf == pytest.approx(row.hook_lbf), (
        "the pad mud is below, sea water is in and around it"
    )
    assert {landing(quiet)[i].through for i in (2, 3, 4)} == {"riser"}


def test_heave_is_held_against_hook_and_landing_string():
    rows = landing(deep())
    most = max(row.heaved_lbf for row in rows.values())
    assert rows[2].heaved_lbf == pytest.approx(1.1 * rows[2].hook_lbf)

    def told(document, place):
        return [f.severity for f in find(run(document), "sea") if f.place == place]

    for limit, expected in ((most + 1, []), (most - 1, ["stop"])):
        assert told(deep(site__hook_load_limit_lbf=limit), "/site/hook_load_limit_lbf") == expected
    share = (most - 90_000) / (rows[1].strength_lbf / 0.8)
    for used, expected in ((share * 1.0001, []), (share * 0.9999, ["stop"])):
        assert told(deep(policy__sea={"landing_share": used}), "/policy/mud/drill_strings") == expected


def test_gas_past_the_stack():
    """100 bbl under 12.9 ppg down to the foot of the riser; emptied, the riser sees the whole sea."""
    evaluation = run(deep())
    found, foot = evaluation.sea.diverter, evaluation.sea.riser.foot_md_ft
    at_stack = BAR * 12.9 * foot
    assert found.at_flow_line_bbl == pytest.approx(100 * (at_stack + 14.7) / 14.7)
    assert found.empty_psi == pytest.approx(BAR * 8.55 * (foot - 85))
    place = "/sea/riser/collapse_psi"
    for rated, expected in ((found.empty_psi + 1, []), (found.empty_psi - 1, ["caution"]), (None, ["unknown"])):
        assert [
            f.severity for f in find(run(deep(sea__riser__collapse_psi=rated)), "sea") if f.place == place
        ] == expected


def test_the_housing_hangs_on_the_hook_once_all_joints_are_run():
    """Not on those of the strings that land in it, nor on the pipe that it stands on."""
    light, heavy = (deep(sea__conductor__high_housing_lbf=weight) for weight in (10_000.0, 30_000.0))
    rows = [landing(document) for document in (light, heavy)]
    assert rows[1][1].hook_lbf - rows[0][1].hook_lbf == pytest.approx(20_000.0)
    assert [a.hook_lbf for i, a in rows[0].items() if i > 1] == [b.hook_lbf for i, b in rows[1].items() if i > 1]
    last = workings(parse(heavy), CATALOGUE)["running/1/hook_up"][-1]
    assert last.result == pytest.approx(rows[1][1].hook_lbf), "its working shows it too"
    tracks = [tracks_of(run(document).program, 1).hook for document in (light, heavy)]
    run_ft = 6900.0 - 4435.0
    for before, after, md in zip(tracks[0].up_lbf, tracks[1].up_lbf, tracks[0].shoe_md_ft, strict=True):
        assert after - before == pytest.approx(20_000.0 if md > run_ft + 1 else 0.0)
    for limit, less in ((4_000_000.0, 0.0), (800_000.0, 20_000.0)):  # the pipe leaves the lesser pull, then the rig
        left = [
            run(document | {"site": document["site"] | {"hook_load_limit_lbf": limit}}).running.strings[1]
            for document in (light, heavy)
        ]
        assert left[0].overpull_left_lbf - left[1].overpull_left_lbf == pytest.approx(less)


def test_what_the_bit_runs_through_is_drawn_in_the_housing():
    """The bore protector from the lowest seat up; behind a hanger a wear bushing over its seal, of that casing's bore."""
    found = run(deep())
    sleeves = [next(i for i in moment.items if i.kind == "protector") for moment in found.preventers.moments[:3]]
    seats = {seat.string: seat for seat in found.wellhead.sea.seats}
    assert [s.title for s in sleeves] == ["bore protector", "wear bushing", "wear bushing"]
    assert (sleeves[0].bottom_in, sleeves[0].bore_in) == (seats[2].seat_in, 17.5625)
    for sleeve, index in zip(sleeves[1:], (2, 3), strict=True):
        bore = found.program.strings[index].pipe.id_in
        assert (sleeve.bottom_in, sleeve.bore_in, sleeve.top_in) == (seats[index].top_in, bore, 120.0)
    housing = next(i for i in found.preventers.moments[0].items if i.title == "high-pressure housing")
    assert housing.bottom_in < min(seat.seat_in for seat in seats.values()), "it holds all of its seats"
