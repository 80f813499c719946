"""The sheet for the cement unit: one page with volumes, blend, schedule, gauges at each hundred barrels, and what if."""

import io
import json
import re

import pytest
from pypdf import PdfReader

from knollstack.core.base.units import UnitSet
from knollstack.core.cement.detail import job_detail_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from knollstack.formats.job_sheet import write_job_sheet
from tests.helpers import CATALOGUE, demo, run


def written(document, index=2):
    evaluation, job = run(document), job_detail_of(program_of(parse(document), CATALOGUE), index)
    of, row = evaluation.strings[index], evaluation.cement.strings[index]
    pdf = write_job_sheet("Harrow Fen 3", of, row, job, UnitSet(), "Revision 1", "saved today")
    pages = PdfReader(io.BytesIO(pdf)).pages
    return row, job, [" ".join(page.extract_text().split()) for page in pages]


def test_the_sheet_is_one_page_with_what_the_unit_needs():
    document = demo()
    document["strings"][2]["cement"]["additives"] = [{"name": "retarder", "amount": 0.3}]
    row, _, (text,) = written(document)
    stage = row.stages[0]
    assert f"{stage.bump_bbl:,.1f} bbl" in text
    assert f"{row.blends[0].sacks:,.0f} sk" in text
    assert re.search(r"retarder [\d,]+ lb", text)
    assert f"{stage.final_pump_psi:,.0f} psi" in text
    for hundred in (100, 500, 1000):
        assert f"{hundred:,}.0 bbl" in text
    assert "In all" not in text
    half = stage.overdisplace_bbl
    assert f"no more than {half:,.1f} bbl beyond" in text
    assert half == pytest.approx(row.shoe_track_bbl / 2, rel=1e-6), "half the shoe track, by policy"
    for words in ("If returns stop", "If the float does not hold", "local rules prevail"):
        assert words in text


def test_both_stages_stand_on_it():
    document = demo()
    document["strings"][2]["cement"]["stage_collar_md_ft"] = 2890.0
    _, _, pages = written(document)
    text = " ".join(pages)
    assert text.count("To expect") == 2
    assert "Second stage: the plug bumps after" in text


def test_what_is_loaded_follows_the_form_of_the_job():
    """Plugs at the head, darts for plugs that wait under a landing string, nothing by an inner string."""
    assert "Load both plugs in front of a witness, bottom plug first." in " ".join(written(demo())[2])
    assert "Load the dart in front of a witness" in " ".join(written(json.loads(documents()[2]), 3)[2])
    assert "Load both darts in front of a witness" in " ".join(written(json.loads(documents()[3]), 3)[2])
    inner = demo()
    inner["strings"][1]["cement"]["form"] = "inner string"
    assert "Load" not in " ".join(written(inner, 1)[2])
