"""Heights of a three-string cellar and of a platform, worked by hand; cuts, shoulders and what the supplier's drawing moves."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.faults import FaultyDesign
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, find, run

THREE = [
    {"id": "w1", "name": "Head", "string": "s2", "height_in": 25.5, "bore_in": 13.625, "top_psi": 3000.0, "bowl_depth_in": 9.0},
    {"id": "w2", "name": "Spool", "string": "s3", "height_in": 26.25, "bore_in": 11.0, "bottom_bore_in": 13.625,
     "bottom_psi": 3000.0, "top_psi": 5000.0, "gap_in": 0.19, "seal_in": 6.5, "bowl_depth_in": 8.25},
    {"id": "w3", "name": "Tubing head", "string": "s4", "height_in": 24.0, "bore_in": 7.0625, "bottom_bore_in": 11.0,
     "bottom_psi": 5000.0, "top_psi": 5000.0, "gap_in": 0.16, "seal_in": 5.0},
]  # fmt: skip


def cellar(**parts):
    head = {"pieces": [dict(p) for p in THREE], "socket_depth_in": 5.0, "base_plate_in": 1.5}
    return strings(site__cellar_depth_ft=9.0, wellhead=head, **parts)


def test_a_cellar_of_three_strings_by_hand():
    """Cellar 108 in; pieces 25.5 + 26.25 + 24 = 75.75, gaps 0.35: the head's lower end stands at 108 − 76.10 = 31.90.

    Surface casing goes 5 in into the socket: cut at 36.90; the conductor under a plate of 1.5 at 30.40. Tops: 57.40,
    57.40 + 0.19 + 26.25 = 83.84, 83.84 + 0.16 + 24 = 108. The 9 5/8 in stands 0.19 + 6.5 = 6.69 over its flange, at 64.09, the
    production casing 0.16 + 5 = 5.16 over it, at 89.00; rough cuts 12 in above. Shoulders at 57.40 − 9 = 48.40 and at
    83.84 − 8.25 = 75.59 in: 30 + 9 − 48.40/12 = 34.967 and 32.701 ft from the rotary.
    """
    head = run(cellar()).wellhead
    assert [p.top_in for p in head.pieces] == pytest.approx([57.40, 83.84, 108.0])
    assert [p.bottom_in for p in head.pieces] == pytest.approx([31.90, 57.59, 84.0])
    assert [(c.string, c.role) for c in head.cuts] == [
        (0, "conductor"),
        (1, "surface"),
        (2, "intermediate"),
        (3, "production"),
    ]
    assert [c.final_in for c in head.cuts] == pytest.approx([30.40, 36.90, 64.09, 89.00])
    assert [c.above_flange_in for c in head.cuts] == [None, None, pytest.approx(6.69), pytest.approx(5.16)]
    assert [c.rough_in - c.final_in for c in head.cuts] == pytest.approx([12.0] * 4)
    assert [h.shoulder_in for h in head.hung] == pytest.approx([48.40, 75.59])
    assert [h.landing_md_ft for h in head.hung] == pytest.approx([34.9667, 32.7008], abs=1e-3)
    assert head.cellar_needed_ft == pytest.approx((108 - 30.40) / 12)


def test_the_suppliers_heights_move_every_cut_below_them_and_none_above():
    document = cellar()
    document["wellhead"]["pieces"][1]["height_in"] += 2.0
    before, after = run(cellar()).wellhead, run(document).wellhead
    moved = [b.final_in - a.final_in for a, b in zip(before.cuts, after.cuts, strict=True)]
    assert moved == pytest.approx([-2.0, -2.0, -2.0, 0.0])
    assert after.reference_in == before.reference_in


@pytest.mark.parametrize(("over_in", "lower_in"), [(0.0, 30.40), (14.0, 44.40), (-6.0, 24.40)])
def test_the_tubing_head_stands_where_it_is_wanted(over_in, lower_in):
    document = cellar()
    document["wellhead"]["reference_in"] = over_in
    head = run(document).wellhead
    assert head.conductor_cut_in == pytest.approx(lower_in)
    assert head.pieces[-1].top_in == pytest.approx(108.0 + over_in)


def test_a_tree_counts_above_the_reference_and_moves_no_cut():
    document = cellar()
    row = {"bore_in": 7.0625, "bottom_psi": 5000.0, "top_psi": 5000.0, "gap_in": 0.16}
    document["wellhead"]["pieces"] += [
        {"id": "w4", "name": "Adapter", "kind": "adapter", "height_in": 15.0, **row},
        {"id": "w5", "name": "Tree", "kind": "tree", "height_in": 80.0, **row},
    ]
    head = run(document).wellhead
    assert head.conductor_cut_in == pytest.approx(30.40)
    assert [p.above_reference for p in head.pieces] == [False, False, False, True, True]
    assert head.pieces[-1].top_in == pytest.approx(108.0 + 0.16 + 15 + 0.16 + 80)
    assert {s.stage for s in head.pieces[-1].stages} == {"production"}


def platform(**head):
    document = cellar(site__setting="platform", site__water_depth_ft=150.0, strings__0__shoe_md_ft=400.0)
    document["wellhead"] |= {"deck_md_ft": 40.0, "free_conductor_ft": 30.0} | head
    return document


def test_a_platform_by_hand():
    """With no height given the conductor stands 12 in over the deck: 12 + 1.5 + 75.75 + 0.35 = 89.60 to the tubing head.

    The first shoulder stands 12 + 1.5 + 25.5 − 9 = 30.0 in over the deck: 40 − 2.5 = 37.5 ft from the rotary. The cellar of
    the site counts for nothing.
    """
    head = run(platform()).wellhead
    assert (head.applies, head.datum, head.cellar_needed_ft) == (True, "wellhead deck", None)
    assert head.conductor_cut_in == pytest.approx(12.0)
    assert head.reference_in == pytest.approx(89.60)
    assert head.hung[0].landing_md_ft == pytest.approx(37.5)
    assert run(platform(deck_md_ft=None)).wellhead.hung[0].landing_md_ft is None


@pytest.mark.parametrize(("deck_ft", "refused"), [(180.0, False), (180.01, True)])
def test_a_deck_stands_over_the_mudline(deck_ft, refused):
    if not refused:
        assert run(platform(deck_md_ft=deck_ft)).wellhead.applies
        return
    with pytest.raises(FaultyDesign, match="a deck above the mudline"):
        run(platform(deck_md_ft=deck_ft))


@pytest.mark.parametrize(("reference_in", "stands"), [(77.60, True), (77.59, False)])
def test_a_tubing_head_too_low_over_the_deck_is_raised(reference_in, stands):
    """77.60 leaves the conductor's cut at the deck itself."""
    document = platform(reference_in=reference_in)
    found = [f for f in find(run(document), "wellhead", "stop") if f.place == "/wellhead/reference_in"]
    assert (found == []) == stands
    for finding in found:
        assert not find(run(applied(document, finding.remedies[0].changes)), "wellhead", "stop")


