"""Nothing is lost: late saves, deleted wells, revisions that someone would change, files of older programs."""

import random
import sqlite3

import pytest

from knollstack.store.bin import LastDesignError, delete_design, delete_well, empty_bin, list_bin, put_back
from knollstack.store.database import connect, migrate, migrations
from knollstack.store.drafts import drop_draft, get_draft, list_drafts, renew_draft
from knollstack.store.packing import DamagedError, hash_of, packed, unpacked
from knollstack.store.revisions import (
    DeletedError,
    StaleSaveError,
    get_revision,
    list_revisions,
    newest_revision,
    save_revision,
)
from knollstack.store.wells import copy_design, create_well, find_design, list_designs
from tests.store.helpers import NOW, save


@pytest.fixture
def design(connection):
    return create_well(connection, "W", "one", "me", NOW)


def test_a_late_save_is_kept_as_a_draft_and_changes_nothing(connection, design):
    save(connection, design, 1, "theirs")
    for _ in "twice":
        with pytest.raises(StaleSaveError, match="based on revision 1, but revision 2 is the newest") as stale:
            save(connection, design, 1, "mine", author="Ann")
    assert stale.value.newest.document == "theirs"
    assert [r.document for r in list_revisions(connection, design, 99, 10)] == ["theirs", "one"]
    (draft,) = list_drafts(connection, design)
    assert (draft.id, draft.based_on, draft.author, draft.document) == (stale.value.draft_id, 1, "Ann", "mine")
    assert save(connection, design, 1, "theirs").number == 2, "what stands there already is no conflict"


def test_a_draft_is_renewed_by_its_author_alone_and_dropped_by_hand(connection, design):
    save(connection, design, 1, "theirs")
    with pytest.raises(StaleSaveError) as stale:
        save(connection, design, 1, "mine", author="Ann")
    draft = stale.value.draft_id
    assert not renew_draft(connection, design, draft, "other", "Ben", NOW)
    assert renew_draft(connection, design, draft, "mine, longer", "Ann", NOW)
    assert get_draft(connection, design, draft).document == "mine, longer"
    assert renew_draft(connection, design, draft, "mine, longer", "Ben", NOW), "taken up and not changed"
    assert get_draft(connection, design, draft).author == "Ann"
    assert get_draft(connection, design + 1, draft) is None
    assert drop_draft(connection, design, draft)
    assert not drop_draft(connection, design, draft)


def test_a_draft_that_becomes_a_revision_is_none_any_more(connection, design):
    save(connection, design, 1, "theirs")
    for text in ("mine", "another"):
        with pytest.raises(StaleSaveError):
            save(connection, design, 1, text, author="Ann")
    save(connection, design, 2, "mine", author="Ann")
    assert [d.document for d in list_drafts(connection, design)] == ["another"]


def test_an_id_is_never_given_again(connection, design):
    well = find_design(connection, design).well_id
    delete_well(connection, well, "me", NOW)
    assert empty_bin(connection) == 1
    other = create_well(connection, "Other", "o", "me", NOW)
    assert other != design
    assert find_design(connection, other).well_id != well
    with pytest.raises(DeletedError):
        save_revision(connection, well, design, 1, "W", "two", "me", NOW)
    with pytest.raises(DeletedError):
        save_revision(connection, well, other, 1, "W", "two", "me", NOW)
    assert newest_revision(connection, other).document == "o"


def test_the_bin_gives_back_what_was_deleted(connection, design):
    well = find_design(connection, design).well_id
    other = copy_design(connection, design, "Deeper", "me", NOW)
    assert delete_design(connection, other, "Ann", NOW)
    assert not delete_design(connection, other, "Ann", NOW)
    with pytest.raises(LastDesignError, match="Base design"):
        delete_design(connection, design, "Ann", NOW)
    again = copy_design(connection, design, "Deeper", "me", NOW)
    assert put_back(connection, "design", other)
    names = {row.id: row.name for row in list_designs(connection)}
    assert names == {design: "Base design", again: "Deeper", other: "Deeper, put back"}
    assert delete_well(connection, well, "Ann", NOW)
    (item,) = list_bin(connection)
    assert (item.kind, item.id, item.designs, item.deleted_by) == ("well", well, 3, "Ann")
    assert list_designs(connection) == []
    with pytest.raises(DeletedError):
        save_revision(connection, well, design, 1, "W", "two", "me", NOW)
    assert not put_back(connection, "well", 99)
    assert put_back(connection, "well", well)
    assert len(list_designs(connection)) == 3
    assert list_bin(connection) == []


