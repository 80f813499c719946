"""Headline numbers keep their working: `with headline(key)` records the formula calls made inside.

Only while `recording()` is on; otherwise the block costs one context lookup. The working of a number is thus
the calculation that gave it.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager, nullcontext
from contextvars import ContextVar
from typing import Any

import numpy as np
from pydantic import BaseModel

from knollstack.core.base.endings import unit_of
from knollstack.core.base.findings import Quantity
from knollstack.core.base.formula import Call, Formula, tracing
from knollstack.core.base.glossary import TERMS
from knollstack.core.base.units import quantity_of, quantity_of_unit

_records: ContextVar[dict[str, list[Call]] | None] = ContextVar("knollstack_records", default=None)


@contextmanager
def recording() -> Iterator[dict[str, list[Call]]]:
    """Collect the working of every headline number computed inside the block, by key."""
    records: dict[str, list[Call]] = {}
    token = _records.set(records)
    try:
        with tracing():  # what stands outside the headlines is known too: their inputs open into it
            yield records
    finally:
        _records.reset(token)


def is_recording() -> bool:
    return _records.get() is not None


_UNRECORDED = nullcontext()


def headline(key: str) -> AbstractContextManager[None]:
    """Mark the block that computes the headline number `key`."""
    records = _records.get()
    return _UNRECORDED if records is None else _recorded(records, key)


@contextmanager
def _recorded(records: dict[str, list[Call]], key: str) -> Iterator[None]:
    with tracing() as calls:
        yield
    records[key] = calls


class Input(BaseModel):
    """An input as shown; `source` is the call that gave it, where it is a result that is not told beside it."""

    name: str
    symbol: str
    meaning: str
    unit: str
    quantity: Quantity | None
    value: float | list[float] | None
    source: WorkingCall | None = None


class Output(BaseModel):
    name: str
    unit: str
    quantity: Quantity | None
    value: float | list[float]


class WorkingCall(BaseModel):
    """One formula call as shown: equation, inputs with units, results, source, and the calls inside it."""

    formula: str
    title: str
    symbolic: str
    source: str
    inputs: list[Input]
    outputs: list[Output]
    calls: list[WorkingCall]


def _number(value: Any) -> float | list[float]:
    return float(value) if np.ndim(value) == 0 else [float(v) for v in np.ravel(value)]


def input_of(name: str, value: float | list[float] | None) -> Input:
    """An argument as shown: its symbol, meaning and unit, with a value or none."""
    symbol, meaning = TERMS[name]
    return Input(name=name, symbol=symbol, meaning=meaning, unit=unit_of(name), quantity=quantity_of(name), value=value)


def outputs_of(formula: Formula, result: Any) -> list[Output]:
    """A result with units; a formula with several results names each."""
    if isinstance(result, dict):
        return [Output(name=n, unit=unit_of(n), quantity=quantity_of(n), value=_number(v)) for n, v in result.items()]
    unit = formula.unit
    return [Output(name=formula.name, unit=unit, quantity=quantity_of_unit(unit), value=_number(result))]


def shown(call: Call, told: frozenset[int] = frozenset()) -> WorkingCall:
    """A recorded call in the form that is sent and shown; `told` are the calls that stand beside it already."""
    inputs = []
    for name, value in call.inputs.items():
        made, source = input_of(name, _number(value)), call.sources.get(name)
        if source is not None and id(source) not in told:
            made = made.model_copy(update={"source": shown(source, told | {id(source)})})
        inputs.append(made)
    return WorkingCall(
        formula=call.formula.name,
        title=call.formula.title,
        symbolic=call.formula.symbolic,
        source=call.formula.source,
        inputs=inputs,
        outputs=outputs_of(call.formula, call.result),
        calls=[shown(inner, told) for inner in call.calls],
    )


def shown_all(calls: list[Call]) -> list[WorkingCall]:
    """The calls of one headline number, in order."""
    told = frozenset(id(call) for call in calls)
    return [shown(call, told) for call in calls]
