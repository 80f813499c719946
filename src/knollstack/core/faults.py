"""Reading a document: every fault gets one message that says where, what came, and what was expected.

A fault makes the document unusable (it is refused whole, never repaired in silence). What is merely unwise or
unknown is a finding of the evaluation instead.
"""

from __future__ import annotations

import json
import math
from collections.abc import Iterable
from typing import Any

import numpy as np
from pydantic import BaseModel, ValidationError

from knollstack.core.design import FORMAT, VERSION, Design, Point
from knollstack.core.glossary import unit_of
from knollstack.core.ground import build_ground
from knollstack.core.strings import String
from knollstack.core.trajectory import build_path


class Fault(BaseModel):
    path: str
    value: str
    expected: str

    @property
    def message(self) -> str:
        return f"{self.path or '/'}: {self.value}; expected {self.expected}"


class FaultyDesign(ValueError):  # noqa: N818 - it is the document that is faulty
    def __init__(self, faults: list[Fault]) -> None:
        self.faults = faults
        super().__init__("\n".join(fault.message for fault in faults))


_EXPECTED = {
    "missing": "a value",
    "extra_forbidden": "no such key in this format",
    "float_type": "a number",
    "int_type": "a whole number",
    "string_type": "text",
    "bool_type": "true or false",
    "finite_number": "a finite number",
    "tuple_type": "a list",
    "model_type": "an object",
    "model_attributes_type": "an object",
}
_BOUNDS = (
    ("ge", "at least {:g}"),
    ("gt", "more than {:g}"),
    ("le", "at most {:g}"),
    ("lt", "less than {:g}"),
)


def _expected(error: dict[str, Any]) -> str:
    context = error.get("ctx", {})
    for key, text in _BOUNDS:
        if key in context:
            return f"{text.format(context[key])} {unit_of(str(error['loc'][-1]))}".strip()
    if error["type"] == "literal_error":
        return f"one of {context['expected']}"
    if error["type"] in ("too_long", "string_too_long"):
        return f"at most {context['max_length']} of them"
    if error["type"] == "too_short":
        return f"at least {context['min_length']} of them"
    return _EXPECTED.get(error["type"], error["msg"])


def _shown(value: Any) -> str:
    if isinstance(value, float) and not math.isfinite(value):
        return "NaN" if math.isnan(value) else "Infinity" if value > 0 else "-Infinity"
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else text[:57] + "…"


def schema_faults(error: ValidationError) -> list[Fault]:
    """Faults from pydantic's errors, one a place."""
    faults: dict[str, Fault] = {}
    for item in error.errors(include_url=False):
        path = "".join(f"/{part}" for part in item["loc"])
        value = "nothing" if item["type"] == "missing" else _shown(item["input"])
        faults.setdefault(path, Fault(path=path, value=value, expected=_expected(dict(item))))
    # a list is also counted too short when one of its rows is faulty: only the row is the fault
    return [f for path, f in faults.items() if not any(other.startswith(f"{path}/") for other in faults)]


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


def _ground_faults(design: Design) -> Iterable[Fault]:
    ground = design.ground
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


def _crossed_profiles(design: Design) -> Iterable[Fault]:
    """Fracture below pore anywhere, reported at the first point of either profile where it is so."""
    ground = build_ground(design.ground, design.policy.gas_psi_ft)
    for name in ("fracture", "leak_off_tests", "pore"):
        depths = np.array([point.tvd_ft for point in getattr(design.ground, name)])
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
    if above is not None and string.shoe_md_ft <= above.shoe_md_ft:
        expected = f"a shoe below the one before it ({above.shoe_md_ft:g} ft)"
        yield Fault(path=f"{path}/shoe_md_ft", value=f"{string.shoe_md_ft:g}", expected=expected)
    above_md = above.shoe_md_ft if above is not None else ground_md_ft
    for k, step in enumerate(string.mud_steps):
        before = string.mud_steps[k - 1].to_md_ft if k else above_md
        if not before < step.to_md_ft < string.shoe_md_ft:
            expected = f"a depth between {before:g} and {string.shoe_md_ft:g} ft"
            yield Fault(path=f"{path}/mud_steps/{k}/to_md_ft", value=f"{step.to_md_ft:g}", expected=expected)
    yield from _pipe_faults(path, string)
    if string.run == "liner" and string.hanger_md_ft is None:
        yield Fault(path=f"{path}/hanger_md_ft", value="nothing", expected="the depth of a liner's hanger")
    for key, top in (("hanger_md_ft", string.hanger_md_ft), ("cement/top_md_ft", string.cement.top_md_ft)):
        if top is not None and top >= string.shoe_md_ft:
            expected = f"a depth above the shoe ({string.shoe_md_ft:g} ft)"
            yield Fault(path=f"{path}/{key}", value=f"{top:g}", expected=expected)


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


