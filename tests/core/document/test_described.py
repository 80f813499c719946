"""Every field of the document, by its own description: bounds that hold on both sides, titles, units, a place in the work."""

import copy
import json
from functools import cache
from types import NoneType
from typing import get_args

import pytest

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import core_unit
from knollstack.core.document.described import described, fields
from knollstack.core.document.design import Design
from knollstack.core.document.faults import FaultyDesign, schema_faults
from knollstack.core.evaluation.steps import STEPS
from knollstack.core.reading.read import parse
from tests.helpers import put, well

FIELDS = fields()
NUMBERS = [path for path, f in FIELDS.items() if f.kind == "number"]
CHOICES = [path for path, f in FIELDS.items() if f.kind == "choice"]

SECTION = {"weight_ppf": 29.0, "grade": "L80", "connection": "LTC"}
ROWS = {
    "/strings": {"id": "s1", "role": "production", "shoe_md_ft": 900.0, "pipe": SECTION, "cement": {}},
    "/strings/*/sections": {**SECTION, "to_md_ft": 500.0},
    "/strings/*/running/joints": {"length_ft": 40.0, "section": 1, "kind": "joint", "left_out": False},
    "/strings/*/running/centralizers": {"id": "c1", "type": "own", "top_md_ft": 100.0, "base_md_ft": 200.0},
    "/balanced_plugs": {"id": "b1", "bottom_md_ft": 900.0, "top_md_ft": 700.0},
    "/centralizers": {"name": "own", "od_in": 7.0},
    "/strings/*/cement/fluids": {"id": "f1", "kind": "spacer"},
    "/strings/*/cement/additives": {"name": "retarder", "amount": 0.3},
    "/strings/*/cement/caliper": {"md_ft": 500.0, "diameter_in": 12.0},
    "/strings/*/cement/excesses": {"top_md_ft": 500.0, "base_md_ft": 700.0, "excess": 0.3},
    "/strings/*/cement/strength": {"after_hours": 8.0, "strength_psi": 500.0},
    "/strings/*/cement/steps": {"rate_bpm": 5.0},
    "/strings/*/loads": {"name": "own", "kind": "burst"},
    "/strings/*/mud_steps": {"to_md_ft": 500.0, "mud_ppg": 9.0},
    "/log": {"number": 1, "at": "2027-03-08 06:00", "kind": "note"},
    "/log/*/points": {"volume_bbl": 1.0, "pressure_psi": 100.0},
    "/log/*/joints": {"length_ft": 40.0},
    "/ground/zones": {"id": "z1", "name": "Z", "top_tvd_ft": 100.0, "base_tvd_ft": 200.0},
    "/ground/leak_off_tests": {"tvd_ft": 500.0, "emw_ppg": 12.0},
    "/ground/temperature": {"tvd_ft": 500.0, "temperature_f": 90.0},
    "/wellhead/pieces": {"id": "p1", "name": "Head", "height_in": 22.0, "bore_in": 13.625, "top_psi": 3000.0},
    "/sea/soil": {"below_mudline_ft": 50.0, "strength_psf": 300.0, "submerged_pcf": 30.0},
    "/sea/riser/joints": {"name": "Bare", "length_ft": 75.0, "aboard": 5, "wet_lbf": 22_000.0},
    "/sea/weather": {"name": "calm"},
    "/sea/limits": {"work": "Run casing"},
    "/sea/disconnect": {"name": "Shear", "seconds": 30.0},
    "/sea/annuli": {"string": "s1"},
    "/completion/evaluation": {"id": "y1", "from_md_ft": 100.0, "to_md_ft": 200.0},
    "/completion/pressure_points": {"id": "m1", "md_ft": 500.0, "psi": 300.0},
    "/completion/perforations": {"id": "f1", "top_md_ft": 500.0, "bottom_md_ft": 600.0},
    "/completion/verified": {"id": "v1", "element": "mud s1"},
    "/completion/suspension/plugs": {"id": "k1", "bottom_md_ft": 900.0, "top_md_ft": 700.0},
    "/completion/abandonment/plugs": {"id": "k1", "bottom_md_ft": 900.0, "top_md_ft": 700.0},
    "/runsheet/rates": {"id": "r1", "string": "s1", "ft_hour": 30.0},
    "/runsheet/steps": {"id": "x1", "text": "Toolbox talk", "after": "s1/spud"},
    "/runsheet/edits": {"id": "e1", "step": "s1/spud"},
    "/runsheet/orders": {"id": "o1", "item": "s1/shoe"},
    "/drills/slow": {"hole": "s1", "spm": 30.0, "psi": 400.0},
    "/drills/parts": {"hole": "s1", "od_in": 5.0, "id_in": 4.276},
    "/preventers": {"id": "b1", "string": "s1", "class_psi": 5000.0, "elements": [{"id": "e1", "element": "annular"}]},
    "/pipes": {**SECTION, "od_in": 7.0, "wall_in": 0.4, "yield_psi": 8e4, "coupling_od_in": 7.5},
    "/stock": {**SECTION, "od_in": 7.0, "price_per_ft": 20.0},
}
POINT = {"tvd_ft": 500.0, "emw_ppg": 12.0}


