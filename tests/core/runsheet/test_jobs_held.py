"""A cement job that is not begun: over the rock at rest, over it in the job, over the casing; and one that is not known."""

import pytest

from knollstack.core.base.units import plain
from tests.core.cement.test_job_findings import known, stage
from tests.core.runsheet.test_pressures import why
from tests.core.runsheet.wells import line_of
from tests.helpers import find, points, run
from tests.legal_wells import legal_well


@pytest.mark.parametrize(("spare", "held"), [(0.01, False), (-0.01, True)])
def test_a_job_is_held_just_where_its_moving_annulus_is_over_the_rock(spare, held):
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    reached = stage(document).greatest_emw_ppg
    document["ground"]["fracture"] = points((30, reached + spare), (10_000, reached + spare))
    judged = run(document)
    assert judged.cement.strings[2].greatest_emw_ppg < reached - 0.02, "at rest it stands"
    job = next(line for line in judged.sheet().lines if line.string == 2 and line.key.endswith("/job"))
    told = "" if job.held is None else plain(job.held.why)
    assert told.startswith("in the job the annulus reaches ") is held
    assert (told == "") is not held


def test_a_column_over_the_rock_at_rest_holds_a_job_that_cannot_be_followed():
    """No stage is worked for want of a rheology; the column at rest is known, and breaks the limestone."""
    document = legal_well(115)
    judged = run(document)
    assert judged.cement.strings[2].stages == ()
    assert why(document, "s3/job") == "at rest the annulus reaches 13.09 ppg; the rock breaks at 12.60 ppg"
    unfollowed = line_of(judged, "s3/unfollowed").held
    assert unfollowed is not None
    assert (plain(unfollowed.why), unfollowed.unknown) == ("its volumes and pressures are not known", True)


@pytest.mark.parametrize("kind", ["burst", "collapse"])
@pytest.mark.parametrize("over", [1.0 - 1e-4, 1.0 + 1e-4])
def test_a_job_is_held_where_the_casing_falls_under_policys_factor(kind, over):
    """At rates that are decided, bumped 2,000 psi over: factors of 1.88 and 2.71."""
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}], strings__2__cement__bump_psi=2000.0)
    for k, row in enumerate(run(document).pipe.strings):
        section = row.sections[0]
        document["strings"][k]["pipe"] = {w: getattr(section, w) for w in ("weight_ppf", "grade", "connection")}
    factor = getattr(stage(document), f"{kind}_factor")
    document["policy"]["pipe"] = {"factors": {kind: factor * over}}
    judged = run(document)
    held = next(line for line in judged.sheet().lines if line.string == 2 and line.key.endswith("/job")).held
    told = "" if held is None else plain(held.why)
    assert told.startswith(f"the casing's {kind} factor in the job is ") is (over > 1)
    stops = [f for f in find(judged, "cement", "stop") if f"the {kind} factor" in plain(f.message)]
    assert any(f.place.startswith("/strings/2/") for f in stops) is (over > 1)


@pytest.mark.parametrize(("over", "held"), [(-0.01, False), (0.01, True)])
def test_a_job_is_held_just_where_its_annulus_falls_under_the_pore_pressure(over, held):
    """A light flush in the annulus; the pore pressure all along is what is left there, a hair more or less."""
    light = {"id": "f1", "kind": "flush", "density_ppg": 3.0, "volume_bbl": 150.0, "reading_300": 2.0}
    rows = [light | {"reading_600": 4.0}, {"id": "f2", "kind": "tail"}, {"id": "f3", "kind": "displacement"}]
    document = known(strings__2__cement__fluids=rows, strings__2__cement__steps=[{"rate_bpm": 6.0}])
    least = stage(document).least_emw_ppg
    document["ground"]["pore"] = points((30, least + over), (10_000, least + over))
    job = next(x for x in run(document).sheet().lines if x.string == 2 and x.key.endswith("/job"))
    told = "" if job.held is None else plain(job.held.why)
    assert told.startswith("in the job the annulus falls to ") is held
    assert (told == "") is not held
