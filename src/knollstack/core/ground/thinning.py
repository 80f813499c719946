"""Thinning of a densely sampled curve to the shape of a profile, with its greatest error stated.

Ramer (1972), Douglas and Peucker (1973), with the error measured along the value: the thinned profile, linear between
its points, differs from no sample by more than the tolerance.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


def thin(depth_ft: Floats, value: Floats, tolerance: float) -> tuple[NDArray[np.intp], float]:
    """Indices of the samples to keep, first and last among them, and the greatest error that is left.

    Depths rise; two samples at one depth are a step and are both kept.
    """
    keep = np.zeros(len(depth_ft), dtype=bool)
    keep[[0, -1]] = True
    steps = np.flatnonzero(np.diff(depth_ft) == 0)
    keep[steps] = keep[steps + 1] = True
    pending = list(zip(np.flatnonzero(keep)[:-1], np.flatnonzero(keep)[1:], strict=True))
    greatest = 0.0
    while pending:
        a, b = pending.pop()
        if b - a < 2:
            continue
        inner = slice(a + 1, b)
        share = (depth_ft[inner] - depth_ft[a]) / (depth_ft[b] - depth_ft[a])
        error = np.abs(value[inner] - (value[a] * (1 - share) + value[b] * share))
        worst = int(np.argmax(error))
        if error[worst] <= tolerance:
            greatest = max(greatest, float(error[worst]))
            continue
        keep[a + 1 + worst] = True
        pending += [(a, a + 1 + worst), (a + 1 + worst, b)]
    return np.flatnonzero(keep), greatest
