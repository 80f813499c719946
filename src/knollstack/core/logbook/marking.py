"""Which findings are of facts: of what stands in the well by the log. The others are of the plan."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from knollstack.core.base.findings import Finding, Step
from knollstack.core.logbook.drilled import Drilled

_STRING = re.compile(r"^/strings/(\d+)(?:/|$)")


@dataclass(frozen=True)
class FactRule:
    """A finding of a step about a string is a fact where this is so."""

    steps: tuple[Step, ...]
    holds: Callable[[Drilled, int], bool]
    reason: str


RULES: tuple[FactRule, ...] = (
    FactRule(
        ("depths", "sizes", "pipe", "running"), lambda drilled, index: index in drilled.told.landed, "the string stands"
    ),
    FactRule(("mud",), lambda drilled, index: index < drilled.told.drilling, "its hole is drilled and cased"),
    FactRule(("cement",), lambda drilled, index: index in drilled.told.cemented, "its cement is pumped"),
)


def marked(findings: tuple[Finding, ...], drilled: Drilled) -> tuple[Finding, ...]:
    """The findings, with those of facts marked."""
    if not drilled.log:
        return findings
    return tuple(f.model_copy(update={"fact": True}) if is_of_fact(f, drilled) else f for f in findings)


def is_of_fact(finding: Finding, drilled: Drilled) -> bool:
    if finding.place.startswith("/log/") or drilled.is_fact(finding.place):
        return True
    found = _STRING.match(finding.place)
    if found is None:
        return False
    index = int(found.group(1))
    return any(finding.step in rule.steps and rule.holds(drilled, index) for rule in RULES)
