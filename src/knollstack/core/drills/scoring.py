"""The score of a drill: all rules that apply to its scene, weighed."""

from __future__ import annotations

from knollstack.core.drills.judging import RuleOutcome
from knollstack.core.drills.play import Play
from knollstack.core.drills.rules_kill import KILL_RULES
from knollstack.core.drills.rules_scene import SCENE_RULES
from knollstack.core.drills.rules_shut import SHUT_RULES

RULES = (*SHUT_RULES, *SCENE_RULES, *KILL_RULES)


def outcomes(play: Play) -> tuple[RuleOutcome, ...]:
    return tuple(rule.outcome(play) for rule in RULES if rule.applies(play))


def score(found: tuple[RuleOutcome, ...]) -> float:
    """Percent of the weight that was earned."""
    whole = sum(o.weight for o in found)
    return 100.0 * sum(o.weight * o.credit for o in found) / whole if whole else 0.0
