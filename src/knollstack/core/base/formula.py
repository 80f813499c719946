"""Formulas that show their working.

`@formula` registers a small pure function with its symbolic form, unit, source and limits of validity.
Inside `tracing()` every call is recorded as a tree of `Call`s: the working shown to a person is the
calculation that ran. An input that is itself the result of an earlier call is known by its identity, so that it opens
into that call. With tracing off a call costs its validity check and one context lookup.
"""

from __future__ import annotations

import functools
import inspect
import operator
import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, ParamSpec, TypeVar

import numpy as np

from knollstack.core.base.endings import unit_of
from knollstack.core.base.glossary import TERMS

P = ParamSpec("P")
R = TypeVar("R")
Value = Any
"""A float or an array of floats: a formula computes on either alike."""

_COMPARE: dict[str, Callable[[Any, Any], Any]] = {
    "<": operator.lt,
    "<=": operator.le,
    ">": operator.gt,
    ">=": operator.ge,
}
_LIMIT = re.compile(r"^(\w+) (<=|>=|<|>) (-?[\d.]+)?(?:\s*([a-z]\w*))?$")


class FormulaError(ValueError):
    """An input outside the validity of a formula. Carries name, value, unit and what was expected."""

    def __init__(self, formula: str, argument: str, value: Any, expected: str) -> None:
        self.formula, self.argument, self.value, self.expected = formula, argument, value, expected
        self.unit = unit_of(argument)
        shown = f"{value!r} {self.unit}".strip()
        super().__init__(f"{formula}: {argument} is {shown}; expected {expected}")


@dataclass(frozen=True)
class Limit:
    """One validity limit, `argument compare [factor] [other]`, read from text like `wall_in < 0.5 od_in`."""

    text: str
    argument: str
    compare: str
    factor: float
    other: str | None

    @classmethod
    def parse(cls, text: str) -> Limit:
        match = _LIMIT.match(text)
        if match is None:
            raise TypeError(f"not a limit: {text!r}")
        argument, compare, factor, other = match.groups()
        return cls(text, argument, compare, float(factor) if factor is not None else 1.0, other)

    @cached_property
    def _compare(self) -> Callable[[Any, Any], Any]:
        return _COMPARE[self.compare]

    def holds(self, arguments: dict[str, Any]) -> bool:
        value = arguments[self.argument]
        if type(value) is not float and isinstance(value, (list, tuple)):
            value = np.asarray(value)
        bound = self.factor if self.other is None else self.factor * arguments[self.other]
        kept = self._compare(value, bound)
        return kept if kept is True or kept is False else bool(np.all(kept))


@dataclass(frozen=True)
class Formula:
    """A registered formula: everything that the handbook and the working show of it."""

    name: str
    symbolic: str
    unit: str
    source: str
    limits: tuple[Limit, ...]
    defaults: dict[str, Any]
    arguments: tuple[str, ...]
    title: str
    function: Callable[..., Any]

    def __call__(self, **arguments: Any) -> Any:
        return self.function(**arguments)


@dataclass
class Call:
    """One recorded call, with the calls made inside it, and the earlier calls that gave its inputs."""

    formula: Formula
    inputs: dict[str, Any]
    result: Any = None
    calls: list[Call] = field(default_factory=list)
    sources: dict[str, Call] = field(default_factory=dict)


REGISTRY: dict[str, Formula] = {}
_trace: ContextVar[list[Call] | None] = ContextVar("knollstack_trace", default=None)
_made: ContextVar[dict[int, Call] | None] = ContextVar("knollstack_made", default=None)
"""Results of the calls recorded so far by the identity of the number; each call holds its result, so none is reused."""


@contextmanager
def tracing() -> Iterator[list[Call]]:
    """Collect the formula calls made inside the block, outermost first."""
    calls: list[Call] = []
    token = _trace.set(calls)
    made = _made.set({}) if _made.get() is None else None
    try:
        yield calls
    finally:
        _trace.reset(token)
        if made is not None:
            _made.reset(made)


def _record(formula: Formula, arguments: dict[str, Any], trace: list[Call], run: Callable[[], Any]) -> Any:
    """Run a call and keep it: its inputs with where they came from, its result as plain floats, the calls inside."""
    made = _made.get()
    assert made is not None
    call = Call(formula, arguments)
    call.sources = {name: made[id(value)] for name, value in arguments.items() if id(value) in made}
    trace.append(call)
    token = _trace.set(call.calls)
    try:
        result = run()
    finally:
        _trace.reset(token)
    # a plain float keeps its identity through float(): the next call knows it again
    result = {k: _plain(v) for k, v in result.items()} if isinstance(result, dict) else _plain(result)
    call.result = result
    for value in result.values() if isinstance(result, dict) else (result,):
        if isinstance(value, float):
            made[id(value)] = call
    return result


