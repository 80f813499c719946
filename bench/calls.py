"""The formula calls that an evaluation makes, to be made again alone: on single numbers and on fields of them."""

from __future__ import annotations

import sys
from collections.abc import Callable
from types import FrameType
from typing import Any

from knollstack.core.base.formula import REGISTRY, is_sweeping, sweeping

Call = tuple[Callable[..., Any], dict[str, Any], bool]


def made_by(run: Callable[[], Any]) -> list[Call]:
    """Every outermost formula call of a run, with its inputs, and whether it was one of a sweep, without checks."""
    entries = {f.function.__wrapped__.__code__: f.function for f in REGISTRY.values()}  # type: ignore[attr-defined]
    calls: list[Call] = []
    inside = 0

    def watch(frame: FrameType, event: str, _: Any) -> None:
        nonlocal inside
        if frame.f_code not in entries:
            return
        if event == "call":
            inside += 1
            if inside == 1:
                names = frame.f_code.co_varnames[: frame.f_code.co_argcount]
                inputs = {name: frame.f_locals[name] for name in names}
                calls.append((entries[frame.f_code], inputs, is_sweeping()))
        elif event == "return":
            inside -= 1

    sys.setprofile(watch)
    try:
        run()
    finally:
        sys.setprofile(None)
    return calls


def make(calls: list[Call]) -> None:
    """The same calls again, those of sweeps unchecked as they were."""
    for function, inputs, swept in calls:
        if not swept:
            function(**inputs)
    with sweeping():
        for function, inputs, swept in calls:
            if swept:
                function(**inputs)
