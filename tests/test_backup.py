"""Backups, what is put back, and databases that cannot be used: one clear line each, and nothing overwritten."""

import contextlib
import sqlite3

import pytest

from knollstack.cli import main
from knollstack.commands.serve import held
from knollstack.store.bin import delete_well, empty_bin
from knollstack.store.database import connect, migrate
from knollstack.store.opening import UnusableDatabaseError, prepare
from knollstack.store.wells import create_well, find_design, list_designs


@pytest.fixture
def data(tmp_path):
    """A folder of data with one well."""
    prepare(tmp_path / "knollstack.sqlite")
    with contextlib.closing(connect(tmp_path / "knollstack.sqlite")) as connection:
        create_well(connection, "Kept", "one", "me", "t")
    return tmp_path


def names(path):
    with contextlib.closing(connect(path)) as connection:
        return [row.well_name for row in list_designs(connection)]


def run(*words):
    return main([str(w) for w in words])


def test_a_backup_is_one_file_and_is_put_back_with_the_old_one_moved_aside(data, capsys):
    copy, database = data / "copy.bak", data / "knollstack.sqlite"
    assert run("backup", copy, "--data", data) == 0
    assert run("backup", copy, "--data", data) == 0, "its own backup is renewed"
    with contextlib.closing(connect(database)) as connection:
        later = create_well(connection, "Later", "two", "me", "t")
        last_well = find_design(connection, later).well_id
        connection.execute("PRAGMA wal_checkpoint(PASSIVE)")
        create_well(connection, "In the log", "three", "me", "t")
        assert run("restore", copy, "--data", data, "--no-start") == 0
    aside = next(data.glob("knollstack.sqlite.before-*Z"))
    assert str(aside) in capsys.readouterr().out
    assert names(database) == ["Kept"]
    assert sorted(names(aside)) == ["In the log", "Kept", "Later"], "its log moved with it"
    with contextlib.closing(connect(database)) as connection:
        new = create_well(connection, "New", "n", "me", "t")
        assert new > later, "ids that were given since the backup are not given again"
        assert find_design(connection, new).well_id > last_well


def test_a_backup_overwrites_nothing_that_is_not_one(data, capsys):
    database, text = data / "knollstack.sqlite", data / "notes.txt"
    text.write_text("mine")
    with contextlib.closing(sqlite3.connect(data / "other.db")) as other:
        other.execute("CREATE TABLE t (x)")
    for target in (text, database, data / "other.db", data / "none" / "copy.bak"):
        before = target.read_bytes() if target.exists() else None
        assert run("backup", target, "--data", data) == 2
        assert (target.read_bytes() if target.exists() else None) == before
        assert capsys.readouterr().err.count("\n") == 1
    assert run("backup", data / "copy.bak", "--data", data / "nothing") == 2
    assert [p.name for p in data.iterdir() if p.name.startswith(".")] == []


def test_what_is_no_backup_is_not_put_back(data, capsys):
    database = data / "knollstack.sqlite"
    copy = data / "copy.bak"
    run("backup", copy, "--data", data)
    whole = copy.read_bytes()
    newer = data / "newer.bak"
    newer.write_bytes(whole)
    with contextlib.closing(sqlite3.connect(newer)) as held_:
        held_.execute("INSERT INTO migration VALUES ('999_later.sql')")
        held_.commit()
    (data / "text.bak").write_text("no database")
    (data / "torn.bak").write_bytes(whole[: len(whole) // 2])
    (data / "bent.bak").write_bytes(whole[:4096] + b"\x5a" * 4096 + whole[8192:])
    before = database.read_bytes()
    capsys.readouterr()
    for name in ("newer.bak", "text.bak", "torn.bak", "bent.bak", "none.bak"):
        assert run("restore", data / name, "--data", data, "--no-start") == 2, name
        out = capsys.readouterr()
        assert out.err.count("\n") == 1
        assert out.out == ""
        assert database.read_bytes() == before
        assert names(database) == ["Kept"]
    assert list(data.glob("*.before-*")) == []


def test_nothing_is_put_back_under_a_running_server(data, capsys):
    run("backup", data / "copy.bak", "--data", data)
    with held(data), held(data):
        assert run("restore", data / "copy.bak", "--data", data, "--no-start") == 2
    assert "a server uses it" in capsys.readouterr().err
    assert run("restore", data / "copy.bak", "--data", data, "--no-start") == 0


def test_the_ids_of_a_database_that_cannot_be_read_are_left_far_behind(data):
    database = data / "knollstack.sqlite"
    run("backup", data / "copy.bak", "--data", data)
    database.write_text("broken")
    assert run("restore", data / "copy.bak", "--data", data, "--no-start") == 0
    with contextlib.closing(connect(database)) as connection:
        delete_well(connection, 1, "me", "t")
        empty_bin(connection)
        assert create_well(connection, "New", "n", "me", "t") > 1_000_000


def break_text(path):
    path.write_text("this is a text, and a long one at that" * 9)


def break_half(path):
    path.write_bytes(path.read_bytes()[:9000])


def break_newer(path):
    with contextlib.closing(connect(path)) as connection:
        connection.execute("INSERT INTO migration VALUES ('999_later.sql')")


def break_other(path):
    path.unlink()
    with contextlib.closing(sqlite3.connect(path)) as connection:
        connection.execute("CREATE TABLE t (x)")
        connection.commit()


def break_folder(path):
    path.unlink()
    path.mkdir()


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (break_text, "no database, or a damaged one"),
        (break_half, "damaged"),
        (break_newer, "written by a newer Knollstack (999_later.sql); update this one"),
        (break_other, "the database of another program"),
        (break_folder, "cannot be opened"),
    ],
)
def test_a_database_that_cannot_be_used_is_told_in_one_line(data, capsys, spoil, words):
    database = data / "knollstack.sqlite"
    spoil(database)
    before = database.read_bytes() if database.is_file() else None
    assert run("serve", "--data", data, "--port", "0", "--no-browser") == 2
    error = capsys.readouterr().err
    assert error.startswith(str(database))
    assert error.count("\n") == 1
    assert words in error
    assert (database.read_bytes() if database.is_file() else None) == before


def test_a_read_only_database_is_told(data, monkeypatch):
    import knollstack.store.opening as opening

    def read_only(path):
        connection = sqlite3.connect(f"file:{path}?mode=ro", uri=True, isolation_level=None)
        connection.row_factory = sqlite3.Row
        return connection

    monkeypatch.setattr(opening, "connect", read_only)
    with pytest.raises(UnusableDatabaseError, match="read-only; make the file and its folder writable"):
        prepare(data / "knollstack.sqlite")


def test_a_new_and_an_empty_file_become_databases(tmp_path):
    (tmp_path / "empty.sqlite").touch()
    for name in ("new.sqlite", "empty.sqlite"):
        prepare(tmp_path / name)
        assert names(tmp_path / name) == []
    with contextlib.closing(connect(tmp_path / "new.sqlite")) as connection:
        migrate(connection)
