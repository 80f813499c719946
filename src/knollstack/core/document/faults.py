"""Faults of a document: one message each that says where, what came, and what was expected.

A fault makes the document unusable (it is refused whole, never repaired in silence). What is merely unwise or
unknown is a finding of the evaluation instead.
"""

from __future__ import annotations

import json
import math
from typing import Any

from pydantic import BaseModel, ValidationError

from knollstack.core.base.dates import A_DAY, A_MOMENT
from knollstack.core.base.endings import unit_of
from knollstack.core.base.fields import DAY_PATTERN, ID_PATTERN, MOMENT_PATTERN
from knollstack.core.document.described import described


class Fault(BaseModel):
    path: str
    value: str
    expected: str

    @property
    def message(self) -> str:
        return f"{self.path or '/'}: {self.value}; expected {self.expected}"


class FaultyDesign(ValueError):  # noqa: N818 - it is the document that is faulty
    def __init__(self, faults: list[Fault]) -> None:
        self.faults = faults
        super().__init__("\n".join(fault.message for fault in faults))


_EXPECTED = {
    "missing": "a value",
    "extra_forbidden": "no such key in this format",
    "float_type": "a number",
    "int_type": "a whole number",
    "string_type": "text",
    "string_too_short": "text, not empty",
    "bool_type": "true or false",
    "finite_number": "a finite number",
    "tuple_type": "a list",
    "model_type": "an object",
    "model_attributes_type": "an object",
}
_WRITTEN = {
    ID_PATTERN: "letters, digits, - and _",
    DAY_PATTERN: A_DAY,
    MOMENT_PATTERN: A_MOMENT,
    r"\S": "text, not empty",
}
_BOUNDS = (("ge", "at least {:g}"), ("gt", "more than {:g}"), ("le", "at most {:g}"), ("lt", "less than {:g}"))


def _expected(error: dict[str, Any], path: str) -> str:
    context = error.get("ctx", {})
    for key, text in _BOUNDS:
        if key in context:
            field = described(path)
            unit = field.unit if field is not None else unit_of(str(error["loc"][-1]))
            return f"{text.format(context[key])} {unit}".strip()
    if error["type"] == "literal_error":
        return f"one of {context['expected']}"
    if error["type"] == "string_too_long":
        return f"at most {context['max_length']} characters"
    if error["type"] == "too_long":
        return f"at most {context['max_length']} of them"
    if error["type"] == "too_short":
        return f"at least {context['min_length']} of them"
    if error["type"] == "string_pattern_mismatch":
        return _WRITTEN.get(context["pattern"], f"text of the form {context['pattern']}")
    return _EXPECTED.get(error["type"], error["msg"])


def shown(value: Any) -> str:
    if isinstance(value, float) and not math.isfinite(value):
        return "NaN" if math.isnan(value) else "Infinity" if value > 0 else "-Infinity"
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else text[:57] + "…"


def schema_faults(error: ValidationError) -> list[Fault]:
    """Faults from pydantic's errors, one a place."""
    faults: dict[str, Fault] = {}
    for item in error.errors(include_url=False):
        path = "".join(f"/{part}" for part in item["loc"])
        value = "nothing" if item["type"] == "missing" else shown(item["input"])
        faults.setdefault(path, Fault(path=path, value=value, expected=_expected(dict(item), path)))
    # a list is also counted too short when one of its rows is faulty: only the row is the fault
    return [f for path, f in faults.items() if not any(other.startswith(f"{path}/") for other in faults)]
