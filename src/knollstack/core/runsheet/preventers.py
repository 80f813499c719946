"""The family of diverter and BOPs: nippled up, tested on the plug, functioned, nippled down. `string` is what they stand on."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, force, pressure
from knollstack.core.preventers.results import StackProof, StackRow
from knollstack.core.runsheet.due import carried, plug_pulled, plug_set
from knollstack.core.runsheet.plan import At, bowl_name, bowl_of
from knollstack.core.runsheet.rule import Does, Held, Rule
from knollstack.core.runsheet.standing import proof_held


def own_stack(at: At) -> StackRow:
    return at.plan.preventers.strings[at.string.index]


def _where(at: At) -> str:
    return bowl_name(at.plan, at.string)


def _bowl(at: At) -> str:
    return bowl_of(at.plan, at.string)


def _elements(at: At) -> str:
    return ", ".join(e.title for e in own_stack(at).elements)


def _up(at: At) -> Words:
    row = own_stack(at)
    words: list[str | Amount] = [f"Nipple up on the {_where(at)}, bottom to top: {_elements(at)}"]
    if row.class_psi is not None:
        words += ["; ", pressure(row.class_psi), " class"]
    if row.flange is not None:
        words.append(f"; new ring gasket, {row.flange}")
    return (*words, "; choke and kill lines to their outlets")


def _on_plug(at: At) -> Iterator[tuple[str, StackProof]]:
    row, seen = own_stack(at), dict[str, int]()
    for proof in row.tests:
        if proof.tool != "test plug" or "bonnets" in proof.title:
            continue
        word = row.elements[proof.element].id if proof.element is not None else proof.title.split()[0]
        seen[word] = seen.get(word, 0) + 1
        yield (word if seen[word] == 1 else f"{word}-{seen[word]}"), proof


def _proof_words(at: At) -> Words:
    proof: StackProof = at.item
    high: Words = (pressure(proof.high_psi), " high") if proof.high_psi is not None else ("high not known",)
    return (
        f"Test {proof.title}, ",
        *proof.across,
        " across: ",
        pressure(proof.low_psi),
        " low, ",
        *high,
        f"; it sees {proof.sees}",
    )


def _cups(at: At) -> Iterator[tuple[str, StackProof]]:
    for proof in own_stack(at).tests:
        if proof.tool == "cup tester":
            yield "", proof


def _cup_words(at: At) -> Words:
    proof: StackProof = at.item
    high: Words = (pressure(proof.high_psi),) if proof.high_psi is not None else ("unknown",)
    pull: Words = ("; pulls ", force(proof.tension_lbf), " on the pipe") if proof.tension_lbf is not None else ()
    most: Words = (
        (" of ", force(proof.most_lbf), " allowed")
        if proof.tension_lbf is not None and proof.most_lbf is not None
        else ()
    )
    return (f"Cup test of the {proof.title} to ", *high, *pull, *most)


def _too_hard(at: At) -> Held | None:
    proof: StackProof = at.item
    if proof.tension_lbf is None or proof.most_lbf is None:
        return Held(("its pull on the pipe is not known",), True)
    if proof.tension_lbf > proof.most_lbf:
        return Held(("it pulls more on the pipe than policy allows",))
    return proof_held(proof)


def _functioned(at: At) -> Words:
    row = own_stack(at)
    draw: Words = ()
    if row.accumulators is not None and row.accumulators.needed_gal is not None:
        draw = (", pumps off: the bottles give ", Amount(value=row.accumulators.needed_gal, quantity="gallons"))
    stations = "both pods" if at.plan.subsea else "both stations"
    return (f"Function every element from {stations}; closing times recorded; draw down the accumulators", *draw)


def _goes_on(at: At) -> bool:
    """There is a hole below, or work in the well, that the bowl is to be kept from."""
    return at.item is True


UP: tuple[Rule, ...] = (
    Rule(
        "nipple-up",
        "BOPs",
        _up,
        "What it stands on is hung, cut and tested.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.nipple_up_hours,
        caution="Nobody under the stack while it hangs.",
        does=lambda at: (Does("on", _bowl(at)),),
        place=lambda at: own_stack(at).place,
    ),
)
TEST: tuple[Rule, ...] = (
    Rule(
        "plug",
        "BOPs",
        lambda at: (plug_set(at, _where(at)),),
        "A leak past the plug is seen, and does not press the casing.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("valve open", _bowl(at)), Does("plug in", _bowl(at))),
        place=lambda at: own_stack(at).place,
    ),
    Rule(
        "test",
        "testing",
        _proof_words,
        "Low first: a seal that only holds high is no seal.",
        "preventers",
        "drilling supervisor",
        each=_on_plug,
        hours=lambda at: at.policy.element_test_hours,
        hold=True,
        does=lambda at: (Does("plug test", _bowl(at)),),
        caution="Nobody near lines under pressure.",
        place=lambda at: own_stack(at).place,
        working=lambda at: at.item.working,
        held=lambda at: proof_held(at.item),
    ),
    Rule(
        "function",
        "testing",
        _functioned,
        "It must close from wherever the crew stands.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.function_hours,
        does=lambda at: (Does("tested", _bowl(at)),),
        place=lambda at: "/closing_unit",
    ),
    Rule(
        "plug-out",
        "BOPs",
        lambda at: (plug_pulled(at),),
        "The bowl is free for what comes next.",
        "preventers",
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("plug out", _bowl(at)),),
        place=lambda at: own_stack(at).place,
    ),
    Rule(
        "cup",
        "testing",
        _cup_words,
        "Head and valves stand above the plug's seat or below it: the cup presses them.",
        "preventers",
        "toolpusher",
        each=_cups,
        hours=lambda at: at.policy.element_test_hours + at.policy.bushing_hours,
        caution="Burst of the casing and pull on the pipe are checked before.",
        does=lambda at: (Does("cup test", at.string.id),),
        place=lambda at: own_stack(at).place,
        working=lambda at: at.item.working,
        held=_too_hard,
    ),
)
BUSHING = Rule(
    "bushing-in",
    "BOPs",
    lambda at: (f"Run the {carried(at)} in the {_where(at)} on its tool; lock it, tool out",),
    "The bowl is kept from the drill string.",
    "preventers",
    hours=lambda at: at.policy.bushing_hours,
    does=lambda at: (Does("bushing in", _bowl(at)),),
    place=lambda at: own_stack(at).place,
)
DIVERTER: tuple[Rule, ...] = (
    Rule(
        "diverter",
        "BOPs",
        lambda at: (f"Nipple up {_elements(at)}, vent lines, bell nipple and flow line",),
        "A kick from shallow gas is led away: the conductor stands no shut-in.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.diverter_hours,
        caution="Vent lines straight, anchored, down wind.",
        does=lambda at: (Does("diverter", at.string.id),),
        place=lambda at: own_stack(at).place,
    ),
    Rule(
        "diverter-test",
        "testing",
        lambda at: ("Function the diverter from both stations: the vent line opens before it closes",),
        "It is never shut in, so that it can only be functioned.",
        "preventers",
        "drilling supervisor",
        hours=lambda at: at.policy.function_hours,
        hold=True,
        place=lambda at: own_stack(at).place,
    ),
)
UNKNOWN = Rule(
    "nipple-up",
    "BOPs",
    lambda at: (f"Nipple up and test the BOPs on the {_where(at)}: which stack is not known",),
    "No hole is drilled below a string whose stack is not planned.",
    "preventers",
    "toolpusher",
    hours=lambda at: None,
    place=lambda at: own_stack(at).place or at.string.path,
    held=lambda at: Held(("its stack is not known",), True),
)
BACK = Rule(
    "rams-back",
    "BOPs",
    lambda at: (f"Change the {at.ram.title if at.ram else ''} back for drill pipe; test the bonnets",),
    "Casing rams do not seal on drill pipe.",
    "preventers",
    "toolpusher",
    hours=lambda at: at.policy.rams_hours + at.policy.element_test_hours,
    does=lambda at: (Does("rams back", at.bowl), Does("tested", at.bowl)),
    place=lambda at: at.ram.place if at.ram else "",
)
