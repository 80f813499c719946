"""Whatever a legal file holds is judged: no exception, no number that is none, and nothing good beside missing data."""

import json

import pytest

from knollstack.core.ground.riserless import is_riserless
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, many, run
from tests.legal_wells import legal_well

DOZENS = range(many(2))


def known(profile, top, bottom):
    """A profile as the document has it reaches over a hole."""
    return len(profile) >= 2 and profile[0]["tvd_ft"] <= top + 1e-6 and profile[-1]["tvd_ft"] >= bottom - 1e-6


def missing(document):
    """Steps that lack something, by the document alone, and what."""
    program = program_of(parse(document), CATALOGUE)
    well, ground, site = program.well, document.get("ground", {}), document.get("site", {})
    needed = 4 if well.policy.mud.rheology == "Herschel-Bulkley" else 2
    speeds = ("reading_300", "reading_600", "reading_3", "reading_6")[:needed]
    for i, string in enumerate(program.strings):
        if not string.drilled or string.role == "conductor":
            continue
        hole = well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft)
        rock = all(known(ground.get(name, []), *hole) for name in ("pore", "fracture"))
        if not rock:
            yield "mud", f"rock of hole {i}"
            if i > 1 and program.strings[i - 1].role != "conductor":
                yield "depths", f"rock of hole {i}"
        own = string.own
        if not is_riserless(well, i) and (own.flow_gpm is None or any(getattr(own, s) is None for s in speeds)):
            yield "mud", f"rheology of hole {i}"
    if site.get("h2s_ppm") is None:
        yield "pipe", "H2S"
    ground_f = ground.get("temperature") or (site.get("surface_temperature_f"), site.get("bottom_temperature_f"))
    if None in ground_f and program.strings and program.strings[-1].role != "conductor" and program.strings[-1].drilled:
        yield "pipe", "temperature"


def wrong(seed):
    """What is wrong with the evaluation of one legal well, in words; None where nothing is."""
    document = legal_well(seed)
    evaluation = run(document)
    try:
        json.dumps(evaluation.model_dump(mode="json"), allow_nan=False)
    except ValueError as error:
        return f"{seed}: {error}"
    states = {p.step: p.state for p in evaluation.path}
    good = [f"{step} is good without {what}" for step, what in missing(document) if states[step] == "good"]
    return f"{seed}: {good}" if good else None


@pytest.mark.parametrize("dozen", DOZENS)
def test_legal_wells_are_judged(dozen):
    assert [w for w in map(wrong, range(12 * dozen, 12 * dozen + 12)) if w] == []
