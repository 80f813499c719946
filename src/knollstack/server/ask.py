"""A request's work handed to where tasks run, and its answer."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from flask import current_app, request

from knollstack.server.accounts import account
from knollstack.server.work import Work

R = TypeVar("R")
BROWSER_HEADER = "Knollstack-Browser"
LIGHT_BODY_BYTES = 250_000
"""A document beyond this is heavy work, whatever is asked of it."""


def _person() -> str:
    """Whose work it is: the account, else the browser, else the address."""
    signed_in = account()
    if signed_in is not None:
        return f"account {signed_in.id}"
    return request.headers.get(BROWSER_HEADER, "")[:64] or request.remote_addr or ""


def _gone() -> Callable[[], bool]:
    told: Callable[[], bool] | None = request.environ.get("waitress.client_disconnected")
    return told or (lambda: False)


def _work() -> Work:
    found: Work = current_app.extensions["work"]
    return found


def light(task: Callable[..., R], *args: Any) -> R:
    """Work that a hand waits for."""
    if (request.content_length or 0) > LIGHT_BODY_BYTES:
        return heavy(task, *args)
    return _work().light(_person(), _gone(), task, *args)


def heavy(task: Callable[..., R], *args: Any) -> R:
    """Work that takes its time."""
    return _work().heavy(_person(), _gone(), task, *args)
