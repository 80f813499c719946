"""What is said of a job: each limit on both sides, what is not known, and remedies that were tried."""

import copy
import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.job import Missing, job_of
from knollstack.core.evaluation.side_by_side import side_by_side
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, applied, find, points, put, run

C = 12 / 231


def known(**parts):
    """Four strings whose muds and slurries are measured; the 9 5/8 in stands in rock that breaks at 16 ppg."""
    document = strings()
    for i in (1, 2, 3):
        document["strings"][i].update(reading_300=26.0, reading_600=40.0)
        document["strings"][i]["cement"] = copy.deepcopy(document["strings"][i].get("cement") or {})
        document["strings"][i]["cement"].update(thickening_minutes=900.0, lead_thickening_minutes=900.0)
    for path, value in parts.items():
        put(document, path.split("__"), value)
    return document


def said(document, severity, words):
    return [f for f in find(run(document), "cement", severity) if words in plain(f.message)]


def stage(document, index=2, number=0):
    return run(document).cement.strings[index].stages[number]


def test_a_known_job_is_good_and_its_headlines_are_those_of_its_moments():
    document = known()
    assert find(run(document), "cement") == []
    found, program = stage(document), program_of(parse(document), CATALOGUE)
    string = program.strings[2]
    (followed,) = job_of(program.well, string, tuple(program.cased_bores(string)))
    course = followed.worked.course
    assert found.final_pump_psi == pytest.approx(course.pump_psi[-1], abs=2.0)
    assert found.greatest_pump_psi == pytest.approx(course.pump_psi.max(), abs=2.0)
    near = followed.fracture
    assert found.greatest_emw_ppg == pytest.approx(near.value / (C * near.md_ft), abs=2.0 / (C * near.md_ft))
    at_rest = run(document).cement.strings[2].float_differential_psi
    assert found.final_pump_psi > at_rest, "friction comes on top of the static differential"


@pytest.mark.parametrize(("spare", "broken"), [(0.01, False), (-0.01, True)])
def test_the_rock_breaks_just_where_the_moving_annulus_is_over_it(spare, broken):
    """At rates that are decided; the rock all along stands what was reached, a hair more or less."""
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    reached = stage(document).greatest_emw_ppg
    document["ground"]["fracture"] = points((30, reached + spare), (10_000, reached + spare))
    found = said(document, "stop", "the rock breaks at")
    assert bool(found) == broken
    if broken:
        slower = [r for r in found[0].remedies if "of these rates" in plain(r.label)]
        assert slower, "at a share of them the rock stands"
        assert said(applied(document, slower[0].changes), "stop", "the rock breaks at") == []


def test_rates_that_nobody_decided_are_as_fast_as_the_rock_lets_them_be():
    document = known(strings__2__cement__bentonite_percent=0.0)
    whole = stage(document)
    document["ground"]["fracture"] = points(
        (30, whole.greatest_emw_ppg - 0.01), (10_000, whole.greatest_emw_ppg - 0.01)
    )
    found = stage(document)
    assert found.rate_share < 1
    assert found.greatest_emw_ppg <= found.fracture_ppg + 1e-6
    assert any("of policy's rates" in plain(a.text) for a in run(document).assumptions)


@pytest.mark.parametrize(("limit", "broken"), [(1.001, False), (0.999, True)])
def test_the_pump_is_held_to_its_limit(limit, broken):
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    document["policy"]["cement"] = {"pump_limit_psi": stage(document).greatest_pump_psi * limit}
    assert bool([f for f in said(document, "stop", "the pump gives") if "strings/2" in f.place]) == broken


def test_a_light_flush_lets_the_pore_pressure_in_and_a_heavier_one_mends_it():
    light = {
        "id": "f1",
        "kind": "flush",
        "density_ppg": 3.0,
        "volume_bbl": 150.0,
        "reading_300": 2.0,
        "reading_600": 4.0,
    }
    rows = [light, {"id": "f2", "kind": "tail"}, {"id": "f3", "kind": "displacement"}]
    document = known(strings__2__cement__fluids=rows)
    (found,) = said(document, "stop", "pore pressure is 9.00 ppg")
    assert "After" in plain(found.message)
    mended = applied(document, found.remedies[0].changes)
    assert said(mended, "stop", "pore pressure") == []
    heavier = mended["strings"][2]["cement"]["fluids"][0]["density_ppg"]
    for density, broken in ((heavier, False), (heavier - 0.5, True)):
        mended["strings"][2]["cement"]["fluids"][0]["density_ppg"] = density
        assert bool(said(mended, "stop", "pore pressure")) == broken


