"""Equations as mathematics: read as they are meant, and nothing of them lost."""

import xml.etree.ElementTree as ET

import pytest

from knollstack.formats.mathml import mathml
from knollstack.handbook import registry


def tree(symbolic):
    return ET.fromstring(f"<all>{mathml(symbolic)}</all>")


@pytest.mark.parametrize(
    ("symbolic", "inside"),
    [
        (
            "F = (S + 2P)/3",
            "<mfrac><mrow><mi>S</mi><mo>+</mo><mn>2</mn><mi>P</mi></mrow><mrow><mn>3</mn></mrow></mfrac>",
        ),
        ("a/b·c", "<mfrac><mrow><mi>a</mi></mrow><mrow><mi>b</mi></mrow></mfrac><mo>·</mo><mi>c</mi>"),
        ("x_min²", "<msubsup><mi>x</mi><mrow><mi>min</mi></mrow><mrow><mn>2</mn></mrow></msubsup>"),
        ("√(a + b)", "<msqrt><mrow><mi>a</mi><mo>+</mo><mi>b</mi></mrow></msqrt>"),
        (
            "(a)(b)/c",
            '<mfrac><mrow><mrow><mo stretchy="false">(</mo><mi>a</mi><mo stretchy="false">)</mo></mrow><mrow>',
        ),
        (
            "a·sin I·cos(b)/sin β·c",
            '<mfrac><mrow><mi>a</mi><mo>·</mo><mi mathvariant="normal">sin</mi><mspace width="0.17em"/><mi>I</mi><mo>·</mo>'
            '<mi mathvariant="normal">cos</mi><mrow><mo stretchy="false">(</mo><mi>b</mi><mo stretchy="false">)</mo></mrow>'
            '</mrow><mrow><mi mathvariant="normal">sin</mi><mspace width="0.17em"/><mi>β</mi></mrow></mfrac><mo>·</mo>',
        ),
        ("D^−0.59", "<msup><mi>D</mi><mrow><mn>−0.59</mn></mrow></msup>"),
        ("a) + b", "<mi>a</mi><mo>)</mo><mo>+</mo><mi>b</mi>"),
    ],
)
def test_how_it_is_read(symbolic, inside):
    assert inside in mathml(symbolic)


def test_every_formula_is_well_formed_and_whole():
    for formula in registry().values():
        shown = "".join(tree(formula.symbolic).itertext())
        for mark in "=ρπΔσ":
            assert shown.count(mark) == formula.symbolic.count(mark), formula.name
        digits = [c for c in formula.symbolic if c.isdigit()]
        assert sum(c.isdigit() for c in shown) >= len(digits), formula.name
