"""A scene as it is chosen and shared: which hole, at which depth, what happens, how hard, and what the crew is to do."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.fields import Depth, Id, Part, told
from knollstack.core.drills.results import SceneKind

Goal = Literal["shut in", "driller's method", "wait and weight"]
Difficulty = Literal["basic", "standard", "demanding"]
MOST_SEED = 1_000_000
TITLES: dict[SceneKind, str] = {
    "drilling": "Kick while drilling",
    "tripping": "Kick while tripping",
    "swab": "Swabbed kick",
    "no pipe": "Kick with no pipe in the hole",
    "collars": "Kick with collars across the stack",
    "casing": "Kick while running casing",
    "unshearable": "Annular fails on collars",
    "failed annular": "Annular fails on drill pipe",
    "leaking ram": "Ram leaks, annular out of service",
    "diverter": "Shallow gas on the diverter",
    "gas above": "Gas above the stack",
    "drift-off": "Drift-off",
}


class Scene(Part):
    kind: SceneKind = told("Scene")
    hole: Id = told("Hole", help="id of the string that the hole is drilled for")
    md_ft: Depth = told("Depth", help="of the hole")
    difficulty: Difficulty = told("Difficulty", "standard", help="size of the kick, and how plainly it shows")
    seed: Annotated[int, Field(strict=True, ge=0, le=MOST_SEED)] = told(
        "Seed", 1, help="the same seed gives the same drill"
    )
    goal: Goal = told("To do", "shut in")


CIRCULATED: tuple[SceneKind, ...] = ("drilling", "failed annular", "leaking ram")
"""Scenes that begin with the bit on bottom, so that the kick can be circulated out."""
ON_PIPE: tuple[SceneKind, ...] = (
    "drilling",
    "tripping",
    "swab",
    "failed annular",
    "leaking ram",
    "gas above",
    "drift-off",
)
AT_SEA: tuple[SceneKind, ...] = ("gas above", "drift-off")
"""Scenes of a floating rig alone."""
