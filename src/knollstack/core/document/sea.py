"""What is known and decided of a well at sea: soil, conductor, riser and tensioners, weather, disconnect, sealed annuli.

None is not known or not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.fields import Emw, Id, Load, Name, Of, Part, PieceHeight, Pressure, Size, listed, number, told

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
