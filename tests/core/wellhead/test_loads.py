"""Loads on bowls, casing and conductor on both sides of what they stand; growth in production; tests by pressure."""

import pytest

from knollstack.core.base.units import plain
from tests.core.wellhead.test_heights import cellar, platform
from tests.helpers import elements, find, run


def said(document, *severities):
    severities = severities or ("stop", "caution", "unknown")
    return [plain(f.message) for f in find(run(document), "wellhead") if f.severity in severities]


@pytest.mark.parametrize(("spare_lbf", "stands"), [(0.0, True), (-1.0, False)])
def test_a_bowl_carries_what_hangs_in_it(spare_lbf, stands):
    load = run(cellar()).wellhead.hung[0].load_lbf
    document = cellar()
    document["wellhead"]["pieces"][0]["bowl_lbf"] = load + spare_lbf
    assert (said(document, "stop") == []) == stands


def test_what_hangs_by_hand():
    """9 5/8 in 47 lb/ft to 6,000 ft in 9.5 ppg: by the pressure-area method 47·6,000 less 0.0519481·9.5·6,000·13.572 in²."""
    expected = 47.0 * 6000 - 12 / 231 * 9.5 * 6000 * 13.572
    assert run(cellar()).wellhead.hung[0].load_lbf == pytest.approx(expected, rel=2e-3)


def test_the_conductor_takes_its_share_by_steel():
    """Of all that hangs and stands, 20 in 94 lb/ft (26.92 in²) takes what it has of the steel beside 13 3/8 in."""
    document = cellar(policy__wellhead__stack_weight_lbf=100_000.0)
    evaluation = run(document)
    rows = {row.what: row for row in evaluation.wellhead.loads}
    pipes = [evaluation.pipe.strings[i].sections[0] for i in (0, 1)]
    steel = [3.14159265 / 4 * (od**2 - p.id_in**2) for od, p in zip((20.0, 13.375), pipes, strict=True)]
    total = 100_000.0 + sum(h.load_lbf for h in evaluation.wellhead.hung)
    assert rows["Conductor, compression"].load == pytest.approx(total * steel[0] / sum(steel), rel=1e-6)
    assert rows["Surface casing, top"].load == pytest.approx(total * steel[1] / sum(steel), rel=1e-6)
    alone = run(cellar(policy__wellhead__stands_on="casing alone")).wellhead.loads
    assert "Conductor, compression" not in [row.what for row in alone]


def test_a_free_conductor_stands_up_to_a_length():
    """Euler's load falls with the square of the free length: the least factor is met at one and not beyond it."""
    factor = next(r.factor for r in run(platform()).wellhead.loads if "column" in r.what)
    most = 30.0 * (factor / 1.5) ** 0.5
    assert said(platform(free_conductor_ft=most - 0.01), "stop") == []
    assert any("factor" in t for t in said(platform(free_conductor_ft=most + 0.01), "stop"))


def test_a_free_length_that_nobody_gave_is_unknown_on_a_platform():
    bare = platform(free_conductor_ft=None, deck_md_ft=None)
    assert [t for t in said(bare, "unknown") if "free length" in t]
    by_deck = run(platform(free_conductor_ft=None)).wellhead.free_conductor_ft
    assert by_deck == pytest.approx(30 + 150 - 40 + 1.0), "mudline to deck, and 12 in of conductor over it"


def test_mudline_hangers_carry_what_hangs_below_them():
    light, heavy = (
        run(platform(mudline_hangers=hung)).wellhead.hung[0].load_lbf
        for hung in ("every string below the conductor", "none")
    )
    length = 30 + 150 + 15
    assert light == pytest.approx(length * 47.0 * (1 - 9.5 / 65.5), rel=0.02)
    assert light < 0.05 * heavy


def test_a_wellhead_cemented_to_surface_does_not_grow_and_a_free_one_does():
    fixed = run(cellar(site__surface_temperature_f=60.0, site__bottom_temperature_f=240.0))
    assert fixed.wellhead.growth_in == 0.0
    free = cellar(
        site__surface_temperature_f=60.0, site__bottom_temperature_f=240.0, strings__1__cement={"top_md_ft": 1500.0}
    )
    grown = run(free).wellhead
    assert grown.growth_in > 2.0
    assert sum(h.growth_lbf for h in grown.hung) < 0, "the inner strings push, the outer holds"
    free["policy"]["wellhead"] = {"growth_in": grown.growth_in + 0.01}
    assert not [t for t in said(free, "caution") if "rises" in t]
    free["policy"]["wellhead"] = {"growth_in": grown.growth_in - 0.01}
    assert [t for t in said(free, "caution") if "rises" in t]
    assert run(cellar()).wellhead.growth_in is None, "no temperature, no growth"


def test_tests_are_the_lesser_of_class_and_a_share_of_collapse():
    evaluation = run(cellar())
    weld, seal, flange, *_ = evaluation.wellhead.proofs
    casing = evaluation.pipe.strings[1].sections[0]
    assert weld.title == "Weld test"
    assert "not the housing" in weld.proves
    assert weld.psi == pytest.approx(min(3000.0, 0.8 * casing.collapse_psi))
    assert (seal.psi, flange.psi) == (3000.0, 3000.0), "0.8 of 4,750 psi is over the class"
    threaded = cellar()
    threaded["wellhead"]["mounting"] = "threaded"
    assert "Weld test" not in [p.title for p in run(threaded).wellhead.proofs]


def test_without_a_base_plate_the_casing_carries_all():
    document = cellar()
    document["wellhead"]["base_plate_in"] = 0.0
    rows = [row.what for row in run(document).wellhead.loads]
    assert "Conductor, compression" not in rows


def test_a_hanger_that_production_pushes_up_is_told():
    """On mudline hangers next to nothing hangs in the bowl, and the warm casing pushes it off."""
    warm = {"site__surface_temperature_f": 60.0, "site__bottom_temperature_f": 240.0}
    for hung, lifts in (("every string below the conductor", True), ("none", False)):
        document = platform(mudline_hangers=hung)
        for path, value in warm.items():
            document["site"][path.removeprefix("site__")] = value
        row = run(document).wellhead.hung[0]
        assert row.growth_lbf < 0
        assert row.lifts is lifts is (row.load_lbf + row.growth_lbf < 0)
        assert bool([t for t in said(document, "caution") if "lifts off its bowl" in t]) == any(
            h.lifts for h in run(document).wellhead.hung
        )


def test_a_heavy_stack_and_heavy_pieces_stand_on_casing_and_conductor():
    def carried(document):
        return sum(row.load for row in run(document).wellhead.loads if row.what.endswith(("top", "compression")))

    document = cellar()
    usual = carried(document)
    rows = elements("drilling spool", "pipe rams", "annular")
    document["preventers"] = [{"id": "b1", "string": "s3", "class_psi": 5000.0, "elements": rows}]
    assert carried(document) == pytest.approx(usual - 10_000.0), (
        "34,000 lbf of three elements in place of 44,000 of four"
    )
    rows[2]["weight_lbf"] = 60_000.0
    document["wellhead"]["pieces"][0]["weight_lbf"] = 9_500.0
    assert carried(document) == pytest.approx(usual + 36_000.0 + 7_000.0)
