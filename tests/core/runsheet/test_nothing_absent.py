"""No line speaks of a thing that the design does not have: over made-up wells, words and sizes of each line."""

import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.reading.read import parse
from tests.core.runsheet.wells import demo_well
from tests.helpers import many, run
from tests.legal_wells import legal_well

DECISIONS = (None, "complete", "suspend", "plug and abandon")


def well_of(seed):
    document = json.loads(parse(legal_well(seed)).model_dump_json())
    document["completion"]["decision"] = DECISIONS[seed % 4]
    return document if run(document).program.strings else demo_well(1 + seed % 3)


def absent(judged):
    """Words that no line may hold, for what the design has not."""
    design, strings = judged.program.design, judged.program.strings
    setting, decision = design.site.setting, design.completion.decision
    words = []
    if setting != "subsea":
        words += ["riser", "sea floor", "bore protector", "jet", "disconnect plan", "both pods"]
    if setting != "land":
        words += ["cellar"]
    if setting == "subsea":
        words += ["wear bushing", "slips", "base plate", "casing spool", "weld test"]
    if all(s.run != "liner" for s in strings):
        words += ["liner"] if setting == "subsea" else ["liner", "dart"]
    if decision != "complete":
        words += ["tubing hanger", "packer", "perforate", "lower the tree", "back-pressure valve"]
    if decision in (None, "complete"):
        words += ["surface plug", "cap the wellhead"]
    if decision != "plug and abandon":
        words += ["cut the casing"]
    if setting != "platform" or design.wellhead.mudline_hangers == "none":
        words += ["mudline hanger"]
    if all(s.own.cement.stage_collar_md_ft is None for s in strings):
        words += ["stage collar"]
    return words


def known_sizes(judged):
    """Every diameter that the design has: of strings, holes, drill pipe, stacks, tubing, and what crosses a stack."""
    found = set()
    for s in judged.program.strings:
        found |= {s.od_in, s.bit_in}
    for row in judged.preventers.strings:
        found |= {x for e in row.elements for x in (e.size_in, e.from_in, e.to_in, e.bore_in)} | {row.bore_in}
        found |= {w.value for c in row.coverage for w in c.what if not isinstance(w, str)}
        found |= {w.value for t in row.tests for w in t.across if not isinstance(w, str)}
    completion = judged.completion.completion
    if completion is not None and completion.tubing is not None:
        found.add(completion.tubing.od_in)
    found |= {d.pipe_od_in for d in judged.program.well.policy.mud.drill_strings}
    return {round(x, 4) for x in found if x is not None}


@pytest.mark.parametrize("seed", range(many(20)))
def test_no_line_speaks_of_what_the_design_has_not(seed):
    judged = run(well_of(seed))
    sizes, none = known_sizes(judged), absent(judged)
    for line in judged.sheet().lines:
        if line.key.startswith("own/"):
            continue  # a person's words are their own
        told = f"{plain(line.text)} {plain(line.caution)}".lower()
        assert [w for w in none if w in told] == [], (line.key, told)
        held = {round(w.value, 4) for w in line.text if not isinstance(w, str) and w.quantity == "size"}
        assert held <= sizes, (line.key, told, held - sizes)
