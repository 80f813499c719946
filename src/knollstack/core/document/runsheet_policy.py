"""The policy of the run sheet: rates and times of the work, how far they spread, spares and lead times.

All are planning values of no rig in particular.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from knollstack.core.base.fields import Excess, Of, Part, Size, listed, number, told
from knollstack.core.document.runsheet import DrillingRate, LeadDays, MaterialKind, StepKind
from knollstack.core.document.sea import Hours

DRILLING, TRIPPING, CASING = "Drilling", "Tripping", "Casing and cement"
TOPSIDE, SPREAD, SUPPLY = "Wellhead and BOPs", "Spread of the times", "Materials"
Minutes = Annotated[float, number(0, 600), Of("minutes")]
Pieces = Annotated[int, Field(strict=True, ge=0, le=20), Of("count")]
Share = Annotated[float, number(0.05, 1), Of("fraction")]
Over = Annotated[float, number(1, 10), Of("fraction")]


class RateRow(Part):
    """How fast a hole is drilled from a size up, and how long its bit lasts."""

    from_hole_in: Size = told("From hole")
    ft_hour: DrillingRate = told("Rate", help="on bottom")
    bit_hours: Annotated[float, number(1, 1_000), Of("hours")] = told("Bit life", help="rotating")


class JointsRow(Part):
    from_od_in: Size = told("From casing")
    joints_hour: Annotated[float, number(0.5, 60), Of("factor")] = told("Joints per hour")


class SpreadRow(Part):
    """Least and most of a kind of work, over what is likely."""

    kind: StepKind = told("Kind")
    least: Share = told("Least", help="share of what is likely")
    most: Over = told("Most", help="share of what is likely")


class LeadRow(Part):
    kind: MaterialKind = told("Kind")
    days: LeadDays = told("Lead time", help="days from order to rig")


def _rates() -> tuple[RateRow, ...]:
    rows = ((24.0, 80.0, 60.0), (16.0, 60.0, 60.0), (11.0, 45.0, 50.0), (7.875, 30.0, 45.0), (1.0, 20.0, 35.0))
    return tuple(RateRow(from_hole_in=a, ft_hour=b, bit_hours=c) for a, b, c in rows)


def _joints() -> tuple[JointsRow, ...]:
    rows = ((20.0, 8.0), (13.0, 12.0), (9.0, 14.0), (6.0, 16.0), (1.0, 18.0))
    return tuple(JointsRow(from_od_in=a, joints_hour=b) for a, b in rows)


def _spread() -> tuple[SpreadRow, ...]:
    rows: tuple[tuple[StepKind, float, float], ...] = (
        ("preparation", 0.9, 1.5),
        ("drilling", 0.75, 1.7),
        ("tripping", 0.9, 1.4),
        ("evaluation", 0.9, 1.6),
        ("running casing", 0.9, 1.5),
        ("cementing", 0.9, 1.4),
        ("waiting on cement", 1.0, 1.3),
        ("wellhead", 0.85, 1.5),
        ("BOPs", 0.85, 1.5),
        ("testing", 0.85, 1.6),
        ("barriers", 1.0, 1.0),
        ("riser", 0.85, 1.6),
        ("completion", 0.85, 1.6),
        ("plugs", 0.9, 1.5),
    )
    return tuple(SpreadRow(kind=a, least=b, most=c) for a, b, c in rows)


def _leads() -> tuple[LeadRow, ...]:
    rows: tuple[tuple[MaterialKind, int], ...] = (
        ("casing", 150),
        ("float equipment", 45),
        ("centralizers", 45),
        ("hangers and seals", 90),
        ("wellhead", 180),
        ("ring gaskets and studs", 30),
        ("BOP parts", 60),
        ("cement", 14),
        ("cement additives", 30),
        ("spacers and washes", 30),
        ("mud", 14),
        ("bits", 45),
        ("tubing", 150),
        ("completion", 180),
        ("plugs", 60),
    )
    return tuple(LeadRow(kind=a, days=b) for a, b in rows)


class RunSheetPolicy(Part):
    rates: tuple[RateRow, ...] = listed("Drilling rate by hole size", 20, default=_rates(), group=DRILLING)
    drill_out_ft_hour: DrillingRate = told("Rate through cement and shoe track", 25.0, group=DRILLING)
    new_hole_ft: Annotated[float, number(0, 200), Of("length")] = told(
        "New hole under the shoe", 15.0, group=DRILLING, help="drilled before the leak-off test"
    )
    connection_minutes: Minutes = told("Connection", 8.0, group=DRILLING, help="of each stand drilled, with its survey")
    npt_share: Excess = told(
        "Non-productive time", 0.15, group=DRILLING, help="share of the time of all work, added to it"
    )
    stand_joints: Annotated[int, Field(strict=True, ge=1, le=4), Of("count")] = told(
        "Joints in a stand", 3, group=TRIPPING
    )
    pipe_joint_ft: Annotated[float, number(20, 50), Of("length")] = told("Joint of drill pipe", 31.5, group=TRIPPING)
    stand_minutes: Minutes = told("A stand in cased hole", 3.5, group=TRIPPING)
    open_stand_minutes: Minutes = told("A stand in open hole", 5.0, group=TRIPPING)
    bha_hours: Hours = told("Bottom-hole assembly", 4.0, group=TRIPPING, help="made up, or laid down")
    condition_hours: Hours = told("Hole conditioned", 4.0, group=TRIPPING, help="before casing, with a wiper trip")
    joints: tuple[JointsRow, ...] = listed("Joints of casing per hour", 20, default=_joints(), group=CASING)
    casing_gear_hours: Hours = told("Casing gear rigged", 3.0, group=CASING, help="up and down, each")
    circulate_hours: Hours = told("Circulated before cementing", 2.0, group=CASING, help="a casing volume at least")
    cement_gear_hours: Hours = told(
        "Cementing lines rigged and tested", 2.0, group=CASING, help="beside the run of casing"
    )
    cement_hours: Hours = told("Cement job", 4.0, group=CASING, help="where it cannot be followed")
    top_up_hours: Hours = told("Top-up job", 3.0, group=CASING, help="by small pipe in the annulus")
    reverse_hours: Hours = told("Liner hanger set, reversed out", 3.0, group=CASING)
    cellar_hours: Hours = told("Cellar dug and lined", 72.0, group=TOPSIDE, help="before the rig")
    conductor_hours: Hours = told("Conductor set", 24.0, group=TOPSIDE, help="by hammer, or drilled and cemented")
    rig_up_hours: Hours = told("Rig moved and rigged up", 96.0, group=TOPSIDE)
    flange_hours: Hours = told("Flange on the conductor", 4.0, group=TOPSIDE, help="welded and cooled")
    diverter_hours: Hours = told("Diverter nippled up", 8.0, group=TOPSIDE)
    nipple_up_hours: Hours = told("BOPs nippled up", 12.0, group=TOPSIDE, help="with their lines, without tests")
    nipple_down_hours: Hours = told("Diverter or BOPs nippled down", 6.0, group=TOPSIDE)
    slips_hours: Hours = told("Slips set and rough cut", 4.0, group=TOPSIDE)
    hanger_hours: Hours = told("Mandrel hanger landed, pack-off set", 3.0, group=TOPSIDE)
    cut_hours: Hours = told("Final cut and bevel", 2.0, group=TOPSIDE, help="of one string")
    head_hours: Hours = told("Casing head set", 8.0, group=TOPSIDE, help="welded or made up, level, and cooled")
    spool_hours: Hours = told("Spool set", 3.0, group=TOPSIDE, help="over the stub, with its ring and studs")
    head_test_hours: Hours = told("Test of a weld, seal or flange", 1.0, group=TOPSIDE)
    rams_hours: Hours = told("Rams changed", 2.0, group=TOPSIDE, help="to casing rams, or back")
    element_test_hours: Hours = told("Test of a BOP element or line", 0.75, group=TOPSIDE, help="low, then high")
    function_hours: Hours = told("Function test and draw-down", 1.5, group=TOPSIDE)
    bushing_hours: Hours = told("Wear bushing or test plug", 0.75, group=TOPSIDE, help="run or pulled, each")
    casing_test_hours: Hours = told("Casing test", 1.0, group=TOPSIDE)
    spread: tuple[SpreadRow, ...] = listed("Least and most by kind of work", 14, default=_spread(), group=SPREAD)
    leads: tuple[LeadRow, ...] = listed("Lead time by kind", 15, default=_leads(), group=SUPPLY)
    spare_bits: Pieces = told("Spare bits", 1, group=SUPPLY, help="of each size")
    spare_rings: Pieces = told("Spare ring gaskets", 1, group=SUPPLY, help="of each flange")
    spare_gear: Pieces = told("Spare float equipment", 1, group=SUPPLY, help="shoe and collar of each string")
    spare_centralizers: Excess = told("Spare centralizers", 0.1, group=SUPPLY, help="share of them")
    spare_cement: Excess = told("Spare cement and additives", 0.15, group=SUPPLY, help="share of the job's")
    lost_mud: Excess = told("Mud lost over the section", 0.25, group=SUPPLY, help="share of what is in hole and pits")
