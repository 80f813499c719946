"""The design document: what the engineer decided and knows, and nothing computed.

Frozen pydantic models with bounds on every number. Depths are in ft from the rig floor (RKB); profile depths
are TVD, shoe depths and survey stations are MD. `None` on a decision means "not decided": the evaluation
proposes a value and lists it as an assumption. Checks across fields live in `faults.py`.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool

FORMAT = "knollstack.well"
VERSION = 1
MAX_DEPTH_FT = 40_000.0


def _number(low: float, high: float) -> object:
    return Field(strict=True, allow_inf_nan=False, ge=low, le=high)


Depth = Annotated[float, _number(0, MAX_DEPTH_FT)]
Height = Annotated[float, _number(0, 500)]
Emw = Annotated[float, _number(0.5, 30)]
Margin = Annotated[float, _number(0, 5)]
Size = Annotated[float, _number(1, 48)]
Pressure = Annotated[float, _number(0, 50_000)]
Temperature = Annotated[float, _number(-60, 700)]
Factor = Annotated[float, _number(0.5, 5)]
Name = Annotated[str, Field(max_length=200)]
Note = Annotated[str, Field(max_length=20_000)]


class Part(BaseModel):
    """Base of every part of the document: immutable, and no unknown key passes in silence."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class Site(Part):
    setting: Literal["land", "platform", "subsea"] = "land"
    rig_floor_ft: Height = Field(30.0, description="rig floor above ground (land) or above sea level")
    water_depth_ft: Annotated[float, _number(0, 15_000)] = 0.0
    cellar_depth_ft: Annotated[float, _number(0, 60)] = 6.0
    flowline_height_ft: Height = Field(20.0, description="flowline above ground")
    rotary_room_ft: Annotated[float, _number(0, 200)] | None = Field(
        None, description="clear height between the ground and the rotary beams"
    )
    surface_temperature_f: Temperature | None = None
    bottom_temperature_f: Temperature | None = None
    h2s_ppm: Annotated[float, _number(0, 1_000_000)] | None = None
    co2_percent: Annotated[float, _number(0, 100)] | None = None
    choke_line_psi: Pressure | None = Field(None, description="friction in the choke line at kill rate, subsea")


class Station(Part):
    md_ft: Depth
    inclination_deg: Annotated[float, _number(0, 180)] = 0.0
    azimuth_deg: Annotated[float, _number(0, 360)] = 0.0


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


class KickMinimum(Part):
    from_hole_in: Size
    volume_bbl: Annotated[float, _number(0, 1_000)]


class DrillString(Part):
    from_hole_in: Size
    pipe_od_in: Size
    collar_od_in: Size
    collar_length_ft: Annotated[float, _number(0, 3_000)]
    pipe_id_in: Annotated[float, _number(0.5, 20)] | None = None
    collar_id_in: Annotated[float, _number(0.5, 20)] | None = None


class DesignFactors(Part):
    burst: Factor = 1.10
    collapse: Factor = 1.125
    collapse_cemented: Factor = 1.0
    tension: Factor = 1.60


