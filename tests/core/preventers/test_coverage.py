"""What each element does on each thing across it: a well of five sections by hand, limits on both sides, every hole told."""

import pytest

from knollstack.core.base.units import plain
from tests.helpers import applied, elements, find, points, run, well

FIVE = ("pipe rams", "drilling spool", "blind shear rams", "variable rams", "annular")
SECTIONS = [
    {"role": "conductor", "run": "driven", "shoe_md_ft": 150.0, "od_in": 30.0},
    {"role": "surface", "shoe_md_ft": 1500.0, "bit_in": 26.0, "od_in": 20.0, "mud_ppg": 9.5},
    {"role": "intermediate", "shoe_md_ft": 4500.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5},
    {"role": "intermediate", "shoe_md_ft": 7500.0, "bit_in": 12.25, "od_in": 9.625, "mud_ppg": 9.5},
    {"role": "intermediate", "run": "liner", "hanger_md_ft": 7100.0, "shoe_md_ft": 9000.0,
     "bit_in": 8.5, "od_in": 7.0, "mud_ppg": 9.5},
    {"role": "production", "run": "liner", "hanger_md_ft": 8700.0, "shoe_md_ft": 10_000.0,
     "bit_in": 6.0, "od_in": 4.5, "mud_ppg": 9.5},
]  # fmt: skip
DRILLED = [
    {"from_hole_in": 8.0, "pipe_od_in": 5.0, "pipe_id_in": 4.276, "collar_od_in": 6.5, "collar_length_ft": 600.0},
    {"from_hole_in": 1.0, "pipe_od_in": 3.5, "pipe_id_in": 2.764, "collar_od_in": 4.75, "collar_length_ft": 400.0},
]


def five(*stacks, **more):
    """A well of five sections; two liners cross the stack on the 9 5/8 in."""
    document = well(ground__fracture=points((30, 16), (10_000, 16)), strings=[dict(s) for s in SECTIONS])
    document["policy"] |= {"mud": {"drill_strings": DRILLED}, "sizes": {"tubing_od_in": 2.875}}
    document["preventers"] = [
        {"id": f"b{i}", "string": f"s{i}", "class_psi": 5000.0, "elements": rows, **more} for i, rows in stacks
    ]
    return document


def table(document, index):
    rows = run(document).preventers.strings[index].coverage
    return [(plain(r.when), plain(r.what), r.cells) for r in rows]


def stack(**changed):
    """On the 9 5/8 in: 5 in pipe rams below, 2 7/8 to 5 in variable rams above."""
    rows = elements(*FIVE)
    rows[0]["size_in"] = 5.0
    rows[3] |= {"from_in": 2.875, "to_in": 5.0}
    for place, values in changed.items():
        rows[int(place[1:]) - 1] |= values
    return rows


S, H, N, X, C = "seals", "seals and hangs", "no seal", "shears and seals", "cannot shear"


