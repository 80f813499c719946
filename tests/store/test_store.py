"""The store: what was acknowledged is kept, what is stale is refused, nothing ever changes."""

import os
import signal
import sqlite3
import subprocess
import sys
import textwrap

import pytest

from knollstack.store.database import connect, migrate
from knollstack.store.wells import (
    LastDesignError,
    StaleSaveError,
    TakenNameError,
    copy_design,
    create_well,
    delete_design,
    delete_well,
    find_design,
    get_revision,
    list_designs,
    list_revisions,
    newest_revision,
    rename_design,
    save_revision,
)


@pytest.fixture
def connection(tmp_path):
    connection = connect(tmp_path / "k.sqlite")
    migrate(connection)
    yield connection
    connection.close()


def save(connection, design, based_on, document, name="W"):
    return save_revision(connection, design, based_on, name, document, "me", "2026-01-02T00:00:00+00:00")


def test_settings_of_the_connection(connection):
    pragmas = [connection.execute(f"PRAGMA {p}").fetchone()[0] for p in ("journal_mode", "foreign_keys", "synchronous")]
    assert pragmas == ["wal", 1, 2]


def test_migrations_apply_once(connection):
    before = connection.execute("SELECT name FROM migration").fetchall()
    migrate(connection)
    assert connection.execute("SELECT name FROM migration").fetchall() == before
    assert [row["name"] for row in before] == ["001_wells.sql", "002_summaries.sql"]


def test_revisions_follow_one_another(connection):
    design = create_well(connection, "W", "one", "me", "2026-01-01T00:00:00+00:00")
    second = save(connection, design, 1, "two", name="Renamed")
    assert (second.number, second.parent) == (2, 1)
    assert save(connection, design, 2, "two").number == 2, "the same document again is no new revision"
    assert [r.document for r in list_revisions(connection, design, 99, 10)] == ["two", "one"]
    assert get_revision(connection, design, 1).document == "one"
    row = find_design(connection, design)
    assert (row.well_name, row.revision) == ("Renamed", 2)
    assert list_designs(connection) == [row]


def test_history_comes_in_pages(connection):
    design = create_well(connection, "W", "1", "me", "2026-01-01T00:00:00+00:00")
    for i in range(1, 6):
        save(connection, design, i, str(i + 1))
    assert [r.number for r in list_revisions(connection, design, 5, 3)] == [4, 3, 2]


def test_alternatives_share_the_well_and_nothing_else(connection):
    base = create_well(connection, "W", "one", "me", "2026-01-01T00:00:00+00:00")
    save(connection, base, 1, "two")
    other = copy_design(connection, base, "Deeper surface", "me", "2026-01-03T00:00:00+00:00")
    copied = newest_revision(connection, other)
    assert (copied.number, copied.document, copied.note) == (1, "two", "copied from Base design, revision 2")
    with pytest.raises(TakenNameError, match="Deeper surface"):
        copy_design(connection, base, "Deeper surface", "me", "2026-01-03T00:00:00+00:00")
    with pytest.raises(TakenNameError, match="Base design"):
        rename_design(connection, other, "Base design")
    assert rename_design(connection, other, "Deeper surface"), "its own name is free to it"
    save(connection, other, 1, "three")
    assert newest_revision(connection, base).document == "two"
    assert delete_design(connection, base)
    with pytest.raises(LastDesignError, match="Deeper surface"):
        delete_design(connection, other)
    assert [row.id for row in list_designs(connection)] == [other]


def test_a_stale_save_writes_nothing(connection):
    design = create_well(connection, "W", "one", "me", "2026-01-01T00:00:00+00:00")
    save(connection, design, 1, "theirs")
    with pytest.raises(StaleSaveError, match="based on revision 1, but revision 2 is the newest") as stale:
        save(connection, design, 1, "mine")
    assert stale.value.newest.document == "theirs"
    assert newest_revision(connection, design).document == "theirs"
    assert len(list_revisions(connection, design, 99, 10)) == 2


def test_a_revision_never_changes(connection):
    create_well(connection, "W", "one", "me", "2026-01-01T00:00:00+00:00")
    with pytest.raises(sqlite3.IntegrityError, match="a revision never changes"):
        connection.execute("UPDATE revision SET document = 'other'")


def test_a_well_goes_with_everything_below_it(connection):
    design = create_well(connection, "W", "one", "me", "2026-01-01T00:00:00+00:00")
    assert delete_well(connection, find_design(connection, design).well_id)
    assert not delete_well(connection, 99)
    assert connection.execute("SELECT count(*) FROM revision").fetchone()[0] == 0


def test_a_killed_process_loses_nothing_acknowledged(tmp_path):
    """A writer acknowledges each save on its standard output and is killed in the middle of the next."""
    path = tmp_path / "k.sqlite"
    script = textwrap.dedent(f"""
        from knollstack.store.database import connect, migrate
        from knollstack.store.wells import create_well, save_revision
        connection = connect({str(path)!r})
        migrate(connection)
        design = create_well(connection, "W", "0", "me", "t")
        number = 1
        while True:
            number = save_revision(connection, design, number, "W", str(number), "me", "t").number
            print(number, flush=True)
    """)
    writer = subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE, text=True)
    acknowledged = [int(writer.stdout.readline()) for _ in range(40)][-1]
    os.kill(writer.pid, signal.SIGKILL)
    rest, _ = writer.communicate()
    acknowledged = max([acknowledged, *map(int, rest.split("\n")[:-1])])
    connection = connect(path)
    assert newest_revision(connection, 1).number >= acknowledged
    assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    connection.close()
