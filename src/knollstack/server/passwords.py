"""Passwords by argon2: hashed, checked a few at a time, and long enough."""

from __future__ import annotations

from functools import lru_cache
from threading import BoundedSemaphore

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

SHORTEST, LONGEST = 12, 200
_hasher = PasswordHasher()
_few = BoundedSemaphore(2)
"""Each check takes 64 MB and both of its threads' time: a crowd of tries waits rather than takes the machine."""


@lru_cache(maxsize=1)
def _nobody() -> str:
    """A hash to compare with where there is no account, so that this takes as long."""
    return _hasher.hash("nobody signs in with this")


def hashed(password: str) -> str:
    with _few:
        return _hasher.hash(password)


def is_right(password: str, hash: str | None) -> bool:
    """Whether a password is that of a hash; takes as long where there is no account."""
    with _few:
        try:
            return _hasher.verify(hash or _nobody(), password) and hash is not None
        except (VerificationError, InvalidHashError):
            return False


def fault_of(password: str, name: str) -> str | None:
    """Why a password is not taken; None where it is."""
    if len(password) < SHORTEST:
        return f"at least {SHORTEST} characters"
    if len(password) > LONGEST:
        return f"at most {LONGEST} characters"
    if name.casefold() in password.casefold():
        return "a password without the name in it"
    if len(set(password)) < 5:
        return "a password of at least 5 different characters"
    return None
