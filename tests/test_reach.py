"""A server that others reach: refused without accounts, with an address that it answers under; accounts at the terminal."""

import io
import subprocess
import sys
import urllib.error
import urllib.request

import pytest

from knollstack.cli import main
from knollstack.commands.reach import addresses, is_any, is_beyond


@pytest.mark.parametrize(
    ("host", "names", "beyond"),
    [
        ("127.0.0.1", [], False),
        ("127.0.0.2", [], False),
        ("::1", [], False),
        ("localhost", [], False),
        ("127.0.0.1", ["wells.example"], True),
        ("0.0.0.0", [], True),
        ("::", [], True),
        ("192.168.7.7", [], True),
        ("wells.example", [], True),
    ],
)
def test_who_reaches_it(host, names, beyond):
    assert is_beyond(host, names) is beyond


def test_addresses_that_work_are_told():
    assert addresses("0.0.0.0", ["wells.example"], 80) == ["http://127.0.0.1:80/", "http://wells.example:80/"]
    assert addresses("::1", [], 80) == ["http://[::1]:80/"]
    assert addresses("::", [], 80) == ["http://[::1]:80/"]
    assert is_any("0.0.0.0")
    assert not is_any("127.0.0.1")


def user(monkeypatch, *words, password="gravel under tallow"):
    monkeypatch.setattr(sys, "stdin", io.StringIO(password + "\n"))
    return main(["user", *map(str, words)])


def test_accounts_at_the_terminal(tmp_path, monkeypatch, capsys):
    data = ("--data", tmp_path)
    assert user(monkeypatch, "add", " Ann  Berg ", *data) == 0
    assert user(monkeypatch, "add", "Cleo", "--role", "approver", *data) == 0
    assert user(monkeypatch, "add", "ann berg", *data) == 2
    assert user(monkeypatch, "add", "Ben", *data, password="short") == 2
    assert user(monkeypatch, "role", "Cleo", "--role", "viewer", *data) == 0
    assert user(monkeypatch, "password", "Cleo", *data, password="another good one") == 0
    assert user(monkeypatch, "role", "Nobody", *data) == 2
    capsys.readouterr()
    assert user(monkeypatch, "list", *data) == 0
    lines = capsys.readouterr().out.splitlines()
    assert [line.split("  ")[:2] for line in lines] == [["Ann Berg", "designer"], ["Cleo", "viewer"]]
    assert user(monkeypatch, "remove", "Ann Berg", *data) == 0
    assert user(monkeypatch, "add", "Ann Berg", *data) == 2, "signatures carry the name"
    assert b"gravel" not in (tmp_path / "knollstack.sqlite").read_bytes()


def serve(tmp_path, *options):
    command = [sys.executable, "-m", "knollstack", "serve", "--port", "0", "--no-browser", "--data", str(tmp_path)]
    command += ["--processes", "0"]
    return subprocess.Popen([*command, *options], stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)


def asked(address):
    try:
        with urllib.request.urlopen(address, timeout=20) as answer:
            return answer.status
    except urllib.error.HTTPError as error:
        return error.code


def test_others_are_not_let_in_without_accounts(tmp_path, monkeypatch):
    refused = serve(tmp_path, "--host", "0.0.0.0")
    out, err = refused.communicate(timeout=60)
    assert (refused.returncode, out) == (2, "")
    assert "knollstack user add NAME" in err
    assert "Traceback" not in err
    user(monkeypatch, "add", "Ann", "--data", tmp_path)
    for options, status in [(["--host", "0.0.0.0"], 401), (["--host-name", "wells.example", "--open"], 200)]:
        with serve(tmp_path, *options) as server:
            address = server.stdout.readline().split()[3]
            assert asked(address + "api/designs") == status
            server.terminate()
