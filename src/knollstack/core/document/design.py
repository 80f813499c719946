"""The design document: what the engineer decided and knows, and nothing computed.

Frozen pydantic models with bounds on every number. Depths are in ft from the rig floor (RKB); profile depths
are TVD, shoe depths and survey stations are MD. `None` on a decision means "not decided": the evaluation
proposes a value and lists it as an assumption. Rows that others refer to carry an `id` that never changes. Checks
across fields live in the room `reading`.
"""

from __future__ import annotations

from typing import Annotated, Literal, get_args

from pydantic import Field, StrictBool

from knollstack.core.base.fields import (
    Depth,
    Emw,
    Height,
    Id,
    LinearWeight,
    Load,
    Name,
    Note,
    Of,
    Part,
    Pressure,
    Size,
    Strength,
    Temperature,
    Wall,
    listed,
    number,
    told,
)
from knollstack.core.document.completion import Completion
from knollstack.core.document.drills import Drills
from knollstack.core.document.log import MOST_ENTRIES, LogEntry
from knollstack.core.document.plugs import BalancedPlug
from knollstack.core.document.policy import Policy
from knollstack.core.document.preventers import ClosingUnit, Stack
from knollstack.core.document.running import CentralizerType, Standoff, Torque
from knollstack.core.document.runsheet import RunSheet
from knollstack.core.document.sea import Sea
from knollstack.core.document.strings import String
from knollstack.core.document.wellhead import Wellhead

DEEPEST_CELLAR_FT = 60.0
FORMAT = "knollstack.well"
VERSION = 9


Basis = Literal["rig_floor_ft", "cellar_depth_ft", "flowline_height_ft", "total_depth"]


class Site(Part):
    setting: Literal["land", "platform", "subsea"] = told("Setting", "land")
    rig_floor_ft: Height = told("Rig floor", 30.0, help="above ground on land, above sea level at sea")
    water_depth_ft: Annotated[float, number(0, 15_000), Of("depth")] = told("Water depth", 0.0)
    cellar_depth_ft: Annotated[float, number(0, DEEPEST_CELLAR_FT), Of("depth")] = told("Cellar depth", 6.0)
    flowline_height_ft: Height = told("Flow line", 20.0, help="above ground")
    rotary_room_ft: Annotated[float, number(0, 200), Of("depth")] | None = told(
        "Room under the rotary", None, help="clear height between the ground and the rotary beams"
    )
    surface_temperature_f: Temperature | None = told("Surface temperature", None)
    bottom_temperature_f: Temperature | None = told("Temperature at total depth", None)
    flowing_wellhead_f: Temperature | None = told(
        "Flowing wellhead temperature", None, help="in production; empty is estimated from the ground's"
    )
    h2s_ppm: Annotated[float, number(0, 1_000_000), Of("concentration")] | None = told("H2S in the gas", None)
    co2_percent: Annotated[float, number(0, 100), Of("percent")] | None = told("CO2 in the gas", None)
    choke_line_psi: Pressure | None = told("Choke-line friction", None, help="at kill rate, subsea")
    hook_load_limit_lbf: Load | None = told("Hook load limit", None, help="the least of derrick, drawworks and lines")
    block_lbf: Load | None = told("Block weight", None, help="travelling block, hook and elevators")
    elevator_lbf: Load | None = told("Elevator rating", None, help="casing elevators")
    spider_lbf: Load | None = told("Spider rating", None, help="spider or slips at the rotary")
    tong_ft_lbf: Torque | None = told("Tong torque", None, help="greatest torque of the casing tongs")
    assumed: tuple[Basis, ...] = told("Assumed", (), help="what of the basis nobody has given yet")


class Station(Part):
    md_ft: Depth = told("MD")
    inclination_deg: Annotated[float, number(0, 180), Of("angle")] = told("Inclination", 0.0)
    azimuth_deg: Annotated[float, number(0, 360), Of("angle")] = told("Azimuth", 0.0)


class Trajectory(Part):
    stations: tuple[Station, ...] = listed(
        "Survey stations", 5_000, least=2, default=(Station(md_ft=0.0), Station(md_ft=10_000.0))
    )


class Point(Part):
    tvd_ft: Depth = told("TVD")
    emw_ppg: Emw = told("EMW")
    source: Name = told("Source", "", help="what it was taken from, where it was measured")


Rock = Literal["gravel", "sand", "clay", "shale", "limestone", "dolomite", "salt", "marl", "coal", "basement"]
PoreFluid = Literal["none", "fresh water", "salt water", "oil", "gas"]
Hazard = Literal["losses", "overpressure", "caving"]


