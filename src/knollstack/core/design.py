"""The design document: what the engineer decided and knows, and nothing computed.

Frozen pydantic models with bounds on every number. Depths are in ft from the rig floor (RKB); profile depths
are TVD, shoe depths and survey stations are MD. `None` on a decision means "not decided": the evaluation
proposes a value and lists it as an assumption. Checks across fields live in `faults.py`.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.fields import Depth, Emw, Height, Name, Note, Part, Pressure, Size, Temperature, number
from knollstack.core.policy import Policy
from knollstack.core.strings import String

FORMAT = "knollstack.well"
VERSION = 1


class Site(Part):
    setting: Literal["land", "platform", "subsea"] = "land"
    rig_floor_ft: Height = Field(30.0, description="rig floor above ground (land) or above sea level")
    water_depth_ft: Annotated[float, number(0, 15_000)] = 0.0
    cellar_depth_ft: Annotated[float, number(0, 60)] = 6.0
    flowline_height_ft: Height = Field(20.0, description="flowline above ground")
    rotary_room_ft: Annotated[float, number(0, 200)] | None = Field(
        None, description="clear height between the ground and the rotary beams"
    )
    surface_temperature_f: Temperature | None = None
    bottom_temperature_f: Temperature | None = None
    h2s_ppm: Annotated[float, number(0, 1_000_000)] | None = None
    co2_percent: Annotated[float, number(0, 100)] | None = None
    choke_line_psi: Pressure | None = Field(None, description="friction in the choke line at kill rate, subsea")


class Station(Part):
    md_ft: Depth
    inclination_deg: Annotated[float, number(0, 180)] = 0.0
    azimuth_deg: Annotated[float, number(0, 360)] = 0.0


class Trajectory(Part):
    stations: Annotated[tuple[Station, ...], Field(min_length=2, max_length=5_000)] = (
        Station(md_ft=0.0),
        Station(md_ft=10_000.0),
    )


class Point(Part):
    tvd_ft: Depth
    emw_ppg: Emw


Rock = Literal["gravel", "sand", "clay", "shale", "limestone", "dolomite", "salt", "marl", "coal", "basement"]
Fluid = Literal["none", "fresh water", "salt water", "oil", "gas"]
Hazard = Literal["losses", "overpressure", "caving"]


class Zone(Part):
    name: Name
    top_tvd_ft: Depth
    base_tvd_ft: Depth
    rock: Rock = "shale"
    fluid: Fluid = "none"
    permeable: StrictBool = False
    hazards: tuple[Hazard, ...] = ()
    case_before_deeper: StrictBool = False
    shoe_allowed: StrictBool = True
    gas_contact_tvd_ft: Depth | None = Field(
        None, description="depth at which gas meets water or oil: above it pore pressure follows the gas gradient"
    )


class LeakOffTest(Part):
    """A leak-off replaces the fracture profile at its depth; an integrity test only shows that it is no less."""

    tvd_ft: Depth
    emw_ppg: Emw
    kind: Literal["leak-off", "integrity"] = "leak-off"


class TemperaturePoint(Part):
    tvd_ft: Depth
    temperature_f: Temperature


Profile = Annotated[tuple[Point, ...], Field(max_length=5_000)]


class GroundModel(Part):
    zones: Annotated[tuple[Zone, ...], Field(max_length=500)] = ()
    pore: Profile = ()
    fracture: Profile = ()
    stability: Profile = ()
    overburden: Profile = ()
    temperature: Annotated[tuple[TemperaturePoint, ...], Field(max_length=500)] = ()
    leak_off_tests: Annotated[tuple[LeakOffTest, ...], Field(max_length=100)] = ()


class WellheadPiece(Part):
    name: Name
    height_in: Annotated[float, number(0, 400)]
    bore_in: Size
    bottom_psi: Pressure | None = Field(None, description="pressure class of the bottom face; None for a weld")
    top_psi: Pressure
    gap_in: Annotated[float, number(0, 10)] = Field(0.0, description="made-up gap under this piece")


class Wellhead(Part):
    """Pieces bottom to top; empty is not decided. The reference face is the top of the last piece."""

    pieces: Annotated[tuple[WellheadPiece, ...], Field(max_length=20)] = ()
    socket_depth_in: Annotated[float, number(0, 40)] = 4.5
    base_plate_in: Annotated[float, number(0, 40)] = 2.0


class Stack(Part):
    """A decided stack on one string, elements top to bottom."""

    role_index: Annotated[int, Field(strict=True, ge=0, le=20, description="index of the string that carries it")]
    class_psi: Pressure
    elements: Annotated[tuple[Name, ...], Field(min_length=1, max_length=20)]


class CustomPipe(Part):
    """A pipe of the person's own. Ratings that are not given follow from size and yield, where they can."""

    od_in: Size
    weight_ppf: Annotated[float, number(1, 1_000)]
    wall_in: Annotated[float, number(0.05, 4)]
    grade: Name
    yield_psi: Annotated[float, number(10_000, 250_000)]
    connection: Name
    coupling_od_in: Size
    drift_in: Size | None = None
    burst_psi: Pressure | None = None
    collapse_psi: Pressure | None = None
    body_lbf: Annotated[float, number(1_000, 20_000_000)] | None = None
    joint_lbf: Annotated[float, number(1_000, 20_000_000)] | None = None
    joint_psi: Pressure | None = Field(None, description="internal pressure that the connection stands")
    sour_from_f: Temperature | None = Field(None, description="coldest sour service; None is not for sour service")
    source: Name = ""


class StockRow(Part):
    """What can be had of a pipe: its price, and its length where that is limited."""

    od_in: Size
    weight_ppf: Annotated[float, number(1, 1_000)]
    grade: Name
    connection: Name
    price_per_ft: Annotated[float, number(0.01, 100_000)]
    available_ft: Annotated[float, number(0, 1_000_000)] | None = None


class Design(Part):
    """A whole well design."""

    format: Literal["knollstack.well"]
    version: Literal[1]
    name: Name
    note: Note = ""
    site: Site = Site()
    trajectory: Trajectory = Trajectory()
    ground: GroundModel = GroundModel()
    policy: Policy = Policy()
    strings: Annotated[tuple[String, ...], Field(max_length=12)] = ()
    pipes: Annotated[tuple[CustomPipe, ...], Field(max_length=500)] = ()
    stock: Annotated[tuple[StockRow, ...], Field(max_length=2_000)] = ()
    wellhead: Wellhead = Wellhead()
    preventers: Annotated[tuple[Stack, ...], Field(max_length=12)] = ()


def empty(name: str) -> Design:
    """A well with nothing decided and nothing known."""
    return Design(format="knollstack.well", version=1, name=name)
