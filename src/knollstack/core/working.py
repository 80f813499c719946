"""Headline numbers keep their working: `with headline(key)` records the formula calls made inside.

Only while `recording()` is on; otherwise the block costs one context lookup. The working of a number is thus
the calculation that gave it.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any

import numpy as np
from pydantic import BaseModel

from knollstack.core.findings import Quantity
from knollstack.core.formula import Formula, Step, tracing
from knollstack.core.glossary import TERMS, unit_of
from knollstack.core.units import quantity_of, quantity_of_unit

_records: ContextVar[dict[str, list[Step]] | None] = ContextVar("knollstack_records", default=None)


@contextmanager
def recording() -> Iterator[dict[str, list[Step]]]:
    """Collect the working of every headline number computed inside the block, by key."""
    records: dict[str, list[Step]] = {}
    token = _records.set(records)
    try:
        yield records
    finally:
        _records.reset(token)


@contextmanager
def headline(key: str) -> Iterator[None]:
    """Mark the block that computes the headline number `key`."""
    records = _records.get()
    if records is None:
        yield
        return
    with tracing() as steps:
        yield
    records[key] = steps


class Input(BaseModel):
    name: str
    symbol: str
    meaning: str
    unit: str
    quantity: Quantity | None
    value: float | list[float] | None


class Output(BaseModel):
    name: str
    unit: str
    quantity: Quantity | None
    value: float | list[float]


class WorkingStep(BaseModel):
    """One formula call as shown: equation, inputs with units, results, source, and the calls inside it."""

    formula: str
    title: str
    symbolic: str
    source: str
    inputs: list[Input]
    outputs: list[Output]
    steps: list[WorkingStep]


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


def shown(step: Step) -> WorkingStep:
    """A recorded call in the form that is sent and shown."""
    inputs = [input_of(name, _number(value)) for name, value in step.inputs.items()]
    return WorkingStep(
        formula=step.formula.name,
        title=step.formula.title,
        symbolic=step.formula.symbolic,
        source=step.formula.source,
        inputs=inputs,
        outputs=outputs_of(step.formula, step.result),
        steps=[shown(inner) for inner in step.steps],
    )
