"""What is learnt and decided: rig time by hand, logged pressures, alternatives side by side, perforations in their place."""

import pytest

from knollstack.core.base.units import plain
from tests.core.completion.wells import gas_well, said
from tests.helpers import applied, find, framed, run

PPG = 12 / 231


def survey(number, kind, top, base, **own):
    return {"id": f"y{number}", "kind": kind, "from_md_ft": top, "to_md_ft": base} | own


def test_rig_time_by_hand():
    """60 ft of core at 15 ft/h with pipe in and out at 1,000 ft/h; logs at 1,500 ft/h, wire at 6,000 ft/h."""
    rows = [
        survey(1, "cuttings", 6000.0, 10_000.0),
        survey(2, "core", 9000.0, 9060.0),
        survey(3, "wireline logs", 6000.0, 9000.0),
        survey(4, "pressure points", 9000.0, 9500.0),
        survey(5, "leak-off test", 6000.0, 6010.0),
        survey(6, "well test", 9000.0, 9500.0, hours=50.0),
        survey(7, "logs while drilling", 2000.0, 5990.0),
    ]
    found = run(gas_well(completion__evaluation=rows)).completion.surveys
    assert [r.hours for r in found] == pytest.approx([0, 60 / 15 + 2 * 9.06, 2 + 2 * 1.5, 12, 2, 50, 0])
    assert [r.string for r in found] == [3, 3, 3, 3, 3, 3, 2]
    assert [r.given for r in found] == [False] * 5 + [True, False]


def test_evaluation_belongs_to_a_hole_before_it_is_cased():
    rows = [survey(1, "wireline logs", 5500.0, 9000.0), survey(2, "core", 60.0, 100.0)]
    document = gas_well(completion__evaluation=rows)
    assert said(document) == [
        ("caution", "No open hole of the program holds it."),
        ("note", "It begins at 5,500 ft, above the shoe at 6,000 ft: there it is cased by then."),
    ]
    finding = next(f for f in find(run(document), "completion", "note"))
    assert [s for s, _ in said(applied(document, finding.remedies[0].changes))] == ["caution"]
    assert said(gas_well(completion__evaluation=[survey(1, "wireline logs", 6000.0, 9000.0)])) == []


def point(md, psi):
    return {"id": "m1", "md_ft": md, "psi": psi, "source": "run 1", "date": "2026-02-03"}


@pytest.mark.parametrize(("ppg", "severity"), [(9.04, []), (9.06, ["note"]), (9.5, ["note"]), (9.51, ["stop"])])
def test_a_logged_pressure_is_held_against_the_profile_and_the_mud(ppg, severity):
    """The profile has 9.0 ppg; the 8 1/2 in hole is drilled with 9.5 ppg."""
    document = gas_well(completion__pressure_points=[point(9000.0, PPG * ppg * 9000)])
    assert [s for s, text in said(document)] == severity
    row = run(document).completion.points[0]
    assert (row.emw_ppg, row.profile_ppg) == (pytest.approx(ppg), pytest.approx(9.0))


def test_a_logged_pressure_becomes_a_point_with_where_it_came_from():
    document = gas_well(completion__pressure_points=[point(9000.0, PPG * 9.3 * 9000)])
    row = run(document).completion.points[0]
    assert not row.in_profile
    taken = applied(document, row.changes)
    assert taken["ground"]["pore"][1] == {"tvd_ft": 9000.0, "emw_ppg": 9.3, "source": "measured: run 1, 2026-02-03"}
    assert [p["tvd_ft"] for p in taken["ground"]["pore"]] == [30.0, 9000.0, 10_000.0]
    after = run(taken).completion.points[0]
    assert after.in_profile
    assert said(taken) == []
    again = applied(taken, run(taken | {"completion": taken["completion"]}).completion.points[0].changes)
    assert len(again["ground"]["pore"]) == 3, "what stood at its depth gives way"


def test_alternatives_by_hand():
    """Abandon: pipe to 9,600 ft and back at 1,000 ft/h, three plugs of 4 h and their waits, the cut; at 60,000 a day."""
    rows = {r.decision: r for r in run(gas_well()).completion.alternatives}
    leave = rows["plug and abandon"]
    wait = run(gas_well()).program.well.policy.cement.wait_hours
    assert leave.hours == pytest.approx(2 * 9.6 + 3 * (4 + wait) + 24)
    sacks = sum(p.volumes.sacks for p in run(gas_well()).completion.abandonment.plugs)
    assert leave.cost == pytest.approx(leave.hours / 24 * 60_000 + 25 * sacks + 15_000)
    assert [plain(b) for b in leave.barriers] == ["Plugged, BOPs off: 2 of 2", "Abandoned: 2 of 2"]
    done = rows["complete"]
    tubing = run(gas_well()).completion.completion.tubing
    string = 10.0 + 12 + wait
    assert done.hours == pytest.approx(string + 18 + 20 + 10 + 12 + tubing.length_ft / 1000 + 36)
    materials = 60_000 + 18 * tubing.length_ft + 250_000
    assert done.cost == pytest.approx(done.hours / 24 * 60_000 + materials)
    assert {r.allowed for r in rows.values()} == {"allowed"}
    short = gas_well(completion__back_pressure_valve=False, completion__abandonment={"plugs": []})
    held = {r.decision: r.allowed for r in run(short).completion.alternatives}
    assert held == {"complete": "forbidden", "suspend": "allowed", "plug and abandon": "allowed"}


