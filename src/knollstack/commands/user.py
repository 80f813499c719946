"""`user`: the accounts of a server that more than one person uses."""

from __future__ import annotations

import argparse
import contextlib
import getpass
import sqlite3
import sys
from datetime import UTC, datetime

from knollstack.commands.say import FAULTY, say
from knollstack.commands.serve import database_of
from knollstack.store import accounts as store
from knollstack.store.database import connect
from knollstack.store.opening import UnusableDatabaseError, prepare

LONGEST_NAME = 100


def run_user(arguments: argparse.Namespace) -> int:
    """Add, list, change or remove accounts."""
    try:
        database = database_of(arguments)
        prepare(database)
        with contextlib.closing(connect(database)) as connection:
            return _act(connection, arguments)
    except UnusableDatabaseError as error:
        say(str(error))
        return FAULTY


def _act(connection: sqlite3.Connection, arguments: argparse.Namespace) -> int:
    if arguments.act == "list":
        for account in store.list_accounts(connection):
            print(f"{account.name}  {account.role}  since {account.created_at[:10]}")
        return 0
    name = " ".join(arguments.name.split())
    if arguments.act == "add":
        return _add(connection, name, arguments.role)
    found = store.find_account(connection, name)
    if found is None:
        say(f"{name}: no such account; `user list` names all")
        return FAULTY
    account = found[0]
    if arguments.act == "role":
        store.set_role(connection, account.id, arguments.role)
        print(f"{account.name} is now {arguments.role}")
    elif arguments.act == "remove":
        store.remove_account(connection, account.id, _now())
        print(f"{account.name} may not sign in any more")
    else:
        return _password(connection, account)
    return 0


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _add(connection: sqlite3.Connection, name: str, role: store.Role) -> int:
    from knollstack.server.passwords import hashed

    if not name or len(name) > LONGEST_NAME or not name.isprintable():
        say(f'"{name}": expected a name of at most {LONGEST_NAME} characters')
        return FAULTY
    password = _asked(name)
    if password is None:
        return FAULTY
    try:
        store.add_account(connection, name, hashed(password), role, _now())
    except store.KnownNameError:
        say(f"{name}: this name has, or had, an account; give another")
        return FAULTY
    print(f"{name} is now {role}")
    return 0


def _password(connection: sqlite3.Connection, account: store.Account) -> int:
    from knollstack.server.passwords import hashed

    password = _asked(account.name)
    if password is None:
        return FAULTY
    store.set_password(connection, account.id, hashed(password))
    print(f"{account.name} has another password; every session of theirs has ended")
    return 0


def _asked(name: str) -> str | None:
    """A password from the terminal, twice, or one line from a pipe; None where it is not taken."""
    from knollstack.server.passwords import fault_of

    if sys.stdin.isatty():
        password = getpass.getpass(f"Password for {name}: ")
        if getpass.getpass("Once more: ") != password:
            say("the two are not the same; nothing was changed")
            return None
    else:
        password = sys.stdin.readline().rstrip("\n")
    expected = fault_of(password, name)
    if expected is not None:
        say(f"this password is not taken: expected {expected}")
        return None
    return password
