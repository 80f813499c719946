"""The strings in force: their order, what they are equal by, where they hang, and the bores that a hole is drilled from."""

import copy

import pytest

from knollstack.core.base.units import plain
from knollstack.core.program.equipped import EquippedString
from knollstack.core.program.hanging import hang_higher, hanger_by_policy_ft
from knollstack.core.program.laid import role_list
from knollstack.core.proposal.equipping import program_of
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, applied, demo, empty_demo, policy, run, well

STRINGS = [
    {"id": "c", "role": "conductor", "run": "driven", "shoe_md_ft": 150.0, "od_in": 20.0},
    {"id": "s", "role": "surface", "shoe_md_ft": 2000.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5},
    {"id": "i", "role": "intermediate", "shoe_md_ft": 6000.0, "bit_in": 12.25, "od_in": 9.625, "mud_ppg": 9.6},
    {
        "id": "l",
        "role": "production",
        "run": "liner",
        "hanger_md_ft": 5600.0,
        "shoe_md_ft": 10_000.0,
        "bit_in": 8.5,
        "od_in": 7.0,
        "mud_ppg": 9.7,
    },
]


def document(**liner):
    strings = copy.deepcopy(STRINGS)
    strings[3].update(liner)
    return well(strings=strings)


def program(of):
    return program_of(parse(of), CATALOGUE)


def test_strings_know_their_neighbours_and_what_they_hang_from():
    laid = laid_out(parse(document()), CATALOGUE)
    conductor, surface, intermediate, liner = laid.strings
    assert [s.previous_shoe_md_ft for s in laid.strings] == [30.0, 150.0, 2000.0, 6000.0]
    assert (laid.previous(conductor), laid.next(liner)) == (None, None)
    assert (laid.next(surface), laid.previous(surface)) == (intermediate, conductor)
    assert [s.drilled for s in laid.strings] == [False, True, True, True]
    assert (liner.top_md_ft, liner.hung_md_ft, intermediate.hung_md_ft) == (5600.0, 5600.0, 0.0)
    tied = laid_out(parse(document(tie_back=True)), CATALOGUE).strings[3]
    assert (tied.top_md_ft, tied.hung_md_ft) == (5600.0, 0.0)
    assert plain(liner.shoe_words) == "7 in shoe"
    assert plain(intermediate.hole_words) == "12 1/4 in hole"
    assert liner.change("mud_ppg", 9.9).path == "/strings/3/mud_ppg"


def test_equal_strings_are_one_key_and_any_difference_is_another():
    """Strings are keys of caches: two readings of one document give equal ones, every edit of a string an unequal one."""
    first, again = (laid_out(parse(document()), CATALOGUE).strings for _ in range(2))
    assert first == again
    assert [hash(s) for s in first] == [hash(s) for s in again]
    edits = {
        "shoe_md_ft": 9990.0,
        "hanger_md_ft": 5500.0,
        "bit_in": 8.375,
        "od_in": 5.5,
        "mud_ppg": 9.8,
        "wear_percent": 5.0,
        "tie_back": True,
        "reading_300": 20.0,
        "name": "other",
    }
    for key, value in edits.items():
        changed = laid_out(parse(document(**{key: value})), CATALOGUE).strings
        assert changed[3] != first[3], key
        assert changed[1] == first[1], key
    equipped = program(document()).strings[3]
    assert isinstance(equipped, EquippedString)
    assert equipped.laid == first[3]
    assert equipped != first[3], "with its pipe it is another thing"


def test_a_hole_is_drilled_from_the_casing_above_it_up_to_the_ground():
    """Inside a liner the bores are the liner's, above its hanger the casing's that it hangs in."""
    strings = [*copy.deepcopy(STRINGS[:3]), {**STRINGS[3], "role": "intermediate", "shoe_md_ft": 8000.0}]
    strings.append(
        {"id": "p", "role": "production", "shoe_md_ft": 10_000.0, "bit_in": 6.0, "od_in": 4.5, "mud_ppg": 9.7}
    )
    made = program(well(strings=strings))
    spans = made.cased_bores(made.strings[4])
    casing, liner = made.strings[2].sections[0].pipe.id_in, made.strings[3].sections[0].pipe.id_in
    assert spans == [(5600.0 - 30.0, casing), (8000.0 - 5600.0, liner)]
    assert made.cased_bores(made.strings[1]) == [(120.0, made.strings[0].sections[0].pipe.id_in)]
    assert made.strings[3].bores(5000.0, 6000.0) == [(400.0, liner)]
    assert made.strings[3].bores(8000.0, 9000.0) == []
    unknown = [*copy.deepcopy(strings)]
    unknown[2]["pipe"] = {"weight_ppf": 99.0, "grade": "L80", "connection": "BTC"}
    assert program(well(strings=unknown)).cased_bores(program(well(strings=unknown)).strings[4]) is None


