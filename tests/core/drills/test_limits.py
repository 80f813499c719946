"""Every rule of shutting in and of the scenes on both sides of its limit: right drills with one thing done otherwise."""

import pytest

from knollstack.core.drills.scoring import outcomes, score
from tests.core.drills.played import at, credits, edit, right, sampled, without


def closed_s(found):
    return found.events[at(found, "close")].at_s


@pytest.mark.parametrize(("late_s", "credit"), [(-1, 1.0), (0, 0.0)])
def test_picked_up_before_the_first_closing(late_s, credit):
    found = right("drilling")
    edit(found, at(found, "pick up"), at_s=closed_s(found) + late_s)
    assert credits(found)["pick up"] == credit
    assert credits(without(found, "pick up"))["pick up"] == 0.0


@pytest.mark.parametrize(
    ("changes", "key", "credit"),
    [
        ({"moved": True}, "pick up", 0.5),
        ({"spm": 0.99}, "pumps off", 1.0),
        ({"spm": 1.0}, "pumps off", 0.0),
        ({"choke_line": True, "choke": 0.01}, "school", 1.0),
        ({"choke_line": True, "choke": 0.011}, "school", 0.0),
        ({"choke_line": False, "choke": 1.0}, "school", 1.0),
        ({"verdict": "no seal"}, "first", 0.0),
        ({"verdict": "no seal"}, "fits", 0.0),
        ({"verdict": "cannot shear"}, "fits", 0.0),
        ({"verdict": "unknown"}, "fits", 0.0),
        ({"verdict": "shears"}, "not sheared", 0.0),
        ({"verdict": "shears and seals"}, "not sheared", 0.0),
        ({"refused": "it is out of service"}, "first", 0.0),
    ],
)
def test_what_stood_around_the_first_closing(changes, key, credit):
    found = right("drilling")
    edit(found, at(found, "close"), **changes)
    assert credits(found)[key] == credit


def test_the_score_is_the_share_of_the_weight_that_was_earned():
    found = right("drilling")
    edit(found, at(found, "close"), moved=True)
    told = outcomes(found)
    assert [o.weight for o in told if o.credit == 0.5] == [8]
    assert score(told) == pytest.approx(100 * (1 - 4 / sum(o.weight for o in told)))
    assert score(()) == 0.0


def test_each_misfit_is_told_in_its_words():
    for verdict, words in (
        ("no seal", "does not seal on"),
        ("cannot shear", "cannot cut"),
        ("unknown", "not known to"),
    ):
        found = right("drilling")
        edit(found, at(found, "close"), verdict=verdict)
        assert words in {o.key: o.done for o in outcomes(found)}["fits"][0]


@pytest.mark.parametrize(
    ("late_s", "changes", "credit"),
    [(0, {}, 1.0), (1, {}, 0.0), (0, {"spm": 0.99}, 1.0), (0, {"spm": 1.0}, 0.0), (0, {"moved": True}, 0.0)],
)
def test_the_flow_check_is_made_at_rest_and_before_closing(late_s, changes, credit):
    found = right("drilling")
    edit(found, at(found, "flow check"), at_s=closed_s(found) + late_s, **changes)
    assert credits(found)["flow check"] == credit


@pytest.mark.parametrize(("late_s", "credit"), [(-1, 0.5), (0, 1.0), (1, 1.0)])
def test_hard_the_choke_line_is_opened_once_the_preventer_closes(late_s, credit):
    found = right("drilling")
    edit(found, at(found, "open choke line"), at_s=closed_s(found) + late_s)
    assert credits(found)["school"] == credit
    assert credits(without(found, "open choke line"))["school"] == 0.5


@pytest.mark.parametrize(
    ("around", "choke", "credit"),
    [
        ({"choke": 0.25}, {}, 1.0),
        ({"choke": 0.24}, {}, 0.0),
        ({"choke_line": False}, {}, 0.0),
        ({}, {"value": 0.01}, 1.0),
        ({}, {"value": 0.011}, 0.5),
        ({}, {"at_s": 1}, 0.5),
    ],
)
def test_soft_the_way_is_open_and_then_closed(around, choke, credit):
    found = right("drilling", shut_in="soft")
    edit(found, at(found, "close"), **around)
    edit(found, at(found, "choke", -1), **choke)
    assert credits(found)["school"] == credit


