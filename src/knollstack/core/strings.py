"""One string of the design document: where it stands, what it is made of, its mud and its cement."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.fields import Depth, Emw, Name, Part, Pressure, Size, number


class PipeChoice(Part):
    weight_ppf: Annotated[float, number(1, 1_000)]
    grade: Name
    connection: Name


class PipeSection(PipeChoice):
    """One section of a tapered string, from the section above it down to `to_md_ft`; the last ends at the shoe."""

    to_md_ft: Depth | None = None


class CustomLoad(Part):
    """A load case of the engineer's own: a fluid column with a surface pressure on either side."""

    name: Annotated[str, Field(min_length=1, max_length=60)]
    kind: Literal["burst", "collapse"]
    inside_psi: Pressure = Field(0.0, description="pressure at the top inside")
    inside_ppg: Annotated[float, number(0, 30)] = Field(0.0, description="fluid inside; 0 is empty")
    inside_level_md_ft: Depth = Field(0.0, description="depth of the fluid level inside")
    outside_psi: Pressure = 0.0
    outside_ppg: Annotated[float, number(0, 30)] = 0.0
    temperature_change_f: Annotated[float, number(-500, 700)] = 0.0


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
    opened_from_in: Size | None = Field(
        None, description="bit that passes the casing above, where the hole is under-reamed"
    )
    od_in: Size | None = None
    pipe: PipeChoice | None = None
    sections: Annotated[tuple[PipeSection, ...], Field(max_length=8)] = Field(
        (), description="a tapered string, top to bottom; empty where `pipe` holds for the whole"
    )
    connection: Name | None = Field(None, description="the only connection to choose from; None leaves it to policy")
    tie_back: StrictBool = Field(False, description="a liner tied back to the wellhead with pipe of its size")
    wear_percent: Annotated[float, number(0, 60)] = Field(0.0, description="wall worn away inside by drilling")
    test_psi: Pressure | None = Field(None, description="pressure test at the wellhead; None follows policy")
    stimulation_psi: Pressure | None = Field(
        None, description="treating pressure at the wellhead; None is none planned"
    )
    packer_md_ft: Depth | None = Field(None, description="packer of a producing string; None is not decided")
    loads: Annotated[tuple[CustomLoad, ...], Field(max_length=20)] = ()
    mud_ppg: Emw | None = Field(None, description="mud with which this string's hole is drilled")
    mud_steps: Annotated[tuple[MudStep, ...], Field(max_length=40)] = ()
    flow_gpm: Annotated[float, number(0, 3_000)] | None = Field(None, description="pump rate while drilling this hole")
    reading_300: Annotated[float, number(0.5, 600)] | None = Field(None, description="rheometer at 300 rpm")
    reading_600: Annotated[float, number(0.5, 1_200)] | None = Field(None, description="rheometer at 600 rpm")
    cement: Cement = Cement()
