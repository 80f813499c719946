"""Signatures for revisions: written once, for a document that was saved, by an account."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Literal

from knollstack.store.accounts import Account
from knollstack.store.database import writing

SignatureKind = Literal["checked", "approved", "withdrawn"]


@dataclass(frozen=True)
class Signature:
    number: int
    kind: SignatureKind
    name: str
    role: str
    signed_at: str
    document_hash: str
    evaluation_hash: str
    note: str


class NotNewestError(Exception):
    """The revision to sign is not the design's newest, or not the document that was looked at. Nothing was written."""


_COLUMNS = "number, kind, name, role, signed_at, document_hash, evaluation_hash, note"


def list_signatures(connection: sqlite3.Connection, design_id: int) -> list[Signature]:
    """Every signature of a design, in the order in which they were given."""
    rows = connection.execute(f"SELECT {_COLUMNS} FROM signature WHERE design_id = :id ORDER BY id", {"id": design_id})
    return [Signature(**row) for row in rows]


def sign(connection: sqlite3.Connection, design_id: int, by: Account, signature: Signature) -> None:
    """Sign the newest revision; raises NotNewestError where another was saved meanwhile or its document is another."""
    with writing(connection):
        newest = connection.execute(
            "SELECT number, hash FROM revision WHERE design_id = :id ORDER BY number DESC LIMIT 1", {"id": design_id}
        ).fetchone()
        if newest is None or (newest["number"], newest["hash"]) != (signature.number, signature.document_hash):
            raise NotNewestError(design_id)
        connection.execute(
            f"""
            INSERT INTO signature (design_id, account_id, {_COLUMNS})
            VALUES (:design, :account, :number, :kind, :name, :role, :signed_at, :document_hash, :evaluation_hash, :note)
            """,
            {**signature.__dict__, "design": design_id, "account": by.id, "name": by.name, "role": by.role},
        )


def in_force(signatures: list[Signature], number: int) -> list[Signature]:
    """The signatures of a revision that were not withdrawn, the last of each kind."""
    held: dict[str, Signature] = {}
    for signature in signatures:
        if signature.number == number:
            if signature.kind == "withdrawn":
                held.clear()
            else:
                held[signature.kind] = signature
    return list(held.values())


def authors_since(connection: sqlite3.Connection, design_id: int, after: int, upto: int) -> set[str]:
    """Who saved the revisions after one and up to another."""
    rows = connection.execute(
        "SELECT DISTINCT author FROM revision WHERE design_id = :id AND number > :after AND number <= :upto",
        {"id": design_id, "after": after, "upto": upto},
    )
    return {row["author"] for row in rows}
