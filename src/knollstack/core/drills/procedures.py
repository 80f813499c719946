"""The shut-in procedures by the school of policy, as they are posted on the rig floor."""

from __future__ import annotations

from knollstack.core.base.findings import Words, length, minutes, volume
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.results import Procedure

PRESSURES = "Record drill pipe and casing pressure, gain and time"
CASING_PRESSURE = "Record casing pressure, gain and time"
VALVE = "Stab the full-opening safety valve open, then close it"
LEAK = "If it leaks: look what pipe is across it, and close the ram that fits behind it"


def procedures(policy: DrillsPolicy, at_sea: bool) -> tuple[Procedure, ...]:
    """While drilling, tripping and running casing, with collars or nothing across the stack, on the diverter; and at sea."""
    first = "annular" if policy.first == "annular" else "pipe rams"
    hung: tuple[Words, ...] = (("Close the hang-off ram and hang the string off",),) if at_sea else ()
    closed, limits = (*_closing(policy, first), (LEAK,)), _limits(policy)
    annular, casing = _closing(policy, "annular"), (CASING_PRESSURE,)
    found = (
        Procedure(title="While drilling", steps=(*_drilling(policy), *closed, *hung, (PRESSURES,), limits)),
        Procedure(
            title="While tripping",
            steps=(*_tripping(policy), *closed, casing, ("Strip back to bottom through the annular",), limits),
        ),
        Procedure(
            title="Collars across the stack",
            steps=(
                (VALVE,),
                *annular,
                ("No ram of pipe size on collars; if nothing holds: drop the string, close blind rams",),
                casing,
                limits,
            ),
        ),
        Procedure(
            title="Casing across the stack",
            steps=(("Fill the casing",), (VALVE,), *_closing(policy, "annular or casing rams"), casing, limits),
        ),
        Procedure(title="No pipe in the hole", steps=(*_closing(policy, "blind rams"), casing, limits)),
        Procedure(title="On the diverter", steps=_diverting()),
    )
    return (*found, *_floating(policy)) if at_sea else found


def _drilling(policy: DrillsPolicy) -> tuple[Words, ...]:
    steps: tuple[Words, ...] = (
        ("Pick up at least ", length(policy.pick_up_ft), " until tool joints are clear of the stack"),
        ("Pumps off",),
    )
    return (*steps, ("Flow check",)) if policy.flow_check else steps


def _tripping(policy: DrillsPolicy) -> tuple[Words, ...]:
    steps: tuple[Words, ...] = (("Set slips",),)
    if policy.flow_check:
        steps = (*steps, ("Flow check",))
    return (*steps, (VALVE,))


def _closing(policy: DrillsPolicy, first: str) -> tuple[Words, ...]:
    if policy.shut_in == "hard":
        return ((f"Close {first}, choke closed",), ("Open the choke line valve",))
    return (("Open the choke line valve, choke open",), (f"Close {first}",), ("Close the choke",))


def _limits(policy: DrillsPolicy) -> Words:
    return (
        "All within ",
        minutes(policy.most_minutes),
        " of the first sign and ",
        volume(policy.most_gain_bbl),
        " of gain",
    )


def _diverting() -> tuple[Words, ...]:
    return (
        ("Open the overboard line downwind",),
        ("Close the diverter",),
        ("Pumps to the greatest rate",),
        ("Never shut in",),
    )


def _floating(policy: DrillsPolicy) -> tuple[Procedure, ...]:
    """With a riser between the stack and the rig floor."""
    return (
        Procedure(
            title="Gas above the stack",
            steps=(
                ("Shut the well in at the stack, as while drilling",),
                ("Open the overboard line downwind",),
                ("Close the diverter",),
            ),
        ),
        Procedure(
            title="Drift-off",
            steps=(
                ("Yellow circle: pumps off, pick up at least ", length(policy.pick_up_ft), ", hang off"),
                ("Red circle: close the blind shear rams over the string that is hung off",),
                ("Look that the bore is sealed",),
                ("Unlatch before the limit of the flex joint",),
            ),
        ),
    )
