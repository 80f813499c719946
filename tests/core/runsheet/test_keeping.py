"""Order rules: kept by every sheet that follows by rule, and told where a person's hand breaks one."""

import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.reading.read import parse
from knollstack.core.runsheet.keeping import RULES, broken_rules
from knollstack.core.runsheet.rule import Does, Line
from tests.core.runsheet.wells import broken, demo_well, edits, keys, with_sheet
from tests.helpers import applied, find, many, run
from tests.legal_wells import legal_well


def crossed(*steps):
    return with_sheet(edits=edits(*({"step": step, "crossed": True} for step in steps)))


def moved(step, after):
    return with_sheet(edits=edits({"step": step, "after": after}))


# what is done to the sheet, and the rule that it breaks, where
HAND = [
    (crossed("s3/bushing-out"), ("s3/slips", "Wear bushing", "the wear bushing is still in the bowl")),
    (crossed("s2/bushing-in"), ("s3/drill-out", "Wear bushing", "no wear bushing is in the bowl")),
    (crossed("end/bushing-out"), ("end/land", "Wear bushing", "the wear bushing is still in the bowl")),
    (crossed("s4/due1/bushing-out"), ("s4/due1/plug", "Wear bushing", "the wear bushing is still in the bowl")),
    (crossed("s2/spud"), ("s2/drill/0", "Spud", "the well is not spudded yet")),
    (crossed("s2/count"), ("s2/off", "Barriers", "its barriers are not counted before it")),
    (crossed("end/count"), ("end/tree", "Barriers", "its barriers are not counted before it")),
    (moved("s3/count", "s3/bump/1"), ("s3/count", "Barriers", "cement has not set yet")),
    (crossed("s2/plug"), ("s2/test/e2", "Test plug", "no test plug is in the bowl")),
    (crossed("s2/plug-out"), ("s2/bushing-in", "Test plug", "the test plug is still in the bowl")),
    (crossed("s2/function"), ("s3/drill-out", "BOP test", "the stack is not tested since it was opened")),
    (crossed("s2/prove/1"), ("s2/nipple-up", "Seals of the wellhead", "what it stands on is not tested")),
    (crossed("s2/wait"), ("s2/count", "Barriers", "cement has not set yet")),
    (crossed("s3/wait"), ("s4/casing-test", "Cement strength", "the cement has not set")),
    (crossed("s3/bump/1"), ("s4/drill-out", "Each string cemented before it is drilled out", "the string is not cemented")),
    (crossed("s3/drill-out"), ("s3/new-hole", "Drilled out before it is drilled ahead", "the shoe above is not drilled out")),
    (moved("s2/pipe/1", "s2/bha"), ("s2/pipe/1", "Hole before casing", "its hole is not drilled yet")),
    (crossed("s2/pipe/1"), ("s2/bump/1", "Casing before cement", "the string is not run yet")),
    (crossed("s3/bonnets"), ("s3/pipe/1", "Rams", "nothing is rigged or said to close on it")),
    (crossed("end/off"), ("end/tree", "Tree", "the BOPs are still on")),
]  # fmt: skip


@pytest.mark.parametrize(("document", "told"), HAND, ids=[t[0] + " " + t[1] for _, t in HAND])
def test_a_hand_that_breaks_a_rule_is_told_with_it(document, told):
    assert told in broken(document)
    (finding,) = [f for f in find(run(document), "runsheet", "stop") if f"{told[1]}: {told[2]}" in plain(f.message)][:1]
    (offered,) = finding.remedies
    assert told not in broken(applied(document, offered.changes)), "without the edit the rule is kept"


def test_every_rule_can_be_broken_by_hand():
    names = {rule.name for rule in RULES}
    assert names == {told[1] for _, told in HAND}


def test_casing_rams_that_are_left_in_are_told():
    """One head holds the next string too: the stack stays on, so that its rams have to be changed back."""
    document = demo_well()
    document["wellhead"] = {}
    document["policy"]["wellhead"] = {"arrangement": "multi-bowl head"}
    assert broken(document) == []
    back = with_sheet(document, edits=edits({"step": "s3/rams-back", "crossed": True}))
    assert ("s4/drill-out", "Rams", "casing rams are still in") in broken(back)


def test_what_breaks_nothing_is_not_told():
    """Steps that no rule asks for may go, and steps may change places where nothing hangs on it."""
    assert broken(demo_well()) == []
    assert broken(crossed("s2/cup", "s2/returns", "s3/wiper", "s2/tally")) == []
    assert broken(moved("s2/fill", "s2/hook")) == []


def breaks(*acts):
    lines = [Line(str(k), "BOPs", ("",), "", "preventers", does=(Does(*act),)) for k, act in enumerate(acts)]
    return [(b.key, b.why) for b in broken_rules(lines, 1.0, 336.0)]


def test_a_bushing_goes_in_and_out_in_turn():
    into, out, on, off = ("bushing in", "b"), ("bushing out", "b"), ("on", "b"), ("off", "x")
    count = ("count", "x")
    assert breaks(on, into, out, into, out, count, off) == []
    assert breaks(on, into, into) == [("2", "it is in the bowl already")]
    assert breaks(on, out) == [("1", "there is none in the bowl")]
    assert breaks(on, into, count, off) == [("3", "the wear bushing is still in the bowl"), ("1", "it is never pulled")]
    assert breaks(on, into) == [], "under a stack that stays on it may stay in"


