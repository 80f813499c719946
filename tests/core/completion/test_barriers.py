"""Barriers of every state, worked by hand: each element on both sides of what it is held to, and what that forbids."""

import pytest

from knollstack.core.base.units import plain
from tests.core.completion.wells import counted, gas_well, said, state
from tests.core.sea.wells import deep
from tests.helpers import applied, elements, find, many, points, run
from tests.random_wells import random_well

RAMS = elements("pipe rams", "blind shear rams", "annular")
ONLY = [{"id": "e1", "element": "pipe rams", "size_in": 5.0}]
PPG = 12 / 231


def stack(string, rows, class_psi=5000.0):
    return [{"id": "b1", "string": string, "class_psi": class_psi, "elements": rows}]


def record(element, result="holds", n=1):
    return {"id": f"v{n}", "element": element, "how": "pressure test", "result": result, "date": "2026-03-01"}


def test_the_states_of_a_well_on_land_in_their_order():
    found = run(gas_well()).completion.states
    assert [s.key for s in found] == [
        *("drilling s2", "off s2", "drilling s3", "tripping s3", "running s3", "off s3"),
        *("drilling s4", "tripping s4", "running s4", "off s4", "completing", "tree off", "producing"),
        *("suspended", "plugged", "abandoned"),
    ]
    assert all(s.allowed == "allowed" for s in found)
    assert [plain(s.removal) for s in found if s.removal][:2] == [
        "Nipple down the diverter on 20 in",
        "Nipple down the BOPs on 13 3/8 in",
    ]
    assert {s.key for s in found if not s.stack_on} >= {"off s2", "tree off", "producing", "suspended", "abandoned"}


def test_on_a_diverter_one_barrier_is_what_there_is():
    assert counted(gas_well(), "drilling s2")[:3] == (1, 1, "allowed")
    light = gas_well(strings__1__mud_ppg=8.9)
    assert counted(light, "drilling s2") == (0, 1, "forbidden", ["mud s2"], [])
    text = "1 of 2 barriers. 8.90 ppg fluid inside and outside: 10 psi under the pore pressure."
    removal = "Nipple down the diverter on 20 in is not allowed"
    assert said(light) == [("stop", f"{removal}: {text} The same holds of 1 other state.")]


@pytest.mark.parametrize(("ppg", "count"), [(9.0, 2), (8.99, 1)])
def test_the_column_stands_from_the_pore_pressure_on(ppg, count):
    """9.0 ppg all along: 9.0 balances it, 8.99 is 0.01·10,000·12/231 = 5.2 psi short at the bottom."""
    document = gas_well(strings__3__mud_ppg=ppg)
    assert counted(document, "drilling s4")[:2] == (count, 2)
    assert counted(document, "drilling s3")[:2] == (2, 2), "the hole above has its own mud"
    if count == 1:
        assert plain(state(document, "drilling s4").envelopes[0].elements[0].why) == "5 psi under the pore pressure"


def test_a_step_of_the_pore_pressure_is_held_inside_an_interval():
    """12 ppg from 7,000 to 7,100 ft only: not at either end of the hole."""
    peak = points((30, 9), (6999, 9), (7000, 12), (7100, 12), (7101, 9), (10_000, 9))
    assert counted(gas_well(ground__pore=peak, strings__3__mud_ppg=11.9), "drilling s4")[3] == ["mud s4"]
    assert counted(gas_well(ground__pore=peak, strings__3__mud_ppg=12.0), "drilling s4")[3] == []


def test_lighter_mud_in_the_upper_part_of_a_hole_is_held_there():
    """11 ppg needed from 6,500 ft down to 7,000 ft; the hole is drilled with 10 ppg to 6,400 ft, or to 6,600 ft."""
    peak = points((30, 9), (6499, 9), (6500, 11), (7000, 11), (7001, 9), (10_000, 9))
    for to, short in ((6400.0, []), (6600.0, ["mud s4"])):
        own = {"ground__pore": peak, "strings__3__mud_ppg": 11.5}
        own["strings__3__mud_steps"] = [{"to_md_ft": to, "mud_ppg": 10.0}]
        assert counted(gas_well(**own), "drilling s4")[3] == short