@pytest.mark.parametrize(
    ("landing_ft", "told"), [(None, True), (34.4, True), (34.5, False), (35.4, False), (35.5, True)]
)
def test_a_mandrel_lands_in_its_bowl(landing_ft, told):
    """Its bowl is at 34.967 ft; the tally's own depth, else the ground at 30 ft, is within half a foot or is told."""
    document = cellar(strings__2__running={"hanger": "mandrel", "landing_md_ft": landing_ft})
    found = [f for f in find(run(document), "wellhead", "caution") if "lands it" in plain(f.message)]
    assert bool(found) == told
    for finding in found:
        after = run(applied(document, finding.remedies[0].changes))
        assert not find(after, "wellhead", "caution")


def test_a_multi_bowl_head_holds_all_and_nothing_is_cut_over_it():
    """A mandrel in each of its bowls: conductor and surface casing are cut, the others land."""
    document = strings(
        site__cellar_depth_ft=10.0, policy__wellhead__arrangement="multi-bowl head", policy__running__hanger="mandrel"
    )
    head = run(document).wellhead
    assert [p.kind for p in head.pieces] == ["multi-bowl head", "tubing spool"]
    assert [len(p.holds) for p in head.pieces] == [2, 0]
    assert [c.role for c in head.cuts] == ["conductor", "surface"]
    assert head.hung[0].shoulder_in < head.hung[1].shoulder_in < head.pieces[0].top_in
    assert head.pieces[0].top_psi >= max(s.psi for s in head.pieces[0].stages if s.psi is not None)
    assert run(document).preventers.strings[2].base_in == head.pieces[0].top_in, "the stack stays on it"
