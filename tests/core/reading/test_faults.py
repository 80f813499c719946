"""Bad input: one clear message per fault at its place; nothing repaired in silence."""

import json

import pytest

from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse, parse_text
from tests.helpers import demo, elements, points, put, well


def faults(document):
    with pytest.raises(FaultyDesign) as refused:
        parse(document)
    return [(f.path, f.value, f.expected) for f in refused.value.faults]


SECTION = {"weight_ppf": 29.0, "grade": "L80", "connection": "LTC"}
PIPE = {
    "od_in": 7.0,
    "weight_ppf": 30.0,
    "wall_in": 0.42,
    "grade": "own",
    "yield_psi": 90_000.0,
    "connection": "own",
    "coupling_od_in": 7.5,
}
END = "10000"
DEEPER, BEGINS = "a depth no deeper than the end of the well", "a depth below where it begins (900 ft)"
SHOT = {"id": "f1", "top_md_ft": 900.0, "bottom_md_ft": 950.0}
SURVEY = {"id": "y1", "kind": "core", "from_md_ft": 900.0, "to_md_ft": 950.0}
LOT = {"id": "y1", "kind": "leak-off test", "from_md_ft": 900.0, "to_md_ft": 900.0}
LOGGED = {"id": "m1", "md_ft": 900.0, "psi": 400.0}
LEFT = {"id": "k1", "top_md_ft": 700.0, "bottom_md_ft": 900.0}
TOTAL = "/trajectory/stations/1/md_ft"
BAD = [
    ("site__rig_floor_ft", "thirty", ("/site/rig_floor_ft", '"thirty"', "a number")),
    ("site__rig_floor_ft", -5.0, ("/site/rig_floor_ft", "-5.0", "at least 0 ft")),
    ("site__rig_floor_ft", True, ("/site/rig_floor_ft", "true", "a number")),
    ("trajectory__stations__1__md_ft", 1e9, (TOTAL, "1000000000.0", "at most 40000 ft")),
    ("trajectory__stations__1__md_ft", float("nan"), (TOTAL, "NaN", "a finite number")),
    ("trajectory__stations__1__md_ft", float("inf"), (TOTAL, "Infinity", "a finite number")),
    (
        "trajectory__stations__1__md_ft",
        10.0,
        (TOTAL, "10", "a total depth below the ground (30 ft from the rig floor)"),
    ),
    ("trajectory__stations", [{"md_ft": 0.0}], ("/trajectory/stations", '[{"md_ft": 0.0}]', "at least 2 of them")),
    ("trajectory__stations__0__md_ft", 5.0, ("/trajectory/stations/0/md_ft", "5", "0, the rig floor")),
    (
        "trajectory__stations__1__inclination_deg",
        181.0,
        ("/trajectory/stations/1/inclination_deg", "181.0", "at most 180 °"),
    ),
    (
        "ground__pore",
        points((30, 9), (5000, 9), (4000, 9)),
        ("/ground/pore/2/tvd_ft", "4000", "a depth below the point before it (5000 ft)"),
    ),
    (
        "ground__pore",
        points((30, 9), (5000, 9), (5000, 9)),
        ("/ground/pore/2/tvd_ft", "5000 twice", "no duplicate point"),
    ),
    (
        "ground__pore",
        points((30, 9), (50, 9), (50, 10), (50, 11)),
        ("/ground/pore/3/tvd_ft", "50", "at most two points at one depth (a step)"),
    ),
    (
        "ground__fracture__1__emw_ppg",
        8.5,
        ("/ground/fracture/1/emw_ppg", "8.50 ppg", "at least the pore pressure at 10000 ft (9.00 ppg)"),
    ),
    (
        "ground__pore",
        points((30, 9), (5000, 14.5), (10_000, 9)),
        ("/ground/pore/1/emw_ppg", "14.50 ppg", "at most the fracture gradient at 5000 ft (14.00 ppg)"),
    ),
    (
        "ground__zones",
        [{"name": "Z" * 201, "top_tvd_ft": 400.0, "base_tvd_ft": 500.0}],
        ("/ground/zones/0/name", '"' + "Z" * 56 + "…", "at most 200 characters"),
    ),
    (
        "ground__zones",
        [{"name": "Z", "top_tvd_ft": 500.0, "base_tvd_ft": 400.0}],
        ("/ground/zones/0/base_tvd_ft", "400", "a base below the top (500 ft)"),
    ),
    (
        "ground__zones",
        [{"name": "Z", "top_tvd_ft": 5.0, "base_tvd_ft": 40.0, "rock": "cheese"}],
        ("/ground/zones/0/rock", '"cheese"', None),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 10_001.0}],
        ("/strings/0/shoe_md_ft", "10001", "a shoe at or above total depth (10000 ft)"),
    ),
    (
        "strings",
        [{"role": "surface", "shoe_md_ft": 900.0}, {"role": "production", "shoe_md_ft": 800.0}],
        ("/strings/1/shoe_md_ft", "800", "a shoe below the one before it (900 ft)"),
    ),
    (
        "strings",
        [{"role": "surface", "shoe_md_ft": 11_000.0}, {"role": "production", "shoe_md_ft": 9_000.0}],
        ("/strings/0/shoe_md_ft", "11000", "a shoe at or above total depth (10000 ft)"),
    ),
    (
        "strings",
        [{"role": "production", "run": "liner", "shoe_md_ft": 900.0}],
        ("/strings/0/hanger_md_ft", "nothing", "the depth of a liner's hanger"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "cement": {"top_md_ft": 950.0}}],
        ("/strings/0/cement/top_md_ft", "950", "a depth above the shoe (900 ft)"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "running": {"landing_md_ft": 900.0}}],
        ("/strings/0/running/landing_md_ft", "900", "a depth above the shoe (900 ft)"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 20.0}],
        ("/strings/0/shoe_md_ft", "20", "a shoe below the ground (30 ft from the rig floor)"),
    ),
    (
        "trajectory__stations",
        [{"md_ft": m, "inclination_deg": 95.0} for m in (0.0, 900.0)],
        ("/trajectory/stations/1/inclination_deg", "95", "a path that stays below the rig floor"),
    ),
    (
        "ground__leak_off_tests",
        points((5000, 8.5)),
        ("/ground/leak_off_tests/0/emw_ppg", "8.50 ppg", "at least the pore pressure at 5000 ft (9.00 ppg)"),
    ),
    (
        "preventers",
        [{"class_psi": 5000.0, "elements": elements("annular")}],
        ("/preventers/0/string", "nothing", "a value"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "sections": [SECTION, SECTION]}],
        ("/strings/0/sections/0/to_md_ft", "nothing", "a depth; only the last section ends at the shoe by itself"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "sections": [SECTION | {"to_md_ft": 500.0}]}],
        ("/strings/0/sections/0/to_md_ft", "500", "nothing: the last section ends at the shoe"),
    ),
    (
        "strings",
        [
            {
                "role": "production",
                "shoe_md_ft": 900.0,
                "sections": [SECTION | {"to_md_ft": 500.0}, SECTION | {"to_md_ft": 400.0}, SECTION],
            }
        ],
        ("/strings/0/sections/1/to_md_ft", "400", "a depth below the section above it (500 ft)"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "tie_back": True}],
        ("/strings/0/tie_back", "cased", "a liner: only a liner is tied back"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "wear_percent": 75.0}],
        ("/strings/0/wear_percent", "75.0", "at most 60 %"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "mud_steps": [{"to_md_ft": 950.0, "mud_ppg": 9.0}]}],
        ("/strings/0/mud_steps/0/to_md_ft", "950", "a depth between 30 and 900 ft"),
    ),
    (
        "strings",
        [{"role": "production", "shoe_md_ft": 900.0, "loads": [{"name": "", "kind": "burst"}]}],
        ("/strings/0/loads/0/name", '""', None),
    ),
    ("pipes", [PIPE | {"wall_in": 3.6}], ("/pipes/0/wall_in", "3.6", "under half of the outside diameter (3.5 in)")),
    (
        "pipes",
        [PIPE | {"coupling_od_in": 6.9}],
        ("/pipes/0/coupling_od_in", "6.9", "at least the outside diameter of the pipe (7 in)"),
    ),
    ("pipes", [PIPE | {"yield_psi": 80.0}], ("/pipes/0/yield_psi", "80.0", "at least 10000 psi")),
    (
        "stock",
        [{"od_in": 7.0, "weight_ppf": 29.0, "grade": "L80", "connection": "LTC", "price_per_ft": -3.0}],
        ("/stock/0/price_per_ft", "-3.0", None),
    ),
    ("policy__pipe__connections", [], ("/policy/pipe/connections", "[]", None)),
    ("policy__pipe__most_sections", 9, ("/policy/pipe/most_sections", "9", "at most 4")),
    ("policy__pipe__burst_method", "hope", ("/policy/pipe/burst_method", '"hope"', None)),
    ("colour", "red", ("/colour", '"red"', "no such key in this format")),
    (
        "version",
        10,
        ("/version", "10", "9 or older: the file was written by a newer Knollstack; update this one to open it"),
    ),
    ("version", 0, ("/version", "0", "9, the version written here, or one of 1, 2, 3, 4, 5, 6, 7, 8")),
    ("version", True, ("/version", "true", "9, the version written here, or one of 1, 2, 3, 4, 5, 6, 7, 8")),
    (
        "strings",
        [{"id": "a", "role": "surface", "shoe_md_ft": 900.0}, {"id": "a", "role": "production", "shoe_md_ft": 1900.0}],
        ("/strings/1/id", "a", "an id that no other row has"),
    ),
    ("strings", [{"id": "a b", "role": "surface", "shoe_md_ft": 900.0}], ("/strings/0/id", '"a b"', None)),
    *(
        (f"completion__{path}", value, (f"/completion/{place}", told, expected))
        for path, value, place, told, expected in (
            ("packer_md_ft", 13_000.0, "packer_md_ft", "13000", f"{DEEPER} ({END} ft)"),
            ("packer_md_ft", 30.0, "packer_md_ft", "30", "a depth below the ground (30 ft from the rig floor)"),
            (
                "perforations",
                [SHOT | {"bottom_md_ft": 13_000.0}],
                "perforations/0/bottom_md_ft",
                "13000",
                f"{DEEPER} ({END} ft)",
            ),
            ("perforations", [SHOT | {"bottom_md_ft": 899.0}], "perforations/0/bottom_md_ft", "899", BEGINS),
            ("evaluation", [SURVEY | {"to_md_ft": 900.0}], "evaluation/0/to_md_ft", "900", BEGINS),
            ("evaluation", [LOT | {"to_md_ft": 13_000.0}], "evaluation/0/to_md_ft", "13000", f"{DEEPER} ({END} ft)"),
            ("pressure_points", [LOGGED | {"md_ft": 20.0}], "pressure_points/0/md_ft", "20", None),
            ("pressure_points", [LOGGED, LOGGED], "pressure_points/1/id", "m1", "an id that no other row has"),
            ("verified", [{"id": "v1", "element": "x", "date": "May"}], "verified/0/date", '"May"', None),
            ("suspension", {"plugs": [LEFT | {"top_md_ft": 900.0}]}, "suspension/plugs/0/top_md_ft", "900", None),
            ("abandonment", {"plugs": [LEFT, LEFT]}, "abandonment/plugs/1/id", "k1", "an id that no other row has"),
            ("tree", {"safety_valves": 9}, "tree/safety_valves", "9", "at most 3"),
        )
    ),
    ("format", "other.tool", ("/format", '"other.tool"', '"knollstack.well", a well file')),
]