class Policy(Part):
    """Every margin, limit, factor and school. The defaults are common practice, not a rule of any place."""

    depth_school: Literal["bottom up", "top down"] = Field(
        "bottom up", description="shallowest shoes from total depth, or deepest shoes from the conductor"
    )
    trip_margin_ppg: Margin = 0.3
    fracture_margin_ppg: Margin = 0.3
    normal_pore_ppg: Emw = 9.0
    sticking_normal_psi: Pressure = 2_000.0
    sticking_abnormal_psi: Pressure = 3_000.0
    fresh_water_cover_ft: Depth = 100.0
    zone_cover_ft: Depth = 50.0
    zone_reach_ft: Depth = 300.0
    liner_overlap_ft: Depth = Field(400.0, description="overlap of a liner with the casing above")
    open_hole_limit_ft: Depth = 8_000.0
    diverter_limit_ft: Depth = Field(4_000.0, description="deepest hole below ground on the conductor's diverter")
    conductor_minimum_ft: Depth = Field(80.0, description="least conductor depth below ground or mudline")
    conductor_mud_ppg: Emw = 9.0
    kick_intensity_ppg: Margin = 0.5
    influx_psi_ft: Annotated[float, _number(0.01, 0.4)] = 0.1
    kick_school: Literal["volume", "full gas"] = Field(
        "volume", description="a least volume by hole size, or a hole full of gas that the shoe must stand"
    )
    kick_minimums: Annotated[tuple[KickMinimum, ...], Field(max_length=20)] = (
        KickMinimum(from_hole_in=16.0, volume_bbl=100.0),
        KickMinimum(from_hole_in=11.0, volume_bbl=50.0),
        KickMinimum(from_hole_in=7.875, volume_bbl=25.0),
        KickMinimum(from_hole_in=1.0, volume_bbl=15.0),
    )
    drill_strings: Annotated[tuple[DrillString, ...], Field(min_length=1, max_length=20)] = (
        DrillString(
            from_hole_in=12.0,
            pipe_od_in=5.0,
            collar_od_in=8.0,
            collar_length_ft=600.0,
            pipe_id_in=4.276,
            collar_id_in=2.8125,
        ),
        DrillString(
            from_hole_in=8.0,
            pipe_od_in=5.0,
            collar_od_in=6.5,
            collar_length_ft=600.0,
            pipe_id_in=4.276,
            collar_id_in=2.8125,
        ),
        DrillString(
            from_hole_in=1.0,
            pipe_od_in=3.5,
            collar_od_in=4.75,
            collar_length_ft=450.0,
            pipe_id_in=2.764,
            collar_id_in=2.25,
        ),
    )
    production_od_in: Size = 5.5
    clearance: Literal["common", "tight"] = "tight"
    factors: DesignFactors = DesignFactors()
    burst_backup: Literal["pore", "base fluid", "mud"] = "base fluid"
    base_fluid_ppg: Emw = 8.33
    gas_psi_ft: Annotated[float, _number(0.01, 0.4)] = 0.1
    packer_fluid_ppg: Emw = 8.6
    overpull_lbf: Annotated[float, _number(0, 1_000_000)] = 100_000.0
    pit_volume_bbl: Annotated[float, _number(0, 10_000)] = 500.0
    weighting_solid_ppg: Annotated[float, _number(15, 50)] = 35.0
    rheology: Literal["Bingham", "power law"] = "Bingham"
    trip_speed_ft_min: Annotated[float, _number(0, 500)] = Field(
        90.0, description="speed of the drill string while tripping"
    )
    riser_mud_limit_ppg: Emw = Field(
        18.0, description="greatest practical mud weight with which a riser margin is held"
    )
    sweep_bbl: Annotated[float, _number(0, 1_000)] = Field(50.0, description="gel sweep of a riserless hole")
    sweep_every_ft: Annotated[float, _number(10, 2_000)] = 90.0
    cement_excess: Annotated[float, _number(0, 5)] = Field(0.5, description="fraction of the open-hole volume")
    cement_overlap_ft: Depth = Field(300.0, description="cement above the previous shoe")
    shoe_track_ft: Annotated[float, _number(0, 500)] = 80.0
    rathole_ft: Annotated[float, _number(0, 500)] = 10.0
    slurry_water_gal_sk: Annotated[float, _number(3, 20)] = 4.97
    stack_minimum_class_psi: Pressure = 2_000.0


class PipeChoice(Part):
    weight_ppf: Annotated[float, _number(1, 1_000)]
    grade: Name
    connection: Name


class Cement(Part):
    """Decisions on one string's cement; None is not decided."""

    top_md_ft: Depth | None = None
    slurry_water_gal_sk: Annotated[float, _number(3, 20)] | None = None
    bentonite_percent: Annotated[float, _number(0, 25)] | None = None
    excess: Annotated[float, _number(0, 5)] | None = None


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
    flow_gpm: Annotated[float, _number(0, 3_000)] | None = Field(None, description="pump rate while drilling this hole")
    reading_300: Annotated[float, _number(0.5, 600)] | None = Field(None, description="rheometer at 300 rpm")
    reading_600: Annotated[float, _number(0.5, 1_200)] | None = Field(None, description="rheometer at 600 rpm")
    cement: Cement = Cement()


class WellheadPiece(Part):
    name: Name
    height_in: Annotated[float, _number(0, 400)]
    bore_in: Size
    bottom_psi: Pressure | None = Field(None, description="pressure class of the bottom face; None for a weld")
    top_psi: Pressure
    gap_in: Annotated[float, _number(0, 10)] = Field(0.0, description="made-up gap under this piece")


class Wellhead(Part):
    """Pieces bottom to top; empty is not decided. The reference face is the top of the last piece."""

    pieces: Annotated[tuple[WellheadPiece, ...], Field(max_length=20)] = ()
    socket_depth_in: Annotated[float, _number(0, 40)] = 4.5
    base_plate_in: Annotated[float, _number(0, 40)] = 2.0


class Stack(Part):
    """A decided stack on one string, elements top to bottom."""

    role_index: Annotated[int, Field(strict=True, ge=0, le=20, description="index of the string that carries it")]
    class_psi: Pressure
    elements: Annotated[tuple[Name, ...], Field(min_length=1, max_length=20)]


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
    wellhead: Wellhead = Wellhead()
    preventers: Annotated[tuple[Stack, ...], Field(max_length=12)] = ()


def empty(name: str) -> Design:
    """A well with nothing decided and nothing known."""
    return Design(format="knollstack.well", version=1, name=name)
