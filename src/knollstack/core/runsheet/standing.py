"""Nothing is tested, and no cement job begun, above what stands: why such a step is held."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import emw, percent, pressure
from knollstack.core.cement.results import StageRow
from knollstack.core.completion.results import TubingRow
from knollstack.core.document.policy import DesignFactors
from knollstack.core.preventers.results import StackProof, StackRow
from knollstack.core.program.equipped import EquippedString
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Held
from knollstack.core.wellhead.results import PieceResult

HELD = 1.0 - 1e-6
"""Where a rounded share still stands."""


def proof_held(proof: StackProof) -> Held | None:
    """A test of the BOPs, low and then high."""
    if proof.high_psi is None:
        return Held(("its high pressure is not known",), True)
    return Held(("its low-pressure test is over its high one",)) if proof.low_psi > proof.high_psi else None


def head_on(at: At, on: EquippedString | None) -> PieceResult | None:
    """The piece of wellhead on top of a string; at sea the housing is no piece."""
    return None if on is None or at.plan.subsea else at.plan.head_on(on)


def _rated(at: At, row: StackRow | None, on: EquippedString | None) -> Iterator[tuple[str, float]]:
    """Class of the rams, or of all that is there without any, and of the piece that the stack stands on."""
    elements = () if row is None else row.elements
    rams = [e for e in elements if e.kind == "ram"]
    yield from ((e.title, e.class_psi) for e in rams or elements if e.class_psi is not None)
    head = head_on(at, on)
    if head is not None:
        yield head.name, head.top_psi


def casing_test_held(at: At, tested: EquippedString, row: StackRow | None, on: EquippedString | None) -> Held | None:
    """A casing test against pipe, stack and wellhead."""
    pipe = at.plan.pipe.strings[tested.index]
    if pipe.test_psi is None:
        return Held(("its pressure is not known",), True)
    for name, class_psi in _rated(at, row, on):
        if class_psi < pipe.test_psi:
            return Held((f"it is over the class of the {name}, ", pressure(class_psi)))
    if pipe.test_share is None:
        return Held(("what the casing stands in it is not known",), True)
    if pipe.test_share < HELD:
        return Held(("with policy's design factors the casing stands ", percent(100 * pipe.test_share), " of its load"))
    return None


def tubing_test_held(at: At, tubing: TubingRow | None) -> Held | None:
    """The test of tubing and hanger, at policy's pressure, against the tubing and the piece that it hangs in."""
    if tubing is None:
        return Held(("the tubing is not known",), True)
    head, psi = head_on(at, at.string), at.plan.well.policy.completion.tubing_test_psi
    if head is not None and head.top_psi < psi:
        return Held((f"it is over the class of the {head.name}, ", pressure(head.top_psi)))
    factors = next(case.factors for case in tubing.cases if case.name == "tubing test")
    for load in tubing.loads:
        found = factors.get(load.kind)
        if found is not None and found < load.required * HELD:
            return Held((f"the tubing's {load.kind} factor in it is {found:.2f}; policy asks {load.required:.2f}",))
    return None


def job_held(at: At) -> Held | None:
    """A cement job that is planned over rock, pore pressure or casing is not begun: it cannot be broken off."""
    factors, row = at.plan.well.policy.pipe.factors, at.cement
    annuli = [("at rest", row.greatest_emw_ppg, row.fracture_ppg)]
    annuli += [("in the job", stage.greatest_emw_ppg, stage.fracture_ppg) for stage in row.stages]
    for when, reached, rock in annuli:
        if reached is not None and rock is not None and rock < reached * HELD:
            return Held((f"{when} the annulus reaches ", emw(reached), "; the rock breaks at ", emw(rock)))
    return next((held for stage in row.stages if (held := _stage_held(stage, factors)) is not None), None)


def _stage_held(stage: StageRow, factors: DesignFactors) -> Held | None:
    least, pore = stage.least_emw_ppg, stage.pore_ppg
    if least is not None and pore is not None and least < pore * HELD:
        return Held(("in the job the annulus falls to ", emw(least), "; pore pressure is ", emw(pore)))
    kinds = ("burst", stage.burst_factor, factors.burst), ("collapse", stage.collapse_factor, factors.collapse)
    for kind, found, asked in kinds:
        if found is not None and found < asked * HELD:
            return Held((f"the casing's {kind} factor in the job is {found:.2f}; policy asks {asked:.2f}",))
    return None