def test_one_thing_of_the_bin_goes_and_the_rest_stays(connection, design):
    other = copy_design(connection, design, "Deeper", "me", NOW)
    second = create_well(connection, "Second", "s", "me", NOW)
    delete_design(connection, other, "me", NOW)
    delete_well(connection, find_design(connection, second).well_id, "me", NOW)
    assert empty_bin(connection, "design", design) == 0, "what is not in the bin stays"
    assert empty_bin(connection, "design", other) == 1
    assert [b.kind for b in list_bin(connection)] == ["well"]
    assert get_revision(connection, other, 1) is None
    assert newest_revision(connection, design).document == "one"


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE revision SET note = 'other'",
        "UPDATE OR REPLACE revision SET number = 1 WHERE number = 2",
        "DELETE FROM revision",
        "INSERT OR REPLACE INTO revision SELECT design_id, number, NULL, 'x', saved_at, note, hash, NULL, content FROM revision",
        "REPLACE INTO revision (rowid, design_id, number, author, saved_at, note, hash, content) "
        "SELECT rowid, design_id, number + 50, 'x', saved_at, note, hash, content FROM revision WHERE number = 1",
        "DELETE FROM design",
        "DELETE FROM well",
    ],
)
def test_a_revision_never_changes_nor_goes(connection, design, statement):
    save(connection, design, 1, "two")
    before = [tuple(row) for row in connection.execute("SELECT * FROM revision")]
    with pytest.raises(sqlite3.IntegrityError):
        connection.execute(statement)
    assert [tuple(row) for row in connection.execute("SELECT * FROM revision")] == before


def test_revisions_of_a_long_document_are_small_and_read_back_as_they_were(connection):
    draw = random.Random(3)
    lines = [f"{draw.random()}" for _ in range(4_000)]
    texts = {1: "\n".join(lines)}
    design = create_well(connection, "W", texts[1], "me", NOW)
    for number in range(2, 131):
        lines[draw.randrange(len(lines))] = f"{draw.random()}"
        texts[number] = "\n".join(lines)
        save(connection, design, number - 1, texts[number])
    assert {r.number: r.document for r in list_revisions(connection, design, 999, 999)} == texts
    whole, all_ = connection.execute(
        "SELECT count(*) FILTER (WHERE base IS NULL), sum(length(content)) FROM revision"
    ).fetchone()
    assert whole == 3
    assert all_ < 5 * len(packed(texts[1]))


def test_what_is_damaged_is_not_read(connection, design):
    text = "a document " * 20
    content = packed(text)
    with pytest.raises(DamagedError):
        unpacked(content[:-3], hash_of(text))
    with pytest.raises(DamagedError):
        unpacked(content, hash_of("another"))
    with pytest.raises(DamagedError):
        unpacked(packed(text + "b", text), hash_of(text + "b"), "another base")


def test_a_file_of_the_first_program_comes_along_whole(tmp_path, monkeypatch):
    import knollstack.store.database as database

    held = connect(tmp_path / "old.sqlite")
    monkeypatch.setattr(database, "migrations", lambda: migrations()[:2])
    migrate(held)
    held.execute("INSERT INTO well VALUES (7, 'W', 't')")
    held.execute("INSERT INTO design VALUES (9, 7, 'Base design', 't')")
    held.executemany("INSERT INTO revision VALUES (9, ?, ?, 'me', 't', 'n', ?)", [(1, None, "one"), (2, 1, "zwei ä")])
    held.execute("INSERT INTO summary VALUES (9, 2, 'p', 'c')")
    monkeypatch.undo()
    migrate(held)
    assert [(r.number, r.parent, r.document) for r in list_revisions(held, 9, 99, 9)] == [
        (2, 1, "zwei ä"),
        (1, None, "one"),
    ]
    assert find_design(held, 9).well_id == 7
    assert held.execute("SELECT content FROM summary").fetchone()[0] == "c"
    assert held.execute("PRAGMA foreign_key_check").fetchall() == []
    assert create_well(held, "N", "n", "me", NOW) == 10
    held.close()
