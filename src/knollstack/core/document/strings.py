"""One string of the design document: where it stands, what it is made of, its mud and its cement."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.fields import (
    Depth,
    Emw,
    Fluid,
    Id,
    LinearWeight,
    Name,
    Of,
    Part,
    Pressure,
    Size,
    TemperatureChange,
    listed,
    number,
    told,
)
from knollstack.core.document.cementing import Cement
from knollstack.core.document.running import Running


class PipeChoice(Part):
    weight_ppf: LinearWeight = told("Weight")
    grade: Name = told("Grade")
    connection: Name = told("Connection")


class PipeSection(PipeChoice):
    """One section of a tapered string, from the section above it down to `to_md_ft`; the last ends at the shoe."""

    to_md_ft: Depth | None = told("Down to", None)


class CustomLoad(Part):
    """A load case of the engineer's own: a fluid column with a surface pressure on either side."""

    name: Annotated[str, Field(min_length=1, max_length=60)] = told("Load case")
    kind: Literal["burst", "collapse"] = told("Kind")
    inside_psi: Pressure = told("Inside at top", 0.0, help="pressure at the top inside")
    inside_ppg: Fluid = told("Inside fluid", 0.0, help="0 is empty")
    inside_level_md_ft: Depth = told("Inside level", 0.0, help="depth of the fluid level inside")
    outside_psi: Pressure = told("Outside at top", 0.0)
    outside_ppg: Fluid = told("Outside fluid", 0.0)
    temperature_change_f: TemperatureChange = told("Temperature change", 0.0)


Role = Literal["conductor", "surface", "intermediate", "production"]
Run = Literal["driven", "jetted", "cased", "liner"]


class MudStep(Part):
    """Down to a depth with one weight; the section's own weight holds from the last step to its end."""

    to_md_ft: Depth = told("Down to")
    mud_ppg: Emw = told("Mud weight")


class String(Part):
    id: Id = told("Id")
    name: Name = told("Name", "")
    role: Role = told("Role")
    run: Run = told("How it is run", "cased")
    hanger_md_ft: Depth | None = told("Liner top", None, help="top of a liner; empty for a string to surface")
    shoe_md_ft: Depth = told("Shoe")
    bit_in: Size | None = told("Hole size", None)
    opened_from_in: Size | None = told(
        "Pilot hole", None, help="bit that passes the casing above, where the hole is under-reamed"
    )
    od_in: Size | None = told("Casing size", None)
    pipe: PipeChoice | None = told("Pipe", None)
    sections: tuple[PipeSection, ...] = listed(
        "Sections", 8, help="a tapered string, top to bottom; empty where one pipe holds for the whole"
    )
    connection: Name | None = told("Connection", None, help="the only one to choose from; empty leaves it to policy")
    tie_back: StrictBool = told("Tied back", False, help="a liner tied back to the wellhead with pipe of its size")
    wear_percent: Annotated[float, number(0, 60), Of("percent")] = told(
        "Casing wear", 0.0, help="share of the wall worn away inside by drilling"
    )
    test_psi: Pressure | None = told(
        "Pressure test at the wellhead", None, help="on the sea floor where that stands there; empty follows policy"
    )
    loads: tuple[CustomLoad, ...] = listed("Own load cases", 20)
    mud_ppg: Emw | None = told("Mud weight", None, help="with which this string's hole is drilled")
    mud_steps: tuple[MudStep, ...] = listed("Mud weight by depth", 40)
    flow_gpm: Annotated[float, number(0, 3_000), Of("flow")] | None = told(
        "Pump rate", None, help="while drilling this hole"
    )
    reading_300: Annotated[float, number(0.5, 600), Of("dial")] | None = told("Rheometer at 300 rpm", None)
    reading_600: Annotated[float, number(0.5, 1_200), Of("dial")] | None = told("Rheometer at 600 rpm", None)
    reading_3: Annotated[float, number(0.1, 600), Of("dial")] | None = told(
        "Rheometer at 3 rpm", None, help="for Herschel-Bulkley"
    )
    reading_6: Annotated[float, number(0.1, 600), Of("dial")] | None = told(
        "Rheometer at 6 rpm", None, help="for Herschel-Bulkley"
    )
    running: Running = told("Running", Running())
    cement: Cement = told("Cement", Cement())
