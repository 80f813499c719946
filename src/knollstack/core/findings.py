"""What is said of a design: findings, remedies and assumptions, in words that carry amounts."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

Quantity = Literal[
    "depth", "size", "diameter", "height", "emw", "pressure", "volume", "force", "linear_weight", "water", "slurry_yield",
    "sacks", "factor", "angle", "temperature", "gradient", "fraction", "capacity", "concentration", "torque",
]  # fmt: skip
Step = Literal["ground", "depths", "sizes", "mud", "pipe", "cement", "wellhead", "preventers", "policy"]
STEPS: tuple[Step, ...] = ("ground", "depths", "sizes", "mud", "pipe", "cement", "wellhead", "preventers")
Severity = Literal["stop", "caution", "unknown", "note"]
State = Literal["blank", "incomplete", "good", "caution", "stop"]


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


class Assumption(Result):
    step: Step
    place: str
    text: Words
