"""What every part of the design document is made of: bounded numbers, and a frozen base that passes no unknown key."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

MAX_DEPTH_FT = 40_000.0


def number(low: float, high: float) -> object:
    return Field(strict=True, allow_inf_nan=False, ge=low, le=high)


Depth = Annotated[float, number(0, MAX_DEPTH_FT)]
Height = Annotated[float, number(0, 500)]
Emw = Annotated[float, number(0.5, 30)]
Margin = Annotated[float, number(0, 5)]
Size = Annotated[float, number(1, 48)]
Pressure = Annotated[float, number(0, 50_000)]
Temperature = Annotated[float, number(-60, 700)]
Factor = Annotated[float, number(0.5, 5)]
Name = Annotated[str, Field(max_length=200)]
Note = Annotated[str, Field(max_length=20_000)]


class Part(BaseModel):
    """Base of every part of the document: immutable, and no unknown key passes in silence."""

    model_config = ConfigDict(frozen=True, extra="forbid")
