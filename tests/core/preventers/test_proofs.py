"""No test of a stack presses anything over its class, and a low-pressure test is low: on both sides of each limit."""

import pytest

from knollstack.core.base.units import plain
from tests.core.preventers.test_coverage import five, stack
from tests.helpers import applied, find, many, run
from tests.legal_wells import legal_well

ASKED = 4200.0
"""Surface pressure of 3,675 psi and policy's 500 psi, to the next 100 psi."""


def highs(lowest_psi):
    """High pressures and what gives them over a lowest ram of a class, by the element or the line."""
    rows = run(five((4, stack(e1={"class_psi": lowest_psi})), casing_ram="e4")).preventers.strings[3].tests
    return {(row.element, row.title): (row.high_psi, row.by) for row in rows}


def test_what_stands_under_an_element_bounds_its_test():
    """The lowest ram stands in the test of every element over it, of the lines and of the head under a cup."""
    found = highs(2000.0)
    assert {psi for psi, _ in found.values()} == {2000.0}
    assert found[0, "pipe rams"][1] == "its class"
    assert {by for (at, _), (_, by) in found.items() if at} == {"class of what stands under it"}
    assert found[None, "choke line, inner and outer valve"][1] == "class of the stack"
    assert found[None, "tubing spool and its valves"][1] == "class of the stack"
    assert highs(10_000.0)[None, "tubing spool and its valves"][1] == "surface pressure and margin"


@pytest.mark.parametrize(("lowest_psi", "annular"), [(3499.0, 3499.0), (3500.0, 3500.0), (4199.0, 3500.0)])
def test_the_annular_takes_its_share_or_what_stands_under_it(lowest_psi, annular):
    psi, by = highs(lowest_psi)[4, "annular preventer"]
    assert psi == annular
    assert (by == "class of what stands under it") is (lowest_psi < 3500.0)


@pytest.mark.parametrize(("lowest_psi", "psi"), [(4199.0, 4199.0), (4200.0, ASKED), (10_000.0, ASKED)])
def test_a_strong_ram_bounds_nothing(lowest_psi, psi):
    found = highs(lowest_psi)
    assert found[2, "blind shear rams"][0] == found[None, "tubing spool and its valves"][0] == psi


def low(psi):
    document = five((4, stack()), casing_ram="e4")
    document["policy"]["preventers"] = {"low_test_psi": psi}
    return document


@pytest.mark.parametrize(("psi", "told"), [(249.0, True), (250.0, False), (350.0, False), (351.0, True)])
def test_a_low_pressure_test_outside_usual_practice_is_told_once(psi, told):
    place = "/policy/preventers/low_test_psi"
    found = [f for f in find(run(low(psi)), "preventers", "caution") if f.place == place]
    assert len(found) == told
    for finding in found:
        assert "usual practice is 250 psi to 350 psi" in plain(finding.message)
        mended = run(applied(low(psi), finding.remedies[0].changes))
        assert [f for f in find(mended, "preventers") if f.place == place] == []


@pytest.mark.parametrize(("psi", "stopped"), [(3499.0, False), (3500.0, False), (3501.0, True)])
def test_a_low_pressure_test_over_the_high_one_is_a_stop(psi, stopped):
    """The annular on the 9 5/8 in is tested to 3,500 psi."""
    stops = find(run(low(psi)), "preventers", "stop")
    found = [plain(f.message) for f in stops if plain(f.subject) == "Stack on 9 5/8 in"]
    over = "The low-pressure test, 3,501 psi, is over the high one of annular preventer, 3,500 psi."
    assert found == ([over] if stopped else [])


@pytest.mark.parametrize(("class_psi", "offered"), [(299.0, 0), (300.0, 1)])
def test_the_usual_low_pressure_is_offered_where_the_high_one_is_no_less(class_psi, offered):
    document = five((4, stack(e1={"class_psi": class_psi})), casing_ram="e4")
    document["policy"]["preventers"] = {"low_test_psi": 340.0}
    stops = find(run(document), "preventers", "stop")
    (found,) = [f for f in stops if plain(f.subject) == "Stack on 9 5/8 in" and "low-pressure" in plain(f.message)]
    assert len(found.remedies) == offered


def pressed(row, proof):
    """Elements that a test presses: the one that is closed and what stands under it, or the whole stack."""
    return row.elements if proof.element is None else row.elements[: proof.element + 1]


@pytest.mark.parametrize("seed", range(many(16)))
def test_made_up_stacks_are_tested_whole_and_within_what_is_pressed(seed):
    judged = run(legal_well(seed))
    for string, row in zip(judged.program.strings, judged.preventers.strings, strict=True):
        tested = {proof.element for proof in row.tests if proof.element is not None}
        closing = {k for k, e in enumerate(row.elements) if e.kind in ("annular", "ram", "diverter")}
        assert tested == closing, "each element that closes, and none besides"
        for proof in row.tests:
            if proof.high_psi is None:
                continue
            classes = [e.class_psi for e in pressed(row, proof) if e.class_psi is not None]
            assert all(proof.high_psi <= psi + 1e-6 for psi in classes), proof
            if proof.tool == "cup tester":
                share = judged.program.well.policy.preventers.cup_share
                assert proof.high_psi <= share * judged.pipe.strings[string.index].sections[0].burst_psi + 1e-6
                assert proof.tension_lbf is not None
            elif proof.element is not None and row.elements[proof.element].kind == "annular":
                share = judged.program.well.policy.preventers.annular_share
                assert proof.high_psi <= share * row.elements[proof.element].class_psi + 1e-6


@pytest.mark.parametrize("seed", range(many(6)))
def test_a_stronger_element_never_lowers_a_test(seed):
    """One class more for one element: no test of the stack is made at less."""
    document = five((4, stack()), casing_ram="e4")
    place = f"e{1 + seed % 5}"
    weak = five((4, stack(**{place: {"class_psi": 2000.0}})), casing_ram="e4")
    strong = run(document).preventers.strings[3].tests
    for after, before in zip(strong, run(weak).preventers.strings[3].tests, strict=True):
        assert (after.title, after.across) == (before.title, before.across)
        assert after.high_psi >= before.high_psi
