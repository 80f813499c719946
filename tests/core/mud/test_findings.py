"""What is said of a section's mud, on both sides of each limit, in the words of the window."""

import copy

import pytest

from knollstack.core.base.units import plain
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, demo, find, points, policy, run

PORE, FRACTURE = 9.0, 16.0
LEAST, MOST = PORE + 0.3, FRACTURE - 0.3


def said(document, severity, place="/strings/3/mud_ppg"):
    return [f for f in find(run(document), "mud", severity) if f.place == place]


@pytest.mark.parametrize(
    ("mud", "words"),
    [
        (LEAST - 0.01, "9.29 ppg is less than pore pressure plus trip margin at "),
        (LEAST, None),
        (12.0, None),
        (MOST, None),
        (MOST + 0.01, "15.71 ppg is more than fracture less margin at "),
    ],
)
def test_a_mud_outside_its_window_is_stopped_and_the_planned_one_offered(mud, words):
    document = strings(strings__3__mud_ppg=mud)
    found = said(document, "stop")
    assert [plain(f.message).startswith(words or "-") for f in found] == ([True] if words else [])
    for finding in found:
        assert plain(finding.remedies[0].label) == "Drill with 9.30 ppg"
        assert finding.working == f"mud/3/{'lower' if mud < 10 else 'upper'}"
        assert not said(applied(document, finding.remedies[0].changes), "stop")


def test_a_window_that_is_shut_names_both_sides():
    """Pore 12.0 at 10,000 ft asks 12.3; a bed at 7,000 ft breaks at 12.2, less 0.3."""
    document = strings(
        ground__pore=points((30, 9), (6000, 9), (10_000, 12.0)),
        ground__fracture=points((30, 16), (6900, 16), (7000, 12.2), (7100, 16), (10_000, 16)),
    )
    (finding,) = said(document, "stop")
    assert plain(finding.message) == (
        "No one mud drills this section: 12.30 ppg is asked by pore pressure plus trip margin at 10,000 ft and "
        "11.90 ppg is all that fracture less margin at 7,000 ft allows."
    )
    assert finding.remedies == ()


@pytest.mark.parametrize("missing", ["pore", "fracture"])
def test_an_unknown_window_is_unknown_and_no_good_news(missing):
    document = strings()
    document["ground"][missing] = points((30, 12), (9000, 12)) if missing == "fracture" else points((30, 9), (9000, 9))
    (finding,) = said(document, "unknown")
    assert "not given over the whole open hole" in plain(finding.message)
    assert not said(document, "unknown", "/strings/2/mud_ppg"), "the section above ends where the profile still goes"


def test_sticking_bounds_permeable_rock_alone_and_by_its_pore_pressure():
    """2,000 psi over normal pore at 6,100 ft is 6.31 ppg; over abnormal pore 3,000 psi."""
    bed = {"id": "b", "name": "Bed", "top_tvd_ft": 6050.0, "base_tvd_ft": 6100.0, "rock": "sand", "permeable": True}
    over = 2000 / (12 / 231 * 6100)
    row = run(strings(ground__zones=[bed])).mud.strings[3]
    assert (row.upper.cause, row.upper.mud_ppg) == ("differential sticking", pytest.approx(9.0 + over, abs=1e-6))
    assert row.upper.md_ft == 6100.0
    tight = run(strings(ground__zones=[bed | {"permeable": False}])).mud.strings[3]
    assert tight.upper.cause == "fracture less margin"
    abnormal = strings(ground__zones=[bed], ground__pore=points((30, 9.01), (10_000, 9.01)))
    row = run(abnormal).mud.strings[3]
    assert row.upper.mud_ppg == pytest.approx(min(9.01 + 3000 / (12 / 231 * 6100), MOST))
    # abnormal anywhere inside the bed is abnormal, though both of its ends are normal
    hump = points((30, 9), (6060, 9), (6070, 9.2), (6080, 9), (10_000, 9))
    inside = run(strings(ground__zones=[bed], ground__pore=hump)).mud.strings[3]
    assert next(z for z in inside.zones if z.name == "Bed").limit_psi == 3000.0
    zone = next(z for z in row.zones if z.name == "Bed")
    assert (zone.limit_psi, zone.overbalance_psi) == (3000.0, pytest.approx(12 / 231 * 0.49 * 6100, abs=0.01))
    assert run(strings(ground__zones=[bed | {"permeable": False}])).mud.strings[3].zones[0].limit_psi is None


@pytest.mark.parametrize(("ppg", "told"), [(LEAST, False), (LEAST - 0.005, True), (MOST, False), (MOST + 0.005, True)])
def test_each_step_of_a_section_keeps_the_window_of_the_hole_then_open(ppg, told):
    document = strings(strings__3__mud_steps=[{"to_md_ft": 8000.0, "mud_ppg": ppg}])
    found = [plain(f.message) for f in said(document, "stop")]
    assert [s.startswith("Down to 8,000 ft with ") for s in found] == ([True] if told else [])
    if told:
        assert found[0].endswith("the window is 9.30 ppg to 15.70 ppg.")


def test_a_step_whose_window_is_unknown_says_nothing_of_it():
    document = strings(strings__3__mud_steps=[{"to_md_ft": 8000.0, "mud_ppg": 20.0}])
    document["ground"]["pore"] = points((30, 9), (7000, 9))
    assert [plain(f.message) for f in said(document, "stop")] == []
    row = run(document).mud.strings[3].steps[0]
    assert (row.lower_ppg, row.upper_ppg is None) == (None, False)


