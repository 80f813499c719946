"""The tubing by hand: four effects against a loop written out beside them, how the packer holds it, its strength."""

import math

import pytest

from knollstack.core.base.units import plain
from tests.core.completion.wells import gas_well, said
from tests.helpers import applied, find, run

PPG, E, NU, ALPHA = 12 / 231, 30e6, 0.3, 6.9e-6
OWN = {"od_in": 3.5, "weight_ppf": 9.2, "grade": "L80", "connection": "EUE"}
PACKER, HANGER = 8900.0, 30.0
FIXED = {
    "decision": "complete",
    "tubing": OWN,
    "packer_md_ft": PACKER,
    "fluid_ppg": 9.1,
    "tree": {"orientation_deg": 0.0},
}


def tubing(**own):
    document = gas_well(completion=FIXED | own)
    return run(document).completion.completion.tubing


def case(row, name):
    return next(c for c in row.cases if c.name == name)


def by_loop(inside, outside, below, inside_ppg, heat, seal=3.5):
    """Four changes of length [in]: pressures as (top, packer), those as spaced out taken off; below the packer last."""
    od, bore, length = 3.5, 3.5 - 2 * 0.254, 12 * (PACKER - HANGER)
    ao, ai, ap = (math.pi / 4 * d * d for d in (od, bore, seal))
    still = (0.0, PPG * 9.1 * PACKER)

    def force(pi, po, pb):
        return ap * pb - ai * pi - (ap - ao) * po

    piston = -(force(inside[1], outside[1], below) - force(still[1], still[1], still[1])) * length / (E * (ao - ai))
    buckling, radial = 0.0, ((7.0 - 2 * 0.453) - od) / 2
    fictitious = ap * (below - outside[1])
    weight = 9.2 / 12 + inside_ppg * ai / 231 - 9.1 * ao / 231
    if fictitious > 0:
        assert fictitious < weight * length
        buckling = -(radial**2) * fictitious**2 / (8 * E * math.pi / 64 * (od**4 - bore**4) * weight)
    ratio = (od / bore) ** 2
    mean_in = (sum(inside) - sum(still)) / 2
    mean_out = (sum(outside) - sum(still)) / 2
    balloon = -2 * NU * length / E * (mean_in - ratio * mean_out) / (ratio - 1)
    return piston, buckling, balloon, ALPHA * length * heat


def effects(found):
    return found.piston_in, found.buckling_in, found.ballooning_in, found.temperature_in


def test_a_treatment_by_hand():
    """4,000 psi on 9.5 ppg of cold fluid, 500 psi held on the annulus; fluid of 70 °F in ground of 60 °F at the wellhead.

    Ground of 60 °F at 30 ft and 210 °F at 10,000 ft has 193.45 °F at the packer and 126.73 °F on the mean; the fluid is
    70 °F on top and half of the way back, 131.73 °F, at the packer: 100.86 °F on the mean, 25.86 °F less.
    """
    own = {"treating_psi": 4000.0, "treating_ppg": 9.5, "annulus_psi": 500.0, "treating_fluid_f": 70.0}
    found = case(tubing(**own), "treatment")
    assert found.heat_f == pytest.approx(-25.86, abs=0.02)
    inside = (4000.0, 4000.0 + PPG * 9.5 * PACKER)
    outside = (500.0, 500.0 + PPG * 9.1 * PACKER)
    assert effects(found) == pytest.approx(by_loop(inside, outside, inside[1], 9.5, found.heat_f), rel=2e-4)
    assert found.total_in == pytest.approx(sum(effects(found)))


def test_a_wide_seal_bore_pushes_up():
    """Of 4 in, wider than the tubing: pressure inside acts on its ring from below."""
    inside = (4000.0, 4000.0 + PPG * 9.1 * PACKER)
    still = (0.0, PPG * 9.1 * PACKER)
    found = case(tubing(treating_psi=4000.0, packer_bore_in=4.0, hold="free to move"), "treatment")
    assert effects(found) == pytest.approx(by_loop(inside, still, inside[1], 9.1, found.heat_f, seal=4.0), rel=2e-4)
    assert found.moved_in == pytest.approx(-found.total_in)
    assert found.on_packer_lbf == 0.0


