"""Kill sheets by the calculator: vertical, deviated with a tapered string, subsea; workings by key; findings on both sides."""

import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.drills.asked import AskedSheet, asked_of, asked_sheet, asked_workings
from knollstack.core.drills.findings import hole_findings
from knollstack.core.drills.results import ShutIn
from knollstack.core.sea.disconnect import stack_over
from knollstack.demo import documents
from tests.core.drills.wells import DEEP, KPSI, LAND, PLATFORM, demos
from tests.helpers import demo, put, run

BBL = 1029.4
READ = ShutIn(sidpp_psi=260.0, sicp_psi=430.0, gain_bbl=12.0)


def sheet(well, hole, read=READ, md_ft=None):
    return asked_sheet(demos()[well][0], AskedSheet(hole, md_ft, read))


def test_a_vertical_hole_by_hand():
    s = sheet(LAND, "s4")
    string = 12_000 * 4.276**2 / BBL + 600 * 2.8125**2 / BBL
    assert s.string_bbl == pytest.approx(string, rel=1e-4)
    assert s.open_bbl == pytest.approx((600 * (8.5**2 - 6.5**2) + 5_000 * (8.5**2 - 5**2)) / BBL, rel=1e-4)
    bore = {round(r.capacity_bbl_ft * BBL + 25, 2) for r in s.annulus if r.part == ("casing",)}
    assert s.cased_bbl == pytest.approx(7_000 * (bore.pop() - 25) / BBL, rel=1e-4)
    assert s.to_bit == pytest.approx(string / 0.0982, rel=1e-4)
    assert s.kill_ppg == pytest.approx(13.2 + 260 / (KPSI * 12_600))
    assert (s.icp_psi, s.starting_psi) == (605 + 260, 430)
    assert s.fcp_psi == pytest.approx(605 * s.kill_ppg / 13.2)
    assert s.maasp_kill_psi == pytest.approx(KPSI * 7_000 * (s.fracture_ppg - s.kill_ppg))
    height = 12 / ((8.5**2 - 6.5**2) / BBL)
    assert s.influx_ft == pytest.approx(height, rel=1e-4)
    assert s.influx_psi_ft == pytest.approx(KPSI * 13.2 - 170 / height, rel=1e-4)
    counted = [(w.volume_bbl * 1 / 0.0982, w.strokes, w.minutes * 30) for w in s.sums]
    assert [c[1] for c in counted] == pytest.approx(
        [s.to_bit, s.bit_to_shoe, s.bit_to_choke, s.to_bit + s.bit_to_choke]
    )
    assert all(c == pytest.approx((c[1],) * 3) for c in counted)
    rows = [(r.strokes, r.psi) for r in s.schedule]
    assert rows[0] == (0, 865)
    assert rows[-1] == (pytest.approx(s.to_bit), pytest.approx(s.fcp_psi))
    half = s.schedule[5]
    assert half.pumped_bbl == pytest.approx(string / 2, rel=1e-4)
    down = half.front_md_ft
    assert down == pytest.approx(string / 2 / (4.276**2 / BBL), rel=1e-4)
    assert half.psi == pytest.approx(605 + (s.fcp_psi - 605) * down / 12_600 + 260 * (1 - down / 12_600), rel=1e-6)


def stages(method):
    return [(s.title, s.mud_ppg, s.held, s.from_psi, s.to_psi, s.strokes) for s in method.stages]


