"""The rules by which the log becomes facts, in the order in which they are put in."""

from __future__ import annotations

from knollstack.core.logbook.facts import Rule, mud_facts, path_facts, shoe_facts, spud_facts
from knollstack.core.logbook.facts_rock import kick_facts, losses_facts, test_facts
from knollstack.core.logbook.facts_steps import signed_facts, verified_facts
from knollstack.core.logbook.facts_string import casing_test_facts, cement_facts, tally_facts

RULES: tuple[Rule, ...] = (
    spud_facts,
    path_facts,
    shoe_facts,
    mud_facts,
    kick_facts,
    losses_facts,
    test_facts,
    tally_facts,
    cement_facts,
    casing_test_facts,
    verified_facts,
    signed_facts,
)
