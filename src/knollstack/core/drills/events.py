"""What a crew did, and when: an action with its moment, and what stood around it then."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.fields import Part
from knollstack.core.base.findings import Result

MOST_S = 24 * 3600
ActionName = Literal[
    "pump",
    "pick up",
    "lower",
    "slips",
    "flow check",
    "stab valve",
    "close valve",
    "open valve",
    "make up",
    "close",
    "open",
    "open choke line",
    "close choke line",
    "choke",
    "hold casing pressure",
    "hold drill pipe pressure",
    "choke by hand",
    "line up mud",
    "open overboard",
    "close overboard",
    "hang off",
    "disconnect",
    "strip in",
    "stop pipe",
    "drop",
    "fill casing",
    "record",
    "report",
    "end",
]


class DrillDoing(Part):
    """One thing done, at a whole second of the drill's clock: `target` is an element, `value` a rate, opening or weight."""

    at_s: Annotated[int, Field(strict=True, ge=0, le=MOST_S)]
    action: ActionName
    target: Annotated[int, Field(strict=True, ge=0, le=40)] | None = None
    value: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-50_000, le=50_000)] | None = None
    sidpp_psi: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=50_000)] | None = None
    sicp_psi: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=50_000)] | None = None
    gain_bbl: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=10_000)] | None = None


class DrillEvent(Result):
    """A thing done, with what the scoring needs of its moment; `refused` says why it could not be done."""

    at_s: int
    action: ActionName
    target: int | None = None
    value: float | None = None
    sidpp_psi: float | None = None
    sicp_psi: float | None = None
    gain_bbl: float | None = None
    refused: str = ""
    across: str = ""
    verdict: str = ""
    spm: float = 0.0
    pit_gain_bbl: float = 0.0
    tight: bool = False
    choke: float = 0.0
    choke_line: bool = False
    overboard: bool = False
    moved: bool = False
    """The string was on the move."""
    spaced: bool = False
    """No tool joint stood in a ram or annular."""
    true_sidpp_psi: float = 0.0
    true_sicp_psi: float = 0.0
    settled: bool = False
    """Shut in, and the pressures no longer rise by much."""
