"""A storm with its warning: the well is left safe and the riser recovered in time, or not begun."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, find, hours
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import StormResult, StormStep
from knollstack.core.sea.riser import through_riser
from knollstack.core.sea.schedule import displaced_hours, recovered_hours

PLACE = "/sea/storm_hours"
RECONNECT = (
    "Survey the sea floor and the position; look at the housing by camera.",
    "Pull the riser package's gasket and seals, dress and test them on deck.",
    "Position over the housing, space out, land and latch; pull to check the latch.",
    "Test the connector; function both pods; bring choke and kill lines to pressure.",
    "Displace the riser to mud; read the pressure under the closed shear rams before they are opened.",
    "Open, circulate on the choke as far as gas is shown, fish what was cut.",
)
"""What is done after a disconnect, in order."""


def storm_of(equipped: Equipped, made: MadeUp) -> StormResult | None:
    """Pull out of the deepest hole, set a storm plug, displace the riser, recover it."""
    strings, policy = through_riser(equipped), equipped.well.policy
    if not strings:
        return None
    deepest = max(s.shoe_md_ft for s in strings)
    speed = policy.mud.trip_speed_ft_min
    steps = []
    if speed > 0:
        steps.append(StormStep(name="Pull out of the deepest hole", hours=deepest / speed / 60))
    steps.append(StormStep(name="Set and test the storm plug", hours=policy.sea.plug_hours))
    steps.append(StormStep(name="Displace the riser to sea water", hours=displaced_hours(equipped, made)))
    steps.append(StormStep(name="Unlatch and recover the riser", hours=recovered_hours(equipped, made)))
    total = sum(step.hours for step in steps)
    known = speed > 0
    return StormResult(
        steps=tuple(steps), total_hours=total if known else None, warning_hours=equipped.design.sea.storm_hours
    )


def storm_findings(found: StormResult | None) -> Iterator[Finding]:
    if found is None or found.warning_hours is None or found.total_hours is None:
        return
    if found.total_hours > found.warning_hours:
        yield find(
            "sea",
            "stop",
            PLACE,
            ("Storm",),
            "Leaving the well and recovering the riser takes ",
            hours(found.total_hours),
            "; a storm is told ",
            hours(found.warning_hours),
            " before.",
            value=hours(found.total_hours),
            limit=hours(found.warning_hours),
        )
