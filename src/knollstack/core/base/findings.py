"""What is said of a design: findings, remedies and assumptions, in words that carry amounts."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

Quantity = Literal[
    "depth",
    "size",
    "diameter",
    "height",
    "emw",
    "pressure",
    "volume",
    "force",
    "mass",
    "linear_weight",
    "water",
    "slurry_yield",
    "sacks",
    "factor",
    "angle",
    "temperature",
    "temperature_change",
    "gradient",
    "fraction",
    "percent",
    "capacity",
    "concentration",
    "torque",
    "flow",
    "pump_rate",
    "compressibility",
    "trip_speed",
    "pipe_speed",
    "dial",
    "per_degree",
    "count",
    "price",
    "length",
    "minutes",
    "hours",
    "gel",
    "fluid_loss",
    "gallons",
    "area",
    "seconds",
    "soil_strength",
    "unit_weight",
    "money",
    "days",
    "drilling_rate",
    "stroke_rate",
    "stroke_volume",
]
Severity = Literal["stop", "caution", "unknown", "note"]
SEVERITIES: tuple[Severity, ...] = ("stop", "caution", "unknown", "note")
State = Literal["blank", "incomplete", "good", "caution", "stop"]
Step = Literal[
    "ground",
    "depths",
    "sizes",
    "mud",
    "pipe",
    "running",
    "cement",
    "wellhead",
    "preventers",
    "sea",
    "completion",
    "runsheet",
    "logbook",
    "drills",
    "policy",
]
"""A step of the work, in its one word; its order and all that belongs to it stand in the registry of steps."""


class Result(BaseModel):
    model_config = ConfigDict(frozen=True)


class Amount(Result):
    """A number with its quantity, so that it can be shown in the units of the person."""

    value: float
    quantity: Quantity


Words = tuple[str | Amount, ...]


class Change(Result):
    """One edit of the document: a JSON pointer and the new value."""

    path: str
    value: Any


class Remedy(Result):
    label: Words
    changes: tuple[Change, ...]


class Finding(Result):
    """What is wrong, where, by how much, and what would mend it."""

    severity: Severity
    step: Step
    place: str
    subject: Words
    message: Words
    value: Amount | None = None
    limit: Amount | None = None
    remedies: tuple[Remedy, ...] = ()
    working: str | None = None
    fact: bool = False
    """It is of what stands in the well, by the log, and not of the plan below it."""


class Assumption(Result):
    step: Step
    place: str
    text: Words


def find(
    step: Step,
    severity: Severity,
    place: str,
    subject: Words,
    *message: str | Amount,
    value: Amount | None = None,
    limit: Amount | None = None,
    remedies: tuple[Remedy, ...] = (),
    working: str | None = None,
) -> Finding:
    """A finding of a step, its message in parts."""
    return Finding(
        severity=severity,
        step=step,
        place=place,
        subject=subject,
        message=message,
        value=value,
        limit=limit,
        remedies=remedies,
        working=working,
    )


def assume(step: Step, place: str, *text: str | Amount) -> Assumption:
    """A value that the tool filled in, at the place where it can be decided."""
    return Assumption(step=step, place=place, text=text)


def remedy(changes: Change | tuple[Change, ...], *label: str | Amount) -> Remedy:
    """Changes of the document under the words of their button."""
    return Remedy(label=label, changes=(changes,) if isinstance(changes, Change) else changes)


def depth(value: float) -> Amount:
    return Amount(value=value, quantity="depth")


def emw(value: float) -> Amount:
    return Amount(value=value, quantity="emw")


def size(value: float) -> Amount:
    return Amount(value=value, quantity="size")


def diameter(value: float) -> Amount:
    return Amount(value=value, quantity="diameter")


def height(value: float) -> Amount:
    return Amount(value=value, quantity="height")


def pressure(value: float) -> Amount:
    return Amount(value=value, quantity="pressure")


def volume(value: float) -> Amount:
    return Amount(value=value, quantity="volume")


def pump_rate(value: float) -> Amount:
    return Amount(value=value, quantity="pump_rate")


def minutes(value: float) -> Amount:
    return Amount(value=value, quantity="minutes")


def hours(value: float) -> Amount:
    return Amount(value=value, quantity="hours")


def factor(value: float) -> Amount:
    return Amount(value=value, quantity="factor")


def force(value: float) -> Amount:
    return Amount(value=value, quantity="force")


def length(value: float) -> Amount:
    return Amount(value=value, quantity="length")


def fluid_loss(value: float) -> Amount:
    return Amount(value=value, quantity="fluid_loss")


def percent(value: float) -> Amount:
    return Amount(value=value, quantity="percent")


def temperature(value: float) -> Amount:
    return Amount(value=value, quantity="temperature")