def _station_faults(design: Design) -> Iterable[Fault]:
    stations = design.trajectory.stations
    if stations[0].md_ft != 0:
        yield Fault(path="/trajectory/stations/0/md_ft", value=f"{stations[0].md_ft:g}", expected="0, the rig floor")
    for i in range(1, len(stations)):
        if stations[i].md_ft <= stations[i - 1].md_ft:
            expected = f"a depth below the station before it ({stations[i - 1].md_ft:g} ft)"
            yield Fault(path=f"/trajectory/stations/{i}/md_ft", value=f"{stations[i].md_ft:g}", expected=expected)


def _site_faults(design: Design) -> Iterable[Fault]:
    path = build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in design.trajectory.stations])
    above = [i for i, tvd in enumerate(path.tvd_ft) if tvd < 0]
    if above or path.knots_tvd_ft.min() < 0:
        i = above[0] if above else len(path.md_ft) - 1
        value = f"{design.trajectory.stations[i].inclination_deg:g}"
        expected = "a path that stays below the rig floor"
        yield Fault(path=f"/trajectory/stations/{i}/inclination_deg", value=value, expected=expected)
    bottom = design.site.rig_floor_ft + design.site.water_depth_ft
    if path.total_md_ft <= bottom:
        expected = f"a total depth below the ground ({bottom:g} ft from the rig floor)"
        last = len(design.trajectory.stations) - 1
        yield Fault(path=f"/trajectory/stations/{last}/md_ft", value=f"{path.total_md_ft:g}", expected=expected)
    for i, stack in enumerate(design.preventers):
        if stack.role_index >= max(1, len(design.strings)):
            expected = f"the index of one of {len(design.strings)} strings"
            yield Fault(path=f"/preventers/{i}/role_index", value=str(stack.role_index), expected=expected)


def cross_faults(design: Design) -> list[Fault]:
    """Faults across fields, in the order of the document."""
    faults = list(_station_faults(design))
    if faults:
        return faults
    faults = [*_site_faults(design), *_ground_faults(design)]
    if not any(f.path.startswith("/ground") for f in faults):
        faults.extend(_crossed_profiles(design))
    total = design.trajectory.stations[-1].md_ft
    ground = design.site.rig_floor_ft + design.site.water_depth_ft
    for i, string in enumerate(design.strings):
        faults.extend(_string_faults(i, string, design.strings[i - 1] if i else None, ground, total))
    faults.extend(_own_pipe_faults(design))
    return faults


def parse(document: Any) -> Design:
    """A design from a decoded JSON document; raises FaultyDesign with every fault found."""
    if not isinstance(document, dict):
        raise FaultyDesign([Fault(path="", value=_shown(document), expected="a well file: one JSON object")])
    if document.get("format") != FORMAT:
        raise FaultyDesign(
            [Fault(path="/format", value=_shown(document.get("format")), expected=f'"{FORMAT}", a well file')]
        )
    if document.get("version") != VERSION:
        shown = _shown(document.get("version"))
        raise FaultyDesign([Fault(path="/version", value=shown, expected=f"{VERSION}, the version read here")])
    try:
        design = Design.model_validate(document)
    except ValidationError as error:
        raise FaultyDesign(schema_faults(error)) from error
    faults = cross_faults(design)
    if faults:
        raise FaultyDesign(faults)
    return design


def decode(text: str | bytes) -> Any:
    """The JSON value of a text; raises FaultyDesign with the one fault that makes it no JSON."""
    try:
        return json.loads(text)
    except UnicodeDecodeError as error:
        raise FaultyDesign([Fault(path="", value="bytes that are not UTF-8 text", expected="a JSON file")]) from error
    except RecursionError as error:
        raise FaultyDesign([Fault(path="", value="JSON nested too deep", expected="a well file")]) from error
    except ValueError as error:
        where = f"line {getattr(error, 'lineno', 1)}, column {getattr(error, 'colno', 1)}"
        raise FaultyDesign([Fault(path="", value=f"not JSON at {where}", expected="a complete JSON file")]) from error


def parse_text(text: str | bytes) -> Design:
    """A design from the text of a well file."""
    return parse(decode(text))
