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
    if len(points) < LEAST_POINTS:
        return None
    top = int(np.argmax(pressures))
    if top + 1 < LEAST_POINTS:
        return None
    lines = [_grown(volumes[: top + 1], pressures[: top + 1], first) for first in range(top + 2 - LEAST_POINTS)]
    rising = [line for line in lines if line is not None and line.slope_psi_bbl > 0]
    if not rising:
        return None
    line = max(rising, key=lambda a: (pressures[a.last] - pressures[a.first]) * a.slope_psi_bbl)
    kind: Literal["leak-off", "integrity"] = "integrity" if line.last == len(points) - 1 else "leak-off"
    return Break(kind, float(pressures[line.last]), float(volumes[line.last]), line)


def _grown(volumes: Floats, pressures: Floats, first: int) -> Line | None:
    """The longest line from a point on; None where it ends because pressure rises faster: that is no break."""
    last = first + LEAST_POINTS - 1
    line, allowed = _fitted(volumes, pressures, first, last)
    if np.max(np.abs(_off(line, volumes, pressures)[first : last + 1])) > allowed:
        return None
    while last + 1 < len(volumes):
        off = _off(line, volumes, pressures)
        here, after = off[last + 1], off[last + 2] if last + 2 < len(volumes) else np.inf
        if abs(here) > allowed and (here > 0 or abs(after) > allowed):
            return None if here > 0 else line
        last += 1 if abs(here) <= allowed else 2  # one reading beside the line that the next is on again
        line, allowed = _fitted(volumes, pressures, first, last)
    return line


def _fitted(volumes: Floats, pressures: Floats, first: int, last: int) -> tuple[Line, float]:
    """A line by least squares, and how far from it a point may lie."""
    slope, offset = np.polyfit(volumes[first : last + 1], pressures[first : last + 1], 1)
    line = Line(first, last, float(slope), float(offset))
    spread = float(np.sqrt(np.mean(_off(line, volumes, pressures)[first : last + 1] ** 2)))
    least, most = (share * float(np.max(pressures)) for share in OFF_LINE_SHARES)
    return line, min(most, max(least, OFF_LINE_DEVIATIONS * spread))


def _off(line: Line, volumes: Floats, pressures: Floats) -> Floats:
    return pressures - line.offset_psi - line.slope_psi_bbl * volumes