def _plain(value: Any) -> Any:
    return (
        float(value) if isinstance(value, np.generic) or (isinstance(value, np.ndarray) and value.ndim == 0) else value
    )


_sweeping: ContextVar[bool] = ContextVar("knollstack_sweeping", default=False)


class sweeping:  # noqa: N801 - a block and a decorator, entered some hundred times in an evaluation
    """Calls inside the block are neither recorded nor checked: whole fields of numbers made from checked ones.

    What is shown of such a field is worked again outside, with its checks.
    """

    __slots__ = ("_token",)

    def __enter__(self) -> None:
        self._token = _sweeping.set(True)

    def __exit__(self, *_: object) -> None:
        _sweeping.reset(self._token)

    def __call__(self, function: Callable[P, R]) -> Callable[P, R]:
        @functools.wraps(function)
        def swept(*args: P.args, **kwargs: P.kwargs) -> R:
            token = _sweeping.set(True)
            try:
                return function(*args, **kwargs)
            finally:
                _sweeping.reset(token)

        return swept


def is_sweeping() -> bool:
    return _sweeping.get()


def _check(formula: Formula, arguments: dict[str, Any]) -> None:
    for name, value in arguments.items():
        if isinstance(value, float):
            if value - value != 0.0:  # NaN and the infinities are the floats for which this is not zero
                raise FormulaError(formula.name, name, value, "a finite number")
            continue
        array = np.asarray(value)
        if array.dtype.kind not in "iuf" or not np.isfinite(array).all():
            raise FormulaError(formula.name, name, value, "a finite number")
    for limit in formula.limits:
        if not limit.holds(arguments):
            expected = limit.text.removeprefix(limit.argument + " ")
            raise FormulaError(formula.name, limit.argument, arguments[limit.argument], expected)


class CallError(ValueError):
    """A call that names unknown arguments or leaves some out. `faults` maps each name to what is wrong."""

    def __init__(self, formula: Formula, faults: dict[str, str]) -> None:
        self.formula, self.faults = formula, faults
        wrong = "; ".join(f"{name} is {what}" for name, what in faults.items())
        super().__init__(f"{formula.name}: {wrong}; it takes {', '.join(formula.arguments)}")


def call_named(formula: Formula, inputs: dict[str, Any]) -> Any:
    """Call a formula with named inputs, lists as arrays; raises CallError or FormulaError."""
    faults = {name: "not an argument" for name in inputs if name not in formula.arguments}
    faults |= {name: "missing" for name in formula.arguments if name not in inputs and name not in formula.defaults}
    if faults:
        raise CallError(formula, faults)
    return formula(**{name: np.array(v) if isinstance(v, list) else v for name, v in inputs.items()})


def formula(
    symbolic: str, unit: str, source: str, limits: tuple[str, ...] = ()
) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Register a function under its own name. `unit` is '' for a pure number, or `a | b` for several results."""

    def decorate(function: Callable[P, R]) -> Callable[P, R]:
        signature = inspect.signature(function)
        names = tuple(signature.parameters)
        for name in names:
            if name not in TERMS:
                raise TypeError(f"{function.__name__}: {name} is not in the glossary")
        defaults = {
            name: parameter.default
            for name, parameter in signature.parameters.items()
            if parameter.default is not inspect.Parameter.empty
        }
        title = (inspect.getdoc(function) or "").split("\n", 1)[0].rstrip(".")

        @functools.wraps(function)
        def call(*args: P.args, **kwargs: P.kwargs) -> R:
            if _sweeping.get():
                return function(*args, **kwargs)
            arguments: dict[str, Any] = dict(zip(names, args, strict=False))
            if len(arguments) < len(names):
                arguments = {**defaults, **arguments, **kwargs}
            _check(registered, arguments)
            trace = _trace.get()
            if trace is None:
                return function(*args, **kwargs)
            return _record(registered, arguments, trace, lambda: function(*args, **kwargs))

        registered = Formula(
            name=function.__name__,
            symbolic=symbolic,
            unit=unit,
            source=source,
            limits=tuple(Limit.parse(text) for text in limits),
            defaults=defaults,
            arguments=names,
            title=title,
            function=call,
        )
        if registered.name in REGISTRY:
            raise TypeError(f"two formulas are called {registered.name}")
        REGISTRY[registered.name] = registered
        return call

    return decorate


def plain_value(value: Value) -> Value:
    """A float where numpy gives a scalar, the array itself otherwise."""
    return float(value) if np.ndim(value) == 0 else value
