"""The policy of a design: every margin, limit, factor and school."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.fields import Depth, Emw, Factor, Margin, Name, Part, Pressure, Size, number


class KickMinimum(Part):
    from_hole_in: Size
    volume_bbl: Annotated[float, number(0, 1_000)]


class DrillString(Part):
    from_hole_in: Size
    pipe_od_in: Size
    collar_od_in: Size
    collar_length_ft: Annotated[float, number(0, 3_000)]
    pipe_id_in: Annotated[float, number(0.5, 20)] | None = None
    collar_id_in: Annotated[float, number(0.5, 20)] | None = None


class DesignFactors(Part):
    burst: Factor = 1.10
    collapse: Factor = 1.125
    collapse_cemented: Factor = 1.0
    tension: Factor = 1.60
    compression: Factor = 1.20
    triaxial: Factor = 1.25


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
    influx_psi_ft: Annotated[float, number(0.01, 0.4)] = 0.1
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
    tubing_od_in: Size | None = Field(None, description="tubing that the production casing takes; None is not decided")
    clearance: Literal["common", "tight"] = "tight"
    special_drift: StrictBool = Field(True, description="casing may be ordered to special drift")
    keep_spare: StrictBool = Field(False, description="keep one size free for a contingency string")
    connections: Annotated[tuple[Name, ...], Field(min_length=1, max_length=20)] = ("STC", "LTC", "BTC")
    length_range: Literal[1, 2, 3] = Field(3, description="length range in which pipe is ordered")
    choose_from: Literal["catalogue", "stock list"] = "catalogue"
    least: Literal["cost", "weight"] = "cost"
    most_sections: Annotated[int, Field(strict=True, ge=1, le=4)] = Field(
        1, description="sections of a proposed string"
    )
    least_section_ft: Depth = Field(1_000.0, description="shortest section of a tapered string")
    factors: DesignFactors = DesignFactors()
    burst_school: Literal["gas to surface", "gas over mud", "kick volume"] = "gas to surface"
    gas_share: Annotated[float, number(0, 1)] = Field(0.5, description="share of the casing filled by gas over mud")
    design_kick_bbl: Annotated[float, number(1, 1_000)] = 100.0
    burst_backup: Literal["pore", "base fluid", "mud", "mix water"] = "base fluid"
    base_fluid_ppg: Emw = 8.33
    mix_water_ppg: Emw = Field(8.33, description="outside pressure left by set cement, as a fluid")
    collapse_school: Literal["by role", "lost returns", "evacuated"] = Field(
        "by role",
        description="what empties a string while drilling; by role: surface casing evacuated, others lost returns",
    )
    gas_model: Literal["gradient", "real gas"] = "gradient"
    gas_psi_ft: Annotated[float, number(0.01, 0.4)] = 0.1
    gas_sg: Annotated[float, number(0.5, 2)] = 0.65
    gas_z: Annotated[float, number(0.3, 2)] = 1.0
    test_share: Annotated[float, number(0, 2)] = Field(
        1.0, description="pressure test over the surface pressure expected"
    )
    test_in_green_cement: StrictBool = Field(False, description="the string is tested before its cement has set")
    bump_psi: Pressure = Field(500.0, description="pressure over the final differential when the plug bumps")
    unfilled_ft: Depth = Field(500.0, description="longest length run empty before filling")
    shock_ft_s: Annotated[float, number(0, 20)] = Field(1.5, description="speed at which the running string is stopped")
    derate_per_f: Annotated[float, number(0, 0.005)] = Field(0.0, description="share of yield lost per °F over 70 °F")
    triaxial_wall: Literal["nominal", "minimum"] = "nominal"
    production_heat_f: Annotated[float, number(0, 500)] = Field(
        0.0, description="heating of the wellhead in production"
    )
    wellhead_on: Literal["casing and conductor", "casing alone"] = Field(
        "casing and conductor", description="what carries the wellhead; by steel area where a base plate shares it"
    )
    stack_weight_lbf: Annotated[float, number(0, 2_000_000)] | None = Field(
        None, description="preventers and tree on the wellhead; None takes the catalogue's"
    )
    packer_fluid_ppg: Emw = 8.6
    overpull_lbf: Annotated[float, number(0, 1_000_000)] = 100_000.0
    pit_volume_bbl: Annotated[float, number(0, 10_000)] = 500.0
    weighting_solid_ppg: Annotated[float, number(15, 50)] = 35.0
    rheology: Literal["Bingham", "power law"] = "Bingham"
    trip_speed_ft_min: Annotated[float, number(0, 500)] = Field(
        90.0, description="speed of the drill string while tripping"
    )
    riser_mud_limit_ppg: Emw = Field(
        18.0, description="greatest practical mud weight with which a riser margin is held"
    )
    sweep_bbl: Annotated[float, number(0, 1_000)] = Field(50.0, description="gel sweep of a riserless hole")
    sweep_every_ft: Annotated[float, number(10, 2_000)] = 90.0
    cement_excess: Annotated[float, number(0, 5)] = Field(0.5, description="fraction of the open-hole volume")
    cement_overlap_ft: Depth = Field(300.0, description="cement above the previous shoe")
    shoe_track_ft: Annotated[float, number(0, 500)] = 80.0
    rathole_ft: Annotated[float, number(0, 500)] = 10.0
    slurry_water_gal_sk: Annotated[float, number(3, 20)] = 4.97
    stack_minimum_class_psi: Pressure = 2_000.0
