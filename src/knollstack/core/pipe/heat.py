"""What flow does to the temperature of a string: warmed in production, cooled by a treatment.

Temperatures are compared with those of the ground, at which the cement set. Flow runs straight from the producing depth
to the wellhead; where its temperature there is not given, it is assumed half of the ground's rise above the surface.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.findings import Assumption, assume, temperature
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure, Service
from knollstack.core.program.laid import LaidString

FLOWING_SHARE = 0.5
"""Flowing wellhead temperature over the ground's rise from surface to the producing depth."""
COOLED_SHARE = 0.5
"""Cooling at the shoe over that of pipe as cold as the treating fluid."""


@dataclass(frozen=True)
class Heat:
    """Temperature change [°F] at the top of a string and at its shoe."""

    top_f: float
    bottom_f: float

    def shared(self, share: float) -> Heat:
        """So much of it, further out."""
        return Heat(share * self.top_f, share * self.bottom_f)

    def along(self, share: NDArray[np.float64]) -> NDArray[np.float64]:
        """Change [°F] at shares of the way from top to shoe."""
        return self.top_f + (self.bottom_f - self.top_f) * share


NO_HEAT = Heat(0.0, 0.0)


def ground_f(well: Well, tvd_ft: float) -> float | None:
    """Temperature of the ground at a depth; None where none is given."""
    points = well.temperatures
    if not points:
        return None
    z, t = zip(*points, strict=True)
    return float(np.interp(tvd_ft, z, t))


def flowing_wellhead_f(well: Well, produced_from: LaidString) -> float | None:
    """Flowing wellhead temperature, given or estimated; None where no ground temperature is given."""
    top, bottom = ground_f(well, well.ground_md_ft), ground_f(well, well.path.tvd(produced_from.shoe_md_ft))
    if top is None or bottom is None:
        return None
    given = well.site.flowing_wellhead_f
    return given if given is not None else top + FLOWING_SHARE * (bottom - top)


def produced(well: Well, string: LaidString, produced_from: LaidString) -> Heat | None:
    """What production does to a string; None where it is unknown."""
    at_top = flowing_wellhead_f(well, produced_from)
    deepest = well.path.tvd(produced_from.shoe_md_ft)
    at_bottom = ground_f(well, deepest)
    if at_top is None or at_bottom is None:
        return None
    ends = []
    for md in (string.hung_md_ft, string.shoe_md_ft):
        tvd = well.path.tvd(md)
        usual = ground_f(well, tvd)
        assert usual is not None
        ends.append(float(np.interp(tvd, [well.ground_md_ft, deepest], [at_top, at_bottom])) - usual)
    return Heat(*ends)


def treating_fluid_f(well: Well, service: Service) -> float | None:
    """Temperature of the treating fluid, given or the ground's at surface; None where neither is known."""
    given = service.treating_fluid_f
    return given if given is not None else ground_f(well, well.ground_md_ft)


def treated(well: Well, string: LaidString, service: Service) -> Heat | None:
    """How a treatment cools a string; None where it is unknown."""
    fluid = treating_fluid_f(well, service)
    ends = [ground_f(well, well.path.tvd(md)) for md in (string.hung_md_ft, string.shoe_md_ft)]
    if fluid is None or ends[0] is None or ends[1] is None:
        return None
    return Heat(fluid - ends[0], COOLED_SHARE * (fluid - ends[1]))


def assumed(well: Well, string: LaidString, exposed: Exposure) -> list[Assumption]:
    """The temperatures that were not given."""
    assert exposed.produced_from is not None
    assert exposed.service is not None
    found, flowing = [], flowing_wellhead_f(well, exposed.produced_from)
    if flowing is not None and well.site.flowing_wellhead_f is None:
        text = ", half of the ground's rise, is assumed as the flowing wellhead temperature."
        found.append(assume("pipe", "/site/flowing_wellhead_f", temperature(flowing), text))
    fluid = treating_fluid_f(well, exposed.service)
    if exposed.service.treating_psi is None or fluid is None:
        return found
    place, how = "/completion/treating_fluid_f", " cools the string, half as much at its shoe."
    if exposed.service.treating_fluid_f is None:
        found.append(assume("pipe", place, *string.words, ": treating fluid of ", temperature(fluid), how))
    else:
        found.append(assume("pipe", place, *string.words, ": the treating fluid", how))
    return found
