"""The end of a job: the plug bumped, a test on green cement, the pressure bled back; each limit on both sides."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.detail import job_detail_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.core.cement.test_job_findings import C, known, said, stage
from tests.helpers import CATALOGUE, applied, put, run


def detail(document, index=2):
    return job_detail_of(program_of(parse(document), CATALOGUE), index).stages[0]


def test_the_closing_states_by_hand():
    """9 5/8 in at 6,000 ft, collar at 5,920, in 9.5 ppg mud: at rest 0.493506 psi/ft inside, over which the bump stands.

    Above the plug it is felt in full, under it not at all; bled back nothing stands on the column.
    """
    document = known()
    found, told = stage(document), detail(document)
    bump, bled = told.closing, told.closing + 1
    assert found.bumped_psi == pytest.approx(found.final_pump_psi + 500.0, abs=2)
    assert told.pump_psi[bump] == pytest.approx(found.bumped_psi, abs=2)
    assert told.pump_psi[bled] == 0.0
    assert len(told.minutes) == bled + 1
    for k, md in enumerate(told.nodes_md_ft):
        plug = told.pump_psi[bump] if md <= told.seat_md_ft + 0.01 else 0.0
        assert told.node_pipe_psi[bump][k] == pytest.approx(told.node_pipe_psi[bled][k] + plug, abs=0.2), md
        if md < told.seat_md_ft - 1:
            assert told.node_pipe_psi[bled][k] == pytest.approx(C * 9.5 * md, abs=0.5)
    words = [plain(e.words) for e in told.events if e.moment >= told.closing]
    assert words == [f"Plug bumped at {found.bumped_psi:,.0f} psi", "Pressure bled back"]


@pytest.mark.parametrize(("spare", "short"), [(0.005, False), (-0.005, True)])
def test_the_bump_is_judged_in_burst_on_both_sides_and_a_softer_one_mends_it(spare, short):
    document = known(strings__2__cement__bump_psi=3000.0)
    near = stage(document).burst_factor
    assert near < stage(known()).burst_factor, "the bump is what bursts it"
    put(document, ["policy", "pipe", "factors", "burst"], near - spare)
    found = said(document, "stop", "With the plug bumped at")
    assert bool(found) == short
    if short:
        assert found[0].place == "/strings/2/cement/bump_psi"
        (softer,) = found[0].remedies
        assert plain(softer.label) == "Bump the plug with 2,950 psi over the final pressure"
        assert said(applied(document, softer.changes), "stop", "With the plug bumped at") == []


@pytest.mark.parametrize(("spare", "short"), [(0.02, False), (-0.02, True)])
def test_the_pressure_bled_back_is_judged_in_collapse_on_both_sides(spare, short):
    document = known()
    document["policy"]["pipe"] = {"factors": {"collapse": stage(document).collapse_factor - spare}}
    found = said(document, "stop", "With the pressure bled back, the collapse factor")
    assert bool(found) == short


@pytest.mark.parametrize("over", [0.0, 300.0])
def test_a_test_on_green_cement_is_judged_in_burst(over):
    """Tested so hard that the factor asked is just met, and 300 psi harder; no test is made on green cement elsewhere."""
    document = known()
    document["policy"]["pipe"] = {"pressure_test": "in green cement", "factors": {"burst": 1.6}}
    rated = run(document).pipe.strings[2].sections[0].burst_psi
    held = detail(document)
    outside = held.node_annulus_psi[-1][held.nodes_md_ft.index(0.0)]
    document["strings"][2]["test_psi"] = rated / 1.6 + outside + over - 1.0
    found = said(document, "stop", "on green cement, the burst factor at 0 ft")
    assert bool(found) == (over > 0)
    assert stage(document).test_psi == document["strings"][2]["test_psi"]
    if found:
        assert said(applied(document, found[0].remedies[0].changes), "stop", "on green cement") == []
    document["policy"]["pipe"]["pressure_test"] = "before landing"
    assert stage(document).test_psi is None


def test_a_plug_that_does_not_land_is_not_bumped():
    fluids = [{"id": "a", "kind": "tail"}, {"id": "b", "kind": "displacement", "volume_bbl": 300.0}]
    short = known(strings__2__cement__fluids=fluids)
    assert stage(short).bumped_psi is None
    inner = known(strings__2__cement__form="inner string", strings__2__running={"shoe": "stab-in float shoe"})
    assert stage(inner).bumped_psi is None
    assert [plain(e.words) for e in detail(inner).events][-2:] == [
        "Displacement ends: pick up the inner string",
        "Pressure bled back",
    ]


def test_the_moment_at_which_the_rock_breaks_first_is_told():
    """Slowly enough at first: at rates that are decided, the annulus passes 12 ppg on its way to the end of the job."""
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    document["ground"]["fracture"] = [{"tvd_ft": 30.0, "emw_ppg": 12.0}, {"tvd_ft": 10_000.0, "emw_ppg": 12.0}]
    told = detail(document)
    first = next(e for e in told.events if "breaks at" in plain(e.words))
    assert max(told.rock.now_ppg[first.moment]) > 12.0
    assert max(told.rock.now_ppg[first.moment - 1]) <= 12.0
    assert not any("breaks at" in plain(e.words) for e in detail(known()).events)


@pytest.mark.parametrize(("spare", "short"), [(1.0, False), (-1.0, True)])
def test_the_float_holds_what_it_is_rated_for_and_no_more(spare, short):
    """The differential by hand: 9.5 ppg mud, spacer and 15.82 ppg slurry outside against 9.5 ppg and 80 ft of slurry inside."""
    document = known()
    held = stage(document).float_psi
    at_rest = run(document).cement.strings[2].float_differential_psi
    assert at_rest < held < at_rest + 120, "the spacer over the slurry comes on top of the column at rest"
    put(document, ["policy", "cement", "float_psi"], held + spare)

    def told(document):
        return [f for f in said(document, "stop", "the float holds") if f.place.startswith("/strings/2")]

    assert bool(told(document)) == short
    if short:
        (found,) = told(document)
        assert "hold pressure at the head" in plain(found.message)
        assert told(applied(document, found.remedies[0].changes)) == []
