"""Made-up logs on the demo wells: judged without an exception, the same as with the facts typed in, muds as by a plain loop."""

import copy
import json
import math
import random

import pytest

from knollstack.core.base.findings import Change
from knollstack.core.document.changes import changed
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.reading.checks import cross_faults
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import CATALOGUE, many

WELLS = [json.loads(text) for text in documents()[1:]]


def made_up(chance, document):
    """A log as it may come from a rig: depths that rise, shoes near their plan, now and then something odd."""
    rows, day, deep = [], 1.0, 0.0
    strings = document["strings"]

    def add(kind, **values):
        nonlocal day
        day += chance.uniform(0.05, 1.2)
        hours = int(day % 1 * 24)
        at = f"2027-{1 + int(day) // 28 % 12:02d}-{1 + int(day) % 28:02d} {hours:02d}:{chance.randrange(60):02d}"
        rows.append({"number": len(rows) + 1, "kind": kind, "at": at, **values})

    add("spud")
    above = 0.0
    for string in strings[: chance.randint(1, len(strings))]:
        shoe, name = string["shoe_md_ft"], string["id"]
        for _ in range(chance.randint(0, 3)):
            deep = chance.uniform(max(deep, above), max(deep, shoe) + 5.0)
            add(
                "depth",
                md_ft=deep,
                **({"mud_ppg": round(chance.uniform(8.5, 12.0), 1)} if chance.random() < 0.6 else {}),
            )
        if chance.random() < 0.3:
            add(
                "kick",
                md_ft=deep,
                mud_ppg=9.0,
                **({"drill_pipe_psi": chance.uniform(0, 400)} if chance.random() < 0.7 else {}),
            )
        if chance.random() < 0.3:
            add("losses", md_ft=deep, **({"emw_ppg": chance.uniform(8.6, 15.0)} if chance.random() < 0.7 else {}))
        if chance.random() < 0.3:
            add("survey", md_ft=deep, inclination_deg=chance.uniform(0, 3), azimuth_deg=chance.uniform(0, 360))
        if chance.random() < 0.15:
            break
        landed = max(1.0, shoe + chance.choice([0.0, -30.0, 40.0, -400.0, 600.0]))
        add("shoe landed", string=name, md_ft=landed)
        deep, above = max(deep, landed), landed
        if chance.random() < 0.6:
            add(
                "cement",
                string=name,
                tail_bbl=chance.uniform(50, 500),
                **({"top_md_ft": landed * chance.random()} if chance.random() < 0.5 else {}),
            )
        if chance.random() < 0.5:
            add("leak-off test", string=name, mud_ppg=9.0, leak_off_psi=chance.uniform(0, 1500))
        if chance.random() < 0.4:
            add("test", string=name, pressure_psi=chance.uniform(100, 3000), passed=chance.random() < 0.8)
    if len(rows) > 3 and chance.random() < 0.4:
        add("withdrawn", corrects=chance.randint(2, len(rows)))
    return rows


@pytest.mark.parametrize("seed", range(many(24)))
def test_a_made_up_log_is_judged_and_is_the_plan_with_its_facts_typed_in(seed):
    chance = random.Random(seed)
    document = copy.deepcopy(chance.choice(WELLS))
    design = parse(document | {"log": made_up(chance, document)})
    made = as_drilled(design)
    assert cross_faults(made.design) == [], "what is in force can be read"
    assert changed(made.plan, tuple(Change(path=f.path, value=f.value) for f in made.facts)) == made.design
    again = as_drilled(made.design.model_copy(update={"log": design.log}))
    assert again.design == made.design, "facts put in twice are the same"
    evaluation = evaluate(design, CATALOGUE)
    assert json.dumps(evaluation.model_dump(mode="json"), allow_nan=False)
    known = [f for unfit in made.unfit for f in evaluation.findings if f.place == f"/log/{unfit.fact.entries[-1]}"]
    assert bool(known) == bool(made.unfit)
    logbook = next(p.state for p in evaluation.path if p.step == "logbook")
    assert logbook != "blank"
    if made.unfit:
        assert logbook == "stop"


@pytest.mark.parametrize("seed", range(many(40)))
def test_mud_down_the_hole_is_what_a_plain_loop_says(seed):
    """Foot by foot: the weight logged last above it, the first from the shoe; the hole's end sees what is in it now."""
    chance = random.Random(1000 + seed)
    document = copy.deepcopy(WELLS[0])
    logged, deep = [], 2000.0
    for _ in range(chance.randint(1, 6)):
        deep += chance.choice([0.0, 1.0, 300.0, chance.uniform(5, 900)])
        logged.append((deep, round(chance.uniform(8.5, 12.0), 1)))
    rows = [
        {"number": k + 2, "kind": "mud", "at": f"2027-03-{12 + k} 06:00", "md_ft": md, "mud_ppg": ppg}
        for k, (md, ppg) in enumerate(logged)
    ]
    landed = {"number": 1, "kind": "shoe landed", "at": "2027-03-10 06:00", "string": "s2", "md_ft": 2000.0}
    string = as_drilled(parse(document | {"log": [landed, *rows]})).design.strings[2]

    inside = [(md, ppg) for md, ppg in logged if md > 2000.0]

    def held(md):
        return next((s.mud_ppg for s in string.mud_steps if md <= s.to_md_ft), string.mud_ppg)

    if not inside:
        assert string.mud_steps == ()
    for md in range(2001, math.ceil(deep), 7):
        above = {at: ppg for at, ppg in inside if at < md and at < deep}
        wanted = above[max(above)] if above else inside[0][1] if inside[0][0] < deep else inside[-1][1]
        first = next(at for at, _ in inside)
        if not above and first < deep:
            wanted = {at: ppg for at, ppg in inside if at == first}[first]
        now = max((at for at, _ in inside if at < deep), default=0.0)
        if inside[-1][0] == deep and md > now:
            wanted = inside[-1][1]
        assert held(float(md)) == wanted, (md, logged)