def test_a_test_plug_has_its_valve_open_and_is_out_before_anything_else():
    on, valve, plug, test, out = (
        ("on", "b"),
        ("valve open", "b"),
        ("plug in", "b"),
        ("plug test", "b"),
        ("plug out", "b"),
    )
    count, off = ("count", "x"), ("off", "x")
    assert breaks(on, valve, plug, test, out, ("hanger", "b"), count, off) == []
    assert breaks(on, plug, test, out) == [("2", "the valve below the plug is not open")]
    assert breaks(on, valve, plug, test, out, plug, test) == [("6", "the valve below the plug is not open")]
    assert breaks(on, valve, plug, ("hanger", "b")) == [("3", "the test plug is still in the bowl")]
    assert breaks(on, valve, plug, count, off) == [("4", "the test plug is still in the bowl")]


@pytest.mark.parametrize("act", ["drill out", "casing test"])
def test_cement_has_its_strength_before_it_is_drilled_or_pressed(act):
    cemented = (("spud", "x"), ("conductor", "s"), ("cemented", "s"))
    assert breaks(*cemented, (act, "s")) == [("3", "the cement has not set")]
    assert breaks(*cemented, ("set", "s"), (act, "s")) == []


def test_rams_that_were_changed_are_tested_before_drilling():
    ready = (("spud", "x"), ("on", "b"), ("tested", "b"), ("bushing in", "b"))
    changed, back, drill = ("rams changed", "s"), ("rams back", "s"), ("drill", "s")
    assert breaks(*ready, drill) == []
    assert breaks(*ready, changed, back, drill) == [("6", "the stack is not tested since it was opened")]
    assert breaks(*ready, changed, back, ("tested", "b"), drill) == []


def test_nothing_comes_off_over_cement_that_has_not_set():
    on, count, pipe, cement, off = ("on", "b"), ("count", "x"), ("conductor", "s"), ("cemented", "s"), ("off", "x")
    assert breaks(on, count, pipe, cement, off) == [("4", "cement has not set yet")]
    assert breaks(on, pipe, cement, count, ("set", "s"), off) == [("3", "cement has not set yet")]
    assert breaks(on, pipe, cement, ("set", "s"), count, off) == []


def overdue(hours, lost=1.0):
    """A stack that is tested, then so many hours of work, tested again."""
    rows = [
        (Does("on", "b"), 12.0),
        (Does("tested", "b"), 1.5),
        (Does("drill", "s"), hours),
        (Does("tested", "b"), 5.0),
    ]
    lines = [Line(str(k), "drilling", ("",), "", "mud", hours=h, does=(d,)) for k, (d, h) in enumerate(rows)]
    return [b.key for b in broken_rules(lines, lost, 336.0) if b.rule.name == "BOP test" and "runs out" in b.why]


def test_the_test_of_the_bops_runs_out_after_its_days():
    """14 days are 336 h; lost time counts."""
    assert overdue(336.0) == []
    assert overdue(336.1) == ["2"]
    assert overdue(336.0 / 1.15, 1.15) == []
    assert overdue(336.2 / 1.15, 1.15) == ["2"]


def test_a_step_of_long_work_is_told_where_the_test_runs_out():
    own = {"id": "x1", "text": "Fish", "kind": "drilling", "after": "s4/watch", "hours": 400.0}
    (finding,) = find(run(with_sheet(steps=[own])), "runsheet", "caution")
    assert "Fish" in plain(finding.subject)
    assert plain(finding.message).startswith("BOP test: the test of the BOPs runs out in its time.")
    assert plain(finding.remedies[0].label) == "Take no rig time for the own step"
    assert find(run(with_sheet(steps=[own | {"hours": 20.0}])), "runsheet", "caution") == []


@pytest.mark.parametrize("dozen", range(many(2)))
def test_made_up_wells_break_no_rule_by_rule(dozen):
    """No removal without barriers counted, bushings in and out, each string cemented before it is drilled out, tests due."""
    for seed in range(12 * dozen, 12 * dozen + 12):
        document = legal_well(seed)
        choices = (None, "complete", "suspend", "plug and abandon")
        document.setdefault("completion", {})["decision"] = choices[seed % 4]
        document.setdefault("policy", {}).setdefault("wellhead", {})["arrangement"] = ("spools", "multi-bowl head")[
            seed % 2
        ]
        judged = run(json.loads(parse(document).model_dump_json()))
        if not judged.program.strings:
            continue
        sheet = judged.sheet()
        assert len(set(keys(judged))) == len(sheet.lines), f"{seed}: a key twice"
        assert [b for b in sheet.broken if "runs out" not in b.why] == [], seed
        for line in sheet.lines:
            assert "None" not in plain(line.text), (seed, line.key)
            row = next((at for act, at in line.does if act == "off"), None)
            if row is not None:  # what comes off is held where its barriers are short
                state = next((s for s in judged.completion.states if s.key == row), None)
                assert (line.held is None) == (state is not None and state.allowed == "allowed"), (seed, line.key)
        assert all(slot.slack_hours > -1e-6 for slot in sheet.schedule.slots), seed
        json.dumps(judged.detail().model_dump(mode="json"), allow_nan=False)