def test_a_tapered_string_passes_what_its_narrowest_pipe_does():
    sections = [
        {"weight_ppf": 26.0, "grade": "L80", "connection": "LTC", "to_md_ft": 5000.0},
        {"weight_ppf": 32.0, "grade": "L80", "connection": "LTC"},
    ]
    strings = [*copy.deepcopy(STRINGS[:3]), {**STRINGS[3], "run": "cased", "hanger_md_ft": None, "sections": sections}]
    string = program(well(strings=strings)).strings[3]
    assert [(s.top_md_ft, s.bottom_md_ft, s.pipe.weight_ppf) for s in string.sections] == [
        (0.0, 5000.0, 26.0),
        (5000.0, 10_000.0, 32.0),
    ]
    assert string.pipe.weight_ppf == 32.0
    assert sum(length for length, _ in string.bores(4000.0, 7000.0)) == 3000.0


@pytest.mark.parametrize("count", range(7))
def test_roles_of_a_program(count):
    roles = role_list(count)
    assert len(roles) == (0 if count == 0 else max(2, count))
    if count:
        assert (roles[0], roles[-1]) == ("conductor", "production")
    assert roles.count("surface") == (count > 2)
    assert roles.count("intermediate") == max(0, count - 3)


@pytest.mark.parametrize(
    ("shoe", "overlap", "top"), [(6000.0, 400.0, 5600.0), (300.0, 400.0, 30.0), (6000.0, 0.0, 6000.0)]
)
def test_a_liner_hangs_by_policys_overlap_and_not_above_the_ground(shoe, overlap, top):
    of = document()
    of["policy"] = policy(liner_overlap_ft=overlap)
    assert hanger_by_policy_ft(program(of).well, shoe) == top


def test_hanging_the_liner_higher_gives_the_overlap():
    of = document(hanger_md_ft=5900.0)
    made = program(of)
    offered = hang_higher(made.well, made.strings[3])
    assert plain(offered.label) == "Hang the liner at 5,600 ft"
    assert run(applied(of, offered.changes)).strings[3].top_md_ft == 5600.0


def test_a_proposed_string_is_adopted_as_it_stands():
    """What is adopted gives the same program again, now decided."""
    proposed = run(empty_demo())
    assert all(s.proposed for s in proposed.strings)
    decided = empty_demo()
    laid = laid_out(parse(decided), CATALOGUE)
    decided["strings"] = [s.adopted().model_dump(mode="json") for s in laid.strings]
    again = run(decided)
    assert not any(s.proposed for s in again.strings)
    for before, after in zip(proposed.strings, again.strings, strict=True):
        assert (after.id, after.role, after.shoe_md_ft) == (before.id, before.role, before.shoe_md_ft)
        assert (after.od_in, after.bit_in, after.mud_ppg) == (before.od_in, before.bit_in, before.mud_ppg)


def test_what_is_open_is_filled_and_told_and_what_is_decided_is_kept():
    of = demo()
    of["strings"][2]["mud_ppg"] = None
    of["strings"][2]["od_in"] = None
    laid = laid_out(parse(of), CATALOGUE)
    string = laid.strings[2]
    assert string.mud_ppg == string.planned_mud_ppg is not None
    assert string.od_in is not None
    places = {a.place for a in laid.assumptions}
    assert {"/strings/2/mud_ppg", "/strings/2/od_in"} <= places
    assert "/strings/3/mud_ppg" not in places, "decided"
    assert laid.strings[3].mud_ppg == of["strings"][3]["mud_ppg"]
