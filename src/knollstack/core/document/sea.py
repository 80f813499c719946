"""What is known and decided of a well at sea: soil, conductor, riser and tensioners, weather, disconnect, sealed annuli.

None is not known or not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.fields import (
    Emw,
    Factor,
    Id,
    Load,
    Name,
    Of,
    Part,
    PieceHeight,
    Pressure,
    Size,
    listed,
    number,
    told,
)

MOST_TENSIONERS = 40
MOST_HOURS = 20_000.0
MOST_DISK_PSI = 50_000.0
Hours = Annotated[float, number(0, MOST_HOURS), Of("hours")]
Lift = Annotated[float, number(-500_000, 500_000), Of("force")]
Feet = Annotated[float, number(0, 500), Of("length")]
Count = Annotated[int, Field(strict=True, ge=0, le=1_000), Of("count")]
Speed = Annotated[float, number(0, 2_000), Of("trip_speed")]
Seconds = Annotated[float, number(0, 7_200), Of("seconds")]
Angle = Annotated[float, number(0, 30), Of("angle")]
Share = Annotated[float, number(0, 1), Of("fraction")]


class SoilPoint(Part):
    below_mudline_ft: Annotated[float, number(0, 3_000), Of("depth")] = told("Below mudline")
    strength_psf: Annotated[float, number(0, 20_000), Of("soil_strength")] = told("Undrained strength")
    submerged_pcf: Annotated[float, number(5, 100), Of("unit_weight")] = told("Submerged unit weight")


class SeaConductor(Part):
    """How the conductor is set in the sea floor, and what stands on it until the second string is cemented."""

    stick_up_ft: Annotated[float, number(0, 60), Of("length")] = told(
        "Housing over the mudline", 10.0, help="top of the high-pressure housing once it is landed"
    )
    bit_out_in: Annotated[float, number(-60, 120), Of("height")] | None = told(
        "Bit below the shoe", None, help="of the jetting assembly; under 0 it stands inside the conductor"
    )
    assembly_ft: Annotated[float, number(0, 3_000), Of("length")] | None = told(
        "Jetting assembly", None, help="from the running tool's seat in the low-pressure housing down to the bit"
    )
    low_over_ft: Annotated[float, number(0, 60), Of("length")] = told(
        "Low-pressure housing over the mudline", 7.0, help="its top, on which the running tool sits"
    )
    last_bit_weight_lbf: Load | None = told(
        "Last weight on bit", None, help="set down at the end of jetting: what the conductor bears at once"
    )
    soak_hours: Hours | None = told("Soak", None, help="before the running tool is released; empty follows policy")
    second_hours: Hours | None = told(
        "Second string landed after", None, help="hours after jetting or hammering; empty follows policy"
    )
    guide_base_lbf: Load | None = told("Guide base", None, help="weight in water; empty is policy's planning value")
    low_housing_lbf: Load | None = told("Low-pressure housing", None, help="weight in water; empty is policy's")
    high_housing_lbf: Load | None = told("High-pressure housing", None, help="weight in water; empty is policy's")
    held_lbf: Load = told(
        "Held by the landing string", 0.0, help="of the second string's weight, until its cement has set"
    )
    inclination_deg: Angle | None = told("Inclination", None, help="of the housing, read once it stands")
    blows_ft: Count | None = told("Blows over the last foot", None, help="of a hammered conductor")


class SeaHousing(Part):
    """The high-pressure housing on the sea floor, and what is stacked in its bore."""

    bore_in: Size = told("Bore", 18.75, help="of the high-pressure housing", offered=(13.625, 16.75, 18.75))
    class_psi: Pressure | None = told("Class", None, help="empty is that of the stack", offered=CLASSES_PSI)
    seats: Annotated[int, Field(strict=True, ge=1, le=6), Of("count")] = told(
        "Hanger seats", 3, help="casing hangers that stack in its bore, over the string that carries it"
    )
    hanger_in: PieceHeight = told("Hanger with its seal", 22.0, help="height that each takes in the bore")
    first_in: PieceHeight = told("Highest seat under its top", 24.0, help="to the top of the last hanger's seal")
    protector_in: Size | None = told(
        "Bore protector", None, help="ID; in place while drilling; empty is policy's planning value"
    )
    seat_lbf: Load | None = told("Load shoulder", None, help="what the housing carries; empty is policy's")


class RiserJoint(Part):
    """A kind of riser joint aboard, with its share of the lines outside."""

    name: Name = told("Joint")
    length_ft: Annotated[float, number(2, 150), Of("length")] = told("Length", help="made up")
    aboard: Count = told("Aboard", help="how many the rig has")
    wet_lbf: Load = told("Weight in water", help="of steel and lines, without buoyancy modules")
    lift_lbf: Lift = told("Net lift", 0.0, help="of its buoyancy modules in water; 0 is a bare joint")
    run: Count | None = told("In the string", None, help="empty is made up: in the order of the table, pups last")


class Riser(Part):
    """The riser from the rotary to the stack, and what holds it up."""

    joints: tuple[RiserJoint, ...] = listed("Riser joints", 40)
    upper_ft: Feet = told("Rotary to telescopic joint", 25.0, help="diverter and upper flex joint")
    telescopic_ft: Feet = told("Telescopic joint", 85.0, help="length at mid-stroke")
    stroke_ft: Annotated[float, number(0, 120), Of("length")] = told("Stroke", 50.0, help="of the telescopic joint")
    barrel_lbf: Load = told("Outer barrel in water", 40_000.0, help="what hangs under the tensioner ring with no joint")
    flex_ft: Feet = told("Lower flex joint", 10.0, help="with its adapter, over the riser package")
    stack_ft: Feet | None = told("Stack height", None, help="housing to flex joint; empty is that of the tallest stack")
    moon_pool_ft: Feet | None = told(
        "Moon-pool room", None, help="height in which the stack is skidded under the rotary"
    )
    package_lbf: Load | None = told(
        "Riser package in water", None, help="what is lifted off at a disconnect; empty is policy's planning value"
    )
    tensioners: Annotated[int, Field(strict=True, ge=1, le=MOST_TENSIONERS), Of("count")] | None = told(
        "Tensioners", None, help="wires or cylinders that pull together"
    )
    tensioner_lbf: Load | None = told("Pull of one", None, help="its dynamic limit")
    collapse_psi: Pressure | None = told("Collapse of the riser", None, help="of its pipe, for when gas empties it")
    failed: Annotated[int, Field(strict=True, ge=0, le=MOST_TENSIONERS), Of("count")] | None = told(
        "Failed at once", None, help="tensioners lost without warning; empty follows policy"
    )
    setting_lbf: Load | None = told(
        "Tension set", None, help="of all together; empty is the least plus policy's margin"
    )


class Weather(Part):
    name: Name = told("Weather")
    drift_ft_min: Speed | None = told("Drift", None, help="speed of the rig with all power lost")
    heave_ft: Annotated[float, number(0, 60), Of("length")] | None = told(
        "Heave", None, help="greatest, trough to crest"
    )
    current_ft_s: Annotated[float, number(0, 12), Of("pipe_speed")] | None = told("Current", None, help="at surface")


class WorkLimit(Part):
    """Beyond which a piece of work is not begun."""

    work: Name = told("Work", help="a piece of work that weather may stop")
    heave_ft: Annotated[float, number(0, 60), Of("length")] | None = told(
        "Heave up to", None, help="trough to crest; empty is no limit"
    )
    current_ft_s: Annotated[float, number(0, 12), Of("pipe_speed")] | None = told(
        "Current up to", None, help="at surface; empty is no limit"
    )


class DisconnectStep(Part):
    name: Name = told("Step")
    seconds: Seconds = told("Takes", help="time of the step")
    when: Literal["secure", "emergency"] = told(
        "Part of", "emergency", help="done at the yellow circle, or by the emergency sequence at the red one"
    )


class AnnulusRelief(Part):
    """What relieves the annulus around a string when production heats it."""

    string: Id = told("Around", help="id of the string inside of it")
    relief: Literal["none", "rupture disk", "compressible fluid"] = told("Relief", "none", help="what lets pressure go")
    disk_psi: Pressure | None = told("Disk opens at", None, help="difference of pressure over the outer casing")
    share: Annotated[float, number(0, 0.9), Of("fraction")] | None = told(
        "Share compressible", None, help="of the annulus filled with nitrogen or foam"
    )


class Sea(Part):
    """All that a well at sea adds."""

    soil: tuple[SoilPoint, ...] = listed("Soil strength", 500)
    conductor: SeaConductor = told("Conductor", SeaConductor())
    housing: SeaHousing = told("Wellhead housing", SeaHousing())
    riser: Riser = told("Riser", Riser())
    weather: tuple[Weather, ...] = listed("Weather", 12, help="what the well may meet, and the drift in it")
    limits: tuple[WorkLimit, ...] = listed("Weather limits", 20, help="beyond which a piece of work is not begun")
    disconnect: tuple[DisconnectStep, ...] = listed(
        "Disconnect", 20, help="steps in their order; empty is the usual sequence"
    )
    pad_mud_ppg: Emw | None = told(
        "Pad mud", None, help="left in a riserless hole before its casing is run; empty is none"
    )
    storm_hours: Hours | None = told(
        "Warning of a storm", None, help="hours; empty is that no storm drives the rig off"
    )
    annuli: tuple[AnnulusRelief, ...] = listed(
        "Relief of sealed annuli", 12, help="what lets pressure go that production's heat builds up"
    )


class SetUp(Part):
    hours: Hours = told("After", help="hours since the soil was disturbed")
    share: Share = told("Set up", help="share of what lies between the immediate and the long-run capacity")


CONDUCTOR, RISER, DISCONNECT, ANNULI = "Conductor at sea", "Riser", "Disconnect", "Sealed annuli"


class SeaPolicy(Part):
    conductor_factor: Factor = told(
        "Conductor capacity over load", 1.2, group=CONDUCTOR, help="soil capacity at that hour over what it carries"
    )
    soak_hours: Hours = told("Soak", 6.0, group=CONDUCTOR, help="before the running tool is released")
    second_hours: Hours = told(
        "Second string landed after", 60.0, group=CONDUCTOR, help="hours after jetting or hammering"
    )
    set_up: tuple[SetUp, ...] = listed(
        "Set-up of the soil",
        20,
        least=2,
        group=CONDUCTOR,
        help="how the capacity of a jetted or hammered conductor grows",
        default=tuple(
            SetUp(hours=h, share=s)
            for h, s in (
                (0.0, 0.0),
                (6.0, 0.06),
                (24.0, 0.13),
                (72.0, 0.22),
                (240.0, 0.38),
                (720.0, 0.55),
                (8_760.0, 1.0),
            )
        ),
    )
    remoulded_share: Share = told(
        "Hammered, borne at once", 0.35, group=CONDUCTOR, help="share of the long-run capacity while clay is remoulded"
    )
    bit_out_most_in: Annotated[float, number(0, 120), Of("height")] = told(
        "Bit below the shoe, at most", 12.0, group=CONDUCTOR, help="a bit further out washes the soil under the shoe"
    )
    inclination_deg: Angle = told("Inclination of the housing, at most", 1.0, group=CONDUCTOR)
    refusal_blows_ft: Count = told("Refusal", 300, group=CONDUCTOR, help="blows a foot")
    guide_base_lbf: Load = told("Guide base", 15_000.0, group=CONDUCTOR, help="planning value, in water")
    low_housing_lbf: Load = told("Low-pressure housing", 10_000.0, group=CONDUCTOR, help="planning value, in water")
    high_housing_lbf: Load = told("High-pressure housing", 12_000.0, group=CONDUCTOR, help="planning value, in water")
    pad_share: Annotated[float, number(0, 5), Of("fraction")] = told(
        "Pad mud over the hole", 0.5, group=CONDUCTOR, help="more than the bit drills, for what has washed out"
    )
    seat_lbf: Load = told(
        "Load shoulder of the housing", 2_000_000.0, group=CONDUCTOR, help="planning value: hangers and test pressure"
    )
    protector_in: Size = told("Bore protector", 17.5625, group=CONDUCTOR, help="planning value: ID in the housing")
    weight_tolerance: Factor = told("Tolerance of riser weight", 1.05, group=RISER)
    buoyancy_tolerance: Factor = told(
        "Tolerance of buoyancy", 0.96, group=RISER, help="lift lost by water taken up and by tolerance of the modules"
    )
    failed: Annotated[int, Field(strict=True, ge=0, le=MOST_TENSIONERS), Of("count")] = told(
        "Tensioners failed at once", 1, group=RISER, help="lost without warning"
    )
    reduction: Annotated[float, number(0.5, 1), Of("fraction")] = told(
        "Tension that reaches the ring", 0.95, group=RISER, help="after fleet angle and friction"
    )
    tension_share: Share = told("Tension set, at most", 0.9, group=RISER, help="share of the tensioners' pull")
    tension_margin_lbf: Load = told("Tension over the least", 50_000.0, group=RISER)
    package_lbf: Load = told("Riser package", 160_000.0, group=RISER, help="planning value, in water")
    stroke_share: Share = told(
        "Stroke taken by spacing out", 0.1, group=RISER, help="how far off mid-stroke the telescopic joint may stand"
    )
    joints_hour: Annotated[float, number(0.1, 20), Of("factor")] = told("Riser joints an hour", 2.5, group=RISER)
    test_joints: Annotated[int, Field(strict=True, ge=1, le=200), Of("count")] = told(
        "Lines tested every so many joints", 10, group=RISER
    )
    test_minutes: Annotated[float, number(0, 600), Of("minutes")] = told("Test of the lines", 45.0, group=RISER)
    heave_share: Share = told(
        "Heave on the hook load", 0.1, group=RISER, help="share that it adds while casing is landed"
    )
    landing_share: Share = told("Landing string over its yield", 0.8, group=RISER, help="share of its body's yield")
    plug_hours: Hours = told("Storm plug", 8.0, group=DISCONNECT, help="to set and test it")
    displace_bpm: Annotated[float, number(0.1, 60), Of("pump_rate")] = told(
        "Riser displaced at", 12.0, group=DISCONNECT, help="with the booster line"
    )
    flex_deg: Angle = told(
        "Lower flex joint, at most", 6.0, group=DISCONNECT, help="angle at which it must be unlatched"
    )
    answer_seconds: Seconds = told(
        "Until the crew acts", 30.0, group=DISCONNECT, help="from power lost to the first step begun"
    )
    expansion_per_f: Annotated[float, number(0.00001, 0.002), Of("per_degree")] = told(
        "Expansion of annulus fluid", 0.00025, group=ANNULI
    )
    compressibility_1_psi: Annotated[float, number(0.0000005, 0.0001), Of("compressibility")] = told(
        "Compressibility of annulus fluid", 0.0000028, group=ANNULI
    )
    heat_share: Share = told(
        "Heating of the next annulus out", 0.8, group=ANNULI, help="share of that of the annulus inside of it"
    )
    open_below_ft: Annotated[float, number(1, 2_000), Of("depth")] = told(
        "Cement below an open shoe", 200.0, group=ANNULI, help="where an annulus is left open to relieve it"
    )
