"""Made-up hands over made-up wells: nothing is lost or stands twice, and what is told as broken is what a plain replay finds."""

import json
import random

import pytest

from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse
from knollstack.core.runsheet.changes import line_changes
from tests.core.runsheet.wells import demo_well
from tests.helpers import find, many, run
from tests.legal_wells import legal_well


def well_for(seed):
    """A made-up well, or a demo well where that one has no strings."""
    document = json.loads(parse(legal_well(seed)).model_dump_json())
    document["runsheet"] = {}
    return document if run(document).program.strings else demo_well(1 + seed % 3)


def hand(chance, lines):
    """Steps, mostly those that do something to the well, crossed out, moved, timed, noted and done; own steps behind them."""
    found, acting = [line.key for line in lines], [line.key for line in lines if line.does]
    picked = {
        chance.choice(acting if acting and chance.random() < 0.7 else found) for _ in range(chance.randint(0, 10))
    }
    rows = []
    for k, key in enumerate(sorted(picked)):
        edit = {"id": f"e{k}", "step": key}
        what = chance.choice(["cross", "cross", "move", "move", "time", "note", "done"])
        if what == "move":
            edit["after"] = chance.choice(found)
        edit |= {
            "cross": {"crossed": True},
            "time": {"hours": chance.choice([0.0, 3.0, 90.0])},
            "note": {"note": "look twice"},
            "done": {"done": True, "done_by": "A. Hand"},
        }.get(what, {})
        rows.append(edit)
    behind, own = [*found, "s9/not/there"], []
    for k in range(chance.randint(0, 4)):
        own.append({"id": f"x{k}", "text": f"Own {k}", "kind": "drilling", "after": chance.choice(behind)})
        behind.append(f"own/x{k}")
    return {"edits": rows, "steps": own}


def by_hand(document, seed):
    """The well with a hand that the reader takes: what would stand before the spud is refused there."""
    chance = random.Random(seed)
    lines = run(document).sheet().lines
    found = [line.key for line in lines]
    for _ in range(20):
        edited = document | {"runsheet": hand(chance, lines)}
        try:
            parse(edited)
        except FaultyDesign:
            continue
        return found, edited
    return found, document


@pytest.mark.parametrize("seed", range(many(14)))
def test_no_step_is_lost_or_doubled_and_the_hand_is_where_it_was_laid(seed):
    found, document = by_hand(well_for(seed), seed)
    judged = run(document)
    sheet = judged.sheet()
    lines = {line.key: line for line in sheet.lines}
    own = {f"own/{step['id']}" for step in document["runsheet"].get("steps", [])}
    assert len(lines) == len(sheet.lines)
    hours = {e["step"] for e in document["runsheet"].get("edits", []) if "hours" in e}
    if not hours:  # a time of one's own moves the tests of the BOPs, and with them their steps
        assert lines.keys() == set(found) | own
    for edit in document["runsheet"].get("edits", []):
        line = lines.get(edit["step"])
        if line is not None:
            assert (line.crossed, line.note, line.done) == (
                edit.get("crossed", False),
                edit.get("note", ""),
                edit.get("done", False),
            )
            assert line.hours == edit["hours"] if "hours" in edit else True
    assert {s.line.key for s in sheet.schedule.slots} == {k for k, line in lines.items() if not line.crossed}
    numbers = [row.number for row in judged.detail().lines]
    assert numbers == list(range(1, len(lines) + 1))


def replayed(lines):
    """Steps that break a rule, from the whole history before each: some rules in part, those of `whole` below in full."""
    done = [line for line in lines if not line.crossed]
    told = set()
    for k, line in enumerate(done):
        before = [does for earlier in done[:k] for does in earlier.does]
        for i, (act, at) in enumerate(line.does):
            past = [*before, *line.does[:i]]

            def last(*acts, where=None, past=past):
                return next((a for a, w in reversed(past) if a in acts and (where is None or w == where)), None)

            if act in ("drill", "drill out"):
                bowl = next((w if a == "on" else "" for a, w in reversed(past) if a in ("on", "off")), "")
                if bowl and last("bushing in", "bushing out", where=bowl) != "bushing in":
                    told.add((line.key, "Wear bushing"))
                if bowl and last("on", "tested", "rams changed") != "tested":
                    told.add((line.key, "BOP test"))
                if not any(a == "spud" for a, _ in past):
                    told.add((line.key, "Spud"))
            if act in ("hanger", "plug in") and last("bushing in", "bushing out", where=at) == "bushing in":
                told.add((line.key, "Wear bushing"))
            if act == "off" and ("count", at) not in past:
                told.add((line.key, "Barriers"))
            if act == "plug test" and last("plug in", "plug out", where=at) != "plug in":
                told.add((line.key, "Test plug"))
            if act in ("drill out", "casing test") and ("cemented", at) in past and ("set", at) not in past:
                told.add((line.key, "Cement strength"))
            if act == "run" and ("drill", at) not in past:
                told.add((line.key, "Hole before casing"))
            if act == "cemented" and ("run", at) not in past and ("conductor", at) not in past:
                told.add((line.key, "Casing before cement"))
            if act == "tree on" and last("on", "off") == "on":
                told.add((line.key, "Tree"))
    return told


@pytest.mark.parametrize("seed", range(many(14)))
def test_what_is_told_as_broken_is_what_a_plain_replay_finds(seed):
    _, document = by_hand(well_for(seed), 500 + seed)
    sheet = run(document).sheet()
    told = {(b.key, b.rule.name) for b in sheet.broken}
    found = replayed(sheet.lines)
    assert found <= told
    whole = {"Spud", "Cement strength", "Hole before casing", "Casing before cement", "Tree"}
    assert {row for row in told if row[1] in whole} == {row for row in found if row[1] in whole}


@pytest.mark.parametrize("seed", range(many(8)))
def test_every_stop_of_an_order_rule_says_which_step_and_offers_what_undoes_it(seed):
    _, document = by_hand(well_for(seed), 900 + seed)
    judged = run(document)
    stops = [f for f in find(judged, "runsheet") if f.place.startswith(("/runsheet/edits", "/runsheet/steps"))]
    for finding in stops:
        if finding.severity in ("stop", "caution"):
            assert finding.subject[0].startswith("Step ")
        assert all(change.path.startswith("/runsheet/") for remedy in finding.remedies for change in remedy.changes)


@pytest.mark.parametrize("seed", range(many(8)))
def test_a_hand_is_told_line_by_line_against_the_sheet_as_it_was_issued(seed):
    document = well_for(seed)
    _, edited = by_hand(document, 1300 + seed)
    before, after = run(document).detail().lines, run(edited).detail().lines
    told = {change.key: change.what for change in line_changes(before, after)}
    old, new = {line.key: line for line in before}, {line.key: line for line in after}
    assert {k for k, what in told.items() if what == "new"} == new.keys() - old.keys()
    assert {k for k, what in told.items() if what == "gone"} == old.keys() - new.keys()
    crossed = {k for k in old.keys() & new.keys() if old[k].crossed != new[k].crossed}
    assert crossed <= {k for k, what in told.items() if what == "changed"}
    stayed = [line.key for line in after if line.key in old and told.get(line.key) != "moved"]
    assert stayed == [line.key for line in before if line.key in set(stayed)], (
        "what is not told as moved stands in order"
    )
    assert line_changes(before, before) == ()