def test_both_methods_stage_by_stage():
    s = sheet(LAND, "s4")
    driller, weight = s.methods
    out = ("Influx out", 13.2, "drill pipe", s.icp_psi, s.icp_psi, s.bit_to_choke)
    up = ("Kill mud to the choke", s.kill_ppg, "drill pipe", s.fcp_psi, s.fcp_psi, s.bit_to_choke)
    down = ("Kill mud to the bit", s.kill_ppg, "casing", 260.0, 260.0, s.to_bit)
    assert stages(driller) == [out, down, up]
    assert stages(weight) == [("Kill mud to the bit", s.kill_ppg, "drill pipe", s.icp_psi, s.fcp_psi, s.to_bit), up]
    assert driller.minutes == pytest.approx((s.to_bit + 2 * s.bit_to_choke) / 30)
    assert weight.minutes == pytest.approx((s.to_bit + s.bit_to_choke) / 30)
    assert all(x.minutes == pytest.approx(x.strokes / 30) for x in (*driller.stages, *weight.stages))
    friction = demos()[DEEP][0].well.site.choke_line_psi
    assert sheet(DEEP, "s4").methods[0].stages[1].from_psi == pytest.approx(260 - friction), "the choke line rubs"


def with_policy(**drills):
    document = demo()
    document["policy"]["drills"] = drills
    return next(h.sheet for h in run(document).drills.holes if h.id == "s4")


def test_the_margin_of_the_kill_mud_and_what_is_weighted_up():
    plain_sheet, heavy = with_policy(), with_policy(kill_margin_ppg=0.5)
    assert heavy.kill_ppg == pytest.approx(plain_sheet.kill_ppg + 0.5)
    held = heavy.string_bbl + heavy.open_bbl + heavy.cased_bbl
    active = demos()[LAND][0].well.policy.mud.active_volume_bbl
    assert heavy.active_bbl == pytest.approx(held + active)
    assert heavy.barite_lb > 0
    no_heavier = sheet(LAND, "s4", READ.model_copy(update={"sidpp_psi": 0.0}))
    assert (no_heavier.kill_ppg, no_heavier.barite_lb) == (13.2, None)


def test_a_deviated_hole_with_a_tapered_string():
    s, path = sheet(PLATFORM, "s4"), demos()[PLATFORM][0].well.path
    parts = ((7073.72, 4.276), (3500, 3.34), (900, 3.0), (270, 2.8125))
    ends, bbl, md = {}, 0.0, 0.0
    for length, bore in parts:
        bbl, md = bbl + length * bore**2 / BBL, md + length
        ends[round(md, 2)] = bbl
    assert s.string_bbl == pytest.approx(bbl, rel=1e-4)
    assert s.kill_ppg == pytest.approx(11.0 + 260 / (KPSI * path.tvd(11_743.72)))
    turns = [r for r in s.schedule if round(r.front_md_ft, 2) in ends]
    assert len(turns) == 4, "a row where the size changes"
    for row in turns:
        md = round(row.front_md_ft, 2)
        friction = 690 + (s.fcp_psi - 690) * md / 11_743.72
        column = max(0.0, 260 - KPSI * (s.kill_ppg - 11.0) * path.tvd(md))
        assert row.pumped_bbl == pytest.approx(ends[md], rel=1e-4)
        assert row.psi == pytest.approx(friction + column, rel=1e-6)
    plumb = s.schedule[0].psi + (s.schedule[-1].psi - s.schedule[0].psi) * turns[0].front_md_ft / 11_743.72
    assert abs(turns[0].psi - plumb) > 5, "the path is felt"


def test_a_subsea_stack_has_its_choke_line():
    s, equipped = sheet(DEEP, "s4"), demos()[DEEP][0]
    line, friction = s.annulus[-1], equipped.well.site.choke_line_psi
    assert line.part == ("choke line",)
    assert line.volume_bbl == pytest.approx(equipped.well.ground_md_ft * 9 / BBL, rel=1e-4)
    assert s.annulus[-2].top_md_ft == pytest.approx(equipped.well.ground_md_ft), "no riser in the way of the kick"
    assert s.starting_psi == pytest.approx(430 - friction)
    assert sheet(DEEP, "s4", READ.model_copy(update={"sicp_psi": friction - 1})).starting_psi == 0


