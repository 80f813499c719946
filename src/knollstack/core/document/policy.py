"""The policy of a design: every margin, limit, factor and method, grouped by the step that it rules.

The defaults are common practice, not a rule of any place.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.fields import (
    Bore,
    Depth,
    Emw,
    Factor,
    Gradient,
    Margin,
    Name,
    Of,
    Part,
    Pressure,
    Size,
    Volume,
    listed,
    number,
    told,
)
from knollstack.core.document.cementing import CementPolicy
from knollstack.core.document.completion_policy import CompletionPolicy
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.document.preventers import PreventersPolicy
from knollstack.core.document.running import RunningPolicy
from knollstack.core.document.runsheet_policy import RunSheetPolicy
from knollstack.core.document.sea_policy import SeaPolicy
from knollstack.core.document.wellhead import WellheadPolicy


class KickMinimum(Part):
    from_hole_in: Size = told("From hole")
    volume_bbl: Annotated[float, number(0, 1_000), Of("volume")] = told("Kick tolerance")


class DrillString(Part):
    from_hole_in: Size = told("From hole")
    pipe_od_in: Size = told("Pipe")
    collar_od_in: Size = told("Collars")
    collar_length_ft: Annotated[float, number(0, 3_000), Of("depth")] = told("Length", help="length of the collars")
    pipe_id_in: Bore | None = told("Pipe ID", None)
    collar_id_in: Bore | None = told("Collar ID", None)
    tool_joint_in: Size | None = told("Tool joint", None, help="OD; empty is the usual of the pipe")
    heavy_od_in: Size | None = told("Heavy-weight pipe", None, help="OD; empty is none in the string")


SETTING, KICK = "Setting depths", "Kick tolerance"


class DepthsPolicy(Part):
    method: Literal["bottom up", "top down"] = told(
        "Method",
        "bottom up",
        group=SETTING,
        help="how the proposal is made: the shallowest shoes from total depth up, or the deepest from the conductor down",
    )
    fresh_water_cover_ft: Depth = told("Cover below fresh water", 100.0, group=SETTING)
    zone_cover_ft: Depth = told("Cover below a zone to be cased off", 50.0, group=SETTING)
    zone_reach_ft: Depth = told(
        "Maximum depth below a zone to be cased off",
        300.0,
        group=SETTING,
        help="the shoe is set no deeper below its base",
    )
    liner_overlap_ft: Depth = told(
        "Liner overlap", 400.0, group=SETTING, help="length of a liner inside the casing above it"
    )
    open_hole_limit_ft: Depth = told("Maximum open hole", 8_000.0, group=SETTING)
    diverter_limit_ft: Depth = told(
        "Maximum hole on a diverter", 4_000.0, group=SETTING, help="below the ground, drilled on the conductor"
    )
    conductor_minimum_ft: Depth = told(
        "Minimum conductor depth", 80.0, group=SETTING, help="below the ground or the mudline"
    )
    conductor_mud_ppg: Emw = told("Mud under the conductor", 9.0, group=SETTING)
    kick_intensity_ppg: Margin = told("Kick intensity", 0.5, group=KICK, help="formation pressure over pore pressure")
    influx_psi_ft: Gradient = told("Influx gradient", 0.1, group=KICK)
    kick_criterion: Literal["volume", "full gas"] = told(
        "Criterion",
        "volume",
        group=KICK,
        help="a minimum volume by hole size, or full evacuation to gas that the shoe must withstand",
    )
    kick_minimums: tuple[KickMinimum, ...] = listed(
        "Minimum kick tolerance by hole size",
        20,
        default=(
            KickMinimum(from_hole_in=16.0, volume_bbl=100.0),
            KickMinimum(from_hole_in=11.0, volume_bbl=50.0),
            KickMinimum(from_hole_in=7.875, volume_bbl=25.0),
            KickMinimum(from_hole_in=1.0, volume_bbl=15.0),
        ),
    )


PairUse = Literal["common", "less common", "special"]
Clearance = Annotated[float, number(0.01, 10), Of("diameter")]


class SizePair(Part):
    """A casing in a hole, and how usual that is."""

    od_in: Size = told("Casing")
    hole_in: Size = told("Hole")
    use: PairUse = told("Use", "common")


class ClearanceRow(Part):
    """Least diametral clearance over the joint, from a casing size up."""

    from_od_in: Size = told("From casing")
    common_in: Clearance = told("Common")
    tight_in: Clearance = told("Tight")


_COMMON = (
    *((4.5, 6.125), (5.5, 7.875), (5.5, 8.5), (6.625, 8.5), (7.0, 8.5), (7.0, 8.75), (7.625, 9.875), (8.625, 11.0)),
    *((9.625, 12.25), (10.75, 13.5), (10.75, 14.75), (13.375, 17.5), (16.0, 20.0), (18.625, 24.0), (20.0, 26.0)),
    (30.0, 36.0),
)
_LESS_COMMON = ((5.5, 6.75), (7.625, 9.5), (8.625, 10.625), (13.375, 16.0))
_CLEARANCES = ((1.0, 0.9, 0.5), (5.0, 0.8, 0.6), (8.625, 1.3, 0.9), (13.375, 2.0, 1.4))


class SizesPolicy(Part):
    production_od_in: Size = told("Production casing", 5.5)
    tubing_od_in: Size | None = told("Tubing", None, help="must pass the production casing; empty is not decided")
    clearance: Literal["common", "tight"] = told("Minimum clearance", "tight")
    special_drift: StrictBool = told("Special drift allowed", True, help="casing may be ordered to special drift")
    keep_spare: StrictBool = told("Keep a size for a contingency string", False)
    pairs: tuple[SizePair, ...] = listed(
        "Casing and hole sizes that go together",
        100,
        default=(
            *(SizePair(od_in=od, hole_in=hole, use="common") for od, hole in _COMMON),
            *(SizePair(od_in=od, hole_in=hole, use="less common") for od, hole in _LESS_COMMON),
        ),
    )
    clearances: tuple[ClearanceRow, ...] = listed(
        "Diametral clearance beyond the chart",
        20,
        least=1,
        default=tuple(
            ClearanceRow(from_od_in=od, common_in=common, tight_in=tight) for od, common, tight in _CLEARANCES
        ),
    )


WINDOW, SYSTEM = "Mud window", "Mud system"


def _drill_string(
    from_hole_in: float, pipe: tuple[float, float], collar: tuple[float, float], length: float
) -> DrillString:
    return DrillString(
        from_hole_in=from_hole_in,
        pipe_od_in=pipe[0],
        pipe_id_in=pipe[1],
        collar_od_in=collar[0],
        collar_id_in=collar[1],
        collar_length_ft=length,
    )


class MudPolicy(Part):
    trip_margin_ppg: Margin = told("Trip margin", 0.3, group=WINDOW, help="over pore pressure")
    fracture_margin_ppg: Margin = told("Fracture margin", 0.3, group=WINDOW, help="under fracture pressure")
    normal_pore_ppg: Emw = told("Normal pore pressure up to", 9.0, group=WINDOW)
    sticking_normal_psi: Pressure = told(
        "Maximum overbalance, normal pore",
        2_000.0,
        group=WINDOW,
        help="in permeable rock, against differential sticking",
    )
    sticking_abnormal_psi: Pressure = told(
        "Maximum overbalance, abnormal pore",
        3_000.0,
        group=WINDOW,
        help="in permeable rock, against differential sticking",
    )
    rheology: Literal["Bingham", "power law", "Herschel-Bulkley"] = told("Rheology", "Bingham", group=SYSTEM)
    active_volume_bbl: Volume = told("Active volume at surface", 500.0, group=SYSTEM, help="mud in the pits")
    weighting_solid_ppg: Annotated[float, number(15, 50), Of("emw")] = told(
        "Weighting material", 35.0, group=SYSTEM, help="density; barite is 35 ppg"
    )
    trip_speed_ft_min: Annotated[float, number(0, 500), Of("trip_speed")] = told("Trip speed", 90.0, group=SYSTEM)
    riser_mud_limit_ppg: Emw = told(
        "Maximum mud for a riser margin", 18.0, group=SYSTEM, help="above it a riser margin counts as not held"
    )
    riser_id_in: Size = told("Riser ID", 19.5, group=SYSTEM, help="of a drilling riser at sea")
    sweep_bbl: Annotated[float, number(0, 1_000), Of("volume")] = told("Gel sweep, riserless hole", 50.0, group=SYSTEM)
    sweep_every_ft: Annotated[float, number(10, 2_000), Of("depth")] = told("Sweep every", 90.0, group=SYSTEM)
    drill_strings: tuple[DrillString, ...] = listed(
        "Drill string by hole size",
        20,
        least=1,
        default=(
            _drill_string(12.0, (5.0, 4.276), (8.0, 2.8125), 600.0),
            _drill_string(8.0, (5.0, 4.276), (6.5, 2.8125), 600.0),
            _drill_string(1.0, (3.5, 2.764), (4.75, 2.25), 450.0),
        ),
    )


class DesignFactors(Part):
    burst: Factor = told("Burst", 1.10)
    collapse: Factor = told("Collapse", 1.125)
    collapse_cemented: Factor = told("Collapse, cemented", 1.0)
    tension: Factor = told("Tension", 1.60)
    compression: Factor = told("Compression", 1.20)
    triaxial: Factor = told("Triaxial", 1.25)


CHOICE, STRENGTH = "Choosing pipe", "Strength of the pipe"
BURST, COLLAPSE, RUNNING = "Burst loads", "Collapse loads", "Running and testing"


class PipePolicy(Part):
    factors: DesignFactors = told("Design factors", DesignFactors())
    connections: tuple[Name, ...] = listed("Connections to choose from", 20, least=1, default=("STC", "LTC", "BTC"))
    length_range: Literal[1, 2, 3] = told("Length range", 3, group=CHOICE)
    choose_from: Literal["catalogue", "stock list"] = told("Choose from", "catalogue", group=CHOICE)
    least: Literal["cost", "weight"] = told("Minimize", "cost", group=CHOICE)
    most_sections: Annotated[int, Field(strict=True, ge=1, le=4), Of("count")] = told(
        "Maximum sections of a proposed string", 1, group=CHOICE
    )
    least_section_ft: Depth = told("Minimum section length", 1_000.0, group=CHOICE)
    triaxial_wall: Literal["nominal", "minimum"] = told("Wall for triaxial stress", "nominal", group=STRENGTH)
    derate_per_f: Annotated[float, number(0, 0.005), Of("per_degree")] = told(
        "Yield derating with temperature", 0.0, group=STRENGTH, help="share of yield lost per degree over 70 °F"
    )
    burst_method: Literal["gas to surface", "gas over mud", "kick volume"] = told(
        "Burst while drilling", "gas to surface", group=BURST
    )
    surface_intensity_ppg: Margin = told(
        "Kick intensity for surface pressure",
        0.0,
        group=BURST,
        help="over pore pressure, in gas to surface and over mud",
    )
    injection_margin_ppg: Margin = told(
        "Injection margin", 0.0, group=BURST, help="over fracture pressure at the shoe, before it takes gas"
    )
    gas_share: Annotated[float, number(0, 1), Of("fraction")] = told(
        "Gas fraction", 0.5, group=BURST, help="of the casing, in gas over mud"
    )
    design_kick_bbl: Annotated[float, number(1, 1_000), Of("volume")] = told(
        "Design kick", 100.0, group=BURST, help="circulated out, in kick volume"
    )
    gas_model: Literal["gradient", "real gas"] = told("Gas model", "gradient", group=BURST)
    gas_psi_ft: Gradient = told("Gas gradient", 0.1, group=BURST)
    gas_sg: Annotated[float, number(0.5, 2), Of("factor")] = told("Gas gravity", 0.65, group=BURST, help="air = 1")
    gas_z: Annotated[float, number(0.3, 2), Of("factor")] = told("Gas deviation factor z", 1.0, group=BURST)
    burst_backup: Literal["pore", "base fluid", "mud", "mix water"] = told("Burst backup", "base fluid", group=BURST)
    base_fluid_ppg: Emw = told("Base fluid", 8.33, group=BURST)
    mix_water_ppg: Emw = told("Mix water", 8.33, group=BURST, help="outside pressure left by set cement, as a fluid")
    packer_fluid_ppg: Emw = told("Packer fluid", 8.6, group=BURST)
    collapse_method: Literal["by role", "lost returns", "evacuated"] = told(
        "Collapse while drilling",
        "by role",
        group=COLLAPSE,
        help="by role: surface casing fully evacuated, others partially, by lost returns",
    )
    unfilled_ft: Depth = told("Maximum length run empty", 500.0, group=COLLAPSE)
    test_share: Annotated[float, number(0, 2), Of("factor")] = told(
        "Pressure test over maximum surface pressure", 1.0, group=RUNNING
    )
    pressure_test: Literal["before landing", "after landing", "in green cement"] = told(
        "Pressure test",
        "before landing",
        group=RUNNING,
        help="in set cement with the top free or landed, or on the plug while the cement is green",
    )
    bump_psi: Pressure = told("Plug bump over the final differential", 500.0, group=RUNNING)
    shock_ft_s: Annotated[float, number(0, 20), Of("pipe_speed")] = told(
        "Running speed for shock load", 1.5, group=RUNNING, help="at which the string is stopped at once"
    )
    overpull_lbf: Annotated[float, number(0, 1_000_000), Of("force")] = told(
        "Overpull while running", 100_000.0, group=RUNNING
    )


class Policy(Part):
    """Every margin, limit, factor and method, by step."""

    depths: DepthsPolicy = DepthsPolicy()
    sizes: SizesPolicy = SizesPolicy()
    mud: MudPolicy = MudPolicy()
    pipe: PipePolicy = PipePolicy()
    running: RunningPolicy = RunningPolicy()
    cement: CementPolicy = CementPolicy()
    wellhead: WellheadPolicy = WellheadPolicy()
    preventers: PreventersPolicy = PreventersPolicy()
    sea: SeaPolicy = SeaPolicy()
    completion: CompletionPolicy = CompletionPolicy()
    runsheet: RunSheetPolicy = told("Run sheet", RunSheetPolicy())
    drills: DrillsPolicy = DrillsPolicy()
