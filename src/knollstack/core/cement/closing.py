"""The end of a stage, once nothing is pumped any more: the plug bumped, the casing tested on it, the pressure bled back."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from knollstack.core.cement.checks import Worked
from knollstack.core.cement.pressures import annulus_of, pipe_of
from knollstack.core.cement.simulate import Course
from knollstack.core.pipe.frame import test_psi_of
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.sea_formulas import gauge_at_rig
from knollstack.core.program.equipped import Equipped, EquippedString

State = Literal["bump", "test", "bled"]
MINUTES: dict[State, float] = {"bump": 1.0, "test": 10.0, "bled": 1.0}
"""How long each is held, on the clock of the job's drawing."""
LANDS_BBL = 0.5


@dataclass(frozen=True, eq=False)
class Closed:
    """The last states of a stage, in order, with the pressures on both sides of the pipe."""

    states: tuple[State, ...]
    worked: Worked

    def only(self, state: State) -> Closed:
        """One of the states alone."""
        k = self.states.index(state)
        course = Course(*(values[k : k + 1] for values in vars(self.worked.course).values()))
        annulus, pipe, plug = self.worked.annulus.only(k), self.worked.pipe.only(k), self.worked.plug_psi
        held = None if plug is None else plug[k : k + 1]
        return Closed((state,), replace(self.worked, course=course, annulus=annulus, pipe=pipe, plug_psi=held))

    def surface_psi(self, state: State) -> float | None:
        if state not in self.states:
            return None
        return float(self.worked.course.pump_psi[self.states.index(state)])


def lands(held: Worked) -> bool:
    """The top plug lands: there is one, and its displacement is pumped."""
    return not held.stage.conduit.inner and bool(held.stage.fluids) and held.stage.short_bbl <= LANDS_BBL


def closed(held: Worked, bump_psi: float, test_psi: float | None = None) -> Closed:
    """Bump over the final pressure and a test on green cement where the plug lands; what is left is bled back in the end."""
    final = float(held.course.pump_psi[-1])
    surface: dict[State, float] = {"bump": final + bump_psi} if lands(held) else {}
    if lands(held) and test_psi is not None:
        surface["test"] = test_psi
    surface["bled"] = 0.0
    psi, count = np.array(list(surface.values())), len(surface)
    last = {name: np.repeat(values[-1:], count) for name, values in vars(held.course).items()}
    minutes = last["minutes"] + np.cumsum([MINUTES[state] for state in surface])
    still = {"in_bpm": np.zeros(count), "out_bpm": np.zeros(count), "pump_psi": psi, "minutes": minutes}
    course = Course(**(last | still))
    worked = replace(
        held,
        course=course,
        annulus=annulus_of(held.balance, course),
        pipe=pipe_of(held.balance, course),
        plug_psi=psi if lands(held) else np.zeros(count),
    )
    return Closed(tuple(surface), worked)


def green_test_psi(equipped: Equipped, string: EquippedString) -> float | None:
    """The casing test on green cement as the rig's gauge reads it; None where it is made later, or is unknown."""
    well = equipped.well
    if well.policy.pipe.pressure_test != "in green cement" or not string.drilled:
        return None
    psi, fluid = test_psi_of(well, string.laid, exposed_of(equipped, string)), string.displacement_ppg
    if psi is None or not well.wellhead_tvd_ft:
        return psi
    return None if fluid is None else float(gauge_at_rig(psi, fluid, well.wellhead_tvd_ft))
