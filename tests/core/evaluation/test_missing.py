"""What is not known makes no step better: each thing that a person gives is taken away in turn."""

import copy
import json

import pytest

from knollstack.core.document.described import fields
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import demo, many, put, run

BADNESS = {"good": 0, "caution": 1, "incomplete": 2, "blank": 2, "stop": 2}
"""Unknown is no better than a stop, since that may be behind it."""
CHOICES = {
    "a decision, in whose place the proposal is judged": ("strings",),
    "a list of policy, of which the usual remains": ("policy",),
    "stacks and pieces, which are proposed": ("preventers", "wellhead"),
    "what can be had, of which nothing is then asked": ("pipes", "stock"),
}
"""Parts of a document that are chosen and not known."""


def places(node, path=()):
    """Every place of a document that may be left empty, and every list of it that is not."""
    if isinstance(node, dict):
        for key, value in node.items():
            here = (*path, key)
            described = fields().get("/" + "/".join("*" if isinstance(k, int) else k for k in here))
            if (isinstance(value, list) and value) or (
                described is not None and described.optional and value is not None
            ):
                yield here
            yield from places(value, here)
    elif isinstance(node, list):
        for i, value in enumerate(node):
            yield from places(value, (*path, i))


def known(text):
    document = parse(json.loads(text)).model_dump(mode="json")
    chosen = {part for parts in CHOICES.values() for part in parts}
    return document, [p for p in places(document) if p[0] not in chosen and p[-1] != "gas_contact_tvd_ft"]


def kinds(places_held):
    """Places by their kind: a row of a list stands for its like."""
    return {tuple("*" if isinstance(k, int) else k for k in place): place for place in places_held}


def shared_out():
    """Every kind of place in one of the wells that hold it, in all of them for a thorough run by hand."""
    held = [kinds(known(text)[1]) for text in documents()]
    taken = [[] for _ in held]
    for k, kind in enumerate(sorted({kind for places_held in held for kind in places_held})):
        wells = [i for i, places_held in enumerate(held) if kind in places_held]
        for i in wells if many(1) > 1 else [wells[k % len(wells)]]:
            taken[i].append(held[i][kind])
    return taken


def without(document, place):
    copied = copy.deepcopy(document)
    node = copied
    for key in place[:-1]:
        node = node[key]
    node[place[-1]] = [] if isinstance(node[place[-1]], list) else None
    return copied


def states(document):
    return {s.step: s.state for s in run(document).path}


@pytest.mark.parametrize(("index", "removable"), list(enumerate(shared_out())))
def test_nothing_that_is_taken_away_makes_a_step_better(index, removable):
    document, _ = known(documents()[index])
    before, tried = states(document), 0
    for place in removable:
        try:
            after = states(without(document, place))
        except FaultyDesign:
            continue
        tried += 1
        better = [step for step in before if BADNESS[after[step]] < BADNESS[before[step]]]
        assert better == [], f"{'/'.join(map(str, place))}: {[(s, before[s], after[s]) for s in better]}"
    assert tried >= 1


@pytest.mark.parametrize(
    ("place", "steps"),
    [
        ("ground/pore", ("ground", "depths", "mud", "pipe", "wellhead", "preventers")),
        ("ground/fracture", ("ground", "depths", "mud", "pipe", "cement", "wellhead", "preventers")),
        ("ground/zones", ("ground", "mud")),
        ("site/h2s_ppm", ("pipe",)),
        ("site/co2_percent", ("pipe",)),
        ("site/bottom_temperature_f", ("pipe",)),
        ("site/rotary_room_ft", ("preventers",)),
    ],
)
def test_what_is_needed_leaves_its_steps_unknown(place, steps):
    after = states(without(parse(demo()).model_dump(mode="json"), tuple(place.split("/"))))
    assert {step: after[step] for step in steps} == dict.fromkeys(steps, "incomplete")


@pytest.mark.parametrize("decided", [True, False])
@pytest.mark.parametrize("index", [1, 2, 3])
def test_a_string_whose_mud_is_unknown_has_no_pipe_that_is_good(index, decided):
    """No load of it is judged then, whether its pipe is decided or not."""
    document = demo()
    document["ground"]["pore"] = []
    put(document, ["strings", str(index), "mud_ppg"], None)
    if decided:
        pipes = [(68.0, "K55", "BTC"), (47.0, "L80", "LTC"), (29.0, "P110", "LTC")]
        weight, grade, connection = pipes[index - 1]
        document["strings"][index]["pipe"] = {"weight_ppf": weight, "grade": grade, "connection": connection}
    assert states(document)["pipe"] == "incomplete"


def test_sizes_that_no_chain_gives_are_unknown():
    document = demo()
    for string in document["strings"]:
        string["od_in"] = string["bit_in"] = None
    document["policy"] = {"sizes": {"production_od_in": 2.0}}
    after = states(document)
    assert (after["sizes"], after["pipe"]) == ("incomplete", "incomplete")
