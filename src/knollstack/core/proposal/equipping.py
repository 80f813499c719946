"""A laid-out design equipped: every string with its pipe, decided or proposed."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.catalogue.own_pipes import with_less
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Design
from knollstack.core.pipe.annuli_loads import heated_of
from knollstack.core.pipe.choose import Chosen, choose
from knollstack.core.pipe.exposure import Heated, exposure_of
from knollstack.core.pipe.order import decided_sections
from knollstack.core.program.equipped import Equipped, EquippedString, with_sections
from knollstack.core.program.laid import Laid
from knollstack.core.program.stock import taken_ft
from knollstack.core.proposal.laid_out import laid_out

MOST_ROUNDS = 4
"""Rounds of a choice that changes what heat builds up beside the pipe; what is then short is told by its factors."""


def equipped(laid: Laid) -> Equipped:
    """The program with its pipe: under the sea chosen again for what heat builds up in the annuli beside that pipe."""
    made = _equipped(laid, {})
    for _ in range(MOST_ROUNDS):
        heated = heated_of(made)
        if not heated or all(decided_sections(laid.catalogue, s) for s in laid.strings if s.index in heated):
            break
        before, made = made, _equipped(laid, heated)
        if [s.sections for s in made.strings] == [s.sections for s in before.strings]:
            break
    return made


def _equipped(laid: Laid, heated: dict[int, Heated]) -> Equipped:
    """Innermost first: a string carries the liner that is hung in it.

    What is decided takes from the stock first, then what is chosen, each from what is left of it.
    """
    strings: list[EquippedString] = []
    choices: list[Chosen] = []
    decided = [section for string in laid.strings for section in decided_sections(laid.catalogue, string)]
    for string in reversed(laid.strings):
        inner = strings[0] if strings else None
        own = decided_sections(laid.catalogue, string)
        others = [section for made in strings for section in made.sections if section not in decided]
        taken = {} if own else taken_ft([*decided, *others])
        catalogue = with_less(laid.catalogue, tuple(sorted(taken.items()))) if taken else laid.catalogue
        exposed = replace(exposure_of(laid, string, inner), heated=heated.get(string.index))
        chosen = choose(laid.well, catalogue, string, exposed, len(laid.strings))
        strings.insert(0, with_sections(string, chosen.sections))
        choices.insert(0, chosen)
    return Equipped(
        laid,
        tuple(strings),
        tuple(finding for chosen in choices for finding in chosen.findings),
        tuple(assumption for chosen in choices for assumption in chosen.assumptions),
    )


def program_of(design: Design, catalogue: Catalogue) -> Equipped:
    """A design laid out and equipped: where evaluation, loads and offers all begin."""
    return equipped(laid_out(design, catalogue))
