"""Accounts and their sessions: a password as its hash alone, a session by the hash of its token."""

from __future__ import annotations

import hashlib
import secrets
import sqlite3
from dataclasses import dataclass
from typing import Literal

from knollstack.store.database import writing

Role = Literal["viewer", "designer", "approver"]


@dataclass(frozen=True)
class Account:
    id: int
    name: str
    role: Role
    created_at: str


class KnownNameError(Exception):
    """The name was given to an account before. Nothing was written."""


def list_accounts(connection: sqlite3.Connection) -> list[Account]:
    """Accounts that may sign in, by name."""
    rows = connection.execute(
        "SELECT id, name, role, created_at FROM account WHERE removed_at IS NULL ORDER BY name COLLATE NOCASE"
    )
    return [Account(**row) for row in rows]


def find_account(connection: sqlite3.Connection, name: str) -> tuple[Account, str] | None:
    """An account and the hash of its password, by its name in any case."""
    row = connection.execute(
        "SELECT * FROM account WHERE name = :name AND removed_at IS NULL", {"name": name}
    ).fetchone()
    if row is None:
        return None
    return Account(row["id"], row["name"], row["role"], row["created_at"]), row["password_hash"]


def add_account(connection: sqlite3.Connection, name: str, password_hash: str, role: Role, now: str) -> None:
    """A new account; raises KnownNameError for a name that one has, or had."""
    with writing(connection):
        known = connection.execute("SELECT 1 FROM account WHERE name = :name", {"name": name}).fetchone()
        if known is not None:
            raise KnownNameError(name)
        connection.execute(
            """
            INSERT INTO account (name, password_hash, role, created_at) VALUES (:name, :hash, :role, :now)
            """,
            {"name": name, "hash": password_hash, "role": role, "now": now},
        )


def set_role(connection: sqlite3.Connection, account_id: int, role: Role) -> None:
    with writing(connection):
        connection.execute("UPDATE account SET role = :role WHERE id = :id", {"id": account_id, "role": role})


def set_password(connection: sqlite3.Connection, account_id: int, password_hash: str) -> None:
    """Another password; every session of the account ends."""
    with writing(connection):
        connection.execute(
            "UPDATE account SET password_hash = :hash WHERE id = :id", {"id": account_id, "hash": password_hash}
        )
        connection.execute("DELETE FROM session WHERE account_id = :id", {"id": account_id})


def remove_account(connection: sqlite3.Connection, account_id: int, now: str) -> None:
    """The account may not sign in any more, and its sessions end; its name stays taken, since signatures carry it."""
    with writing(connection):
        connection.execute("UPDATE account SET removed_at = :now WHERE id = :id", {"id": account_id, "now": now})
        connection.execute("DELETE FROM session WHERE account_id = :id", {"id": account_id})


def _hashed(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def begin_session(connection: sqlite3.Connection, account_id: int, now: str) -> str:
    """A new session's token, which is told once and not kept."""
    token = secrets.token_urlsafe(32)
    with writing(connection):
        connection.execute(
            "INSERT INTO session (token_hash, account_id, began_at, seen_at) VALUES (:hash, :id, :now, :now)",
            {"hash": _hashed(token), "id": account_id, "now": now},
        )
    return token


def account_of_session(connection: sqlite3.Connection, token: str, began_after: str, seen_after: str) -> Account | None:
    """The account of a session that is neither too old nor too long unused."""
    row = connection.execute(
        """
        SELECT account.id, account.name, account.role, account.created_at
        FROM session JOIN account ON account.id = session.account_id
        WHERE token_hash = :hash AND began_at > :began AND seen_at > :seen AND account.removed_at IS NULL
        """,
        {"hash": _hashed(token), "began": began_after, "seen": seen_after},
    ).fetchone()
    return Account(**row) if row else None


def touch_session(connection: sqlite3.Connection, token: str, now: str, if_before: str) -> None:
    """Note that a session is in use, once in a while."""
    with writing(connection):
        connection.execute(
            "UPDATE session SET seen_at = :now WHERE token_hash = :hash AND seen_at < :before",
            {"hash": _hashed(token), "now": now, "before": if_before},
        )


def end_session(connection: sqlite3.Connection, token: str) -> None:
    with writing(connection):
        connection.execute("DELETE FROM session WHERE token_hash = :hash", {"hash": _hashed(token)})


def end_old_sessions(connection: sqlite3.Connection, began_before: str, seen_before: str) -> None:
    with writing(connection):
        connection.execute(
            "DELETE FROM session WHERE began_at < :began OR seen_at < :seen",
            {"began": began_before, "seen": seen_before},
        )


def note_failure(connection: sqlite3.Connection, name: str, address: str, now: str) -> None:
    with writing(connection):
        connection.execute(
            "INSERT INTO failed_sign_in (name, address, at) VALUES (:name, :address, :now)",
            {"name": name.casefold(), "address": address, "now": now},
        )


def failures(connection: sqlite3.Connection, name: str, address: str, after: str) -> tuple[int, int, int]:
    """Failed tries since a moment: of a name from an address, of the address, of the name; older ones are forgotten."""
    with writing(connection):
        connection.execute("DELETE FROM failed_sign_in WHERE at <= :after", {"after": after})
    row = connection.execute(
        """
        SELECT coalesce(sum(name = :name AND address = :address), 0) AS both,
               coalesce(sum(address = :address), 0) AS address, coalesce(sum(name = :name), 0) AS name
        FROM failed_sign_in
        """,
        {"name": name.casefold(), "address": address},
    ).fetchone()
    return row["both"], row["address"], row["name"]


def forget_failures(connection: sqlite3.Connection, name: str, address: str) -> None:
    with writing(connection):
        connection.execute(
            "DELETE FROM failed_sign_in WHERE name = :name AND address = :address",
            {"name": name.casefold(), "address": address},
        )
