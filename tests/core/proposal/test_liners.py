"""Liners as an option: what they save and what they cost, by hand."""

import pytest

from tests.helpers import demo, run


def test_hanging_the_production_casing_of_the_demo():
    evaluation = run(demo())
    option = evaluation.liners.strings[3]
    assert option.hanger_md_ft == 7000.0 - 400.0
    row = evaluation.pipe.strings[3]
    assert option.steel_saved_lbf == pytest.approx(row.sections[0].weight_ppf * 6600.0)
    # cement from 6,700 ft stands below the hanger: nothing of it is saved
    assert option.cement_saved_bbl == 0.0
    greatest = next(load.load for load in row.loads if load.kind == "burst")
    assert option.burst_factor_above >= evaluation.pipe.strings[2].sections[0].burst_psi / greatest - 1e-9
    assert [o is None for o in evaluation.liners.strings] == [True, True, False, False]
    hung = demo()
    hung["strings"][3] |= {"run": "liner", "hanger_md_ft": option.hanger_md_ft}
    after = run(hung)
    assert after.liners.strings[3] is None
    assert after.pipe.strings[3].loads, "still judged, from its hanger down"


def test_cement_above_the_hanger_is_saved_in_proportion():
    document = demo()
    document["strings"][3]["cement"] = {"top_md_ft": 5000.0}
    evaluation = run(document)
    annulus = evaluation.cement.strings[3].cased_annulus_bbl
    assert evaluation.liners.strings[3].cement_saved_bbl == pytest.approx(annulus * 1600 / 2000)