@cache
def full_text():
    """A document that holds a row of every list, as text."""
    document = well()
    for profile in ("pore", "fracture", "stability", "overburden"):
        document["ground"][profile] = [dict(POINT)]
    document["trajectory"]["stations"] = [{"md_ft": 0.0}, {"md_ft": 9000.0}]
    for place, row in ROWS.items():
        keys = place.replace("/*", "/0").split("/")[1:]
        put(document, keys, [copy.deepcopy(row)])
    put(document, ["completion", "tubing"], {"od_in": 3.5, "weight_ppf": 9.2, "grade": "L80", "connection": "EUE"})
    policy = Design.model_validate({"format": "knollstack.well", "version": 9, "name": ""}).policy
    document["policy"] = policy.model_dump(mode="json")
    return json.dumps(document)


def with_row(path):
    """That document, and the pointer to the field in the first row of its list."""
    return json.loads(full_text()), path.replace("/*", "/0")


def refused(document):
    """Faults of the shape alone, by place; nothing where the shape is accepted."""
    try:
        Design.model_validate(document)
    except ValueError as error:
        return {fault.path: fault for fault in schema_faults(error)}
    return {}


@pytest.mark.parametrize("path", NUMBERS)
def test_a_number_holds_on_its_bounds_and_not_beyond(path):
    field = FIELDS[path]
    document, pointer = with_row(path)
    keys = pointer.split("/")[1:]
    assert field.low is not None, "every number has bounds"
    assert field.high is not None

    def given(value):
        put(document, keys, value)
        return refused(document)

    step = 1 if field.whole else 1e-6 * max(1.0, abs(field.low), abs(field.high))
    number = int if field.whole else float
    assert given(number(field.low)) == {}
    assert given(number(field.high)) == {}
    beyond = [(number(field.low - step), f"at least {field.low:g}"), (number(field.high + step), "at most")]
    for value, expected in beyond:
        fault = given(value)[pointer]
        assert fault.expected.startswith(expected), fault
        assert fault.expected.endswith(field.unit or fault.expected), "the bound is told with the field's unit"
    for value in (float("nan"), float("inf"), True, str(field.low), [field.low]):
        assert list(given(value)) == [pointer], "one fault, at its place"
    assert (given(None) == {}) == field.optional


@pytest.mark.parametrize("path", CHOICES)
def test_a_choice_is_one_of_its_options(path):
    field = FIELDS[path]
    document, pointer = with_row(path)
    keys = pointer.split("/")[1:]
    assert len(field.options) > 1 or path in ("/format", "/version")
    for option in field.options:
        changed = copy.deepcopy(document)
        put(changed, keys, int(option) if field.whole else option)
        assert refused(changed) == {}, option
    put(document, keys, "none of these")
    fault = refused(document)[pointer]
    assert all(option in fault.expected for option in field.options)


def test_every_field_is_described_and_worked_on_one_step():
    owners = [(place, entry.step) for entry in STEPS for place in entry.places]
    assert len({place for place, _ in owners}) == len(owners), "no place is worked on two steps"
    for path, field in FIELDS.items():
        last = path.rsplit("/", 1)[1]
        assert field.title, path
        assert not field.title.endswith("."), path
        assert field.title[0].isupper() or field.title[:1].isdigit(), path
        if field.quantity:
            assert field.quantity in get_args(Quantity), path
            assert field.unit == core_unit(field.quantity), path
        if field.kind == "number":
            assert field.quantity is not None, f"{path} has no quantity: it would stand without a unit"
        if field.unit and path.startswith("/strings"):
            assert last.endswith(
                (
                    "_ft",
                    "_in",
                    "_ppg",
                    "_psi",
                    "_gpm",
                    "_cm3",
                    "_bbl",
                    "_bpm",
                    "_minutes",
                    "_hours",
                    "_ppf",
                    "_percent",
                    "_f",
                    "_sk",
                    "_300",
                    "_600",
                    "_lbf",
                    "_100ft2",
                )
            )
        if field.offered:
            assert all(field.low <= value <= field.high for value in field.offered), path
            assert list(field.offered) == sorted(field.offered), path
    assert described("/strings/7/mud_ppg") == FIELDS["/strings/*/mud_ppg"]
    assert described("/strings/7/no_such_key") is None


def test_the_description_is_the_model():
    """Every key of every part is described, and nothing that is not in it; required is what has no default."""

    def walk(model, path):
        for name, field in model.model_fields.items():
            place = f"{path}/{name}"
            assert FIELDS[place].required == field.is_required(), place
            yield place
            kinds = [field.annotation, *get_args(field.annotation)]
            kinds += [inner for kind in kinds for inner in get_args(kind)]
            parts = [k for k in kinds if hasattr(k, "model_fields") and k is not NoneType]
            if parts:
                is_list = FIELDS[place].kind == "list"
                yield from walk(parts[0], f"{place}/*" if is_list else place)

    assert set(walk(Design, "")) == set(FIELDS)


@pytest.mark.parametrize(
    "place", ["", "/site", "/ground", "/strings/0", "/strings/0/cement", "/policy/mud", "/wellhead"]
)
def test_an_unknown_key_is_refused_at_its_place(place):
    document, _ = with_row("")
    keys = [*place.split("/")[1:], "no_such_key"]
    put(document, keys, 1.0)
    with pytest.raises(FaultyDesign) as told:
        parse(document)
    faults = [(f.path, f.expected) for f in told.value.faults]
    assert faults == [(f"{place}/no_such_key", "no such key in this format")]


def test_a_document_written_out_is_read_back_the_same():
    document, _ = with_row("")
    design = Design.model_validate(document)
    again = Design.model_validate(json.loads(json.dumps(design.model_dump(mode="json"))))
    assert again == design
