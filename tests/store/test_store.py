"""The store: what was acknowledged is kept, what is stale is refused, nothing ever changes."""

import os
import signal
import subprocess
import sys
import textwrap

import pytest

from knollstack.store.database import connect, migrate
from knollstack.store.revisions import get_revision, list_revisions, newest_revision
from knollstack.store.wells import TakenNameError, copy_design, create_well, find_design, list_designs, rename_design
from tests.store.helpers import NOW, save


def test_settings_of_the_connection(connection):
    pragmas = [connection.execute(f"PRAGMA {p}").fetchone()[0] for p in ("journal_mode", "foreign_keys", "synchronous")]
    assert pragmas == ["wal", 1, 2]


def test_migrations_apply_once(connection):
    before = connection.execute("SELECT name FROM migration").fetchall()
    migrate(connection)
    assert connection.execute("SELECT name FROM migration").fetchall() == before
    assert [row["name"] for row in before] == [
        "001_wells.sql",
        "002_summaries.sql",
        "003_kept.sql",
        "004_people.sql",
        "005_sheet_issues.sql",
        "006_log.sql",
        "007_drills.sql",
    ]


def test_revisions_follow_one_another(connection):
    design = create_well(connection, "W", "one", "me", NOW)
    second = save(connection, design, 1, "two", name="Renamed")
    assert (second.number, second.parent) == (2, 1)
    assert save(connection, design, 2, "two").number == 2, "the same document again is no new revision"
    assert [r.document for r in list_revisions(connection, design, 99, 10)] == ["two", "one"]
    assert get_revision(connection, design, 1).document == "one"
    row = find_design(connection, design)
    assert (row.well_name, row.revision) == ("Renamed", 2)
    assert list_designs(connection) == [row]


def test_history_comes_in_pages(connection):
    design = create_well(connection, "W", "1", "me", NOW)
    for i in range(1, 6):
        save(connection, design, i, str(i + 1))
    assert [r.number for r in list_revisions(connection, design, 5, 3)] == [4, 3, 2]


def test_alternatives_share_the_well_and_nothing_else(connection):
    base = create_well(connection, "W", "one", "me", NOW)
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


def test_a_killed_process_loses_nothing_acknowledged(tmp_path):
    """A writer acknowledges each save on its standard output and is killed in the middle of the next."""
    path = tmp_path / "k.sqlite"
    script = textwrap.dedent(f"""
        from knollstack.store.database import connect, migrate
        from knollstack.store.revisions import save_revision
        from knollstack.store.wells import create_well
        connection = connect({str(path)!r})
        migrate(connection)
        design = create_well(connection, "W", "0", "me", "t")
        number = 1
        while True:
            number = save_revision(connection, 1, design, number, "W", str(number), "me", "t").number
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