@pytest.mark.parametrize(
    ("top", "base", "severity", "text"),
    [
        (9100.0, 9200.0, None, ""),
        (8900.0, 8999.0, "caution", "No oil or gas is known behind them."),
        (9800.0, 9990.0, "stop", "They reach into the shoe track, below 9,920 ft."),
        (5.0, 9200.0, "stop", "They are outside the 7 in production string, 30 ft to 10,000 ft."),
    ],
)
def test_perforations_stand_in_the_production_string_and_in_pay(top, base, severity, text):
    document = gas_well(completion__perforations=[{"id": "f1", "top_md_ft": top, "bottom_md_ft": base}])
    if top < 30:
        document = gas_well(completion__perforations=[{"id": "f1", "top_md_ft": top, "bottom_md_ft": base}])
        document["strings"][3] |= {"run": "liner", "hanger_md_ft": 5600.0}
        text = "They are outside the 7 in production string, 5,600 ft to 10,000 ft."
    told = [(f.severity, plain(f.message)) for f in find(run(document), "completion") if "Perforations" in f.subject[0]]
    assert told == ([] if severity is None else [(severity, text)])


@pytest.mark.parametrize(("md", "bad"), [(8999.0, False), (9000.0, True)])
def test_the_packer_stands_over_the_perforations(md, bad):
    shots = [{"id": f"f{n}", "top_md_ft": top, "bottom_md_ft": top + 100} for n, top in enumerate((9300.0, 9000.0))]
    document = gas_well(completion__perforations=shots, completion__packer_md_ft=md)
    told = [f for f in find(run(document), "completion", "stop") if f.place == "/completion/packer_md_ft"]
    assert bool(told) is bad
    for finding in told:
        assert plain(finding.message) == "It does not stand over the perforations, from 9,000 ft."
        mended = applied(document, finding.remedies[0].changes)
        assert mended["completion"]["packer_md_ft"] == 8900.0
        assert said(mended, "stop") == []


@pytest.mark.parametrize(
    ("top", "base", "spans"), [(5000.0, 6500.0, [(6000.0, 6500.0)]), (9500.0, 9990.0, [(9500.0, 9920.0)])]
)
def test_the_pay_is_what_the_production_hole_has_of_it(top, base, spans):
    """Under the 9 5/8 in shoe at 6,000 ft, over the plug at 9,920 ft."""
    document = gas_well()
    document["ground"]["zones"] = [document["ground"]["zones"][0] | {"top_tvd_ft": top, "base_tvd_ft": base}]
    assert [list(s) for s in run(document).completion.completion.perforated] == [list(s) for s in spans]


def test_the_guns_by_hand():
    """9.0 ppg at 9,000 ft is 4,208 psi; 500 psi less stand on 8.6 ppg up to 700 ft."""
    clean = run(gas_well()).completion.completion.clean
    assert clean.formation_psi == pytest.approx(PPG * 9 * 9000)
    assert clean.hole_psi == pytest.approx(clean.formation_psi - 500)
    assert clean.level_md_ft == pytest.approx(9000 - clean.hole_psi / (PPG * 8.6))
    before = run(gas_well(completion__perforated="before the tubing")).completion.completion.clean
    assert before.underbalance_psi == pytest.approx(PPG * 0.4 * 9000)
    assert before.level_md_ft is None
    bore = 7 - 2 * 0.453
    assert clean.volume_bbl == pytest.approx((clean.clean_to_md_ft - 30) * bore**2 / 1029.42, rel=1e-4)
    assert clean.pumped_bbl == pytest.approx(1.5 * clean.volume_bbl)


@pytest.mark.parametrize(("class_psi", "bad"), [(3676.0, False), (3674.0, True)])
def test_the_tree_stands_what_it_sees(class_psi, bad):
    """9.0 ppg at 10,000 ft less 0.1 psi/ft: 3,675 psi at the wellhead."""
    document = gas_well(completion__tree={"class_psi": class_psi, "orientation_deg": 0.0})
    told = [f for f in find(run(document), "completion", "stop") if f.place == "/completion/tree/class_psi"]
    assert bool(told) is bad
    if bad:
        assert said(applied(document, told[0].remedies[0].changes), "stop") == []
    valves = run(gas_well()).completion.completion.tree.valves
    assert [v.name for v in valves if v.safety] == ["upper master valve"]
    two = run(gas_well(completion__tree={"safety_valves": 2, "wings": 1})).completion.completion.tree.valves
    assert [v.name for v in two if v.safety] == ["upper master valve", "production wing valve"]
    assert [v.name for v in two if v.side == "wing"] == ["production wing valve", "choke"]


def test_shut_in_pressure_and_fluid_of_the_completion_load_the_casing():
    """4,000 psi given in place of 3,675: the tubing leak of the 7 in, the tree, and the tubing see it."""
    document = gas_well(completion__shut_in_psi=4000.0, completion__fluid_ppg=10.0)
    _, _, frame = framed(document, 3)
    leak = next(k for k, c in enumerate(frame.cases) if c.name == "tubing leak")
    assert frame.inside_psi[leak][0] == pytest.approx(4000.0)
    assert frame.inside_psi[leak][-1] == pytest.approx(4000.0 + PPG * 10 * 10_000)
    found = run(document)
    assert found.completion.completion.tree.needed_psi == 4000.0
    assert found.wellhead.pieces[-1].needed_psi == 4000.0
