"""A laid-out design equipped: every string with its pipe, decided or proposed."""

from __future__ import annotations

from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Design
from knollstack.core.pipe.choose import Chosen, choose
from knollstack.core.pipe.exposure import exposure_of
from knollstack.core.program.equipped import Equipped, EquippedString, with_sections
from knollstack.core.program.laid import Laid
from knollstack.core.proposal.laid_out import laid_out


def equipped(laid: Laid) -> Equipped:
    """The program with its pipe, innermost first: a string carries the liner that is hung in it."""
    strings: list[EquippedString] = []
    choices: list[Chosen] = []
    for string in reversed(laid.strings):
        inner = strings[0] if strings else None
        chosen = choose(laid.well, laid.catalogue, string, exposure_of(laid, string, inner))
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
