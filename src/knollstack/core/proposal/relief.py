"""Where no program exists: the least single change of a rule that frees one. Every change offered was applied and found
to give a program.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from knollstack.core.base.findings import Amount, Change, Quantity, Remedy, Words
from knollstack.core.catalogue.own_pipes import with_own
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.changes import changed, value_at
from knollstack.core.document.design import Design
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.ground.profiles import GasColumnError
from knollstack.core.ground.well import build_well
from knollstack.core.program.laid import Proposal
from knollstack.core.proposal.effort import CutShortError, Effort
from knollstack.core.proposal.laid_out import proposal_of

HALVINGS = 6
MOST_OFFERED = 4


@dataclass(frozen=True)
class _Rule:
    """A number of the policy, how far it may be moved, and the step to which it is rounded."""

    words: str
    path: str
    quantity: Quantity
    most: Callable[[float], float]
    step: float


_RULES = (
    _Rule("the trip margin", "/policy/mud/trip_margin_ppg", "emw", lambda v: 0.0, 0.05),
    _Rule("the fracture margin", "/policy/mud/fracture_margin_ppg", "emw", lambda v: 0.0, 0.05),
    _Rule("the kick intensity", "/policy/depths/kick_intensity_ppg", "emw", lambda v: 0.0, 0.05),
    _Rule("the limit of open hole", "/policy/depths/open_hole_limit_ft", "depth", lambda v: 2.5 * v, 50.0),
    _Rule("the limit of the hole on the diverter", "/policy/depths/diverter_limit_ft", "depth", lambda v: 3 * v, 50.0),
    _Rule("the overbalance limit, normal pore", "/policy/mud/sticking_normal_psi", "pressure", lambda v: 3 * v, 50.0),
    _Rule(
        "the overbalance limit, abnormal pore", "/policy/mud/sticking_abnormal_psi", "pressure", lambda v: 3 * v, 50.0
    ),
    _Rule("the cover below fresh water", "/policy/depths/fresh_water_cover_ft", "depth", lambda v: 0.0, 10.0),
    _Rule("the cover below a zone to be cased", "/policy/depths/zone_cover_ft", "depth", lambda v: 0.0, 10.0),
    _Rule("the reach below a zone to be cased", "/policy/depths/zone_reach_ft", "depth", lambda v: v + 3000.0, 10.0),
)


def _frees(design: Design, catalogue: Catalogue, change: Change, effort: Effort) -> bool:
    try:
        made = _proposal(changed(design, (change,)), catalogue)
    except (FaultyDesign, GasColumnError):  # more than the rule may be
        return False
    effort.spend(1 + made.effort)
    return bool(made.shoes)


def _proposal(design: Design, catalogue: Catalogue) -> Proposal:
    return proposal_of(build_well(design), with_own(catalogue, design))[0]


def _least(design: Design, catalogue: Catalogue, rule: _Rule, effort: Effort) -> tuple[float, Remedy] | None:
    """The least change of one rule that frees a program, and its size relative to how far the rule may be moved."""
    now = float(value_at(design, rule.path))
    far = rule.most(now)
    if far == now or not _frees(design, catalogue, Change(path=rule.path, value=far), effort):
        return None
    low, high = 0.0, 1.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        if _frees(design, catalogue, Change(path=rule.path, value=now + middle * (far - now)), effort):
            high = middle
        else:
            low = middle
    away = -1 if far < now else 1
    steps = abs(now + high * (far - now)) / rule.step
    rounded = (int(steps) if away < 0 else int(steps) + (steps > int(steps))) * rule.step
    value = round(rounded, 6)
    if not _frees(design, catalogue, Change(path=rule.path, value=value), effort):
        value = now + high * (far - now)
    label: Words = (
        f"Change {rule.words} from ",
        Amount(value=now, quantity=rule.quantity),
        " to ",
        Amount(value=value, quantity=rule.quantity),
    )
    return high, Remedy(label=label, changes=(Change(path=rule.path, value=value),))


def _kick_rules(design: Design) -> Iterator[_Rule]:
    for i, minimum in enumerate(design.policy.depths.kick_minimums):
        words = f"the kick tolerance asked from {minimum.from_hole_in:g} in hole"
        yield _Rule(words, f"/policy/depths/kick_minimums/{i}/volume_bbl", "volume", lambda v: 0.0, 1.0)


def _zone_changes(design: Design) -> Iterator[Remedy]:
    """Rules of single zones taken off: a larger step than any number, so they come last."""
    for i, zone in enumerate(design.ground.zones):
        if not zone.shoe_allowed:
            change = Change(path=f"/ground/zones/{i}/shoe_allowed", value=True)
            yield Remedy(label=(f"Allow a shoe in {zone.name}",), changes=(change,))
        if zone.case_before_deeper:
            change = Change(path=f"/ground/zones/{i}/case_before_deeper", value=False)
            yield Remedy(label=(f"Leave {zone.name} open while drilling deeper",), changes=(change,))


@dataclass(frozen=True)
class Reliefs:
    """Single changes that free a program, the least first; `cut` where not every change was tried."""

    remedies: tuple[Remedy, ...] = ()
    cut: bool = False


def reliefs(design: Design, catalogue: Catalogue, effort: Effort) -> Reliefs:
    """What frees a program; nothing where there is one already, or where the ground is not known."""
    if _proposal(design, catalogue).shoes or not build_well(design).knows_pressures:
        return Reliefs()
    cut = False
    found: list[tuple[float, Remedy]] = []
    zones: list[Remedy] = []
    try:
        for rule in (*_RULES, *_kick_rules(design)):
            least = _least(design, catalogue, rule, effort)
            found += [least] if least else []
        for remedy in _zone_changes(design):
            zones += [remedy] if _frees(design, catalogue, remedy.changes[0], effort) else []
            if len(found) + len(zones) >= MOST_OFFERED:
                break
    except CutShortError:
        cut = True
    numbers = [remedy for _, remedy in sorted(found, key=lambda pair: pair[0])]
    return Reliefs((*numbers, *zones)[:MOST_OFFERED], cut)