def test_casing_is_closed_on_by_the_annular_or_by_its_rams():
    found = right("casing")
    ram = next(e.index for e in found.made.setup.elements if e.element == "pipe rams")
    assert credits(edit(found, at(found, "close"), target=ram))["first"] == 1.0
    blind = next(e.index for e in found.made.setup.elements if e.element.startswith("blind"))
    assert credits(edit(found, at(found, "close"), target=blind))["first"] == 0.0


@pytest.mark.parametrize(("late_s", "valve", "slips"), [(0, 1.0, 1.0), (1, 0.5, 0.0)])
def test_valve_and_slips_come_before_the_preventer(late_s, valve, slips):
    found = right("tripping")
    for action in ("close valve", "slips"):
        edit(found, at(found, action), at_s=closed_s(found) + late_s)
    assert (credits(found)["safety valve"], credits(found)["slips"]) == (valve, slips)


@pytest.mark.parametrize(
    ("true", "read", "credit"),
    [
        ({"true_sicp_psi": 1_000.0}, {"sicp_psi": 1_080.0}, 1.0),
        ({"true_sicp_psi": 1_000.0}, {"sicp_psi": 1_081.0}, 0.5),
        ({"true_sicp_psi": 1_000.0}, {"sicp_psi": 919.0}, 0.5),
        ({"true_sicp_psi": 100.0}, {"sicp_psi": 130.0}, 1.0),
        ({"true_sicp_psi": 100.0}, {"sicp_psi": 131.0}, 0.5),
        ({"true_sidpp_psi": 100.0}, {"sidpp_psi": 131.0}, 0.5),
        ({}, {"sidpp_psi": None}, 0.5),
        ({}, {"gain_bbl": None}, 0.5),
        ({"pit_gain_bbl": 10.0}, {"gain_bbl": 12.0}, 1.0),
        ({"pit_gain_bbl": 10.0}, {"gain_bbl": 12.1}, 0.5),
        ({"pit_gain_bbl": 20.0}, {"gain_bbl": 23.0}, 1.0),
        ({"pit_gain_bbl": 20.0}, {"gain_bbl": 23.1}, 0.5),
        ({"settled": False}, {}, 0.25),
    ],
)
def test_what_is_recorded_is_what_stood(true, read, credit):
    found = right("drilling")
    edit(found, at(found, "record"), **true, **read)
    assert credits(found)["recorded"] == credit


def test_the_record_that_counts_is_the_settled_one_and_a_trip_has_no_drill_pipe_pressure():
    found = right("drilling")
    hasty = found.events[at(found, "record")].model_copy(update={"settled": False})
    found.events.insert(at(found, "record"), hasty)
    assert credits(found)["recorded"] == 1.0
    trip = right("tripping")
    assert trip.events[at(trip, "record")].sidpp_psi is None


@pytest.mark.parametrize(
    ("psi", "gas_bbl", "credit"), [(60.0, 0.3, 1.0), (61.0, 0.3, 0.0), (60.0, 0.31, 0.0), (0.0, 5.0, 0.0)]
)
def test_a_well_is_opened_when_it_is_dead(psi, gas_bbl, credit):
    found = right("drilling")
    last = found.samples[-1].at_s
    sampled(found, {"casing_psi": psi, "gas_bbl": gas_bbl})
    sampled(found, {"tight": False}, lambda s: s.at_s == last)
    assert credits(found)["stayed"] == credit


def test_a_leak_is_backed_up_after_it_and_by_what_does_not_leak():
    found = right("failed annular")
    leaking, holding = at(found, "close"), at(found, "close", 1)
    early = edit(right("failed annular"), holding, at_s=found.events[leaking].at_s - 1)
    assert credits(early)["back-up"] == 0.0
    same = edit(right("failed annular"), holding, target=found.events[leaking].target)
    assert credits(same)["back-up"] == 0.0
    assert credits(edit(found, holding, verdict="no seal"))["back-up"] == 0.0