@pytest.mark.parametrize(("path", "value", "expected"), BAD, ids=[f"{p}-{i}" for i, (p, _, _) in enumerate(BAD)])
def test_one_message_at_its_place(path, value, expected):
    document = well()
    put(document, path.split("__"), value)
    assert [f[:2] for f in faults(document)] == [expected[:2]]
    if expected[2] is not None:
        assert faults(document)[0][2] == expected[2]


def test_every_fault_is_reported_at_once():
    document = well(
        ground__pore=points((30, 9), (20, 9)),
        strings=[{"role": "surface", "shoe_md_ft": 11_000.0}, {"role": "production", "shoe_md_ft": 12_000.0}],
    )
    assert [f[0] for f in faults(document)] == [
        "/ground/pore/1/tvd_ft",
        "/strings/0/shoe_md_ft",
        "/strings/1/shoe_md_ft",
    ]


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("", "not JSON at line 1, column 1"),
        (json.dumps(demo(), indent=1)[:400], "not JSON at line"),
        (b"\xff\xfe\x00", "bytes that are not UTF-8 text"),
        ("[" * 100_000, "JSON nested too deep"),
        ("[1, 2]", "[1, 2]"),
        ("3", "3"),
        (json.dumps(demo()).replace("12600.0", "1e400", 1), "Infinity"),
        (json.dumps(demo()).replace("12600.0", "-NaN", 1), "not JSON at line 1"),
    ],
)
def test_text_that_is_no_well_file(text, value):
    with pytest.raises(FaultyDesign) as refused:
        parse_text(text)
    assert value in refused.value.faults[0].value
    assert len(refused.value.faults) == 1