def test_the_test_is_held_by_a_plug_below_the_packer():
    """5,000 psi inside on the plug pulls down; under it stands what stood there, so nothing buckles it."""
    still = (0.0, PPG * 9.1 * PACKER)
    found = case(tubing(), "tubing test")
    assert effects(found) == pytest.approx(by_loop((5000.0, 5000.0 + still[1]), still, still[1], 9.1, 0.0), rel=2e-4)
    assert found.piston_in > 0 > found.ballooning_in


def hooked(row, found):
    """How far its end moves when the packer's push is put into the equations beside it."""
    od, bore, length = 3.5, 2.992, 12 * row.length_ft
    steel, inertia = math.pi / 4 * (od**2 - bore**2), math.pi / 64 * (od**4 - bore**4)
    weight = 9.2 / 12 + (9.1 * bore**2 - 9.1 * od**2) * math.pi / 4 / 231
    fictitious = math.pi / 4 * 3.5**2 * (found.inside_packer_psi - found.outside_packer_psi)
    push = found.on_packer_lbf

    def bent(force):
        return -((6.094 - od) ** 2 / 4) * max(force, 0.0) ** 2 / (8 * E * inertia * weight)

    rest = found.total_in - found.buckling_in
    return rest - push * length / (E * steel) + bent(fictitious + push)


@pytest.mark.parametrize("hold", ["landed", "anchored"])
def test_what_the_packer_holds_keeps_the_end_where_it_is(hold):
    """Its push put back into the equations: the end stays where slacking off has left it, or a landed one moves up."""
    row = tubing(hold=hold, treating_psi=2500.0)
    spaced = case(row, "spaced out")
    assert spaced.on_packer_lbf == pytest.approx(10_000.0)
    assert hooked(row, spaced) == pytest.approx(-row.slack_off_in, rel=1e-3)
    found = case(row, "treatment")
    if hold == "anchored":
        assert found.on_packer_lbf < 0 == found.moved_in
        assert hooked(row, found) == pytest.approx(-row.slack_off_in, rel=1e-3)
    else:
        assert found.on_packer_lbf == 0
        assert found.moved_in == pytest.approx(-found.total_in - row.slack_off_in)
        assert found.moved_in > 0
    warm = case(row, "producing")
    assert warm.on_packer_lbf > 10_000
    assert warm.moved_in == 0, "nothing moves down past the packer"


def test_slack_off_by_hand():
    """10,000 lbf shorten it by Hooke, 10,000·L/(E·A), and by its helix."""
    row, length = tubing(), 12 * (PACKER - HANGER)
    steel, inertia = math.pi / 4 * (3.5**2 - 2.992**2), math.pi / 64 * (3.5**4 - 2.992**4)
    weight = 9.2 / 12 - 9.1 / 231 * steel
    by_hand = 1e4 * length / (E * steel) + ((6.094 - 3.5) / 2) ** 2 * 1e8 / (8 * E * inertia * weight)
    assert row.slack_off_in == pytest.approx(by_hand, rel=1e-4)
    assert tubing(slack_off_lbf=0.0).slack_off_in == 0
    # 8,870 ft: 286 joints of 31 ft and one pup of 4 ft
    assert (row.joints, row.pups_ft, row.spaced_off_ft) == (286, (4.0,), 0.0)


@pytest.mark.parametrize(("stroke", "stands"), [(0.0, -1e-3), (0.0, 1e-3)])
def test_seals_are_as_long_as_the_end_moves(stroke, stands):
    moves = tubing(treating_psi=4500.0)
    need_ft = (moves.up_in + moves.down_in) / 12
    assert need_ft > 1
    document = gas_well(completion=FIXED | {"treating_psi": 4500.0, "stroke_ft": stroke + need_ft + stands})
    told = [f for f in find(run(document), "completion", "stop") if f.place == "/completion/stroke_ft"]
    assert bool(told) is (stands < 0)
    for finding in told:
        for remedy in finding.remedies:
            assert said(applied(document, remedy.changes), "stop") == []


