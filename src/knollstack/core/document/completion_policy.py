"""The policy of barriers, plugs, tubing, and of what evaluation and the alternatives at total depth take in time and cost."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from knollstack.core.base.fields import Depth, Height, Load, Of, Part, Pressure, Size, number, told
from knollstack.core.document.sea import Hours

BARRIERS, PLUGS, TUBING = "Barriers", "Plugs left in the well", "Completion"
TIME, COST = "Rig time", "Cost"
Rate = Annotated[float, number(1, 20_000), Of("depth")]
Money = Annotated[float, number(0, 1_000_000_000), Of("money")]


class CompletionPolicy(Part):
    barriers: Annotated[int, Field(strict=True, ge=1, le=2), Of("count")] = told(
        "Barriers before anything is removed", 2, group=BARRIERS, help="tested ones, each complete in itself"
    )
    barrier_cement_ft: Depth = told(
        "Cement that counts as a barrier", 100.0, group=BARRIERS, help="behind casing, over a zone that can flow"
    )
    above_ft: Depth = told("Plug above a zone, a shoe or perforations", 100.0, group=PLUGS, help="cement over its top")
    below_ft: Depth = told("Plug below", 100.0, group=PLUGS, help="cement under its base, no deeper than the hole")
    mechanical_ft: Depth = told("Cement on a mechanical plug", 50.0, group=PLUGS, help="its length")
    surface_ft: Depth = told("Surface plug", 150.0, group=PLUGS, help="its length")
    surface_below_ft: Height = told("Top of the surface plug below ground", 20.0, group=PLUGS, help="or the mudline")
    longest_ft: Annotated[float, number(50, 5_000), Of("depth")] = told(
        "Longest plug in one", 1_000.0, group=PLUGS, help="a longer one is set in two"
    )
    cut_land_ft: Height = told("Casing cut below ground", 6.0, group=PLUGS, help="on land")
    cut_sea_ft: Height = told("Casing cut below the mudline", 15.0, group=PLUGS, help="at sea")
    plug_test_psi: Pressure = told("Plug test", 1_000.0, group=PLUGS, help="over the mud at the plug")
    tag_lbf: Load = told("Tag weight", 15_000.0, group=PLUGS, help="set down on a plug of cement")
    tubing_most_in: Size = told("Tubing at most", 4.5, group=TUBING, help="unless it is decided")
    packer_above_ft: Depth = told("Packer above the perforations", 100.0, group=TUBING)
    slack_off_lbf: Load = told("Weight on packer", 10_000.0, group=TUBING)
    stroke_ft: Annotated[float, number(0, 100), Of("depth")] = told(
        "Seal length", 20.0, group=TUBING, help="that may move in the packer bore"
    )
    overpull_lbf: Load = told("Overpull on the tubing", 40_000.0, group=TUBING, help="to come out of the packer")
    underbalance_psi: Annotated[float, number(-10_000, 10_000), Of("pressure")] = told(
        "Underbalance at perforating", 500.0, group=TUBING, help="formation over hole; below 0 is overbalance"
    )
    tubing_test_psi: Pressure = told(
        "Tubing test", 5_000.0, group=TUBING, help="at the wellhead, plug below the packer"
    )
    clean_share: Annotated[float, number(0.5, 5), Of("fraction")] = told(
        "Clean-up volume", 1.5, group=TUBING, help="of the casing, pumped to displace the mud"
    )
    log_ft_hour: Rate = told("Logged per hour", 1_500.0, group=TIME, help="wireline, per run over the interval")
    wireline_ft_hour: Rate = told("Wireline run per hour", 6_000.0, group=TIME, help="to the interval and back")
    trip_ft_hour: Rate = told("Tripped per hour", 1_000.0, group=TIME)
    core_ft_hour: Rate = told("Cored per hour", 15.0, group=TIME)
    points_each_hours: Hours = told("Pressure points", 12.0, group=TIME, help="a run of points or samples")
    leak_off_hours: Hours = told("Leak-off test", 2.0, group=TIME)
    well_test_hours: Hours = told("Well test", 96.0, group=TIME)
    plug_hours: Hours = told("Plug set", 4.0, group=TIME, help="mixed, pumped and pulled out of, without its wait")
    tree_hours: Hours = told("BOPs off and tree on", 36.0, group=TIME, help="with its tests")
    cut_hours: Hours = told("Casing cut and pulled", 24.0, group=TIME)
    perforate_hours: Hours = told("Perforating run", 10.0, group=TIME)
    clean_hours: Hours = told("Scraper and clean-up", 18.0, group=TIME, help="beside the trips")
    rig_day: Money = told("Rig day", 60_000.0, group=COST, help="planning value, all services")
    sack: Money = told("Sack of cement", 25.0, group=COST, help="planning value, mixed and pumped")
    mechanical: Money = told("Mechanical plug", 15_000.0, group=COST, help="planning value")
    packer: Money = told("Packer with its seals", 60_000.0, group=COST, help="planning value")
    tree: Money = told("Tree and hanger", 250_000.0, group=COST, help="planning value")
    tubing_ft: Money = told("Tubing per ft", 18.0, group=COST, help="planning value where no price is given")