def test_every_number_of_an_asked_sheet_opens_by_its_key():
    equipped, asked = demos()[LAND][0], AskedSheet("s4", 11_900.5, READ)
    assert asked_of(f"{asked.key}/icp") == asked
    assert asked_of(AskedSheet("s4", None, READ).key) == AskedSheet("s4", None, READ)
    s, workings = asked_sheet(equipped, asked), asked_workings(equipped, asked)
    names = [
        "kill_mud",
        "icp",
        "fcp",
        "maasp",
        "maasp_kill",
        "influx",
        "influx_height",
        "starting",
        "barite",
        "whole",
        "second",
        "driller",
        "weight",
    ]
    keys = [f"{s.working}/{n}" for n in (*names, "to_bit", "bit_to_shoe", "bit_to_choke")]
    keys += [row.working for row in (*s.inside, *s.annulus, *s.schedule)]
    assert [k for k in keys if not workings.get(k)] == []
    assert workings[f"{s.working}/kill_mud"][-1].result == s.kill_ppg
    assert workings[s.schedule[3].working][-1].result == s.schedule[3].psi


@pytest.mark.parametrize(
    "key",
    ["drills/3/sheet", "kill-sheet/s4", "kill-sheet/s4/end/x/1/1", "kill-sheet/s4/end/-1/1/1", "kill-sheet/s4/0/1/1/1"],
)
def test_other_keys_are_of_no_asked_sheet(key):
    assert asked_of(key) is None
    assert asked_of("kill-sheet/s4/end/nan/1/1") is None
    assert asked_of("kill-sheet/s4/end/1/end/1") is None


def found(document, **changes):
    for path, value in changes.items():
        put(document, path.split("__"), value)
    return [(f.severity, plain(f.subject), plain(f.message)) for f in run(document).found("drills")]


def told(rows, words):
    return [severity for severity, _, message in rows if words in message]


def test_kill_mud_over_the_rock_is_a_stop_and_just_under_it_none():
    equipped = demos()[LAND][0]
    well, mud = equipped.well, 13.2
    pore = well.ground.pore.one(12_600.0)
    weakest = min(float(well.ground.fracture.lower_at(z)) for z in (7_000.0, *well.window.depths_ft) if z >= 7_000.0)
    at_limit = weakest - pore
    for intensity, severities in ((at_limit - 0.02, []), (at_limit + 0.02, ["stop"])):
        rows = found(demo(), policy__depths__kick_intensity_ppg=intensity)
        assert told(rows, "is over fracture pressure") == severities, intensity
    assert weakest > mud


def test_a_kick_that_asks_no_heavier_mud_is_no_matter_of_the_rock():
    """The mud itself is judged elsewhere; the least more than it counts."""
    equipped, results = demos()[LAND]
    below, kick = equipped.strings[3], sheet(LAND, "s4")
    stack = stack_over(equipped, results["preventers"], below)
    for kill_ppg, severities in ((16.0, []), (16.01, ["stop"])):
        heavy = kick.model_copy(update={"mud_ppg": 16.0, "kill_ppg": kill_ppg})
        assert kick.fracture_ppg < 16.0
        assert [f.severity for f in hole_findings(equipped, below, heavy, stack)] == severities


def test_choke_line_friction_over_what_stands_on_the_casing_is_told():
    document = json.loads(documents()[3])
    read = next(h.sheet.read for h in demos()[DEEP][1]["drills"].holes if h.id == "s4")
    for friction, severities in ((read.sicp_psi - 1, []), (read.sicp_psi + 1, ["caution"])):
        rows = found(document, site__choke_line_psi=friction)
        here = [r for r in rows if "12 1/4" in r[1]]
        assert told(here, "Friction of the choke line") == severities
    assert told(found(document, site__choke_line_psi=None), "Choke-line friction is not known") == ["unknown"] * 3


@pytest.mark.parametrize(("under_psi", "severities"), [(0.0, []), (1.0, ["stop"])])
def test_casing_pressure_over_the_class_of_the_stack_is_a_stop(under_psi, severities):
    equipped, results = demos()[LAND]
    below = equipped.strings[3]
    kick = sheet(LAND, "s4")
    stack = stack_over(equipped, results["preventers"], below)
    stack = stack.model_copy(update={"class_psi": kick.read.sicp_psi - under_psi})
    assert [f.severity for f in hole_findings(equipped, below, kick, stack)] == severities


