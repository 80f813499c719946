"""What the laboratory says of a slurry held to what is asked: free fluid and fluid loss."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.findings import Amount, Words, fluid_loss, percent
from knollstack.core.cement.gas import GasFlow
from knollstack.core.cement.job import Followed
from knollstack.core.cement.quality import Rule, State
from knollstack.core.document.cementing import SLURRIES
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString

INCLINED_DEG = 30.0
"""From here on free fluid gathers along the high side of the hole and leaves a channel."""
STEP_FT = 100.0
UNKNOWN: Words = ("not measured",)


def lab_rules(well: Well, string: EquippedString, followed: Followed, flows: tuple[GasFlow, ...]) -> Iterator[Rule]:
    """Of each slurry of a stage."""
    policy, own = well.policy.cement, string.own.cement
    fluid_percent = policy.free_fluid_inclined_percent if _inclined(well, string) else policy.free_fluid_percent
    kinds = dict.fromkeys(f.kind for f in followed.worked.stage.fluids if f.kind in SLURRIES and f.volume_bbl > 0)
    for kind in kinds:
        tight = string.run == "liner" or (bool(flows) and kind == "tail")  # gas comes in around the shoe
        loss = policy.fluid_loss_tight_cm3 if tight else policy.fluid_loss_cm3
        key = "lead_" if kind == "lead" else ""
        free, lost = getattr(own, f"{key}free_fluid_percent"), getattr(own, f"{key}fluid_loss_cm3")
        yield _rule("Free fluid", kind, None if free is None else percent(free), percent(fluid_percent))
        yield _rule("Fluid loss", kind, None if lost is None else fluid_loss(lost), fluid_loss(loss))


def _rule(title: str, kind: str, found: Amount | None, most: Amount) -> Rule:
    state: State = "told" if found is None else "kept" if found.value <= most.value + 1e-9 else "short"
    return Rule(title, (kind,), UNKNOWN if found is None else (found,), (most, " or less"), state)


def _inclined(well: Well, string: EquippedString) -> bool:
    """Somewhere along its cement the hole is inclined so far."""
    top = string.cement_top_md_ft or 0.0
    inclination, _ = well.path.direction_at(np.append(np.arange(top, string.shoe_md_ft, STEP_FT), string.shoe_md_ft))
    return bool(np.max(inclination) > INCLINED_DEG)