@pytest.mark.parametrize(("late_s", "dropped", "tried"), [(0, 1.0, 0.0), (-1, 0.5, 0.0)])
def test_the_string_is_dropped_after_the_annular_and_before_the_blind_rams(late_s, dropped, tried):
    found = right("unshearable")
    assert credits(found)["tried"] == 1.0
    drop, blind = at(found, "drop"), at(found, "close", 1)
    edit(found, blind, at_s=found.events[drop].at_s + late_s)
    assert credits(found)["dropped"] == dropped
    edit(found, at(found, "close"), at_s=found.events[drop].at_s)
    assert credits(found)["tried"] == tried


@pytest.mark.parametrize(("late_s", "credit"), [(0, 1.0), (1, 0.5)])
def test_casing_is_filled_before_the_well_is_closed(late_s, credit):
    found = right("casing")
    edit(found, at(found, "fill casing"), at_s=closed_s(found) + late_s)
    assert credits(found)["filled"] == credit
    assert credits(without(found, "fill casing"))["filled"] == 0.0


def test_stripping_is_towards_bottom_and_with_the_well_shut_in():
    found = right("swab")
    strip = found.events[at(found, "strip in")]
    begun = next(s.bit_md_ft for s in found.samples if s.at_s >= strip.at_s)
    for went, credit in ((60.0, 1.0), (59.0, 0.5)):
        own = right("swab")
        sampled(own, {"bit_md_ft": own.state.bit_md_ft - went}, lambda s: s.bit_md_ft == begun)
        assert credits(own)["stripped"] == credit
    assert credits(edit(found, at(found, "strip in"), at_s=found.shut_in_s - 1))["stripped"] == 0.0


@pytest.mark.parametrize(("late_s", "credit"), [(0, 1.0), (1, 0.0)])
def test_the_overboard_line_is_open_before_the_diverter_closes(late_s, credit):
    for kind, key in (("diverter", "overboard"), ("gas above", "diverter above")):
        found = right(kind)
        diverter = next(e.index for e in found.made.setup.elements if e.kind == "diverter")
        closing = next(e.at_s for e in found.events if e.action == "close" and e.target == diverter)
        edit(found, at(found, "open overboard"), at_s=closing + late_s)
        assert credits(found)[key] == credit
    only = right("gas above")
    only.events = [e for e in only.events if e.action != "close" or e.target == diverter]
    assert credits(only)["diverter above"] == 0.5


def test_on_the_diverter_the_pumps_stay_at_the_greatest_rate():
    found = right("diverter")
    most = found.made.setup.pumps.most_spm
    after = found.first_sign_s + 120
    for second, share, credit in ((after, 0.0, 1.0), (after + 10, 0.96, 1.0), (after + 10, 0.94, 0.0)):
        own = sampled(right("diverter"), {"spm": share * most}, lambda s, at=second: at - 5 < s.at_s <= at)
        assert credits(own)["full rate"] == credit


def test_on_the_diverter_nothing_shuts_the_well_in():
    found = right("diverter")
    assert credits(found)["never shut"] == 1.0
    assert "rock" not in credits(found), "the shoe does not stand it whatever is done"
    again = right("diverter")
    shut = again.events[at(again, "open overboard")].model_copy(update={"action": "close overboard"})
    again.events.append(shut)
    assert credits(again)["never shut"] == 0.0
    last = found.samples[-1].at_s
    assert credits(sampled(found, {"tight": True}, lambda s: s.at_s == last))["never shut"] == 0.0


def test_the_disconnect_by_its_circles():
    found = right("drift-off")
    start, (yellow, red, _) = found.made.starts_s, found.made.drift
    hang, leave = at(found, "hang off"), at(found, "disconnect")
    cutting = next(i for i, e in enumerate(found.events) if e.verdict == "shears and seals")
    cut = found.events[cutting].at_s
    for second, credit in ((int(start + red), 1.0), (int(start + red) + 1, 0.5)):
        assert credits(edit(right("drift-off"), hang, at_s=second))["secured"] == credit
    for second, credit in ((cut - 1, 1.0), (cut, 0.5)):
        assert credits(edit(right("drift-off"), hang, at_s=second))["cut"] == credit
    for second, credit in ((cut - 1, 0.0), (cut, 1.0)):
        assert credits(edit(right("drift-off"), leave, at_s=second))["cut"] == credit
    least = start + min(yellow, red)
    for second, credit in ((int(least) - 1, 0.0), (int(least) + 1, 1.0)):
        assert credits(edit(right("drift-off"), cutting, at_s=second))["not early"] == credit
