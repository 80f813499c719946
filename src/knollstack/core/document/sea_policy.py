"""The policy of a well at sea: conductor, riser, disconnect, sealed annuli."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from knollstack.core.base.fields import Factor, Load, Of, Part, Size, listed, number, told
from knollstack.core.document.sea import MOST_TENSIONERS, Angle, Count, Hours, Seconds, Share


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
    barriers: Annotated[int, Field(strict=True, ge=1, le=4), Of("count")] = told(
        "Barriers when the riser is off", 2, group=DISCONNECT, help="verified ones that stand while the rig is away"
    )
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
