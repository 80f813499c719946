"""Small caches of pure functions: what follows from unchanged inputs is not worked again.

Models of the document and objects compared by identity are keyed by identity (the reader gives the same object for the
same content), everything else by value. While workings are recorded nothing is taken from a cache that holds traced
numbers, since what is recorded is the calculation that runs.
"""

from __future__ import annotations

import functools
from collections import OrderedDict
from collections.abc import Callable
from contextlib import suppress
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar

import numpy as np
from pydantic import BaseModel

from knollstack.core.base.working import is_recording

P = ParamSpec("P")
R = TypeVar("R")
CACHES: dict[str, Remembered[Any, Any]] = {}


_IS_MODEL: dict[type, bool] = {}


def _key(argument: Any) -> Any:
    kind = type(argument)
    if kind is tuple:
        return tuple([_key(part) for part in argument])
    is_model = _IS_MODEL.get(kind)
    if is_model is None:
        is_model = _IS_MODEL[kind] = issubclass(kind, BaseModel)
    return id(argument) if is_model else argument


DEPTH = 3


def bytes_of(value: Any, depth: int = DEPTH) -> int:
    """Bytes of the arrays in a result, in its parts, and in theirs."""
    if isinstance(value, np.ndarray):
        return value.nbytes
    if depth == 0:
        return 0
    if isinstance(value, tuple | list):
        return sum(bytes_of(part, depth - 1) for part in value)
    parts = getattr(value, "__dict__", None)
    return sum(bytes_of(part, depth - 1) for part in parts.values()) if parts else 0


class Remembered(Generic[P, R]):
    """A function with its last results. The arguments of each are kept, so that no identity is given twice.

    With `most_bytes` what is kept is also bounded by the arrays in it, but for the last result.
    """

    def __init__(self, function: Callable[P, R], size: int, traced: bool, most_bytes: int | None) -> None:
        functools.update_wrapper(self, function)
        self.function, self.size, self.traced, self.most_bytes = function, size, traced, most_bytes
        self.kept: OrderedDict[Any, tuple[R, Any, int]] = OrderedDict()
        self.bytes = 0
        self.lock = Lock()

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> R:
        if self.traced and is_recording():
            return self.function(*args, **kwargs)
        key = (_key(args), *[(name, _key(value)) for name, value in kwargs.items()])
        held = self.kept.get(key)
        if held is not None:
            with self.lock, suppress(KeyError):  # dropped meanwhile
                self.kept.move_to_end(key)
            return held[0]
        result = self.function(*args, **kwargs)
        weight = bytes_of(result) if self.most_bytes is not None else 0
        with self.lock:
            before = self.kept.pop(key, None)
            self.kept[key] = (result, (args, kwargs), weight)
            self.bytes += weight - (before[2] if before else 0)
            while len(self.kept) > self.size or (
                self.most_bytes is not None and self.bytes > self.most_bytes and len(self.kept) > 1
            ):
                self.bytes -= self.kept.popitem(last=False)[1][2]
        return result

    def forget(self) -> None:
        with self.lock:
            self.kept.clear()
            self.bytes = 0


def remembered(
    size: int = 64, *, traced: bool = False, most_bytes: int | None = None
) -> Callable[[Callable[P, R]], Remembered[P, R]]:
    """Keep the last results of a pure function; `traced` where it computes headline numbers."""

    def decorate(function: Callable[P, R]) -> Remembered[P, R]:
        made = Remembered(function, size, traced, most_bytes)
        CACHES[f"{function.__module__}.{function.__qualname__}"] = made
        return made

    return decorate


def forget_all() -> None:
    """Empty every cache: for measuring what an evaluation costs from nothing."""
    for cache in CACHES.values():
        cache.forget()
