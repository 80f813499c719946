"""Every remedy that the findings offer, tried on the whole design: does its finding go, and what does it bring?

A finding is found by one step's functions, a remedy too; what it does to the other steps only the whole evaluation says.
"""

from __future__ import annotations

from collections.abc import Callable

from knollstack.core.base.findings import Finding, Remedy, Result, Words
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.changes import changed
from knollstack.core.document.design import Design
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.reading.read import parse


class Brought(Result):
    """A stop or a caution that was not there before."""

    severity: str
    words: Words


class TriedRemedy(Result):
    """`clears`: the finding is gone with it. `brings`: what is new then, the worst first."""

    clears: bool
    brings: tuple[Brought, ...]


class TriedFinding(Result):
    """The finding by its place and its words, and its remedies in their order."""

    place: str
    message: Words
    remedies: tuple[TriedRemedy, ...]


class RemediesTried(Result):
    """One for each finding that offers a remedy."""

    findings: tuple[TriedFinding, ...]


class NotWantedError(Exception):
    """Nobody waits for what is left to be tried."""


def tried(design: Design, catalogue: Catalogue, wanted: Callable[[], bool] = lambda: True) -> RemediesTried:
    """Each remedy in turn; raises NotWantedError once nobody wants the answer any more."""
    before = evaluate(design, catalogue)
    return RemediesTried(
        findings=tuple(
            TriedFinding(
                place=finding.place,
                message=finding.message,
                remedies=tuple(_tried(design, catalogue, before, finding, r, wanted) for r in finding.remedies),
            )
            for finding in before.findings
            if finding.remedies
        )
    )


def _tried(
    design: Design,
    catalogue: Catalogue,
    before: Evaluation,
    finding: Finding,
    remedy: Remedy,
    wanted: Callable[[], bool],
) -> TriedRemedy:
    if not wanted():
        raise NotWantedError
    try:
        edited = parse(changed(design, remedy.changes).model_dump(mode="json"))
    except FaultyDesign:  # what it would make of the design cannot be read
        return TriedRemedy(clears=False, brings=())
    after = evaluate(edited, catalogue)
    stays = any(_kind(f) == _kind(finding) for f in after.findings)
    return TriedRemedy(clears=not stays, brings=tuple(_brought(before, after)))


def _kind(finding: Finding) -> tuple[str, str, tuple[str, ...]]:
    """What a finding says, without its amounts."""
    return finding.severity, finding.place, tuple(part for part in finding.message if isinstance(part, str))


def _brought(before: Evaluation, after: Evaluation) -> list[Brought]:
    """Stops and cautions at places that had none as bad."""
    known = {(f.severity, f.step, f.place) for f in before.findings}
    known |= {("caution", step, place) for severity, step, place in known if severity == "stop"}
    new = [f for f in after.findings if f.severity in ("stop", "caution")]
    return [
        Brought(severity=f.severity, words=(*f.subject, ": ", *f.message))
        for f in new
        if (f.severity, f.step, f.place) not in known
    ]