def test_a_partial_hand_written_file_takes_the_defaults():
    design = parse({"format": "knollstack.well", "version": 6, "name": "Bare"})
    assert design.site.setting == "land"
    assert design.policy.mud.trip_margin_ppg == 0.3
    with pytest.raises(ValueError, match="frozen"):
        design.name = "other"  # type: ignore[misc]


@pytest.mark.parametrize(("top", "told"), [(9000.0, False), (2600.0, False), (1000.0, True)])
def test_a_gas_column_beyond_what_rock_holds_is_refused_at_its_zone(top, told):
    """From 10,000 ft at 9.0 ppg gas of 0.1 psi/ft has (4,675 − 0.1·9,000)/(0.0519481·1,000) = 72.7 ppg at 1,000 ft."""
    zone = {"name": "Gas", "top_tvd_ft": top, "base_tvd_ft": 10_000.0, "fluid": "gas", "gas_contact_tvd_ft": 10_000.0}
    document = well(ground__zones=[zone | {"id": "g"}], ground__fracture=points((30, 29.9), (10_000, 29.9)))
    if not told:
        assert parse(document)
        return
    ((path, value, expected),) = faults(document)
    assert (path, value) == ("/ground/zones/0/gas_contact_tvd_ft", "10000")
    assert expected == "a gas column of at most 30 ppg; up to 1000 ft it would have 72.7 ppg"