@pytest.mark.parametrize(
    ("volume", "words"), [(100.0, "reach up to"), (305.0, None), (2000.0, "come back with the returns")]
)
def test_a_volume_of_ones_own_is_held_to_the_planned_top(volume, words):
    """305.6 bbl of tail fill it: 19.38 and 278.91 bbl of annulus, 5.86 of shoe track and 1.46 of rathole."""
    rows = [{"id": "f1", "kind": "tail", "volume_bbl": volume}, {"id": "f2", "kind": "displacement"}]
    found = [
        f
        for f in find(run(known(strings__2__cement__fluids=rows)), "cement", "caution")
        if "pass" not in plain(f.message)
    ]
    if words is None:
        assert [f for f in found if "5 ft" not in plain(f.message)] == found
    assert any(words in plain(f.message) for f in found) if words else True


@pytest.mark.parametrize(
    ("displacement", "words"),
    [(400.0, "before the plug bumps"), (433.386, None), (450.0, "before the displacement is pumped")],
)
def test_displacement_is_held_to_the_seat_of_the_plug(displacement, words):
    """8.681 in to 5,920 ft: 433.39 bbl."""
    rows = [{"id": "f1", "kind": "tail"}, {"id": "f2", "kind": "displacement", "volume_bbl": displacement}]
    found = run(known(strings__2__cement__fluids=rows))
    cautions = [plain(f.message) for f in find(found, "cement", "caution") if "displacement" in plain(f.message)]
    assert len(cautions) == (words is not None)
    assert all(words in c for c in cautions)


def test_a_light_string_in_heavy_cement_floats():
    """13 3/8 in 48 lb/ft from 2,000 ft, 15.8 ppg outside, light fluid inside: π/4·13.375²·0.05195·15.8 is over 100 lb/ft."""
    pipe = {"weight_ppf": 48.0, "grade": "H40", "connection": "STC"}
    document = known(strings__1__pipe=pipe, strings__1__cement__bentonite_percent=0.0)
    document["strings"][1]["cement"]["displacement_ppg"] = 8.4
    document["ground"]["fracture"] = points((30, 25), (10_000, 25))
    found = said(document, "stop", "The string floats")
    weight = stage(document, 1).hanging_lbf
    assert bool(found) == (weight < 0)
    inside, outside = 12.715, 13.375
    tops = C * 3.14159265 / 4 * ((8.4 * 1920 + 15.823 * 80) * inside**2 - (9.5 * 30 + 15.823 * 1970) * outside**2)
    assert weight == pytest.approx(2000 * 48 + tops, rel=0.03)
    assert found


def test_what_is_wanting_leaves_the_job_unknown():
    for change, words in (
        ({"strings__2__reading_300": None}, "rheometer readings of the mud"),
        ({"strings__2__cement__fluids": [{"id": "f1", "kind": "lead"}]}, "the density of the lead"),
        (
            {"strings__2__cement__fluids": [{"id": "f1", "kind": "tail", "reading_300": 40.0, "reading_600": 90.0}]},
            "that fit a fluid",
        ),
    ):
        document = known(**change)
        found = said(document, "unknown", words)
        assert len(found) == 1, words
        program = program_of(parse(document), CATALOGUE)
        string = program.strings[2]
        assert isinstance(job_of(program.well, string, tuple(program.cased_bores(string))), Missing)
        assert {s.step: s.state for s in run(document).path}["cement"] == "incomplete"


def test_no_slurry_is_no_job():
    rows = [{"id": "f1", "kind": "spacer", "density_ppg": 10.0}, {"id": "f2", "kind": "displacement"}]
    assert said(known(strings__2__cement__fluids=rows), "stop", "No slurry is pumped")


def test_two_stages_by_hand():
    """Stage collar at 4,000 ft: 2,000 ft and a quarter more under it, track and rathole, then 2,000 and 300 ft over it.

    First stage: 0.0557811·2,000·1.25 + 5.856 + 1.458 = 146.77 bbl of slurry, displaced by 433.39 bbl. Second: 139.45 in the
    open hole and 19.38 in casing, 158.83 bbl, displaced by 0.0732061·4,000 = 292.82 bbl. In the first the mud over the collar
    and its spacer, in the second the shoe is behind set cement: the rock is judged down to the collar alone.
    """
    document = known(strings__2__cement__stage_collar_md_ft=4000.0)
    first, second = (stage(document, 2, k) for k in (0, 1))
    tails = [next(f.volume_bbl for f in s.fluids if f.kind == "tail") for s in (first, second)]
    moved = [next(f.volume_bbl for f in s.fluids if f.kind == "displacement") for s in (first, second)]
    assert tails == pytest.approx([146.77, 158.83], abs=0.02)
    assert moved == pytest.approx([433.39, 292.82], abs=0.02)
    assert second.greatest_md_ft <= 4000.0
    assert second.fluids[0].volume_bbl == pytest.approx(96.0)


