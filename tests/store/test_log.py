"""The log in the store: written once, whole or not at all, gone only with the bin; what a feed brought, bounded."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import textwrap

import pytest

from knollstack.store.bin import delete_well, empty_bin, put_back
from knollstack.store.database import connect, migrate, migrations
from knollstack.store.feed import SpanRow, add_spans, clear_spans, get_feed, list_feeds, list_spans, set_feed
from knollstack.store.log import LogRow, append_log, list_log
from knollstack.store.wells import copy_design, copy_well, create_well, find_design
from tests.store.helpers import NOW

ROWS = [LogRow(1, None, "a"), LogRow(2, 1, "b"), LogRow(3, None, "c")]


@pytest.fixture
def well(connection):
    design = create_well(connection, "W", "one", "me", NOW, ROWS)
    return find_design(connection, design).well_id


def test_what_is_appended_follows_what_stands(connection, well):
    assert append_log(connection, well, lambda rows: [LogRow(rows[-1].number + 1, 2, "d")]) == [LogRow(4, 2, "d")]
    assert list_log(connection, well) == [*ROWS, LogRow(4, 2, "d")]


def test_all_of_it_or_nothing(connection, well):
    with pytest.raises(sqlite3.IntegrityError):
        append_log(connection, well, lambda _: [LogRow(4, None, "d"), LogRow(4, None, "e")])
    with pytest.raises(ZeroDivisionError):
        append_log(connection, well, lambda _: [LogRow(1 // 0, None, "d")])
    assert list_log(connection, well) == ROWS


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE log_entry SET content = 'x'",
        "UPDATE log_entry SET number = 9 WHERE number = 3",
        "UPDATE log_entry SET corrects = NULL",
        "DELETE FROM log_entry",
        "DELETE FROM log_entry WHERE number = 3",
        "INSERT OR REPLACE INTO log_entry (well_id, number, content) VALUES (1, 3, 'x')",
        "INSERT OR REPLACE INTO log_entry (id, well_id, number, content) VALUES (1, 1, 9, 'x')",
        "REPLACE INTO log_entry (well_id, number, corrects, content) VALUES (1, 9, 1, 'x')",
        "INSERT INTO log_entry (well_id, number, corrects, content) VALUES (1, 9, 1, 'x')",
        "INSERT INTO log_entry (well_id, number, corrects, content) VALUES (1, 9, 9, 'x')",
        "INSERT INTO log_entry (well_id, number, corrects, content) VALUES (1, 9, 8, 'x')",
        "INSERT INTO log_entry (well_id, number, content) VALUES (1, 0, 'x')",
        "INSERT INTO log_entry (well_id, number, content) VALUES (77, 1, 'x')",
        "DELETE FROM well",
    ],
)
def test_an_entry_never_changes_nor_goes(connection, well, statement):
    with pytest.raises(sqlite3.IntegrityError):
        connection.execute(statement)
    assert list_log(connection, well) == ROWS


def test_it_goes_with_its_well_out_of_the_bin_and_comes_back_with_it(connection, well):
    delete_well(connection, well, "me", NOW)
    put_back(connection, "well", well)
    assert list_log(connection, well) == ROWS
    set_feed(connection, well, "{}")
    add_spans(connection, well, [SpanRow(0, 10, "{}")], list)
    delete_well(connection, well, "me", NOW)
    assert list_feeds(connection) == {}, "a well in the bin is read no more"
    assert empty_bin(connection) == 1
    assert list_log(connection, well) == []
    assert list_spans(connection, well, 10) == []
    assert add_spans(connection, well, [SpanRow(0, 10, "{}")], list) == 0, "what comes late finds no well"


def test_every_design_of_a_well_has_its_log_and_a_copied_well_has_none(connection, well):
    other = copy_design(connection, 1, "Deeper", "me", NOW)
    assert find_design(connection, other).well_id == well
    copied = copy_well(connection, well, lambda _, text: text, "me", NOW)
    assert list_log(connection, find_design(connection, copied).well_id) == []


def test_a_killed_process_loses_nothing_acknowledged(tmp_path):
    """A writer acknowledges each entry on its standard output and is killed in the middle of the next."""
    path = tmp_path / "k.sqlite"
    script = textwrap.dedent(f"""
        from knollstack.store.database import connect, migrate
        from knollstack.store.log import LogRow, append_log
        from knollstack.store.wells import create_well
        connection = connect({str(path)!r})
        migrate(connection)
        create_well(connection, "W", "0", "me", "t")
        while True:
            made = append_log(connection, 1, lambda rows: [LogRow(len(rows) + 1, None, str(len(rows)))])
            print(made[0].number, flush=True)
    """)
    writer = subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE, text=True)
    acknowledged = [int(writer.stdout.readline()) for _ in range(40)][-1]
    os.kill(writer.pid, signal.SIGKILL)
    rest, _ = writer.communicate()
    acknowledged = max([acknowledged, *map(int, rest.split("\n")[:-1])])
    held = connect(path)
    rows = list_log(held, 1)
    assert [r.number for r in rows] == list(range(1, len(rows) + 1))
    assert [r.content for r in rows] == [str(i) for i in range(len(rows))]
    assert len(rows) >= acknowledged
    assert held.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    held.close()


def test_a_file_from_before_comes_along_and_can_be_logged_in(tmp_path, monkeypatch):
    import knollstack.store.database as database

    held = connect(tmp_path / "old.sqlite")
    monkeypatch.setattr(database, "migrations", lambda: migrations()[:5])
    migrate(held)
    held.execute("INSERT INTO well (name, created_at) VALUES ('W', :now)", {"now": NOW})
    monkeypatch.undo()
    migrate(held)
    assert list_log(held, 1) == []
    assert append_log(held, 1, lambda _: ROWS[:1]) == ROWS[:1]
    held.close()


def halved(rows, keep):
    return rows[-keep:]


def test_spans_are_bounded_and_one_that_comes_again_takes_the_place(connection, well):
    rows = [SpanRow(10 * i, 10, json.dumps({"pit_bbl": [i, i, i]})) for i in range(30)]
    assert add_spans(connection, well, rows[:20], halved, most=24) == 20
    assert add_spans(connection, well, [SpanRow(0, 10, "{}")], halved, most=24) == 20
    assert list_spans(connection, well, 1, 0)[0] == rows[19], "the newest first asked"
    assert add_spans(connection, well, rows[20:], halved, most=24) == 18
    assert [r.begins_s for r in list_spans(connection, well, 100)] == [10 * i for i in range(12, 30)]
    assert [r.begins_s for r in list_spans(connection, well, 100, since_s=275)] == [280, 290]
    clear_spans(connection, well)
    assert list_spans(connection, well, 10) == []


def test_where_a_feed_comes_from_is_kept(connection, well):
    assert get_feed(connection, well) is None
    set_feed(connection, well, "one")
    set_feed(connection, well, "two")
    assert get_feed(connection, well) == "two"
    assert list_feeds(connection) == {well: "two"}
