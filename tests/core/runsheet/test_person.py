"""What a person does with the sheet survives a change of the design; what has lost its place is told."""

import pytest

from knollstack.core.base.units import plain
from tests.core.runsheet.wells import demo_well, edits, keys, line_of, with_sheet
from tests.helpers import find, run


def own(number, after, **more):
    return {"id": f"x{number}", "text": f"Own {number}", "kind": "drilling", "after": after, **more}


def after(document, key):
    held = keys(run(document))
    return held[held.index(key) + 1]


def test_own_steps_stand_behind_the_steps_they_follow_in_their_order():
    document = with_sheet(
        steps=[own(1, "s3/leak-off"), own(2, "s3/leak-off"), own(3, "own/x2"), own(4, "end/hand-over")]
    )
    held = keys(run(document))
    at = held.index("s3/leak-off")
    assert held[at + 1 : at + 4] == ["own/x1", "own/x2", "own/x3"]
    assert held[-1] == "own/x4"


def test_an_own_step_goes_where_its_step_goes_when_the_design_changes():
    document = with_sheet(steps=[own(1, "s3/leak-off")])
    document["strings"][1]["shoe_md_ft"] = 2400.0
    document["strings"][2]["mud_ppg"] = 9.4
    document["trajectory"]["stations"][-1]["md_ft"] = 12_900.0
    assert after(document, "s3/leak-off") == "own/x1"


def test_a_step_whose_string_is_gone_stands_at_the_end_of_its_section_and_is_told():
    document = with_sheet(steps=[own(1, "s3/trip/9"), own(2, "s9/drill/0")])
    held = run(document)
    assert line_of(held, "own/x1").unplaced
    found = keys(held)
    assert found[found.index("own/x1") - 1] == "s3/bushing-in", "the last of its section"
    assert found[-1] == "own/x2"
    notes = [plain(f.message) for f in find(held, "runsheet", "note")]
    assert notes == ["The step that it followed is not in the sheet any more: it stands at the end of its section."] * 2


def test_a_step_moved_crossed_out_timed_noted_and_done():
    rows = edits(
        {"step": "s3/watch", "after": "s3/drill/0"},
        {"step": "s2/cup", "crossed": True},
        {"step": "s2/nipple-up", "hours": 20.0},
        {"step": "s2/off", "note": "crane by noon", "done": True, "done_by": "A. Hand"},
    )
    judged = run(with_sheet(edits=rows))
    assert after(with_sheet(edits=rows), "s3/drill/0") == "s3/watch"
    assert line_of(judged, "s3/watch").moved
    assert line_of(judged, "s2/cup").crossed
    assert (line_of(judged, "s2/nipple-up").hours, line_of(judged, "s2/nipple-up").given) == (20.0, True)
    noted = line_of(judged, "s2/off")
    assert (noted.note, noted.done, noted.done_by) == ("crane by noon", True, "A. Hand")
    assert "s2/cup" not in {slot.line.key for slot in judged.sheet().schedule.slots}, (
        "what is crossed out takes no time"
    )


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ({"step": "s3/trip/77", "note": "x"}, "The step that this was written to is not in the sheet now"),
        ({"step": "s3/watch", "after": "s9/drill/0"}, "The step that it was moved after is not in the sheet now"),
    ],
)
def test_an_edit_without_its_step_is_kept_and_told(row, words):
    (finding,) = find(run(with_sheet(edits=edits(row))), "runsheet", "note")
    assert plain(finding.message).startswith(words)
    assert finding.place == "/runsheet/edits/0"


@pytest.mark.parametrize("rate", [{"string": "s9", "zone": None}, {"string": "s3", "zone": "z99"}])
def test_a_rate_of_what_is_not_there_is_told(rate):
    (finding,) = find(run(with_sheet(rates=[{"id": "r1", "ft_hour": 9.0, **rate}])), "runsheet", "note")
    assert finding.place == "/runsheet/rates/0"


def test_a_moved_step_may_stand_first_among_what_comes_before_the_spud():
    document = with_sheet(edits=edits({"step": "site/meeting", "after": ""}))
    assert keys(run(document))[0] == "site/meeting"


def test_nothing_is_said_of_a_well_without_strings():
    document = demo_well()
    document["strings"] = []
    document["ground"] = {}
    judged = run(document)
    assert (judged.runsheet.steps, judged.runsheet.days) == (0, None)
    assert {p.step: p.state for p in judged.path}["runsheet"] == "blank"
    assert judged.detail().lines == ()