class Zone(Part):
    id: Id = told("Id")
    name: Name = told("Name")
    top_tvd_ft: Depth = told("Top", help="TVD")
    base_tvd_ft: Depth = told("Base", help="TVD")
    rock: Rock = told("Rock", "shale")
    fluid: PoreFluid = told("Fluid", "none")
    permeable: StrictBool = told("Permeable", False)
    hazards: tuple[Hazard, ...] = told("Hazards", ())
    case_before_deeper: StrictBool = told("Case off before drilling ahead", False)
    shoe_allowed: StrictBool = told("Shoe allowed", True)
    standoff_percent: Standoff | None = told("Wanted standoff", None, help="behind casing; empty follows policy")
    gas_contact_tvd_ft: Depth | None = told(
        "Gas contact", None, help="TVD at which gas meets water or oil: above it pore pressure follows the gas gradient"
    )


class LeakOffTest(Part):
    """A leak-off replaces the fracture profile at its depth; an integrity test only shows that it is no less."""

    tvd_ft: Depth = told("TVD")
    emw_ppg: Emw = told("EMW")
    kind: Literal["leak-off", "integrity"] = told("Test", "leak-off")
    source: Name = told("Source", "", help="where it was measured, or the entry of the log")


class TemperaturePoint(Part):
    tvd_ft: Depth = told("TVD")
    temperature_f: Temperature = told("Temperature")


Profile = Annotated[tuple[Point, ...], Field(max_length=5_000)]


class GroundModel(Part):
    zones: tuple[Zone, ...] = listed("Zones", 500)
    pore: Profile = told("Pore pressure", ())
    fracture: Profile = told("Fracture pressure", ())
    stability: Profile = told("Hole stability", ())
    overburden: Profile = told("Overburden", ())
    temperature: tuple[TemperaturePoint, ...] = listed("Temperature", 500)
    leak_off_tests: tuple[LeakOffTest, ...] = listed("Leak-off tests", 100)


class CustomPipe(Part):
    """A pipe of the person's own. Ratings that are not given follow from size and yield, where they can."""

    od_in: Size = told("OD")
    weight_ppf: LinearWeight = told("Weight")
    wall_in: Wall = told("Wall")
    grade: Name = told("Grade")
    yield_psi: Annotated[float, number(10_000, 250_000), Of("pressure")] = told("Yield strength")
    connection: Name = told("Connection")
    coupling_od_in: Size = told("Coupling OD")
    drift_in: Size | None = told("Drift", None)
    burst_psi: Pressure | None = told("Burst rating", None)
    collapse_psi: Pressure | None = told("Collapse rating", None)
    body_lbf: Strength | None = told("Body yield", None)
    joint_lbf: Strength | None = told("Joint strength", None)
    joint_psi: Pressure | None = told("Leak resistance", None, help="internal pressure that the connection withstands")
    sour_from_f: Temperature | None = told(
        "Sour service from", None, help="lowest temperature in sour service; empty is not for sour service"
    )
    source: Name = told("Source", "")


class StockRow(Part):
    """What can be had of a pipe: its price, and its length where that is limited."""

    od_in: Size = told("OD")
    weight_ppf: LinearWeight = told("Weight")
    grade: Name = told("Grade")
    connection: Name = told("Connection")
    price_per_ft: Annotated[float, number(0.01, 100_000), Of("price")] = told("Price")
    available_ft: Annotated[float, number(0, 1_000_000), Of("depth")] | None = told("Available length", None)


class Design(Part):
    """A whole well design."""

    format: Literal["knollstack.well"]
    version: Literal[9]
    name: Name = told("Well")
    note: Note = told("Note", "")
    site: Site = Site()
    trajectory: Trajectory = Trajectory()
    ground: GroundModel = GroundModel()
    policy: Policy = Policy()
    strings: tuple[String, ...] = listed("Strings", 12)
    pipes: tuple[CustomPipe, ...] = listed("Own pipes", 500)
    stock: tuple[StockRow, ...] = listed("Stock list", 2_000)
    centralizers: tuple[CentralizerType, ...] = listed("Own centralizers", 100)
    balanced_plugs: tuple[BalancedPlug, ...] = listed("Balanced plugs", 20)
    wellhead: Wellhead = Wellhead()
    preventers: tuple[Stack, ...] = listed("Stacks", 12)
    closing_unit: ClosingUnit = ClosingUnit()
    sea: Sea = Sea()
    completion: Completion = Completion()
    runsheet: RunSheet = told("Run sheet", RunSheet())
    drills: Drills = Drills()
    log: tuple[LogEntry, ...] = listed("Log", MOST_ENTRIES, help="what happened; it overrules the plan")


def empty(name: str) -> Design:
    """A well with nothing decided and nothing known."""
    return Design(format="knollstack.well", version=9, name=name, site=Site(assumed=get_args(Basis)))