def test_the_stack_of_a_five_section_well_by_hand():
    """5 in fits both rams, 3 1/2 in the variable one alone; liners of 7 and 4 1/2 in, and tubing, cross it too.

    A casing ram is in the variable cavity while a liner is run. Blind shear rams cut 5 in S pipe (2,348 psi on 210 in² and
    the well over 7) and 3 1/2 in; 7 in is wider than 0.52 of the 11 in bore, 5.72 in.
    """
    rows = table(five((4, stack()), casing_ram="e4"), 3)
    assert rows == [
        ("8 1/2 in hole", "5 in drill pipe", (H, N, X, H, S)),
        ("8 1/2 in hole", "6 5/8 in tool joint", (N, N, C, N, S)),
        ("8 1/2 in hole", "6 1/2 in collars", (N, N, C, N, S)),
        ("8 1/2 in hole", "wireline", (N, N, X, N, S)),
        ("8 1/2 in hole", "nothing: open hole", (N, N, S, N, S)),
        ("running 7 in liner", "7 in liner", (N, N, C, S, S)),
        ("running 7 in liner", "7.656 in coupling", (N, N, C, N, S)),
        ("running 7 in liner", "5 in drill pipe", (H, N, X, H, S)),
        ("running 7 in liner", "6 5/8 in tool joint", (N, N, C, N, S)),
        ("6 in hole", "3 1/2 in drill pipe", (N, N, X, H, S)),
        ("6 in hole", "4 3/4 in tool joint", (N, N, C, N, S)),
        ("6 in hole", "4 3/4 in collars", (N, N, C, S, S)),
        ("6 in hole", "wireline", (N, N, X, N, S)),
        ("6 in hole", "nothing: open hole", (N, N, S, N, S)),
        ("running 4 1/2 in liner", "4 1/2 in liner", (N, N, X, S, S)),
        ("running 4 1/2 in liner", "5 in coupling", (N, N, C, N, S)),
        ("running 4 1/2 in liner", "3 1/2 in drill pipe", (N, N, X, H, S)),
        ("running 4 1/2 in liner", "4 3/4 in tool joint", (N, N, C, N, S)),
        ("completion", "3 1/2 in drill pipe", (N, N, X, H, S)),
        ("completion", "4 3/4 in tool joint", (N, N, C, N, S)),
        ("completion", "2 7/8 in tubing", (N, N, "unknown", H, S)),
        ("completion", "3.668 in coupling", (N, N, C, N, S)),
        ("completion", "wireline", (N, N, X, N, S)),
        ("completion", "nothing: cased hole", (N, N, S, N, S)),
    ]


def test_every_tubular_of_every_section_is_covered_or_told():
    for document in (five(), five((4, stack())), five((3, elements("drilling spool", "blind rams", "annular")))):
        judged = run(document)
        for i, row in enumerate(judged.preventers.strings):
            told = " ".join(plain(f.message) for f in find(judged, "preventers") if "stack" in plain(f.subject).lower())
            for cover in row.coverage:
                rams = [e for e in cover.backs if row.elements[e].kind == "ram" and cover.cells[e] != X]
                named = "Open hole" if cover.kind == "nothing" else plain(cover.what)
                closed = bool(rams) or cover.kind == "wireline" or "diverts" in cover.cells
                named = {"tool joint": "tool joints", "collars": "collars", "coupling": "couplings"}.get(
                    cover.kind, named
                )
                assert closed or named in told, (i, plain(cover.when), plain(cover.what))


def told(document):
    """Stops and cautions on the stack of the 9 5/8 in about what it closes on."""
    place = "/preventers/0"
    return [f for f in find(run(document), "preventers") if f.place == place and "closes on it" in plain(f.message)]


def test_casing_without_a_ram_is_told_and_mended():
    """7 in has only the annular until rams are changed for it; drill pipe stays covered by the other cavity."""
    found = told(five((4, stack())))
    liners = [plain(f.message) for f in found]
    assert liners[0] == "7 in liner: only the annular closes on it while running 7 in liner."
    finding = found[0]
    assert plain(finding.remedies[0].label) == "Change the variable bore rams to 7 in for the casing run"
    after = applied(five((4, stack())), finding.remedies[0].changes)
    assert after["preventers"][0]["casing_ram"] == "e4"
    assert told(after) == []


@pytest.mark.parametrize(("size_in", "fits"), [(5.0, True), (5.035, True), (4.965, True), (5.04, False), (4.96, False)])
def test_pipe_rams_fit_their_pipe_within_a_hair(size_in, fits):
    cell = table(five((4, stack(e1={"size_in": size_in}))), 3)[0][2][0]
    assert (cell == H) == fits


@pytest.mark.parametrize(
    ("least", "most", "fits"), [(3.5, 5.0, True), (3.5, 4.966, True), (3.5, 4.96, False), (5.034, 6.0, True), (5.04, 6.0, False)]
)  # fmt: skip
def test_variable_rams_close_within_their_range(least, most, fits):
    cell = table(five((4, stack(e4={"from_in": least, "to_in": most}))), 3)[0][2][3]
    assert (cell == H) == fits