@pytest.mark.parametrize(
    ("old", "new", "kind"), [(9.5, 10.5, "solid"), (10.5, 9.5, "base"), (9.5, 9.5, None), (9.5, 8.2, None)]
)
def test_weighting_up_or_thinning_is_of_the_mud_in_hole_and_pits(old, new, kind):
    """Barite of 35 ppg by weight balance; thinning by base fluid of 8.33 ppg; neither where nothing would do it."""
    document = strings(strings__2__mud_ppg=old, strings__3__mud_ppg=new)
    row = run(document).mud.strings[3].weight_up
    if kind is None:
        assert row is None
        return
    volume = run(document).mud.strings[2].volumes.total_bbl
    assert (row.from_ppg, row.volume_bbl) == (old, volume)
    if kind == "solid":
        added = volume * (new - old) / (35.0 - new)
        assert row.gain_bbl == pytest.approx(added, rel=1e-6)
        assert row.solid_lb == pytest.approx(added * 42 * 35.0, rel=1e-6)
    else:
        assert row.base_bbl == pytest.approx(volume * (old - new) / (new - 8.33), rel=1e-6)


UNKNOWN = "ECD, surge and swab are unknown: "


@pytest.mark.parametrize(
    ("rheology", "readings", "why"),
    [
        ("Bingham", (None, None, None, 40.0), UNKNOWN + "rheometer readings at 300 rpm are not given."),
        ("Bingham", (None, None, 20.0, None), UNKNOWN + "rheometer readings at 600 rpm are not given."),
        ("power law", (None, None, None, None), UNKNOWN + "rheometer readings at 300 and 600 rpm are not given."),
        ("Bingham", (None, None, 20.0, 20.0), UNKNOWN + "the rheometer readings fit no Bingham fluid."),
        ("power law", (None, None, 20.0, 40.1), UNKNOWN + "the rheometer readings fit no power law fluid."),
        ("Bingham", (None, None, 20.0, 40.0), None),
        ("Herschel-Bulkley", (None, None, 20.0, 36.0), UNKNOWN + "rheometer readings at 3 and 6 rpm are not given."),
        ("Herschel-Bulkley", (3.0, 6.1, 20.0, 36.0), UNKNOWN + "the rheometer readings fit no Herschel-Bulkley fluid."),
        ("Herschel-Bulkley", (3.0, 4.0, 20.0, 38.1), UNKNOWN + "the rheometer readings fit no Herschel-Bulkley fluid."),
        ("Herschel-Bulkley", (3.0, 4.0, 20.0, 38.0), None),
        ("Herschel-Bulkley", (3.0, 6.0, 20.0, 40.0), None),
    ],
)
def test_readings_that_are_missing_or_no_fluid_are_unknown(rheology, readings, why):
    """600 over 300 rpm lies between once and twice, less the yield stress 2·θ₃ − θ₆; else nothing is good by it."""
    document = demo()
    keys = (f"reading_{rpm}" for rpm in (3, 6, 300, 600))
    document["strings"][3] |= dict(zip(keys, readings, strict=True))
    document["policy"] = policy(rheology=rheology)
    evaluation = run(document)
    row = evaluation.mud.strings[3]
    said = [plain(f.message) for f in find(evaluation, "mud", "unknown") if f.place.startswith("/strings/3")]
    assert said == ([] if why is None else [why])
    assert (row.surge_ppg is None) == (row.ecd_bottom_ppg is None) == (why is not None)
    state = {p.step: p.state for p in evaluation.path}["mud"]
    assert state != "good" or why is None


def test_turbulence_takes_more_than_laminar_flow_in_every_model():
    """Fast in a narrow annulus: the friction grows with the square of the rate, not with its share."""
    document = demo()
    document["strings"][3] |= {"reading_3": 2.0, "reading_6": 3.0, "reading_300": 12.0, "reading_600": 20.0}
    for rheology in ("Bingham", "power law", "Herschel-Bulkley"):
        document["policy"] = policy(rheology=rheology)
        lost = []
        for rate in (600.0, 1200.0):
            document["strings"][3]["flow_gpm"] = rate
            lost.append(run(document).mud.strings[3].ecd_bottom_ppg - document["strings"][3]["mud_ppg"])
        assert lost[1] > 2.6 * lost[0], rheology


def test_without_a_pump_rate_there_is_trip_but_no_ecd():
    document = copy.deepcopy(demo())
    document["strings"][3]["flow_gpm"] = None
    evaluation = run(document)
    row = evaluation.mud.strings[3]
    assert (row.ecd_bottom_ppg, row.ecd_shoe_ppg) == (None, None)
    said = [(f.place, plain(f.message)) for f in find(evaluation, "mud", "unknown")]
    assert said == [("/strings/3/flow_gpm", "ECD is unknown: the pump rate is not given.")]
    assert row.swab_ppg < document["strings"][3]["mud_ppg"] < row.surge_ppg
    faster = copy.deepcopy(document)
    faster["policy"] = policy(trip_speed_ft_min=180.0)
    assert run(faster).mud.strings[3].surge_ppg > row.surge_ppg
