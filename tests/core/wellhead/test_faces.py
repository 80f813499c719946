"""Faces of the wellhead: how they mate, what they withstand in every stage, what passes them."""

import pytest

from knollstack.core.base.units import plain
from tests.core.wellhead.test_heights import cellar
from tests.helpers import find, run


def changed(i, **values):
    document = cellar()
    document["wellhead"]["pieces"][i] |= values
    return document


def said(document):
    return [(f.severity, f.place, plain(f.message)) for f in find(run(document), "wellhead")]


CLEAN = said(cellar())


def new(document):
    return [f for f in said(document) if f not in CLEAN]


@pytest.mark.parametrize(
    ("piece", "values", "place", "words"),
    [
        (1, {"bottom_bore_in": 11.0}, "bottom_bore_in", "do not mate"),
        (1, {"bottom_psi": 2000.0}, "bottom_psi", "do not mate"),
        (2, {"bottom_psi": 3000.0}, "bottom_psi", "do not mate"),
        (1, {"height_in": 0.0}, "height_in", "no height"),
        (1, {"height_in": 8.0}, "bowl_depth_in", "deeper than the piece is high"),
        (0, {"top_psi": 2500.0}, "top_psi", "API 6A has no class of 2,500 psi."),
        (2, {"string": "s3"}, "string", "two pieces are in one place"),
        (0, {"wear_bushing_in": 12.0}, "bore_in", "does not pass the bore of 12 in"),
        (1, {"bore_in": 5.5}, "bore_in", "does not pass"),
        (2, {"bore_in": 4.5}, "bore_in", "Packer for the 5 1/2 in casing"),
    ],
)
def test_each_fault_is_said_once_at_its_place(piece, values, place, words):
    found = [f for f in new(changed(piece, **values)) if words in f[2]]
    assert {f[1] for f in found} == {f"/wellhead/pieces/{piece}/{place}"}


def test_what_mates_says_nothing():
    assert not [f for f in CLEAN if f[0] in ("stop", "caution")]
    assert new(changed(1, bottom_psi=None, bottom_bore_in=None)) == [], "empty is that of the face under it"
    assert new(changed(0, wear_bushing_in=12.25)) == [], "a bit that just passes"


def test_a_face_sees_every_stage_of_its_strings():
    document = cellar(completion__treating_psi=4900.0, strings__1__test_psi=2100.0)
    pieces = run(document).wellhead.pieces
    stages = [{s.stage: s.psi for s in p.stages} for p in pieces]
    assert set(stages[0]) == {"drilling", "casing test"}
    assert stages[0]["casing test"] == 2100.0
    assert set(stages[2]) == {"production", "casing test", "treatment"}
    assert pieces[2].needed_psi == max(stages[2].values())
    stack = run(document).preventers.strings[3]
    assert stack.pressure_psi < 4900.0 or stages[2]["production"] > 4900.0, "a treatment is pumped through the tree"


@pytest.mark.parametrize("psi", [1000.0, 1462.0, 2000.0, 3000.0, 5000.0, 10_000.0])
def test_a_higher_class_never_fails_what_a_lower_passes(psi):
    def fails(class_psi):
        return [f for f in said(changed(0, top_psi=class_psi)) if "this face is rated" in f[2]]

    higher = [c for c in (2000.0, 3000.0, 5000.0, 10_000.0, 15_000.0) if c > psi]
    assert fails(psi) or not any(fails(c) for c in higher)


def test_a_string_without_a_bowl_is_told():
    document = cellar()
    document["wellhead"]["pieces"] = document["wellhead"]["pieces"][:1]
    assert (
        "stop",
        "/wellhead/pieces/0",
        "No bowl of the wellhead is left for it: every string that reaches surface hangs in one.",
    ) in said(document)
    document["wellhead"]["pieces"][0]["bowls"] = 2
    assert not [f for f in said(document) if "No bowl" in f[2]]


def test_a_bowl_beyond_the_next_piece_holds_nothing():
    assert [p.holds for p in run(changed(0, bowls=3)).wellhead.pieces] == [("s3",), ("s4",), ()]


def test_flange_ring_and_studs_are_the_standards():
    spool = run(cellar()).wellhead.pieces[1]
    assert (spool.flange, spool.studs) == ("11 in 6B R54", "12 studs of 1 7/8 in")
    assert spool.bottom_flange == "13 5/8 in 6B R57"
    assert run(changed(1, bore_in=10.0)).wellhead.pieces[1].flange is None


def test_wellhead_and_preventers_may_follow_another_method_than_the_pipe():
    usual, other = run(cellar()), run(cellar(policy__preventers__surface_method="kick volume"))
    both = [(e.preventers.strings[2].pressure_psi, e.wellhead.pieces[1].needed_psi) for e in (usual, other)]
    assert both[0] != both[1]
    assert usual.pipe == other.pipe
    same = run(cellar(policy__preventers__surface_method="gas to surface"))
    assert same.preventers.strings[2].pressure_psi == usual.preventers.strings[2].pressure_psi
