"""What is wrong with the tests of a stack: a cup that pulls too hard, a low-pressure test that is none."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Change, Finding, Remedy, find, force, pressure, remedy
from knollstack.core.document.preventers import PreventersPolicy
from knollstack.core.preventers.findings import say
from knollstack.core.preventers.inforce import InForce
from knollstack.core.preventers.results import StackProof, StackRow

LOW_TEST_PSI = (250.0, 350.0)
"""API Standard 53: the low-pressure test of well control equipment."""
USUAL_LOW_PSI = 300.0
PLACE = "/policy/preventers/low_test_psi"


def proof_findings(found: InForce, rows: tuple[StackProof, ...]) -> Iterator[Finding]:
    """A cup test that pulls more than the drill pipe holds; a low-pressure test over the high one."""
    for row in rows:
        if row.tension_lbf is not None and row.most_lbf is not None and row.tension_lbf > row.most_lbf:
            yield say(
                found.ground.string,
                "caution",
                found.ground.place,
                "A cup test pulls ",
                force(row.tension_lbf),
                " on the drill pipe; policy allows ",
                force(row.most_lbf),
                ". Use heavier pipe, or test with a plug.",
                value=force(row.tension_lbf),
                limit=force(row.most_lbf),
                working=row.working,
            )
    tested = [row for row in rows if row.high_psi is not None]
    least = min(tested, key=lambda row: row.high_psi or 0.0, default=None)
    if least is not None and least.high_psi is not None and least.low_psi > least.high_psi:
        yield say(
            found.ground.string,
            "stop",
            PLACE,
            "The low-pressure test, ",
            pressure(least.low_psi),
            f", is over the high one of {least.title}, ",
            pressure(least.high_psi),
            ".",
            value=pressure(least.low_psi),
            limit=pressure(least.high_psi),
            remedies=_usual() if least.high_psi >= USUAL_LOW_PSI else (),
        )


def low_test_findings(policy: PreventersPolicy, rows: tuple[StackRow, ...]) -> Iterator[Finding]:
    """Policy's low-pressure test against usual practice: said once for the well."""
    low, (least, most) = policy.low_test_psi, LOW_TEST_PSI
    if least <= low <= most or not any(proof.high_psi is not None for row in rows for proof in row.tests):
        return
    why = "pressure itself closes a seal that leaks at less" if low > most else "less may not show a leak"
    yield find(
        "preventers",
        "caution",
        PLACE,
        ("Low-pressure test",),
        pressure(low),
        "; usual practice is ",
        pressure(least),
        " to ",
        pressure(most),
        f": {why}.",
        value=pressure(low),
        limit=pressure(most if low > most else least),
        remedies=_usual(),
    )


def _usual() -> tuple[Remedy, ...]:
    return (remedy(Change(path=PLACE, value=USUAL_LOW_PSI), "Test low at ", pressure(USUAL_LOW_PSI)),)
