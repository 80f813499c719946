"""Who asks: the account that is signed in, else the name that a person gave to the browser."""

from __future__ import annotations

from urllib.parse import unquote

from flask import request

from knollstack.server.accounts import account

NAME_HEADER = "Knollstack-Name"
UNNAMED = "unnamed"
LONGEST = 100


def author() -> str:
    """The name that goes with what is saved by this request."""
    signed_in = account()
    if signed_in is not None:
        return signed_in.name
    given = unquote(request.headers.get(NAME_HEADER, ""), errors="replace")
    kept = " ".join("".join(c if c.isprintable() else " " for c in given).split())
    return kept[:LONGEST] or UNNAMED
