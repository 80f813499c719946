"""What a kill sheet and a rehearsal need beside the design: pumps, the string as run, and the policy of shutting in.

None is not known.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import StrictBool

from knollstack.core.base.fields import Bore, Id, Margin, Of, Part, Pressure, Size, Volume, listed, number, told

StrokeRate = Annotated[float, number(1, 300), Of("stroke_rate")]
StrokeVolume = Annotated[float, number(0.001, 2), Of("stroke_volume")]
Length = Annotated[float, number(1, 40_000), Of("depth")]
MOST_HOLES = 12


class SlowPump(Part):
    """Circulating pressure read at a slow rate in one hole."""

    hole: Id = told("Hole", help="id of the string that the hole is drilled for")
    spm: StrokeRate = told("Rate")
    psi: Pressure = told("Pressure", help="at the standpipe, with the bit on bottom and the hole's mud")


class DrillPart(Part):
    """A length of the drill string as run in one hole; parts of a hole stand from the bit up."""

    hole: Id = told("Hole", help="id of the string that the hole is drilled for")
    kind: Literal["collars", "heavy-weight pipe", "drill pipe"] = told(
        "Part", "drill pipe", help="collars, heavy-weight or drill pipe, as it is run"
    )
    od_in: Size = told("OD")
    id_in: Bore = told("ID")
    length_ft: Length | None = told("Length", None, help="empty reaches the rig floor")
    joint_in: Size | None = told("Tool joint", None, help="OD; empty is the usual of the pipe")


class Drills(Part):
    """What is known of pumps and strings, beyond policy."""

    pump_bbl_stroke: StrokeVolume | None = told("Pump output", None, help="at its efficiency; empty is policy's")
    slow: tuple[SlowPump, ...] = listed(
        "Slow pump pressures", 2 * MOST_HOLES, help="read each tour, and whenever mud or string change"
    )
    parts: tuple[DrillPart, ...] = listed(
        "Drill string as run", 60, help="from the bit up, for a tapered string; empty is policy's for the hole"
    )


SHUT, KILL, PLAYED = "Shutting in", "Kill sheet", "Rehearsal"


class DrillsPolicy(Part):
    shut_in: Literal["hard", "soft"] = told(
        "Shut-in",
        "hard",
        group=SHUT,
        help="hard: choke closed beforehand; soft: choke line open first, choke closed last",
    )
    first: Literal["annular", "pipe rams"] = told("Closed first", "annular", group=SHUT, help="on drill pipe")
    flow_check: StrictBool = told(
        "Flow check before closing", True, group=SHUT, help="pumps off, and the annulus watched for flow"
    )
    pick_up_ft: Annotated[float, number(0, 90), Of("length")] = told(
        "Pick up", 15.0, group=SHUT, help="at least, until no tool joint stands in the stack"
    )
    most_gain_bbl: Volume = told("Greatest gain at shut-in", 25.0, group=SHUT, help="of influx, that a drill may take")
    most_minutes: Annotated[float, number(0.5, 60), Of("minutes")] = told(
        "Time to shut in", 5.0, group=SHUT, help="from the first sign at surface"
    )
    kill_margin_ppg: Margin = told("Margin of the kill mud", 0.0, group=KILL, help="over balance")
    choke_margin_psi: Pressure = told("Choke margin", 100.0, group=KILL, help="kept over the schedule, and no more")
    slow_spm: StrokeRate = told("Slow rate", 30.0, group=KILL, help="where no pressure was read at another")
    pump_bbl_stroke: StrokeVolume = told("Pump output", 0.1, group=KILL, help="where it is not known")
    nozzle_in2: Annotated[float, number(0.05, 10), Of("area")] = told(
        "Nozzles", 0.7, group=KILL, help="total flow area of the bit, where the slow pump pressure is estimated"
    )
    slip_ft_min: Annotated[float, number(0, 300), Of("trip_speed")] = told(
        "Gas rises in mud at", 20.0, group=PLAYED, help="relative to the mud around it"
    )
    permeability_md: Annotated[float, number(0.1, 10_000), Of("factor")] = told(
        "Permeability, mD", 100.0, group=PLAYED, help="of the rock that kicks"
    )
    exposed_ft: Annotated[float, number(0.5, 500), Of("length")] = told(
        "Drilled into the reservoir", 5.0, group=PLAYED, help="thickness that flows"
    )