def test_displacement_is_measured_larger_at_surface_and_returns_are_what_is_pumped():
    """433.39 bbl at 3·10⁻⁶/psi and the mean of head and shoe: pump pressure and that with 9.5 ppg to 6,000 ft, less friction."""
    found = stage(known())
    document = known()
    document["policy"]["cement"] = {"compressibility_1_psi": 0.0}
    plain_bbl = stage(document).displacement_bbl
    assert plain_bbl == pytest.approx(433.39, abs=0.01)
    mean = (found.displacement_bbl / plain_bbl - 1) / 3e-6
    assert found.final_pump_psi < mean < found.final_pump_psi + C * 15.823 * 6000 / 2
    assert found.returns_bbl == pytest.approx(found.pumped_bbl, abs=1e-6)
    assert found.cement_back_bbl == 0
    rows = [{"id": "f1", "kind": "tail", "volume_bbl": 700.0}, {"id": "f2", "kind": "displacement"}]
    back = stage(known(strings__2__cement__fluids=rows))
    assert back.cement_back_bbl > 0
    assert back.cement_back_bbl < back.returns_bbl


def test_an_inner_string_by_hand():
    """13 3/8 in to 2,000 ft through 5 in drill pipe of 4.276 in bore: displaced by 4.276²/1,029.42·2,000 = 35.5 bbl.

    No more track is left than the shoe is long; the casing stands full of mud, so that the greatest collapse
    is by the column outside against 9.5 ppg, whatever the pump does.
    """
    plugs = stage(known(), 1)
    document = known(strings__1__running__shoe="stab-in float shoe")
    found = stage(document, 1)
    row = run(document).cement.strings[1]
    assert (plugs.inner, found.inner) == (False, True)
    assert found.fluids[-1].volume_bbl == pytest.approx(4.276**2 / 1029.42 * 2000, rel=2e-3)
    assert row.displacement_bbl == pytest.approx(found.fluids[-1].volume_bbl, rel=1e-9)
    assert row.shoe_track_bbl < 0.5, "the shoe's own length"
    slurry = sum(f.volume_bbl for f in found.fluids if f.kind in ("lead", "tail"))
    assert slurry == pytest.approx(row.slurry_bbl, rel=1e-6)
    assert found.bottom_plug_bbl is None
    assert found.minutes < plugs.minutes
    assert not [f for f in find(run(document), "cement") if "stab-in" in plain(f.message)]
    decided = known(strings__1__cement__form="inner string")
    (said_,) = [f for f in find(run(decided), "cement") if "stab-in" in plain(f.message)]
    mended = run(applied(decided, said_.remedies[0].changes))
    assert not [f for f in find(mended, "cement") if "stab-in" in plain(f.message)]
    assert (
        stage(known(strings__1__running__shoe="stab-in float shoe", strings__1__cement__form="two plugs"), 1).inner
        is False
    )


def test_a_string_that_hangs_deep_under_its_landing_string_floats_no_sooner():
    """The demo well at sea: 6 5/8 in from the sea floor at 4,435 ft; what stands over its top lifts it on no side."""
    row = run(json.loads(documents()[3])).cement.strings[4]
    section = run(json.loads(documents()[3])).pipe.strings[4].sections[0]
    air = section.weight_ppf * (16_200 - 4435)
    assert 0.6 * air < row.stages[0].hanging_lbf < 0.95 * air


@pytest.mark.parametrize(("rate", "over"), [(14.0, False), (14.1, True)])
def test_a_schedule_is_held_to_the_rate_of_the_pumps(rate, over):
    found = said(known(strings__2__cement__steps=[{"rate_bpm": rate}]), "stop", "the pumps give 14.0 bbl/min")
    assert bool(found) == over


def test_two_designs_are_laid_beside_by_their_jobs():
    """One stage and two: minutes of both stages together, the greater of their pressures; unknown where it is not followed."""
    whole, staged = run(known()), run(known(strings__2__cement__stage_collar_md_ft=4000.0))
    rows = {r.label: r for r in side_by_side(whole, staged).results if r.section == "intermediate"}
    told = staged.cement.strings[2].stages
    assert rows["cement job"].b[0].value == pytest.approx(sum(s.minutes for s in told))
    greatest = rows["greatest pump pressure, cementing"]
    assert (greatest.b[0].value, greatest.differs) == (max(s.greatest_pump_psi for s in told), True)
    blind = side_by_side(whole, run(known(strings__2__reading_300=None))).results
    assert next(r for r in blind if r.section == "intermediate" and r.label == "cement job").b == ("unknown",)
