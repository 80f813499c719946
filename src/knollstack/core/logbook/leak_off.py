"""The break of a leak-off test from its line, found from points of volume pumped and pressure.

Pressure rises in a line while the rock is closed. The line sought is the stretch of points that rises most and most steeply and
lies on one line by least squares; its last point is the break where the points after it fall below the line, or where pressure
falls after it. Where the line goes on to the last point there is no break: the test shows that the rock holds that much.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.document.log import PumpedPoint
from knollstack.core.path.trajectory import Floats

LEAST_POINTS = 3
OFF_LINE_SHARES = (0.01, 0.03)
"""Of the greatest pressure: less is no departure, since a gauge is read no finer; more always is one."""
OFF_LINE_DEVIATIONS = 3.0
CURVED_SPREAD = 1.65
"""Twice the middle of how far readings lie from midway between their neighbours, over one standard deviation."""


@dataclass(frozen=True)
class Line:
    """Pressure [psi] = offset + slope · volume [bbl], over the points `first` to `last`."""

    first: int
    last: int
    slope_psi_bbl: float
    offset_psi: float


@dataclass(frozen=True)
class Break:
    """What a test shows: the pressure at the break, or of an integrity test the greatest that it reached."""

    kind: Literal["leak-off", "integrity"]
    pressure_psi: float
    volume_bbl: float
    line: Line


def break_of(points: Sequence[PumpedPoint]) -> Break | None:
    """The break of a test; None with too few points, or where pressure does not rise in a line."""
    volumes = np.array([p.volume_bbl for p in points])
    pressures = np.array([p.pressure_psi for p in points])
    top = int(np.argmax(pressures)) if len(points) else 0
    if top + 1 < LEAST_POINTS:
        return None
    v, p = volumes[: top + 1], pressures[: top + 1]
    allowed = _allowed(v, p)
    lines = [_grown(v, p, first, allowed) for first in range(top + 2 - LEAST_POINTS)]
    rising = [line for line in lines if line is not None and line.slope_psi_bbl > 0]
    if not rising:
        return None
    line = max(rising, key=lambda a: (pressures[a.last] - pressures[a.first]) * a.slope_psi_bbl)
    kind: Literal["leak-off", "integrity"] = "integrity" if line.last == len(points) - 1 else "leak-off"
    return Break(kind, float(pressures[line.last]), float(volumes[line.last]), line)


def _allowed(volumes: Floats, pressures: Floats) -> float:
    """How far [psi] from a line a reading may lie: by the spread of all readings about their neighbours, within bounds."""
    before, after = volumes[1:-1] - volumes[:-2], volumes[2:] - volumes[1:-1]
    midway = (pressures[:-2] * after + pressures[2:] * before) / (before + after)
    spread = 2.0 * float(np.median(np.abs(pressures[1:-1] - midway))) / CURVED_SPREAD
    least, most = (share * float(pressures[-1]) for share in OFF_LINE_SHARES)
    return min(most, max(least, OFF_LINE_DEVIATIONS * spread))


def _grown(volumes: Floats, pressures: Floats, first: int, allowed: float) -> Line | None:
    """The longest line from a point on; None where it ends because pressure rises faster: that is no break."""
    on = list(range(first, first + LEAST_POINTS))
    slope, offset = np.polyfit(volumes[on], pressures[on], 1)
    if np.max(np.abs(pressures[on] - offset - slope * volumes[on])) > allowed:
        return None
    last = on[-1]
    while last + 1 < len(volumes):
        off = pressures - offset - slope * volumes
        here, after = off[last + 1], off[last + 2] if last + 2 < len(volumes) else np.inf
        if abs(here) <= allowed:
            last += 1
        elif abs(after) <= allowed:
            last += 2  # one reading beside the line that the next is on again
        else:
            if here > 0:
                return None
            break
        on.append(last)
        slope, offset = np.polyfit(volumes[on], pressures[on], 1)
    return Line(first, last, float(slope), float(offset))
