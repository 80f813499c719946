"""One string of the design document: where it stands, what it is made of, its mud and its cement."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.fields import Depth, Emw, Name, Part, Size, number


class PipeChoice(Part):
    weight_ppf: Annotated[float, number(1, 1_000)]
    grade: Name
    connection: Name


class Cement(Part):
    """Decisions on one string's cement; None is not decided."""

    top_md_ft: Depth | None = None
    slurry_water_gal_sk: Annotated[float, number(3, 20)] | None = None
    bentonite_percent: Annotated[float, number(0, 25)] | None = None
    excess: Annotated[float, number(0, 5)] | None = None


Role = Literal["conductor", "surface", "intermediate", "production"]


class MudStep(Part):
    """Down to a depth with one weight; the section's own weight holds from the last step to its end."""

    to_md_ft: Depth
    mud_ppg: Emw


class String(Part):
    name: Name = ""
    role: Role
    run: Literal["driven", "jetted", "cased", "liner"] = "cased"
    hanger_md_ft: Depth | None = Field(None, description="top of a liner; None for a string to surface")
    shoe_md_ft: Depth
    bit_in: Size | None = None
    od_in: Size | None = None
    pipe: PipeChoice | None = None
    mud_ppg: Emw | None = Field(None, description="mud with which this string's hole is drilled")
    mud_steps: Annotated[tuple[MudStep, ...], Field(max_length=40)] = ()
    flow_gpm: Annotated[float, number(0, 3_000)] | None = Field(None, description="pump rate while drilling this hole")
    reading_300: Annotated[float, number(0.5, 600)] | None = Field(None, description="rheometer at 300 rpm")
    reading_600: Annotated[float, number(0.5, 1_200)] | None = Field(None, description="rheometer at 600 rpm")
    cement: Cement = Cement()
