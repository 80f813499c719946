"""Rules by which entries of the log become facts: values at places of the document, each with the entries it comes from.

Rules stand in the order in which they are put in: path and shoes first, since muds and tests stand by them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any, NamedTuple

from knollstack.core.document.design import Design
from knollstack.core.document.log import LogEntry
from knollstack.core.document.strings import String
from knollstack.core.logbook.told import Told


class Fact(NamedTuple):
    """A value in force at a place of the document, in place of the plan's."""

    path: str
    value: Any
    entries: tuple[int, ...]


Rule = Callable[[Told, Design], Iterator[Fact]]


def spud_facts(told: Told, design: Design) -> Iterator[Fact]:
    """The date on which the well was spudded."""
    for entry in list(told.about("spud"))[-1:]:
        yield Fact("/runsheet/spud", entry.at[:10], (entry.number,))


def path_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Stations surveyed, down to the last of them; the plan's below. A hole deeper than planned goes on as it was."""
    surveyed = {e.md_ft: e for e in told.about("survey") if e.md_ft}
    rows = [s.model_dump(mode="json") for s in design.trajectory.stations]
    sources: tuple[int, ...] = ()
    if surveyed:
        last = max(surveyed)
        measured = [
            {"md_ft": md, "inclination_deg": e.inclination_deg, "azimuth_deg": e.azimuth_deg}
            for md, e in sorted(surveyed.items())
        ]
        rows = [rows[0], *measured, *(row for row in rows if row["md_ft"] > last)]
        sources = tuple(e.number for _, e in sorted(surveyed.items()))
    today = told.today_md_ft
    if today is not None and today > rows[-1]["md_ft"]:
        rows.append({**rows[-1], "md_ft": today})
        sources = (*sources, *(e.number for e in told.entries if e.md_ft == today))
    if sources:
        yield Fact("/trajectory/stations", rows, sources)


def shoe_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Strings that stand, where they stand and what they are; what of the plan lies below their shoe goes."""
    for index, entry in sorted(told.landed.items()):
        path, string, by = f"/strings/{index}", design.strings[index], (entry.number,)
        yield from cut_off(path, string, entry.md_ft or 0.0, by)
        yield Fact(f"{path}/shoe_md_ft", entry.md_ft, by)
        for key in ("hanger_md_ft", "bit_in", "od_in"):
            if getattr(entry, key) is not None:
                yield Fact(f"{path}/{key}", getattr(entry, key), by)
        if entry.weight_ppf is not None:
            pipe = {"weight_ppf": entry.weight_ppf, "grade": entry.grade, "connection": entry.connection}
            yield Fact(f"{path}/sections", [], by)
            yield Fact(f"{path}/pipe", pipe, by)


def cut_off(path: str, string: String, shoe: float, by: tuple[int, ...]) -> Iterator[Fact]:
    """What the plan has of a string at or below the depth at which its shoe stands."""
    above = [s.model_dump(mode="json") for s in string.mud_steps if s.to_md_ft < shoe]
    if len(above) < len(string.mud_steps):
        yield Fact(f"{path}/mud_steps", above, by)
    for part, key in (("cement", "top_md_ft"), ("running", "landing_md_ft")):
        planned = getattr(getattr(string, part), key)
        if planned is not None and planned >= shoe:
            yield Fact(f"{path}/{part}/{key}", None, by)
    kept = [s for s in string.sections if s.to_md_ft is not None and s.to_md_ft < shoe]
    if len(kept) + 1 < len(string.sections):
        ending = string.sections[len(kept)].model_copy(update={"to_md_ft": None})
        yield Fact(f"{path}/sections", [s.model_dump(mode="json") for s in (*kept, ending)], by)


def mud_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Mud weights down to today's depth; below it the plan's, but for a hole that is cased: there the last one logged."""
    logged = [e for e in told.entries if e.kind in ("mud", "depth", "kick") and e.mud_ppg is not None]
    above = design.site.rig_floor_ft + design.site.water_depth_ft
    for index, string in enumerate(design.strings):
        top, above = above, string.shoe_md_ft
        if index > told.drilling:
            return
        if string.run not in ("cased", "liner"):
            continue
        stands, landed = index < told.drilling, told.landed.get(index)
        inside = [e for e in logged if (e.md_ft or 0.0) > top and _drilling(e, landed, above if stands else None)]
        logged = [e for e in logged if e not in inside]
        if inside:
            yield from _muds(f"/strings/{index}", string, told, inside, stands)
        elif index == told.drilling and string.mud_steps:
            yield from _steps_left(f"/strings/{index}", string, told, top)


def _drilling(entry: LogEntry, landed: LogEntry | None, shoe: float | None) -> bool:
    """Whether an entry is of the hole of a string: before that landed, else above its shoe, else of the hole that is open."""
    if landed is not None:
        return entry.at <= landed.at
    return shoe is None or (entry.md_ft or 0.0) <= shoe


def _muds(path: str, string: String, told: Told, inside: list[LogEntry], stands: bool) -> Iterator[Fact]:
    """Each weight from the depth at which it was logged, the first from the shoe above; the hole's end sees what is in it now."""
    by = tuple(e.number for e in inside)
    deepest = told.today_md_ft if not stands and told.today_md_ft is not None else string.shoe_md_ft
    steps = _steps(_by_depth(inside, deepest), deepest)
    whole = stands or deepest >= string.shoe_md_ft
    kept = [] if whole else [(s.to_md_ft, s.mud_ppg) for s in string.mud_steps if s.to_md_ft > deepest]
    rows = [step for step in steps if step[0] < string.shoe_md_ft]
    yield Fact(f"{path}/mud_steps", [{"to_md_ft": to, "mud_ppg": ppg} for to, ppg in (*rows, *kept)], by)
    if whole:
        yield Fact(f"{path}/mud_ppg", steps[-1][1], by)


def _steps(weights: list[tuple[float, float]], deepest: float) -> list[tuple[float, float]]:
    """Down to which depth each weight was in the hole; one logged at its very end takes the last stretch for its own."""
    (first, ppg), *_ = weights
    steps = [(first, ppg)]
    for (begins, ppg), to in zip(weights, [*[md for md, _ in weights[1:]], deepest], strict=True):
        if begins >= deepest:
            steps[-1] = (deepest, ppg)
        else:
            steps.append((to, ppg))
    return [s for s, after in zip(steps, [*steps[1:], None], strict=True) if after is None or after[1] != s[1]]


def _by_depth(inside: list[LogEntry], deepest: float) -> list[tuple[float, float]]:
    """Depths of the hole with the weight that was logged there last; a hole never gets shallower, nor deeper than its end."""
    found: dict[float, float] = {}
    reached = 0.0
    for entry in inside:
        reached = min(deepest, max(reached, entry.md_ft or 0.0))
        found[reached] = entry.mud_ppg or 0.0
    return list(found.items())


def _steps_left(path: str, string: String, told: Told, top: float) -> Iterator[Fact]:
    """Under a shoe that stands deeper than planned the plan's first steps are gone."""
    kept = [s.model_dump(mode="json") for s in string.mud_steps if s.to_md_ft > top]
    if len(kept) < len(string.mud_steps):
        yield Fact(f"{path}/mud_steps", kept, tuple(e.number for e in told.landed.values())[-1:])
