"""Where a liner hangs by policy: its overlap inside the casing above."""

from __future__ import annotations

from knollstack.core.base.findings import Remedy, depth, remedy
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString


def hanger_by_policy_ft(well: Well, previous_shoe_md_ft: float) -> float:
    """Depth [ft MD] of the liner top that gives policy's overlap inside the casing above."""
    return max(well.ground_md_ft, previous_shoe_md_ft - well.policy.depths.liner_overlap_ft)


def hang_higher(well: Well, string: LaidString) -> Remedy:
    """Hang the liner where policy asks."""
    top = hanger_by_policy_ft(well, string.previous_shoe_md_ft)
    return remedy(string.change("hanger_md_ft", top), "Hang the liner at ", depth(top))
