"""The test of the BOPs on its day: the string out, the bushing out, every element on the plug, and back. `item` is its depth."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, pressure
from knollstack.core.preventers.results import StackProof
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.standing import proof_held
from knollstack.core.runsheet.times import trip_hours


def carried(at: At) -> str:
    """What keeps the bowl from the drill string."""
    return "bore protector" if at.plan.subsea else "wear bushing"


def plug_set(at: At, where: str) -> str:
    """The test plug in its bowl, with a way for what leaks past it."""
    if at.plan.subsea:
        return f"Set the test plug in the {where} on drill pipe, the pipe open below it"
    return f"Open the side outlet valve below the bowl; set the test plug in the {where} on drill pipe"


def plug_pulled(at: At) -> str:
    return "Pull the test plug" if at.plan.subsea else "Pull the test plug; shut the valve below the bowl"


def on_plug(at: At) -> list[StackProof]:
    """What is tested on the plug with drill pipe or nothing across."""
    stack = at.stack
    return [] if stack is None else [p for p in stack.tests if p.tool == "test plug" and "bonnets" not in p.title]


def _trip(at: At) -> float:
    return trip_hours(at.plan, at.string, at.item)


def _stack_place(at: At) -> str:
    return at.stack.place if at.stack is not None else ""


def _tested(at: At) -> Words:
    words: list[str | Amount] = [
        "Test each low at ",
        pressure(at.plan.well.policy.preventers.low_test_psi),
        ", then high: ",
    ]
    for k, proof in enumerate(on_plug(at)):
        high: Words = (pressure(proof.high_psi),) if proof.high_psi is not None else ("unknown",)
        words += ["; " if k else "", f"{proof.title} ", *high]
    return tuple(words)


DUE: tuple[Rule, ...] = (
    Rule(
        "out",
        "tripping",
        lambda at: (
            f"Pull out to test the BOPs, due {at.plan.well.policy.preventers.test_days} days after the last test",
        ),
        "The test does not run out while drilling.",
        "preventers",
        hours=_trip,
        place=lambda at: "/policy/preventers/test_days",
    ),
    Rule(
        "bushing-out",
        "BOPs",
        lambda at: (f"Pull the {carried(at)} from the {at.bowl_words}",),
        "The test plug lands where it sits.",
        "preventers",
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("bushing out", at.bowl),),
        place=_stack_place,
    ),
    Rule(
        "plug",
        "BOPs",
        lambda at: (plug_set(at, at.bowl_words),),
        "A leak past the plug is seen, and does not press the casing.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("valve open", at.bowl), Does("plug in", at.bowl)),
        place=_stack_place,
    ),
    Rule(
        "test",
        "testing",
        _tested,
        "Each closes on what is across it, on its day.",
        "preventers",
        "drilling supervisor",
        hours=lambda at: at.policy.element_test_hours * max(len(on_plug(at)), 1),
        caution="Nobody near lines under pressure.",
        hold=True,
        does=lambda at: (Does("plug test", at.bowl), Does("tested", at.bowl)),
        place=_stack_place,
        held=lambda at: next((held for proof in on_plug(at) if (held := proof_held(proof)) is not None), None),
    ),
    Rule(
        "plug-out",
        "BOPs",
        lambda at: (plug_pulled(at),),
        "The bowl is free again for the bushing.",
        "preventers",
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("plug out", at.bowl),),
        place=_stack_place,
    ),
    Rule(
        "bushing-in",
        "BOPs",
        lambda at: (f"Run the {carried(at)} in the {at.bowl_words}; run in to bottom",),
        "The bowl is kept from the drill string.",
        "preventers",
        hours=lambda at: at.policy.bushing_hours + _trip(at),
        does=lambda at: (Does("bushing in", at.bowl),),
        place=_stack_place,
    ),
)
