"""A scene made from a design: its well, and what happens in it by the clock."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.findings import Words
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.setup import Setup


class NotPlayableError(ValueError):
    """A scene that this design cannot be played in; the message says why."""


@dataclass(frozen=True)
class Made:
    """A scene with its well, and the happenings of the clock."""

    scene: Scene
    setup: Setup
    words: Words
    starts_s: float
    """When the reservoir opens."""
    pulling: bool = False
    connection: bool = False
    """The pumps stand still for a connection when it begins: with them on the annulus holds the formation."""
    swab_psi: float = 0.0
    float_holds: bool = False
    unfilled_bbl: float = 0.0
    leaks: tuple[tuple[int, float], ...] = ()
    out_of_service: tuple[int, ...] = ()
    riser_gas_bbl: float = 0.0
    drift: tuple[float, float, float] | None = None
    """Seconds from the start of the drift to the yellow circle, the red circle and the limit."""
