"""What is wrong once the cement stands: too thick too soon, gas while it gels, a strength that is never reached; rules broken."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Amount, Finding, Severity, Words, depth, factor, find, minutes, pressure
from knollstack.core.cement.gas import GasFlow
from knollstack.core.cement.results import CementRow, RuleRow, ThickeningRow
from knollstack.core.program.equipped import EquippedString

_find = partial(find, "cement")


def _subject(string: EquippedString, what: str) -> Words:
    return (*string.words, f" {what}")


def gas_findings(string: EquippedString, flows: tuple[GasFlow, ...]) -> Iterator[Finding]:
    """Gas zones behind the cement whose gas may flow while it gels."""
    place = f"{string.path}/cement/top_md_ft"
    for k, flow in enumerate(flows):
        at: Words = (f"{flow.zone} at ", depth(flow.md_ft))
        if flow.grade == "unknown":
            text: Words = ("Gas flow after cementing from ", *at, " is unknown: pore pressure or the mud is not given.")
            yield _find("unknown", place, _subject(string, "cement"), *text)
        elif flow.potential is None:
            text = ("Nothing holds back the gas of ", *at, " once the cement stands.")
            yield _find("stop", place, _subject(string, "cement"), *text)
        elif flow.grade != "minor":
            severity: Severity = "caution" if flow.grade == "severe" else "note"
            value = factor(flow.potential)
            text = ("Gas flow potential of ", *at, " is ", value, f": {flow.grade}. ")
            mends = "A gas-tight slurry, less cement over it or pressure on the annulus lowers it."
            working = f"cement/{string.index}/gas{k}"
            yield _find(severity, place, _subject(string, "cement"), *text, mends, value=value, working=working)


def waiting_findings(string: EquippedString, row: CementRow) -> Iterator[Finding]:
    """Thickening against the job; strengths that the laboratory's table never reaches; rules of placement that are short."""
    for stage in row.stages:
        for slurry in stage.thickening:
            found = _thickening(string, slurry)
            if found is not None:
                yield found
        for rule in stage.rules:
            if rule.state == "short" and rule.title == "Contact time":
                text: Words = (
                    "Flushes and spacers pass ",
                    *rule.subject,
                    " for ",
                    *rule.found,
                    "; asked ",
                    *rule.asked,
                    ".",
                )
                yield _find("caution", f"{string.path}/cement/fluids", _subject(string, "cement job"), *text)
    for stage in row.stages:
        yield from _lab(string, stage.rules)
    for wait in row.waits:
        if wait.measured and wait.hours is None:
            text = (f"{wait.what}: ", pressure(wait.strength_psi), " is not reached in the laboratory's table.")
            yield _find("unknown", f"{string.path}/cement/strength", _subject(string, "cement"), *text)


LAB = {"Free fluid": "free_fluid_percent", "Fluid loss": "fluid_loss_cm3"}


def _lab(string: EquippedString, rules: tuple[RuleRow, ...]) -> Iterator[Finding]:
    """A slurry of more free fluid or fluid loss than is asked."""
    for rule in rules:
        if rule.title in LAB and rule.state == "short":
            (kind, *_), (found, *_), (most, *_) = rule.subject, rule.found, rule.asked
            place = f"{string.path}/cement/{'lead_' if kind == 'lead' else ''}{LAB[rule.title]}"
            text: Words = (f"{rule.title} is ", found, "; asked ", most, " or less.")
            yield _find("caution", place, _subject(string, f"cement, {kind}"), *text)


def _thickening(string: EquippedString, slurry: ThickeningRow) -> Finding | None:
    place, subject = f"{string.path}/cement/{slurry.key}", _subject(string, f"cement, {slurry.name}")
    needed, job = minutes(slurry.needed_minutes), minutes(slurry.job_minutes)
    if slurry.held_minutes is None:
        text: Words = ("Thickening time is not given: ", needed, " are needed, the margin of policy included.")
        return _find("unknown", place, subject, *text)
    held: Amount = minutes(slurry.held_minutes)
    if slurry.held_minutes < slurry.job_minutes:
        text = ("It thickens after ", held, "; the job takes ", job, " from when it is mixed.")
        return _find("stop", place, subject, *text, value=held, limit=job)
    if slurry.held_minutes < slurry.needed_minutes - 1e-9:
        text = ("It thickens after ", held, "; the job with the margin of policy needs ", needed, ".")
        return _find("caution", place, subject, *text, value=held, limit=needed)
    return None