def test_strength_by_hand_at_its_worst():
    """Shut in: 3,675 psi over nothing at the wellhead against 10,160 psi; pulled to release: the hanging weight and 40,000."""
    row = tubing()
    burst = next(load for load in row.loads if load.kind == "burst")
    assert (burst.case, burst.md_ft) == ("tubing test", pytest.approx(HANGER, abs=PACKER))
    assert burst.rating == pytest.approx(0.875 * 2 * 80_000 * 0.254 / 3.5)
    assert burst.factor == pytest.approx(burst.rating / 5000.0)
    tension = next(load for load in row.loads if load.kind == "tension")
    hanging = 9.2 * 8870 - math.pi / 4 * (3.5**2 - 2.992**2) * PPG * 9.1 * PACKER
    assert tension.load == pytest.approx(hanging + 40_000.0, rel=1e-4)
    collapse = next(load for load in row.loads if load.kind == "collapse")
    assert (collapse.case, collapse.load) == ("tubing empty", pytest.approx(PPG * 9.1 * PACKER))


def test_tubing_that_does_not_stand_is_told_with_the_cheapest_that_does():
    """J55 holds 6,985 psi: enough at 6,300 psi of test with its factor of 1.1, too little at 6,400."""
    weak = {"tubing": OWN | {"grade": "J55"}}
    for psi, short in ((6300.0, False), (6400.0, True)):
        document = gas_well(completion=FIXED | weak, policy__completion={"tubing_test_psi": psi, "overpull_lbf": 0.0})
        document["policy"]["pipe"] = {"factors": {"triaxial": 1.0, "tension": 1.0}}
        told = [f for f in find(run(document), "completion", "stop") if "factor 1.09" in plain(f.message)]
        assert bool(told) is short
        for finding in told:
            assert plain(finding.message).startswith("Burst factor 1.09 in tubing test; 1.1 asked at ")
            assert said(applied(document, finding.remedies[0].changes), "stop") == []


def test_a_proposed_tubing_is_the_cheapest_that_stands():
    own = {key: value for key, value in FIXED.items() if key != "tubing"}
    row = run(gas_well(completion=own)).completion.completion.tubing
    assert (row.decided, row.od_in, row.weight_ppf, row.grade, row.connection) == (False, 3.5, 9.2, "N80", "EUE")
    assert min(load.factor / load.required for load in row.loads) >= 1
    cheaper = gas_well(completion=own | {"tubing": OWN | {"grade": "J55"}})
    assert any("Tension factor" in text for _, text in said(cheaper, "stop")), "what costs less does not stand"
    strong = run(gas_well(completion=own, policy__completion={"tubing_test_psi": 9500.0})).completion.completion.tubing
    assert (strong.weight_ppf, strong.grade) != (row.weight_ppf, row.grade)
    assert min(load.factor / load.required for load in strong.loads) >= 1
    largest = gas_well(completion=own, policy__sizes={"production_od_in": 7.0})
    assert run(largest).completion.completion.tubing.od_in == 4.5, "not over policy's, and it passes the 7 in"
    smaller = gas_well(
        completion=own, policy__sizes={"production_od_in": 7.0}, policy__completion={"tubing_most_in": 3.6}
    )
    assert run(smaller).completion.completion.tubing.od_in == 3.5


def test_unknown_connection_and_heat_are_told_as_unknown():
    upset = gas_well(completion=FIXED | {"tubing": OWN | {"connection": "NUE"}})
    assert any(s == "unknown" and "connection is not held" in text for s, text in said(upset))
    cold = gas_well(completion=FIXED, site__bottom_temperature_f=None)
    assert any(s == "unknown" and "change of length by heat is unknown in producing" in text for s, text in said(cold))
    assert case(run(cold).completion.completion.tubing, "producing").heat_f is None


@pytest.mark.parametrize(("drift", "bad"), [(4.5, False), (4.49, True)])
def test_couplings_pass_the_casing(drift, bad):
    """3 1/2 in EUE has couplings of 4.5 in; a 5 1/2 in of its own drift."""
    pipe = {"od_in": 5.5, "weight_ppf": 23.0, "wall_in": 0.415, "grade": "Own", "yield_psi": 110_000.0}
    own = [{**pipe, "connection": "BTC", "coupling_od_in": 6.05, "drift_in": drift}]
    document = gas_well(completion=FIXED, pipes=own, strings__3__od_in=5.5)
    document["strings"][3]["pipe"] = {"weight_ppf": 23.0, "grade": "Own", "connection": "BTC"}
    told = [f for f in find(run(document), "completion", "stop") if f.place == "/completion/tubing/od_in"]
    assert bool(told) is bad