@pytest.mark.parametrize(("bore_in", "cell"), [(7.1, S), (6.9, N)])
def test_an_annular_closes_on_what_passes_it(bore_in, cell):
    rows = {what: cells for _, what, cells in table(five((4, stack(e5={"bore_in": bore_in}))), 3)}
    assert rows["7 in liner"][4] == cell


@pytest.mark.parametrize(
    ("names", "said"),
    [
        (("blind rams", "pipe rams", "annular"), []),
        (("pipe rams", "annular"), ["Open hole: only the annular closes on it while drilling the 12 1/4 in hole."]),
        (("blind rams", "pipe rams"), []),
        (("blind rams", "annular"), ["5 in drill pipe: only the annular closes on it while drilling the 12 1/4 in hole."]),
        (("blind rams",), ["5 in drill pipe: nothing closes on it while drilling the 12 1/4 in hole."]),
        (("other", "blind rams"), [
            "5 in drill pipe: whether anything closes on it is unknown while drilling the 12 1/4 in hole."]),
    ],
)  # fmt: skip
def test_holes_are_told_by_how_bad_they_are(names, said):
    document = five((3, elements(*names)))
    found = [f for f in told(document) if "9 5/8 in casing" not in plain(f.message)]
    assert [plain(f.message) for f in found] == said
    severity = {"nothing": "stop", "only": "caution", "whether": "unknown"}
    for finding in found:
        assert finding.severity == severity[plain(finding.message).split(": ")[1].split()[0]]


def test_backs_are_in_the_order_in_which_they_are_closed():
    rows = run(five((4, stack()))).preventers.strings[3].coverage
    assert rows[0].backs == (4, 3, 0, 2), "annular, rams from the top, shears last"
    assert rows[2].backs == (4,), "nothing else on collars"


def test_collars_are_a_note_and_no_caution():
    notes = [plain(f.message) for f in find(run(five((4, stack()))), "preventers", "note")]
    assert notes == ["Only the annular closes on tool joints, collars, couplings: space out before a ram is closed."]


def test_the_diverter_leads_away_and_is_judged_on_nothing():
    rows = run(five()).preventers.strings[0]
    assert {r.cells[-1] for r in rows.coverage} == {"diverts"}
    assert rows.tests[0].high_psi is None


def test_a_proposed_stack_closes_on_all_that_it_can():
    """Rams are proposed for what policy's least leaves to the annular, with the reason."""
    row = run(five()).preventers.strings[1]
    assert [e.element for e in row.elements] == list(FIVE) or "pipe rams" in [e.element for e in row.elements]
    assert all(e.why for e in row.elements)
    assert not [f for f in find(run(five()), "preventers", "caution") if "closes on" in plain(f.message)]


def test_a_narrow_element_stops_plug_and_hanger():
    """The 9 5/8 in carries an 11 in head: an annular of 10 1/2 in passes the bit and not what lands in the bowl."""
    for bore_in, told_ in ((10.5, True), (11.0, False)):
        said = [plain(f.message) for f in find(run(five((4, stack(e5={"bore_in": bore_in})))), "preventers", "stop")]
        assert any("do not pass a bore of 10 1/2 in" in t for t in said) == told_


def test_what_is_done_with_a_stack_before_liners_and_between_strings():
    rows = run(five((4, stack()), casing_ram="e4")).preventers.strings
    steps = [[plain(words) for words in row.steps] for row in rows]
    assert steps[3] == [
        "For the liner change the variable bore rams to 7 in casing rams; test the bonnets.",
        "Run, hang and cement the 7 in liner; test its top. Rams back for drill pipe.",
        "For the liner change the variable bore rams to 4 1/2 in casing rams; test the bonnets.",
        "Run, hang and cement the 4 1/2 in liner; test its top. Rams back for drill pipe.",
    ]
    assert steps[0][1].startswith("Nipple down the diverter")
    assert "lift it 3.00 ft" in steps[2][3]
    landed = five()
    landed["policy"]["running"]["hanger"] = "mandrel"
    mandrel = [plain(words) for words in run(landed).preventers.strings[2].steps]
    assert not any("lift it" in words for words in mandrel)
    assert any("Land the hanger through the stack" in words for words in mandrel)