@pytest.mark.parametrize("fluid", [9.0, 9.04, 9.1])
def test_the_completion_fluid_is_held_where_it_is_worst_and_not_at_an_end(fluid):
    """10.0 ppg at 9,000 ft falling to 6 ppg at 9,500: greatest pressure inside, by a scan foot by foot."""
    ground = points((30, 9), (8999, 9), (9000, 9.1), (9250, 9.05), (9500, 6.0), (10_000, 6.0))
    own = {"decision": "complete", "perforated": "before the tubing", "fluid_ppg": fluid}
    document = gas_well(completion=own, ground__pore=ground)
    pore = run(document).program.well.ground.pore
    worst = max(PPG * z * (float(pore.at(float(z))) - fluid) for z in range(9000, 9501))
    assert (counted(document, "completing")[0] == 1) is (worst > 0)


def test_without_the_riser_the_completion_fluid_reaches_up_to_the_sea_floor():
    own = {"decision": "complete", "perforated": "before the tubing", "fluid_ppg": 13.0}
    document = deep(completion=own)
    assert "completion fluid" not in counted(document, "completing")[3]
    assert "completion fluid" in counted(document, "tree off")[3]


def test_the_stack_closes_on_what_is_across_it_then():
    """Pipe rams alone close on drill pipe, and neither on the open hole nor on casing."""
    document = gas_well(preventers=stack("s3", ONLY))
    assert counted(document, "drilling s4") == (2, 2, "allowed", [], [])
    assert counted(document, "tripping s4") == (1, 2, "forbidden", [], ["bops s3"])
    assert counted(document, "running s4")[2] == "forbidden"
    assert counted(document, "drilling s3")[2] == "allowed", "the stack on the 13 3/8 in is another"
    texts = [text for severity, text in said(document) if severity == "stop"]
    assert "1 of 2 barriers. BOPs closed on open hole: no element seals on nothing. The same holds of" in texts[0]


def test_a_class_under_the_pressure_is_no_barrier():
    """Gas of the pay: 9.0·9,000·12/231 less 0.1·9,000 ft, or more from deeper, reaches 3,675 psi at the wellhead."""
    asked = run(gas_well()).preventers.strings[2].pressure_psi
    assert asked == pytest.approx(PPG * 9 * 10_000 - 1000, abs=1)
    for class_psi, allowed in ((5000.0, "allowed"), (3000.0, "forbidden")):
        assert counted(gas_well(preventers=stack("s3", RAMS, class_psi)), "drilling s4")[2] == allowed


@pytest.mark.parametrize(("top", "stands"), [(5900.0, True), (5900.6, False)])
def test_cement_behind_casing_counts_from_its_length_on(top, stands):
    """100 ft over the 9 5/8 in shoe at 6,000 ft."""
    document = gas_well(strings__2__cement={"top_md_ft": top})
    assert (counted(document, "off s3")[3] == []) is stands
    assert (counted(document, "drilling s4")[4] == []) is stands
    wished = gas_well(strings__2__cement={"top_md_ft": 5900.0}, policy__completion={"barrier_cement_ft": 101.0})
    assert counted(wished, "off s3")[3] == ["cement s3"]


@pytest.mark.parametrize(("top", "stands"), [(8900.0, True), (8901.0, False)])
def test_cement_covers_the_pay_behind_it(top, stands):
    document = gas_well(strings__3__cement={"top_md_ft": top}, completion__packer_md_ft=8990.0)
    short = counted(document, "completing")[3]
    assert short == ([] if stands else ["cement s4"])


def test_cement_inside_is_what_the_plug_leaves():
    """By an inner string no shoe track is left: with the BOPs off the fluid alone stands."""
    inner = gas_well(strings__2__cement={"top_md_ft": 1500.0, "form": "inner string"})
    assert counted(inner, "off s3") == (1, 2, "forbidden", ["track s3"], [])
    removal = "Nipple down the BOPs on 13 3/8 in is not allowed: 1 of 2 barriers. 9 5/8 in shoe track and float: "
    assert any(text.startswith(removal) for _, text in said(inner, "stop"))


def test_one_head_that_holds_both_strings_leaves_the_stack_on():
    document = gas_well(policy__wellhead={"arrangement": "multi-bowl head"})
    assert "off s3" not in [s.key for s in run(document).completion.states]
    assert "off s2" in [s.key for s in run(document).completion.states], "the diverter comes off all the same"


@pytest.mark.parametrize(("ppg", "count"), [(9.0, 2), (8.9, 1)])
def test_perforated_under_the_bops_the_fluid_holds_the_formation(ppg, count):
    own = {"decision": "complete", "perforated": "before the tubing", "fluid_ppg": ppg}
    document = gas_well(completion=own)
    assert counted(document, "completing")[0] == count
    assert counted(document, "tree off")[0] == count
    own["perforated"] = "through the tubing"
    assert counted(gas_well(completion=own), "completing")[0] == 2, "casing and cement are not open then"


