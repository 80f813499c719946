"""The family of what closes on casing: the bushing out, rams changed and their bonnets tested, or what closes in their place."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, pressure
from knollstack.core.preventers.results import CoverRow, StackProof
from knollstack.core.runsheet.due import carried
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Held, Rule
from knollstack.core.runsheet.standing import proof_held


def _cover(at: At) -> CoverRow | None:
    """What the stack does with this string across."""
    stack = at.stack
    if stack is None or at.string.od_in is None:
        return None
    rows = [c for c in stack.coverage if c.kind == "casing" and abs(c.od_in - at.string.od_in) < 1e-6]
    return rows[0] if rows else None


def _cover_words(at: At) -> Words:
    row, stack = _cover(at), at.stack
    if row is None or stack is None:
        return ("What closes on ", *at.casing, " is not known")
    if not row.backs:
        return ("Nothing in the stack seals on ", *at.casing)
    first, *rest = (stack.elements[i].title for i in row.backs)
    behind = f", behind it {', '.join(rest)}" if rest else ", with nothing behind it"
    return ("With ", *at.casing, f" across close the {first}{behind}; crossover and safety valve ready on the floor")


def _not_covered(at: At) -> Held | None:
    row = _cover(at)
    if row is None:
        return Held(("what closes on it is not known",), True)
    return None if row.backs else Held(("nothing in the stack seals on it",))


def _bonnet(at: At) -> Iterator[tuple[str, StackProof]]:
    stack = at.stack
    for proof in stack.tests if stack is not None else ():
        sizes = [w.value for w in proof.across if isinstance(w, Amount)]
        if (
            "bonnets" in proof.title
            and at.string.od_in is not None
            and sizes
            and abs(sizes[0] - at.string.od_in) < 1e-6
        ):
            yield "", proof


def _bonnet_words(at: At) -> Words:
    proof: StackProof = at.item
    high: Words = (pressure(proof.high_psi),) if proof.high_psi is not None else ("unknown",)
    return (
        f"Test the bonnets on a {''.join('' if isinstance(w, Amount) else w for w in proof.across).strip()} of ",
        *at.string.words,
        ": ",
        pressure(proof.low_psi),
        " low, ",
        *high,
        " high",
    )


BEFORE: tuple[Rule, ...] = (
    Rule(
        "bushing-out",
        "BOPs",
        lambda at: (f"Pull the {carried(at)} from the {at.bowl_words}", "; wash the housing" if at.plan.subsea else ""),
        "The hanger lands where it sits.",
        "preventers",
        when=lambda at: at.bops and (at.string.run != "liner" or at.string.own.tie_back),
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("bushing out", at.bowl),),
        place=lambda at: at.stack.place if at.stack else "",
    ),
    Rule(
        "rams",
        "BOPs",
        lambda at: (f"Change the {at.ram.title if at.ram else ''} to ", *at.string.words, " casing rams"),
        "Rams of pipe size do not seal on casing.",
        "preventers",
        "toolpusher",
        when=lambda at: at.ram is not None,
        hours=lambda at: at.policy.rams_hours,
        caution="Lock out the closing unit before a bonnet is opened.",
        does=lambda at: (Does("rams changed", at.string.id),),
        place=lambda at: at.ram.place if at.ram else "",
    ),
    Rule(
        "bonnets",
        "testing",
        _bonnet_words,
        "A seal that was broken is tested before it is needed.",
        "preventers",
        "toolpusher",
        when=lambda at: at.ram is not None,
        each=_bonnet,
        hours=lambda at: at.policy.element_test_hours,
        does=lambda at: (Does("covered", at.string.id),),
        place=lambda at: at.stack.place if at.stack else "",
        working=lambda at: at.item.working,
        held=lambda at: proof_held(at.item),
    ),
    Rule(
        "cover",
        "BOPs",
        _cover_words,
        "What is run is what the stack is to close on.",
        "preventers",
        "toolpusher",
        when=lambda at: at.bops and at.ram is None,
        does=lambda at: (Does("covered", at.string.id),),
        place=lambda at: at.stack.place if at.stack else "",
        held=_not_covered,
    ),
)
