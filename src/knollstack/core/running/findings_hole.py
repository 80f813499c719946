"""What is wrong with a string in its hole: centralizers that cannot be, standoff that is short, sticking when held still."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from knollstack.core.base.findings import Finding, Remedy, Words, depth, force, percent, remedy, size
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import CentralizerType
from knollstack.core.running.centralizing import Interval, decided, types_for
from knollstack.core.running.findings import say
from knollstack.core.running.run import Run
from knollstack.core.running.spacing import spaced
from knollstack.core.running.standoff import Placed, Standoffs, place, standoffs
from knollstack.core.running.sticking import Held


def centralizer_findings(
    run: Run,
    catalogue: Catalogue,
    own: tuple[CentralizerType, ...],
    intervals: tuple[Interval, ...],
    drift_in: float | None,
) -> Iterator[Finding]:
    """Runs that cannot be: no such centralizer for the size, upside down, too wide for the casing above or the hole."""
    types = types_for(run.string.od_in or 0.0, catalogue, own)
    for row, kind, place_ in decided(run, types):
        if row.base_md_ft <= row.top_md_ft:
            yield say(
                run, "caution", f"{place_}/base_md_ft", "The interval of centralizers ends above where it begins."
            )
        if kind is None:
            text: Words = (f"No centralizer “{row.type}” is known for ", size(run.string.od_in or 0.0), " casing.")
            yield say(run, "caution", f"{place_}/type", *text)
    for interval in {i.kind.type: i for i in intervals}.values():
        kind = interval.kind
        if kind.kind == "bow spring" and kind.restoring_lbf is None:
            yield say(
                run,
                "unknown",
                interval.place,
                f"Standoff is unknown: the restoring force of “{kind.type}” is not given.",
            )
        if kind.running_lbf is None:
            text_ = f"The drag of “{kind.type}” is not in the hook load: its running force is not given."
            yield say(run, "unknown", interval.place, text_)
        if kind.kind == "rigid" and kind.blade_in is None:
            yield say(
                run, "unknown", interval.place, f"Standoff is unknown: the blade OD of “{kind.type}” is not given."
            )
        for bore, what in ((drift_in, "drift of the casing above"), (run.string.bit_in, "hole")):
            if kind.kind == "rigid" and kind.blade_in is not None and bore is not None and kind.blade_in > bore + 1e-9:
                text = (f"The blades of “{kind.type}” are ", size(kind.blade_in), f"; the {what} is ", size(bore), ".")
                yield say(run, "stop", interval.place, *text)


def standoff_findings(
    run: Run, intervals: tuple[Interval, ...], placed: Placed, found: Standoffs, worst: int | None
) -> Iterator[Finding]:
    if worst is None or np.any(np.isnan(found.midway)) or found.short[worst] <= 1e-9:
        return
    short = found.midway < found.asked - 1e-9
    length_ft = float(np.sum((found.low_md_ft - found.high_md_ft)[short]))
    text: Words = (
        "Between ",
        depth(float(found.high_md_ft[worst])),
        " and ",
        depth(float(found.low_md_ft[worst])),
        " standoff is ",
        percent(float(found.midway[worst])),
        "; ",
        percent(float(found.asked[worst])),
        " is asked. ",
        depth(length_ft),
        " of hole are short.",
    )
    mend = _closer(run, intervals)
    working = "standoff" if worst < len(placed.up_ft) else None
    yield say(run, "caution", "centralizers", *text, remedies=() if mend is None else (mend,), working=working)


def _closer(run: Run, intervals: tuple[Interval, ...]) -> Remedy | None:
    """The same intervals as close as policy's standoff needs; tried, and offered where it holds."""
    rows = run.string.own.running.centralizers
    if not rows or len(rows) != len(intervals):
        return None
    closer = tuple(spaced(run, replace(i, standoff_percent=None), None).interval for i in intervals)
    tried = standoffs(run, place(run, closer))
    if not len(tried.midway) or np.any(tried.short > 1e-9):
        return None
    changed = [
        row.model_dump(mode="json") | {"number": i.number, "joints": i.joints, "standoff_percent": None}
        for row, i in zip(rows, closer, strict=True)
    ]
    return remedy(run.string.change("running/centralizers", changed), "Centralize as close as the standoff asks")


def sticking_findings(run: Run, held: tuple[Held, ...], left_lbf: float | None) -> Iterator[Finding]:
    for zone in held:
        if zone.force_lbf is None:
            text: Words = (f"Sticking in {zone.zone.name} is unknown: pore pressure is not given there.",)
            yield say(run, "unknown", f"/ground/zones/{zone.index}/name", *text)
        elif left_lbf is not None and zone.force_lbf > left_lbf + 1e-9 and not zone.centralized:
            text = (f"Held still across {zone.zone.name}, the string sticks with ", force(zone.force_lbf))
            rest: Words = (
                "; ",
                force(max(left_lbf, 0.0)),
                " of overpull are left. Keep it moving, and centralize the zone.",
            )
            place_ = f"/ground/zones/{zone.index}/name"
            yield say(run, "caution", place_, *text, *rest, working=f"sticking/{zone.index}")