def test_before_the_bops_come_off_the_back_pressure_valve_is_in():
    without = gas_well(completion__back_pressure_valve=False)
    assert counted(without, "tree off") == (1, 2, "forbidden", [], ["back-pressure valve"])
    assert counted(without, "producing")[2] == "allowed", "it is out again by then"
    assert any("Nipple down the BOPs on 7 in is not allowed" in text for _, text in said(without, "stop"))


def test_a_producing_well_has_a_valve_that_shuts_by_itself_and_cement_at_its_packer():
    assert counted(gas_well(completion__tree={"safety_valves": 0}), "producing")[3] == ["tree safety valve"]
    assert counted(gas_well(completion__tree={"class_psi": 3000.0}), "producing")[3:] == (
        ["tree safety valve"],
        ["tree valves"],
    )
    # cement from 5,500 ft: a packer at 5,600 ft has its 100 ft over it, one at 5,599 ft has 99
    assert counted(gas_well(completion__packer_md_ft=5600.0), "producing")[4] == []
    assert counted(gas_well(completion__packer_md_ft=5599.0), "producing")[4] == ["cement s4 above the packer"]
    assert counted(gas_well(completion__packer_md_ft=5499.0), "producing")[3] == ["packer"]


@pytest.mark.parametrize("key", ["tubing", "casing s4", "tree valves"])
def test_what_is_recorded_as_leaking_stands_no_more(key):
    leaking = gas_well(completion__verified=[record(key), record(key, "leaks", 2)])
    assert counted(leaking, "producing")[2] == "forbidden"
    assert any(e.state == "failed" for v in state(leaking, "producing").envelopes for e in v.elements if e.key == key)
    mended = gas_well(completion__verified=[record(key, "leaks"), record(key, "holds", 2)])
    assert counted(mended, "producing")[2] == "allowed", "the last record counts"
    row = next(e for v in state(mended, "producing").envelopes for e in v.elements if e.key == key)
    assert (row.state, plain(row.said)) == ("verified", "pressure test, 2026-03-01")
    assert state(mended, "producing").verified == 0, "the others of its envelope are not"
    keys = [e.key for e in state(mended, "producing").envelopes[0].elements]
    whole = gas_well(completion__verified=[record(k, n=n) for n, k in enumerate(keys)])
    assert state(whole, "producing").verified == 1


def test_a_record_of_nothing_is_told_and_removed():
    stray = gas_well(completion__verified=[record("casing s9"), record("casing s3", n=2)])
    (finding,) = [f for f in find(run(stray), "completion", "caution") if "/verified/" in f.place]
    assert finding.place == "/completion/verified/0/element"
    mended = applied(stray, finding.remedies[0].changes)
    assert [v["id"] for v in mended["completion"]["verified"]] == ["v2"]


def test_what_is_not_known_is_neither_a_barrier_nor_none():
    blind = gas_well(ground__pore=[])
    assert counted(blind, "drilling s4")[2] == "unknown"
    stack_row = state(blind, "drilling s4").envelopes[1].elements[0]
    assert (stack_row.stands, plain(stack_row.why)) == ("unknown", "no stack is known")
    assert {s for s, text in said(blind) if "Known to stand" in text} == {"unknown"}
    rows = elements("annular", "blind shear rams", "pipe rams")
    sea = deep(ground__pore=[], preventers=stack("s2", [row | {"class_psi": 15_000.0} for row in rows], 15_000.0))
    assert counted(sea, "leaving before a storm s3")[:3] == (2, 2, "allowed"), "enough without the column"


def test_only_what_is_decided_is_told():
    document = gas_well(completion__decision=None, completion__back_pressure_valve=False)
    assert [s for s, _ in said(document)] == ["unknown"]
    labels = [plain(r.label) for f in find(run(document), "completion") for r in f.remedies]
    assert labels == ["Suspend it", "Plug and abandon it"], "what has its barriers"
    assert said(gas_well(completion__decision="suspend", completion__back_pressure_valve=False)) == []


