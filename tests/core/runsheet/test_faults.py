"""Bad input of a run sheet: one message a fault, at its place."""

import pytest

from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.evaluate import workings
from knollstack.core.reading.read import parse
from tests.core.runsheet.wells import demo_well, edits, with_sheet
from tests.helpers import CATALOGUE, run


def faults(**parts):
    with pytest.raises(FaultyDesign) as caught:
        parse(with_sheet(**parts))
    return [(f.path, f.value, f.expected) for f in caught.value.faults]


OWN = {"id": "x1", "text": "Circulate", "kind": "drilling"}


@pytest.mark.parametrize(
    ("parts", "place", "value", "expected"),
    [
        ({"spud": "2027-02-30"}, "/runsheet/spud", "2027-02-30", "a date of the calendar, YYYY-MM-DD"),
        ({"rates": [{"id": "r", "string": "s3", "ft_hour": 0.0}]}, "/runsheet/rates/0/ft_hour", "0.0", "at least 0.5 ft/h"),
        ({"orders": [{"id": "o", "item": "tree", "lead_days": -3}]}, "/runsheet/orders/0/lead_days", "-3", "at least 0"),
        ({"orders": [{"id": "o", "item": "tree", "ordered": "2027-13-01"}]}, "/runsheet/orders/0/ordered", "2027-13-01", ""),
        ({"steps": [OWN | {"after": "site/meeting"}]}, "/runsheet/steps/0/after", "site/meeting", "after the spud: drilling"),
        ({"steps": [OWN | {"after": ""}]}, "/runsheet/steps/0/after", "the beginning", "a place after the spud"),
        ({"steps": [OWN | {"after": "own/x1"}]}, "/runsheet/steps/0/after", "own/x1", "a step that does not follow this one"),
        ({"edits": edits({"step": "s2/drill/0", "after": "site/rig"})}, "/runsheet/edits/0/after", "site/rig", "after the spud"),
        (
            {"edits": edits({"step": "s2/cup"}, {"step": "s2/cup"})},
            *("/runsheet/edits/1/step", "s2/cup", "one row for each"),
        ),
    ],
)  # fmt: skip
def test_one_message_at_its_place(parts, place, value, expected):
    ((path, came, wanted),) = faults(**parts)
    assert (path, came) == (place, value)
    assert expected in wanted


@pytest.mark.parametrize(
    "parts",
    [
        {"spud": "2028-02-29"},
        {"steps": [OWN | {"after": "s2/spud"}]},
        {"steps": [OWN | {"kind": "preparation", "after": "site/meeting"}, {**OWN, "id": "x2", "after": "s2/spud"}]},
        {"edits": edits({"step": "site/flange", "after": "site/rig"})},
        {"rates": [{"id": "r", "string": "s3", "ft_hour": 0.5}]},
        {"orders": [{"id": "o", "item": "tree", "lead_days": 0}]},
    ],
)
def test_what_is_right_passes(parts):
    assert run(with_sheet(**parts)).runsheet.steps > 200


def test_an_own_step_behind_one_before_the_spud_counts_with_it():
    rows = [OWN | {"id": "x1", "kind": "preparation", "after": "site/rig"}, OWN | {"id": "x2", "after": "own/x1"}]
    assert faults(steps=rows)[0][0] == "/runsheet/steps/1/after"


@pytest.mark.parametrize("which", [1, 2, 3])
def test_every_working_that_a_step_names_is_there(which):
    document = demo_well(which)
    known = workings(parse(document), CATALOGUE)
    named = {line.key: line.working for line in run(document).sheet().lines if line.working is not None}
    assert {k: w for k, w in named.items() if w not in known} == {}
    assert len(named) > 60
    assert {k.working for k in run(document).runsheet.kinds} <= set(known)
