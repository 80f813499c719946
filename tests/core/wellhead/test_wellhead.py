"""Bores and classes of the wellhead, on both sides of their limits."""

import pytest

from knollstack.core.base.units import plain
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, find, run, surface_psi


def wellhead(**piece):
    """The head on the surface casing, decided: its face must stand 1,462.3 psi and pass the 12 1/4 in bit."""
    head = {"id": "w1", "name": "Head", "height_in": 22.0, "bore_in": 13.625, "top_psi": 2000.0, "string": "s2"}
    over = {
        "id": "w2",
        "name": "Spool",
        "height_in": 24.0,
        "bore_in": 11.0,
        "top_psi": 5000.0,
        "string": "s3",
        "bowls": 2,
    }
    rest = [] if piece.get("string", "s2") == "s3" else [over]
    return strings(site__cellar_depth_ft=10.0, wellhead={"pieces": [head | piece, *rest]})


def said(document):
    return [plain(f.message) for f in find(run(document), "wellhead", "stop")]


@pytest.mark.parametrize(("bore", "passes"), [(12.26, True), (12.25, True), (12.24, False), (11.0, False)])
def test_the_bit_passes_the_bore_or_not(bore, passes):
    texts = [t for t in said(wellhead(bore_in=bore)) if "does not pass" in t]
    assert texts == ([] if passes else [f"The 12 1/4 in bit does not pass the bore of {plain_size(bore)}."])


def plain_size(inches):
    return "11 in" if inches == 11.0 else f"{inches:.3f} in"


@pytest.mark.parametrize(("top_psi", "stands"), [(1463.0, True), (1462.0, False)])
def test_a_face_stands_its_pressure_or_is_mended_by_the_next_class(top_psi, stands):
    document = wellhead(top_psi=top_psi)
    found = [f for f in find(run(document), "wellhead", "stop") if f.place == "/wellhead/pieces/0/top_psi"]
    assert (found == []) == stands
    for finding in found:
        change = finding.remedies[0].changes[0]
        assert (change.path, change.value) == ("/wellhead/pieces/0/top_psi", 2000.0)
        assert not [t for t in said(applied(document, (change,))) if "this face" in t]


def test_a_piece_follows_its_string_not_its_place():
    """The head named for the intermediate casing is judged by that string's pressure wherever it stands."""
    needed = [surface_psi(strings(), i) for i in range(3)]
    found = run(wellhead(string="s3", top_psi=2000.0))
    assert needed[2] > 2000.0 > needed[1]
    assert any("this face is rated 2,000 psi" in plain(f.message) for f in find(found, "wellhead", "stop"))
    gone = run(wellhead(string="lost"))
    assert [plain(f.message) for f in find(gone, "wellhead", "caution")] == [
        "The string that it is installed on is no longer in the design."
    ]


@pytest.mark.parametrize(("cellar_ft", "deep_enough"), [(6.03, True), (6.02, False)])
def test_the_cellar_holds_what_hangs_below_its_rim(cellar_ft, deep_enough):
    """In a cellar of 10 ft the conductor is cut 47.65 in above its floor: (120 − 47.65)/12 = 6.029 ft are needed."""
    found = [f for f in find(run(strings(site__cellar_depth_ft=cellar_ft)), "wellhead") if "cellar" in f.place]
    assert (found == []) == deep_enough