def test_states_at_sea_and_with_the_riser_off():
    """The stack stays on the sea floor; what the riser leaves is counted as the step at sea counts it."""
    found = {s.key: s for s in run(deep()).completion.states}
    assert not any(key.startswith("off ") for key in found)
    assert plain(found["drilling s2"].title) == "Drilling 26 in hole, riserless"
    assert plain(found["plugged"].removal) == "Unlatch the riser and recover the stack"
    emergency = found["emergency disconnect s4"]
    assert (emergency.count, emergency.needed, emergency.allowed) == (1, 1, "allowed")
    storm = found["leaving before a storm s3"]
    assert [e.key.split(" ", 5)[-1] for v in storm.envelopes for e in v.elements] == ["blind shear rams", "storm plug"]
    heavy = state(deep(strings__2__mud_ppg=10.89), "leaving before a storm s3").envelopes[0].elements[0]
    assert (plain(heavy.title), heavy.where, heavy.from_md_ft, heavy.to_md_ft) == (
        "mud column",
        "bore",
        4435.0,
        10_700.0,
    )
    wished = deep(policy__sea={"barriers": 3})
    assert [s for s, text in said(wished) if "Riser off" in text] == [], "told by the step at sea"


def test_casing_whose_loads_are_not_all_known_is_unknown():
    document = gas_well(site__bottom_temperature_f=None)
    rows = [e for v in state(document, "producing").envelopes for e in v.elements if e.key == "casing s4"]
    assert [(e.stands, plain(e.why)) for e in rows] == [("unknown", "not all its loads are known")]
    assert counted(document, "producing")[2] == "unknown"
    weak = {"weight_ppf": 23.0, "grade": "K55", "connection": "BTC"}
    short = state(gas_well(strings__3__pipe=weak), "producing").envelopes[1].elements[0]
    assert short.stands == "fails"
    assert "are asked" in plain(short.why)


def test_a_string_without_a_collar_leaves_no_cement_inside():
    document = gas_well(strings__2__running={"collar": "none"})
    found = counted(document, "off s3")
    assert (found[0], found[3]) == (1, ["track s3"])


def test_elements_are_drawn_where_they_stand():
    found = {e.key: e for s in run(gas_well()).completion.states for v in s.envelopes for e in v.elements}
    assert {key: found[key].where for key in ("mud s4", "casing s3", "cement s3", "bops s3", "track s3", "tubing")} == {
        "mud s4": "bore",
        "casing s3": "wall",
        "cement s3": "annulus",
        "bops s3": "top",
        "track s3": "bore",
        "tubing": "wall",
    }
    assert (found["abandonment k1"].where, found["suspension k1"].where) == ("hole", "bore")
    assert (found["cement s3"].from_md_ft, found["cement s3"].to_md_ft) == (1500.0, 6000.0)
    assert (found["mud s4"].from_md_ft, found["mud s4"].to_md_ft) == (30.0, 10_000.0)
    assert plain(found["abandonment k1"].title) == "Pay, 8,900 ft to 9,600 ft"


def test_what_is_put_in_is_listed_for_what_is_decided_alone():
    def assumed(**own):
        document = gas_well(completion=own)
        return sorted(a.place.split("/")[2] for a in run(document).judged("completion")[2])

    both = ["completion"]  # the planning values of policy
    assert assumed(decision=None) == []
    assert assumed(decision="suspend") == [*both, "suspension"]
    assert assumed(decision="plug and abandon") == ["abandonment", *both]
    left = ["completion", "flowing_psi", "fluid_ppg", "packer_md_ft", "perforations", "tubing"]
    assert assumed(decision="complete") == left
    shots = [{"id": "f1", "top_md_ft": 9100.0, "bottom_md_ft": 9200.0}]
    given = {"flowing_psi": 500.0, "fluid_ppg": 9.0, "packer_md_ft": 8900.0, "perforations": shots}
    assert assumed(decision="complete", **given) == ["completion", "tubing"]


def test_more_never_leaves_fewer_and_a_leak_never_more():
    """On made-up wells: each leak recorded lowers no count's neighbours and raises none; heavier mud loses no column."""
    for seed in range(many(4)):
        document = random_well(seed)
        before = {s.key: s for s in run(document).completion.states}
        keys = sorted({e.key for s in before.values() for v in s.envelopes for e in v.elements})
        leaking = document | {"completion": {"verified": [record(keys[seed % len(keys)], "leaks")]}}
        for s in run(leaking).completion.states:
            assert s.count <= before[s.key].count
            assert s.most <= before[s.key].most
            assert (s.allowed == "allowed") == (s.count >= s.needed)