def test_what_a_sheet_lacks_is_unknown_and_what_it_estimates_is_assumed():
    bare = demo()
    bare["drills"]["slow"] = []
    judged = run(bare)
    assert judged.found("drills") == []
    assumed = [plain(a.text) for a in judged.judged("drills")[2]]
    assert sum("is estimated from its mud" in a for a in assumed) == 2
    for key in ("reading_300", "reading_600"):
        bare["strings"][3][key] = None
    assert told(found(bare), "Slow pump pressure is neither given") == ["unknown"]
    short = demo()
    short["ground"]["pore"] = [p for p in short["ground"]["pore"] if p["tvd_ft"] < 12_000]
    assert told(found(short), "hole size or bore of the casing above not known") == ["unknown"], "no pipe can be chosen"
    short["strings"][2]["pipe"] = {"weight_ppf": 53.5, "grade": "P110", "connection": "BTC"}
    short["strings"][1]["pipe"] = {"weight_ppf": 68.0, "grade": "N80", "connection": "BTC"}
    assert told(found(short), "pore pressure is not known at total depth") == ["unknown"]


def assumed(document):
    return [plain(a.text) for a in run(document).judged("drills")[2]]


def test_planning_values_of_the_string_and_the_choke_line_are_told():
    """Policy's collars have their bore; without one the usual is taken, and told, unless the string is given as run."""
    document = demo()
    assert [w for w in assumed(document) if "bore" in w] == []
    row = {"pipe_od_in": 5.0, "collar_od_in": 6.5, "collar_length_ft": 600.0}
    document["policy"]["mud"] = {"drill_strings": [{"from_hole_in": 1.0, **row}]}
    told = [f"Collars in the {hole} in hole: bore of 2 13/16 in, a planning value." for hole in ("12 1/4", "8 1/2")]
    assert [w for w in assumed(document) if "bore" in w] == told
    document["drills"]["parts"] = [{"hole": "s4", "od_in": 5.0, "id_in": 4.276}]
    assert [w for w in assumed(document) if "bore" in w] == told[:1]
    line = "Choke line of 3 in bore: a planning value, for its volume and strokes."
    assert assumed(json.loads(documents()[3])).count(line) == 1


def test_rows_of_a_hole_that_is_gone_are_told():
    document = demo()
    document["drills"]["slow"].append({"hole": "s9", "spm": 30.0, "psi": 400.0})
    document["drills"]["parts"] = [{"hole": "s8", "od_in": 5.0, "id_in": 4.276}]
    assert told(found(document), "is no string of this well") == ["caution", "caution"]


def test_the_string_as_run_crosses_the_stack():
    """A tapered string: its pipes, their joints and its collars stand in the coverage of its hole, policy's no more."""
    document = demo()
    document["drills"]["parts"] = [
        {"hole": "s4", "kind": "collars", "od_in": 6.25, "id_in": 2.25, "length_ft": 300.0},
        {"hole": "s4", "od_in": 3.5, "id_in": 2.764, "length_ft": 4000.0, "joint_in": 4.75},
        {"hole": "s4", "od_in": 5.5, "id_in": 4.778},
    ]
    rows = run(document).preventers.strings[2].coverage
    here = [
        (r.kind, r.od_in) for r in rows if plain(r.when) == "8 1/2 in hole" and r.kind not in ("wireline", "nothing")
    ]
    assert here == [
        ("drill pipe", 5.5),
        ("tool joint", 7.0),
        ("drill pipe", 3.5),
        ("tool joint", 4.75),
        ("collars", 6.25),
    ]
    rams = [r.cells for r in rows if (r.kind, r.od_in) == ("drill pipe", 3.5)]
    assert any("seals" in cell for cells in rams for cell in cells[:-1]), "the stack that is proposed closes on it"
