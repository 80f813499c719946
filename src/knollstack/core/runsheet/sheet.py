"""The sheet in force: by rule, with the person's hand, with what it breaks, in time."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.findings import Change
from knollstack.core.document.runsheet import RunSheet
from knollstack.core.runsheet.keeping import Broken, broken_rules
from knollstack.core.runsheet.order import sheet_by_rule
from knollstack.core.runsheet.person import in_force
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.rule import Line
from knollstack.core.runsheet.schedule import Schedule, schedule_of

MOST_TRIED = 40
"""Edits that are each tried without, to find the one that breaks a rule."""


@dataclass(frozen=True, eq=False)
class SheetInForce:
    plan: Plan
    by_rule: list[Line]
    lines: list[Line]
    broken: tuple[Broken, ...]
    schedule: Schedule


def sheet_of(plan: Plan) -> SheetInForce:
    by_rule = sheet_by_rule(plan)
    lines = in_force(by_rule, plan.own)
    return SheetInForce(plan, by_rule, lines, breaks(plan, lines), schedule_of(lines, plan.policy))


def breaks(plan: Plan, lines: list[Line]) -> tuple[Broken, ...]:
    limit = plan.well.policy.preventers.test_days * 24.0
    return broken_rules(lines, 1 + plan.policy.npt_share, limit)


def undoing(sheet: SheetInForce, broken: Broken) -> tuple[str, Change] | None:
    """The one edit without which the rule is kept, in words, as a change of the document; None where none alone is it."""
    own = sheet.plan.own
    tried: list[tuple[str, RunSheet, Change]] = []
    for k, edit in enumerate(own.edits):
        if edit.crossed or edit.after is not None or edit.hours is not None:
            mended = edit.model_copy(update={"crossed": False, "after": None, "hours": None})
            word = (
                "Take the step in again"
                if edit.crossed
                else "Put the step back"
                if edit.after is not None
                else "Take its time by policy"
            )
            rows = (*own.edits[:k], mended, *own.edits[k + 1 :])
            tried.append(
                (word, own.model_copy(update={"edits": rows}), Change(path="/runsheet/edits", value=_dumped(rows)))
            )
    for k, step in enumerate(own.steps):
        if step.hours:
            rest = (*own.steps[:k], step.model_copy(update={"hours": None}), *own.steps[k + 1 :])
            tried.append(
                (
                    "Take no rig time for the own step",
                    own.model_copy(update={"steps": rest}),
                    Change(path="/runsheet/steps", value=_dumped(rest)),
                )
            )
    for word, instead, change in tried[:MOST_TRIED]:
        left = breaks(sheet.plan, in_force(sheet.by_rule, instead))
        if not any(b.rule is broken.rule and b.key == broken.key for b in left) and len(left) < len(sheet.broken):
            return word, change
    return None


def _dumped(rows: tuple) -> list[dict[str, object]]:  # type: ignore[type-arg]
    return [row.model_dump(mode="json") for row in rows]
