"""The family of barriers: what is counted before anything is taken off, and what may not come off."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words
from knollstack.core.completion.results import EnvelopeRow, StateRow
from knollstack.core.runsheet.plan import At, Plan
from knollstack.core.runsheet.rule import Does, Held, Rule


def _told(envelope: EnvelopeRow) -> Words:
    words: list[str | Amount] = []
    for k, row in enumerate(envelope.elements):
        sign = {"stands": "", "fails": " (does not stand)", "unknown": " (not known)"}[row.stands]
        words += [", " if k else "", *row.title, sign]
    return tuple(words) if words else ("none",)


def state_of(at: At) -> StateRow | None:
    """The state that a removal leads to; `item` is its key."""
    return at.plan.states.get(at.item)


def count_words(at: At) -> Words:
    row = state_of(at)
    if row is None:
        return ("Count the barriers: which stand is not known",)
    primary, secondary = row.envelopes
    need = "one is needed" if row.needed == 1 else f"{row.needed} are needed"
    return (
        f"Count the barriers: {row.count} planned, {need}. Primary: ",
        *_told(primary),
        ". Secondary: ",
        *_told(secondary),
    )


def short(plan: Plan, key: str) -> Held | None:
    """Why a removal is refused; None where enough barriers stand."""
    row = plan.states.get(key)
    if row is None:
        return Held(("which barriers stand is not known",), True)
    if row.allowed == "allowed":
        return None
    if row.allowed == "unknown":
        return Held((f"{row.count} of {row.needed} barriers stand for certain; of the rest it is not known",), True)
    return Held((f"{row.count} of {row.needed} barriers stand",))


def refused(at: At) -> Held | None:
    """As `held` of a rule whose `item` is the key of the state that it leads to."""
    return short(at.plan, at.item)


COUNT = Rule(
    "count",
    "barriers",
    count_words,
    "Nothing that closes the well in is taken off before enough else does, each verified.",
    "completion",
    "drilling supervisor, toolpusher",
    hold=True,
    caution="Local rules prevail: who verifies, and how many are asked for.",
    does=lambda at: (Does("count", at.item),),
    place=lambda at: "/completion/verified",
)
