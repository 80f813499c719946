"""Planned shapes of a well path, made into survey stations: vertical, build and hold, S shape, horizontal.

Plane geometry of circular arcs and straight lines in the vertical plane of the target's azimuth, as in the directional
texts; stations stand at the ends of every arc and line, and along arcs every 100 ft.
"""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from knollstack.core.base.fields import MAX_DEPTH_FT
from knollstack.core.document.design import Station

SPACING_FT = 100.0
Rate = Annotated[float, Field(ge=0.01, le=60)]


class PathPlan(BaseModel):
    """A shape and what fixes it. Depths TVD and departures are from the rig floor and the wellhead."""

    shape: Literal["vertical", "build and hold", "S", "horizontal"]
    target_tvd_ft: Annotated[float, Field(gt=0, le=40_000)]
    target_departure_ft: Annotated[float, Field(ge=0, le=60_000)] = 0.0
    azimuth_deg: Annotated[float, Field(ge=0, le=360)] = 0.0
    kick_off_ft: Annotated[float, Field(ge=0, le=40_000)] = 0.0
    build_deg_100ft: Rate = 3.0
    drop_deg_100ft: Rate = 2.0
    end_inclination_deg: Annotated[float, Field(ge=0, le=90)] = 0.0
    lateral_ft: Annotated[float, Field(ge=0, le=40_000)] = 0.0


class PlanError(ValueError):
    """A shape that does not reach its target: what was asked, and what is possible."""


def radius_ft(rate_deg_100ft: float) -> float:
    """Radius [ft] of an arc turning so many degrees per 100 ft."""
    return 18_000 / (math.pi * rate_deg_100ft)


def hold_angle_rad(
    drop_ft: float, departure_ft: float, first_ft: float, second_ft: float = 0.0, end_rad: float = 0.0
) -> float:
    """Angle of the straight part between a build of radius R₁ and, in an S shape, a drop of radius R₂ to an end angle.

    Raises PlanError where no angle up to 90° reaches the target.
    """
    # X = R1(1 − cos θ) + L·sin θ + R2(cos e − cos θ) and Z = R1·sin θ + L·cos θ + R2(sin θ − sin e), T = R1 + R2:
    # with a = X − R1 − R2·cos e and b = Z + R2·sin e, a² + b² = T² + L², and θ follows from both
    total = first_ft + second_ft
    across = departure_ft - first_ft - second_ft * math.cos(end_rad)
    down = drop_ft + second_ft * math.sin(end_rad)
    squared = across**2 + down**2 - total**2
    if squared < 0:
        raise PlanError("the target lies inside the build radius: build faster, kick off shallower, or move the target")
    length = math.sqrt(squared)
    angle = math.atan2(across * length + down * total, down * length - across * total)
    if not 0 <= angle <= math.pi / 2 + 1e-9:
        raise PlanError("no angle up to 90° reaches the target with these rates")
    return angle


def stations_of(plan: PathPlan) -> list[Station]:
    """Survey stations of a planned shape; raises PlanError where it does not reach its target."""
    if plan.shape == "vertical":
        return [_station(0, 0, 0), _station(plan.target_tvd_ft, 0, 0)]
    build = radius_ft(plan.build_deg_100ft)
    drop = plan.target_tvd_ft - plan.kick_off_ft
    if drop <= 0:
        raise PlanError("the target must lie below the kick-off")
    legs: list[tuple[float, float]] = [(plan.kick_off_ft, 0.0)]
    if plan.shape == "horizontal":
        legs += _to_horizontal(plan, drop)
    else:
        falls = plan.shape == "S"
        end = math.radians(plan.end_inclination_deg) if falls else 0.0
        second = radius_ft(plan.drop_deg_100ft) if falls else 0.0
        angle = hold_angle_rad(drop, plan.target_departure_ft, build, second, end)
        if falls and end > angle:
            raise PlanError(f"the hold of {math.degrees(angle):.1f}° is less than the end inclination asked")
        down = drop - build * math.sin(angle) - second * (math.sin(angle) - math.sin(end))
        legs.append((build * angle, math.degrees(angle)))
        legs.append((max(0.0, down / math.cos(angle)) if angle < math.pi / 2 - 1e-9 else 0.0, math.degrees(angle)))
        if falls:
            legs.append((second * (angle - end), plan.end_inclination_deg))
    return _along(legs, plan.azimuth_deg)


def _to_horizontal(plan: PathPlan, drop: float) -> list[tuple[float, float]]:
    """A build to 90° that lands at the target's depth, a hold before it where the radius leaves room, then the lateral."""
    build = radius_ft(plan.build_deg_100ft)
    if drop < build - 1e-6:
        raise PlanError(
            f"a build of {plan.build_deg_100ft:g}°/100 ft needs {build:,.0f} ft of depth below the kick-off; "
            f"there are {drop:,.0f} ft"
        )
    return [(drop - build, 0.0), (build * math.pi / 2, 90.0), (plan.lateral_ft, 90.0)]


def _along(legs: list[tuple[float, float]], azimuth_deg: float) -> list[Station]:
    """Stations along legs of (length, inclination at the end); inclination changes evenly along a leg."""
    stations, md, inclination = [_station(0, 0, azimuth_deg)], 0.0, 0.0
    for length, end in legs:
        if length <= 1e-6:
            continue
        steps = max(1, math.ceil(length / SPACING_FT)) if end != inclination else 1
        for k in range(1, steps + 1):
            share = k / steps
            stations.append(_station(md + length * share, inclination + (end - inclination) * share, azimuth_deg))
        md, inclination = md + length, end
    return stations


def _station(md_ft: float, inclination_deg: float, azimuth_deg: float) -> Station:
    if not 0 <= md_ft <= MAX_DEPTH_FT:
        raise PlanError(f"a path of at most {MAX_DEPTH_FT:,.0f} ft along hole; this one is {md_ft:,.0f} ft long")
    if not 0 <= inclination_deg <= 180:
        raise PlanError(f"inclinations from 0 to 180°; this path reaches {inclination_deg:.1f}°")
    return Station(
        md_ft=round(float(md_ft), 2), inclination_deg=round(float(inclination_deg), 4), azimuth_deg=float(azimuth_deg)
    )
