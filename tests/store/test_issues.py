"""Issues of the run sheet: of the newest revision alone, written once, gone only with the bin."""

import sqlite3

import pytest

from knollstack.store.bin import delete_design, delete_well, empty_bin
from knollstack.store.database import connect, migrate, migrations, writing
from knollstack.store.issues import NotNewestError, issue_sheet, last_issue, list_issues
from knollstack.store.revisions import Revision, insert
from knollstack.store.wells import copy_design, create_well, find_design
from tests.store.helpers import NOW, save


@pytest.fixture
def design(connection):
    design = create_well(connection, "W", "one", "me", NOW)
    save(connection, design, 1, "two")
    issue_sheet(connection, design, 2, "Ann", NOW, "to the rig")
    return design


def rows(connection):
    return [tuple(row) for row in connection.execute("SELECT * FROM sheet_issue")]


def test_issues_count_on_and_belong_to_their_design(connection, design):
    other = copy_design(connection, design, "Deeper", "me", NOW)
    assert last_issue(connection, other) is None
    assert issue_sheet(connection, other, 1, "Ben", NOW, "").issue == 1
    save(connection, design, 2, "three")
    issue_sheet(connection, design, 3, "Ben", NOW, "")
    assert issue_sheet(connection, design, 3, "Ben", NOW, "again").issue == 3
    told = [(i.issue, i.number, i.author, i.note) for i in list_issues(connection, design)]
    assert told == [(3, 3, "Ben", "again"), (2, 3, "Ben", ""), (1, 2, "Ann", "to the rig")]
    assert last_issue(connection, design) == list_issues(connection, design)[0]


@pytest.mark.parametrize("number", [1, 3])
def test_a_revision_that_is_not_the_newest_is_not_issued(connection, design, number):
    before = rows(connection)
    with pytest.raises(NotNewestError):
        issue_sheet(connection, design, number, "me", NOW, "")
    assert rows(connection) == before


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE sheet_issue SET number = 1",
        "UPDATE OR REPLACE sheet_issue SET issue = 2",
        "DELETE FROM sheet_issue",
        "REPLACE INTO sheet_issue SELECT id, design_id, issue, 1, author, issued_at, note FROM sheet_issue",
        "REPLACE INTO sheet_issue SELECT id + 9, design_id, issue, 1, author, issued_at, note FROM sheet_issue",
        "REPLACE INTO sheet_issue SELECT id, design_id, issue + 1, number, 'x', issued_at, note FROM sheet_issue",
        "INSERT INTO sheet_issue SELECT id + 9, design_id, issue + 1, 77, 'x', issued_at, note FROM sheet_issue",
    ],
)
def test_an_issue_never_changes_nor_goes(connection, design, statement):
    before = rows(connection)
    with pytest.raises(sqlite3.IntegrityError):
        connection.execute(statement)
    assert rows(connection) == before


def test_an_issue_goes_with_what_is_emptied_from_the_bin(connection, design):
    other = copy_design(connection, design, "Deeper", "me", NOW)
    issue_sheet(connection, other, 1, "me", NOW, "")
    delete_design(connection, design, "me", NOW)
    assert len(rows(connection)) == 2, "in the bin nothing is lost yet"
    assert empty_bin(connection) == 1
    assert [row[1] for row in rows(connection)] == [other]
    delete_well(connection, find_design(connection, other).well_id, "me", NOW)
    assert empty_bin(connection) == 1
    assert rows(connection) == []


def test_a_file_from_before_comes_along_and_can_be_issued(tmp_path, monkeypatch):
    import knollstack.store.database as database

    held = connect(tmp_path / "old.sqlite")
    monkeypatch.setattr(database, "migrations", lambda: migrations()[:4])
    migrate(held)
    held.execute("INSERT INTO well (name, created_at) VALUES ('W', :now)", {"now": NOW})
    made = held.execute("INSERT INTO design (well_id, name, created_at) VALUES (1, 'A', :now)", {"now": NOW})
    design = made.lastrowid
    with writing(held):
        insert(held, Revision(design, 1, None, "me", NOW, "", "one"))
    monkeypatch.undo()
    migrate(held)
    assert list_issues(held, design) == []
    assert issue_sheet(held, design, 1, "me", NOW, "").issue == 1
    held.close()
