"""Scratchers across the permeable zones behind cement: how many, by how the string is moved while cementing."""

from __future__ import annotations

import math

from knollstack.core.document.running import Movement
from knollstack.core.running.centralizing import wanted_span
from knollstack.core.running.run import Run

ROTATED_EVERY_FT = 5.0
"""Fixed to a string that is rotated, scratchers stand close: planning assumption."""


def moved_of(run: Run) -> Movement:
    return run.string.own.running.moved or run.well.policy.running.moved


def scratched(run: Run) -> list[tuple[float, float]]:
    """Stretches to be scratched [ft MD]: permeable zones behind cement with the cover of policy, joined where they meet."""
    span = wanted_span(run)
    if span is None:
        return []
    cover, path = run.well.policy.running.zone_cover_ft, run.well.path
    found: list[tuple[float, float]] = []
    for zone in run.well.ground.model.zones:
        top, base = float(path.md_at(zone.top_tvd_ft)), float(path.md_at(zone.base_tvd_ft))
        if not zone.permeable or base <= span[0] or top >= span[1]:
            continue
        high, low = max(top - cover, span[0]), min(base + cover, span[1])
        if found and high <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], low))
        else:
            found.append((high, low))
    return found


def scratchers(run: Run) -> int | None:
    """How many: no farther apart than the stroke of a string that is reciprocated; None where none is wanted."""
    if not run.string.own.running.scratchers:
        return None
    moved = moved_of(run)
    if moved == "held still":
        return 0
    apart = run.well.policy.running.stroke_ft if moved == "reciprocated" else ROTATED_EVERY_FT
    return sum(math.ceil((low - high) / apart - 1e-9) + 1 for high, low in scratched(run))
