"""Checks across the fields of a document that its models cannot make alone: order of depths, crossed profiles, ids."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import Protocol

import numpy as np

from knollstack.core.base.remember import remembered
from knollstack.core.document.design import Design, GroundModel, Point, Site, Trajectory
from knollstack.core.document.faults import Fault
from knollstack.core.document.sea import SoilPoint
from knollstack.core.document.strings import String
from knollstack.core.ground.profiles import MOST_PPG, GasColumnError, build_ground
from knollstack.core.path.trajectory import path_of
from knollstack.core.reading.checks_completion import completion_faults, plug_faults
from knollstack.core.reading.checks_log import log_faults
from knollstack.core.reading.checks_runsheet import runsheet_faults


def _unsorted(name: str, points: tuple[Point, ...]) -> Iterable[Fault]:
    for i in range(1, len(points)):
        depth, before = points[i].tvd_ft, points[i - 1].tvd_ft
        path = f"/ground/{name}/{i}/tvd_ft"
        if depth < before:
            yield Fault(path=path, value=f"{depth:g}", expected=f"a depth below the point before it ({before:g} ft)")
        elif i >= 2 and depth == before == points[i - 2].tvd_ft:
            yield Fault(path=path, value=f"{depth:g}", expected="at most two points at one depth (a step)")
        elif depth == before and points[i].emw_ppg == points[i - 1].emw_ppg:
            yield Fault(path=path, value=f"{depth:g} twice", expected="no duplicate point")


def _order_faults(ground: GroundModel) -> Iterable[Fault]:
    for name in ("pore", "fracture", "stability", "overburden"):
        yield from _unsorted(name, getattr(ground, name))
    for i, test in enumerate(ground.temperature[1:], start=1):
        if test.tvd_ft <= ground.temperature[i - 1].tvd_ft:
            expected = f"a depth below the point before it ({ground.temperature[i - 1].tvd_ft:g} ft)"
            yield Fault(path=f"/ground/temperature/{i}/tvd_ft", value=f"{test.tvd_ft:g}", expected=expected)
    for i, zone in enumerate(ground.zones):
        if zone.gas_contact_tvd_ft is not None and zone.gas_contact_tvd_ft <= zone.top_tvd_ft:
            expected = f"a contact below the zone's top ({zone.top_tvd_ft:g} ft)"
            yield Fault(
                path=f"/ground/zones/{i}/gas_contact_tvd_ft", value=f"{zone.gas_contact_tvd_ft:g}", expected=expected
            )
        if zone.base_tvd_ft <= zone.top_tvd_ft:
            expected = f"a base below the top ({zone.top_tvd_ft:g} ft)"
            yield Fault(path=f"/ground/zones/{i}/base_tvd_ft", value=f"{zone.base_tvd_ft:g}", expected=expected)
        if i and zone.top_tvd_ft < ground.zones[i - 1].base_tvd_ft:
            expected = f"a top at or below the base of the zone above ({ground.zones[i - 1].base_tvd_ft:g} ft)"
            yield Fault(path=f"/ground/zones/{i}/top_tvd_ft", value=f"{zone.top_tvd_ft:g}", expected=expected)


def _soil_faults(soil: tuple[SoilPoint, ...]) -> Iterable[Fault]:
    for i in range(1, len(soil)):
        at, before = soil[i].below_mudline_ft, soil[i - 1].below_mudline_ft
        if at <= before:
            expected = f"a depth below the point before it ({before:g} ft)"
            yield Fault(path=f"/sea/soil/{i}/below_mudline_ft", value=f"{at:g}", expected=expected)


def _crossed_profiles(model: GroundModel, gas_psi_ft: float) -> Iterable[Fault]:
    """Fracture below pore anywhere, reported at the first point of either profile where it is so."""
    try:
        ground = build_ground(model, gas_psi_ft)
    except GasColumnError as column:
        contact, zone = f"/ground/zones/{column.zone}/gas_contact_tvd_ft", model.zones[column.zone]
        expected = f"a gas column of at most {MOST_PPG:g} ppg; up to {column.tvd_ft:g} ft it would have {column.emw_ppg:.1f} ppg"
        yield Fault(path=contact, value=f"{zone.gas_contact_tvd_ft:g}", expected=expected)
        return
    for name in ("fracture", "leak_off_tests", "pore"):
        depths = np.array([point.tvd_ft for point in getattr(model, name)])
        pore, fracture = ground.pore.at(depths), ground.fracture.at(depths)
        crossed = np.flatnonzero(fracture < pore)  # unknown is never below
        if not len(crossed):
            continue
        i = int(crossed[0])
        low, high = (pore[i], fracture[i]) if name == "pore" else (fracture[i], pore[i])
        side = "at most the fracture gradient" if name == "pore" else "at least the pore pressure"
        expected = f"{side} at {depths[i]:g} ft ({high:.2f} ppg)"
        yield Fault(path=f"/ground/{name}/{i}/emw_ppg", value=f"{low:.2f} ppg", expected=expected)
        return


def _string_faults(
    i: int, string: String, above: String | None, ground_md_ft: float, total_md_ft: float
) -> Iterable[Fault]:
    path = f"/strings/{i}"
    if string.shoe_md_ft > total_md_ft + 1e-6:
        expected = f"a shoe at or above total depth ({total_md_ft:g} ft)"
        yield Fault(path=f"{path}/shoe_md_ft", value=f"{string.shoe_md_ft:g}", expected=expected)
    if above is None and string.shoe_md_ft <= ground_md_ft:
        expected = f"a shoe below the ground ({ground_md_ft:g} ft from the rig floor)"
        yield Fault(path=f"{path}/shoe_md_ft", value=f"{string.shoe_md_ft:g}", expected=expected)
    # a shoe above that is below total depth has its own fault: this one may be right
    if above is not None and string.shoe_md_ft <= above.shoe_md_ft <= total_md_ft + 1e-6:
        expected = f"a shoe below the one before it ({above.shoe_md_ft:g} ft)"
        yield Fault(path=f"{path}/shoe_md_ft", value=f"{string.shoe_md_ft:g}", expected=expected)
    above_md = above.shoe_md_ft if above is not None else ground_md_ft
    for k, step in enumerate(string.mud_steps):
        before = string.mud_steps[k - 1].to_md_ft if k else above_md
        if not before < step.to_md_ft < string.shoe_md_ft:
            expected = f"a depth between {before:g} and {string.shoe_md_ft:g} ft"
            yield Fault(path=f"{path}/mud_steps/{k}/to_md_ft", value=f"{step.to_md_ft:g}", expected=expected)
    yield from _pipe_faults(path, string)
    yield from _strength_faults(path, string)
    yield from _hole_faults(path, string)
    if string.run == "liner" and string.hanger_md_ft is None:
        yield Fault(path=f"{path}/hanger_md_ft", value="nothing", expected="the depth of a liner's hanger")
    for key, top in (
        ("hanger_md_ft", string.hanger_md_ft),
        ("cement/top_md_ft", string.cement.top_md_ft),
        ("running/landing_md_ft", string.running.landing_md_ft),
    ):
        if top is not None and top >= string.shoe_md_ft:
            expected = f"a depth above the shoe ({string.shoe_md_ft:g} ft)"
            yield Fault(path=f"{path}/{key}", value=f"{top:g}", expected=expected)


def _strength_faults(path: str, string: String) -> Iterable[Fault]:
    for k, (before, point) in enumerate(pairwise(string.cement.strength), 1):
        at = f"{path}/cement/strength/{k}"
        if point.after_hours <= before.after_hours:
            expected = f"a time after the point before it ({before.after_hours:g} h)"
            yield Fault(path=f"{at}/after_hours", value=f"{point.after_hours:g}", expected=expected)
        elif point.strength_psi < before.strength_psi:
            expected = f"no less than before ({before.strength_psi:g} psi): cement does not lose strength while it sets"
            yield Fault(path=f"{at}/strength_psi", value=f"{point.strength_psi:g}", expected=expected)


def _hole_faults(path: str, string: String) -> Iterable[Fault]:
    for k, (before, point) in enumerate(pairwise(string.cement.caliper), 1):
        if point.md_ft <= before.md_ft:
            expected = f"a depth below the reading before it ({before.md_ft:g} ft)"
            yield Fault(path=f"{path}/cement/caliper/{k}/md_ft", value=f"{point.md_ft:g}", expected=expected)
    for k, row in enumerate(string.cement.excesses):
        least = string.cement.excesses[k - 1].base_md_ft if k else 0.0
        if row.top_md_ft < least:
            expected = f"a depth at or below the end of the interval before it ({least:g} ft)"
            yield Fault(path=f"{path}/cement/excesses/{k}/top_md_ft", value=f"{row.top_md_ft:g}", expected=expected)
        if row.base_md_ft <= row.top_md_ft:
            expected = f"a depth below the top ({row.top_md_ft:g} ft)"
            yield Fault(path=f"{path}/cement/excesses/{k}/base_md_ft", value=f"{row.base_md_ft:g}", expected=expected)


def _pipe_faults(path: str, string: String) -> Iterable[Fault]:
    """Sections in order of depth, all but the last with an end; a tie-back on a liner only."""
    before, last = 0.0, len(string.sections) - 1
    for k, section in enumerate(string.sections):
        place, to = f"{path}/sections/{k}/to_md_ft", section.to_md_ft
        if to is None and k < last:
            yield Fault(
                path=place, value="nothing", expected="a depth; only the last section ends at the shoe by itself"
            )
        elif to is not None and k == last:
            yield Fault(path=place, value=f"{to:g}", expected="nothing: the last section ends at the shoe")
        elif to is not None and to <= before:
            yield Fault(path=place, value=f"{to:g}", expected=f"a depth below the section above it ({before:g} ft)")
        before = to or before
    if string.tie_back and string.run != "liner":
        yield Fault(path=f"{path}/tie_back", value=string.run, expected="a liner: only a liner is tied back")


def _own_pipe_faults(design: Design) -> Iterable[Fault]:
    for i, pipe in enumerate(design.pipes):
        if pipe.wall_in >= pipe.od_in / 2:
            expected = f"under half of the outside diameter ({pipe.od_in / 2:g} in)"
            yield Fault(path=f"/pipes/{i}/wall_in", value=f"{pipe.wall_in:g}", expected=expected)
        if pipe.coupling_od_in < pipe.od_in:
            expected = f"at least the outside diameter of the pipe ({pipe.od_in:g} in)"
            yield Fault(path=f"/pipes/{i}/coupling_od_in", value=f"{pipe.coupling_od_in:g}", expected=expected)


def _drill_string_faults(design: Design) -> Iterable[Fault]:
    """A bore is smaller than the pipe that it is in."""
    for i, row in enumerate(design.policy.mud.drill_strings):
        for what, bore, od in (
            ("pipe", row.pipe_id_in, row.pipe_od_in),
            ("collar", row.collar_id_in, row.collar_od_in),
        ):
            if bore is not None and bore >= od:
                path = f"/policy/mud/drill_strings/{i}/{what}_id_in"
                yield Fault(
                    path=path, value=f"{bore:g} in", expected=f"under the outside diameter of the {what} ({od:g} in)"
                )


def _station_faults(trajectory: Trajectory) -> Iterable[Fault]:
    stations = trajectory.stations
    if stations[0].md_ft != 0:
        yield Fault(path="/trajectory/stations/0/md_ft", value=f"{stations[0].md_ft:g}", expected="0, the rig floor")
    for i in range(1, len(stations)):
        if stations[i].md_ft <= stations[i - 1].md_ft:
            expected = f"a depth below the station before it ({stations[i - 1].md_ft:g} ft)"
            yield Fault(path=f"/trajectory/stations/{i}/md_ft", value=f"{stations[i].md_ft:g}", expected=expected)


def _site_faults(trajectory: Trajectory, site: Site) -> Iterable[Fault]:
    path = path_of(trajectory)
    above = [i for i, tvd in enumerate(path.tvd_ft) if tvd < 0]
    if above or path.knots_tvd_ft.min() < 0:
        i = above[0] if above else len(path.md_ft) - 1
        value = f"{trajectory.stations[i].inclination_deg:g}"
        expected = "a path that stays below the rig floor"
        yield Fault(path=f"/trajectory/stations/{i}/inclination_deg", value=value, expected=expected)
    bottom = site.rig_floor_ft + site.water_depth_ft
    if path.total_md_ft <= bottom:
        expected = f"a total depth below the ground ({bottom:g} ft from the rig floor)"
        last = len(trajectory.stations) - 1
        yield Fault(path=f"/trajectory/stations/{last}/md_ft", value=f"{path.total_md_ft:g}", expected=expected)


class _Named(Protocol):
    @property
    def id(self) -> str: ...


def _twice(path: str, rows: Sequence[_Named]) -> Iterable[Fault]:
    """An id names one row only."""
    seen: set[str] = set()
    for i, row in enumerate(rows):
        if row.id in seen:
            yield Fault(path=f"{path}/{i}/id", value=row.id, expected="an id that no other row has")
        seen.add(row.id)


def _id_faults(design: Design) -> Iterable[Fault]:
    yield from _twice("/strings", design.strings)
    yield from _twice("/ground/zones", design.ground.zones)
    yield from _twice("/wellhead/pieces", design.wellhead.pieces)
    yield from _twice("/preventers", design.preventers)
    for i, stack in enumerate(design.preventers):
        yield from _twice(f"/preventers/{i}/elements", stack.elements)
    yield from _twice("/balanced_plugs", design.balanced_plugs)
    for key in ("evaluation", "pressure_points", "perforations", "verified"):
        yield from _twice(f"/completion/{key}", getattr(design.completion, key))
    for key in ("rates", "steps", "edits", "orders"):
        yield from _twice(f"/runsheet/{key}", getattr(design.runsheet, key))
    for way in ("suspension", "abandonment"):
        yield from _twice(f"/completion/{way}/plugs", getattr(design.completion, way).plugs)


def _stack_faults(design: Design) -> Iterable[Fault]:
    """A range of pipe runs from the less to the larger."""
    for i, stack in enumerate(design.preventers):
        for k, element in enumerate(stack.elements):
            least, most = element.from_in, element.to_in
            if least is not None and most is not None and most < least:
                path = f"/preventers/{i}/elements/{k}/to_in"
                yield Fault(
                    path=path, value=f"{most:g} in", expected=f"no less than the start of the range ({least:g} in)"
                )


def _deck_faults(design: Design, ground_ft: float) -> Iterable[Fault]:
    """A wellhead deck stands over the mudline."""
    deck = design.wellhead.deck_md_ft
    if design.site.setting == "platform" and deck is not None and deck > ground_ft:
        expected = f"a deck above the mudline ({ground_ft:g} ft from the rig floor)"
        yield Fault(path="/wellhead/deck_md_ft", value=f"{deck:g}", expected=expected)


@remembered(16)
def _ground_faults(ground: GroundModel, gas_psi_ft: float) -> tuple[Fault, ...]:
    faults = [*_order_faults(ground)]
    return (*faults, *(() if faults else _crossed_profiles(ground, gas_psi_ft)))


@remembered(16)
def _path_faults(trajectory: Trajectory, site: Site) -> tuple[Fault, ...]:
    return tuple(_station_faults(trajectory)) or tuple(_site_faults(trajectory, site))


def cross_faults(design: Design) -> list[Fault]:
    """Faults across fields, in the order of the document."""
    stations = tuple(_station_faults(design.trajectory))
    if stations:
        return list(stations)
    faults = [
        *_path_faults(design.trajectory, design.site),
        *_ground_faults(design.ground, design.policy.pipe.gas_psi_ft),
    ]
    total = design.trajectory.stations[-1].md_ft
    ground = design.site.rig_floor_ft + design.site.water_depth_ft
    for i, string in enumerate(design.strings):
        faults.extend(_string_faults(i, string, design.strings[i - 1] if i else None, ground, total))
    faults += [
        *plug_faults("/balanced_plugs", design.balanced_plugs, total),
        *_stack_faults(design),
        *_deck_faults(design, ground),
    ]
    faults += [*_soil_faults(design.sea.soil), *completion_faults(design, total, ground), *runsheet_faults(design)]
    return [
        *faults,
        *_own_pipe_faults(design),
        *_drill_string_faults(design),
        *_id_faults(design),
        *log_faults(design.log),
    ]