@pytest.mark.parametrize(
    ("names", "asked"),
    [
        (FIVE, None),
        (("pipe rams", "drilling spool", "blind rams", "variable rams", "annular"), None),
        (("variable rams", "drilling spool", "blind rams", "variable rams", "annular"), None),
        (("pipe rams", "drilling spool", "blind rams", "pipe rams", "annular"), "variable rams"),
        (("drilling spool", "blind rams", "variable rams", "annular"), "pipe rams"),
        (("pipe rams", "drilling spool", "pipe rams", "variable rams", "annular"), "blind shear rams"),
        (("pipe rams", "drilling spool", "blind rams", "variable rams"), "annular"),
        (("drilling spool", "blind rams", "annular"), "variable rams and pipe rams"),
    ],
)
def test_the_least_of_policy_for_a_class(names, asked):
    """For 5,000 psi: an annular, blind or blind shear rams, two on pipe of which one is variable."""
    said = [f for f in find(run(five((4, elements(*names)))), "preventers") if "class policy asks" in plain(f.message)]
    text = None if asked is None else f"For 5,000 psi class policy asks for {asked}; this stack has none left for it."
    assert [plain(f.message) for f in said] == ([] if text is None else [text])
    for finding in said:
        after = applied(five((4, elements(*names))), finding.remedies[0].changes)
        assert not [f for f in find(run(after), "preventers") if "class policy asks" in plain(f.message)]


@pytest.mark.parametrize(("over_psi", "told_"), [(0.0, False), (-0.01, True)])
def test_an_element_of_a_lower_class_stands_the_pressure_or_not(over_psi, told_):
    needed = run(five((4, stack()))).preventers.strings[3].pressure_psi
    document = five((4, stack(e1={"class_psi": needed + over_psi})))
    found = [f for f in find(run(document), "preventers", "stop") if f.place == "/preventers/0/elements/0/class_psi"]
    assert bool(found) == told_


def test_a_remedy_opens_no_other_hole():
    """3 1/2 in blocks in the only pipe rams would leave the 5 in pipe to the annular: they are added instead."""
    document = five((4, elements("pipe rams", "blind rams", "annular")))
    document["preventers"][0]["elements"][0]["size_in"] = 5.0
    found = next(f for f in told(document) if plain(f.message).startswith("3 1/2 in drill pipe"))
    assert [plain(r.label) for r in found.remedies] == ["Add 3 1/2 in rams"]


def test_heavy_weight_pipe_crosses_where_it_is_in_the_string():
    document = five((4, stack()))
    document["policy"]["mud"]["drill_strings"] = [DRILLED[0] | {"heavy_od_in": 5.5}, DRILLED[1]]
    rows = {what: cells for _, what, cells in table(document, 3)}
    assert rows["5 1/2 in heavy-weight pipe"] == (N, N, C, N, S)
    assert any(plain(f.message).startswith("5 1/2 in heavy-weight pipe: only the annular") for f in told(document))
    assert "heavy-weight" not in str(table(five((4, stack())), 3))


@pytest.mark.parametrize(("tubing_in", "known"), [(2.875, True), (None, False)])
def test_tubing_that_nobody_decided_is_unknown(tubing_in, known):
    document = five((4, stack()))
    document["policy"]["sizes"] = {"tubing_od_in": tubing_in}
    found = [f for f in find(run(document), "preventers", "unknown") if f.place == "/policy/sizes/tubing_od_in"]
    assert (found == []) == known
